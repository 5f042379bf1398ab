/**
 * Drills in the order in which players take them: written runs over an excerpt, one note list in beats. Every run stays
 * inside its chord and lands on the next chord's target on the beat. A new drill is one new row.
 */
import { firstOf, nth } from '../base/list';
import { DEGREES } from '../theory/degree';
import type { Area } from '../neck/area';
import type { NamedCell } from '../neck/shape';
import type { PlayedChange } from '../harmony/excerpt';
import type { NamedTone } from '../moment/moment';
import { TICKS, ticksOf, written, type LineNote } from './model';
import { callsAndAnswers, motifsInTurn } from './motif-drill';
import type { Drill, DrillMaterial } from './drill';
import { runInto, WIDEST, type RunSlot, type Way } from './run';

/** What a run goes through on a change: the tones of each of its notes after the landing. */
type Route = (place: RoutePlace) => readonly RunSlot<NamedTone>[];

interface RoutePlace {
  readonly area: Area;
  readonly change: PlayedChange;
  /** Its place in the excerpt. */
  readonly at: number;
  /** How often the excerpt has been played. */
  readonly round: number;
  readonly landing: NamedTone;
  /** Notes after the landing. */
  readonly count: number;
}

/** A run that turns at the edges of its area. */
const GENTLY = 0.05;
/** One that has to rise, or to fall. */
const FIRMLY = 0.7;

const times = <T>(count: number, thing: T): T[] => Array.from({ length: count }, () => thing);
const through = (tones: readonly NamedTone[], way: Way, against = GENTLY): RunSlot<NamedTone> => ({
  tones,
  way,
  against,
  leaps: false
});

const upward: Route = ({ area, count }) => times(count, through(area.cells, 1));
const downward: Route = ({ area, count }) => times(count, through(area.cells, -1));
/** Up on one chord, down on the next; the next time round the other way. */
const inTurn: Route = (place) => ((place.at + place.round) % 2 ? downward : upward)(place);

/** So few notes on a change leave no time for a scale. */
const FEW = 4;

/**
 * What a drill plays on a fast change: chord tones alone, of two, three or four notes; the last of three is free to step into what comes. So
 * few neighbours of the scale would say nothing of the chord.
 */
const fast =
  (tones: (place: RoutePlace) => readonly NamedTone[], way: (place: RoutePlace) => Way): Route =>
  (place) => {
    const { area, count, landing } = place;
    const own = tones(place);
    const others = own.some(({ midi }) => midi !== landing.midi) ? own : area.cells;
    const chordal: RunSlot<NamedTone> = { tones: others, way: way(place), against: FIRMLY, leaps: true };
    const slots = times(count, chordal);
    return count === 2 ? [chordal, through(area.cells, way(place))] : slots;
  };

