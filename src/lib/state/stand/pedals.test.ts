import { afterAll, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';

const storage = fakeStorage();
const { kept } = storage;
vi.stubGlobal('localStorage', storage);
afterAll(() => vi.unstubAllGlobals());
const { pedalName, pedalOfKey, pedalOfMidi, Pedals } = await import('./pedals.svelte');

const key = (code: string, more = {}) => ({
  code,
  key: code,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...more
});

describe('pedals', () => {
  it('are keys by their place, and MIDI messages by what is pressed', () => {
    expect(pedalOfKey(key('PageDown'))).toBe('key PageDown');
    expect(pedalOfKey(key('ShiftLeft', { key: 'Shift' }))).toBeNull();
    expect(pedalOfKey(key('KeyZ', { ctrlKey: true }))).toBeNull();
    expect(pedalOfKey(key('Escape'))).toBeNull();
    expect(pedalOfMidi([0xb3, 64, 127])).toBe('midi 176 64');
    expect(pedalOfMidi([0xb3, 64, 0])).toBeNull();
    expect(pedalOfMidi([0x91, 36, 0])).toBeNull();
    expect(pedalOfMidi([0x91, 36, 90])).toBe('midi 144 36');
    expect(pedalOfMidi([0xc0, 5])).toBe('midi 192 5');
    expect(pedalOfMidi([0xf8])).toBeNull();
    expect([pedalName('key PageDown'), pedalName('key KeyB'), pedalName('midi 176 64')]).toEqual([
      'Page Down',
      'B',
      'MIDI control 64'
    ]);
  });

  it('turn pages to the next section at first, and are learnt by pressing', () => {
    kept.clear();
    const done: string[] = [];
    const pedals = new Pedals((action) => done.push(action));
    expect(pedals.press('key PageDown')).toBe(true);
    expect(pedals.press('key KeyQ')).toBe(false);
    pedals.learn('faster');
    expect(pedals.press('key KeyQ')).toBe(true);
    expect(done).toEqual(['next']);
    expect(pedals.press('key KeyQ')).toBe(true);
    expect(done).toEqual(['next', 'faster']);
  });

  it('do one thing each, and are kept', () => {
    kept.clear();
    const pedals = new Pedals(() => undefined);
    pedals.assign('loop', 'key PageDown');
    expect(pedals.board.next).toBeUndefined();
    const again = new Pedals(() => undefined);
    expect(again.actionOf('key PageDown')).toBe('loop');
    again.assign('loop', null);
    expect(again.actionOf('key PageDown')).toBeUndefined();
    kept.set('corvel-pedals', '{"play": 7, "next": "key KeyN", "fly": "key KeyF"}');
    expect(new Pedals(() => undefined).board).toEqual({ next: 'key KeyN' });
    kept.set('corvel-pedals', 'damaged');
    expect(new Pedals(() => undefined).actionOf('key PageUp')).toBe('play');
  });
});
