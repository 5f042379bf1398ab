/** The forms of the blues: eight, twelve and sixteen bars. */
import { firstOf, lastOf, nth } from '../base/list';
import { type Change, type Form, hasChord } from '../chart/unroll';
import { pitchClass, semitonesUp } from '../theory/note';
import type { Cadence, CadenceKind } from './cadence-model';
import { isFive } from './heard';
import { isMinorKey, type Key } from './key';

/** What has to sound in a bar of a form, counted from 1: one of some roots, in semitones above the tonic. */
interface Landmark {
  readonly bars: readonly number[];
  readonly roots: readonly number[];
  /** The root has to be the first of the bar. */
  readonly first?: true;
}

interface BluesForm {
  readonly kind: CadenceKind;
  readonly bars: number;
  readonly landmarks: readonly Landmark[];
}

const FORMS: readonly BluesForm[] = [
  {
    kind: 'twelve-bar',
    bars: 12,
    landmarks: [
      { bars: [1], roots: [0], first: true },
      { bars: [5], roots: [5], first: true },
      { bars: [7, 8], roots: [0], first: true },
      { bars: [9, 10], roots: [7, 2, 8] }
    ]
  },
  {
    kind: 'sixteen-bar',
    bars: 16,
    landmarks: [
      { bars: [1], roots: [0], first: true },
      { bars: [9], roots: [5], first: true },
      { bars: [11, 12], roots: [0], first: true },
      { bars: [13, 14], roots: [7, 2] }
    ]
  },
  {
    kind: 'eight-bar',
    bars: 8,
    landmarks: [
      { bars: [1], roots: [0], first: true },
      { bars: [3], roots: [5], first: true },
      { bars: [5], roots: [0], first: true },
      { bars: [6, 8], roots: [7] }
    ]
  }
];

/** The blues forms of a chart: at the start of a section, or back to back. Eight and sixteen bars need dominants on I and IV most of the time, or the i and iv of a minor one. */
export function bluesForms(form: Form, home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  const sectionStarts = form.bars.flatMap((bar, i) =>
    i === 0 || nth(form.bars, i - 1).section !== bar.section ? [i] : []
  );
  const ends = [...sectionStarts.slice(1), form.bars.length];
  const byBar = changesByBar(form);
  return sectionStarts.flatMap((start, n) => {
    const length = nth(ends, n) - start;
    const fits = FORMS.find(({ bars }) => length % bars === 0) ?? firstOf(FORMS);
    const found: Cadence[] = [];
    for (let at = start; at + fits.bars <= nth(ends, n); at += fits.bars) {
      const number = nth(form.bars, at).number;
      const holds = fits.landmarks.every(({ bars, roots, first }) =>
        bars.some((bar) => {
          const sounding = soundingIn(nth(byBar, number + bar - 2)).map((pc) => semitonesUp(tonic, pc));
          return (first ? sounding.slice(0, 1) : sounding).some((distance) => roots.includes(distance));
        })
      );
      // What is held over from the bar before begins there.
      const inside = byBar
        .slice(at, at + fits.bars)
        .flatMap((changes, bar) => changes.filter((change) => change.bar === number + bar));
      if (holds && (fits.bars === 12 || speaksBlues(inside, home))) {
        found.push({ kind: fits.kind, from: firstOf(inside).index, to: lastOf(inside).index, goal: home });
      }
    }
    return found;
  });
}

/** Whether I and IV are dominants most of the time, or the i and iv of a minor blues: a ballad of that length is none. */
function speaksBlues(changes: readonly Change[], home: Key): boolean {
  const tonic = pitchClass(home.tonic);
  const own = changes
    .filter(hasChord)
    .filter(({ chord }) => [0, 5].includes(semitonesUp(tonic, chord.rootPc)));
  const beats = (some: readonly Change[]) => some.reduce((sum, change) => sum + change.beats, 0);
  const blue = own.filter(({ chord }) => (isMinorKey(home) ? chord.family === 'minor' : isFive(chord)));
  return beats(blue) * 2 > beats(own);
}

/** For every bar the changes that sound in it, one held over from before included. */
function changesByBar({ bars, changes }: Form): Change[][] {
  let from = 0;
  return bars.map(({ start, beats }) => {
    while (from < changes.length && nth(changes, from).start + nth(changes, from).beats <= start) from++;
    let to = from;
    while (to < changes.length && nth(changes, to).start < start + beats) to++;
    return changes.slice(from, to);
  });
}

/** Pitch classes of the roots of some changes. */
function soundingIn(changes: readonly Change[]): number[] {
  return changes.flatMap(({ chord }) => (chord ? [chord.rootPc] : []));
}
