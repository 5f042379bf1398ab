/** Whether an answer is right: by place, by name, by pitch class, by choice. */
import { lastOf } from '../../base/list';
import { placeOf } from '../../neck/area';
import { pitchClass } from '../../theory/note';
import type { Answer, Solution, Verdict } from './card';

const isSameSet = (a: Iterable<unknown>, b: Iterable<unknown>) => {
  const [left, right] = [new Set(a), new Set(b)];
  return left.size === right.size && [...left].every((one) => right.has(one));
};

/** `isSpelling`: the names themselves are asked for, in their order; else any name of the same pitch will do. */
export function checked(solution: Solution, answer: Answer, isSpelling = false): Verdict {
  const { cells, need, notes, why } = solution;
  const told = (isRight: boolean, wrong: Verdict['wrong'] = [], missed: Verdict['missed'] = []): Verdict => ({
    isRight,
    wrong,
    missed,
    why
  });
  switch (answer.way) {
    case 'choice':
      return told(answer.choice === solution.choice);
    case 'own':
      return told(answer.isRight);
    case 'names':
      return told(
        isSpelling
          ? answer.notes.join(' ') === notes.join(' ')
          : isSameSet(answer.notes.map(pitchClass), notes.map(pitchClass))
      );
    case 'sound': {
      const heard = answer.midi.map((midi) => midi % 12);
      const wanted = notes.map(pitchClass);
      return told(need === 'one' ? wanted.includes(lastOf(heard)) : isSameSet(heard, wanted));
    }
    case 'neck': {
      const right = new Map(cells.map((cell) => [placeOf(cell), cell]));
      const tapped = new Set(answer.cells.map(placeOf));
      const wrong = answer.cells.filter((cell) => !right.has(placeOf(cell)));
      const named = cells.filter((cell) => tapped.has(placeOf(cell)));
      const missed = cells.filter((cell) => {
        if (need === 'one') return named.length === 0;
        if (need === 'every') return !tapped.has(placeOf(cell));
        return !named.some(({ note }) => note === cell.note);
      });
      return told(wrong.length === 0 && missed.length === 0, wrong, missed);
    }
  }
}
