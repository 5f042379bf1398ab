/**
 * Lines that are phrases: planned first, given a rhythm, landings and places of figures, and then solved for their pitches exactly.
 * Everything before pitch is drawn from a seed. Source: docs/music-rules.md, Phrases.
 */
import { chordOf } from '../../chart/unroll';
import type { ScaleChoice } from '../../approaches/choice';
import { firstOf, lastOf, nth, sure } from '../../base/list';
import type { Midi, Ticks } from '../../base/units';
import type { AnalysedChange } from '../../harmony/analysis';
import type { Instrument, Spot } from '../../neck/tuning';
import type { Chord } from '../../theory/chord';
import { pitchClass } from '../../theory/note';
import { chanceOf, type Chance } from '../chance';
import { LINE_COSTS } from '../find/costs';
import type { LineArea } from '../find/pool';
import type { Stretch } from '../edit';
import { beatsOf, TICKS, ticksOf, type LineNote } from '../model';
import type { Ground } from '../read';
import { figuresIn, noFigures } from './figures';
import type { FoundPhrase, FoundPhrases, SolvedPhrase } from './found';
import { barAt, changesOf, gridOf, pulseAt, type Grid, type GridChange } from './grid';
import { handsFor, lowestHand, middleIn, placesUnder, registerOf, type Held } from './hand';
import { pitchWays, type PitchSlot } from './pitch';
import { asModelled, barsOf, besideHeld, modelFrom, strikesAlone, type OnePhrase } from './alone';
import { keptOutOf, planPhrases, type Contour, type PlannedPhrase } from './plan';
import { rhythmOf, type PhraseRhythm, type Strike } from './rhythm';
import { soundsOver, type Sounds } from './sounds';
import type { Meeting, PhraseRow, PhraseStart } from './styles';
import { withTechniques, type SolvedNote } from './techniques';

/** A change that the player has pinned to a place, and when it is to be met. */
export interface PhrasePin extends Held {
  readonly change: number;
  readonly when: Meeting | 'any';
}

export interface PhraseWish {
  readonly ground: Ground;
  readonly neck: Instrument;
  readonly row: PhraseRow;
  /** Changes, both in. */
  readonly from: number;
  readonly to: number;
  /** What the player has chosen; null where the style has its way. */
  readonly choiceAt: (change: number) => ScaleChoice | null;
  readonly areaOf: (change: number) => LineArea;
  readonly pins: readonly PhrasePin[];
  /** 0 to 1; as the style has it where nothing is said. */
  readonly density?: number | undefined;
  /** Whether a phrase may begin before the first bar. */
  readonly pickup: boolean;
  /** Pulses a minute; null where the chart does not say. */
  readonly tempo: number | null;
  readonly seed: number;
  /** Stretches in ticks that stand as they are: what is made keeps out of their bars. */
  readonly held?: readonly Stretch[] | undefined;
  /** Only this phrase is made. */
  readonly only?: OnePhrase | undefined;
}

/** What a fret of moving the hand costs between phrases. */
const HAND = 0.08;
const LITERAL = 1.7;
/** A sequence begins a tone up or down from what it moves. */
const MOVED = 2;
/** Semitones from the middle of the hand. */
const FAR = 5;
/** How surely it does: a semitone from there costs so much. */
const SEQUENCED = 1.2;
const VARIED = 0.6;
const ANSWER_BELOW = 2;
const MOST_NOTES_A_PHRASE = 64;

const NOTHING: FoundPhrases = { notes: [], hands: [], phrases: [], cost: 0 };

