/** What sounds, pulse by pulse: how much of each pitch there is in all parts together, and what lies lowest. */
import { entryOf, nth, numberAt } from '../../base/list';
import { pulsesOf } from '../../chart/pulses';
import { TICKS, type LineNote } from '../../line/model';
import type { FoundBar } from '../chart-of';

/** A note of any part. */
export interface PlayedNote extends Pick<LineNote, 'start' | 'length' | 'midi'> {
  /** 0 to 1. */
  readonly level: number;
}

const endAt = ({ start, length }: PlayedNote) => start + length;

/** One pulse of a bar. */
export interface Sounding {
  /** In ticks. */
  readonly start: number;
  readonly length: number;
  /** Its bar, from 0. */
  readonly bar: number;
  /** Which pulse of its bar it is, from 0, and how many the bar has. */
  readonly inBar: number;
  readonly ofBar: number;
  /** 0 for the first of a bar, 1 for its middle, 2 for others. */
  readonly weakness: 0 | 1 | 2;
  /** What it counts: the pulses of a bar count the same together, however many there are. */
  readonly mass: number;
  /** By pitch class: how much of it sounds; its mass in all at most. */
  readonly weights: Float64Array;
  /** The part of it that the bass plays. */
  readonly bassWeights: Float64Array;
  /** Pitch class of the bass; null where nothing lies low, or nothing sounds. */
  readonly bass: number | null;
}

/** A bar of this many pulses counts each of them once; one of fewer counts them more, up to so much. */
const PULSES_OF_A_BAR = 4;
const MOST_MASS = 2;
/** A note that begins this near before a pulse and lasts into it belongs to it, as a push does; in pulses. */
const PUSH = 0.55;
const PUSHED = 0.2;
/** How much less a note counts that is left by step off the pulse, and a short one that is left by a semitone on it. */
const PASSING = 0.35;
const LEANING = 0.6;
/** Short: shorter than this, in pulses. */
const SHORT = 0.8;
/** How much a tune counts that goes over chords which others play. */
const TUNE = 0.5;
/** A bass on a weak pulse that goes on by step walks through. */
const WALKING = 0.45;
/** MIDI number under which the lowest note is a bass; higher up it is one where it lies this far under the others. */
const LOW = 52;
const APART = 5;
/** Semitones over the lowest note of a bar up to which a bass may move in it. */
const BASS_RANGE = 12;
/** Pulses for which a note counts at most: nobody hears it for longer, and files may have notes without end. */
const LONGEST = 64;
/** Notes that begin this near are struck together, in pulses: strummed strings, a hand that is not exact. */
const TOGETHER = 0.2;

/** The pulses of all bars with what sounds in them. `parts`: the notes of each part by itself, in order. */
export function soundings(bars: readonly FoundBar[], parts: readonly (readonly PlayedNote[])[]): Sounding[] {
  const pulses = bars.flatMap((bar, i) => {
    const own = pulsesOf({ start: bar.start, beats: bar.length, meter: bar.meter });
    return own.map(({ start, beats }, n) => ({
      start,
      length: beats,
      bar: i,
      inBar: n,
      ofBar: own.length,
      mass: Math.min(MOST_MASS, Math.max(1, PULSES_OF_A_BAR / own.length)),
      weakness: (n === 0 ? 0 : own.length % 2 === 0 && n === own.length / 2 ? 1 : 2) as 0 | 1 | 2
    }));
  });
  const first = pulses[0]?.start ?? 0;
  const weights = pulses.map(() => new Float64Array(12));
  const lowest: (Heard | undefined)[][] = pulses.map(() => []);
  let at = 0;
  const tunes = tunesAmong(parts);
  const all = parts
    .flatMap((notes, i) =>
      heard(notes).map((note) => ({ ...note, level: note.level * (tunes.has(i) ? TUNE : 1) }))
    )
    .sort((a, b) => a.start - b.start);
  for (const note of all) {
    while (at < pulses.length - 1 && nth(pulses, at).start + nth(pulses, at).length <= note.start) at++;
    const last = Math.min(pulses.length, at + LONGEST);
    for (let i = at; i < last && nth(pulses, i).start < endAt(note); i++) {
      const { start, length } = nth(pulses, i);
      const share = (Math.min(endAt(note), start + length) - Math.max(note.start, start, first)) / length;
      if (share <= 0) continue;
      const before = start + length - note.start;
      const isPush = before <= PUSH * length && endAt(note) - (start + length) >= before;
      const shape = note.shape(length, Math.abs(note.start - start) <= TOGETHER * length);
      nth(weights, i)[note.midi % 12]! += share * note.level * shape * (isPush ? PUSHED : 1);
      if (!isPush) nth(lowest, i).push(note);
    }
  }
  const basses = groundOf(
    pulses.map((pulse, i) => bassOf(lowest[i] as Heard[], pulse)),
    pulses
  );
  return pulses.map((pulse, i) => {
    const bass = nth(basses, i);
    const own = nth(weights, i);
    const bassWeights = new Float64Array(12);
    if (bass) {
      const walks =
        pulse.weakness > 0 &&
        bass.length <= 1.1 * pulse.length &&
        bass.next !== null &&
        Math.abs(bass.next - bass.midi) <= 2;
      const share =
        (Math.min(endAt(bass), pulse.start + pulse.length) - Math.max(bass.start, pulse.start)) /
        pulse.length;
      const full = share * bass.level;
      const kept = walks ? WALKING * full : full;
      const pc = bass.midi % 12;
      own[pc] = Math.max(0, numberAt(own, pc) - (full - kept));
      bassWeights[pc] = Math.min(numberAt(own, pc), kept);
    }
    const sum = own.reduce((total, weight) => total + weight, 0);
    const scale = pulse.mass / Math.max(1, sum);
    return {
      ...pulse,
      weights: own.map((weight) => weight * scale),
      bassWeights: bassWeights.map((weight) => weight * scale),
      bass: bass ? bass.midi % 12 : null
    };
  });
}

