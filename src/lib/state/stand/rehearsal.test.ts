import { DEFAULT_SETTINGS } from '$lib/api/default-settings';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import {
  advance,
  endOf,
  roundAt,
  retimed,
  beatAt,
  relaid,
  type LaidRound,
  type Progress,
  type Round
} from '$lib/core/practice/clock';

/** The player without its sound: the test is its clock, and what is handed over is written down. */
const stage = {
  now: 0,
  heard: [] as { at: number; second: number; part: string; midi: number }[],
  tick: () => undefined as void
};
interface FakeProgram {
  countIn: never[];
  roundOf: (n: number) => Round | null;
  tempo: number;
  onTick: () => void;
}

class FakePlayer {
  #program: FakeProgram | null = null;
  #progress: Progress | null = null;
  static open = () => Promise.resolve(new FakePlayer());
  start(program: FakeProgram) {
    this.#program = program;
    this.#progress = { tempos: [{ second: stage.now, beat: 0, tempo: program.tempo }], laid: [], handed: 0 };
    stage.tick = () => this.tick();
    this.tick();
  }
  tick() {
    if (!this.#program || !this.#progress) return;
    const { progress, due } = advance(this.#progress, [], this.#program.roundOf, stage.now + 0.2);
    this.#progress = progress;
    stage.heard.push(...due.map(({ at, part, midi }) => ({ at, second: stage.now, part, midi })));
    this.#program.onTick();
  }
  stop() {
    this.#program = null;
    this.#progress = null;
  }
  setTempo(tempo: number) {
    if (this.#progress) {
      this.#progress = {
        ...this.#progress,
        tempos: retimed(this.#progress.tempos, this.#progress.handed, tempo)
      };
    }
  }
  relay(make: (laid: LaidRound, from: number) => Round) {
    const { handed } = this.#progress!;
    this.#progress = { ...this.#progress!, laid: relaid(this.#progress!.laid, handed, make) };
  }
  setVolume() {}
  setChordSound() {}
  setBacking() {}
  late = 0;
  get beat() {
    return this.#progress && beatAt(this.#progress.tempos, stage.now);
  }
  roundAt(beat: number) {
    return this.#progress && roundAt(this.#progress.laid, beat);
  }
  get end() {
    return this.#progress ? endOf(this.#progress.laid) : 0;
  }
  tempoAt() {
    return this.#progress?.tempos.at(-1)?.tempo ?? 0;
  }
  get seconds() {
    return this.#program ? stage.now : 0;
  }
  level = 0;
  close() {}
}
vi.mock('$lib/audio/player', () => ({ Player: FakePlayer }));
vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);

import type { RecordedRow } from '$lib/api/practice';

const { Workspace } = await import('../chart/workspace.svelte');
const { Rehearsal } = await import('./rehearsal.svelte');
const { settings } = await import('../settings.svelte');

const TUNE = '{key: Eb}\n{tempo: 120}\n| Ebmaj7 | Cm7 | Fm7 | Bb7 |';
function open(source = TUNE) {
  const workspace = new Workspace({ id: 'one', version: 1, damaged: false, source, plan: DEFAULT_PLAN });
  workspace.document.autosave.take = () => undefined;
  const rehearsal = new Rehearsal(workspace);
  settings.start({ ...DEFAULT_SETTINGS, restAfter: 0 });
  rehearsal.desk.set({ countsIn: false, drill: null, ladder: null, keys: 'stay', halfTime: false });
  return { workspace, rehearsal };
}
/** Lets the music go on to a second. */
function until(second: number): void {
  while (stage.now < second) {
    stage.now = Math.min(second, stage.now + 0.1);
    stage.tick();
  }
}
const bassBars = () => stage.heard.filter(({ part }) => part === 'bass').map(({ at }) => Math.floor(at / 4));

beforeEach(() => {
  stage.now = 0;
  stage.heard = [];
  stage.tick = () => undefined;
});

// A band that begins anew waits for its player: it has it before another file puts the page away.
afterEach(() => vi.dynamicImportSettled());

describe('the band', () => {
  it('plays an edited chart from the next round on, and shows what sounds until then', async () => {
    const { workspace, rehearsal } = open();
    await rehearsal.transport.play();
    until(1);
    workspace.document.setSource('{key: Eb}\n| Ab7 | Db7 |');
    expect(rehearsal.picture.now!.excerpt.changes.map(({ source }) => source.symbol)).toEqual([
      'Ebmaj7',
      'Cm7',
      'Fm7',
      'Bb7'
    ]);
    expect(rehearsal.picture.shown.changes).toHaveLength(4);
    until(8.5);
    expect(rehearsal.transport.round).toBe(1);
    expect(rehearsal.picture.now!.excerpt.changes.map(({ source }) => source.symbol)).toEqual(['Ab7', 'Db7']);
    expect(rehearsal.picture.beats).toBe(8);
    until(20);
    // Every bar has its bass: no silence where the old chart was longer.
    expect([...new Set(bassBars())]).toEqual(Array.from({ length: 11 }, (_, i) => i));
  });

  it('brings a loop that was cut off back into the chart, and says so', async () => {
    const { workspace, rehearsal } = open();
    rehearsal.loop.set({ kind: 'bars', from: 3, to: 4 });
    await rehearsal.transport.play();
    until(1);
    workspace.document.setSource('{key: Eb}\n| Ab7 | Db7 |');
    until(5);
    expect(rehearsal.loop.wish).toEqual({ kind: 'bars', from: 2, to: 2 });
    expect(rehearsal.notice.problem).toContain('bar 2');
    expect(rehearsal.picture.change!.source.symbol).toBe('Db7');
    until(12);
    expect(rehearsal.transport.isPlaying).toBe(true);
  });

  it('stops with a sentence when no chord is left', async () => {
    const { workspace, rehearsal } = open();
    await rehearsal.transport.play();
    workspace.document.setSource('');
    until(7);
    expect(rehearsal.transport.isPlaying).toBe(true);
    until(9);
    expect(rehearsal.transport.isPlaying).toBe(false);
    expect(rehearsal.notice.problem).toContain('no chords');
  });

  it('never sounds anything out of order when the tempo changes', async () => {
    const { rehearsal } = open();
    await rehearsal.transport.play();
    for (const [second, tempo] of [
      [1, 240],
      [1.3, 60],
      [1.5, 300],
      [2, 40],
      [2.1, 200]
    ] as const) {
      until(second);
      rehearsal.tempo.set(tempo);
    }
    until(12);
    const beats = stage.heard.map(({ at }) => at);
    expect(new Set(stage.heard.map(({ at, part, midi }) => `${at} ${part} ${midi}`)).size).toBe(beats.length);
    const steps = stage.heard.filter(({ part }) => part === 'bass').map(({ at }) => at);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
  });

  it('goes up the ladder by the clock of the sound, seen or not', async () => {
    const { rehearsal } = open();
    rehearsal.desk.set({
      ladder: { start: 120, goal: 160, step: 20, rounds: 1, onlyClean: false, isOn: true }
    });
    await rehearsal.transport.play();
    until(8.2);
    expect(rehearsal.tempo.value).toBe(140);
    until(8 + 6.9 + 0.3);
    expect(rehearsal.tempo.value).toBe(160);
  });

  it('proposes a rest by the clock of the sound', async () => {
    const { rehearsal } = open();
    settings.start({ ...DEFAULT_SETTINGS, restAfter: 1 });
    await rehearsal.transport.play();
    until(59);
    expect(rehearsal.rest.isDue).toBe(false);
    until(61);
    expect(rehearsal.rest.isDue).toBe(true);
  });

  it('sounds at half speed where that is wished, also in a ladder', async () => {
    const { rehearsal } = open();
    rehearsal.desk.set({
      halfTime: true,
      ladder: { start: 120, goal: 160, step: 20, rounds: 1, onlyClean: false, isOn: true }
    });
    expect(rehearsal.tempo.sounding).toBe(60);
    await rehearsal.transport.play();
    until(15.9);
    expect(rehearsal.transport.round).toBe(0);
    until(16.3);
    expect([rehearsal.transport.round, rehearsal.tempo.value, rehearsal.tempo.sounding]).toEqual([
      1, 140, 70
    ]);
  });

  it('goes round the keys, and moves what is edited meanwhile', async () => {
    const { workspace, rehearsal } = open();
    rehearsal.desk.set({ keys: 'fourths' });
    await rehearsal.transport.play();
    until(8.3);
    expect(rehearsal.picture.change!.source.symbol).toBe('Abmaj7');
    workspace.document.setSource('{meta: key Eb}\n| ebmaj7 |');
    until(16.3);
    expect(rehearsal.picture.change!.source.symbol).toBe('Dbmaj7');
    expect(rehearsal.picture.shown.analysis.key.tonic).toBe('Db');
  });

  it('goes on to the next section at a press, round the chart, and loops the one that sounds', () => {
    const section = (label: string, bars: string) =>
      `{start_of_grid label="${label}"}\n${bars}\n{end_of_grid}\n`;
    const { rehearsal, workspace } = open(
      section('A', '| Ebmaj7 | Cm7 |') + section('B', '| Fm7 | Bb7 |') + section('C', '| Abmaj7 |')
    );
    const bar = () =>
      rehearsal.loop.wish.kind === 'section' ? rehearsal.loop.wish.bar : rehearsal.loop.wish.kind;
    expect(bar()).toBe('form');
    rehearsal.loop.nextSection();
    expect(bar()).toBe(3);
    rehearsal.loop.nextSection();
    rehearsal.loop.nextSection();
    expect(bar()).toBe(1);
    rehearsal.loop.toggleSection();
    expect(bar()).toBe('form');
    workspace.select(3);
    rehearsal.loop.toggleSection();
    expect(bar()).toBe(3);
  });

  it('goes no further than the band plays, and says so', () => {
    const { rehearsal } = open();
    rehearsal.tempo.set(32);
    rehearsal.tempo.change(-4);
    expect([rehearsal.tempo.value, rehearsal.notice.problem]).toEqual([
      30,
      expect.stringContaining('as slow as')
    ]);
    rehearsal.tempo.change(4);
    expect([rehearsal.tempo.value, rehearsal.notice.problem]).toEqual([34, '']);
    rehearsal.tempo.set(299);
    rehearsal.tempo.change(4);
    expect([rehearsal.tempo.value, rehearsal.notice.problem]).toEqual([
      300,
      expect.stringContaining('as fast as')
    ]);
  });

  it('has nothing to play without chords, and says so', async () => {
    const { rehearsal } = open('');
    await rehearsal.transport.play();
    expect(rehearsal.transport.isPlaying).toBe(false);
    expect(rehearsal.notice.problem).toContain('nothing to play');
  });
});

describe('what is played', () => {
  function recorded(source = TUNE) {
    const rows = new Map<string, RecordedRow>();
    const workspace = new Workspace({ id: 'one', version: 1, damaged: false, source, plan: DEFAULT_PLAN });
    workspace.document.autosave.take = () => undefined;
    const rehearsal = new Rehearsal(workspace, {
      write: (...sent) => sent.forEach((row) => rows.set(row.id, row))
    });
    rehearsal.desk.set({
      countsIn: false,
      drill: 'up',
      ladder: null,
      keys: 'stay',
      halfTime: false
    });
    return { rehearsal, told: () => [...rows.values()] };
  }
  /** A round of four bars at 120 lasts eight seconds. */
  const ROUND = 8;

  it('is told round by round, for the item of its drill, key and place', async () => {
    const { rehearsal, told } = recorded();
    await rehearsal.transport.play();
    until(2 * ROUND + 0.5);
    const [row] = told();
    expect(row).toMatchObject({ rounds: 2, tempo: 120, key: 'Eb', what: 'Ascending', clean: null });
    expect(row!.seconds).toBeCloseTo(2 * ROUND, 0);
    expect(row!.item).toBe(`one:Eb:${row!.area}:up`);
  });

  it('is marked, and a stumble tells its change', async () => {
    const { rehearsal, told } = recorded();
    await rehearsal.transport.play();
    until(ROUND + 3);
    rehearsal.marks.mark(true);
    rehearsal.stumble();
    until(2 * ROUND + 0.5);
    expect(told().map(({ clean, stumbles }) => [clean, stumbles])).toEqual([
      [true, []],
      [false, [1]]
    ]);
  });

  const ASSIGNED = {
    item: 'mine',
    name: 'Descending',
    what: 'down',
    over: { kind: 'form' },
    area: 8,
    key: 'Ab',
    start: 120
  } as const;

  it('counts for what the stand was opened for, in its key and place, and the ladder follows the marks', async () => {
    const { rehearsal, told } = recorded();
    const steps = [{ minutes: 5, tempo: 120, base: null, goal: 160 }];
    await rehearsal.assign({ ...ASSIGNED, steps });
    await rehearsal.transport.play();
    // Four rounds of four bars are a run: at 120 each lasts eight seconds.
    for (let round = 1; round <= 4; round++) {
      until(round * ROUND + 0.2);
      expect(rehearsal.tempo.value).toBe(120);
      rehearsal.marks.mark(true);
    }
    const [row] = told();
    expect(row).toMatchObject({
      item: 'mine',
      key: 'Ab',
      area: 8,
      what: 'Descending',
      tempo: 120,
      bars: { from: 1, to: 4 }
    });
    expect(rehearsal.picture.shown.changes[0]!.symbol).toBe('Abmaj7');
    expect(rehearsal.tempo.value).toBe(125);
    // The player's own plan is as it was.
    expect(rehearsal.workspace.plan.position).toBe(DEFAULT_PLAN.position);
    rehearsal.transport.stop();
  });

  it('goes from step to step of a part by its time, counts on over a stop, and is done at the goal', async () => {
    const { rehearsal, told } = recorded();
    const steps = [
      { minutes: 0.2, tempo: 120, base: 120, goal: 120 },
      { minutes: 0.2, bars: { from: 3, to: 4 }, tempo: 115, base: null, goal: 120 },
      { minutes: 1, tempo: 120, base: 120, goal: 120 }
    ];
    await rehearsal.assign({ ...ASSIGNED, key: null, steps });
    await rehearsal.transport.play();
    until(ROUND + 0.2);
    expect(rehearsal.loop.wish).toEqual({ kind: 'form' });
    rehearsal.transport.stop();
    await rehearsal.transport.play();
    until(2 * ROUND + 0.4);
    // Twelve seconds are over: the section, a rung slower.
    expect([rehearsal.loop.wish, rehearsal.tempo.value]).toEqual([{ kind: 'bars', from: 3, to: 4 }, 115]);
    until(5 * ROUND);
    expect(rehearsal.loop.wish).toEqual({ kind: 'form' });
    expect(told().map(({ bars }) => bars)).toContainEqual({ from: 3, to: 4 });
    expect(rehearsal.marks.climb!.isDone).toBe(false);
    for (let round = 0; round < 5; round++) {
      until(6 * ROUND + round * ROUND);
      rehearsal.marks.mark(true);
    }
    expect(rehearsal.marks.climb!.isDone).toBe(true);
    rehearsal.transport.stop();
  });

  it('is the whole form’s own where the band plays it without a drill', async () => {
    const { rehearsal, told } = recorded();
    rehearsal.desk.set({ drill: null });
    await rehearsal.transport.play();
    until(ROUND + 0.5);
    expect(told()[0]!.item).toBe('one:Eb:form');
    rehearsal.transport.stop();
  });
});

describe('one change, one picture', () => {
  it('at rest is of the change that is selected, and of none that the loop leaves out', () => {
    const { workspace, rehearsal } = open();
    rehearsal.desk.set({ drill: 'up' });
    workspace.select(2);
    expect(rehearsal.picture.change?.source.symbol).toBe('Fm7');
    expect(rehearsal.picture.next?.source.symbol).toBe('Bb7');
    expect(
      rehearsal.picture.run.every(({ degree }) => ['1', '9', 'b3', '11', '5', '13', 'b7'].includes(degree))
    ).toBe(true);
    const target = workspace.paths.targets.get(2)!.cell;
    expect(rehearsal.picture.run[0]!.place).toMatchObject({ string: target.string, fret: target.fret });
    workspace.select(3);
    expect(rehearsal.picture.next?.source.symbol).toBe('Ebmaj7');
    rehearsal.loop.set({ kind: 'bars', from: 1, to: 2 });
    expect(rehearsal.picture.change).toBeNull();
    expect(rehearsal.picture.run).toEqual([]);
    workspace.select(1);
    expect(rehearsal.picture.next?.source.symbol).toBe('Ebmaj7');
  });

  it('tells what comes two seconds before, or a bar where that is longer', async () => {
    const { rehearsal } = open(
      '{key: Eb}\n{tempo: 240}\n| Ebmaj7 . . . | . . . . | . . . . | . . . . | Cm7 |'
    );
    await rehearsal.transport.play();
    // Four bars at 240 are four seconds; two of them are two bars.
    for (const [second, isComing] of [
      [1.5, false],
      [1.9, false],
      [2.1, true],
      [3.9, true],
      // A chord of one bar always has the next in sight.
      [4.1, true]
    ] as const) {
      until(second);
      rehearsal.transport.beat = (stage.now * 240) / 60;
      expect(rehearsal.picture.isComing, `${second}`).toBe(isComing);
    }
    rehearsal.transport.stop();
  });
});

describe('what the stand is opened for', () => {
  it('ends with it: drill, keys, loop and tempo are the player’s own again', async () => {
    const storage = fakeStorage();
    vi.stubGlobal('localStorage', storage);
    const { kept } = storage;
    const { rehearsal } = open();
    rehearsal.desk.set({ drill: 'down', keys: 'fourths' });
    rehearsal.loop.set({ kind: 'bars', from: 1, to: 2 });
    rehearsal.tempo.set(90);
    const assignment = {
      item: null,
      name: 'Ascending',
      what: 'up',
      over: { kind: 'form' } as const,
      area: 5,
      key: null,
      start: 140,
      steps: []
    };
    await rehearsal.assign(assignment);
    expect([rehearsal.desk.now.drill, rehearsal.loop.wish.kind, rehearsal.tempo.value]).toEqual([
      'up',
      'form',
      140
    ]);
    // A page that is left meanwhile finds the own drill again.
    expect(JSON.parse(kept.get('corvel-desk')!)).toMatchObject({ drill: 'down', keys: 'fourths' });
    vi.stubGlobal('localStorage', undefined);
    // Another part after it is not taken for the player's own.
    await rehearsal.assign({ ...assignment, what: 'targets', start: 150 });
    rehearsal.desk.set({ feel: 'bossa' });
    rehearsal.assigned.end();
    expect([rehearsal.desk.now.drill, rehearsal.desk.now.keys, rehearsal.tempo.value]).toEqual([
      'down',
      'fourths',
      90
    ]);
    expect(rehearsal.loop.wish).toEqual({ kind: 'bars', from: 1, to: 2 });
    // What was turned meanwhile stays.
    expect(rehearsal.desk.now.feel).toBe('bossa');
    rehearsal.desk.set({ feel: null });
  });

  it('plays the melody from the next bar on where the player is lost, until told', async () => {
    const { rehearsal } = open(
      '{key: Eb}\n{tempo: 240}\n{melody: G5:4 | C5:4 | Ab5:4 | D5:4}\n| Ebmaj7 | Cm7 | Fm7 | Bb7 |'
    );
    await rehearsal.transport.play();
    until(1.2);
    expect(stage.heard.filter(({ part }) => part === 'line')).toEqual([]);
    rehearsal.toggleLost();
    until(3.7);
    expect(stage.heard.filter(({ part }) => part === 'line').map(({ at, midi }) => [at, midi])).toEqual([
      [8, 80],
      [12, 74]
    ]);
    rehearsal.toggleLost();
    until(8);
    expect(stage.heard.filter(({ part, at }) => part === 'line' && at > 16)).toEqual([]);
    rehearsal.transport.stop();
  });
});
