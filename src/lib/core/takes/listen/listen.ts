/**
 * From sound to notes: where something begins (`onsets`), at which pitch (`pitch`, `events`), what of it is an echo (`echo`), what a stroke of
 * the player and what only a drum in the room or a string that rings on (`strokes`), how each note's pitch moves (`frames`, `movement`), and
 * how the whole instrument is tuned.
 * Source: docs/music-rules.md, Listening. Pure: it runs in a worker, on the server and in a test alike.
 */
import type { HeardNote, KnownSound, Listened, PitchCurve, PitchEvent, SoundFault } from '../model';
import { withoutEchoes } from './echo';
import { eventsIn } from './events';
import { framesOf, HOP, levelOf, SILENT, type Frame } from './frames';
import { movementsIn } from './movement';
import { onsetsOf, quantile } from './onsets';
import { PitchFinder, type Begun } from './pitch';
import { resampled } from './resample';
import { LEAP, MISTAKEN, SAME, strokesAmong, type Struck } from './strokes';

/** Samples a second at which is listened: twice the highest overtone that tells of a guitar's pitch. */
export const RATE = 22_050;

/** What is told of the work: finding what begins, then the pitch moment by moment. */
const [BEGINNINGS, FRAMES] = [0.5, 0.5] as const;

/**
 * The notes of a sound.
 * @param samples one channel, full scale −1 to 1
 * @param rate samples a second
 * @param onShare told again and again how much is done, 0 to 1
 * @param known what Corvel sounded meanwhile: with loudspeakers it comes in with the player
 */
export function listenTo(
  samples: Float32Array,
  rate: number,
  onShare: (share: number) => void = () => undefined,
  known: readonly KnownSound[] = []
): Listened {
  const sound = resampled(samples, rate, RATE);
  const whole = levelOf(sound, 0, sound.length);
  if (whole < SILENT) return { notes: [], tuning: 0, troubles: ['silence'] };
  const events = withoutEchoes(
    eventsIn(sound, RATE, (share) => onShare(BEGINNINGS * share)),
    RATE
  );
  const frames = framesOf(sound, RATE, (share) => onShare(BEGINNINGS + FRAMES * share));
  const struck = strokesAmong(events, frames, RATE, known);
  const ear = earOf(sound);
  const sounding = struck.flatMap((event, i) =>
    partsOf(event, struck[i + 1]?.onset.at ?? sound.length, frames, ear)
  );
  // A bend may end short of its goal, and tells nothing of how the strings are tuned, where there are others.
  const still = sounding.filter(({ events }) => events.length === 0);
  const tuning = tuningOf((still.length ? still : sounding).map(({ pitch }) => pitch));
  const loudest = Math.max(...sounding.map(({ level }) => level));
  const notes = sounding.map((part) => noteOf(part, tuning, loudest, frames));
  return { notes, tuning: Math.round(tuning * 100), troubles: faultsOf(samples, struck) };
}

/** The seconds at which something begins in a sound, whatever it is: a tap on the body of a guitar as well. */
export function onsetSeconds(samples: Float32Array, rate: number): number[] {
  return onsetsOf(resampled(samples, rate, RATE), RATE).map(({ at }) => at / RATE);
}

/** A stretch on one pitch: a note that was struck, one beside it, or one that was slurred to. */
interface Sounding {
  /** In samples. */
  readonly at: number;
  readonly end: number;
  /** MIDI number with fractions. */
  readonly pitch: number;
  readonly confidence: number;
  readonly level: number;
  readonly events: readonly PitchEvent[];
  /** Another string sounds with it: the pitch of the whole tells nothing of this one. */
  readonly isDouble: boolean;
}

/** What can be asked about a sound at a sample; `next`: where something else is struck. */
interface SoundEar {
  /** Whether a pitch begins at a sample. */
  readonly begins: (pitch: number, at: number, next: number) => boolean;
  /** What of a stroke sounds at a later sample that was not there before it. */
  readonly since: (stroke: Struck, at: number, next: number) => Begun;
}

function earOf(sound: Float32Array): SoundEar {
  const finder = new PitchFinder(RATE);
  return {
    begins: (pitch, at, next) => {
      const begun = finder.begins(sound, at - HOP / 2, at + HOP / 2, next);
      return begun.fresh >= SLURRED && Math.abs(begun.pitch - pitch) < SAME;
    },
    since: ({ onset }, at, next) => finder.begins(sound, onset.at, at, next)
  };
}

/** What has to be new of a pitch that is slurred to. */
const SLURRED = 0.5;
/** The share of the level of its stroke at which a string tells no more of its pitch. */
const FADED = 0.12;
/** A second voice is as strong as this share of the first, and as new; after so many seconds, where it is not over, it is still there. */
const DOUBLE = { share: 0.5, fresh: 0.7, later: 0.14, shareLater: 0.3 } as const;

