/**
 * How a take met its chart: change by change where it landed against where it meant to, how late, and which chord is heard there; and
 * what is to be said of the whole. What was left alone on purpose is not counted. Source: docs/music-rules.md, Judging a take.
 */
import { firstOf, nth, sure } from '../../base/list';
import type { Beats, Midi } from '../../base/units';
import { group, mean as meanOf } from 'd3-array';
import type { Meter } from '../../chart/model';
import type { AnalysedChange } from '../../harmony/analysis';
import { heardIn, type HeardChord } from '../../line/listener';
import { pulsesOf } from '../../chart/pulses';
import { ticksOf, type LineNote } from '../../line/model';
import { askedOf, outlineLine, wantedSounds, type Asked, type Verdict } from '../../line/outline';
import { placeNotes } from '../../line/place';
import { readLine, type Ground } from '../../line/read';
import type { Instrument } from '../../neck/tuning';
import type { Chord } from '../../theory/chord';
import type { Degree } from '../../theory/degree';
import { asWritten, beatOf, inBeats, roundsOf, type BeatNote, type TakeClock } from '../align';
import { timeOf, type PlayersTime } from '../clock';
import { stretchesOf, type Heard, type Stretch } from '../stretches';
import {
  endOf,
  isWithin,
  landingIn,
  meet,
  MEETINGS,
  rounded,
  type Landing,
  type Meeting,
  type MetTarget
} from './landing';
import { turnAt, turnsIn, type TradeBars } from '../trade';
import { THRESHOLDS } from './thresholds';

/** The note that is meant at a change. */
export interface MeantTarget {
  readonly change: number;
  readonly midi: Midi;
  /** When it is meant, in beats from the start of the form; at its change unless said otherwise. */
  readonly at?: number | undefined;
}

export interface JudgedChange {
  readonly change: number;
  /** Which time through the form, from 0. */
  readonly round: number;
  /** Absent where no target is meant. */
  readonly target?: MetTarget;
  /** The note it was landed on, whatever was meant. */
  readonly landed: Landing | null;
  /** The chords that are heard, the most likely first. */
  readonly heard: readonly HeardChord[];
  readonly verdict: Verdict;
  /** Enough was played, and it leads clearly: the chord that is heard may be named. */
  readonly isTold: boolean;
  /** Share of what sounds over it that is tones of its chord, 0 to 1. */
  readonly inChord: number;
  /** Nothing at all was played over it, or it was Corvel's turn. */
  readonly isLeftAlone: boolean;
}

/** Shares are 0 to 1, null where there is nothing to count. */
export interface TakeFigures {
  readonly notes: number;
  readonly rounds: number;
  /** Changes that were played over, all rounds together. */
  readonly changes: number;
  readonly leftAlone: number;
  /** Of those played over: heard, those in part for half. */
  readonly outlined: number | null;
  /** Of the targets that were played at: hit. */
  readonly hits: number | null;
  readonly met: Readonly<Record<Meeting, number>>;
  /** The mean over the targets that were played, in beats; and how far from the change either way. */
  readonly late: number | null;
  readonly apart: number | null;
  /** Changes before which the line had stopped. */
  readonly silences: number;
  /** Notes that clash on a beat, or long. */
  readonly avoids: number;
  readonly outside: number;
  /** The degree that most changes begin on, and the share of them. */
  readonly beginsOn: { readonly degree: Degree; readonly share: number } | null;
  readonly beginsOnLowest: number | null;
  readonly directionChanges: number;
  /** MIDI numbers. */
  readonly range: { readonly low: number; readonly high: number } | null;
  readonly positions: readonly number[];
  /** Notes in a beat that was played in. */
  readonly density: number | null;
  /** How much more of it is chord tones than in the other keys; below 0 it would fit another key better. */
  readonly fit: number | null;
  readonly fits: boolean;
}

/** A change at which a player is always late, or never arrives. */
export interface Seam {
  readonly change: number;
  /** In beats; null where the target did not come at all. */
  readonly late: number | null;
  readonly times: number;
  readonly of: number;
}

/** A note that clashes, with its place: in beats of the form. */
export interface Clash {
  readonly change: number;
  readonly at: number;
  readonly degree: Degree;
}

