/** Lines under a plan: its choices, its hand, its targets and rules. What a level of line is found in, for the page and the routes. */
import { readMelody } from '../line/melody';
import { notesInBeat, type LineNote } from '../line/model';
import { fingered, type FoundLine, type FoundLines } from '../line/find/find';
import { DEFAULT_FIGURE } from '../line/find/levels';
import { figureOf, firstDegree } from '../line/find/figures';
import type { Motif } from '../line/find/motif';
import type { LineArea } from '../line/find/pool';
import { findLines, type LevelId } from '../line/find/registry';
import type { PlacedNote } from '../line/place';
import { changeHeardAt } from '../line/read';
import { findTargets, NO_TARGETS, type TargetPath } from '../targets/path';
import type { ApproachNotes } from '../line/approach-notes';
import { fingerAt } from '../neck/position';
import { soundAt, type Instrument } from '../neck/tuning';
import type { ScaleChoice } from '../approaches/choice';
import { nth, sure } from '../base/list';
import type { Analysis } from '../harmony/analysis';
import type { Sheet } from '../harmony/sheet';
import type { Style } from '../harmony/style';
import type { PhrasePin } from '../line/phrase/phrases';
import { AS_THE_STYLE, boldly } from '../line/phrase/boldness';
import type { OnePhrase } from '../line/phrase/alone';
import { rowOf } from '../line/phrase/row';
import type { Stretch } from '../line/edit';
import type { Form } from '../chart/unroll';
import { feelIdOf } from '../chart/feel-name';
import type { Arrangement } from './arrange';
import { pinsOf } from './edits';
import { DEFAULT_PLAN } from './model';

export interface LineWish {
  readonly level: LevelId;
  readonly figure?: string | undefined;
  /** Notes in a quarter. */
  readonly subdivision: number;
  readonly seed: number;
  readonly alternatives: number;
  /** Changes, both in; to the ends where they are left out. */
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  /** Bars of a phrase; as the level has it where nothing is said, 0 for none. */
  readonly phrase?: number | undefined;
  readonly motif?: Motif | undefined;
  /** For phrases: the style of the music, as the chart has it where nothing is said. */
  readonly style?: Style | undefined;
  /** How dense phrases are, 0 to 1; as the style has it where nothing is said. */
  readonly density?: number | undefined;
  /** Whether a phrase may begin before the first bar. */
  readonly pickup?: boolean | undefined;
  /** How bold phrases are, 0 to 1; as the style has it in the middle, and where nothing is said. */
  readonly boldness?: number | undefined;
  /** Phrases that stand as they are, in ticks; what is made keeps out of their bars. */
  readonly held?: readonly Stretch[] | undefined;
  /** One phrase is made, by itself. Bars are those of the form, from 0. */
  readonly only?: Omit<OnePhrase, 'part'> | undefined;
}

/** What the player has decided that phrases keep to. */
export interface PhraseDecisions {
  /** What was chosen by hand or by an approach that was asked for; null where the style has its way. */
  readonly choiceAt: (change: number) => ScaleChoice | null;
  readonly pins: readonly PhrasePin[];
}

/** The target line a line is found through, and how it is led into. */
export interface LineTargets {
  /** The best first. */
  readonly paths: readonly TargetPath[];
  /** Approach notes that the player has asked for. */
  readonly asked: (path: TargetPath) => ApproachNotes;
  /** Those that fit, where none are asked for. */
  readonly fitting: (path: TargetPath) => ApproachNotes;
}

export interface PlacedLine extends Omit<FoundLine, 'notes'> {
  readonly notes: readonly PlacedNote[];
}

/** The lines of a level over an arranged chart, in an area, through target lines; with places and fingers. */
export function linesOver(
  { sheet, analysis, chosen, neck }: Pick<Arrangement, 'sheet' | 'analysis' | 'chosen' | 'neck'>,
  areaOf: (change: number) => LineArea,
  { paths, asked, fitting }: LineTargets,
  wish: LineWish,
  decided: PhraseDecisions
): Omit<FoundLines, 'lines'> & { readonly lines: readonly PlacedLine[] } {
  const { head, form } = sheet;
  const [path] = paths;
  if (!path) return { lines: [] };
  const last = analysis.changes.length - 1;
  const { subdivision } = wish;
  const { from = 0, to = last } = wish.only ? changesUnder(wish.only, form) : wish;
  const found = findLines(wish.level, {
    ...wish,
    ground: { form, analysis, chosen },
    meter: head.meter,
    neck,
    areaOf,
    path,
    paths,
    approaches: asked(path),
    leadInto: fitting,
    perBeat: notesInBeat(subdivision, head.meter.unit),
    feel: head.feel,
    from,
    to: Math.min(to, last),
    melody: head.melody === null ? null : readMelody(head.melody, form, head.meter).line,
    phrasing: {
      ...decided,
      ...phrasingOf(sheet, analysis, wish),
      held: wish.held,
      only: onlyIn(wish.only, from, form)
    }
  });
  const areaAt = (note: Parameters<typeof changeHeardAt>[0]) => areaOf(changeHeardAt(note, analysis.changes));
  return {
    ...found,
    lines: found.lines.map(({ hands, ...line }) => ({
      ...line,
      notes: hands ? inHands(line.notes, hands, neck) : fingered(line.notes, neck, areaAt)
    }))
  };
}

