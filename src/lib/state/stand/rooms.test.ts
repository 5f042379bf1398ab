/** The rooms of the stand, each by itself. */
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import type { RecordedRow } from '$lib/api/practice';
import type { LaidRound } from '$lib/core/practice/clock';
import type { Now } from '$lib/core/practice/progress/live';
import { Recorder } from '../practice/recorder';
import { workspaceOf } from '../testing';
import { Desk, type DeskSettings } from './desk.svelte';
import { Keys } from './keys.svelte';
import { Loop } from './loop.svelte';
import { Marks, type MarkedPart } from './marks.svelte';
import { Notice } from './notice.svelte';
import type { BandRound } from './rounds.svelte';
import { Tempo } from './tempo.svelte';

const storage = fakeStorage();
const { kept } = storage;
vi.stubGlobal('localStorage', storage);
beforeEach(() => kept.clear());
afterAll(() => vi.unstubAllGlobals());

describe('the desk', () => {
  const onset = vi.fn<(part: Partial<DeskSettings>) => void>();

  it('keeps what is set, and says what was', () => {
    const desk = new Desk(onset);
    desk.set({ perBeat: 3 });
    desk.setMix('bass', { isMuted: true });
    expect(onset.mock.calls.map(([part]) => Object.keys(part))).toEqual([['perBeat'], ['mix']]);
    const again = new Desk(onset).now;
    expect([again.perBeat, again.mix.bass.isMuted, again.mix.drums.isMuted]).toEqual([3, true, false]);
  });

  it('lends itself to what is practised, and comes back as it was but for the mix', () => {
    const desk = new Desk(onset);
    desk.set({ drill: 'up', halfTime: true, keys: 'fourths' });
    desk.lend('thirds');
    desk.setMix('line', { decibels: -3 });
    expect([desk.now.drill, desk.now.halfTime, desk.now.keys]).toEqual(['thirds', false, 'stay']);
    // A page that is reloaded meanwhile has the player's own.
    expect(new Desk(onset).now.drill).toBe('up');
    desk.takeBack();
    expect([desk.now.drill, desk.now.halfTime, desk.now.keys]).toEqual(['up', true, 'fourths']);
    expect(desk.now.mix.line.decibels).toBe(-3);
  });

  it('plays on with a store that is broken', () => {
    kept.set('corvel-desk', '{');
    expect(new Desk(onset).now.perBeat).toBe(2);
  });
});

describe('the tempo', () => {
  function dial(grid: { first: number; tempo: number } | null = null) {
    const notice = new Notice();
    const onset = vi.fn();
    const desk = new Desk(() => undefined);
    return { notice, onset, desk, tempo: new Tempo(120, { desk, notice, grid: () => grid, onset }) };
  }

  it('goes as far as the band does, and says so', () => {
    const { tempo, notice, onset } = dial();
    tempo.set(1000);
    expect([tempo.value, notice.problem.includes('The band plays from')]).toEqual([120, true]);
    tempo.change(10_000);
    expect(notice.problem).toContain('as fast as the band plays');
    tempo.set(90);
    expect([tempo.value, notice.problem]).toEqual([90, '']);
    expect(onset).toHaveBeenCalledTimes(2);
  });

  it('sounds half as fast at half speed, and a recording at its own tempo', () => {
    const { tempo, desk } = dial();
    desk.set({ halfTime: true });
    expect(tempo.sounding).toBe(60);
    tempo.followSounding(50);
    expect(tempo.value).toBe(100);
    desk.set({ halfTime: false });
    const recording = dial({ first: 0, tempo: 119.6 }).tempo;
    expect(recording.sounding).toBeCloseTo(119.6);
  });

  it('is tapped', () => {
    const { tempo } = dial();
    for (const second of [0, 0.75, 1.5, 2.25]) tempo.tap(second);
    expect(tempo.value).toBe(80);
  });
});