export interface BendOff {
  readonly change: number;
  readonly midi: Midi;
  readonly cents: number;
}

export interface Judgement {
  readonly changes: readonly JudgedChange[];
  readonly figures: TakeFigures;
  readonly seams: readonly Seam[];
  readonly clashes: readonly Clash[];
  /** Notes outside chord and scale, on a beat or long. */
  readonly wrong: readonly Clash[];
  /** Bends that did not come to their goal: the goal as a MIDI number, and cents over it, below 0 under it; how many were bent in all. */
  readonly bends: { readonly off: readonly BendOff[]; readonly of: number };
  /** Changes over which both thirds are held, the major one first. */
  readonly bothThirds: readonly number[];
  /** How the player lies in time. */
  readonly time: PlayersTime;
  /** Beats by which the take lies behind the band, where it is clearly the same take beside it; 0 else. */
  readonly beside: number;
  /** Semitones by which all of it lies too high, below 0 too low; 0 else. */
  readonly fretsOff: number;
  /** Changes before which the line had stopped, in the order of time. */
  readonly stops: readonly number[];
  /** The take as a line over the form, round after round. */
  readonly line: readonly LineNote[];
}

export interface TakeToJudge {
  /** As they were heard: how their pitch moves is read from their events and curves, where there are any. */
  readonly notes: readonly Heard[];
  readonly clock: TakeClock;
  readonly targets: readonly MeantTarget[];
  /** Where the band has the second half of a pulse, 0.5 for straight. */
  readonly swing?: number | undefined;
  /** Bars that were traded: the changes of Corvel's turns are none of the player's. */
  readonly trade?: TradeBars | undefined;
}

/** What a take is judged against. */
export interface JudgingGround extends Ground {
  readonly meter: Meter;
  readonly neck: Instrument;
}

/** How a take met its chart and plan: landings, chords that could be heard, time, figures. Source: docs/music-rules.md, Takes. */
export function judgeTake(take: TakeToJudge, ground: JudgingGround): Judgement {
  const { clock, targets, trade, swing } = take;
  const notes = stretchesOf(take.notes);
  const { form, analysis } = ground;
  // What is constant in the player's time is no matter of one change, and none of harmony.
  const time = timeOf(take.notes, clock, form, swing);
  const sounded = inBeats(notes, time.clock);
  // As it is written: what is swung is no later than what is straight.
  const played = sounded.map(({ at, beats, midi }): BeatNote => {
    const start = time.writtenAt(at);
    return { at: start, beats: time.writtenAt(at + beats) - start, midi };
  });
  const lateFrom = lateFromIn(form, clock.tempo);
  const rounds = roundsOf(played, form.beats);
  const turns = trade ? turnsIn(form, trade, rounds) : null;
  const line = asWritten(sounded, time.writtenAt);
  // Where a change has several, the first is landed on.
  const wanted = new Map([...targets].reverse().map((target) => [target.change, target]));
  const asked = askedInRounds(analysis.changes, rounds, form.beats);
  const outline = outlineLine(line, asked);
  const changes = asked.flatMap(({ change, round, start, beats }, i): JudgedChange[] => {
    const { chord, index } = nth(analysis.changes, change.index);
    if (!chord) return [];
    const place = { start, end: start + beats, chord };
    const target = wanted.get(index);
    const meant = target?.at === undefined ? place : { ...place, start: target.at + round * form.beats };
    const isOwn = turns === null || (turnAt(turns, start)?.isOwn ?? false);
    const sounds = isOwn && played.some((note) => isWithin(note, place));
    return [
      {
        change: index,
        round,
        ...(target ? { target: meet(target.midi, played, meant, lateFrom) } : {}),
        landed: landingIn(played, place),
        heard: heardIn(outline.listening, i).inSequence,
        verdict: nth(outline.windows, i).verdict ?? 'silence',
        ...evidenceOf(line, { start, end: start + beats, chord }, heardIn(outline.listening, i)),
        isLeftAlone: !sounds
      }
    ];
  });
  const readings = Array.from({ length: rounds }, (_, round) => {
    const [from, to] = [ticksOf(round * form.beats), ticksOf((round + 1) * form.beats)];
    const own = line
      .filter(({ start }) => start >= from && start < to)
      .map((note) => ({ ...note, start: note.start - from }));
    return { own, reading: readLine({ meter: ground.meter, notes: own }, ground) };
  });
  const clashes = readings.flatMap(({ own, reading }) =>
    reading.notes.flatMap(({ index, change, degree, role }): Clash[] =>
      role === 'avoid' && degree !== null ? [{ change, at: nth(own, index).start / ticksOf(1), degree }] : []
    )
  );
  const wrong = readings.flatMap(({ own, reading }) => strangeIn(own, reading, ground, ['outside']));
  /** Before an answer it was Corvel's turn, and silence no hesitation. */
  const opensTurn = (start: number) => turns?.some(({ from }) => Math.abs(from - start) < 1e-6) ?? false;
  const stops = changes
    .filter(
      ({ change, round, isLeftAlone }) =>
        !isLeftAlone &&
        !opensTurn(nth(analysis.changes, change).start + round * form.beats) &&
        isAfterSilence(change, round, played, ground)
    )
    .map(({ change }) => change);
  return {
    changes,
    figures: figuresOf({
      changes,
      stops,
      line,
      played,
      rounds,
      clashes,
      readings: readings.map(({ reading }) => reading),
      ground
    }),
    seams: seamsOf(changes),
    clashes,
    wrong,
    bends: bendsIn(notes, time.clock, ground),
    bothThirds: readings.flatMap(({ own, reading }) => bothThirdsIn(own, reading, ground)),
    time,
    beside: turns ? 0 : besideBy(changes, { line, targets, lateFrom }, ground),
    fretsOff: fretsOffOf(line, changes, ground, rounds),
    stops,
    line
  };
}

