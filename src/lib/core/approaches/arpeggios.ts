/** The approaches built of thirds: `arpeggio`, `superimposed-arpeggio`, `triads`, `guide-tones`. */
import { firstOf, nth } from '../base/list';
import { prettyDegree } from '../theory/typeset';
import { DEGREES } from '../theory/degree';
import { noteAbove, pitchClass, type NoteName } from '../theory/note';
import { byMerit, choiceOf, fitsSymbol, judgedOn, type ScaleChoice } from './choice';
import {
  arpeggioOf,
  guideTonesOf,
  inverted,
  scaleNamed,
  seventhChordOn,
  triadOf,
  type Collection
} from './collection';
import type { ChangeContext } from './context';
import { modeNotes } from './modes';
import { MODES } from '../theory/mode';

/** The chord's own arpeggio, from each of its tones. */
export function arpeggio(context: ChangeContext): ScaleChoice[] {
  const { chord } = context.change;
  const own = arpeggioOf(chord);
  return chord.notes.map((_, i) =>
    choiceOf('arpeggio', inverted(own, i), context, {
      lead: i === 0 ? 'The chord itself.' : `Start on the ${prettyDegree(nth(chord.tones, i))}.`
    })
  );
}

/**
 * The scale whose thirds are stacked: over a V of minor the harmonic minor of its goal, else the key's where the chord belongs to it,
 * else the first mode.
 */
function scaleAround(context: ChangeContext): readonly NoteName[] {
  const { change, heard, minorGoal } = context;
  const holdsChord = (notes: readonly NoteName[]) => {
    const pcs = notes.map(pitchClass);
    return change.chord.pitchClasses.every((pc) => pcs.includes(pc));
  };
  const fromRoot = (notes: readonly NoteName[]) => {
    const at = notes.findIndex((note) => pitchClass(note) === heard.rootPc);
    return at < 0 ? [] : [...notes.slice(at), ...notes.slice(0, at)];
  };
  const candidates = [
    ...(minorGoal ? [scaleNamed(heard.root, 'phrygian dominant').notes] : []),
    scaleNamed(change.key.tonic, MODES[change.key.mode].scale).notes
  ].filter(holdsChord);
  return candidates.length ? fromRoot(firstOf(candidates)) : modeNotes(context);
}

function stack(notes: readonly NoteName[], from: number, size: number): NoteName[] {
  return Array.from({ length: size }, (_, i) => nth(notes, (from + 2 * i) % notes.length));
}

/** The key's seventh arpeggio on each chord tone; where one brings an avoid note, the variant that does not. */
export function superimposedArpeggio(context: ChangeContext): ScaleChoice[] {
  const { chord } = context.change;
  const notes = scaleAround(context);
  const root = chord.rootPc;
  const found = chord.tones.flatMap((tone): ScaleChoice[] => {
    const at = notes.findIndex((note) => pitchClass(note) === (root + DEGREES[tone].semitones) % 12);
    if (DEGREES[tone].slot === 'tension' || at < 0) return [];
    const four = stack(notes, at, 4);
    const plain = propose(four, tone, context);
    if (!plain) return [];
    const clean = plain.avoid.length ? cleaned(four, tone, context) : null;
    return [plain, ...(clean ? [clean] : [])].filter(fitsSymbol);
  });
  if (found.length) return found;
  return [choiceOf('superimposed-arpeggio', arpeggioOf(chord), context, { lead: 'The chord itself.' })];
}

function propose(
  four: readonly NoteName[],
  tone: keyof typeof DEGREES,
  context: ChangeContext
): ScaleChoice | null {
  const chord = seventhChordOn(four);
  if (!chord) return null;
  const { symbol, tones } = context.change.chord;
  const collection = arpeggioOf(chord);
  const { covers, degrees } = judgedOn(collection, context);
  const held = covers.length;
  const others = degrees.filter((degree) => !tones.includes(degree)).map(prettyDegree);
  const lead =
    `From the ${prettyDegree(tone)}: ${held} chord ${held === 1 ? 'tone' : 'tones'}` +
    (others.length ? ` and ${others.join(', ')}.` : '.');
  const name = `${chord.root}${chord.suffix}`;
  return choiceOf('superimposed-arpeggio', collection, context, {
    lead,
    ...(name === symbol ? {} : { over: `${name} over ${symbol}` })
  });
}

/** The same arpeggio with its avoid note a semitone higher, or lower, so that nothing clashes. */
function cleaned(
  four: readonly NoteName[],
  tone: keyof typeof DEGREES,
  context: ChangeContext
): ScaleChoice | null {
  for (const interval of ['1A', '-1A']) {
    for (let i = 1; i < four.length; i++) {
      const altered = four.map((note, n) => (n === i ? noteAbove(note, interval) : note));
      const chord = seventhChordOn(altered);
      const judgement = chord && judgedOn(arpeggioOf(chord), context);
      if (judgement && judgement.avoid.length === 0 && fitsSymbol(judgement))
        return propose(altered, tone, context);
    }
  }
  return null;
}

/** The chord's triad, then the triads inside its first mode. */
export function triads(context: ChangeContext, before: ScaleChoice | null): ScaleChoice[] {
  const own = triadOf(context.change.chord.notes.slice(0, 3));
  const notes = modeNotes(context);
  const inside = notes
    .map((_, i) => triadOf(stack(notes, i, 3)))
    .filter((triad): triad is Collection => triad !== null && triad.name !== own?.name);
  const said = (triad: Collection) => choiceOf('triads', triad, context);
  return [...(own ? [said(own)] : []), ...inside.map(said).filter(fitsSymbol).sort(byMerit(before))].slice(
    0,
    MOST
  );
}

/** More are no choice. */
const MOST = 5;

/** The 3 and the 7. */
export function guideTones(context: ChangeContext): ScaleChoice[] {
  return [choiceOf('guide-tones', guideTonesOf(context.change.chord), context)];
}
