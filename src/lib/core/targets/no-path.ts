/** Why there is no path, and the smallest loosening of the player's rules that would give one. */
import { firstOf } from '../base/list';
import type { StringNumber } from '../base/units';
import { prettyDegree } from '../theory/typeset';
import { DEGREES } from '../theory/degree';
import { listed } from '../theory/words';
import { midiName } from '../theory/note';
import type { Analysis } from '../harmony/analysis';
import { lastPosition } from '../neck/position';
import { allowedDegrees, positionAt, stagesOf, wishes, type Stage } from './candidates';
import type { DegreeWish, TargetOptions } from './options';

export interface NoPath {
  readonly change: number;
  /** Names the change and, where there is one, the loosening. */
  readonly message: string;
}

/** A rule eased, and how that is said: "position 7 has one". */
interface Loosening {
  readonly words: string;
  readonly part: Partial<TargetOptions>;
}

type CanSolve = (analysis: Analysis, options: TargetOptions) => boolean;

/**
 * Names the change where the path ends. Loosenings are tried from the least to the most; the first that gives the whole
 * chart a path is told, else the first that gives this change a place.
 */
export function explainNoPath(
  analysis: Analysis,
  options: TargetOptions,
  stages: readonly Stage[],
  stuckAt: number | null,
  canSolve: CanSolve
): NoPath {
  const stage = stuckAt === null ? undefined : stages[stuckAt];
  if (!stage) {
    return { change: 0, message: 'No change of this chart is asked for a target; choose more changes.' };
  }
  const { chord, index, symbol, bar } = stage.change;
  const where = `${symbol} in bar ${bar}`;
  const wanted = wishes(options);
  const degrees = allowedDegrees(chord, wanted, options).map(({ degree }) => degree);
  if (stage.candidates.length === 0 && degrees.length === 0) {
    const own = [...new Set(chord.tones)].map(prettyDegree);
    return {
      change: index,
      message: `${where} has no ${listed(wanted.map(prettyDegree), 'or')}; allow one of its own tones there: ${listed(own, 'or')}.`
    };
  }
  const loosenings = looseningsFor(stage, stages, options);
  const alone = { ...analysis, changes: [stage.change] };
  const placed = loosenings.filter(
    ({ part }) =>
      stage.candidates.length > 0 ||
      firstOf(stagesOf(alone, { ...options, ...part, fixed: [], which: 'all' })).candidates.length > 0
  );
  const best =
    placed.slice(0, MOST_TRIED).find(({ part }) => canSolve(analysis, { ...options, ...part })) ?? placed[0];
  const advice = best?.words ?? 'loosen the limits or allow other degrees';
  const what =
    stage.candidates.length === 0
      ? `its ${listed(degrees.map(prettyDegree), 'or')} has no place within these limits`
      : whyStuck(options);
  return { change: index, message: `${where}: ${what}; ${advice}.` };
}

/** Each is a pass over the chart; a long list would keep the player waiting for an explanation. */
const MOST_TRIED = 24;

function whyStuck({ direction, alternate }: TargetOptions): string {
  if (direction === 'arch') return 'an arch runs out of notes here';
  if (direction !== 'free') return `a ${direction} line runs out of notes here`;
  if (alternate) return 'thirds and sevenths cannot alternate up to here';
  return 'no step leads here';
}

/** What could be eased, the smallest first. */
function looseningsFor(stage: Stage, stages: readonly Stage[], options: TargetOptions): Loosening[] {
  return [
    ...freed(stage, stages, options),
    ...shifted(stage, options),
    ...widened(options),
    ...restrung(options),
    ...allowing(stage, options),
    ...unruled(options)
  ];
}

/** A fixed target at this moment, or the nearest one before it, let go. */
function freed(stage: Stage, stages: readonly Stage[], { fixed }: TargetOptions): Loosening[] {
  const before = stages
    .filter(({ isFixed, change }) => isFixed && change.index <= stage.change.index)
    .map(({ change }) => change)
    .reverse();
  return [...new Set(before)].slice(0, 3).map(({ index, symbol, bar }) => ({
    words: `let the fixed target of ${symbol} in bar ${bar} go`,
    part: { fixed: fixed.filter(({ change }) => change !== index) }
  }));
}

/** The hand elsewhere: at this change where it travels, else for all of them. */
function shifted({ change: { index } }: Stage, options: TargetOptions): Loosening[] {
  const { position, neck } = options;
  const from = positionAt(options, index);
  if (from === null) return [];
  const last = lastPosition(neck);
  return Array.from({ length: last }, (_, i) => i + 1)
    .flatMap((distance) => [from - distance, from + distance])
    .filter((near) => near >= neck.capo && near <= last)
    .map((near) => ({
      words: `position ${near} has one`,
      part: {
        position:
          typeof position === 'object' && position
            ? position.map((own, change) => (change === index ? near : own))
            : near
      }
    }));
}

/** Frets or notes a little wider, or a range that was avoided allowed again. */
function widened({ window, range, avoid, neck }: TargetOptions): Loosening[] {
  const steps = Array.from({ length: 12 }, (_, i) => i + 1);
  const frets = window
    ? steps.map((n) => {
        const wider = { from: Math.max(0, window.from - n), to: Math.min(neck.frets, window.to + n) };
        return { words: `widen the window to frets ${wider.from} to ${wider.to}`, part: { window: wider } };
      })
    : [];
  const notes = range
    ? steps.map((n) => {
        const wider = { low: range.low - n, high: range.high + n };
        return {
          words: `widen the range to ${midiName(wider.low)} to ${midiName(wider.high)}`,
          part: { range: wider }
        };
      })
    : [];
  const registers = avoid.map((lifted) => ({
    words: `allow the notes from ${midiName(lifted.low)} to ${midiName(lifted.high)} again`,
    part: { avoid: avoid.filter((other) => other !== lifted) }
  }));
  return [...frets, ...notes, ...registers];
}

function restrung({ strings, neck }: TargetOptions): Loosening[] {
  if (!strings) return [];
  const near = (string: StringNumber) => Math.min(...strings.map((own) => Math.abs(own - string)));
  return neck.strings
    .map((_, i) => i + 1)
    .filter((string) => !strings.includes(string))
    .sort((a, b) => near(a) - near(b))
    .map((string) => ({ words: `allow string ${string} too`, part: { strings: [...strings, string] } }));
}

/** One more degree of the chord. */
function allowing({ change: { chord } }: Stage, options: TargetOptions): Loosening[] {
  if (options.column || options.alternate) return [];
  const { degrees } = options;
  const slots = [...new Set(chord.tones.map((tone) => DEGREES[tone].slot))];
  return slots
    .filter((slot): slot is Exclude<typeof slot, 'tension'> => slot !== 'tension')
    .filter((slot) => !degrees.includes(slot))
    .map((slot) => ({
      words: `allow the ${slot} too`,
      part: { degrees: [...degrees, slot] as readonly DegreeWish[] }
    }));
}

/** The rule of the line itself given up. */
function unruled({ direction, alternate, column }: TargetOptions): Loosening[] {
  const rules: Loosening[] = [];
  if (direction !== 'free') rules.push({ words: 'let it move freely', part: { direction: 'free' } });
  if (alternate)
    rules.push({ words: 'let 3 and 7 come as they like', part: { alternate: false, degrees: ['3', '7'] } });
  if (column) rules.push({ words: 'allow more than one degree', part: { column: null } });
  return rules;
}
