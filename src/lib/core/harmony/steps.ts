/**
 * The harmonic steps of a form, and all that is known of them before any key is: what each chord can be, and how it moves to the next. This is
 * read off once; every finder behind it only looks it up. Source: docs/music-rules.md, Key, numerals, function, cadences.
 */
import { firstOf, nth, sure } from '../base/list';
import type { Beats } from '../base/units';
import type { Change } from '../chart/unroll';
import type { Chord } from '../theory/chord';
import { semitonesUp, type PitchClass } from '../theory/note';
import { heardAs, isFive, isTriadFive, isTwo } from './heard';

/** A run of changes on one harmony: V7sus4–V7 is one step, so are repeated bars. */
interface Harmony {
  /** First and last change, by index. */
  readonly from: number;
  readonly to: number;
  /** As it is heard: a slash chord that is a suspended dominant is that dominant. */
  readonly chord: Chord;
  readonly beats: Beats;
  /** Pitch class of the root. */
  readonly root: PitchClass;
}

/** A harmony between its neighbours, with what it can be and how it moves on. */
export interface Step extends Harmony {
  /** A dominant seventh, suspended or not. */
  readonly isFive: boolean;
  /** A triad that can be a dominant. */
  readonly isTriadFive: boolean;
  /** A chord that can be the ii of a V. */
  readonly isTwo: boolean;
  /** Semitones up to the root of the step behind it, 0 to 11; null for the last one. */
  readonly up: PitchClass | null;
  /** A dominant that stands for the V of what follows, a semitone below it, which is no dominant itself. */
  readonly isSubstitute: boolean;
  /** A dominant seventh that falls to a chord that is none: by a fifth, or by a semitone as a substitute. */
  readonly resolves: boolean;
  /** A dominant before a substitute, a semitone above it: it is the V of what that one stands for. */
  readonly isBeforeSubstitute: boolean;
  /**
   * The ii of the V that follows and of nothing else: a minor seventh that leads to its own dominant, or to what stands for it, which then
   * does not come back. Such a chord is no goal.
   */
  readonly isTwoOfNext: boolean;
}

/** Groups the changes of a form into harmonic steps; changes without a chord part them. */
export function harmonicSteps(changes: readonly Change[]): Step[] {
  const found: Harmony[] = [];
  for (const change of changes) {
    if (!change.chord) continue;
    const heard = heardAs(change.chord);
    const last = found.at(-1);
    if (last && last.to === change.index - 1 && isSameHarmony(last.chord, heard)) {
      // The later chord says more: a suspension that resolves is heard as what it resolves to.
      const chord = hasNoThird(last.chord) ? heard : last.chord;
      found[found.length - 1] = { ...last, chord, to: change.index, beats: last.beats + change.beats };
    } else {
      const { index, beats } = change;
      found.push({ from: index, to: index, chord: heard, beats, root: heard.rootPc });
    }
  }
  return linked(found);
}

/** Some steps of a form by themselves, both ends in: the last one leads nowhere. */
export function cutOut(steps: readonly Step[], from: number, to: number): Step[] {
  return linked(steps.slice(from, to + 1));
}

const hasNoThird = ({ tones }: Chord) => !tones.includes('3') && !tones.includes('b3');

function isSameHarmony(a: Chord, b: Chord): boolean {
  const isSuspension = ({ family }: Chord) => family === 'suspended';
  return a.rootPc === b.rootPc && (a.family === b.family || isSuspension(a) || isSuspension(b));
}

type Placed = Pick<Step, 'isFive' | 'root'>;

/** Whether a dominant stands for the V of what follows, a semitone below it, which is no dominant itself. */
const isSubstituteOf = (five: Placed | undefined, next: Placed | undefined): boolean =>
  !!five?.isFive && !!next && !next.isFive && semitonesUp(five.root, next.root) === 11;

function linked(run: readonly Harmony[]): Step[] {
  const chords = run.map(({ from, to, chord, beats, root }, i) => {
    const next = run[i + 1];
    return {
      ...{ from, to, chord, beats, root },
      isFive: isFive(chord),
      isTriadFive: isTriadFive(chord),
      isTwo: isTwo(chord),
      up: next ? semitonesUp(root, next.root) : null
    };
  });
  return chords.map((own, i): Step => {
    const [next, after] = [chords[i + 1], chords[i + 2]];
    // A form is played round and round: its last chord leads to its first.
    const onward = after ?? (chords.length > 2 ? firstOf(chords) : undefined);
    const isSubstitute = isSubstituteOf(own, next);
    const falls = own.isFive && own.up === 5 && !next?.isFive;
    const leadsDown = own.up === 11 && isSubstituteOf(next, onward);
    const leadsToFive = own.up === 5 && !!next?.isFive && !!onward && onward.root !== own.root;
    return {
      ...own,
      isSubstitute,
      resolves: isSubstitute || falls,
      isBeforeSubstitute: own.isFive && own.up === 11 && isSubstituteOf(next, after),
      isTwoOfNext: own.isTwo && own.chord.tones.includes('b7') && (leadsDown || leadsToFive)
    };
  });
}

/** What stands round a step, the last one leading to the first. */
export interface Surroundings {
  readonly previous: Step | undefined;
  readonly next: Step | undefined;
  /** Where it leads: the next step, or the one behind the sevenths on the same root. */
  readonly onward: Step | undefined;
  /** The root that the next chord stands for, where that is a substitute and this one a semitone above it. */
  readonly standsFor: PitchClass | undefined;
}

/** What stands round a step, as a form is played round and round. */
export function surroundingsOf(steps: readonly Step[], at: number): Surroundings {
  const round = (from: number) =>
    steps.length > 1 ? sure(steps[from % steps.length], 'a step round the form') : undefined;
  const { root } = nth(steps, at);
  const [next, after] = [round(at + 1), round(at + 2)];
  const isBeforeSubstitute =
    steps.length > 2 && next && semitonesUp(root, next.root) === 11 && isSubstituteOf(next, after);
  // E, then E7, lead where the E7 goes; G7, then Gm7, leads nowhere.
  let ahead = 1;
  while (ahead < steps.length && round(at + ahead)?.root === root && round(at + ahead)?.isFive) ahead++;
  return {
    previous: steps[at - 1],
    next,
    onward: ahead < steps.length ? round(at + ahead) : undefined,
    standsFor: isBeforeSubstitute ? (next.root + 6) % 12 : undefined
  };
}
