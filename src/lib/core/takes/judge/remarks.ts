/**
 * What is said of a take: three sentences at most, the bar each of them speaks of, and the drill that would mend it. What went well comes
 * first; then what would tell most if it were mended. Source: docs/music-rules.md, Judging a take.
 */
import { chordOf } from '../../chart/unroll';
import { firstOf, lastOf, nth, sure } from '../../base/list';
import type { Beats, Seconds } from '../../base/units';
import type { AnalysedChange } from '../../harmony/analysis';
import type { Chord } from '../../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../../theory/degree';
import { prettyDegree, prettyNote, prettySymbol } from '../../theory/typeset';
import { semitonesUp, simpleSpelling, spell, type NoteName } from '../../theory/note';
import { pulsesOf } from '../../chart/pulses';
import { heardIn } from '../../line/heard-name';
import { endOf, ticksOf } from '../../line/model';
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
  /** What went well, how the player lies in time, what to mend, or what is to be said of the take as a whole. */
  readonly kind: 'well' | 'time' | 'mend' | 'whole';
  /** The bar as it is counted in the chart, from 1. */
  readonly bar: number;
  readonly change: number;
  readonly text: string;
  readonly drill?: DrillToMend;
  /** Beats by which the take would have to be moved, later above 0. */
  readonly move?: number;
}

/** Something that holds for the whole take, beside the remarks: a way of playing, neither right nor wrong. */
export interface TakeHabit {
  readonly id: 'root' | 'from below' | 'no silence';
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
  if (judgement.beside !== 0) {
    const by = judgement.beside;
    const text = `The take lies ${beatsApart(Math.abs(by), ground)} ${by > 0 ? 'after' : 'before'} the band: move it?`;
    return whole(text).map((remark) => ({ ...remark, move: -by }));
  }
  if (judgement.fretsOff !== 0) {
    const high = judgement.fretsOff;
    const frets = Math.abs(high) === 1 ? 'A fret' : `${Math.abs(high)} frets`;
    return whole(
      `${frets} too ${high > 0 ? 'high' : 'low'} at every change: everything else fits. Check the capo, the tuning, or where your hand begins.`
    );
  }
  if (!figures.fits) {
    return whole(
      'These notes fit this chart nowhere: its chords are not in them. Was it another chart, another key, or does the form begin elsewhere?'
    );
  }
  const of = (rules: readonly Rule[]) =>
    rules
      .flatMap((rule) => rule(judgement, ground) ?? [])
      .sort((a, b) => b.weight - a.weight || a.bar - b.bar);
  const told = of(RULES.mend);
  // One thing on a change is enough.
  const mend = told.filter(({ change }, i) => told.findIndex((one) => one.change === change) === i);
  return [...of(RULES.well).slice(0, 1), ...of(RULES.time).slice(0, 1), ...mend]
    .slice(0, MOST)
    .map(({ weight: _, ...remark }) => remark);
}

/** "a beat", "half a beat", "2 beats": in pulses. */
function beatsApart(beats: Beats, { form }: JudgingGround): string {
  const pulse = form.bars[0] ? firstOf(pulsesOf(form.bars[0])).beats : 1;
  const pulses = beats / pulse;
  return pulses === 0.5 ? 'half a beat' : pulses === 1 ? 'a beat' : `${pulses} beats`;
}

/** What the player does throughout. */
export function habitsOf(judgement: Judgement, ground: JudgingGround): TakeHabit[] {
  const { figures, changes, line } = judgement;
  const { share, changes: least } = THRESHOLDS.habit;
  const landed = changes.filter((one) => one.landed).length;
  const last = ground.analysis.changes.length - 1;
  const { beginsOn } = figures;
  const fromBelow = figures.beginsOnLowest ?? 0;
  const longest = line.reduce(
    (most, note, i) => Math.max(most, (line[i + 1]?.start ?? note.start) - endOf(note)),
    0
  );
  const sounding = line.reduce((sum, { length }) => sum + length, 0) / ticksOf(1);
  return [
    ...(landed >= least && beginsOn?.degree === '1' && beginsOn.share >= share
      ? [
          {
            id: 'root' as const,
            text: `${percent(beginsOn.share)} of the changes begin on the root, which the bass has already. Try landing on the thirds.`,
            drill: { drill: 'targets', from: 0, to: last }
          }
        ]
      : []),
    ...(landed >= least && fromBelow >= share
      ? [
          {
            id: 'from below' as const,
            text: `${percent(fromBelow)} of the changes begin on their lowest note. Try coming down on one chord and going up on the next.`,
            drill: { drill: 'alternate', from: 0, to: last }
          }
        ]
      : []),
    ...(sounding >= THRESHOLDS.restless && longest < ticksOf(1)
      ? [
          {
            id: 'no silence' as const,
            text: 'You play without a rest. Leave a beat of silence between phrases.'
          }
        ]
      : [])
  ];
}

const changeAt = ({ analysis }: JudgingGround, change: number): AnalysedChange =>
  nth(analysis.changes, change);