/** The bends of a take: those of a semitone and more have a fret for their goal. */
function bendsIn(
  notes: readonly Stretch[],
  clock: TakeClock,
  { form, analysis }: JudgingGround
): Judgement['bends'] {
  const bent = notes.flatMap((note) => (note.bent === undefined ? [] : [{ ...note, bent: note.bent }]));
  const off = bent.flatMap(({ at, midi, technique, bent }): BendOff[] => {
    const cents = Math.round(bent - 100 * (midi - (technique?.bend?.from ?? midi)));
    const beat = beatOf(clock, at) + 0.1;
    const within = beat - form.beats * Math.floor(beat / form.beats);
    const change = analysis.changes.findLastIndex(({ start, chord }) => chord && start <= within);
    return Math.abs(cents) >= THRESHOLDS.bentOff && change >= 0 ? [{ change, midi, cents }] : [];
  });
  return { off, of: bent.length };
}

/** Beats from which on a landing is late: in pulses and in seconds, whichever is more. */
function lateFromIn({ bars }: Ground['form'], tempo: number): number {
  const { pulses, seconds } = THRESHOLDS.lateFrom;
  const pulse = bars[0] ? firstOf(pulsesOf(bars[0])).beats : 1;
  return Math.max(pulses * pulse, (seconds * tempo) / 60);
}

/** What is sounded over a change: whether it tells a chord at all, and how much of it is the chord's. */
function evidenceOf(
  line: readonly LineNote[],
  { start, end, chord }: { readonly start: number; readonly end: number; readonly chord: Chord },
  heard: ReturnType<typeof heardIn>
): Pick<JudgedChange, 'isTold' | 'inChord'> {
  const { notes, beats, lead } = THRESHOLDS.evidence;
  const [from, to] = [ticksOf(start), ticksOf(end)];
  const own = line.filter((note) => note.start < to && note.start + note.length > from);
  const lengths = own.map((note) => Math.min(to, note.start + note.length) - Math.max(from, note.start));
  const sounding = lengths.reduce((sum, length) => sum + length, 0);
  const inChord = own.reduce(
    (sum, { midi }, i) => sum + (chord.pitchClasses.includes(midi % 12) ? nth(lengths, i) : 0),
    0
  );
  const [first] = heard.inSequence;
  const leads = first !== undefined && first.share >= lead * heard.shareOf(wantedSounds(chord));
  return {
    isTold: leads && (own.length >= notes || sounding >= ticksOf(beats)),
    inChord: sounding > 0 ? inChord / sounding : 0
  };
}

type Reading = ReturnType<typeof readLine>;

/**
 * Notes of some roles that stand: on a beat or half a beat long, not left by a step, and not at the very end, where they lead into the
 * next round.
 */
