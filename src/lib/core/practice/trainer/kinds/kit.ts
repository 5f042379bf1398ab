/** What the kinds of cards are made of: the form of a row, and what several of them share. */
import { chordNamed } from '../../../approaches/collection';
import { sure } from '../../../base/list';
import type { Seconds } from '../../../base/units';
import type { Analysis } from '../../../harmony/analysis';
import { readKey } from '../../../harmony/key';
import { namingOf, nameOf } from '../../../neck/shape';
import { spots, type Instrument } from '../../../neck/tuning';
import type { Chord } from '../../../theory/chord';
import { DEGREES, type Degree } from '../../../theory/degree';
import { MODES } from '../../../theory/mode';
import type { NoteName } from '../../../theory/note';
import { scaleOf } from '../../../theory/scale';
import { prettyDegree, prettyNote, prettySymbol } from '../../../theory/typeset';
import type { CardKindId, Question, Solution, SolvedCell } from '../card';

/** What a chart that is practised gives for cards. */
export interface CardMaterial {
  readonly analysis: Analysis;
  readonly neck: Instrument;
  /** Where the hand is, in the areas that are practised. */
  readonly positions: readonly number[];
}

/** How a kind is answered at the screen; what sounds can be answered by playing where `sounds` is set. */
export type Way = 'cell' | 'cells' | 'names' | 'choice' | 'own';

/** What a field of a question holds; boundaries are made of it. */
export type Field = 'chord' | 'chords' | 'degree' | 'fret' | 'string' | 'key' | 'scale' | 'step' | 'number';

export interface CardKind<Q extends Question = Question> {
  readonly id: Q['kind'];
  readonly name: string;
  /** The fields of its question. */
  readonly fields: Readonly<Record<Exclude<keyof Q, 'kind'>, Field>>;
  readonly way: Way;
  /** Playing or singing answers it too. */
  readonly sounds?: true;
  /** It is sung, and then played: two notes. */
  readonly isSung?: true;
  /** Its choices are degrees, which are typed as such; or chord symbols. */
  readonly choosesFrom?: 'degrees' | 'chords';
  /** Names have to be spelled, in their order. */
  readonly isSpelling?: true;
  /** It is answered without a neck. */
  readonly isNeckless?: true;
  /** Seconds that a player who knows it takes, before the card has a history of its own. */
  readonly seconds: Seconds;
  // Methods, not fields: a row of one question may then stand in the table of all of them.
  ask(question: Q): string;
  /** Places that are shown with the question. */
  shows?(question: Q, neck: Instrument): readonly SolvedCell[];
  /** Frets that the answer lies between, both in. */
  window(question: Q, neck: Instrument): readonly [number, number];
  solve(question: Q, neck: Instrument): Solution;
  make(material: CardMaterial): readonly Q[];
}

export type Of<Kind extends CardKindId> = Extract<Question, { kind: Kind }>;

/** Frets of a window: the hand and a stretch. */
export const WINDOW = 4;
/** Frets up to which octaves are asked for: one whole turn of the neck. */
export const TURN = 12;

/** The chord of a symbol of a question; C where a stored question has none that can be read. */
export const chordOf = (symbol: string): Chord => chordNamed(symbol) ?? sure(chordNamed('C'), 'the chord C');

/** The places of some pitch classes between two frets, named against a chord. */
export function placed(
  neck: Instrument,
  chord: Chord,
  pcs: readonly number[],
  from: number,
  to: number
): SolvedCell[] {
  const naming = namingOf(chord, null);
  return spots(neck, from, to)
    .filter(({ midi }) => pcs.includes(midi % 12))
    .map((spot) => ({ ...spot, ...nameOf(spot.midi % 12, naming) }));
}

/** The pitch class of a degree of a chord. */
export const pcOf = ({ rootPc }: Chord, degree: Degree) => (rootPc + DEGREES[degree].semitones) % 12;
/** The frets of a window, both in. */
export const windowAt = (at: number, neck: Instrument) => [at, Math.min(neck.frets, at + WINDOW)] as const;
/** A chord symbol as it is read. */
export const say = (symbol: string) => prettySymbol(symbol);
/** A note name as it is read. */
export const note = (name: NoteName) => prettyNote(name);
/** The name of a degree in a chord. */
export const nameIn = ({ notes, tones, root }: Chord, degree: Degree): NoteName =>
  notes[tones.indexOf(degree)] ?? root;

/** A degree as players say it of a chord: what a suspended chord has in place of its third is its 4, or its 2. */
export function sayDegree(degree: Degree, { tones }: Chord): string {
  const hasThird = tones.some((tone) => tone === '3' || tone === 'b3');
  if (!hasThird && tones.includes(degree)) {
    if (degree === '11') return '4';
    if (degree === '9' && !tones.includes('11')) return '2';
  }
  return prettyDegree(degree);
}

/** The chords of a chart, each once, in the order met. */
export function chordsOf({ changes }: Analysis): Chord[] {
  const all = changes.flatMap(({ chord }) => (chord ? [chord] : []));
  return [...new Map(all.map((chord) => [chord.symbol, chord])).values()];
}

/** The changes of chord, each once. */
export function pairsOf({ changes }: Analysis): (readonly [Chord, Chord])[] {
  const pairs = changes.flatMap(({ chord }, i) => {
    const next = changes[(i + 1) % changes.length]?.chord;
    return chord && next && next.symbol !== chord.symbol ? [[chord, next] as const] : [];
  });
  return [...new Map(pairs.map((pair) => [pair.map(({ symbol }) => symbol).join(' '), pair])).values()];
}

/** Thirds first, then sevenths, roots, fifths: the order in which targets are learnt. */
const LEARNT = ['3', '7', '1', '5', 'tension'] as const;
/** Tones in the order in which they are learnt. */
export const asLearnt = (tones: readonly Degree[]) =>
  [...tones].sort((a, b) => LEARNT.indexOf(DEGREES[a].slot) - LEARNT.indexOf(DEGREES[b].slot));
/** The third and seventh of a chord, or what stands in their place. */
export const guides = ({ tones }: Chord) =>
  asLearnt(tones).filter((tone) => ['3', '7'].includes(DEGREES[tone].slot));

/** The notes of a key's scale. */
export function keyNotes(key: string): readonly NoteName[] {
  const read = readKey(key);
  return (read && scaleOf(read.tonic, MODES[read.mode].scale)?.notes) ?? [];
}

/** "E♭ major". */
export function keyName(key: string): string {
  const read = readKey(key);
  return read ? `${note(read.tonic)} ${read.mode}` : key;
}
