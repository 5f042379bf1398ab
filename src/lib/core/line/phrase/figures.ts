/**
 * Figures that are given their places before there are pitches, as conditions on single notes and on steps between neighbours: the search
 * stays exact. Enclosures, triad pairs, fourths. Source: docs/music-rules.md, Phrases, Figures.
 */
import { nth } from '../../base/list';
import { DEGREES } from '../../theory/degree';
import type { Chance } from '../chance';
import { pulseAt, type Grid } from './grid';
import { drawn } from './plan';
import type { Strike } from './rhythm';
import type { Sounds } from './sounds';
import type { PhraseRow } from './styles';

/** What figures ask of the notes of a phrase; lists have an entry for each note. */
export interface Figures {
  /** Steps into a note, in semitones, of which one has to be made; null where any may. */
  readonly steps: readonly (readonly number[] | null)[];
  /** Pitch classes that a note may have, an entry for each of the twelve; null where all may. */
  readonly only: readonly (readonly boolean[] | null)[];
  /** Inside a figure: turning and leaping are free. */
  readonly inside: readonly boolean[];
}

export interface FigureGround {
  readonly strikes: readonly Strike[];
  /** What is heard at each note. */
  readonly sounds: readonly Sounds[];
  readonly lands: readonly boolean[];
  /** The phrase takes up no other. */
  readonly isNew: boolean;
  readonly grid: Grid;
  readonly row: PhraseRow;
  readonly chance: Chance;
}

type Open = { -readonly [K in keyof Figures]: Figures[K][number][] };

const none = (count: number): Open => ({
  steps: Array.from({ length: count }, () => null),
  only: Array.from({ length: count }, () => null),
  inside: Array.from({ length: count }, () => false)
});

/** No figures for so many notes. */
export const noFigures = (count: number): Figures => none(count);

/** The figures of a phrase, drawn by the chances of its row. */
export function figuresIn(ground: FigureGround): Figures {
  const figures = none(ground.strikes.length);
  if (ground.row.enclosure > 0) encloseGoals(ground, figures);
  // What takes up another phrase takes up its figures too.
  for (const run of ground.isNew ? runsIn(ground, figures) : []) {
    const { row, chance } = ground;
    const figure = drawn(chance, RUN_FIGURES, ({ chanceIn }) => chanceIn(row));
    figure.place(run, ground, figures);
  }
  return figures;
}

const ENCLOSURES = [
  { weight: 0.6, steps: [[-2, -3], [1]] },
  { weight: 0.15, steps: [[2], [-1]] },
  { weight: 0.25, steps: [[3], [-2]] }
] as const;
/** An enclosure into a beat that is no change is so much rarer. */
const ELSEWHERE = 0.3;

/** Two notes of one length, joined and before a goal on a beat, may go round it. */
function encloseGoals({ strikes, lands, grid, row, chance }: FigureGround, { steps, inside }: Open): void {
  for (let i = 2; i < strikes.length; i++) {
    const [a, b, goal] = [nth(strikes, i - 2), nth(strikes, i - 1), nth(strikes, i)];
    const pulse = pulseAt(grid, goal.start);
    const isOnBeat = goal.start === pulse.start && goal.ahead === 0;
    const isPair =
      a.length === b.length &&
      a.length <= pulse.length / 2 &&
      a.start + a.length === b.start &&
      b.start + b.length === goal.start &&
      ![a, b, goal].some(({ leans, repeats, isGhost }) => leans || repeats || isGhost) &&
      !lands[i - 1] &&
      !lands[i - 2];
    if (!isOnBeat || !isPair || inside[i - 1] || inside[i - 2] || steps[i - 1]) continue;
    if (chance() >= row.enclosure * (lands[i] ? 1 : ELSEWHERE)) continue;
    let rest = chance();
    const kind = ENCLOSURES.find(({ weight }) => (rest -= weight) < 0) ?? ENCLOSURES[0];
    [steps[i - 1], steps[i]] = kind.steps;
    [inside[i - 1], inside[i]] = [true, true];
  }
}

/** Short notes of one length, one right after another, over one chord: from the first of them up to the one after the last. */
interface Run {
  readonly from: number;
  readonly to: number;
}

/** So many notes has the shortest figure of a run. */
const SHORTEST = 4;

/** The runs that are free of other figures. */
function runsIn({ strikes, sounds, lands, grid }: FigureGround, { steps, inside }: Figures): Run[] {
  const runs: Run[] = [];
  const isPlain = (i: number) => {
    const { leans, repeats, isGhost, isPinned, length, start } = nth(strikes, i);
    const isShort = length <= pulseAt(grid, start).length / 2;
    return isShort && !leans && !repeats && !isGhost && !isPinned && !lands[i] && !inside[i] && !steps[i];
  };
  const goesOn = (i: number) => {
    const [before, own] = [nth(strikes, i - 1), nth(strikes, i)];
    return (
      before.length === own.length &&
      before.start + before.length === own.start &&
      sounds[i - 1] === sounds[i]
    );
  };
  let from = 0;
  for (let i = 0; i <= strikes.length; i++) {
    if (i < strikes.length && isPlain(i) && (i === from || goesOn(i))) continue;
    if (i - from >= SHORTEST) runs.push({ from, to: i });
    from = i < strikes.length && isPlain(i) ? i : i + 1;
  }
  return runs;
}

