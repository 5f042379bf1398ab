import { describe, expect, it } from 'vitest';
import { CHART_KEYS } from '../app/chart-keys';
import { holderOfPress, KEY_SCOPES, keysShown } from './scopes';

const rows = KEY_SCOPES.flatMap((scope) => scope.rows);

describe('keys that can be changed', () => {
  it('have ids of their own, none twice', () => {
    const ids = rows.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids.length).toBeGreaterThan(60);
  });

  it.each(KEY_SCOPES.map((scope) => [scope.name, scope] as const))(
    'of %s do not stand in each other’s way',
    (_, scope) => {
      for (const row of scope.rows)
        for (const press of row.presses)
          expect(holderOfPress(press, row.id, {}), `${row.id} ${press}`).toBeNull();
    }
  );

  it('a press that is taken is told with what has it, digits too', () => {
    expect(holderOfPress('[Shift]+j', 'labels', {})?.id).toBe('hear');
    expect(holderOfPress('[Shift]+3', 'labels', {})?.id).toBe('aim');
    // Another place may use the same key.
    expect(holderOfPress('[Shift]+q', 'labels', {})).toBeNull();
  });

  it('follow what the player has changed', () => {
    const own = { hear: '$mod+Shift+h' };
    expect(holderOfPress('[Shift]+j', 'labels', own)).toBeNull();
    expect(holderOfPress('$mod+Shift+h', 'labels', own)?.id).toBe('hear');
    expect(
      keysShown(
        CHART_KEYS.find(({ id }) => id === 'hear')!,
        own
      )
    ).toBe('Ctrl Shift H');
  });
});
