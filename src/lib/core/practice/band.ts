/** The band: bass, chords, drums and click for an excerpt, as events in beats. No note sounds past its chord. */
import { type Excerpt, type PlayedChange } from '../harmony/excerpt';
import { swung, timed } from '../line/sound';
import type { Instrument } from '../neck/tuning';
import { STANDARD } from '../neck/tuning';
import { stringSets, voicingsOf, type Grip } from '../neck/voicing';
import { DEGREES } from '../theory/degree';
import { type Chord } from '../theory/chord';
import { pitchClass } from '../theory/note';
import { type SoundEvent } from './events';
import { DRUMS, type Feel } from './feel';

const LOWEST_BASS = 28;
const HIGHEST_BASS = 47;
/** The middle of the keyboard, where thirds and sevenths are heard best. */
const CHORDS_CENTRE = 62;
/** The voices that say the chord are played this much louder. */
const TELLING = 1.25;

/** Everything the band plays over one round of an excerpt, in the order of time. */
export function bandEvents(excerpt: Excerpt, feel: Feel): SoundEvent[] {
  return [
    ...bassLine(excerpt, feel),
    ...comping(excerpt, feel),
    ...drumming(excerpt, feel),
    ...clicks(excerpt)
  ].sort((a, b) => a.start - b.start);
}

/** A bar of clicks before the start; its times are negative. */
export function countIn(beats: number): SoundEvent[] {
  return Array.from({ length: beats }, (_, i) => click(i - beats, i === 0));
}

function click(start: number, isFirst: boolean): SoundEvent {
  return {
    part: 'click',
    start,
    beats: 0.1,
    midi: isFirst ? DRUMS.accent : DRUMS.click,
    velocity: isFirst ? 0.9 : 0.6
  };
}

function clicks({ bars }: Excerpt): SoundEvent[] {
  return bars.flatMap(({ start, beats }) =>
    Array.from({ length: Math.ceil(beats) }, (_, i) => click(start + i, i === 0))
  );
}

function drumming({ bars, beats: end }: Excerpt, feel: Feel): SoundEvent[] {
  return bars.flatMap(({ start, beats }) =>
    feel.drums.flatMap(({ drum, hits }) =>
      hits
        .filter(([at]) => at < beats && start + at < end)
        .map(([at, velocity]): SoundEvent => ({
          part: 'drums',
          start: swung(start + at, feel.swing),
          beats: 0.2,
          midi: DRUMS[drum],
          velocity
        }))
    )
  );
}

/** The lowest pitch of a pitch class in the bass register that lies nearest the note before. */
function bassPitch(pc: number, near: number): number {
  const octaves = Array.from({ length: 8 }, (_, i) => pc + 12 * (i + 1)).filter(
    (midi) => midi >= LOWEST_BASS && midi <= HIGHEST_BASS
  );
  return octaves.reduce((a, b) => (Math.abs(b - near) < Math.abs(a - near) ? b : a));
}

function bassLine({ changes }: Excerpt, feel: Feel): SoundEvent[] {
  let last = 36;
  return changes.flatMap((change, i): SoundEvent[] => {
    const { chord } = change.source;
    if (!chord) return [];
    const root = bassPitch(pitchClass(chord.bass ?? chord.root), last);
    const next = changes[(i + 1) % changes.length]!.source.chord;
    const goal = next ? bassPitch(pitchClass(next.bass ?? next.root), root) : root;
    const notes = BASS[feel.bass](chord, root, goal, change.beats);
    last = notes.at(-1)?.[2] ?? root;
    return notes.map(([at, beats, midi]): SoundEvent => ({
      part: 'bass',
      ...timed(change, change.start + at, change.start + Math.min(at + beats, change.beats), feel.swing),
      midi,
      velocity: at === 0 ? 0.85 : 0.7
    }));
  });
}

type BassNote = readonly [at: number, beats: number, midi: number];

/** Semitones of the chord's tone in a slot above its root; of its fifth where it has none. */
function above(chord: Chord, slot: '3' | '5' | '7'): number {
  const tone = chord.tones.find((degree) => DEGREES[degree].slot === slot);
  return tone ? DEGREES[tone].semitones : 7;
}

/** Bass notes of one change: chord, root, the next root, beats. */
const BASS: Readonly<
  Record<Feel['bass'], (chord: Chord, root: number, goal: number, beats: number) => BassNote[]>