/** Phrases over a chart, by seed: plan, rhythm, landings, figures, then pitch, exactly for that plan. Source: docs/music-rules.md, Phrases. */
export function findPhrases(wish: PhraseWish): FoundPhrases {
  const { ground, row, from, to, seed } = wish;
  const all = ground.analysis.changes;
  const changes = changesOf(all.slice(from, to + 1));
  // A chart without chords has no phrases.
  if (!changes.some(({ change }) => nth(all, change).chord)) return NOTHING;
  const start = firstOf(changes).start;
  const end = lastOf(changes).end;
  const bars = ground.form.bars.filter(
    (bar) => ticksOf(bar.start + bar.beats) > start && ticksOf(bar.start) < end
  );
  const grid = gridOf(bars);
  const pins = wish.pins.filter(({ change }) => change >= from && change <= to);
  const planned = {
    row,
    bars: bars.length,
    harmony: harmonyOf(grid, all, changes),
    density: wish.density,
    pickup: wish.pickup,
    needed: new Set(pins.map(({ change }) => barAt(grid, ticksOf(nth(all, change).start))))
  };
  const meets = new Map(
    pins.flatMap(({ change, when }) => (when === 'any' ? [] : [[change, when] as const]))
  );
  const soundsAt = soundsOfAll(wish, changes);
  const pinned = new Set(pins.map(({ change }) => change));
  const restless = new Set(
    changes.flatMap(({ change }) =>
      nth(all, change).chord && isDiminished(chordOf(nth(all, change))) ? [change] : []
    )
  );
  const rhythmic = { row, grid, changes, meets, pinned, restless };
  const heardIn = (strikes: readonly Strike[]) =>
    strikes
      .filter((strike) => strike.start < end && strike.start >= start - barLength(grid))
      .filter((strike) => wish.pickup || strike.start >= start)
      .flatMap((strike) => cutAtChanges(strike, changes, soundsAt))
      .slice(0, MOST_NOTES_A_PHRASE);
  const solved: SolvedPhrase[] = [];
  const context: Context = { wish, grid, changes, soundsAt, pins, solved };
  const { only } = wish;
  if (only) {
    const model = only.like ? modelFrom(only, { grid, neck: wish.neck, row, changes }) : null;
    if (model) solved.push(model);
    const rhythm = strikesAlone(only, model, { planned, rhythmic, seed, heardIn });
    const phrase = rhythm && solvePhrase(rhythm, 1, context);
    const tonesAt = (ticks: Ticks) => nth(all, changeAt(changes, ticks)).chord?.pitchClasses ?? [];
    return phrase ? asModelled(written([phrase], context), only, { grid, tonesAt }) : NOTHING;
  }
  const plans = planPhrases({ ...planned, chance: chanceOf(seed, 1) });
  const taken = barsOf(wish.held ?? [], grid);
  const rhythms = rhythmOf(taken.size > 0 ? keptOutOf(plans, taken) : plans, {
    ...rhythmic,
    chance: chanceOf(seed, 2)
  });
  const usable = rhythms.map((rhythm) => ({
    ...rhythm,
    strikes: heardIn(besideHeld(rhythm.strikes, wish.held ?? [], grid))
  }));
  for (const [n, rhythm] of usable.entries()) {
    if (rhythm.strikes.every(({ isGhost }) => isGhost)) continue;
    const phrase = solvePhrase(rhythm, n, context);
    if (phrase) solved.push(phrase);
    else {
      const pinned = pins.find(({ change }) => meetsPin(rhythm, ticksOf(nth(all, change).start)));
      if (pinned) return { ...NOTHING, stuck: pinned.change };
    }
  }
  const isHeld = ({ change }: PhrasePin) => taken.has(barAt(grid, ticksOf(nth(all, change).start)));
  const missed = pins.find(
    (pin) =>
      !isHeld(pin) && !solved.some(({ rhythm }) => meetsPin(rhythm, ticksOf(nth(all, pin.change).start)))
  );
  if (missed) return { ...NOTHING, stuck: missed.change };
  return written(solved, context);
}

const isDiminished = ({ tones }: Chord) =>
  tones.includes('b3') && tones.includes('b5') && !tones.includes('b7');

/** What sounds in each bar. */
function harmonyOf({ bars }: Grid, all: readonly AnalysedChange[], changes: readonly GridChange[]): string[] {
  return bars.map(({ start, end }) =>
    changes
      .filter((change) => change.end > start && change.start < end)
      .map(({ change, start: at }) => `${Math.max(0, at - start)}:${nth(all, change).symbol}`)
      .join()
  );
}

