/**
 * Where phrases stand: their bars, how they begin, what they take up of an earlier one, which way they go. Drawn from a seed.
 * Source: docs/music-rules.md, Phrases, The plan.
 */
import { firstOf, lastOf, nth } from '../../base/list';
import { oneOf, type Chance } from '../chance';
import {
  RELATIONS,
  STARTS,
  type PhraseForm,
  type PhraseRow,
  type PhraseStart,
  type Relation
} from './styles';

export const CONTOURS = ['arch', 'fall', 'rise', 'two peaks', 'valley', 'late peak'] as const;
export type Contour = (typeof CONTOURS)[number];

const CONTOUR_WEIGHTS: Readonly<Record<Contour, number>> = {
  arch: 4,
  fall: 2.5,
  rise: 1.5,
  'two peaks': 2,
  valley: 1,
  'late peak': 2
};

/** A phrase before it has notes. */
export interface PlannedPhrase {
  /** Bar of the range, from 0. */
  readonly first: number;
  readonly bars: number;
  readonly start: PhraseStart;
  /** The phrase that it takes up, by its place, and how. */
  readonly model: {
    readonly of: number;
    readonly how: Relation;
    /** Ticks later than bar for bar; negative for earlier. */
    readonly by?: number;
  } | null;
  readonly contour: Contour;
  /** A short answer: thinner and lower than what it answers. */
  readonly isAnswer: boolean;
  /** 0 to 1. */
  readonly density: number;
  /** How high in the arc of the solo it lies, 0 to 1. */
  readonly height: number;
}

export interface PlanWish {
  readonly row: PhraseRow;
  /** Bars of the range. */
  readonly bars: number;
  /** What sounds in each bar, as text: the form is told by it. */
  readonly harmony: readonly string[];
  /** How dense, 0 to 1; as the style has it where nothing is said. */
  readonly density?: number | undefined;
  /** Whether phrases may begin before their bar. */
  readonly pickup: boolean;
  /** Bars that a phrase must not leave empty. */
  readonly needed: ReadonlySet<number>;
  readonly chance: Chance;
}

/** One of some things by their weights. */
export function drawn<T>(chance: Chance, things: readonly T[], weight: (thing: T) => number): T {
  const weights = things.map(weight);
  let rest = chance() * weights.reduce((sum, own) => sum + own, 0);
  const at = weights.findIndex((own) => (rest -= own) < 0);
  return nth(things, at < 0 ? things.length - 1 : at);
}

/** Where the height of a solo lies, as a part of it. */
const SUMMIT = 0.67;

/** How far up its arc a solo is at a part of it, 0 to 1: up to two thirds, then down again. */
export function arcAt(part: number): number {
  if (part < SUMMIT) return (part / SUMMIT) ** 1.2;
  return Math.max(0.3, 1 - (0.7 * (part - SUMMIT)) / (1 - SUMMIT));
}

/** How often the second line of a blues says the first one word for word. */
const LITERAL = { pentatonic: 0.35, chords: 0.3 } as const;
/** How often the second answer takes up the first one. */
const ANSWERS_AGAIN = { pentatonic: 0.9, chords: 0.65 } as const;
/** How often the second answer is the first one note for note: both stand over the tonic. */
const AGAIN = { pentatonic: 0.25, chords: 0 } as const;
/** A solo begins with this part of how dense its row is, and grows by this part of what is left to fill. */
const FROM = 0.6;
const GROWS = 0.8;
/** How much likelier each further bar of a phrase is at the height of a solo than at its start (exponent). */
const LONGER = 0.5;
const TWELVE = 12;
/** From so many bars on a solo has a first, a middle and a last third. */
const LONG = 24;

interface Span {
  readonly from: number;
  readonly to: number;
  readonly form: PhraseForm;
  /** Each line of the form is twice as long. */
  readonly isDoubled?: boolean;
}

/** The spans of a range, each with its form. */
export function spansOf({ row, bars, harmony }: Pick<PlanWish, 'row' | 'bars' | 'harmony'>): Span[] {
  const { forms } = row;
  const formAt = (part: number) => nth(forms, Math.min(forms.length - 1, Math.floor(part * forms.length)));
  if (forms.includes('AAB')) {
    if (bars % TWELVE === 0) {
      const isDoubled =
        bars === LONG && harmony.slice(0, TWELVE).join('|') !== harmony.slice(TWELVE).join('|');
      if (isDoubled) return [{ from: 0, to: bars, form: 'AAB', isDoubled }];
      return Array.from({ length: bars / TWELVE }, (_, i) => ({
        from: i * TWELVE,
        to: (i + 1) * TWELVE,
        form: formAt((i * TWELVE) / bars)
      }));
    }
    return [{ from: 0, to: bars, form: bars >= 8 && bars % 8 === 0 ? 'riff' : 'free' }];
  }
  if (forms.length === 1 || bars < 8)
    return [{ from: 0, to: bars, form: forms.length === 1 ? firstOf(forms) : 'free' }];
  if (bars < LONG) return [{ from: 0, to: bars, form: firstOf(forms) }];
  const third = Math.round(bars / 12) * 4;
  return [0, 1, 2].map((i) => ({
    from: i * third,
    to: i === 2 ? bars : (i + 1) * third,
    form: nth(forms, i % forms.length)
  }));
}

