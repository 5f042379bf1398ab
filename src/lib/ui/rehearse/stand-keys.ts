/** The keys of the stand: the band, the marks of a round, the ear. */
import type { Landings } from '$lib/state/stand/landings.svelte';
import { INTENSITY_STEP, type Rehearsal } from '$lib/state/stand/rehearsal.svelte';
import type { KeyRow } from '../keys/keys';

export interface StandKeys {
  readonly rehearsal: Rehearsal;
  readonly landings: Landings;
  readonly openDesk: () => void;
}

export const STAND_KEYS: readonly KeyRow<StandKeys>[] = [
  {
    id: 'stand-play',
    keys: 'Space',
    name: 'Play or stop',
    presses: ['Space'],
    run: ({ rehearsal }) => rehearsal.transport.toggle(),
    single: false
  },
  {
    id: 'stand-clean',
    keys: 'C',
    name: 'The last round was clean',
    presses: ['[Shift]+c'],
    run: ({ rehearsal }) => rehearsal.marks.mark(true)
  },
  {
    id: 'stand-missed',
    keys: 'X',
    name: 'Missed here: the round is not clean, and the log keeps the change',
    presses: ['[Shift]+x'],
    run: ({ rehearsal }) => rehearsal.stumble()
  },
  {
    id: 'stand-heard',
    keys: 'K',
    name: 'The last round went as it was heard',
    presses: ['[Shift]+k'],
    run: ({ landings }) => landings.confirm()
  },
  {
    id: 'stand-listen',
    keys: 'Z',
    name: 'Listen to what I play, or stop listening',
    presses: ['[Shift]+z'],
    run: ({ landings, rehearsal }) => void landings.ear.toggle(rehearsal.desk.now.hears)
  },
  {
    id: 'stand-lost',
    keys: 'Y',
    name: 'Lost: the form and the melody, or back',
    presses: ['[Shift]+y'],
    run: ({ rehearsal }) => rehearsal.transport.isPlaying && rehearsal.toggleLost()
  },
  {
    id: 'stand-louder',
    keys: ']',
    name: 'More from the band',
    presses: [']'],
    run: ({ rehearsal }) => rehearsal.changeIntensity(INTENSITY_STEP)
  },
  {
    id: 'stand-quieter',
    keys: '[',
    name: 'Less from the band',
    presses: ['['],
    run: ({ rehearsal }) => rehearsal.changeIntensity(-INTENSITY_STEP)
  }
];

/** Only while the band plays and the stand is all. */
export const LEAVE_STAND: readonly KeyRow<StandKeys>[] = [
  {
    id: 'stand-desk',
    keys: 'Esc',
    name: 'The desk, while the band plays on',
    presses: ['Escape'],
    run: ({ openDesk }) => openDesk(),
    single: false
  }
];
