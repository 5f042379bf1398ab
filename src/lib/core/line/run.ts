/**
 * Runs: from a landing through a collection into the next landing, in exactly the notes there is time for. The cheapest of
 * all runs is taken (`cheapest.ts`): by neighbours of the collection, in one direction as long as it can, turning where it
 * must so that it steps into what comes. Source: docs/music-rules.md, Drills.
 */
import { nth } from '../base/list';
import type { Midi } from '../base/units';
import { cheapestWay } from './cheapest';

export type Way = 1 | -1;

/** What one note of a run is chosen from. */
export interface RunSlot<Tone> {
  readonly tones: readonly Tone[];
  /** The direction it would rather be reached in. */
  readonly way: Way;
  /** What going the other way costs: little for a run that turns at the edge, more for one that has to rise or fall. */
  readonly against: number;
  /** Chord tones lie further apart than a run may leap. */
  readonly leaps: boolean;
}

/** The widest leap inside a run, in semitones. */
export const WIDEST = 7;
/** And in an arpeggio. */
const WIDEST_LEAP = 12;
/** A step into the next landing, in semitones. */
const STEP = 2;

/** What a run pays for. Data, not law; what is dear is done only where nothing else arrives. */
const COSTS = {
  /** A tone of the collection left out. */
  skip: 1.2,
  turn: 1,
  turnAtEdge: 0.3,
  /** The same tone once more, which is held and not struck. */
  held: 8,
  tooWide: 60,
  /** Into the next landing: on its own pitch already, or from further than a step, for each semitone. */
  alreadyThere: 30,
  far: 2
} as const;

interface State<Tone> {
  readonly tone: Tone;
  readonly way: Way;
}

/**
 * The tones of a run after its landing, one for each slot; a tone that comes twice in a row is to be held. `into` is the pitch
 * that follows the run, null where nothing does. Slots without a tone end the run.
 */
export function runInto<Tone extends { readonly midi: Midi }>(
  landing: Tone,
  slots: readonly RunSlot<Tone>[],
  into: number | null
): Tone[] {
  const first: State<Tone>[] = [{ tone: landing, way: slots[0]?.way ?? 1 }];
  const layers = slots.map(({ tones }) =>
    tones.flatMap((tone): State<Tone>[] => [
      { tone, way: 1 },
      { tone, way: -1 }
    ])
  );
  const own = ({ tone, way }: State<Tone>, layer: number) => {
    if (layer === 0) return layer === slots.length && into !== null ? arrival(tone.midi, into) : 0;
    const slot = nth(slots, layer - 1);
    const arrives = layer === slots.length && into !== null ? arrival(tone.midi, into) : 0;
    return (way === slot.way ? 0 : slot.against) + arrives;
  };
  const step = (from: State<Tone>, to: State<Tone>, layer: number) => moved(from, to, nth(slots, layer - 1));
  return cheapestWay([first, ...layers], own, step)
    .slice(1)
    .map(({ tone }) => tone);
}

function arrival(midi: Midi, into: number): number {
  const distance = Math.abs(into - midi);
  if (distance === 0) return COSTS.alreadyThere;
  return distance <= STEP ? 0 : COSTS.far * distance;
}

function moved<Tone extends { readonly midi: Midi }>(
  from: State<Tone>,
  to: State<Tone>,
  { tones, leaps }: RunSlot<Tone>
): number {
  const [a, b] = [from.tone.midi, to.tone.midi];
  if (a === b) return to.way === from.way ? COSTS.held : Infinity;
  if (Math.sign(b - a) !== to.way) return Infinity;
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  const between = tones.filter(({ midi }) => midi > low && midi < high).length;
  const isEdge = !tones.some(({ midi }) => (midi - a) * from.way > 0);
  const turn = to.way === from.way ? 0 : isEdge ? COSTS.turnAtEdge : COSTS.turn;
  const isWide = high - low > (leaps ? WIDEST_LEAP : WIDEST);
  return turn + COSTS.skip * between + (isWide ? COSTS.tooWide : 0);
}
