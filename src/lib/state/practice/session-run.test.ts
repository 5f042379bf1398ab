import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { RunPart } from './run-part';

const { sessionRun } = await import('./session-run.svelte');
const { announced, placeOfPart, runParts } = await import('./run-part');

const part = (id: string, more: Partial<RunPart>): RunPart => ({
  id,
  kind: 'form',
  chart: 'one',
  minutes: 5,
  why: '',
  name: id,
  title: null,
  data: null,
  ...more
});

beforeEach(() => vi.useFakeTimers({ now: 1_000_000 }));
afterEach(() => {
  sessionRun.end();
  vi.useRealTimers();
});
const after = (seconds: number) => {
  vi.advanceTimersByTime(seconds * 1000);
  sessionRun.tick();
};

it('runs the clock of a part from the moment at which it sounds, not while the player gets ready', () => {
  sessionRun.start([part('a', {}), part('b', {})]);
  expect(sessionRun.takeStart()).toBe(true);
  // Asked once: a page that is opened again does not begin by itself.
  expect(sessionRun.takeStart()).toBe(false);
  after(40);
  expect(sessionRun.clock).toBe('5:00');
  sessionRun.begin();
  after(61);
  expect(sessionRun.clock).toBe('3:59');
  // A band that is stopped and started again goes on with the same time.
  sessionRun.begin();
  after(1);
  expect(sessionRun.clock).toBe('3:58');
  sessionRun.next();
  expect(sessionRun.takeStart()).toBe(true);
  after(30);
  expect(sessionRun.clock).toBe('5:00');
  after(0);
  sessionRun.begin();
  after(301);
  expect(sessionRun.clock).toBe('+0:01');
});

it('begins at once where nothing sounds: a rest, something of the player’s own', () => {
  sessionRun.start([part('rest', { kind: 'rest', chart: undefined, minutes: 1 })]);
  expect(sessionRun.takeStart()).toBe(false);
  after(15);
  expect(sessionRun.clock).toBe('0:45');
});

it('can be started by hand while it waits, and paused', () => {
  sessionRun.start([part('a', {})]);
  expect(sessionRun.isPaused).toBe(true);
  sessionRun.pause();
  after(5);
  expect(sessionRun.clock).toBe('4:55');
  sessionRun.pause();
  after(50);
  expect(sessionRun.clock).toBe('4:55');
  // Paused is not waiting: what sounds does not start it.
  sessionRun.begin();
  after(5);
  expect(sessionRun.clock).toBe('4:55');
});

it('gives what is left of a part on to the next one that is played, not to a rest', () => {
  sessionRun.start([part('a', {}), part('rest', { kind: 'rest', minutes: 1 }), part('b', {})]);
  sessionRun.begin();
  after(130);
  sessionRun.giveOn();
  expect(sessionRun.parts.map(({ minutes }) => minutes)).toEqual([3, 1, 7]);
  // Nothing is left to be given twice.
  sessionRun.giveOn();
  expect(sessionRun.parts.map(({ minutes }) => minutes)).toEqual([3, 1, 7]);
});

it('opens each part where it is played, and announces a form with its key', () => {
  const at = (more: Partial<RunPart>) => placeOfPart(part('x', more));
  expect(at({ kind: 'in progress' })).toBe('/charts/one?view=rehearse');
  expect(at({ kind: 'cards', chart: undefined })).toBe('/trainer');
  expect(at({ kind: 'rest' })).toBe('/today');
  expect(at({ kind: 'free' })).toBe('/charts/one');
  expect(at({ kind: 'new', chart: undefined, item: 'lick:l1:5:2' })).toBe('/licks?item=lick%3Al1%3A5%3A2');
  expect(announced(part('Ebb, whole form', { key: 'Bbm' }))).toBe('Ebb, whole form · B♭ minor');
  expect(announced(part('Ascending', { kind: 'new', key: 'Bbm' }))).toBe('Ascending');
});

it('parts are called by what is played: a form by its tune, with the tuning of the day; a seam by its bars', () => {
  const items = [{ id: 'up', data: { name: 'Shapes up' } }] as never;
  const names = runParts(
    [
      { kind: 'form', chart: 'one', minutes: 5, why: '' },
      { kind: 'form', chart: 'gone', minutes: 5, why: '' },
      { kind: 'new', item: 'up', chart: 'one', minutes: 5, why: '' },
      { kind: 'seam', item: 'up', chart: 'one', minutes: 5, why: '', bars: { from: 3, to: 4 } }
    ],
    items,
    new Map([['one', 'Keel']]),
    new Map([['one', 'drop D']])
  ).map(({ name, title }) => [name, title]);
  expect(names).toEqual([
    ['Keel, whole form', 'Keel · tuning: drop D'],
    ['The whole form', null],
    ['Shapes up', 'Keel'],
    ['Shapes up, bars 3 to 4', 'Keel']
  ]);
});