/** The parts that are a tune: one voice, over two others at least or over one that plays chords, higher than they are. */
function tunesAmong(parts: readonly (readonly PlayedNote[])[]): ReadonlySet<number> {
  const facts = parts.map((notes) => {
    const times = notes.map(({ start }) => start).sort((a, b) => a - b);
    const alone = times.filter((time, i) => time - (times[i - 1] ?? -Infinity) > TICKS / 16).length;
    const height = notes.reduce((sum, { midi }) => sum + midi, 0) / Math.max(1, notes.length);
    return { isOneVoice: notes.length > 0 && alone >= 0.9 * notes.length, height, count: notes.length };
  });
  const highest = facts.reduce((top, { height, count }) => (count ? Math.max(top, height) : top), 0);
  const others = facts.filter(({ count, height }) => count && height < highest);
  const tune = facts.findIndex(({ isOneVoice, height, count }) => count && isOneVoice && height === highest);
  const isCarried =
    others.length >= 2 || others.some(({ count }) => count >= (facts[tune]?.count ?? Infinity) / 2);
  return new Set(tune >= 0 && isCarried ? [tune] : []);
}

/** A note among those of its part. */
interface Heard extends PlayedNote {
  /** The pitch that follows it in its part, where one voice goes on; null else. */
  readonly next: number | null;
  /** How much it counts in a pulse of a length, where it is struck on it or not. */
  readonly shape: (pulse: number, isOn: boolean) => number;
}

function heard(notes: readonly PlayedNote[]): Heard[] {
  const sortedNotes = [...notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
  return sortedNotes.map((note, i): Heard => {
    const isAlone = (n: number) =>
      Math.abs((sortedNotes[n - 1]?.start ?? -Infinity) - nth(sortedNotes, n).start) > TICKS / 16 &&
      Math.abs((sortedNotes[n + 1]?.start ?? Infinity) - nth(sortedNotes, n).start) > TICKS / 16;
    const follows = sortedNotes[i + 1];
    const goesOn =
      follows !== undefined &&
      isAlone(i) &&
      isAlone(i + 1) &&
      follows.start - endAt(note) < note.length &&
      endAt(note) - follows.start < note.length;
    const step = goesOn ? Math.abs(follows.midi - note.midi) : Infinity;
    return {
      ...note,
      next: goesOn ? follows.midi : null,
      shape: (pulse, isOn) => {
        if (note.length >= SHORT * pulse || step === 0 || step > 2) return 1;
        if (!isOn) return PASSING;
        return step === 1 ? LEANING : 1;
      }
    };
  });
}

/** The lowest notes without those that lie far over the bass of their bar: an arpeggio leaves its bass and climbs. */
function groundOf(
  basses: readonly (Heard | null)[],
  pulses: readonly { readonly bar: number }[]
): readonly (Heard | null)[] {
  const ground = new Map<number, number>();
  basses.forEach((bass, i) => {
    const { bar } = nth(pulses, i);
    if (bass) ground.set(bar, Math.min(bass.midi, ground.get(bar) ?? Infinity));
  });
  return basses.map((bass, i) =>
    bass && bass.midi - entryOf(ground, nth(pulses, i).bar) <= BASS_RANGE ? bass : null
  );
}

/** The note that the others stand on: of what is struck first in a pulse, or sounds there already, the lowest. */
function bassOf(
  notes: readonly Heard[],
  { start, length }: { readonly start: number; readonly length: number }
): Heard | null {
  if (notes.length === 0) return null;
  const early = notes.filter((note) => note.start <= start + TOGETHER * length);
  const ground = (early.length ? early : notes).reduce((low, note) => (note.midi < low.midi ? note : low));
  const lower = notes.reduce((low, note) => (note.midi < low.midi ? note : low));
  // An arpeggio from the bass up may begin with it late in the pulse only where nothing low sounds before.
  const bass = lower.midi < LOW && ground.midi >= LOW ? lower : ground;
  if (bass.midi < LOW) return bass;
  const others = notes.filter(({ midi }) => midi !== bass.midi).map(({ midi }) => midi);
  if (others.length < 2) return null;
  return Math.min(...others) - bass.midi >= APART || early.length >= 3 ? bass : null;
}
