/**
 * What a note comes to in its course: a note that is bent, slid or let down while it sounds is heard at one pitch and then at another. For the
 * harmony each of them is a note; as a line they are written with the technique that leads to them.
 */
import type { Midi } from '../base/units';
import type { LineNote } from '../line/model';
import { STEP_SECONDS, type HeardNote, type PitchEvent, type PlayedNote } from './model';

/** How a hand led to a note and what it did there, as a line has it. */
export type Technique = Pick<LineNote, 'bend' | 'release' | 'slide' | 'vibrato'>;

/** A note at one pitch. */
export interface Stretch extends PlayedNote {
  readonly technique?: Technique;
  /** How far it was bent to come there, in cents. */
  readonly bent?: number;
}

/** A pitch counts as a note of its own where it is held so long before it moves, and after, in seconds. */
const HELD = { before: 0.13, after: 0.25 } as const;
/** A pitch that moves less makes no other note, in cents. */
const MOVES = 70;
/** A bend of less is a curl, which makes no other pitch, in cents. */
const CURL = 60;

/** A note as it was heard, or with its time and pitch alone. */
export type Heard = PlayedNote & {
  readonly curve?: HeardNote['curve'] | undefined;
  readonly events?: HeardNote['events'] | undefined;
};

/** Notes as they sound, each pitch that is held a note of its own; in the order of their starts. */
export function stretchesOf(notes: readonly Heard[]): Stretch[] {
  return notes.flatMap((note): Stretch[] => {
    const { at, seconds, midi, level, events = [], curve = [] } = note;
    const plain = { at, seconds, midi, ...(level === undefined ? {} : { level }) };
    if (events.length === 0) return [plain];
    const end = at + seconds;
    const moves = events.filter(({ kind, cents }) => kind !== 'vibrato' && Math.abs(cents) >= MOVES);
    // Without its curve it is not known what it comes to.
    const cuts = moves.filter((event, i) => {
      if (curve.length === 0) return false;
      const before = moves[i - 1]?.at ?? at;
      return event.at - before >= HELD.before && (moves[i + 1]?.at ?? end) - event.at >= HELD.after;
    });
    const stretches = [null, ...cuts].map((cut, i): Stretch => {
      const [from, to] = [cut?.at ?? at, cuts[i]?.at ?? end];
      const own = events.filter((event) => event !== cut && event.at >= from - 1e-6 && event.at < to);
      const pitch = cuts.length ? pitchIn(note, from, to) : midi;
      const technique = techniqueOf(pitch, cut, own);
      const bend = cut?.kind === 'bend' ? cut : own.find(({ kind }) => kind === 'bend');
      return {
        ...plain,
        at: from,
        seconds: to - from,
        midi: pitch,
        ...(technique ? { technique } : {}),
        ...(bend && bend.cents >= CURL ? { bent: bend.cents } : {})
      };
    });
    return stretches;
  });
}

/** The pitch at the end of a stretch of a note, from its curve: MIDI number. */
function pitchIn({ at, midi, curve = [] }: Heard, from: number, to: number): number {
  const [first, last] = [from, to].map((second) => Math.round((second - at) / STEP_SECONDS)) as [
    number,
    number
  ];
  const known = curve
    .slice(Math.max(first, Math.floor((first + last) / 2)), last)
    .filter((cents) => cents !== null);
  known.sort((a, b) => a - b);
  return midi + Math.round((known[known.length >> 1] ?? 0) / 100);
}

/** What led to a pitch (`cut`, none where it was struck), and what is done within it. */
function techniqueOf(midi: Midi, cut: PitchEvent | null, own: readonly PitchEvent[]): Technique | null {
  const led = cut ?? own.find(({ kind }) => kind === 'bend' || kind === 'slide');
  const isCurl = led?.kind === 'bend' && led.cents < CURL;
  const release = own.find(({ kind }) => kind === 'release');
  const technique: Technique = {
    ...(led?.kind === 'bend'
      ? isCurl
        ? { bend: { from: midi, cents: 50 } }
        : { bend: { from: midi - Math.max(1, Math.round(led.cents / 100)) } }
      : {}),
    ...(led?.kind === 'bend' && !isCurl && release
      ? { release: { to: midi + Math.min(-1, Math.round(release.cents / 100)) } }
      : {}),
    ...(led?.kind === 'slide' && cut ? { slide: true as const } : {}),
    ...(own.some(({ kind }) => kind === 'vibrato') ? { vibrato: true as const } : {})
  };
  return Object.keys(technique).length ? technique : null;
}
