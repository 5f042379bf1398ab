/** Cadences: the places where harmony says which key it is in. Source: docs/music-rules.md, Cadences. */
import { firstOf, lastOf, nth } from '../base/list';
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import type { Form } from '../chart/unroll';
import { bluesForms } from './blues-form';
import { isTwoFive, type Cadence } from './cadence-model';
import { goalOf, inKey, isMinorKey, isModal, isTonicChord, type Key } from './key';
import { lineCliches } from './line-cliche';
import type { Step } from './steps';

/** The third of a chord that a cadence can come to rest on; null where it is no goal. */
function goalMode(chord: Chord): 'major' | 'minor' | null {
  const family = chord.family;
  return family === 'minor' || family === 'major' ? family : null;
}

/** A goal in its key: the home key itself where it is its tonic, whatever its mode. */
function keyOfGoal(chord: Chord, mode: 'major' | 'minor', home: Key): Key {
  return isTonicChord(chord, home) && isMinorKey(home) === (mode === 'minor')
    ? home
    : { tonic: chord.root, mode };
}

/** The goal of a dominant at one place of the form: what it falls to, unless that is only the ii of the V after it. */
function goalAt(steps: readonly Step[], at: number, home: Key): Key | null {
  const step = steps[at];
  const mode = step ? goalMode(step.chord) : null;
  if (!step || !mode) return null;
  const isHomeTonic = isMinorKey(home) && isTonicChord(step.chord, home);
  return step.isTwoOfNext && !isHomeTonic ? null : keyOfGoal(step.chord, mode, home);
}

/** How a step falls to the next one: a fifth, or a semitone as a tritone substitute does. */
const fallOf = ({ up }: Step): 'fifth' | 'semitone' | null =>
  up === 5 ? 'fifth' : up === 11 ? 'semitone' : null;

/** ii–V with or without its goal, by fifths or by the tritone substitute. */
function twoFives(steps: readonly Step[], home: Key): Cadence[] {
  return steps.flatMap((two, i): Cadence[] => {
    const [five, one] = [steps[i + 1], steps[i + 2]];
    if (!five || !two.isTwo || !five.isFive) return [];
    const { up } = two;
    const fall = fallOf(five);
    const goal = fall ? goalAt(steps, i + 2, home) : null;
    if (up === 5) {
      if (one && goal && fall === 'fifth') {
        return [{ kind: 'two-five-one', from: two.from, to: one.from, goal }];
      }
      // The i and IV7 of a modal vamp go nowhere.
      const isVamp = isModal(home) && isTonicChord(two.chord, home);
      if (isVamp || isBackdoor(two, one, home)) return [];
      const mode = two.chord.family === 'half-diminished' ? 'minor' : 'major';
      return [
        { kind: 'two-five', from: two.from, to: five.to, goal: { tonic: goalOf(five.chord.root), mode } }
      ];
    }
    if (up !== 11 || !one || fall !== 'semitone') return [];
    if (goal) return [{ kind: 'two-five-one', from: two.from, to: one.from, goal, isSubstitute: true }];
    // In a chain of substitutes what it falls to is the ii of the next.
    return one.isTwoOfNext
      ? [
          {
            kind: 'two-five',
            from: two.from,
            to: five.to,
            goal: { tonic: one.chord.root, mode: one.chord.family === 'minor' ? 'minor' : 'major' },
            isSubstitute: true
          }
        ]
      : [];
  });
}

/**
 * A dominant that falls to its goal without a ii. A triad has to have a leading tone to its goal that the key of the moment has not,
 * or to reach its tonic.
 */
function fiveOnes(steps: readonly Step[], { home, keys }: Keys): Cadence[] {
  return steps.flatMap((five, i): Cadence[] => {
    const [before, one] = [steps[i - 1], steps[i + 1]];
    const fall = fallOf(five);
    const goal = fall ? goalAt(steps, i + 1, home) : null;
    if (!one || !goal) return [];
    const found = { kind: 'five-one', from: five.from, to: one.from, goal } as const;
    if (five.isFive) {
      const up = before?.isTwo ? before.up : null;
      if (fall === 'fifth') return up === 5 ? [] : [found];
      // A dominant a semitone above is as often a neighbour: it is a cadence where it reaches the tonic.
      return up !== 11 && up !== 5 && isTonicChord(one.chord, home) ? [{ ...found, isSubstitute: true }] : [];
    }
    const here = nth(keys, i);
    const isLeading = isTonicChord(one.chord, here) || !inKey(five.chord, here);
    return fall === 'fifth' && five.isTriadFive && isLeading ? [found] : [];
  });
}