describe('the loop', () => {
  function loops(bar = 1) {
    const notice = new Notice();
    const onset = vi.fn();
    return { notice, onset, loop: new Loop(workspaceOf(), { notice, bar: () => bar, onset }) };
  }

  it('goes from section to section, and back to the form', () => {
    const { loop, onset } = loops(4);
    loop.toggleSection();
    expect(loop.wish).toEqual({ kind: 'section', bar: 3 });
    loop.nextSection();
    expect(loop.wish).toEqual({ kind: 'section', bar: 1 });
    loop.toggleSection();
    expect(loop.wish).toEqual({ kind: 'form' });
    expect(onset).toHaveBeenCalledTimes(3);
  });

  it('refuses what the chart has not, and says why', () => {
    const { loop, notice } = loops();
    loop.set({ kind: 'bars', from: 3, to: 2 });
    expect([loop.wish.kind, notice.problem]).toEqual([
      'form',
      'The loop ends in bar 2, before it starts in bar 3; set the end later.'
    ]);
    loop.set({ kind: 'bars', from: 40, to: 41 });
    expect(loop.wish.kind).toBe('form');
    expect(notice.problem).not.toBe('');
  });

  it('is brought back into a chart that grew shorter', () => {
    const workspace = workspaceOf();
    const notice = new Notice();
    const loop = new Loop(workspace, { notice, bar: () => 1, onset: () => undefined });
    loop.set({ kind: 'bars', from: 3, to: 4 });
    workspace.document.setSource('{key: Gm}\n| Gm6 | D7b9 |');
    loop.clamp();
    expect(loop.barsOf(loop.wish)!.to).toBe(2);
    expect(notice.problem).not.toBe('');
  });
});

describe('the keys', () => {
  it('move the chart with the rounds, and keep what was made', () => {
    const workspace = workspaceOf();
    const keys = new Keys(workspace, () => 'fourths');
    const { document } = workspace;
    expect(keys.chartIn(0, document)).toBe(workspace);
    const next = keys.chartIn(1, document);
    expect(next.analysis.key.tonic).toBe('C');
    expect(keys.chartIn(1, document)).toBe(next);
    keys.shift = 2;
    expect(keys.shiftIn(0)).toBe(2);
    expect(keys.chartIn(0, document).analysis.key.tonic).toBe('A');
    keys.close();
  });
});

describe('the marks', () => {
  function marks(part: MarkedPart | null = null) {
    const workspace = workspaceOf();
    const rows = new Map<string, RecordedRow>();
    const climbed: [Now, boolean, boolean][] = [];
    const loop = new Loop(workspace, { notice: new Notice(), bar: () => 1, onset: () => undefined });
    const recorder = new Recorder((...sent) => sent.forEach((row) => rows.set(row.id, row)));
    const room = new Marks(recorder, {
      workspace,
      loop,
      moves: () => true,
      onclimb: (...climb) => climbed.push(climb)
    });
    room.take(part);
    room.start(true);
    const play = (bars: { from: number; to: number } | null = { from: 1, to: 4 }) =>
      room.write({ item: 'a', chart: 'one', what: 'up', key: 'Gm', area: 5, tempo: 100, bars }, 8, true);
    const { form, analysis } = workspace.sheet;
    const excerpt = { beats: form.beats, changes: analysis.changes.map((source) => ({ ...source, source })) };
    const laid = { start: 16, round: { practice: { excerpt } } } as unknown as LaidRound<BandRound>;
    return { room, rows, climbed, play, laid };
  }

  it('stand for rounds; one given early is for the round that sounds', () => {
    const { room, play, rows } = marks();
    room.mark(false);
    play();
    play();
    room.mark(true);
    expect(room.given).toEqual([false, true]);
    expect([...rows.values()].map(({ clean }) => clean)).toEqual([false, true]);
    expect(room.clean).toBe(1);
  });

  it('say at which change it went wrong, by the beat of the clock', () => {
    const { room, play, rows, laid } = marks();
    room.stumble(laid, 16 + 6.5);
    expect(room.stumbled).toBe(1);
    play();
    expect(room.stumbled).toBe(0);
    room.mark(false);
    expect([...rows.values()].flatMap(({ stumbles }) => stumbles)).toEqual([2]);
  });

  it('move the ladder of a part, and count on after the band was stopped', () => {
    const steps = [{ bars: null, tempo: 80, goal: 100 }] as unknown as MarkedPart['steps'];
    const { room, play, climbed } = marks({ over: { kind: 'form' }, steps });
    for (let i = 0; i < 4; i++) {
      play();
      room.mark(true);
    }
    const before = climbed.at(-1)![0].tempo;
    expect(climbed.some(([, , hasLoops]) => hasLoops)).toBe(true);
    room.start(true);
    expect(room.given).toEqual([]);
    play();
    room.mark(true);
    expect(climbed.at(-1)![0].tempo).toBeGreaterThanOrEqual(before);
  });
});
