/** Cadences: the places where harmony says which key it is in. */
import { type Chord } from '../theory/chord';
import { pitchClass, semitonesUp } from '../theory/note';
import type { Change, Form } from '../chart/unroll';
import { goalOf, type Key, type Step } from './key';

export type CadenceKind =
  /** A ii–V that reaches its goal, and one that does not. */
  | 'two-five-one'
  | 'two-five'
  | 'five-one'
  | 'plagal'
  | 'backdoor'
  | 'turnaround'
  | 'twelve-bar'
  /** Several ii–V in a row. */
  | 'chain';

export interface Cadence {
  readonly kind: CadenceKind;
  /** Where it leads. */
  readonly goal: Key;
  /** First and last change, by index. */
  readonly from: number;
  readonly to: number;
}

/** The name in use, by the mode of the goal. Source: docs/music-rules.md, Cadences. */
const NAMES: Readonly<Record<CadenceKind, Readonly<Record<Key['mode'], string>>>> = {
  'two-five-one': { major: 'ii-V-I', minor: 'ii-V-i' },
  'two-five': { major: 'ii-V', minor: 'ii-V' },
  'five-one': { major: 'V-I', minor: 'V-i' },
  plagal: { major: 'IV-I', minor: 'IV-I' },
  backdoor: { major: 'iv-bVII7-I', minor: 'iv-bVII7-I' },
  turnaround: { major: 'turnaround', minor: 'turnaround' },
  'twelve-bar': { major: '12-bar blues', minor: '12-bar blues' },
  chain: { major: 'ii-V chain', minor: 'ii-V chain' }
};

export function cadenceName({ kind, goal }: Cadence): string {
  return NAMES[kind][goal.mode];
}

/** Whether a cadence is one ii–V, with its goal or without. */
export function isTwoFive({ kind }: Cadence): boolean {
  return kind === 'two-five' || kind === 'two-five-one';
}

/** Groups the changes of a form into harmonic steps; changes without a chord part them. */
export function harmonicSteps(changes: readonly Change[]): Step[] {
  const steps: Step[] = [];
  for (const change of changes) {
    if (!change.chord) continue;
    const last = steps.at(-1);
    if (last && last.to === change.index - 1 && sameHarmony(last.chord, change.chord)) {
      // The later chord says more: a suspension that resolves is heard as what it resolves to.
      const chord = isSuspended(last.chord) ? change.chord : last.chord;
      steps[steps.length - 1] = { ...last, chord, to: change.index, beats: last.beats + change.beats };
    } else {
      steps.push({
        from: change.index,
        to: change.index,
        chord: change.chord,
        beats: change.beats,
        root: pitchClass(change.chord.root)
      });
    }
  }
  return steps;
}

function isSuspended(chord: Chord): boolean {
  return !chord.tones.includes('3') && !chord.tones.includes('b3');
}

function sameHarmony(a: Chord, b: Chord): boolean {
  if (pitchClass(a.root) !== pitchClass(b.root)) return false;
  const families = [a.family, b.family];
  return families[0] === families[1];
}

const isTwo = (chord: Chord) =>
  (chord.family === 'minor' && !chord.tones.includes('7')) || chord.family === 'half-diminished';
const isFive = (chord: Chord) => chord.family === 'dominant';

/** The mode of a chord that a cadence can come to rest on; null where it is no goal. */
function goalMode(chord: Chord): Key['mode'] | null {
  const family = chord.family;
  if (family === 'minor') return 'minor';
  return family === 'major' ? 'major' : null;
}

/**
 * All cadences of a form, in order. A V that moves on to a dominant (a chain, a blues) resolves nowhere: its ii–V
 * stands without a goal.
 */