/** iv–♭VII7–I, also to the I of a blues. */
function backdoors(steps: readonly Step[], home: Key): Cadence[] {
  return steps.flatMap((four, i): Cadence[] => {
    const [seven, one] = [steps[i + 1], steps[i + 2]];
    if (!seven || !one || four.chord.family !== 'minor' || !seven.isFive) return [];
    const isShape = four.up === 5 && seven.up === 2;
    const isBluesHome = one.isFive && isTonicChord(one.chord, home);
    const isGoal = goalMode(one.chord) === 'major' || isBluesHome;
    const goal: Key = isTonicChord(one.chord, home) ? home : { tonic: one.chord.root, mode: 'major' };
    return isShape && isGoal ? [{ kind: 'backdoor', from: four.from, to: one.from, goal }] : [];
  });
}

/** The iv–♭VII7 of a major key looks like a ii–V but goes back to a chord of the tonic's family. */
function isBackdoor(two: Step, after: Step | undefined, home: Key): boolean {
  const tonic = pitchClass(home.tonic);
  const comesHome = after === undefined || [0, 4, 9].includes(semitonesUp(tonic, after.root));
  return !isMinorKey(home) && semitonesUp(tonic, two.root) === 5 && comesHome;
}

/** IV–I and iv–I, and ♭VII–IV–I, to the tonic. */
function plagals(steps: readonly Step[], home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  return steps.flatMap((four, i): Cadence[] => {
    const [before, one] = [steps[i - 1], steps[i + 1]];
    const mode = goalMode(four.chord);
    const isPower = four.chord.family === 'power';
    if (!one || semitonesUp(tonic, four.root) !== 5 || !isTonicChord(one.chord, home) || one.isFive)
      return [];
    if (!mode && !isPower) return [];
    if (before?.isFive && before.up === 5) return [];
    const isDouble = before !== undefined && semitonesUp(tonic, before.root) === 10 && !before.isFive;
    return [
      ...(isDouble ? [{ kind: 'double plagal', from: before.from, to: one.from, goal: home } as const] : []),
      {
        kind: 'plagal',
        from: four.from,
        to: one.from,
        goal: home,
        ...(mode === 'minor' ? { isMinorPlagal: true as const } : {})
      }
    ];
  });
}

/** i–♭VII–♭VI–V of a minor key. */
function descents(steps: readonly Step[], home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  return steps.flatMap((one, i): Cadence[] => {
    const four = steps.slice(i, i + 4);
    const shape = four.map(({ root }) => semitonesUp(tonic, root)).join(' ');
    const last = four[3];
    const isShape = shape === '0 10 8 7' && one.chord.family !== 'major' && isMinorKey(home);
    return isShape && last && (last.isFive || last.isTriadFive)
      ? [{ kind: 'descent', from: one.from, to: last.to, goal: home }]
      : [];
  });
}

/** I–vi–ii–V and its kin: four steps from the tonic whose last is the V (or its substitute) that leads back. */
function turnarounds(steps: readonly Step[], home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  const found: Cadence[] = [];
  for (let i = 0; i + 3 < steps.length; i++) {
    const [first, second, third, fourth] = [0, 1, 2, 3].map((n) =>
      semitonesUp(tonic, nth(steps, i + n).root)
    ) as [number, number, number, number];
    const beats = nth(steps, i).beats;
    const even = [1, 2, 3].every((n) => nth(steps, i + n).beats <= beats * 2);
    const shape =
      [0, 4].includes(first) &&
      [9, 3, 1, 10, ...(isMinorKey(home) ? [8] : [])].includes(second) &&
      [2, ...(second === 10 ? [] : [8])].includes(third) &&
      [7, 1].includes(fourth);
    const last = nth(steps, i + 3);
    if (even && shape && (last.isFive || (fourth === 7 && last.isTriadFive))) {
      found.push({ kind: 'turnaround', from: nth(steps, i).from, to: last.to, goal: home });
    }
  }
  return found;
}

/** Two or more ii–V in a row, each starting where the other stopped. */
function chains(cadences: readonly Cadence[]): Cadence[] {
  const found: Cadence[] = [];
  let run: Cadence[] = [];
  const close = () => {
    if (run.length > 1) {
      found.push({ kind: 'chain', from: firstOf(run).from, to: lastOf(run).to, goal: lastOf(run).goal });
    }
    run = [];
  };
  for (const cadence of cadences) {
    if (!isTwoFive(cadence)) continue;
    if (run.length && cadence.from > lastOf(run).to + 1) close();
    run.push(cadence);
    if (cadence.kind !== 'two-five') close();
  }
  close();
  return found;
}

/** What is known of the keys of a form before its cadences are. */
interface Keys {
  readonly home: Key;
  /** The key of each step, as far as stretches of another key tell. */
  readonly keys: readonly Key[];
}

/** All cadences of a form, in order. */
export function findCadences(form: Form, steps: readonly Step[], known: Keys): Cadence[] {
  const { home } = known;
  const twos = twoFives(steps, home);
  return [
    ...twos,
    ...fiveOnes(steps, known),
    ...backdoors(steps, home),
    ...plagals(steps, home),
    ...descents(steps, home),
    ...turnarounds(steps, home),
    ...chains(twos),
    ...bluesForms(form, home),
    ...lineCliches(form)
  ].sort((a, b) => a.from - b.from || b.to - a.to);
}