const barLength = ({ bars }: Grid) => (bars[0] ? bars[0].end - bars[0].start : 0);

/** Whether a phrase meets a pinned change, on time or a little beside it. */
const meetsPin = ({ strikes }: PhraseRhythm, ticks: Ticks) =>
  strikes.some(({ isPinned, start }) => isPinned && Math.abs(start - ticks) <= NEAR);

/** Ticks: further from its change than a push no pinned note stands. */
const NEAR = TICKS;

interface Context {
  readonly wish: PhraseWish;
  readonly grid: Grid;
  readonly changes: readonly GridChange[];
  readonly soundsAt: (ticks: Ticks) => Sounds | null;
  readonly pins: readonly PhrasePin[];
  readonly solved: readonly SolvedPhrase[];
}

/** What is heard at a time: one object for as long as a chord lasts, however many changes write it. */
function soundsOfAll({ ground, row, choiceAt }: PhraseWish, changes: readonly GridChange[]) {
  const all: (Sounds | null)[] = [];
  let [lastKey, last]: [string, Sounds | null] = ['', null];
  for (const { change } of changes) {
    const own = nth(ground.analysis.changes, change);
    if (!own.chord) {
      all.push(null);
      [lastKey, last] = ['', null];
      continue;
    }
    const choice = choiceAt(change);
    const key = `${own.chord.symbol} ${own.key.tonic} ${own.key.mode} ${choice?.name ?? ''}`;
    if (!last || lastKey !== key) {
      const sounding = own as AnalysedChange & { readonly chord: Chord };
      [lastKey, last] = [key, soundsOver(sounding, ground.analysis, row, choice)];
    }
    all.push(last);
  }
  return (ticks: Ticks): Sounds | null => {
    let at = changes.length - 1;
    while (at > 0 && nth(changes, at).start > ticks) at--;
    return all[at] ?? null;
  };
}

/** A note ends where its chord does; one that came before its chord belongs to that. Nothing sounds where no chord does. */
function cutAtChanges(
  strike: Strike,
  changes: readonly GridChange[],
  soundsAt: (ticks: Ticks) => Sounds | null
): Strike[] {
  const heard = strike.start + strike.ahead;
  const own = soundsAt(heard);
  if (!own) return [];
  const next = changes.find(({ start }) => start > heard && soundsAt(start) !== own);
  const last = next?.start ?? lastOf(changes).end;
  const length = Math.min(strike.length, last - strike.start);
  return length > 0 ? [{ ...strike, length }] : [];
}

/** Which strikes meet a change: what comes early for it, stands on it without leaning, or follows within a pulse. */
function landingsIn(strikes: readonly Strike[], { changes, grid, soundsAt }: Context): (number | null)[] {
  const lands: (number | null)[] = strikes.map(() => null);
  changes.forEach(({ change, start }, n) => {
    const before = n === 0 ? null : soundsAt(start - 1);
    const isNew = n === 0 || before !== soundsAt(start);
    const pulse = pulseAt(grid, start).length;
    const early = strikes.findIndex((own) => own.ahead > 0 && own.start + own.ahead === start);
    const at =
      early >= 0
        ? early
        : strikes.findIndex(
            (own) => own.start >= start && own.start <= start + pulse && !own.leans && !own.isGhost
          );
    if (at >= 0 && (isNew || lands[at] === null)) lands[at] = isNew ? change : nth(lands, at);
  });
  return lands;
}

const CURVES: Readonly<Record<Contour, (x: number) => number>> = {
  arch: (x) => 6 * Math.sin(Math.PI * x) - 2,
  fall: (x) => 5 - 10 * x,
  rise: (x) => -5 + 10 * x,
  'two peaks': (x) => 5 * Math.abs(Math.sin(1.9 * Math.PI * x)) - 2 - 3 * x,
  valley: (x) => 4 - 7 * Math.sin(Math.PI * x),
  'late peak': (x) => (x < 0.75 ? -4 + (10 * x) / 0.75 : 6 - 16 * (x - 0.75))
};