export function findCadences(form: Form, steps: readonly Step[], home: Key): Cadence[] {
  const cadences: Cadence[] = [];
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i]!;
    const next = steps[i + 1];
    const after = steps[i + 2];
    if (!next) break;
    const up = semitonesUp(step.root, next.root);
    if (isTwo(step.chord) && isFive(next.chord) && up === 5) {
      const goal = after && semitonesUp(next.root, after.root) === 5 ? goalMode(after.chord) : null;
      if (after && goal) {
        cadences.push({
          kind: 'two-five-one',
          from: step.from,
          to: after.from,
          goal: { tonic: after.chord.root, mode: goal }
        });
      } else if (!isBackdoor(step, after, home)) {
        const mode = step.chord.family === 'half-diminished' ? 'minor' : 'major';
        cadences.push({
          kind: 'two-five',
          from: step.from,
          to: next.to,
          goal: { tonic: goalOf(next.chord.root), mode }
        });
      }
    } else if (isFive(step.chord) && up === 5 && goalMode(next.chord)) {
      const before = steps[i - 1];
      const partOfTwoFive = before && isTwo(before.chord) && semitonesUp(before.root, step.root) === 5;
      const mode = goalMode(next.chord)!;
      if (!partOfTwoFive) {
        cadences.push({
          kind: 'five-one',
          from: step.from,
          to: next.from,
          goal: { tonic: next.chord.root, mode }
        });
      }
    }
    if (
      after &&
      step.chord.family === 'minor' &&
      isFive(next.chord) &&
      up === 5 &&
      semitonesUp(next.root, after.root) === 2 &&
      goalMode(after.chord) === 'major'
    ) {
      replaceLast(cadences, step.from, {
        kind: 'backdoor',
        from: step.from,
        to: after.from,
        goal: { tonic: after.chord.root, mode: 'major' }
      });
    }
    const isPlagal =
      up === 7 &&
      pitchClass(home.tonic) === next.root &&
      goalMode(next.chord) === home.mode &&
      goalMode(step.chord) !== null &&
      !(steps[i - 1] && isFive(steps[i - 1]!.chord) && semitonesUp(steps[i - 1]!.root, step.root) === 5);
    if (isPlagal) cadences.push({ kind: 'plagal', from: step.from, to: next.from, goal: home });
  }
  return [...cadences, ...turnarounds(steps, home), ...chains(cadences), ...blues(form, home)].sort(
    (a, b) => a.from - b.from || b.to - a.to
  );
}

/** The iv–bVII7 of a major key looks like a ii–V but goes back to a chord of the tonic's family. */
function isBackdoor(two: Step, after: Step | undefined, home: Key): boolean {
  const tonic = pitchClass(home.tonic);
  const comesHome = after === undefined || [0, 4, 9].includes(semitonesUp(tonic, after.root));
  return home.mode === 'major' && semitonesUp(tonic, two.root) === 5 && comesHome;
}

function replaceLast(cadences: Cadence[], from: number, cadence: Cadence): void {
  if (cadences.at(-1)?.from === from) cadences.pop();
  cadences.push(cadence);
}

/** I–vi–ii–V and its kin: four steps from the tonic whose last is the V (or its substitute) that leads back. */
function turnarounds(steps: readonly Step[], home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  const found: Cadence[] = [];
  for (let i = 0; i + 3 < steps.length; i++) {
    const [first, second, third, fourth] = [0, 1, 2, 3].map((n) =>
      semitonesUp(tonic, steps[i + n]!.root)
    ) as [number, number, number, number];
    const beats = steps[i]!.beats;
    const even = [1, 2, 3].every((n) => steps[i + n]!.beats <= beats * 2);
    const shape =
      [0, 4].includes(first) &&
      [9, 3, 1, 10].includes(second) &&
      [2, 8].includes(third) &&
      [7, 1].includes(fourth);
    if (even && shape && isFive(steps[i + 3]!.chord)) {
      found.push({ kind: 'turnaround', from: steps[i]!.from, to: steps[i + 3]!.to, goal: home });
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
      found.push({ kind: 'chain', from: run[0]!.from, to: run.at(-1)!.to, goal: run.at(-1)!.goal });
    }
    run = [];
  };
  for (const cadence of cadences) {
    if (!isTwoFive(cadence)) continue;
    if (run.length && cadence.from > run.at(-1)!.to + 1) close();
    run.push(cadence);
    if (cadence.kind !== 'two-five') close();
  }
  close();
  return found;
}

/** The twelve-bar form: tonic in bars 1 and 7, the fourth degree in bar 5, a V or ii in bars 9–10. */
function blues(form: Form, home: Key): Cadence[] {
  const found: Cadence[] = [];
  const tonic = pitchClass(home.tonic);
  const starts = form.bars.filter((bar, i) => i % 12 === 0 || form.bars[i - 1]!.section !== bar.section);
  for (const { number } of starts) {
    if (form.bars.length < number + 11) continue;
    const rootIn = (bar: number) => soundingIn(form, number + bar - 1).map((pc) => semitonesUp(tonic, pc));
    const isBlues =
      rootIn(1)[0] === 0 &&
      rootIn(5)[0] === 5 &&
      (rootIn(7)[0] === 0 || rootIn(8)[0] === 0) &&
      [...rootIn(9), ...rootIn(10)].some((distance) => distance === 7 || distance === 2);
    if (isBlues) {
      const inside = form.changes.filter((c) => c.bar >= number && c.bar < number + 12);
      found.push({ kind: 'twelve-bar', from: inside[0]!.index, to: inside.at(-1)!.index, goal: home });
    }
  }
  return found;
}

/** Pitch classes of the roots that sound in a bar, a chord held over from before included. */
function soundingIn(form: Form, number: number): number[] {
  const bar = form.bars[number - 1]!;
  const end = bar.start + bar.meter.beats;
  return form.changes
    .filter((c) => c.chord && c.start < end && c.start + c.beats > bar.start)
    .map((c) => pitchClass(c.chord!.root));
}
