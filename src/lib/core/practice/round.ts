/** One round of practice put together: the excerpt, the band and the drill over it. */
import { firstOf, nth } from '../base/list';
import type { Beats } from '../base/units';
import { bisector } from 'd3-array';
import { DEGREES } from '../theory/degree';
import type { Analysis } from '../harmony/analysis';
import type { Line, LineNote } from '../line/model';
import { notesInBeat, beatsOf, endOf, ticksOf } from '../line/model';
import { sounding, swingUnder, unswung, type Sounding, type Swing } from '../line/sound';
import type { NamedTone } from '../moment/moment';
import type { Area } from '../neck/area';
import type { Instrument } from '../neck/tuning';
import { bandEvents } from './band';
import type { Drill, DrillMaterial } from '../line/drill';
import type { SoundEvent } from './events';
import { slowingOf, withEnding, type Slowing } from './ending';
import type { Excerpt, ExcerptBar } from '../harmony/excerpt';
import type { Feel } from './feel';
import { sungEvents } from './sung';
import { quarterTempo, swingAt, swingOver } from './pulse';

/** What a plan gives to a round, by the changes of the whole chart. */
export interface PlanMaterial {
  readonly analysis: Analysis;
  readonly areas: readonly (Area | null)[];
  readonly targets: ReadonlyMap<number, { readonly cell: NamedTone }>;
  /** The skeleton line of the form; asked for where there is a drill. */
  readonly skeleton: () => Line | null;
  /** The areas of a change up the neck, for a hand that travels. */
  readonly areasUp: (change: number) => readonly Area[];
  /** The guitar may sound higher than the chart is written. */
  readonly neck: Pick<Instrument, 'raised'>;
}

export interface PracticeRound {
  readonly excerpt: Excerpt;
  /** How its ending slows; empty where it keeps time. */
  readonly slowing: readonly Slowing[];
  /** The drill as written, and when each of its notes sounds. */
  readonly notes: readonly LineNote[];
  readonly times: readonly Sounding[];
  /** The written beat at which a picture stands when a beat has sounded: it swings with the notes. */
  readonly writtenAt: (beat: number) => number;
  /** Made when they are asked for: a round that is only looked at needs no band. */
  readonly events: readonly SoundEvent[];
}

/** How a round is played. */
export interface Manner {
  readonly feel: Feel;
  readonly drill: Drill | null;
  /** Notes of the drill in a quarter: 2 eighths, 3 triplets, 4 sixteenths. */
  readonly perBeat: number;
  /** Beats a minute of the chart's own beat, as they sound: a quick tempo evens out the swing. */
  readonly tempo: number;
  /** The same seed and round give the same music. */
  readonly seed: number;
  readonly round: number;
  /** A melody that is to be heard in the drill's place; the drill is still what is shown. */
  readonly sung?: Line | null | undefined;
  /** Nothing comes after it. */
  readonly isLast: boolean;
  /** The last round ends on the I of the chart, in a bar after the form. */
  readonly ending?: boolean | undefined;
  /** How much the band gives, 0 to 1. */
  readonly intensity?: number | undefined;
  /** From −1, where the player is silent and is answered, to 1, where room is left. */
  readonly room?: number | undefined;
}

/** One round of the band, and of what the player drills, as events in beats. The same seed gives the same round. */
export function practiceRound(plan: PlanMaterial, excerpt: Excerpt, manner: Manner): PracticeRound {
  const { feel, drill, tempo, seed, round, isLast, intensity, room } = manner;
  const closes = isLast && manner.ending === true;
  const whole = closes ? withEnding(excerpt, plan.analysis) : excerpt;
  const notes = drill ? drill.play(materialFor(plan, excerpt, manner, drill.travels === true)) : [];
  const ratio = swingAt(feel.swing, quarterTempo(tempo, firstOf(excerpt.bars)));
  const swing = swingOver(excerpt.bars, ratio);
  const times = sounding(notes, excerpt.changes, swing);
  const ownSwing = swingUnder(notes, swing);
  const line = manner.sung
    ? melodyEvents(manner.sung, plan, excerpt, manner, swing)
    : sungEvents(notes, times);
  const { raised } = plan.neck;
  let played: readonly SoundEvent[] | undefined;
  return {
    excerpt: whole,
    slowing: whole === excerpt ? [] : slowingOf(whole, feel.id),
    notes,
    times,
    writtenAt: (beat) => unswung(beat, ownSwing),
    get events() {
      played ??= [
        ...bandEvents({
          excerpt: whole,
          feel,
          ratio,
          seed,
          round,
          isLast,
          closes: closes && whole !== excerpt,
          intensity,
          room
        }),
        ...line
      ]
        .map((event) => (raised && isPitched(event) ? higher(event, raised) : event))
        .sort((a, b) => a.start - b.start);
      return played;
    }
  };
}

/** The melody over an excerpt, sounding where the swing has it. */
function melodyEvents(
  melody: Line,
  plan: PlanMaterial,
  excerpt: Excerpt,
  manner: Manner,
  swing: Swing
): readonly SoundEvent[] {
  const { skeleton: notes } = materialFor({ ...plan, skeleton: () => melody }, excerpt, manner, false);
  return sungEvents(notes, sounding(notes, excerpt.changes, swing));
}