/** The two pitches of a stroke over two strings; null where there is one. */
function doubleOf(struck: Struck, next: number, { since }: SoundEar): readonly [number, number] | null {
  const { begun, onset } = struck;
  const { pitch, beside } = begun;
  if (beside.share < DOUBLE.share || beside.fresh < DOUBLE.fresh) return null;
  const later = onset.full + DOUBLE.later * RATE;
  if (next - later > LENGTH_LATER) {
    const now = since(struck, Math.round(later), next);
    const isThere = (own: number) =>
      [now.pitch, now.beside.pitch].some((heard) => Math.abs(heard - own) < SAME);
    // A finger that slides is heard at two pitches for a moment, and then at one.
    if (now.beside.share < DOUBLE.shareLater || !isThere(pitch) || !isThere(beside.pitch)) return null;
  }
  return [Math.min(pitch, beside.pitch), Math.max(pitch, beside.pitch)];
}
/** Samples that a later look at a stroke needs. */
const LENGTH_LATER = 1024;

/** The notes of one stroke: what was struck, on one string or two, and what was hammered on or pulled off after it. */
function partsOf(struck: Struck, next: number, frames: readonly Frame[], ear: SoundEar): Sounding[] {
  const { onset, begun, level, confidence } = struck;
  const own = { at: onset.at, end: next, confidence, level };
  const double = doubleOf(struck, next, ear);
  if (double) return double.map((pitch) => ({ ...own, pitch, events: [], isDouble: true }));
  const first = Math.ceil(onset.full / HOP);
  const last = Math.floor(next / HOP);
  const until = frames.slice(first, last);
  const faded = until.findIndex((frame) => frame.level < FADED * level);
  const heard = faded < 0 ? until : until.slice(0, faded);
  const placeOf = (frame: number) => Math.round((first + frame) * HOP);
  const moved = movementsIn(heard, begun.pitch, first - onset.at / HOP, RATE, {
    begins: (pitch, frame) => ear.begins(pitch, placeOf(frame), next),
    isNew: (pitch, frame) => {
      const away = Math.abs(ear.since(struck, placeOf(frame), next).pitch - pitch);
      return [0, ...MISTAKEN].some((interval) => Math.abs(away - interval) < SAME);
    }
  });
  return moved.map(({ from, to, pitch, events }, i): Sounding => ({
    ...own,
    at: i === 0 ? onset.at : placeOf(from),
    end: i === moved.length - 1 ? next : placeOf(to),
    pitch,
    level: i === 0 ? level : Math.max(...heard.slice(from, from + 3).map((frame) => frame.level)),
    events: events.map((event) => ({ ...event, at: placeOf(event.at) / RATE })),
    isDouble: false
  }));
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
  { at, end, pitch, confidence, level, events, isDouble }: Sounding,
  tuning: number,
  most: number,
  frames: readonly Frame[]
): HeardNote {
  const midi = Math.round(pitch - tuning);
  const own = frames.slice(Math.round(at / HOP), Math.max(Math.round(at / HOP) + 1, Math.floor(end / HOP)));
  const loudest = Math.max(...own.map(({ level }) => level));
  const lastLoud = own.findLastIndex(({ level }) => level > Math.max(SILENT, ENDED * loudest));
  const sounding = own.slice(0, lastLoud + 1);
  const curve = isDouble ? [] : curveOf(sounding, midi + tuning);
  const near = curve.filter((cents) => cents !== null && Math.abs(cents) < 60) as number[];
  const cents = near.length >= 3 ? quantile(near, 0.5) : 100 * (pitch - tuning - midi);
  return {
    at: at / RATE,
    seconds: Math.min(end - at, Math.max(1, sounding.length) * HOP) / RATE,
    midi,
    cents: Math.round(cents),
    level: Math.max(0.01, Math.round((100 * level) / most) / 100),
    confidence: Math.round(100 * confidence) / 100,
    curve,
    events: events.map((event) => ({ ...event, at: Math.round(1000 * event.at) / 1000 }))
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

function faultsOf(samples: Float32Array, struck: readonly Struck[]): SoundFault[] {
  const { second, share, least } = TOLD.several;
  const double = struck.filter(({ begun }) => begun.second >= second).length;
  return [
    ...(struck.length === 0 ? (['noise'] as const) : []),
    ...(isClipped(samples) ? (['clipped'] as const) : []),
    ...(struck.length >= least && double >= share * struck.length ? (['several notes at once'] as const) : [])
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