/** A figure that a run may be made of. A new one is a new row. */
interface RunFigure {
  readonly chanceIn: (row: PhraseRow) => number;
  readonly place: (run: Run, ground: FigureGround, figures: Open) => void;
}

const RUN_FIGURES: readonly RunFigure[] = [
  { chanceIn: ({ triadPairs }) => triadPairs, place: placeTriadPair },
  { chanceIn: ({ fourths }) => fourths, place: placeFourths },
  { chanceIn: ({ triadPairs, fourths }) => 1 - triadPairs - fourths, place: () => {} }
];

const ALL = Array.from({ length: 12 }, (_, pc) => pc);

/** The notes that a figure may be built of: no avoid note, no chromatic one. */
const ownOf = ({ kinds }: Sounds): boolean[] =>
  kinds.map((kind) => kind !== 'avoid' && kind !== 'chromatic' && kind !== 'blue');

const TRIADS = [
  { name: 'major', above: [0, DEGREES['3'].semitones, DEGREES['5'].semitones], weight: 3 },
  { name: 'minor', above: [0, DEGREES.b3.semitones, DEGREES['5'].semitones], weight: 1 }
] as const;
const TRIAD = 3;
/** From one tone of a triad to the next, either way. */
const WITHIN_TRIAD = { up: [3, 4, 5], down: [-3, -4, -5] } as const;
/** From one triad into the other. */
const BETWEEN_TRIADS = [-1, 1, -2, 2, -3, 3, -4, 4, -5, 5] as const;

/** Two triads without a common tone, their roots a step apart, all their tones at home over the chord. */
export function triadPairsIn(
  sounds: Sounds
): { readonly masks: [boolean[], boolean[]]; readonly weight: number }[] {
  const own = ownOf(sounds);
  const triads = TRIADS.flatMap(({ above, weight }) =>
    ALL.flatMap((root) => {
      const tones = above.map((step) => (root + step) % 12);
      return tones.every((pc) => own[pc])
        ? [{ root, weight, mask: ALL.map((pc) => tones.includes(pc)) }]
        : [];
    })
  );
  return triads.flatMap((a) =>
    triads
      .filter(
        (b) => [1, 2].includes((b.root - a.root + 12) % 12) && !a.mask.some((has, pc) => has && b.mask[pc])
      )
      .map((b) => ({ masks: [a.mask, b.mask] as [boolean[], boolean[]], weight: a.weight * b.weight }))
  );
}

/** Three notes of one triad, three of the other, in turn, as often as the run has room. */
function placeTriadPair({ from, to }: Run, { sounds, chance }: FigureGround, figures: Open): void {
  const groups = Math.floor((to - from) / TRIAD);
  const pairs = triadPairsIn(nth(sounds, from));
  if (groups < 2 || pairs.length === 0) return;
  const { masks } = drawn(chance, pairs, ({ weight }) => weight);
  const firstOf = Math.floor(chance() * (to - from - groups * TRIAD + 1));
  const isFlipped = chance() < 0.5;
  // All one way, or there and back.
  const ways = chance() < 0.5 ? (['up', 'up'] as const) : (['up', 'down'] as const);
  const isFalling = chance() < 0.5;
  for (let n = 0; n < groups * TRIAD; n++) {
    const i = from + firstOf + n;
    const group = Math.floor(n / TRIAD);
    const way = nth(ways, group % 2) === 'up' ? (isFalling ? 'down' : 'up') : isFalling ? 'up' : 'down';
    figures.only[i] = nth(masks, (group + (isFlipped ? 1 : 0)) % 2);
    if (n > 0) figures.steps[i] = n % TRIAD === 0 ? BETWEEN_TRIADS : WITHIN_TRIAD[way];
    figures.inside[i] = n > 0;
  }
}

const FOURTH = DEGREES['11'].semitones % 12;
/** Steps of fourths: three notes piled up, or fourths one after another a step apart. */
const FOURTHS = [
  { steps: [[FOURTH], [FOURTH]], weight: 2 },
  { steps: [[-FOURTH], [-FOURTH]], weight: 2 },
  { steps: [[FOURTH], [-3, -4], [FOURTH]], weight: 2 },
  { steps: [[-FOURTH], [3, 4], [-FOURTH]], weight: 1 }
] as const;

/** Fourths of the scale somewhere in the run. */
function placeFourths({ from, to }: Run, { sounds, chance }: FigureGround, figures: Open): void {
  const { steps } = drawn(chance, FOURTHS, ({ weight }) => weight);
  const own = ownOf(nth(sounds, from));
  const first = from + Math.floor(chance() * (to - from - steps.length));
  figures.only[first] = own;
  steps.forEach((asked, n) => {
    const i = first + 1 + n;
    figures.only[i] = own;
    figures.steps[i] = asked;
    figures.inside[i] = true;
  });
}
