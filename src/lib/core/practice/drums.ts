/** The drums: a row for every drum, chosen anew for each bar; fills into sections, a mark on their first beat, an ending. */
import { firstOf, lastOf, sure } from '../base/list';
import { oneOf } from '../line/chance';
import type { SoundEvent } from './events';
import { DRUMS, type Drum, type DrumRows, type Fill } from './feel';
import { strokesIn, WORDS, type Stroke } from './pattern';
import { isFull, isQuiet, likelierAt, loudnessAt } from './intensity';
import { pushesIn } from './comp-strokes';
import { ratioIn, strokesInBar, type Stage, type StageBar } from './stage';

const PLAYER = 3;
/** Who comps; the drummer hears it. */
const COMPING = 2;
const GOES_ALONG = 0.6;
const WEIGHTS: Readonly<Record<string, number>> = { X: 0.85, x: 0.66, o: 0.46, g: 0.26 };
/** Every so many bars of a section a short fill may come. */
const PHRASE = 4;
const FILL_IN_PHRASE = 0.35;
/** Beats that a stroke is written long. */
const LENGTH = 0.2;

/** What the drums play in a round, by its feel and intensity. Source: docs/music-rules.md, The band. */
export function drumEvents(stage: Stage): SoundEvent[] {
  const { feel, intensity } = stage;
  if (feel.kit === 'none') return [];
  const isBrushed = feel.kit === 'brushes' || (isQuiet(intensity) && feel.quiet !== undefined);
  const loudness = loudnessAt(intensity) * (feel.levels?.drums ?? 1);
  const pushes = isQuiet(intensity) ? [] : pushesIn(stage, COMPING);
  return stage.bars.flatMap((bar) => {
    const chance = stage.chance(PLAYER, bar.index);
    const struck = struckIn(stage, bar, pushes);
    // Sections and rounds breathe a little louder and softer.
    const breath = 0.95 + 0.08 * stage.chance(PLAYER, -1 - (bar.index - bar.inSection))();
    return struck.map(({ drum, stroke }): SoundEvent => {
      const late = stroke.isOnPulse ? 0 : 0.012 * chance();
      return {
        part: 'drums',
        start: stroke.start + late,
        beats: Math.min(LENGTH, bar.start + bar.beats - stroke.start - late),
        midi: DRUMS[drum],
        velocity: Math.min(1, weightOf(stroke.letter) * loudness * breath * (0.93 + 0.14 * chance())),
        ...(isBrushed ? { isBrushed: true } : {})
      };
    });
  });
}

interface Struck {
  readonly drum: Drum;
  readonly stroke: Stroke;
}

/** A letter of the table, or a loudness of its own. */
const weightOf = (letter: string) => WEIGHTS[letter] ?? Number(letter);

function struckIn(stage: Stage, bar: StageBar, pushes: readonly number[]): Struck[] {
  const { feel, intensity } = stage;
  const { mark } = feel;
  const isHushed = isQuiet(intensity);
  const cymbal: Drum = feel.kit === 'brushes' || isHushed ? 'ride' : 'crash';
  if (bar.closes) return [struckAt('kick', bar.start, 'X'), struckAt(cymbal, bar.start, 'x')];
  const rows = (isHushed && feel.quiet) || feel.drums;
  const names = Object.keys(rows) as Drum[];
  const groove = names.flatMap((drum, n) =>
    strokesInBar(stage, bar, sure(rows[drum], 'rows'), 10 * PLAYER + n)
      .filter((stroke) => !isHushed || rows === feel.quiet || isPlain(stroke))
      .map((stroke) => ({ drum: isFull(intensity) ? fuller(drum, rows) : drum, stroke }))
  );
  // Where the chords push, the drummer goes along.
  const along = stage.chance(PLAYER, 2000 + bar.index);
  for (const push of pushes) {
    const isHere = push >= bar.start && push < bar.start + bar.beats;
    const isStruck = groove.some(
      ({ drum, stroke }) => drum === 'kick' && Math.abs(stroke.start - push) < 0.1
    );
    if (isHere && !isStruck && along() < GOES_ALONG)
      groove.push({ drum: 'kick', stroke: { ...struckAt('kick', push, 'o').stroke, isOnPulse: true } });
  }
  const marked =
    bar.opens && mark
      ? [...groove, struckAt(isHushed ? cymbal : mark.drum, bar.start, String(mark.velocity))]
      : groove;
  if (bar.ends) return endingOf(marked, bar, cymbal);
  const fill = fillFor(stage, bar);
  if (!fill) return marked;
  const pulses = bar.pulses.slice(-fill.pulses);
  const from = firstOf(pulses).start;
  const own = Object.entries(fill.rows).flatMap(([drum, row]) =>
    strokesIn(row, pulses, { words: WORDS[4], bar: 0, ratio: ratioIn(stage, bar) }).map((stroke) => ({
      drum: drum as Drum,
      stroke
    }))
  );
  return [...marked.filter(({ stroke }) => stroke.start < from - 1e-6), ...own];
}

/** What a quiet drummer leaves out: soft strokes between the beats. */
const isPlain = ({ letter, isOnPulse }: Stroke) => isOnPulse || (letter !== 'o' && letter !== 'g');

/** With all it has a kit without a ride takes it for its hats. */
const fuller = (drum: Drum, rows: DrumRows): Drum =>
  drum === 'hat' && !rows.ride && rows.snare ? 'ride' : drum;

/** Into a section always, after a phrase now and then; never more than half of the bar. */
function fillFor({ feel, chance, intensity }: Stage, bar: StageBar): Fill | null {
  const draw = chance(PLAYER, 1000 + bar.index);
  const often = isQuiet(intensity) ? 0 : likelierAt(FILL_IN_PHRASE, intensity);
  const isDue = bar.leads || (bar.inSection % PHRASE === PHRASE - 1 && draw() < often);
  const fitting = feel.fills.filter(
    ({ pulses }) => 2 * pulses <= bar.pulses.length && (bar.leads || pulses === 1)
  );
  return isDue && fitting.length ? oneOf(draw, fitting) : null;
}

/** A stroke by itself, whatever the pattern says. */
function struckAt(drum: Drum, start: number, letter: string): Struck {
  return { drum, stroke: { letter, written: start, start, end: start + 1, isOnPulse: true } };
}

/** The music stops on the last pulse of the bar, all together. */
function endingOf(struck: readonly Struck[], { pulses }: StageBar, cymbal: Drum): Struck[] {
  const { start } = lastOf(pulses);
  const before = struck.filter(({ stroke }) => stroke.start < start - 1e-6);
  return [...before, struckAt('kick', start, 'X'), struckAt(cymbal, start, 'x')];
}
