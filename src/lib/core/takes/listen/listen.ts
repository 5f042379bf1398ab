/**
 * From sound to notes: where something is struck (`onsets`), which pitch begins there (`pitch`), what of it is a note and what only a
 * drum in the room or a string that rings on, how each note's pitch moves (`frames`), and how the whole instrument is tuned.
 * Source: docs/music-rules.md, Listening. Pure: it runs in a worker, on the server and in a test alike.
 */
import type { HeardNote, Listened, PitchCurve, Trouble } from '../model';
import { framesOf, HOP, levelOf, SILENT, type Frame } from './frames';
import { onsetsOf, quantile, type Onset } from './onsets';
import { PitchFinder, type Begun } from './pitch';
import { resampled } from './resample';

/** Samples a second at which is listened: twice the highest overtone that tells of a guitar's pitch. */
export const RATE = 22_050;

/** Something that begins, with the pitch that it has. */
interface Event {
  readonly onset: Onset;
  readonly begun: Begun;
  readonly level: number;
  /** Its level against the moment before. */
  readonly jump: number;
}

/** Seconds over which a level is taken after something has begun, and before. */
const AFTER = 0.03;
const BEFORE = { from: 0.02, to: 0.003 } as const;

/** What plain notes of this sound are like. */
interface Plain {
  readonly salience: number;
  readonly rise: number;
  readonly level: number;
}

/**
 * What a note has to have, against plain ones: harmonics, level, and something new. A pitch that sounds already is struck again only where
 * stroke, new harmonics and jump of level speak for it together; measured on rendered lines with a band leaking in.
 */
const NOTE = {
  salience: 0.25,
  level: 0.14,
  contrast: 1.5,
  fresh: 0.35,
  stroke: 0.08,
  slurred: 0.5,
  struckAgain: { strength: 0.24, together: 0.33, perStrength: 0.45, perJump: 0.3 }
} as const;
/** Pitches nearer than this are one. */
const SAME = 0.6;

/**
 * The notes of a sound.
 * @param samples one channel, full scale −1 to 1
 * @param rate samples a second
 * @param onShare told again and again how much is done, 0 to 1
 */
export function listenTo(
  samples: Float32Array,
  rate: number,
  onShare: (share: number) => void = () => undefined
): Listened {
  const sound = resampled(samples, rate, RATE);
  const whole = levelOf(sound, 0, sound.length);
  if (whole < SILENT) return { notes: [], tuning: 0, troubles: ['silence'] };
  const events = eventsIn(sound, (share) => onShare(ONSETS + BEGINNINGS * share));
  const struck = notesAmong(events);
  const finder = new PitchFinder(RATE);
  /** Whether a pitch is heard to begin at a sample, by what is new there. */
  const begins = (pitch: number, at: number, next: number) => {
    const begun = finder.begins(sound, at - HOP / 2, at + HOP / 2, next);
    return begun.fresh >= NOTE.slurred && Math.abs(begun.pitch - pitch) < SAME;
  };
  const frames = framesOf(sound, RATE, (share) => onShare(ONSETS + BEGINNINGS + FRAMES * share));
  const sounding = struck.flatMap((event, i) =>
    partsOf(event, struck[i + 1]?.onset.at ?? sound.length, frames, begins)
  );
  const tuning = tuningOf(sounding.map(({ pitch }) => pitch));
  const notes = sounding.map((part) => noteOf(part, tuning, frames));
  return { notes, tuning: Math.round(tuning * 100), troubles: troublesOf(samples, events, struck) };
}

/** The share of the work that finding strokes, their pitches, and the frames take. */
const [ONSETS, BEGINNINGS, FRAMES] = [0.3, 0.2, 0.5] as const;

/** The seconds at which something begins in a sound, whatever it is: a tap on the body of a guitar as well. */
export function onsetSeconds(samples: Float32Array, rate: number): number[] {
  return onsetsOf(resampled(samples, rate, RATE), RATE).map(({ at }) => at / RATE);
}

function eventsIn(sound: Float32Array, onShare: (share: number) => void): Event[] {
  const onsets = onsetsOf(sound, RATE);
  const finder = new PitchFinder(RATE);
  return onsets.map((onset, i): Event => {
    onShare(i / onsets.length);
    const { at, full } = onset;
    const level = levelOf(sound, full, full + AFTER * RATE);
    const before = levelOf(sound, at - BEFORE.from * RATE, at - BEFORE.to * RATE);
    return {
      onset,
      begun: finder.begins(sound, at, full, onsets[i + 1]?.at ?? sound.length),
      level,
      jump: level / Math.max(before, SILENT)
    };
  });
}