/** Where the line wishes to be at the height of a solo. */
export function centreAt([low, middle, high]: PhraseRow['centres'], height: number): number {
  return height < 0.5 ? low + (middle - low) * 2 * height : middle + (high - middle) * 2 * (height - 0.5);
}

function solvePhrase(rhythm: PhraseRhythm, n: number, context: Context): SolvedPhrase | null {
  const { wish, solved, changes, pins } = context;
  const { neck, row, seed } = wish;
  const strikes = rhythm.strikes.filter(({ isGhost }) => !isGhost);
  const model = rhythm.plan.model;
  const source = model ? solved.find(({ rhythm: { index } }) => index === model.of) : undefined;
  const lands = landingsIn(strikes, context);
  const own = pins.filter(({ change }) => lands.includes(change));
  const firstChange = changeAt(changes, firstOf(strikes).start + firstOf(strikes).ahead);
  const area = wish.areaOf(firstChange);
  const centre =
    centreAt(row.centres, rhythm.plan.height) + registerOf(neck) - (rhythm.plan.isAnswer ? ANSWER_BELOW : 0);
  const isFree = area.position === undefined && own.length === 0;
  const hands =
    source && isFree
      ? [source.position]
      : isFree && isOpen(rhythm, n, firstChange, area, context)
        ? [lowestHand(neck)]
        : handsFor(neck, { centre, area, held: own });
  const last = solved.at(-1);
  for (const strictness of ['all', 'no figures', 'no model'] as const) {
    let best: SolvedPhrase | null = null;
    let least = Infinity;
    for (const position of hands) {
      const slots = slotsOf(
        strikes,
        lands,
        { rhythm, n, centre, position, source, own, strictness },
        context
      );
      const places = placesUnder(neck, position, area, own);
      const seeded = seededFor(seed, n);
      const [way] = pitchWays({ slots, places, row, seeded, k: 1 });
      if (!way) continue;
      const cost = way.cost + HAND * (last ? Math.abs(position - last.position) : 0);
      if (cost < least) [least, best] = [cost, { rhythm, strikes, way, position }];
    }
    if (best) return best;
  }
  return null;
}

/** Up to this part of the arc a phrase may lie where the open strings are. */
const LOW_ENOUGH = 0.45;

/** Whether a phrase is played with open strings: where the style does, low in the arc, in a key whose tonic and fifth are among them. */
function isOpen(
  { plan }: PhraseRhythm,
  n: number,
  change: number,
  { window, range, strings }: LineArea,
  { wish }: Context
): boolean {
  const { neck, row, seed, ground } = wish;
  if (plan.height > LOW_ENOUGH || window || range || strings) return false;
  const tonic = pitchClass(nth(ground.analysis.changes, change).key.tonic);
  const open = new Set(neck.strings.map((midi) => (midi + neck.capo) % 12));
  return open.has(tonic) && open.has((tonic + 7) % 12) && chanceOf(seed, 6, n)() < row.open;
}

function changeAt(changes: readonly GridChange[], ticks: Ticks): number {
  return (changes.findLast(({ start }) => start <= ticks) ?? firstOf(changes)).change;
}

function seededFor(seed: number, phrase: number) {
  const known = new Map<number, number>();
  return (slot: number, midi: Midi): number => {
    const key = slot * 128 + midi;
    let cost = known.get(key);
    if (cost === undefined) known.set(key, (cost = LINE_COSTS.seed * chanceOf(seed, phrase, slot, midi)()));
    return cost;
  };
}

interface SlotFrame {
  readonly rhythm: PhraseRhythm;
  readonly n: number;
  readonly centre: number;
  readonly position: number;
  readonly source: SolvedPhrase | undefined;
  readonly own: readonly PhrasePin[];
  readonly strictness: 'all' | 'no figures' | 'no model';
}

