/** The keys that answer on every page. */
import { goto } from '$app/navigation';
import { settings } from '$lib/state/settings.svelte';
import { shell } from '$lib/state/shell.svelte';
import type { KeyRow } from '../keys/keys';
import { PLACES } from './places';

const SAID = {
  songbook: 'all charts',
  today: 'what to practise',
  cards: 'a two-minute round',
  licks: 'all licks'
};

export const SHELL_KEYS: readonly KeyRow<null>[] = [
  {
    id: 'find',
    keys: 'Ctrl K',
    name: 'Find charts, licks, takes, log, and what can be done',
    presses: ['$mod+k'],
    run: () => void (shell.open = 'find'),
    single: false
  },
  {
    id: 'help',
    keys: '?',
    name: 'The keys that act here, and how notes are drawn',
    presses: ['[Shift]+?'],
    run: () => void (shell.open = 'help')
  },
  {
    id: 'theme',
    keys: 'T',
    name: 'Day or Stage theme',
    presses: ['[Shift]+t'],
    run: () => settings.toggleTheme(),
    command: true
  },
  ...PLACES.map(({ id, name, href }) => ({
    id: `go-${id}`,
    keys: '',
    name: `${name}: ${SAID[id]}`,
    presses: [],
    run: () => void goto(href),
    single: false,
    command: true
  })),
  {
    id: 'go-settings',
    keys: '',
    name: 'Settings: guitar, names, stand, keys, sound, data',
    presses: [],
    run: () => void goto('/settings'),
    single: false,
    command: true
  }
];