function strangeIn(
  own: readonly LineNote[],
  reading: Reading,
  { form }: JudgingGround,
  roles: readonly string[]
): Clash[] {
  return reading.notes.flatMap(({ index, change, degree, role }): Clash[] => {
    const { start, length, midi } = nth(own, index);
    const next = own[index + 1];
    const isLong = length >= ticksOf(0.5) || start % ticksOf(1) === 0;
    const steps = next !== undefined && length <= ticksOf(0.5) && Math.abs(next.midi - midi) <= 2;
    const leadsOn = next === undefined && start >= ticksOf(form.beats - 1);
    const stands = roles.includes(role) && isLong && !steps && !leadsOn;
    return stands && degree !== null ? [{ change, at: start / ticksOf(1), degree }] : [];
  });
}

/** Changes on a major third over which the third falls to the minor one, and that stands: blues lets the minor one rise, never the other way. */
function bothThirdsIn(own: readonly LineNote[], reading: Reading, ground: JudgingGround): number[] {
  const { analysis } = ground;
  const least = ticksOf(0.5);
  return strangeIn(own, reading, ground, ['outside', 'avoid', 'blue']).flatMap(({ change, at }) => {
    const chord = analysis.changes[change]?.chord;
    if (!chord || analysis.style === 'blues') return [];
    const note = own.find(({ start }) => start === Math.round(at * ticksOf(1)));
    if (note?.midi === undefined || note.midi % 12 !== (chord.rootPc + 3) % 12) return [];
    const major = (chord.rootPc + 4) % 12;
    const before = reading.notes.some(({ index, change: over }) => {
      const one = nth(own, index);
      return over === change && one.start < note.start && one.length >= least && one.midi % 12 === major;
    });
    return before && chord.pitchClasses.includes(major) ? [change] : [];
  });
}

/** Pulses by which a take may lie beside the band. */
const BESIDE = [-2, -1, -0.5, 0.5, 1, 2] as const;

/** Beats by which a take lies behind the band: where it is met and heard far better when it is moved by pulses. */
function besideBy(
  changes: readonly JudgedChange[],
  {
    line,
    targets,
    lateFrom
  }: {
    readonly line: readonly LineNote[];
    readonly targets: readonly MeantTarget[];
    readonly lateFrom: number;
  },
  { form, analysis }: JudgingGround
): number {
  const { better, poor, good } = THRESHOLDS.moved;
  const pulse = form.bars[0] ? firstOf(pulsesOf(form.bars[0])).beats : 1;
  if (line.length < THRESHOLDS.notesToFit) return 0;
  const scoreOf = (by: number) => {
    const moved = line
      .map((note) => ({ ...note, start: note.start - ticksOf(by) }))
      .filter(({ start }) => start >= -ticksOf(pulse));
    const rounds = Math.max(1, Math.ceil((moved.at(-1)?.start ?? 0) / ticksOf(form.beats)));
    const { share } = outlineLine(
      moved.filter(({ start }) => start >= 0),
      askedInRounds(analysis.changes, rounds, form.beats)
    );
    const notes = moved.map(({ start, length, midi }) => ({
      at: start / ticksOf(1),
      beats: length / ticksOf(1),
      midi
    }));
    const met = targets.flatMap(({ change, midi, at }) => {
      const own = analysis.changes[change];
      if (!own?.chord) return [];
      const place = { start: at ?? own.start, end: own.start + own.beats, chord: own.chord };
      return notes.some((note) => isWithin(note, place))
        ? [meet(midi, notes, place, lateFrom).met === 'hit']
        : [];
    });
    const hits = met.length > 0 ? met.filter(Boolean).length / met.length : (share ?? 0);
    return hits + (share ?? 0);
  };
  const here = scoreOf(0);
  if (here >= poor || changes.length === 0) return 0;
  const best = BESIDE.map((pulses) => ({ by: pulses * pulse, score: scoreOf(pulses * pulse) })).reduce(
    (a, b) => (b.score > a.score ? b : a)
  );
  return best.score >= Math.max(good, here + better) ? best.by : 0;
}