/** Of all that begins, what is a note. */
function notesAmong(events: readonly Event[]): Event[] {
  const high = quantile(
    events.map(({ begun }) => begun.salience),
    0.7
  );
  const sure = events.filter(({ begun }) => begun.salience > high / 2 && begun.fresh > 0.5);
  const median = (value: (event: Event) => number) => quantile(sure.map(value), 0.5);
  const plain: Plain = {
    salience: high,
    rise: quantile(
      sure.map(({ onset }) => onset.rise),
      0.7
    ),
    level: median(({ level }) => level)
  };
  const notes: Event[] = [];
  for (const event of events) if (isNote(event, notes.at(-1), plain)) notes.push(event);
  return notes;
}

function isNote({ onset, begun, level, jump }: Event, before: Event | undefined, plain: Plain): boolean {
  if (begun.salience < NOTE.salience * plain.salience || level < NOTE.level * plain.level) return false;
  if (begun.contrast < NOTE.contrast) return false;
  const sounds = before && Math.abs(before.begun.pitch - begun.pitch) < SAME;
  const strength = onset.rise / plain.rise;
  // A bend makes new harmonics as well, but hardly a stroke.
  if (!sounds) return begun.fresh >= NOTE.fresh && strength >= NOTE.stroke;
  const { together, perStrength, perJump, ...least } = NOTE.struckAgain;
  const speaks = begun.fresh + perStrength * strength + perJump * Math.max(0, jump - 1);
  return strength >= least.strength && speaks >= together;
}

/** A stretch on one pitch: a note that was struck, or one that was slurred to. */
interface Sounding {
  /** In samples. */
  readonly at: number;
  readonly end: number;
  /** MIDI number with fractions. */
  readonly pitch: number;
  readonly confidence: number;
}

/**
 * Frames in which a slurred note has come to its pitch, and for which it stays there; how far it can be, slurred or bent, in semitones; the
 * share of the level of the stroke that it keeps.
 */
const SLUR = { within: 3, stays: 3, widest: 7, bent: 4, level: 0.2 } as const;
/** From one frame to the next a pitch that glides moves less, in semitones. */
const LEAP = 1.2;
/** Frames after a stroke in which its pitch settles. */
const SETTLES = 2;
/** A pitch this far off a whole number of semitones is on its way. */
const ON_PITCH = 0.35;
/** A pitch that stays moves less than this, in semitones. */
const STILL = 0.2;
/** Intervals at which a pitch is mistaken for one of its harmonics, in semitones. */
const MISTAKEN = [12, 19, 24, 28, 31, 36];

/** A note that was struck, parted where another pitch is reached at once and held: hammered on or pulled off. */
function partsOf(
  { onset, begun, level }: Event,
  next: number,
  frames: readonly Frame[],
  begins: (pitch: number, at: number, next: number) => boolean
): Sounding[] {
  const confidence = Math.min(1, Math.max(0, (begun.contrast - 1) / 3));
  const parts: Sounding[] = [{ at: onset.at, end: next, pitch: begun.pitch, confidence }];
  const [first, last] = [Math.ceil(onset.full / HOP) + SETTLES, Math.floor(next / HOP)];
  let held = first;
  for (let i = first; i + SLUR.stays <= last; i++) {
    const own = parts.at(-1)!;
    const away = awayFrom(own.pitch, frames[i]!.pitch);
    if (away === null || Math.abs(away) > SLUR.widest) continue;
    if (frames[i]!.level < SLUR.level * level) break;
    if (away === 0) held = i;
    else if (staysAt(own.pitch + away, frames, i)) {
      const at = Math.round(((i + held) / 2) * HOP);
      if (i - held <= SLUR.within) {
        if (!begins(own.pitch + away, at, next)) continue;
        parts[parts.length - 1] = { ...own, end: at };
        parts.push({ at, end: next, pitch: own.pitch + away, confidence });
      } else if (Math.abs(away) <= SLUR.bent && glides(frames.slice(held, i + 1))) {
        // It came there slowly: a bend or a slide, which is the note that it comes to.
        parts[parts.length - 1] = { ...own, pitch: own.pitch + away };
      }
      held = i;
    }
  }
  return parts;
}

/** Semitones from a pitch to what is heard, 0 near it; null where it cannot be told, or is on its way. */
function awayFrom(pitch: number, heard: number | null): number | null {
  if (heard === null) return null;
  const away = heard - pitch;
  const whole = Math.round(away);
  if (MISTAKEN.some((interval) => Math.abs(Math.abs(away) - interval) < SAME)) return 0;
  return Math.abs(away - whole) <= ON_PITCH ? whole : null;
}

