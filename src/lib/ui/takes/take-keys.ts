/** The keys of a take that is shown. */
import type { KeyRow } from '../keys/keys';

export interface TakeKeys {
  readonly toggle: () => void;
  readonly loop: () => void;
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
  }
];
