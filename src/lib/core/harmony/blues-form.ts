/** The forms of the blues: eight, twelve and sixteen bars. */
import type { Form } from '../chart/unroll';
import { pitchClass, semitonesUp } from '../theory/note';
import type { Cadence, CadenceKind } from './cadence-model';
import { type Key } from './key';

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

/** The blues forms of a chart: at the start of a section, or back to back. Eight and sixteen bars need a seventh on I or IV. */
export function bluesForms(form: Form, home: Key): Cadence[] {
  const tonic = pitchClass(home.tonic);
  const sectionStarts = form.bars.flatMap((bar, i) =>
    i === 0 || form.bars[i - 1]!.section !== bar.section ? [i] : []
  );
  const ends = [...sectionStarts.slice(1), form.bars.length];
  return sectionStarts.flatMap((start, n) => {
    const length = ends[n]! - start;
    const fits = FORMS.find(({ bars }) => length % bars === 0) ?? FORMS[0]!;
    const found: Cadence[] = [];
    for (let at = start; at + fits.bars <= ends[n]!; at += fits.bars) {
      const number = form.bars[at]!.number;
      const holds = fits.landmarks.every(({ bars, roots, first }) =>
        bars.some((bar) => {
          const sounding = soundingIn(form, number + bar - 1).map((pc) => semitonesUp(tonic, pc));
          return (first ? sounding.slice(0, 1) : sounding).some((distance) => roots.includes(distance));
        })
      );
      const inside = form.changes.filter((c) => c.bar >= number && c.bar < number + fits.bars);
      const isBlue = inside.some(({ chord }) => {
        const distance = chord ? semitonesUp(tonic, chord.rootPc) : null;
        return (distance === 0 || distance === 5) && chord!.tones.includes('b7');
      });
      if (holds && (fits.bars === 12 || isBlue)) {
        found.push({ kind: fits.kind, from: inside[0]!.index, to: inside.at(-1)!.index, goal: home });
      }
    }
    return found;
  });
}

/** Pitch classes of the roots that sound in a bar, a chord held over from before included. */
function soundingIn(form: Form, number: number): number[] {
  const bar = form.bars[number - 1]!;
  const end = bar.start + bar.beats;
  return form.changes
    .filter((c) => c.chord && c.start < end && c.start + c.beats > bar.start)
    .map((c) => c.chord!.rootPc);
}
