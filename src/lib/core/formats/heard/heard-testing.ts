/** Pieces of our own in many textures, as MIDI files without chord names; and how well a chart tells their chords. */
import type { Midi, PitchClass } from '../../base/units';
import { writeMidi, type MidiEvent } from 'midi-file';
import { readSheet, type Sheet } from '../../harmony/sheet';
import type { AnalysedChange } from '../../harmony/analysis';
import type { Chord } from '../../theory/chord';
import { pitchClass } from '../../theory/note';
import { chanceOf, type Chance } from '../../line/chance';

const QUARTER = 480;

/** A note in quarters. */
export interface Struck {
  readonly at: number;
  readonly for: number;
  readonly midi: Midi;
  readonly velocity?: number;
}

/** One change with where it stands, in quarters, and the one after it. */
export interface Here {
  readonly change: AnalysedChange;
  readonly at: number;
  readonly quarters: number;
  readonly next: AnalysedChange | null;
  readonly random: Chance;
  /** Steps of the key, pitch classes. */
  readonly scale: readonly number[];
}

export type Texture = (here: Here) => readonly Struck[];

export interface TestPiece {
  readonly name: string;
  readonly chart: string;
  readonly parts: readonly {
    readonly name: string;
    readonly plays: Texture;
    readonly program?: number;
    readonly pedal?: true;
  }[];
  /** Quarters by which notes are off at most, as hands are. */
  readonly loose?: number;
  /** All parts on one track. */
  readonly isFormat0?: true;
  /** Quarters of a pickup before bar 1, silent. */
  readonly late?: number;
}

export function pieceFile(piece: TestPiece, seed = 1): Uint8Array {
  const sheet = readSheet(piece.chart);
  const { meter } = sheet.head;
  const quarter = 4 / meter.unit;
  const random = chanceOf(seed);
  const scale = scaleOf(sheet);
  const { changes } = sheet.analysis;
  const tracks = piece.parts.map(({ name, plays, program, pedal }, channel) => {
    const timed: { tick: number; rank: number; event: Record<string, unknown> }[] = [];
    const push = (at: number, rank: number, event: Record<string, unknown>) =>
      timed.push({
        tick: Math.max(0, Math.round((at + (piece.late ?? 0)) * QUARTER)),
        rank,
        event: { ...event, channel }
      });
    if (program !== undefined) push(-(piece.late ?? 0), 0, { type: 'programChange', programNumber: program });
    changes.forEach((change, i) => {
      if (!change.chord) return;
      const at = change.start * quarter;
      const here: Here = {
        change,
        at,
        quarters: change.beats * quarter,
        next: changes[i + 1] ?? null,
        random,
        scale
      };
      if (pedal) {
        push(at - 0.02, 1, { type: 'controller', controllerType: 64, value: 0 });
        push(at + 0.05, 1, { type: 'controller', controllerType: 64, value: 127 });
      }
      for (const note of plays(here)) {
        const off = (piece.loose ?? 0) * (2 * random() - 1);
        push(note.at + off, 2, { type: 'noteOn', noteNumber: note.midi, velocity: note.velocity ?? 80 });
        push(note.at + off + note.for * 0.97, 0, { type: 'noteOff', noteNumber: note.midi, velocity: 0 });
      }
    });
    return { name, timed };
  });
  const meters = [
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 500_000 },
    {
      deltaTime: 0,
      meta: true,
      type: 'timeSignature',
      numerator: meter.beats,
      denominator: meter.unit,
      metronome: 24,
      thirtyseconds: 8
    }
  ];
  const asEvents = (timed: (typeof tracks)[number]['timed'], name: string, head: readonly unknown[] = []) => {
    let last = 0;
    const events = [...timed]
      .sort((a, b) => a.tick - b.tick || a.rank - b.rank)
      .map(({ tick, event }) => {
        const deltaTime = tick - last;
        last = tick;
        return { ...event, deltaTime };
      });
    return [
      { deltaTime: 0, meta: true, type: 'trackName', text: name },
      ...head,
      ...events,
      { deltaTime: 0, meta: true, type: 'endOfTrack' }
    ] as MidiEvent[];
  };
  const all = piece.isFormat0
    ? [
        asEvents(
          tracks.flatMap(({ timed }) => timed),
          piece.name,
          meters
        )
      ]
    : [asEvents([], piece.name, meters), ...tracks.map(({ timed, name }) => asEvents(timed, name))];
  return Uint8Array.from(
    writeMidi({
      header: { format: piece.isFormat0 ? 0 : 1, numTracks: all.length, ticksPerBeat: QUARTER },
      tracks: all
    })
  );
}

function scaleOf({ analysis }: Sheet): number[] {
  const set = new Set(analysis.changes.flatMap(({ chord }) => chord?.pitchClasses ?? []));
  return [...set].sort((a, b) => a - b);
}

/** The lowest MIDI number of a pitch class from one on. */
export const above = (pc: PitchClass, from: number): number => from + ((pc - (from % 12) + 12) % 12);

/** The tones of a chord in close position from a pitch on. */
export const closeFrom = ({ change }: Here, from: number, without: readonly number[] = []): number[] => {
  const tones = change.chord!.pitchClasses.filter((pc) => !without.includes(pc));
  return tones.map((pc) => above(pc, from)).sort((a, b) => a - b);
};
/** The pitch class that lies under a chord. */
export const underOf = ({ bass, rootPc }: Chord): number => (bass ? pitchClass(bass) : rootPc);
export const bassOf = ({ change }: Here): number => underOf(change.chord!);

/** How much of the time a chart has the right chord: root and triad, and the bass where another tone than the root is written. */
export function shareRight(truth: string, found: string | null, isStrict = false): number {
  if (found === null) return 0;
  const [a, b] = [readSheet(truth).form, readSheet(found).form];
  const total = a.beats;
  let right = 0;
  for (let beat = 0; beat < total; beat += 0.5) {
    const at = (form: typeof a) => form.changes.findLast(({ start }) => start <= beat + 0.01)?.chord;
    const [wanted, got] = [at(a), at(b)];
    if (!wanted) {
      right += 0.5;
      continue;
    }
    if (!got) continue;
    const third = (chord: NonNullable<typeof got>) =>
      [3, 4].filter((up) => chord.pitchClasses.includes((chord.rootPc + up) % 12)).join();
    const isRoot = wanted.rootPc === got.rootPc && (third(wanted) === third(got) || third(wanted) === '');
    const isBass = underOf(wanted) === underOf(got);
    const isSame = wanted.pitchSet === got.pitchSet && isBass;
    const isRightRoot = isStrict ? isRoot && isBass && isSame : isRoot && isBass;
    if (isRightRoot || (wanted.pitchSet === got.pitchSet && isBass)) right += 0.5;
  }
  return right / total;
}