/** A pitch moves through some frames without a gap or a leap. */
function glides(frames: readonly Frame[]): boolean {
  return frames.every(({ pitch }, i) => {
    const before = frames[i - 1]?.pitch ?? pitch;
    return pitch !== null && Math.abs(pitch - before!) <= LEAP;
  });
}

/** A pitch is reached and stays: one that is on its way still moves. */
function staysAt(pitch: number, frames: readonly Frame[], from: number): boolean {
  const pitches = frames.slice(from, from + SLUR.stays).map((frame) => frame.pitch ?? NaN);
  const moves = Math.max(...pitches) - Math.min(...pitches);
  return moves <= STILL && pitches.every((own) => Math.abs(own - pitch) <= ON_PITCH);
}

/** How far an instrument is off, in semitones from −½ to ½: the mean of what its pitches have beside whole numbers, on a circle. */
function tuningOf(pitches: readonly number[]): number {
  const turn = 2 * Math.PI;
  const sines = pitches.reduce((sum, pitch) => sum + Math.sin(turn * pitch), 0);
  const cosines = pitches.reduce((sum, pitch) => sum + Math.cos(turn * pitch), 0);
  return pitches.length ? Math.atan2(sines, cosines) / turn : 0;
}

/** A note has ended where its level has fallen to this share of its highest. */
const ENDED = 0.06;

function noteOf(
  { at, end, pitch, confidence }: Sounding,
  tuning: number,
  frames: readonly Frame[]
): HeardNote {
  const midi = Math.round(pitch - tuning);
  const own = frames.slice(Math.round(at / HOP), Math.max(Math.round(at / HOP) + 1, Math.floor(end / HOP)));
  const loudest = Math.max(...own.map(({ level }) => level));
  const lastLoud = own.findLastIndex(({ level }) => level > Math.max(SILENT, ENDED * loudest));
  const sounding = own.slice(0, lastLoud + 1);
  const curve = curveOf(sounding, midi + tuning);
  const near = curve.filter((cents) => cents !== null && Math.abs(cents) < 60) as number[];
  const cents = near.length >= 3 ? quantile(near, 0.5) : 100 * (pitch - tuning - midi);
  return {
    at: at / RATE,
    seconds: Math.min(end - at, Math.max(1, sounding.length) * HOP) / RATE,
    midi,
    cents: Math.round(cents),
    confidence: Math.round(100 * confidence) / 100,
    curve
  };
}

/** Further off a frame tells of something else. */
const FURTHEST = 700;

/** Frames against a pitch, in cents, octaves taken for the pitch itself. */
function curveOf(frames: readonly Frame[], pitch: number): PitchCurve {
  const heard = frames.map((frame) => {
    if (frame.pitch === null) return null;
    const octaves = 12 * Math.round((frame.pitch - pitch) / 12);
    const cents = Math.round(100 * (frame.pitch - octaves - pitch));
    return Math.abs(cents) <= FURTHEST ? cents : null;
  });
  // A pitch that neither of its neighbours has was the stroke, or the string before.
  const joins = (own: number, other: number | null | undefined) =>
    typeof other === 'number' && Math.abs(own - other) <= 100 * LEAP;
  return heard.map((own, i) =>
    own !== null && (joins(own, heard[i - 1]) || joins(own, heard[i + 1])) ? own : null
  );
}

/** What is told about a sound that is hard to read. */
const TOLD = {
  /** Samples at full scale in a row, and the share of all that lies in such rows. */
  clipped: { scale: 0.995, row: 3, share: 2e-4 },
  /** A second pitch as strong as this share of the first, in this share of what begins. */
  several: { second: 0.7, share: 0.5, least: 4 }
} as const;

function troublesOf(samples: Float32Array, events: readonly Event[], notes: readonly Event[]): Trouble[] {
  const { second, share, least } = TOLD.several;
  const double = notes.filter(({ begun }) => begun.second >= second).length;
  return [
    ...(notes.length === 0 ? (['noise'] as const) : []),
    ...(isClipped(samples) ? (['clipped'] as const) : []),
    ...(notes.length >= least && double >= share * notes.length ? (['several notes at once'] as const) : [])
  ];
}

function isClipped(samples: Float32Array): boolean {
  const { scale, row, share } = TOLD.clipped;
  let [clipped, run] = [0, 0];
  for (let i = 0; i < samples.length; i++) {
    run = Math.abs(samples[i]!) >= scale ? run + 1 : 0;
    if (run >= row) clipped++;
  }
  return clipped > share * samples.length;
}