const named = (change: AnalysedChange) => prettySymbol(change.symbol);
const percent = (share: number) => `${Math.round(100 * share)} %`;

/** The pair of changes that meet at one: what comes before it and it. */
const pairAt = (change: number) => ({ from: Math.max(0, change - 1), to: change });

const SLOT_NAMES = { '1': 'root', '3': 'third', '5': 'fifth', '7': 'seventh' } as const;

/** "the third, E": a pitch as it is heard over a change. */
function toneNamed({ chord }: AnalysedChange, pitch: number): string {
  const own = sure(chord, 'the chord of a tone');
  const degree = degreeOf(semitonesUp(own.rootPc, pitch % 12), own.tones);
  const note = noteNamed(own, degree);
  const { slot } = DEGREES[degree];
  return `the ${slot === 'tension' ? prettyDegree(degree) : SLOT_NAMES[slot]}, ${note}`;
}

/** A note that belongs to no chord there has one sign at most. */
const plainer = (note: NoteName): NoteName => (/##|bb/.test(note) ? simpleSpelling(note) : note);

/** A degree over a chord, spelled from its root. */
const noteNamed = (chord: Chord, degree: Degree) => prettyNote(spell(firstOf(chord.notes), degree));

/** "0.6 beats". */
const beatsLate = (late: number) => counted(Math.round(late * 10) / 10, 'beat');

const inMs = (seconds: Seconds) => `${Math.round(Math.abs(seconds) * 100) * 10} ms`;

/** The player goes faster or slower than the band. */
const drifting: Rule = ({ time }, ground) => {
  if (Math.abs(time.drift) < THRESHOLDS.drift) return null;
  const way = time.drift > 0 ? 'rush' : 'drag';
  return {
    ...formStart(ground),
    kind: 'time',
    text: `You ${way} ${Math.round(Math.abs(time.drift) * 100)} % over the form: play with the click, and listen to it on 2 and 4.`,
    weight: 2
  };
};

/** The player lies behind the beat, or ahead of it, all the way. */
const throughout: Rule = ({ time, figures }, ground) => {
  const { share, spread } = THRESHOLDS.throughout;
  const { seconds, pulses } = THRESHOLDS.lateFrom;
  const bar = ground.form.bars[0];
  const pulse = bar ? firstOf(pulsesOf(bar)).beats : 1;
  const from = Math.max(seconds, (pulses * pulse * 60) / time.clock.tempo);
  const { mean } = time;
  if (figures.notes < THRESHOLDS.notesToFit || Math.abs(mean) <= from) return null;
  if (time.oneSided < share || time.spread >= spread * Math.abs(mean)) return null;
  return {
    ...formStart(ground),
    kind: 'time',
    text: `You lie ${inMs(mean)} ${mean > 0 ? 'behind' : 'ahead of'} the beat throughout. If that is not meant, check the latency of your input.`,
    weight: 1
  };
};

const formStart = ({ analysis }: JudgingGround) => ({ bar: analysis.changes[0]?.bar ?? 1, change: 0 });

/** A change at which the landing is late, or does not come, whenever it is played. */
const seam: Rule = ({ seams }, ground) => {
  // A change that was passed over once was phrased; one that is so every time is not landed on.
  const worst = seams.find(({ late, of }) => late !== null || of > 1);
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

/** Notes outside the chord and what is played over it. */
const strange: Rule = ({ changes, wrong }, ground) => {
  const [first] = wrong;
  if (!first) return null;
  const change = changeAt(ground, first.change);
  const note = prettyNote(plainer(spell(firstOf(chordOf(change).notes), first.degree)));
  const landing = changes.find((one) => one.change === first.change && one.landed?.degree === first.degree);
  const bars = [...new Set(wrong.map((one) => changeAt(ground, one.change).bar))].slice(1, 4);
  const more =
    bars.length > 0 ? ` (others in ${bars.length > 1 ? 'bars' : 'bar'} ${listed(bars.map(String))})` : '';
  const missed = landing?.target?.met === 'outside' ? landing.target : null;
  return {
    kind: 'mend',
    bar: change.bar,
    change: first.change,
    text: missed
      ? `In bar ${change.bar} you land on ${note}; ${toneNamed(change, missed.wanted)}, would say ${named(change)}${more}.`
      : `In bar ${change.bar} ${note} lies outside ${named(change)} and its scale${more}.`,
    drill: { drill: 'targets', ...pairAt(first.change) },
    weight: (missed ? 2 : 1) + wrong.length
  };
};

/** A major third that falls to the minor one over the same chord. */
const thirds: Rule = ({ bothThirds }, ground) => {
  const [first] = bothThirds;
  if (first === undefined) return null;
  const change = changeAt(ground, first);
  const [major, minor] = (['3', 'b3'] as const).map((degree) => noteNamed(chordOf(change), degree));
  return {
    kind: 'mend',
    bar: change.bar,
    change: first,
    text: `In bar ${change.bar} both thirds sound over ${named(change)}: ${major}, then ${minor}. Let ${minor} rise to ${major}, not the other way.`,
    drill: { drill: 'arpeggios', from: first, to: first },
    weight: 1.6
  };
};

const degreeOver = (degree: Degree) => `the ${prettyDegree(degree)}`;

/** A chord of which less than this share of what sounds over it is tones is not what was played. */
const FOREIGN = 0.34;

/**
 * A chord that cannot be heard in the line: said only where enough was played, another chord leads clearly, and what was played is not the
 * chord's for the most part; and never advises a note that stands there.
 */
const unheard: Rule = ({ changes, line }, ground) => {
  const not = changes.filter(
    ({ verdict, isLeftAlone, isTold, inChord, target }) =>
      verdict === 'not' && !isLeftAlone && isTold && inChord < FOREIGN && target?.met !== 'hit'
  );
  const worst = longest(not, ground);
  if (!worst) return null;
  const change = changeAt(ground, worst.change);
  const chord = sure(change.chord, 'the chord of a judged change');
  const start = ticksOf(change.start + worst.round * ground.form.beats);
  const sounded = new Set(
    line
      .filter((note) => note.start >= start && note.start < start + ticksOf(change.beats))
      .map(({ midi }) => midi % 12)
  );
  const missing = (['3', '7', '1'] as const)
    .map((slot) => chord.tones.findIndex((tone) => DEGREES[tone].slot === slot))
    .find((at) => at >= 0 && !sounded.has(nth(chord.pitchClasses, at)));
  if (missing === undefined) return null;
  const [heard] = worst.heard;
  return {
    kind: 'mend',
    bar: change.bar,
    change: worst.change,
    text: `In bar ${change.bar} the line does not say ${named(change)}; one hears ${prettySymbol(heard ? heardIn(ground.analysis.key, heard) : change.symbol)}. Begin there on ${toneNamed(change, nth(chord.pitchClasses, missing))}.`,
    drill: { drill: 'arpeggio-scale', ...pairAt(worst.change) },
    weight: 1.5 + not.length / 2
  };
};

function longest(changes: readonly JudgedChange[], ground: JudgingGround): JudgedChange | undefined {
  const beats = ({ change }: JudgedChange) => changeAt(ground, change).beats;
  return [...changes].sort((a, b) => beats(b) - beats(a) || a.change - b.change)[0];
}

/** The line pauses before changes and comes in late: a hesitation, where a rest that is followed by a landing in time is a breath. */
const silences: Rule = ({ figures, stops, changes }, ground) => {
  const isLate = (change: number) =>
    changes.some(
      (one) => one.change === change && (one.target?.met === 'late' || one.target?.met === 'silent')
    );
  const hesitations = stops.filter(isLate);
  if (hesitations.length < 2 || hesitations.length * 3 < figures.changes) return null;
  const change = changeAt(ground, firstOf(hesitations));
  return {
    kind: 'mend',
    bar: change.bar,
    change: change.index,
    text: `Before ${counted(hesitations.length, 'change')} of ${figures.changes}, first before bar ${change.bar}, the line stops and comes in late: lead into the target with the note below it.`,
    drill: { drill: 'approach', from: 0, to: ground.analysis.changes.length - 1 },
    weight: 1 + hesitations.length / Math.max(1, figures.changes)
  };
};

/** Bends that stop short of their goal, or go over it. */
const bentOff: Rule = ({ bends }, ground) => {
  const [worst] = [...bends.off].sort((a, b) => Math.abs(b.cents) - Math.abs(a.cents));
  if (!worst) return null;
  const change = changeAt(ground, worst.change);
  const { rootPc, tones } = chordOf(change);
  const goal = noteNamed(chordOf(change), degreeOf(semitonesUp(rootPc, worst.midi % 12), tones));
  const others = bends.off.length - 1;
  const more = others > 0 ? ` (${counted(others, 'other')} of ${counted(bends.of, 'bend')} too)` : '';
  const way = worst.cents < 0 ? 'stops' : 'goes';
  return {
    kind: 'mend',
    bar: change.bar,
    change: worst.change,
    text: `In bar ${change.bar} your bend to ${goal} ${way} ${Math.abs(worst.cents)} cents ${worst.cents < 0 ? 'short' : 'over'}${more}: play the fretted ${goal} first, then bend to that sound.`,
    weight: 0.9 + bends.off.length / 2
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

/** The longest way without a chord that is not told. */
const stretch: Rule = ({ changes }, ground) => {
  let best: readonly JudgedChange[] = [];
  let run: JudgedChange[] = [];
  for (const one of changes) {
    run = one.verdict === 'clear' ? [...run, one] : [];
    if (run.length > best.length) best = run;
  }
  if (best.length < 2) return null;
  const [from, to] = [changeAt(ground, firstOf(best).change), changeAt(ground, lastOf(best).change)];
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
        ? of === 1
          ? 'The target was hit.'
          : of === 2
            ? 'Both targets were hit.'
            : `All ${of} targets were hit.`
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

const RULES: Readonly<Record<'well' | 'time' | 'mend', readonly Rule[]>> = {
  well: [stretch, hitting, beginning],
  time: [drifting, throughout],
  mend: [seam, strange, thirds, unheard, silences, clashing, bentOff]
};