/** How dense phrases are at a height of the arc. What the player asks for is had throughout; the style alone grows with its arc. */
function densityAtHeight({ row, density }: Pick<PlanWish, 'row' | 'density'>, height: number): number {
  const fill = density ?? row.fill;
  return density === undefined
    ? Math.min(1, fill * (FROM + (1 - FROM) * height) + (1 - fill) * GROWS * height)
    : Math.max(0, Math.min(1, fill + 0.2 * (height - 0.5)));
}

function drawnStart({ row, pickup, chance }: PlanWish, length: number): PhraseStart {
  const allowed = STARTS.filter((start) => pickup || start !== 'pickup');
  // A phrase of one bar that begins after the beat has hardly begun when it ends.
  return drawn(chance, allowed, (start) => row.starts[start] * (length === 1 && start === 'after' ? 0.7 : 1));
}

const drawnContour = ({ chance }: PlanWish) => drawn(chance, CONTOURS, (contour) => CONTOUR_WEIGHTS[contour]);

/** One phrase of some bars, by itself; `part`: where it lies in the solo, 0 to 1. */
export function planAlone(wish: PlanWish, first: number, bars: number, part: number): PlannedPhrase {
  const height = arcAt(part);
  return {
    first,
    bars: Math.max(1, Math.min(bars, wish.bars - first)),
    start: drawnStart(wish, bars),
    model: null,
    contour: drawnContour(wish),
    isAnswer: false,
    density: densityAtHeight(wish, height),
    height
  };
}

/**
 * Keeps a plan out of bars that are taken: each phrase has the longest stretch of its bars that is free, or falls away. What it would have
 * taken up of one that is not there as it was, it does not.
 */
export function keptOutOf(plans: readonly PlannedPhrase[], taken: ReadonlySet<number>): PlannedPhrase[] {
  const fitted = plans.map((plan) => {
    let best = { first: plan.first, bars: 0 };
    let first = plan.first;
    for (let bar = plan.first; bar <= plan.first + plan.bars; bar++) {
      if (bar < plan.first + plan.bars && !taken.has(bar)) continue;
      if (bar - first > best.bars) best = { first, bars: bar - first };
      first = bar + 1;
    }
    return best.bars === 0 ? null : { ...plan, ...best };
  });
  const places = new Map(fitted.flatMap((plan, i) => (plan ? [i] : [])).map((i, place) => [i, place]));
  return fitted.flatMap((plan, i) => {
    if (!plan) return [];
    const of = plan.model ? places.get(plan.model.of) : undefined;
    const isWhole = plan.bars === nth(plans, i).bars;
    return [{ ...plan, model: plan.model && of !== undefined && isWhole ? { ...plan.model, of } : null }];
  });
}

