/** The keys of the songbook. */
import type { KeyRow } from '../keys/keys';

export interface SongbookKeys {
  readonly write: () => void;
  readonly search: () => void;
}

export const SONGBOOK_KEYS: readonly KeyRow<SongbookKeys>[] = [
  {
    id: 'songbook-new',
    keys: 'N',
    name: 'New chart',
    presses: ['[Shift]+n'],
    run: ({ write }) => write(),
    command: true
  },
  {
    id: 'songbook-search',
    keys: '/',
    name: 'Find a chart in the list',
    presses: ['[Shift]+/'],
    run: ({ search }) => search()
  }
];
