/**
 * What is said of a take: three sentences at most, the bar each of them speaks of, and the drill that would mend it. What went well comes
 * first; then what would tell most if it were mended. Source: docs/music-rules.md, Judging a take.
 */
import type { AnalysedChange } from '../../harmony/analysis';
import type { Chord } from '../../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../../theory/degree';
import { prettyDegree, prettyNote, prettySymbol } from '../../theory/typeset';
import { semitonesUp, spell } from '../../theory/note';
import { counted, listed } from '../../theory/words';
import type { Judgement, JudgedChange, JudgingGround } from './judge';
import { THRESHOLDS } from './thresholds';

/** A drill at the stand: one of `DRILLS` by its id, over the changes from one to another, both in. */
export interface DrillToMend {
  readonly drill: string;
  readonly from: number;
  readonly to: number;
}

export interface TakeRemark {
  readonly kind: 'well' | 'mend' | 'whole';
  /** The bar as it is counted in the chart, from 1. */
  readonly bar: number;
  readonly change: number;
  readonly text: string;
  readonly drill?: DrillToMend;
}

/** A remark with how much it would tell. */
interface Weighed extends TakeRemark {
  readonly weight: number;
}

type Rule = (judgement: Judgement, ground: JudgingGround) => Weighed | null;

const MOST = 3;

/** The remarks on a take, what went well first. */
export function remarksOn(judgement: Judgement, ground: JudgingGround): TakeRemark[] {
  const { figures } = judgement;
  const first = ground.analysis.changes[0];
  const whole = (text: string): TakeRemark[] => [{ kind: 'whole', bar: first?.bar ?? 1, change: 0, text }];
  if (figures.notes === 0)
    return whole('No note of this take lies over the chart. Was it played before the band began?');
  if (!figures.fits) {
    return whole(
      'These notes fit this chart nowhere: its chords are not in them. Was it another chart, another key, or does the form begin elsewhere?'
    );
  }
  const told = RULES.mend
    .flatMap((rule) => rule(judgement, ground) ?? [])
    .sort((a, b) => b.weight - a.weight || a.bar - b.bar);
  const well = RULES.well
    .flatMap((rule) => rule(judgement, ground) ?? [])
    .sort((a, b) => b.weight - a.weight);
  // One thing on a change is enough.
  const mend = told.filter(({ change }, i) => told.findIndex((one) => one.change === change) === i);
  return [...well.slice(0, 1), ...mend].slice(0, MOST).map(({ weight: _, ...remark }) => remark);
}

const changeAt = ({ analysis }: JudgingGround, change: number): AnalysedChange => analysis.changes[change]!;
const named = (change: AnalysedChange) => prettySymbol(change.symbol);
const percent = (share: number) => `${Math.round(100 * share)} %`;

/** The pair of changes that meet at one: what comes before it and it. */
const pairAt = (change: number) => ({ from: Math.max(0, change - 1), to: change });

const SLOT_NAMES = { '1': 'root', '3': 'third', '5': 'fifth', '7': 'seventh' } as const;

/** "the third, E": a pitch as it is heard over a change. */
function toneNamed({ chord }: AnalysedChange, pitch: number): string {
  const degree = degreeOf(semitonesUp(chord!.rootPc, pitch % 12), chord!.tones);
  const note = noteNamed(chord!, degree);
  const { slot } = DEGREES[degree];
  return `the ${slot === 'tension' ? prettyDegree(degree) : SLOT_NAMES[slot]}, ${note}`;
}

/** A degree over a chord, spelled from its root. */
const noteNamed = (chord: Chord, degree: Degree) => prettyNote(spell(chord.notes[0]!, degree));

/** "0.6 beats". */
const beatsLate = (late: number) => counted(Math.round(late * 10) / 10, 'beat');