/** Plans the phrases of a range, in the order of their bars. */
export function planPhrases(wish: PlanWish): PlannedPhrase[] {
  const { row, bars, chance } = wish;
  const phrases: PlannedPhrase[] = [];
  const heightAt = (bar: number) => arcAt(bar / Math.max(1, bars));
  const densityAt = (bar: number) => densityAtHeight(wish, heightAt(bar));
  const startOf = (length: number) => drawnStart(wish, length);
  const contourOf = () => drawnContour(wish);
  const add = (
    first: number,
    length: number,
    { model = null, ...more }: Partial<Omit<PlannedPhrase, 'first' | 'bars'>> = {}
  ): number => {
    const of = model && phrases[model.of];
    const density = densityAt(first) * (more.isAnswer ? 0.55 : 1);
    phrases.push({
      first,
      bars: Math.min(length, bars - first),
      start: of ? of.start : startOf(length),
      model,
      contour: of ? of.contour : contourOf(),
      isAnswer: false,
      density,
      height: heightAt(first),
      ...more
    });
    return phrases.length - 1;
  };
  // The higher a solo is on its arc, the longer its phrases: density that breaths and endings do not eat.
  const lengthOf = (most: number, height = 0.5) =>
    drawn(
      chance,
      [1, 2, 3, 4].filter((length) => length <= most),
      (length) => nth(row.bars, length - 1) * Math.exp(LONGER * (height - 0.5) * (length - 2)) + 1e-9
    );

  function free(from: number, to: number): void {
    let bar = from;
    while (bar < to) {
      const isNeeded = wish.needed.has(bar);
      if (!isNeeded && chance() < row.gap * Math.max(0, 1.2 - densityAt(bar)) && bar > from) {
        bar++;
        continue;
      }
      const last = phrases.at(-1);
      const how = last && last.first + last.bars >= bar - 1 ? relationOf(last) : null;
      const length = last && how ? last.bars : lengthOf(Math.min(4, to - bar), heightAt(bar));
      if (how && bar + length <= to) add(bar, length, { model: { of: phrases.length - 1, how } });
      else add(bar, how ? lengthOf(Math.min(4, to - bar), heightAt(bar)) : length);
      bar += lastOf(phrases).bars;
    }
  }

  /**
   * How a phrase takes up the one before; null where it is new. A long phrase in the language of chords is not said twice; one of two bars
   * and more is not said a third time, and none a fourth time.
   */
  function relationOf(last: PlannedPhrase): Relation | null {
    const isLong = last.bars > 2 && row.idiom === 'chords';
    const isSaidTwice = last.model !== null && last.bars >= 2;
    const isWorn = last.model !== null && phrases[last.model.of]?.model !== null;
    if (isLong || isSaidTwice || isWorn) return null;
    let rest = chance() * (last.model ? 1.5 : 1);
    return RELATIONS.find((how) => (rest -= row.relations[how]) < 0) ?? null;
  }

  /** A line, the same line again, and another one that answers both. */
  function aab(from: number, scale: number): void {
    const four = 4 * scale;
    const length = Math.min(3, lengthOf(3)) * scale;
    const answersAt = length <= 2 * scale ? length + (chance() < 0.5 && length < 2 * scale ? scale : 0) : -1;
    // The shorter the line, the surer the answer: bars that stay empty are few.
    const isAnswered =
      answersAt >= 0 && chance() < 0.4 + 0.4 * densityAt(from) + (length === scale ? 0.3 : 0);
    const a = add(from, length);
    let answer: number | null = null;
    if (isAnswered) answer = add(from + answersAt, Math.max(1, scale), { isAnswer: true });
    else if (answersAt >= 0 && wish.needed.size > 0) fillNeeded(from + length, from + four);
    add(from + four, length, { model: { of: a, how: chance() < LITERAL[row.idiom] ? 'literal' : 'varied' } });
    if (answersAt >= 0 && (answer !== null ? chance() < 0.85 : chance() < 0.35)) {
      const again: Partial<PlannedPhrase> =
        answer !== null && chance() < ANSWERS_AGAIN[row.idiom]
          ? { model: { of: answer, how: chance() < AGAIN[row.idiom] ? 'literal' : 'same rhythm' } }
          : {};
      add(from + four + answersAt, Math.max(1, scale), { ...again, isAnswer: true });
    }
    const longer = (2 + (chance() < 0.5 ? 1 : 0)) * scale;
    const b = add(from + 2 * four, longer);
    const left = four - longer;
    if (left >= scale && chance() < 0.85) {
      const isMoved = left >= longer && chance() < 0.5;
      if (isMoved) add(from + 2 * four + longer, longer, { model: { of: b, how: 'sequence' } });
      else add(from + 2 * four + longer, left > scale && chance() < 0.5 ? left : scale);
    }
  }

  function fillNeeded(from: number, to: number): void {
    for (let bar = from; bar < to; bar++) if (wish.needed.has(bar)) add(bar, 1);
  }

  /** A riff of two bars through the changes; over twelve bars the last four are free. */
  function riff(from: number, to: number): void {
    if (to - from === TWELVE && row.forms.includes('AAB')) {
      const a = add(from, 2);
      add(from + 2, 2, { model: { of: a, how: 'varied' } });
      add(from + 4, 2, { model: { of: a, how: 'literal' } });
      add(from + 6, 2, { model: { of: a, how: 'varied' } });
      return free(from + 8, to);
    }
    let isFree = false;
    for (let bar = from; bar < to; bar += 4) {
      const end = Math.min(to, bar + 4);
      isFree = !isFree && bar > from && chance() < 0.5;
      if (isFree || end - bar < 4) {
        free(bar, end);
        continue;
      }
      if (chance() < 0.6) {
        const a = add(bar, 2);
        add(bar + 2, 2, { model: { of: a, how: oneOf(chance, ['literal', 'varied', 'varied'] as const) } });
      } else {
        const a = add(bar, 1);
        add(bar + 1, 1, { model: { of: a, how: 'literal' } });
        add(bar + 2, 2);
      }
    }
  }

  for (const { from, to, form, isDoubled } of spansOf(wish)) {
    if (form === 'AAB') aab(from, isDoubled ? 2 : 1);
    else if (form === 'riff') riff(from, to);
    else free(from, to);
  }
  const last = phrases.at(-1);
  if (last && !last.model) phrases[phrases.length - 1] = { ...last, contour: 'fall' };
  return phrases;
}