function slotsOf(
  strikes: readonly Strike[],
  lands: readonly (number | null)[],
  { rhythm, n, centre, position, source, own, strictness }: SlotFrame,
  context: Context
): PitchSlot[] {
  const { wish, grid, soundsAt } = context;
  const { neck, row, seed } = wish;
  const { contour, model } = rhythm.plan;
  const isLanding = lands.map((change) => change !== null);
  const [first, last] = [firstOf(strikes), lastOf(strikes)];
  const span = Math.max(1, last.start - first.start);
  const amplitude = Math.min(row.idiom === 'pentatonic' ? 1.3 : 1.6, 0.45 + strikes.length / 12);
  // A hand that is bound has its own middle; so has a bound range.
  const area = wish.areaOf(changeAt(context.changes, first.start));
  const middle = middleIn(neck, position);
  const near = Math.max(middle - 4, Math.min(middle + 4, centre));
  const wished = area.range ? Math.max(area.range.low, Math.min(area.range.high, near)) : near;
  const sounds = strikes.map(({ start, ahead }) => sure(soundsAt(start + ahead), 'soundsAt'));
  const isLiteral = source && model?.how === 'literal';
  const figures =
    strictness === 'all' && !isLiteral
      ? figuresIn({
          strikes,
          sounds,
          lands: isLanding,
          isNew: !source,
          grid,
          row,
          chance: chanceOf(seed, 3, n)
        })
      : noFigures(strikes.length);
  const taken =
    strictness === 'no model'
      ? null
      : takenFrom(strikes, rhythm, source, wished, context, chanceOf(seed, 4, n));
  return strikes.map((strike, i): PitchSlot => {
    const pulse = pulseAt(grid, strike.start + strike.ahead);
    const within = strike.start + strike.ahead - pulse.start;
    const bar = nth(grid.bars, barAt(grid, strike.start + strike.ahead));
    const at = bar.pulses.findIndex(({ start }) => start === pulse.start);
    const isStrong = at <= 0 || (bar.pulses.length % 2 === 0 && at === bar.pulses.length / 2);
    const before = strikes[i - 1];
    const pin = own.find(({ change }) => change === lands[i]);
    return {
      length: strike.length,
      sounds: nth(sounds, i),
      accent: within !== 0 ? 'off' : isStrong ? 'strong' : 'weak',
      isLong: strike.length >= pulse.length,
      isShort: strike.length <= pulse.length / 2,
      isFast: strike.length < (0.75 * pulse.length) / 2,
      lands: nth(isLanding, i),
      leans: strike.leans && i < strikes.length - 1,
      repeats: strike.repeats,
      isLast: i === strikes.length - 1,
      isFree: before !== undefined && strike.start > before.start + before.length,
      steps: figures.steps[i] ?? null,
      only: figures.only[i] ?? without(taken?.[i]?.not),
      isInFigure: nth(figures.inside, i),
      centre: wished + amplitude * CURVES[contour]((strike.start - first.start) / span),
      model: taken?.[i]?.model ?? null,
      modelStep: taken?.[i]?.step ?? null,
      pinned: pin?.midi ?? null,
      onChord: onChord(sounds, i)
    };
  });
}

/** All pitch classes but one; null where all may be. */
const without = (not: number | undefined) =>
  not === undefined ? null : Array.from({ length: 12 }, (_, pc) => pc !== not);

/** Notes of the phrase in a row on the chord of one of them. */
function onChord(sounds: readonly Sounds[], i: number): number {
  let [from, to] = [i, i];
  while (from > 0 && sounds[from - 1] === sounds[i]) from--;
  while (to < sounds.length - 1 && sounds[to + 1] === sounds[i]) to++;
  return to - from + 1;
}

interface Taken {
  readonly model: PitchSlot['model'];
  readonly step: number | null;
  /** A pitch class that it keeps from. */
  readonly not?: number;
}