/** A change at which the landing is late, or does not come, whenever it is played. */
const seam: Rule = ({ seams }, ground) => {
  const [worst] = seams;
  if (!worst) return null;
  const change = changeAt(ground, worst.change);
  const before = worst.change > 0 ? changeAt(ground, worst.change - 1) : null;
  const way = before
    ? `Into bar ${change.bar}, ${named(before)} to ${named(change)},`
    : `On bar ${change.bar}, ${named(change)},`;
  const every = worst.of > 1 ? `, ${worst.of === 2 ? 'both times' : 'every time'}` : '';
  const what =
    worst.late === null
      ? `the landing did not come${every}`
      : `you land ${beatsLate(worst.late)} late${every}`;
  return {
    kind: 'mend',
    bar: change.bar,
    change: worst.change,
    text: `${way} ${what}: play that change alone, slowly, with its approach note.`,
    drill: { drill: 'approach', ...pairAt(worst.change) },
    weight: 3 + worst.times + (worst.late ?? 1)
  };
};

/** A landing on a note that is none of the chord's. */
const strange: Rule = ({ changes }, ground) => {
  const wrong = changes.filter(({ target }) => target?.met === 'outside');
  const [first] = wrong;
  if (!first?.target || !first.landed) return null;
  const change = changeAt(ground, first.change);
  return {
    kind: 'mend',
    bar: change.bar,
    change: first.change,
    text: `In bar ${change.bar} you land on ${noteNamed(change.chord!, first.landed.degree)}; ${toneNamed(change, first.target.wanted)}, would say ${named(change)}.`,
    drill: { drill: 'targets', ...pairAt(first.change) },
    weight: 2 + wrong.length
  };
};

const degreeOver = (degree: Degree) => `the ${prettyDegree(degree)}`;

/** A chord that cannot be heard in the line. */
const unheard: Rule = ({ changes }, ground) => {
  const not = changes.filter(({ verdict, isLeftAlone }) => verdict === 'not' && !isLeftAlone);
  const worst = longest(not, ground);
  if (!worst) return null;
  const change = changeAt(ground, worst.change);
  const third = change.chord!.tones.findIndex((tone) => DEGREES[tone].slot === '3');
  const tone = change.chord!.pitchClasses[Math.max(0, third)]!;
  const [heard] = worst.heard;
  const instead = heard ? `; one hears ${prettySymbol(heard.symbol)}` : '';
  return {
    kind: 'mend',
    bar: change.bar,
    change: worst.change,
    text: `In bar ${change.bar} the line does not say ${named(change)}${instead}. Begin there on ${toneNamed(change, tone)}.`,
    drill: { drill: 'arpeggio-scale', ...pairAt(worst.change) },
    weight: 1.5 + not.length / 2
  };
};

function longest(changes: readonly JudgedChange[], ground: JudgingGround): JudgedChange | undefined {
  const beats = ({ change }: JudgedChange) => changeAt(ground, change).beats;
  return [...changes].sort((a, b) => beats(b) - beats(a) || a.change - b.change)[0];
}

/** The line stops before changes: what leads in is missing. */
const silences: Rule = ({ figures, stops }, ground) => {
  if (figures.silences < 2 || figures.silences * 3 < figures.changes) return null;
  const change = changeAt(ground, stops[0]!);
  return {
    kind: 'mend',
    bar: change.bar,
    change: change.index,
    text: `Before ${counted(figures.silences, 'change')} of ${figures.changes}, first before bar ${change.bar}, the line stops and waits: lead into the target with the note below it.`,
    drill: { drill: 'approach', from: 0, to: ground.analysis.changes.length - 1 },
    weight: 1 + figures.silences / Math.max(1, figures.changes)
  };
};

/** Notes that clash, held on beats. */
const clashing: Rule = ({ clashes }, ground) => {
  const [first] = clashes;
  if (!first) return null;
  const change = changeAt(ground, first.change);
  const bars = [...new Set(clashes.map((clash) => changeAt(ground, clash.change).bar))];
  const more =
    bars.length > 1
      ? ` (also in ${bars.length > 2 ? 'bars' : 'bar'} ${listed(bars.slice(1, 4).map(String))})`
      : '';
  return {
    kind: 'mend',
    bar: change.bar,
    change: first.change,
    text: `In bar ${change.bar} ${degreeOver(first.degree)} stays on a beat over ${named(change)}${more}: let it pass, or step on from it.`,
    drill: { drill: 'arpeggios', from: first.change, to: first.change },
    weight: 0.8 + clashes.length / 2
  };
};

