/**
 * Drills in the order in which players take them: written runs over an excerpt, one note list in beats. Every run stays
 * inside its chord and lands on the next chord's target on the beat. A new drill is one new row.
 */
import { DEGREES } from '../theory/degree';
import type { Area } from '../neck/area';
import type { NamedCell } from '../neck/shape';
import type { Excerpt, PlayedChange } from '../harmony/excerpt';
import type { NamedTone } from '../moment/moment';
import { TICKS, ticksOf, written, type LineNote } from './model';
import { fitRun, neighbourOf } from './run';

/** What a drill is made from: for every change of the excerpt its shape and its target. */
export interface DrillMaterial {
  readonly excerpt: Excerpt;
  /** By the place in the excerpt; null where nothing is played. */
  readonly areas: readonly (Area | null)[];
  readonly targets: readonly (NamedTone | null)[];
  /** Notes of the line of landing, leaving and approaching, in ticks of the excerpt. */
  readonly skeleton: readonly LineNote[];
  /** Notes in a beat: 2 eighths, 3 triplets, 4 sixteenths. */
  readonly perBeat: number;
}

export interface Drill {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** The hand goes to a new position at each change. */
  readonly travels?: true;
  readonly play: (material: DrillMaterial) => LineNote[];
}

type Direction = 1 | -1;

/** The cells a run goes through on a change, lowest first, and the index it starts from after its landing. */
type Route = (
  cells: readonly NamedCell[],
  change: PlayedChange,
  at: number
) => { cells: readonly NamedCell[]; from: number; way: Direction };

const upward: Route = (cells) => ({ cells, from: 0, way: 1 });
const downward: Route = (cells) => ({ cells, from: cells.length - 1, way: -1 });

/** Runs over every change by a route, each from its target to a neighbour of the next one. */
function runs(route: Route): Drill['play'] {
  return (material) =>
    material.excerpt.changes.flatMap((change, at) => {
      const area = material.areas[at];
      if (!area || area.cells.length === 0) return [];
      const slots = Math.max(1, Math.round(change.beats * material.perBeat));
      const landing = material.targets[at] ?? area.cells[0]!;
      const { cells, from, way } = route(area.cells, change, at);
      const next = nextTarget(material, at) ?? landing;
      const end = neighbourOf(
        cells.map(({ midi }) => midi),
        next.midi
      );
      const rest = fitRun(cells.length, from, end, slots - 1, way).map((i) => cells[i]!);
      return inTime(material, change, [landing, ...rest]);
    });
}

function nextTarget({ targets, excerpt }: DrillMaterial, at: number): NamedTone | null {
  const count = excerpt.changes.length;
  for (let step = 1; step <= count; step++) {
    const next = targets[(at + step) % count];
    if (next) return next;
  }
  return null;
}

/** Notes one after another from the start of a change, the first of them the landing; the last one fills the time. */
function inTime({ perBeat }: DrillMaterial, change: PlayedChange, tones: readonly NamedTone[]): LineNote[] {
  const from = ticksOf(change.start);
  const end = ticksOf(change.start + change.beats);
  const step = TICKS / perBeat;
  return tones.flatMap((tone, i): LineNote[] => {
    const start = from + i * step;
    if (start >= end) return [];
    const to = i === tones.length - 1 ? end : Math.min(end, start + step);
    return [written(tone, start, to - start, i === 0 ? 'target' : 'run')];
  });
}

const tonesOf = (cells: readonly NamedCell[], { source: { chord } }: PlayedChange) => {
  const wanted = new Set(chord ? chord.pitchClasses : []);
  const tones = cells.filter(({ midi }) => wanted.has(midi % 12));
  return tones.length > 1 ? tones : cells;
};

/** From the lowest root to its fifth and back, again and again. */
const toTheFifth: Route = (cells) => {
  const root = Math.max(
    0,
    cells.findIndex(({ degree }) => degree === '1')
  );
  const fifth = cells.findIndex(({ degree }, i) => i > root && DEGREES[degree].slot === '5');
  return { cells: cells.slice(root, fifth > root ? fifth + 1 : undefined), from: 0, way: 1 };
};