/** Semitones by which a whole take lies too high: where it fits a fret or two away, and its targets are missed by that much. */
function fretsOffOf(
  line: readonly LineNote[],
  changes: readonly JudgedChange[],
  ground: JudgingGround,
  rounds: number
): number {
  const { better, share, targets: least } = THRESHOLDS.fretOff;
  const shares = sharesOf(line, ground, rounds);
  if (!shares || line.length < THRESHOLDS.notesToFit) return 0;
  const aimed = changes.flatMap(({ target, landed, isLeftAlone }) =>
    target && landed && !isLeftAlone ? [landed.midi - target.wanted] : []
  );
  return (
    [1, -1, 2, -2].find((high) => {
      const away = aimed.filter((apart) => (((apart - high) % 12) + 12) % 12 === 0).length;
      const fits = nth(shares, (12 - high) % 12) - firstOf(shares) >= better;
      return fits && aimed.length >= least && away >= share * aimed.length;
    }) ?? 0
  );
}

interface AskedInRound extends Asked {
  readonly change: AnalysedChange;
  readonly round: number;
  readonly start: number;
  readonly beats: Beats;
}

/** Every change of every round as a window of the outline test, in beats of the take. */
function askedInRounds(
  changes: readonly AnalysedChange[],
  rounds: number,
  formBeats: number
): AskedInRound[] {
  const windows = askedOf(changes);
  return Array.from({ length: rounds }, (_, round) =>
    changes.map((change, i) => {
      const moved = ticksOf(round * formBeats);
      return {
        from: nth(windows, i).from + moved,
        to: nth(windows, i).to + moved,
        change,
        round,
        start: change.start + round * formBeats,
        beats: change.beats
      };
    })
  ).flat();
}

/** Changes at which the target was late, or did not come, every time it was played at; at which it most was, first. */
function seamsOf(changes: readonly JudgedChange[]): Seam[] {
  const met = group(
    changes.flatMap(({ change, target, isLeftAlone }) =>
      target && !isLeftAlone ? [{ change, target }] : []
    ),
    ({ change }) => change
  );
  return [...met]
    .flatMap(([change, times]): Seam[] => {
      const missed = times.filter(({ target }) => isMissed(target));
      if (missed.length < times.length) return [];
      const lates = times.flatMap(({ target }) =>
        target.met === 'late' && target.late !== null ? [target.late] : []
      );
      const late = lates.length ? rounded(sure(mean(lates), 'mean')) : null;
      return [{ change, late, times: missed.length, of: times.length }];
    })
    .sort((a, b) => b.times - a.times || (b.late ?? 1) - (a.late ?? 1) || a.change - b.change);
}

const isMissed = ({ met, late }: MetTarget) =>
  (met === 'late' && late !== null && late >= THRESHOLDS.seam) || met === 'silent';

const { onTime, early, silence } = THRESHOLDS;
const mean = (values: readonly number[]) => meanOf(values) ?? null;

const POINTS: Readonly<Record<Verdict, number>> = { clear: 1, partly: 0.5, not: 0, silence: 0 };
/** Notes that are placed on the neck to tell where the hand was. */
const MOST_PLACED = 512;

interface Parts {
  readonly changes: readonly JudgedChange[];
  readonly stops: readonly number[];
  readonly line: readonly LineNote[];
  readonly played: readonly BeatNote[];
  readonly rounds: number;
  readonly clashes: readonly Clash[];
  readonly readings: readonly ReturnType<typeof readLine>[];
  readonly ground: JudgingGround;
}