/** The fingers of notes whose hand is known. */
function inHands(notes: readonly LineNote[], hands: readonly number[], { capo }: Instrument): PlacedNote[] {
  return notes.map((note, i): PlacedNote => {
    const { string, fret } = sure(note.place, 'the place of a found note');
    const position = nth(hands, i);
    return { ...note, place: { string, fret, finger: fingerAt(fret, position, capo) }, position };
  });
}

/** Changes of the bars that one phrase, and what it takes up, stand in; both in. */
function changesUnder({ first, bars, like }: Omit<OnePhrase, 'part'>, { bars: all, changes }: Form) {
  // A pickup lies in the bar before.
  const begin = Math.max(0, Math.min(first, like?.first ?? first) - 1);
  const end = Math.min(all.length, Math.max(first, like?.first ?? first) + bars + 1) - 1;
  const [start, stop] = [nth(all, begin).start, nth(all, end).start + nth(all, end).beats];
  const inside = changes.filter((change) => change.start + change.beats > start && change.start < stop);
  return { from: inside[0]?.index ?? 0, to: inside.at(-1)?.index ?? 0 };
}

/** One phrase by the bars of the range that begins at a change. */
function onlyIn(
  only: Omit<OnePhrase, 'part'> | undefined,
  from: number,
  { bars, changes }: Form
): OnePhrase | undefined {
  if (!only) return undefined;
  const start = changes[from]?.start ?? 0;
  const skipped = bars.findIndex((bar) => bar.start + bar.beats > start);
  const { first, like } = only;
  return {
    ...only,
    part: first / Math.max(1, bars.length),
    first: first - skipped,
    ...(like ? { like: { ...like, first: like.first - skipped } } : {})
  };
}

function phrasingOf(
  { head }: Sheet,
  analysis: Analysis,
  { style, density, boldness, pickup = true }: LineWish
) {
  const facts = {
    style: style ?? analysis.style,
    feel: head.feel,
    feelId: feelIdOf(head.feel, head.meter),
    meter: head.meter,
    tempo: head.tempo,
    analysis
  };
  const isTriple = head.meter.unit >= 8 && head.meter.beats % 3 === 0 && head.meter.beats > 3;
  const pulses =
    head.tempo === null ? null : head.tempo * (isTriple ? 1 / 3 : 4 / Math.max(4, head.meter.unit));
  return { row: boldly(rowOf(facts), boldness ?? AS_THE_STYLE), density, pickup, tempo: pulses };
}

/** The lines of a level as the plan would have them. */
export function linesOf(arranged: Arrangement, wish: LineWish): ReturnType<typeof linesOver> {
  const { plan, hands, analysis } = arranged;
  const figure = wish.level === 'figure' ? (figureOf(wish.figure ?? '') ?? DEFAULT_FIGURE) : null;
  const options = arranged.targetOptions(plan.thread);
  const isThin = wish.level === 'skeleton' || wish.level === 'led in';
  const { paths, noPath } =
    wish.level === 'phrases'
      ? { paths: [NO_TARGETS], noPath: undefined }
      : findTargets(analysis, {
          ...options,
          // A figure begins where it begins, on the first of its tones.
          ...(figure ? { degrees: [firstDegree(figure)], column: null, alternate: false, fixed: [] } : {}),
          alternatives: isThin ? wish.alternatives : 1
        });
  if (noPath) return { lines: [], noLine: noPath };
  const isBound = plan.reach === 'hand';
  const areaOf = (change: number): LineArea => ({
    position: isBound ? hands[change] : undefined,
    range: plan.range ?? undefined,
    strings: options.strings ?? undefined
  });
  const wished = arranged.approachNotes;
  return linesOver(
    arranged,
    wish.level === 'phrases' ? phraseArea(arranged, areaOf) : areaOf,
    { paths, asked: wished, fitting: fittingOr(arranged) },
    wish,
    decisionsOf(arranged)
  );
}

/** Phrases move with the hand: they are bound where the player has put it, and free where it only lies easiest. */
function phraseArea({ plan, hands }: Arrangement, areaOf: (change: number) => LineArea) {
  const own = new Map(plan.decisions.map(({ change, position }) => [change, position]));
  const isPut = (change: number) => plan.position !== null || own.get(change) !== undefined;
  return (change: number): LineArea => ({
    ...areaOf(change),
    position: plan.reach === 'hand' && isPut(change) ? hands[change] : undefined
  });
}

function decisionsOf({ plan, chosen, neck }: Arrangement): PhraseDecisions {
  const byHand = new Set(plan.decisions.flatMap(({ change, choice }) => (choice ? [change] : [])));
  const isAsked = plan.approach !== DEFAULT_PLAN.approach;
  const pins = pinsOf(plan).flatMap(({ change, beat, string, fret, when }): PhrasePin[] =>
    (beat ?? 1) === 1 && string <= neck.strings.length
      ? [{ change, string, fret, midi: soundAt(neck, string, fret), when: when ?? 'on' }]
      : []
  );
  return { choiceAt: (change) => (isAsked || byHand.has(change) ? (chosen[change] ?? null) : null), pins };
}

/** The approach notes of the plan; those that fit where it has none. */
function fittingOr({ approachNotes, fittingNotes }: Arrangement) {
  return (path: TargetPath) => {
    const own = approachNotes(path);
    return own.size ? own : fittingNotes(path);
  };
}
