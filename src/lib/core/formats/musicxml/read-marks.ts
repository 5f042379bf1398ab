/** What stands at the bars of a score beside notes and chords: the way through the form, and marks that are only told. */
import type { BarMarks } from './form';
import { all, attribute, childrenOf, nameOf, textOf, type Node } from './score';

/** "1", "1, 2", "1-3": the passes that an ending is for. */
function passesOf(text: string): number[] {
  return text.split(/[,.\s]+/).flatMap((part) => {
    const [from, to = from] = part.split('-').map(Number);
    if (!from || !to || to < from || to > 64) return [];
    return Array.from({ length: to - from + 1 }, (_, i) => from + i);
  });
}

/** Passes of a repeat at most. */
const MOST_TIMES = 16;

/** The repeats, endings and jumps that stand at a measure. */
export function marksOf(measure: Node): BarMarks {
  const barlines = all(measure, 'barline');
  const repeats = barlines.flatMap((line) => all(line, 'repeat'));
  const endings = barlines.flatMap((line) => all(line, 'ending'));
  const sounds = [
    ...all(measure, 'sound'),
    ...all(measure, 'direction').flatMap((direction) => all(direction, 'sound'))
  ];
  const types = all(measure, 'direction').flatMap((direction) =>
    all(direction, 'direction-type').flatMap(childrenOf)
  );
  const words = types.filter((type) => nameOf(type) === 'words').map((type) => textOf(type).trim());
  const says = (pattern: RegExp) => words.some((word) => pattern.test(word));
  const has = (name: string) =>
    sounds.some((sound) => attribute(sound, name) !== '' && attribute(sound, name) !== 'no');
  const shows = (name: string) => types.some((type) => nameOf(type) === name);
  const toCoda = has('tocoda') || says(/^to coda/i);
  const back = repeats.find((repeat) => attribute(repeat, 'direction') === 'backward');
  const opening = endings.find((ending) => attribute(ending, 'type') === 'start');
  const passes = opening ? passesOf(attribute(opening, 'number')) : [];
  const jump =
    has('dacapo') || says(/^d\.? ?c\.?\b|^da capo/i)
      ? 'head'
      : has('dalsegno') || says(/^d\.? ?s\.?\b|^dal segno/i)
        ? 'sign'
        : null;
  return {
    ...(repeats.some((repeat) => attribute(repeat, 'direction') === 'forward')
      ? { opensRepeat: true as const }
      : {}),
    ...(back ? { times: Math.min(MOST_TIMES, Math.max(2, Number(attribute(back, 'times')) || 2)) } : {}),
    ...(passes.length > 0 ? { ending: passes } : {}),
    ...(endings.some((ending) => ['stop', 'discontinue'].includes(attribute(ending, 'type')))
      ? { endsEnding: true as const }
      : {}),
    ...(has('segno') || shows('segno') ? { segno: true as const } : {}),
    ...((has('coda') || shows('coda')) && !toCoda ? { coda: true as const } : {}),
    ...(toCoda ? { toCoda: true as const } : {}),
    ...(has('fine') || says(/^fine$/i) ? { fine: true as const } : {}),
    ...(jump ? { jump } : {})
  };
}

/** Marks that a line or chart has no room for, as they are called when they are told. */
const NOT_KEPT: Readonly<Record<string, string>> = {
  lyric: 'syllable of the lyrics',
  dynamics: 'dynamic mark',
  wedge: 'hairpin',
  pedal: 'pedal mark',
  'octave-shift': 'octave line',
  'harp-pedals': 'pedal mark',
  fermata: 'fermata',
  arpeggiate: 'rolled chord',
  tremolo: 'tremolo',
  'trill-mark': 'trill',
  turn: 'turn',
  'inverted-turn': 'turn',
  mordent: 'mordent',
  'inverted-mordent': 'mordent',
  accent: 'accent',
  'strong-accent': 'accent',
  staccato: 'staccato dot',
  staccatissimo: 'staccato dot',
  tenuto: 'tenuto mark'
};
/** Words that say where the form goes on are read; others are told. */
const FORM_WORDS = /^(?:to coda|d\.? ?[cs]\.?|da capo|dal segno|fine|coda|segno)\b/i;

export const PLURALS: Readonly<Record<string, string>> = {
  'syllable of the lyrics': 'syllables of the lyrics',
  'figure of a bass': 'figures of a bass'
};

const isGroup = (node: Node) => ['articulations', 'ornaments'].includes(nameOf(node));

/** What of some marks Corvel does not keep, in words. */
export function notKept(marks: readonly Node[]): string[] {
  return marks.flatMap((mark) => {
    const name = nameOf(mark);
    if (name === 'words') {
      const words = textOf(mark).trim();
      return words && !FORM_WORDS.test(words) ? [`direction “${words.slice(0, 40)}”`] : [];
    }
    const called = Object.hasOwn(NOT_KEPT, name) ? NOT_KEPT[name] : undefined;
    return called ? [called] : [];
  });
}

/** The same of what stands at a note: its words, and what is written over it. */
export const notKeptOf = (note: Node): string[] =>
  notKept([
    ...all(note, 'lyric'),
    ...all(note, 'notations').flatMap((own) =>
      childrenOf(own).flatMap((child) => (isGroup(child) ? childrenOf(child) : [child]))
    )
  ]);