/** Runs over every change by a route, each from its target by a step into the next one; where changes are fast by a route of chord tones. */
function runs(route: Route, fastRoute: Route): Drill['play'] {
  return (material) =>
    material.excerpt.changes.flatMap((change, at) => {
      const area = material.areas[at];
      if (!area || area.cells.length === 0) return [];
      const count = Math.max(1, Math.round(change.beats * material.perBeat)) - 1;
      const landing = material.targets[at] ?? firstOf(area.cells);
      const place = { area, change, at, round: material.round, landing, count };
      const next = nextTarget(material, at) ?? landing;
      const isFast = count < FEW;
      // Of two notes and of four each is a tone of the chord, wherever it leads.
      const into = isFast && count !== 2 ? null : next.midi;
      const slots = (isFast ? fastRoute : route)(place);
      return inTime(material, change, [landing, ...runInto(landing, slots, into)]);
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

/**
 * Notes one after another from the start of a change, the first of them the landing; the last one fills the time, and one
 * that comes twice is held over.
 */
function inTime({ perBeat }: DrillMaterial, change: PlayedChange, tones: readonly NamedTone[]): LineNote[] {
  const from = ticksOf(change.start);
  const end = ticksOf(change.start + change.beats);
  const step = TICKS / perBeat;
  const notes: LineNote[] = [];
  tones.forEach((tone, i) => {
    const start = from + i * step;
    if (start >= end) return;
    const length = (i === tones.length - 1 ? end : Math.min(end, start + step)) - start;
    const last = notes.at(-1);
    if (last?.midi === tone.midi) notes[notes.length - 1] = { ...last, length: last.length + length };
    else notes.push(written(tone, start, length, i === 0 ? 'target' : 'run'));
  });
  return notes;
}

const tonesOf = (cells: readonly NamedCell[], { source: { chord } }: PlayedChange) => {
  const wanted = new Set(chord ? chord.pitchClasses : []);
  const tones = cells.filter(({ midi }) => wanted.has(midi % 12));
  return tones.length > 1 ? tones : cells;
};

/** Between a root and the fifth above it, again and again: in the octave of the landing, or the nearest to it. */
const toTheFifth: Route = ({ area: { cells }, landing, count }) => {
  const octaves = cells.flatMap((root, i) => {
    const fifth = cells.findIndex(({ degree }, n) => n > i && DEGREES[degree].slot === '5');
    return root.degree === '1' && fifth > i ? [cells.slice(i, fifth + 1)] : [];
  });
  const away = (tones: readonly NamedTone[]) =>
    Math.min(...tones.map(({ midi }) => Math.abs(midi - landing.midi)));
  const inside = [...octaves].sort((a, b) => away(a) - away(b))[0];
  // Out of reach: through the whole shape then.
  if (!inside || away(inside) > WIDEST) return times(count, through(cells, 1));
  // The last note may lie outside: it leads on.
  return times(count, through(inside, 1)).map((slot, i) => (i === count - 1 ? through(cells, 1) : slot));
};

/** Chord tones up in the first half, the scale down in the second. */
const arpeggioThenScale: Route = ({ area: { cells }, change, count }) => {
  const up = Math.ceil(count / 2);
  const climb: RunSlot<NamedTone> = { tones: tonesOf(cells, change), way: 1, against: FIRMLY, leaps: true };
  return [...times(up, climb), ...times(count - up, through(cells, -1, FIRMLY))];
};

/** The arpeggio from its 1, then from its 3, its 5 and its 7, change by change. */
const arpeggios: Route = ({ area: { cells }, change, at, round, landing, count }) => {
  const tones = tonesOf(cells, change);
  const slot = nth(['1', '3', '5', '7'] as const, (at + round) % 4);
  const isFrom = ({ degree }: NamedTone) => DEGREES[degree].slot === slot;
  const begins = tones.filter((tone) => isFrom(tone) && tone.midi !== landing.midi);
  const climb: RunSlot<NamedTone> = { tones, way: 1, against: GENTLY, leaps: true };
  return times(count, climb).map((one, i) => {
    if (i === count - 1) return { ...one, tones: cells };
    return i === 0 && begins.length > 0 && !isFrom(landing) ? { ...one, tones: begins } : one;
  });
};

const chordTones = ({ area: { cells }, change }: RoutePlace) => tonesOf(cells, change);
const up = (): Way => 1;
const down = (): Way => -1;
const turning = ({ at, round }: RoutePlace): Way => ((at + round) % 2 ? -1 : 1);
/** The tone whose turn it is, where that is not the landing. */
const inOrder = (place: RoutePlace) => {
  const slot = nth(['1', '3', '5', '7'] as const, (place.at + place.round) % 4);
  const all = chordTones(place);
  const own = all.filter(({ degree, midi }) => DEGREES[degree].slot === slot && midi !== place.landing.midi);
  return place.count === 1 && own.length > 0 ? own : all;
};
/** Root and fifth, the nearest to the landing. */
const rootAndFifth = (place: RoutePlace) => {
  const near = chordTones(place).filter(
    ({ degree, midi }) =>
      ['1', '5'].includes(DEGREES[degree].slot) && Math.abs(midi - place.landing.midi) <= WIDEST_APART
  );
  return near.length > 0 ? near : chordTones(place);
};
/** Semitones within which root and fifth lie around a landing. */
const WIDEST_APART = 12;

/** Landings of a given length, with silence after them. */
function landings(length: (change: PlayedChange) => number): Drill['play'] {
  return ({ excerpt, targets }) =>
    excerpt.changes.flatMap((change, at): LineNote[] => {
      const target = targets[at];
      const beats = Math.min(change.beats, length(change));
      return target ? [written(target, ticksOf(change.start), ticksOf(beats), 'target')] : [];
    });
}

/** The first half of a change is silent, to be sung into; the target sounds in the second. */
const afterSinging: Drill['play'] = ({ excerpt, targets }) =>
  excerpt.changes.flatMap(({ start, beats }, at): LineNote[] => {
    const target = targets[at];
    return target ? [written(target, ticksOf(start + beats / 2), ticksOf(beats / 2), 'target')] : [];
  });

/** The skeleton line of the path, placed into the excerpt. */
const withApproach: Drill['play'] = ({ skeleton }) => [...skeleton];

/** A line of the player's own over what is played; the material holds it in the skeleton's place. */
export const OWN_LINE: Drill = {
  id: 'line',
  name: 'A line of your own',
  hint: 'As it is written',
  play: withApproach
};

export const DRILLS: readonly Drill[] = [
  {
    id: 'up',
    name: 'Ascending',
    hint: 'From each target up through the shape',
    play: runs(upward, fast(chordTones, up))
  },
  {
    id: 'down',
    name: 'Descending',
    hint: 'From each target down through the shape',
    play: runs(downward, fast(chordTones, down))
  },
  {
    id: 'alternate',
    name: 'Up and down in turn',
    hint: 'Up on one chord, down on the next; the next round the other way',
    play: runs(inTurn, fast(chordTones, turning))
  },
  {
    id: 'travel',
    name: 'A new position at each change',
    hint: 'Up the neck and back: the hardest',
    travels: true,
    play: runs(inTurn, fast(chordTones, turning))
  },
  {
    id: 'arpeggio-scale',
    name: 'Arpeggio up, scale down',
    hint: 'Down to the next chord’s note',
    play: runs(arpeggioThenScale, fast(chordTones, up))
  },
  {
    id: 'arpeggios',
    name: 'Arpeggios from each tone',
    hint: 'From the 1, the 3, the 5, the 7 in turn',
    play: runs(arpeggios, fast(inOrder, up))
  },
  {
    id: 'fifth',
    name: 'Up to the fifth and back',
    hint: 'From the root',
    play: runs(toTheFifth, fast(rootAndFifth, up))
  },
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
  },
  {
    id: 'sing',
    name: 'Sing the target, then play it',
    hint: 'The first half of each chord is for your voice; the note comes in the second',
    play: afterSinging
  },
  {
    id: 'motif',
    name: 'A motif',
    hint: 'The same few notes on every chord: again, with another ending, upside down, only its head, twice as fast',
    play: motifsInTurn
  },
  {
    id: 'answer',
    name: 'Call and answer',
    hint: 'A call on one chord, its head with another ending on the next',
    play: callsAndAnswers
  }
];

/** The drill of an id. */
export function drillOf(id: string): Drill | undefined {
  return DRILLS.find((drill) => drill.id === id);
}