function figuresOf(parts: Parts): TakeFigures {
  const { changes, stops, line, played, rounds, clashes, readings, ground } = parts;
  const over = changes.filter(({ isLeftAlone }) => !isLeftAlone);
  const targets = over.flatMap(({ target }) => (target ? [target] : []));
  const met = Object.fromEntries(
    MEETINGS.map((meeting) => [meeting, targets.filter((target) => target.met === meeting).length])
  ) as Record<Meeting, number>;
  const lates = targets.flatMap(({ met, late }) =>
    late !== null && (met === 'hit' || met === 'late' || met === 'early') ? [late] : []
  );
  // A common tone held over a change, or one pushed ahead of it, is no earlier than it was meant to be.
  const aparts = lates.map((late) => (late < -early - onTime ? 0 : Math.abs(late)));
  const outlined = mean(over.map(({ verdict }) => POINTS[verdict]));
  const hits = targets.length ? met.hit / targets.length : null;
  const landed = over.flatMap(({ landed }) => (landed ? [landed.degree] : []));
  const pitches = line.map(({ midi }) => midi);
  const sounding = line.reduce((sum, { length }) => sum + length, 0) / ticksOf(1);
  const fit = fitOf(line, ground, rounds);
  const lowest = readings.flatMap(({ figures }) =>
    figures.beginsOnLowest === null ? [] : [figures.beginsOnLowest]
  );
  const { fits } = THRESHOLDS;
  return {
    notes: played.length,
    rounds,
    changes: over.length,
    leftAlone: changes.length - over.length,
    outlined,
    hits,
    met,
    late: roundedOr(mean(lates)),
    apart: roundedOr(mean(aparts)),
    silences: stops.length,
    avoids: clashes.length,
    outside: readings.reduce(
      (sum, { notes }) => sum + notes.filter(({ role }) => role === 'outside').length,
      0
    ),
    beginsOn: mostOf(landed),
    beginsOnLowest: mean(lowest),
    directionChanges: readings.reduce((sum, { figures }) => sum + figures.directionChanges, 0),
    range: pitches.length
      ? {
          low: pitches.reduce((a, b) => Math.min(a, b)),
          high: pitches.reduce((a, b) => Math.max(a, b))
        }
      : null,
    positions: positionsOf(line.slice(0, MOST_PLACED), ground.neck),
    density: sounding > 0 ? rounded(line.length / sounding) : null,
    fit,
    fits:
      line.length < THRESHOLDS.notesToFit ||
      (fit ?? 1) >= fits.above ||
      (outlined ?? 0) >= fits.outlined ||
      (hits ?? 0) >= fits.hits
  };
}

const roundedOr = (value: number | null) => (value === null ? null : rounded(value));

/** Whether the line had stopped before a change that it then lands on; not at the start, where nothing could be led in. */
function isAfterSilence(
  change: number,
  round: number,
  played: readonly BeatNote[],
  { form, analysis }: JudgingGround
): boolean {
  const start = nth(analysis.changes, change).start + round * form.beats;
  const before = played.filter(({ at }) => at < start - onTime);
  if (before.length === 0) return false;
  const stopped = start - before.reduce((last, note) => Math.max(last, endOf(note)), -Infinity);
  return stopped >= silence;
}

function mostOf(degrees: readonly Degree[]): TakeFigures['beginsOn'] {
  const groups = [...group(degrees, (degree) => degree)].sort((a, b) => b[1].length - a[1].length);
  const [first] = groups;
  return first ? { degree: first[0], share: first[1].length / degrees.length } : null;
}

function positionsOf(line: readonly LineNote[], neck: Instrument): number[] {
  const [place] = placeNotes(line, { neck, alternatives: 1 }).places;
  return place ? [...new Set(place.notes.map(({ position }) => position))].sort((a, b) => a - b) : [];
}

/** The share of what sounds that is chord tones, less the most it would be if all chords stood in another key. */
function fitOf(line: readonly LineNote[], ground: JudgingGround, rounds: number): number | null {
  const shares = sharesOf(line, ground, rounds);
  return shares && rounded(firstOf(shares) - Math.max(...shares.slice(1)));
}

/** The share of what sounds that is chord tones, as it is and as it would be so many semitones higher; null in silence. */
function sharesOf(
  line: readonly LineNote[],
  { form, analysis }: JudgingGround,
  rounds: number
): readonly number[] | null {
  const totals = new Float64Array(12);
  let sounding = 0;
  const changes = analysis.changes;
  for (const { start, length, midi } of line) {
    const round = Math.min(rounds - 1, Math.floor(start / ticksOf(form.beats)));
    const within = start - round * ticksOf(form.beats);
    const at = changes.findLastIndex(({ start: begin }) => ticksOf(begin) <= within);
    const chord = changes[Math.max(0, at)]?.chord;
    if (!chord) continue;
    sounding += length;
    for (let up = 0; up < 12; up++) {
      if (chord.pitchClasses.includes((midi + up) % 12)) totals[up]! += length;
    }
  }
  return sounding === 0 ? null : [...totals].map((total) => total / sounding);
}