/** The same degree at every change. */
const habit: Rule = ({ figures, changes }, ground) => {
  const { share, changes: least } = THRESHOLDS.habit;
  const { beginsOn } = figures;
  const landed = changes.filter((one) => one.landed);
  if (!beginsOn || landed.length < least || beginsOn.share < share || beginsOn.degree !== '1') return null;
  const change = changeAt(ground, landed[0]!.change);
  return {
    kind: 'mend',
    bar: change.bar,
    change: landed[0]!.change,
    text: `${percent(beginsOn.share)} of the changes begin on the root, which the bass has already: land on the thirds.`,
    drill: { drill: 'targets', from: 0, to: ground.analysis.changes.length - 1 },
    weight: 1.2
  };
};

/** Always up from the lowest note. */
const fromBelow: Rule = ({ figures, changes }, ground) => {
  const { share, changes: least } = THRESHOLDS.habit;
  const landed = changes.filter((one) => one.landed);
  if (landed.length < least || (figures.beginsOnLowest ?? 0) < share) return null;
  const change = changeAt(ground, landed[0]!.change);
  return {
    kind: 'mend',
    bar: change.bar,
    change: landed[0]!.change,
    text: `${percent(figures.beginsOnLowest!)} of the changes begin on their lowest note: come down on one chord, go up on the next.`,
    drill: { drill: 'alternate', from: 0, to: ground.analysis.changes.length - 1 },
    weight: 1
  };
};

/** The longest way without a chord that is not told. */
const stretch: Rule = ({ changes }, ground) => {
  let best: readonly JudgedChange[] = [];
  let run: JudgedChange[] = [];
  for (const one of changes) {
    run = one.verdict === 'clear' ? [...run, one] : [];
    if (run.length > best.length) best = run;
  }
  if (best.length < 2) return null;
  const [from, to] = [changeAt(ground, best[0]!.change), changeAt(ground, best.at(-1)!.change)];
  const all = best.length === changes.length;
  const where = all
    ? 'All the way'
    : from.bar === to.bar
      ? `In bar ${from.bar}`
      : `From bar ${from.bar} to bar ${to.bar}`;
  return {
    kind: 'well',
    bar: from.bar,
    change: from.index,
    text: `${where} the line alone tells every chord.`,
    weight: best.length
  };
};

/** How many targets were hit. */
const hitting: Rule = ({ figures, changes }, ground) => {
  const { met, hits } = figures;
  const first = changes.find(({ target }) => target?.met === 'hit');
  if (!first || hits === null) return null;
  const of = changes.filter(({ target, isLeftAlone }) => target && !isLeftAlone).length;
  const change = changeAt(ground, first.change);
  return {
    kind: 'well',
    bar: change.bar,
    change: first.change,
    text:
      met.hit === of
        ? `Every one of the ${counted(of, 'target')} was hit.`
        : `${met.hit} of ${counted(of, 'target')} ${met.hit === 1 ? 'was' : 'were'} hit, the first in bar ${change.bar}.`,
    weight: hits * met.hit
  };
};

/** Nothing hit and nothing told: what there is to build on. */
const beginning: Rule = ({ figures, changes }, ground) => {
  const first = changes.find(({ isLeftAlone }) => !isLeftAlone);
  if (!first) return null;
  const change = changeAt(ground, first.change);
  return {
    kind: 'well',
    bar: change.bar,
    change: first.change,
    text: `You played over ${counted(figures.changes, 'change')}; that is a start to build on.`,
    weight: 0
  };
};

const RULES: { readonly well: readonly Rule[]; readonly mend: readonly Rule[] } = {
  well: [stretch, hitting, beginning],
  mend: [seam, strange, unheard, silences, clashing, habit, fromBelow]
};