function higher(event: SoundEvent, semitones: number): SoundEvent {
  const { midi, glide } = event;
  return {
    ...event,
    midi: midi + semitones,
    ...(glide
      ? {
          glide: {
            ...glide,
            from: glide.from + semitones,
            ...(glide.backTo === undefined ? {} : { backTo: glide.backTo + semitones })
          }
        }
      : {})
  };
}

/** The numbers of drums and click are no pitches. */
const isPitched = ({ part }: SoundEvent) => part !== 'drums' && part !== 'click';

function materialFor(
  plan: PlanMaterial,
  excerpt: Excerpt,
  { perBeat, round, isLast }: Manner,
  travels: boolean
): DrillMaterial {
  const { changes, bars } = excerpt;
  const areas = changes.map(({ source }, at) =>
    travels ? upAndBack(plan.areasUp(source.index), at) : (plan.areas[source.index] ?? null)
  );
  const targets = changes.map(({ source }, at): NamedTone | null => {
    const cell = plan.targets.get(source.index)?.cell ?? null;
    const area = areas[at];
    return travels && cell && area ? sameDegreeIn(area, cell) : cell;
  });
  const end = ticksOf(excerpt.beats);
  const written = plan.skeleton()?.notes ?? [];
  const skeleton = changes.flatMap(({ source, start, beats }) => {
    const shift = ticksOf(start) - ticksOf(source.start);
    const [from, to] = [ticksOf(start), ticksOf(start + beats)];
    return (
      notesOver(source, written)
        .map((note) => ({ ...note, start: note.start + shift }))
        .filter((note) => note.start >= from && note.start < to)
        // What lasts into the next change sounds on; nothing goes past the end of what is played.
        .map((note) => ({ ...note, length: Math.min(note.length, end - note.start) }))
    );
  });
  return {
    excerpt,
    areas,
    targets,
    skeleton: withPickups(skeleton, written, excerpt, round, isLast),
    perBeat: inBeat(perBeat, firstOf(bars)),
    round
  };
}

/**
 * What stands before the first bar sounds while the first round is counted in, and in later rounds in the last bar of the one before, where it
 * gives way to notes that are there.
 */
function withPickups(
  notes: readonly LineNote[],
  written: readonly LineNote[],
  { changes, beats }: Excerpt,
  round: number,
  isLast: boolean
): readonly LineNote[] {
  const pickups = changes[0]?.source.index === 0 ? written.filter(({ start }) => start < 0) : [];
  if (pickups.length === 0) return notes;
  const before = round === 0 ? pickups : [];
  const last = notes.reduce((latest, note) => Math.max(latest, endOf(note)), 0);
  const next = isLast
    ? []
    : pickups
        .map((note) => ({ ...note, start: note.start + ticksOf(beats) }))
        .filter(({ start }) => start >= last);
  return [...before, ...notes, ...next];
}

/** Notes in a beat of the chart's meter, as the first bar is counted. */
function inBeat(perQuarter: number, { beats, meter }: ExcerptBar): number {
  return notesInBeat(perQuarter, meter.unit * (beats / meter.beats));
}

/** The first of some notes, in the order of their starts, that does not start before a beat. */
const firstFrom = bisector(({ start }: LineNote) => beatsOf(start)).left;

/** The notes of the form that start while a change sounds. */
function notesOver(
  { start, beats }: { readonly start: number; readonly beats: Beats },
  notes: readonly LineNote[]
): readonly LineNote[] {
  return notes.slice(firstFrom(notes, start), firstFrom(notes, start + beats));
}

/** One area further at each change, up the neck and back down. */
function upAndBack(areas: readonly Area[], at: number): Area | null {
  if (areas.length === 0) return null;
  const period = Math.max(1, 2 * (areas.length - 1));
  const step = at % period;
  return nth(areas, step < areas.length ? step : period - step);
}

/** The target's degree in another area, nearest its pitch; the lowest cell where the area has none. */
function sameDegreeIn(area: Area, target: NamedTone): NamedTone | null {
  const slot = DEGREES[target.degree].slot;
  const alike = area.cells.filter(
    ({ degree }) => degree === target.degree || (slot !== 'tension' && DEGREES[degree].slot === slot)
  );
  return (
    [...alike].sort((a, b) => Math.abs(a.midi - target.midi) - Math.abs(b.midi - target.midi))[0] ??
    area.cells[0] ??
    null
  );
}

/** Parts of a beat by which a picture goes that does not glide. */
const STEPS_A_BEAT = 4;

/** The beats of a round at which something else is to be seen: changes, notes, quarters of each beat. Ascending. */
export function momentsIn({ excerpt, times }: Pick<PracticeRound, 'excerpt' | 'times'>): readonly number[] {
  const steps = Array.from({ length: Math.ceil(excerpt.beats * STEPS_A_BEAT) }, (_, i) => i / STEPS_A_BEAT);
  const changes = excerpt.changes.map(({ start }) => start);
  const notes = times.flatMap(({ start, beats }) => [start, start + beats]);
  return [...new Set([...steps, ...changes, ...notes])].sort((a, b) => a - b);
}

/** Whether one of some ascending moments lies after a time and at or before another. */
export function passesOne(moments: readonly number[], after: number, to: number): boolean {
  let [low, high] = [0, moments.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (nth(moments, middle) > after) high = middle;
    else low = middle + 1;
  }
  return low < moments.length && nth(moments, low) <= to;
}