/** Chord tones up in the first half, the scale down in the second, to the next chord's note. */
const arpeggioThenScale: Drill['play'] = (material) =>
  material.excerpt.changes.flatMap((change, at) => {
    const area = material.areas[at];
    if (!area || area.cells.length === 0) return [];
    const slots = Math.max(1, Math.round(change.beats * material.perBeat));
    const landing = material.targets[at] ?? area.cells[0]!;
    const next = nextTarget(material, at) ?? landing;
    const tones = tonesOf(area.cells, change);
    const up = Math.floor((slots - 1) / 2);
    const climb = fitRun(tones.length, 0, Math.min(up - 1, tones.length - 1), up, 1).map((i) => tones[i]!);
    const pitches = area.cells.map(({ midi }) => midi);
    const top = climb.at(-1) ?? landing;
    const from = Math.max(0, pitches.filter((midi) => midi <= top.midi).length - 1);
    const down = fitRun(pitches.length, from, neighbourOf(pitches, next.midi), slots - 1 - up, -1);
    return inTime(material, change, [landing, ...climb, ...down.map((i) => area.cells[i]!)]);
  });

/** The arpeggio from its 1, then from its 3, its 5 and its 7, change by change. */
const arpeggios: Route = (cells, change, at) => {
  const tones = tonesOf(cells, change);
  const slot = (['1', '3', '5', '7'] as const)[at % 4]!;
  return {
    cells: tones,
    from: Math.max(
      0,
      tones.findIndex(({ degree }) => DEGREES[degree].slot === slot)
    ),
    way: 1
  };
};

/** Landings of a given length, with silence after them. */
function landings(length: (change: PlayedChange) => number): Drill['play'] {
  return ({ excerpt, targets }) =>
    excerpt.changes.flatMap((change, at): LineNote[] => {
      const target = targets[at];
      const beats = Math.min(change.beats, length(change));
      return target ? [written(target, ticksOf(change.start), ticksOf(beats), 'target')] : [];
    });
}

/** The skeleton line of the path, placed into the excerpt. */
const withApproach: Drill['play'] = ({ skeleton }) => [...skeleton];

export const DRILLS: readonly Drill[] = [
  { id: 'up', name: 'Ascending', hint: 'Every shape from its lowest note', play: runs(upward) },
  { id: 'down', name: 'Descending', hint: 'Every shape from its highest note', play: runs(downward) },
  {
    id: 'alternate',
    name: 'Up and down in turn',
    hint: 'Up on one chord, down on the next',
    play: runs((cells, change, at) => (at % 2 ? downward : upward)(cells, change, at))
  },
  {
    id: 'travel',
    name: 'A new position at each change',
    hint: 'Up the neck and back: the hardest',
    travels: true,
    play: runs((cells, change, at) => (at % 2 ? downward : upward)(cells, change, at))
  },
  {
    id: 'arpeggio-scale',
    name: 'Arpeggio up, scale down',
    hint: 'Down to the next chord’s note',
    play: arpeggioThenScale
  },
  {
    id: 'arpeggios',
    name: 'Arpeggios from each tone',
    hint: 'From the 1, the 3, the 5, the 7 in turn',
    play: runs(arpeggios)
  },
  { id: 'fifth', name: 'Up to the fifth and back', hint: 'From the root', play: runs(toTheFifth) },
  { id: 'targets', name: 'Targets alone', hint: 'Held until the next', play: landings(({ beats }) => beats) },
  {
    id: 'approach',
    name: 'Targets with an approach',
    hint: 'Land, leave, approach the next',
    play: withApproach
  },
  {
    id: 'silence',
    name: 'Targets with silence between',
    hint: 'A beat of sound, then wait',
    play: landings(() => 1)
  }
];

export function drillOf(id: string): Drill | undefined {
  return DRILLS.find((drill) => drill.id === id);
}