/** What a phrase takes of the pitches of the one that it takes up. */
function takenFrom(
  strikes: readonly Strike[],
  { plan }: PhraseRhythm,
  source: SolvedPhrase | undefined,
  centre: number,
  { grid, wish }: Context,
  chance: Chance
): (Taken | null)[] | null {
  if (!source || !plan.model || plan.model.how === 'same rhythm') return null;
  const { how } = plan.model;
  const moved =
    nth(grid.bars, plan.first).start - nth(grid.bars, source.rhythm.plan.first).start + (plan.model.by ?? 0);
  const same = strikes.map(({ start }) => source.strikes.findIndex((own) => own.start + moved === start));
  const [first, last] = [firstOf(strikes).start, lastOf(strikes).start];
  // Far from the middle a sequence comes back to it.
  const away = firstOf(source.way.places).midi - centre;
  const isUp = Math.abs(away) > FAR ? away < 0 : chance() < 0.5;
  const by = isUp ? MOVED : -MOVED;
  const isAsked = wish.only !== undefined;
  return strikes.map(({ start }, i): Taken | null => {
    const at = nth(same, i);
    if (at < 0) return null;
    const midi = nth(source.way.places, at).midi;
    if (how === 'sequence') {
      const isNext = i > 0 && same[i - 1] === at - 1 && at > 0;
      const step = isNext ? midi - nth(source.way.places, at - 1).midi : null;
      const first = i === 0 ? { midi: midi + by, weight: SEQUENCED } : null;
      // Where one phrase is asked for as a sequence, none of its notes is that of its model.
      const isOther = first !== null || isAsked;
      return { model: first, step, ...(isOther ? { not: midi % 12 } : {}) };
    }
    if (how === 'varied' && start > first + VARIED * (last - first)) return null;
    return { model: { midi, weight: LITERAL }, step: null };
  });
}

/** All phrases as one line. */
function written(solved: readonly SolvedPhrase[], context: Context): FoundPhrases {
  const { wish, grid, soundsAt } = context;
  const { ground, neck, row, seed } = wish;
  const notes: LineNote[] = [];
  const hands: number[] = [];
  const phrases = solved.map(({ rhythm, strikes, way, position }, n): FoundPhrase => {
    const lands = landingsIn(strikes, context);
    const places = placesUnder(
      neck,
      position,
      wish.areaOf(changeAt(context.changes, firstOf(strikes).start)),
      []
    );
    const pitched = new Map(
      strikes.map((strike, i) => [
        strike.start,
        { spot: nth(way.places, i), lands: lands[i] !== null, change: lands[i] }
      ])
    );
    const own = rhythm.strikes.map((strike, i): SolvedNote => {
      const known = pitched.get(strike.start);
      // A touched note lies where the hand goes next.
      const at = strikes.findIndex(({ start }) => start > strike.start);
      const touched: Spot = nth(way.places, at < 0 ? way.places.length - 1 : at);
      const pulse = pulseAt(grid, strike.start);
      return {
        start: strike.start,
        length: strike.length,
        spot: known && !strike.isGhost ? known.spot : touched,
        sounds: sure(soundsAt(strike.start + strike.ahead), 'soundsAt'),
        pulse: pulse.length,
        isTriple: pulse.isTriple,
        within: strike.start - pulse.start,
        isGhost: strike.isGhost,
        lands: !strike.isGhost && (known?.lands ?? false),
        leans: strike.leans,
        isLast: i === rhythm.strikes.length - 1,
        isFixed: context.pins.some(({ change }) => change === known?.change)
      };
    });
    const made = withTechniques(own, {
      row,
      tonic: ({ change }) => pitchClass(nth(ground.analysis.changes, change).key.tonic),
      places,
      position,
      tempo: wish.tempo,
      chance: chanceOf(seed, 5, n)
    });
    notes.push(...made);
    hands.push(...made.map(() => position));
    const { plan } = rhythm;
    const end = lastOf(rhythm.strikes);
    return {
      from: beatsOf(firstOf(rhythm.strikes).start),
      to: beatsOf(end.start + end.length),
      start: startOf(firstOf(rhythm.strikes), plan, grid),
      ...(plan.model ? { relation: plan.model.how } : {}),
      contour: plan.contour
    };
  });
  return { notes, hands, phrases, cost: solved.reduce((sum, { way }) => sum + way.cost, 0) };
}

/** How a phrase begins, as it came out. */
function startOf(first: Strike, { first: bar }: PlannedPhrase, grid: Grid): PhraseStart {
  const { start } = nth(grid.bars, bar);
  if (first.start < start) return 'pickup';
  return first.start === start ? 'one' : 'after';
}
