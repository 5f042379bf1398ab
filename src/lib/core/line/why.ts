/** Why a note of a line stands where it does: what it is on its chord, when it comes, what it does in its phrase. Words for what is read. */
import { nth, sure } from '../base/list';
import type { AnalysedChange } from '../harmony/analysis';
import type { Degree } from '../theory/degree';
import { prettyDegree, prettyNote, prettySymbol } from '../theory/typeset';
import { beatsOf, endOf, type LineNote } from './model';
import type { LinePhrase } from './phrases-in';
import type { Landing, LandedBy, LineReading, NoteRole, ReadNote } from './read';

export interface WhyGround {
  readonly notes: readonly LineNote[];
  readonly reading: LineReading;
  readonly changes: readonly AnalysedChange[];
  readonly phrases: readonly LinePhrase[];
}

/** Sentences are few: what is told first matters most. */
const MOST = 3;

/** Why a note is there, in three sentences at most; the line's own place counts notes from 0. */
export function whyNote(index: number, ground: WhyGround): string[] {
  const { notes, reading, changes, phrases } = ground;
  const note = notes[index];
  const read = reading.notes[index];
  if (!note || !read) return [];
  const change = changes[read.change];
  if (!change?.chord || read.degree === null) return ['No chord sounds here, so nothing is asked of it.'];
  const landing = reading.landings.find((one) => one.note === index);
  const at = phrases.findIndex(({ notes: own }) => index >= own.first && index < own.end);
  return [
    whatItIs(note, read, change, ground),
    landing ? landed(landing, change) : null,
    inPhrase(index, at, ground),
    howPlayed(note, notes[index - 1])
  ]
    .filter((said) => said !== null)
    .slice(0, MOST);
}

/** What each chord tone does for the ear, by its plain degree. */
const TONES: Readonly<Record<string, string>> = {
  '1': 'the chord at rest',
  '3': 'the tone that says most: major or minor',
  '5': 'steady, and says least of the chord',
  '7': 'with the 3 it says what kind of chord this is',
  '6': 'the chord’s own colour in place of a 7',
  '4': 'the tone that is held up in place of the 3',
  '2': 'the tone that stands in place of the 3'
};

function whatItIs(note: LineNote, read: ReadNote, change: AnalysedChange, ground: WhyGround): string {
  const degree = sure(read.degree, 'the degree of a note');
  const symbol = prettySymbol(change.symbol);
  const name = `${prettyNote(note.note)} is the ${prettyDegree(degree)} of ${symbol}`;
  return `${name}: ${ROLES[read.role]({ degree, note, read, ground })}.`;
}

interface RoleFacts {
  readonly degree: Degree;
  readonly note: LineNote;
  readonly read: ReadNote;
  readonly ground: WhyGround;
}

const goalOf = ({ read, ground: { notes, reading, changes } }: RoleFacts) => {
  const goal = read.leadsTo === undefined ? undefined : notes[read.leadsTo];
  const heard = read.leadsTo === undefined ? undefined : reading.notes[read.leadsTo];
  if (!goal || !heard?.degree) return null;
  const over = nth(changes, heard.change);
  return {
    note: goal,
    words: `${prettyNote(goal.note)}, the ${prettyDegree(heard.degree)} of ${prettySymbol(over.symbol)}`
  };
};

const STEP_WORDS: Readonly<Record<number, string>> = { 1: 'a semitone', 2: 'a whole tone' };

/** What a note of each role is there for. */
const ROLES: Readonly<Record<NoteRole, (facts: RoleFacts) => string>> = {
  'chord tone': ({ degree }) => TONES[degree.replace(/[b#]/g, '')] ?? 'a tone of the chord',
  tension: () => 'colour above the chord, at home in its scale',
  blue: () => 'a blue note, which wants to rise',
  passing: () => 'it passes by step between two notes that are at home',
  approach: (facts) => {
    const goal = goalOf(facts);
    if (!goal) return 'it leads into the note that follows';
    const by = STEP_WORDS[Math.abs(goal.note.midi - facts.note.midi)];
    return by ? `it leads by ${by} into ${goal.words}` : `it leads into ${goal.words}`;
  },
  leaning: (facts) => {
    const goal = goalOf(facts);
    return `it stands where a chord tone is waited for, and leans on ${goal?.words ?? 'the note that follows'}`;
  },
  avoid: () => 'it clashes where it is held; let it pass, or fix it',
  outside: () => 'it is outside the chord and its scale; it needs a reason'
};

const REACHED: Readonly<Record<LandedBy, string>> = {
  held: 'held over from the chord before',
  'semitone below': 'from a semitone below',
  'semitone above': 'from a semitone above',
  step: 'by step',
  enclosure: 'from both sides',
  leap: 'by a leap',
  leaning: 'after a note that leans on it',
  silence: 'out of silence'
};

function landed({ by, late = 0 }: Landing, { symbol }: AnalysedChange): string {
  const when =
    late < 0
      ? 'It comes ahead of the change to'
      : late > 0
        ? 'It comes behind the change to'
        : 'It lands on the change to';
  return `${when} ${prettySymbol(symbol)}, ${REACHED[by]}.`;
}

/** What it does in its phrase: where it begins, turns, takes up what was said, and ends. */
function inPhrase(index: number, at: number, { notes, phrases }: WhyGround): string | null {
  const phrase = phrases[at];
  if (!phrase) return null;
  const own = notes.slice(phrase.notes.first, phrase.notes.end);
  const model = phrase.like && phrases[phrase.like.of];
  if (index === phrase.notes.end - 1) {
    const next = phrases[at + 1];
    const silence = next ? beatsOf(next.from - phrase.to) : null;
    return silence === null
      ? 'The line ends on it.'
      : `Phrase ${phrase.name} ends on it, and ${silence === 1 ? 'a beat' : `${Number(silence.toFixed(2))} beats`} of silence follow${silence === 1 ? 's' : ''}.`;
  }
  if (index === phrase.notes.first) {
    if (phrase.start === 'pickup') return `Phrase ${phrase.name} begins on it, before its bar: a pickup.`;
    return `Phrase ${phrase.name} begins on it.`;
  }
  if (model && phrase.like) {
    const { how } = phrase.like;
    const twin = notes[model.notes.first + index - phrase.notes.first];
    const says = {
      literal: 'says',
      varied: 'varies',
      'same rhythm': 'takes the rhythm of',
      sequence: 'moves'
    } as const;
    const same = twin?.midi === nth(notes, index).midi ? '; this note stays' : '';
    return `Phrase ${phrase.name} ${says[how]} bar ${model.first + 1}${how === 'literal' ? ' again' : ''}${same}.`;
  }
  const top = Math.max(...own.map(({ midi }) => midi));
  if (nth(notes, index).midi === top && own.filter(({ midi }) => midi === top).length === 1)
    return `The top of phrase ${phrase.name}.`;
  return null;
}

function howPlayed(
  { bend, slide, slur, midi, vibrato }: LineNote,
  before: LineNote | undefined
): string | null {
  if (bend?.cents) return 'It is curled up a little: a quarter tone at most.';
  if (bend) return `It is bent up by ${STEP_WORDS[midi - bend.from] ?? `${midi - bend.from} semitones`}.`;
  if (slide) return 'It is slid into on one string.';
  if (slur && before && endOf(before) > 0)
    return midi > before.midi ? 'It is hammered on.' : 'It is pulled off.';
  return vibrato ? 'It is held with vibrato.' : null;
}
