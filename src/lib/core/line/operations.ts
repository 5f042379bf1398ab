/**
 * What players do with a motif: say it again, later, upside down, slower, faster, in part, with another end. Each is exact; a new one is a
 * new row. Pitches may be counted in anything that has steps: semitones, or places of a scale.
 */
import { sure } from '../base/list';
import type { Ticks } from '../base/units';
import { TICKS } from './model';

export interface MotifNote {
  /** Ticks from the start of the motif. */
  readonly start: Ticks;
  readonly length: Ticks;
  readonly pitch: number;
  /** It ends otherwise than the motif: whoever plays it finds it a tone of the chord. */
  readonly isOpen?: true;
}

export interface MotifShape {
  readonly notes: readonly MotifNote[];
  /** Ticks, with the silence that belongs to it. */
  readonly length: Ticks;
}

export interface MotifOperation {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  readonly apply: (motif: MotifShape, beat: MotifBeat) => MotifShape;
}

/** What a beat is where the motif stands, in ticks: a quarter, or three eighths, of which an eighth counts as the half. */
export interface MotifBeat {
  readonly whole: number;
  readonly half: number;
}

export const PLAIN_BEAT: MotifBeat = { whole: TICKS, half: TICKS / 2 };

/** The same notes at other times. What would begin after the end of the motif is left out, and what lasts over it is cut. */
const retimed = ({ notes, length }: MotifShape, long: number, at: (ticks: Ticks) => number): MotifShape => ({
  notes: notes
    .map((note) => ({
      ...note,
      start: at(note.start),
      length: at(note.start + note.length) - at(note.start)
    }))
    .filter(({ start }) => start < long)
    .map((note) => (long === length ? note : { ...note, length: Math.min(note.length, long - note.start) })),
  length: long
});

const later = (which: keyof MotifBeat) => (motif: MotifShape, beat: MotifBeat) =>
  retimed(motif, motif.length, (ticks) => ticks + beat[which]);

/** Round its first note: what rose falls as far. */
function inverted({ notes, length }: MotifShape): MotifShape {
  const axis = notes[0]?.pitch ?? 0;
  return { notes: notes.map((note) => ({ ...note, pitch: 2 * axis - note.pitch })), length };
}

/** At least so many notes tell what it was. */
const FEWEST = 2;

/** What begins in its first half, then silence for as long as the whole lasts. */
function fragment({ notes, length }: MotifShape): MotifShape {
  const first = notes[0]?.start ?? 0;
  const last = notes.at(-1);
  const half = first + ((last ? last.start + last.length : length) - first) / 2;
  const head = notes.filter(({ start }, i) => start < half || i < FEWEST);
  return { notes: head, length };
}

const otherEnding = ({ notes, length }: MotifShape): MotifShape => ({
  notes: notes.map((note, i) => (i === notes.length - 1 && i > 0 ? { ...note, isOpen: true } : note)),
  length
});

export const MOTIF_OPERATIONS = [
  { id: 'repeat', name: 'repeat', hint: 'As it is', apply: (motif) => motif },
  {
    id: 'half a beat later',
    name: 'half a beat later',
    hint: 'The same, off the beat',
    apply: later('half')
  },
  { id: 'a beat later', name: 'a beat later', hint: 'The same from the next beat', apply: later('whole') },
  { id: 'invert', name: 'upside down', hint: 'What rose falls as far', apply: inverted },
  {
    id: 'augment',
    name: 'half as fast',
    hint: 'Every note twice as long, the whole twice as long',
    apply: (motif) => retimed(motif, 2 * motif.length, (ticks) => 2 * ticks)
  },
  {
    id: 'diminish',
    name: 'twice as fast',
    hint: 'Every note half as long, then silence',
    apply: (motif) => retimed(motif, motif.length, (ticks) => ticks / 2)
  },
  { id: 'fragment', name: 'only its head', hint: 'The first half, then silence', apply: fragment },
  {
    id: 'other ending',
    name: 'another ending',
    hint: 'The last note another tone of the chord',
    apply: otherEnding
  }
] as const satisfies readonly MotifOperation[];

export type MotifOperationId = (typeof MOTIF_OPERATIONS)[number]['id'];
export const MOTIF_OPERATION_IDS = MOTIF_OPERATIONS.map(({ id }) => id);

/** A motif after an operation. */
export const operated = (motif: MotifShape, id: MotifOperationId, beat = PLAIN_BEAT): MotifShape => {
  const operation: MotifOperation = sure(
    MOTIF_OPERATIONS.find((one) => one.id === id),
    'MOTIF_OPERATIONS'
  );
  return operation.apply(motif, beat);
};
