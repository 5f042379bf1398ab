/** All keys that can be changed, by where they act: what the settings list, and what may not be the same. */
import { sure } from '../../core/base/list';
import { CHART_KEYS } from '../app/chart-keys';
import { LINE_KEYS, PEN_KEYS } from '../lines/line-keys';
import { LEAVE_STAND, STAND_KEYS } from '../rehearse/stand-keys';
import { SHELL_KEYS } from '../shell/shell-keys';
import { SONGBOOK_KEYS } from '../songbook/songbook-keys';
import { TAKE_KEYS } from '../takes/take-keys';
import type { KeyRow } from './keys';
import { pressName } from './press';

/** As much of a row as settings need. */
export type KeyFacts = Pick<KeyRow<never>, 'id' | 'keys' | 'name' | 'presses'>;

export interface KeyScope {
  readonly id: string;
  readonly name: string;
  readonly rows: readonly KeyFacts[];
}

/** One key stands for one thing: rows that take many presses, as digits do, stay as they are. */
const isChangeable = ({ presses }: KeyFacts) =>
  presses.length > 0 && presses.every((press) => !press.includes('(')) && !presses.includes('Escape');

const SCOPES: readonly KeyScope[] = [
  { id: 'everywhere', name: 'Everywhere', rows: SHELL_KEYS },
  { id: 'songbook', name: 'Songbook', rows: SONGBOOK_KEYS },
  { id: 'chart', name: 'The chart', rows: CHART_KEYS },
  { id: 'stand', name: 'At the stand', rows: [...STAND_KEYS, ...LEAVE_STAND] },
  { id: 'lines', name: 'Lines', rows: LINE_KEYS },
  { id: 'pen', name: 'Editing the line', rows: PEN_KEYS },
  { id: 'takes', name: 'Takes', rows: TAKE_KEYS }
];

export const KEY_SCOPES: readonly KeyScope[] = SCOPES.map((scope) => ({
  ...scope,
  rows: scope.rows.filter(isChangeable)
}));

/** The keys of a row as they are now, with the player's own. */
export const keysShown = (row: KeyFacts, own: Readonly<Record<string, string>>): string =>
  own[row.id] === undefined ? row.keys : pressName(sure(own[row.id], 'own'));

const bare = (press: string) => press.replace('[Shift]+', '');

/**
 * Which other shortcut of the same place has a press already, fixed ones included; null where it is free. Keys of different
 * places may be alike: the one that lies on top acts.
 */
export function holderOfPress(
  press: string,
  id: string,
  own: Readonly<Record<string, string>>
): KeyFacts | null {
  const scopes = SCOPES.filter((scope) => scope.rows.some((row) => row.id === id));
  const has = (row: KeyFacts) => {
    const presses = own[row.id] === undefined ? row.presses : [sure(own[row.id], 'own')];
    return presses.some((one) =>
      one.startsWith('(') ? new RegExp(`^${one.slice(1, -1)}$`).test(bare(press)) : bare(one) === bare(press)
    );
  };
  return scopes.flatMap(({ rows }) => rows).find((row) => row.id !== id && has(row)) ?? null;
}