> = {
  held: (_, root, __, beats) => [[0, beats, root]],
  long: (chord, root, _, beats) =>
    beats >= 4
      ? [
          [0, beats / 2, root],
          [beats / 2, beats / 2, root + above(chord, '5') - (root + 7 > HIGHEST_BASS ? 12 : 0)]
        ]
      : [[0, beats, root]],
  'root-fifth': (chord, root, _, beats) =>
    everyBeats(2, beats).map((at, i): BassNote => [
      at,
      1.8,
      i % 2 === 0 ? root : root + above(chord, '5') - (root + 7 > HIGHEST_BASS ? 12 : 0)
    ]),
  boogie: (chord, root, _, beats) => {
    const steps = [0, above(chord, '3'), 7, 9];
    return everyBeats(1, beats).map((at, i): BassNote => [at, 0.8, root + steps[i % steps.length]!]);
  },
  // Root, then the chord upward, and on the last beat a semitone from the next root.
  walk: (chord, root, goal, beats) => {
    const steps = [0, above(chord, '3'), above(chord, '5'), above(chord, '3')];
    const lead = goal > root ? goal - 1 : goal + 1;
    return everyBeats(1, beats).map((at, i, all): BassNote => [
      at,
      0.95,
      i === all.length - 1 && i > 0 ? lead : root + steps[i % steps.length]!
    ]);
  }
};

function everyBeats(step: number, beats: number): number[] {
  return Array.from({ length: Math.ceil(beats / step) }, (_, i) => i * step);
}

function comping({ changes, bars }: Excerpt, feel: Feel): SoundEvent[] {
  const voicings = compingVoicings(changes);
  return changes.flatMap((change, i): SoundEvent[] => {
    const grip = voicings[i];
    if (!grip) return [];
    const end = change.start + change.beats;
    const hits = [...chordHits(change, bars, feel)].sort(([a], [b]) => a - b);
    return hits.flatMap(([at, beats, velocity], n): SoundEvent[] => {
      const until = Math.min(end, hits[n + 1]?.[0] ?? end, at + beats);
      return grip.cells.map(({ midi, degree }) => {
        const isTelling = ['3', '7'].includes(DEGREES[degree].slot);
        return {
          part: 'chords' as const,
          ...timed(change, at, until, feel.swing),
          midi,
          velocity: Math.min(1, velocity * (isTelling ? TELLING : 0.85))
        };
      });
    });
  });
}

/** The hits of the feel inside a change, and one at its start: the moment of change is always heard. */
function chordHits(change: PlayedChange, bars: Excerpt['bars'], feel: Feel): [number, number, number][] {
  const end = change.start + change.beats;
  const byTime = new Map<number, [number, number, number]>();
  byTime.set(change.start, [change.start, 1, 0.65]);
  for (const bar of bars) {
    for (const [at, beats, velocity] of feel.chords) {
      const time = bar.start + at;
      if (at < bar.beats && time >= change.start && time < end) byTime.set(time, [time, beats, velocity]);
    }
  }
  return [...byTime.values()];
}

/** A voicing for each change, each near the one before: drop 2 where there are four tones, else a close triad. */
function compingVoicings(changes: readonly PlayedChange[]): (Grip | null)[] {
  const known = new Map<string, Grip[]>();
  let before: Grip | null = null;
  return changes.map(({ source: { chord } }) => {
    if (!chord) return null;
    const grips = known.get(chord.symbol) ?? compingGrips(STANDARD, chord);
    known.set(chord.symbol, grips);
    const from: Grip | null = before;
    const distance = (grip: Grip) =>
      from ? voiceDistance(from, grip) : Math.abs(centre(grip) - CHORDS_CENTRE);
    before = [...grips].sort((a, b) => distance(a) - distance(b))[0] ?? null;
    return before;
  });
}

function compingGrips(neck: Instrument, chord: Chord): Grip[] {
  const of = (type: 'drop2' | 'closed') =>
    stringSets(neck, type).flatMap((set) => voicingsOf(neck, chord, type, set));
  const found = of('drop2');
  const grips = found.length ? found : of('closed');
  const inReach = grips.filter((grip) => Math.abs(centre(grip) - CHORDS_CENTRE) <= 6);
  return inReach.length ? inReach : grips.length ? grips : [bareGrip(chord)];
}

/** A chord of fewer than three tones, or one that no grip holds, straight from its tones. */
function bareGrip(chord: Chord): Grip {
  const cells = chord.pitchClasses.map((pc, i) => ({
    string: 1,
    fret: 0,
    midi: 60 + pc - (pc > 6 ? 12 : 0),
    finger: 0,
    stretch: false,
    note: '',
    degree: chord.tones[i]!
  }));
  return { inversion: 0, cells };
}

function centre({ cells }: Grip): number {
  return cells.reduce((sum, { midi }) => sum + midi, 0) / cells.length;
}

/** How far each voice is from the nearest one of the chord before. */
function voiceDistance(from: Grip, to: Grip): number {
  const drift = Math.abs(centre(to) - CHORDS_CENTRE) > 5 ? 4 : 0;
  return (
    drift +
    to.cells.reduce(
      (sum, { midi }) => sum + Math.min(...from.cells.map((cell) => Math.abs(cell.midi - midi))),
      0
    )
  );
}
