/** The keys of a take that is shown, and of correcting what was heard in it. */
import type { Correcting } from '$lib/state/takes/correcting.svelte';
import type { KeyRow } from '../keys/keys';

export interface TakeKeys {
  readonly toggle: () => void;
  readonly loop: () => void;
  readonly correct: () => void;
}

export const TAKE_KEYS: readonly KeyRow<TakeKeys>[] = [
  {
    id: 'take-replay',
    keys: 'Space',
    name: 'Replay the take, or stop',
    presses: ['Space'],
    run: ({ toggle }) => toggle(),
    command: true
  },
  {
    id: 'take-loop',
    keys: 'Q',
    name: 'Loop the selected change of the take',
    presses: ['q'],
    run: ({ loop }) => loop(),
    command: true
  },
  {
    id: 'take-correct',
    keys: 'N',
    name: 'Correct the notes that were heard, or stop',
    presses: ['n'],
    run: ({ correct }) => correct(),
    command: true
  }
];

/** What the keys of correcting act on. */
export interface CorrectKeys {
  readonly correcting: Correcting;
  /** The second of the sound that is heard now; null at rest. */
  readonly second: () => number | null;
}

const key = (
  id: string,
  keys: string,
  name: string,
  presses: readonly string[],
  run: KeyRow<CorrectKeys>['run']
): KeyRow<CorrectKeys> => ({ id, keys, name, presses, run, single: false });

export const CORRECT_KEYS: readonly KeyRow<CorrectKeys>[] = [
  key('correct-stop', 'Esc', 'Stop correcting', ['Escape'], ({ correcting }) => correcting.stop()),
  key('correct-walk', '← →', 'The note before, the next note', ['ArrowLeft', 'ArrowRight'], (on, event) =>
    on.correcting.walk(event?.key === 'ArrowLeft' ? -1 : 1)
  ),
  key('correct-pitch', '↑ ↓', 'A semitone up or down', ['ArrowUp', 'ArrowDown'], (on, event) =>
    on.correcting.transpose(event?.key === 'ArrowUp' ? 1 : -1)
  ),
  key(
    'correct-time',
    'Shift ← →',
    '20 ms earlier or later',
    ['Shift+ArrowLeft', 'Shift+ArrowRight'],
    (on, event) => on.correcting.nudge(event?.key === 'ArrowLeft' ? -1 : 1)
  ),
  key('correct-split', 'S', 'Split the note', ['s'], ({ correcting, second }) => correcting.split(second())),
  key('correct-join', 'J', 'Join the note with the next one', ['j'], ({ correcting }) => correcting.join()),
  key('correct-add', 'A', 'Add a note after this one', ['a'], ({ correcting }) => correcting.addAfter()),
  key('correct-delete', 'Del', 'Delete the note', ['Delete', 'Backspace'], ({ correcting }) =>
    correcting.remove()
  ),
  key('correct-uncertain', 'U', 'The next uncertain note', ['u'], ({ correcting }) =>
    correcting.toUncertain()
  )
];
