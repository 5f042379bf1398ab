/** What is counted over exercises: whether cells keep their shape, how far the hand jumps, which strings double stops lie on. */
import { readSheet } from '../../src/lib/core/harmony/sheet';
import { FIGURES } from '../../src/lib/core/line/find/figures';
import { LINE_LEVELS, type LevelId } from '../../src/lib/core/line/find/registry';
import { TICKS } from '../../src/lib/core/line/model';
import { STANDARD } from '../../src/lib/core/neck/tuning';
import { systemOf } from '../../src/lib/core/neck/systems/registry';
import { arrange } from '../../src/lib/core/plan/arrange';
import { linesOf } from '../../src/lib/core/plan/lines';
import { DEFAULT_PLAN } from '../../src/lib/core/plan/model';
import { DEMO_CHARTS } from '../../src/lib/scenario/charts';

const MORE = [
  '{title: Slack Water}\n{key: F#m}\n{tempo: 96}\n| F#m7 | Bm7 | E9 | Amaj7 | Dmaj7 | G#m7b5 | C#7b9 | F#m7 |',
  '{title: Two Moorings}\n{key: Db}\n{time: 3/4}\n| Dbmaj7 | Bbm7 | Ebm7 | Ab7 | Fm7 | Bb7b9 | Ebm7 | Ab7 |'
];
const TUNES = [...DEMO_CHARTS.map(({ text }) => text), ...MORE];
const FAR = 5;

export interface ExerciseFigures {
  readonly level: string;
  readonly notes: number;
  /** Notes over five frets from the one before, no more than an eighth after it. */
  readonly jumps: number;
  /** Of figures: leaps of an octave and more, from cell to cell. */
  readonly octaves: number;
  /** The lowest string, as counted from the highest. */
  readonly lowestString: number;
}

/** Every level of exercise over ten tunes, two seeds each; every figure for itself. */
export function exerciseFigures(): ExerciseFigures[] {
  const wishes = LINE_LEVELS.flatMap(({ id }): { level: LevelId; figure?: string }[] => {
    if (id === 'phrases' || id === 'motif' || id === 'skeleton' || id === 'melody and answer') return [];
    return id === 'figure' ? FIGURES.map((figure) => ({ level: id, figure: figure.id })) : [{ level: id }];
  });
  return wishes.map(({ level, figure }) => {
    let [notes, jumps, octaves, lowestString] = [0, 0, 0, 1];
    for (const text of TUNES) {
      const arranged = arrange(
        { sheet: readSheet(text), plan: DEFAULT_PLAN },
        STANDARD,
        systemOf('positions')
      );
      for (const seed of [1, 2]) {
        const [line] = linesOf(arranged, { level, figure, subdivision: 2, seed, alternatives: 1 }).lines;
        for (const [i, note] of (line?.notes ?? []).entries()) {
          notes++;
          lowestString = Math.max(lowestString, note.place?.string ?? 1);
          const before = line!.notes[i - 1];
          if (!before || note.start === before.start || note.start - before.start > TICKS / 2) continue;
          const [from, to] = [before.place?.fret ?? 0, note.place?.fret ?? 0];
          if (from > 0 && to > 0 && Math.abs(to - from) > FAR) jumps++;
          if (figure && note.purpose !== 'target' && Math.abs(note.midi - before.midi) >= 12) octaves++;
        }
      }
    }
    return { level: figure ? `figure ${figure}` : level, notes, jumps, octaves, lowestString };
  });
}
