/** The rooms of takes, each by itself; the sound is left out. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { StoredTake, TakeData } from '$lib/api/take';
import type { Listened } from '$lib/core/takes/model';
import type { Stroke } from '$lib/core/takes/player/perform';
import { workspaceOf } from '../testing';

const server = vi.hoisted(() => ({ takes: new Map<string, StoredTake>(), failures: 0, conflicts: 0 }));
vi.mock('./client', async () => {
  const { Refusal } = await import('../call');
  const answer = <T>(value: () => T) => {
    if (server.failures > 0) {
      server.failures -= 1;
      return Promise.reject(new Error('The server does not answer.'));
    }
    return Promise.resolve().then(value);
  };
  const listed = () => [...server.takes.values()].map((take) => ({ ...take, summary: null }));
  return {
    listTakes: () => answer(() => ({ takes: listed() })),
    openTake: (_: string, id: string) => answer(() => server.takes.get(id)),
    keepTake: (_: string, take: { id: string; data: TakeData }) =>
      answer(() => {
        server.takes.set(take.id, { ...take, version: 1, bytes: 0, way: take.data.way } as never);
        return server.takes.get(take.id);
      }),
    changeTake: (_: string, id: string, { base, ...edit }: { base: number }) =>
      answer(() => {
        if (server.conflicts-- > 0) throw new Refusal('This take was changed in another window.', 409);
        server.takes.set(id, { ...server.takes.get(id)!, ...edit, version: base + 1 });
        return server.takes.get(id);
      }),
    deleteTake: (_: string, id: string) => answer(() => server.takes.delete(id)),
    soundPath: () => ''
  };
});
vi.mock('../../workers/listener?worker', () => ({ default: class {} }));
const midi = vi.hoisted(() => ({ strike: (_: { midi: number; at: number }) => undefined as void }));
vi.mock('$lib/audio/midi-in', () => ({
  midiInputs: () => 1,
  listenToMidi: (onNote: typeof midi.strike) => {
    midi.strike = onNote;
    return Promise.resolve(() => undefined);
  }
}));

const { Takes } = await import('./takes.svelte');
const { TakeReading } = await import('./reading.svelte');
const { hearing } = await import('./hearing.svelte');
const { soundOf } = await import('./sound');
const { knownSounds } = await import('./known-sounds');
const { joinedBlocks, ownPart, swungBeats } = await import('./made-of');
const { PLAYED, simulate } = await import('./ways/player');
const { feelNamed } = await import('$lib/core/practice/feel');

/** What the simulated player was last heard through. */
let heardThrough = '';
/** Takes over a tune; the listener hears each stroke as it was played. */
function room() {
  const takes = new Takes(workspaceOf());
  let strokes: readonly Stroke[] = [];
  takes.work.run = (_, work) =>
    work({
      sound: (played: readonly Stroke[], _: unknown, effect?: string) => {
        strokes = played;
        heardThrough = effect ?? 'dry';
        return Promise.resolve(new Float32Array(44_100));
      },
      listen: () =>
        Promise.resolve<Listened>({
          notes: strokes.map(({ at, seconds, midi: pitch }) => ({
            at,
            seconds,
            midi: Math.round(pitch),
            cents: 0,
            level: 1,
            confidence: 1,
            curve: [],
            events: []
          })),
          tuning: 0,
          troubles: []
        })
    } as never);
  return takes;
}
const perfect = (what: string) => ({ skill: 1, tone: 'dark', seed: 1, what, rounds: 1 }) as const;

beforeEach(() => {
  server.takes.clear();
  server.failures = 0;
  server.conflicts = 0;
});

describe('what a take is made of', () => {
  const data = (way: TakeData['way'], notes: readonly number[]) =>
    ({
      way,
      tempo: 60,
      start: 0,
      source: '| C | F |',
      notes: notes.map((pitch, at) => ({ at, midi: pitch }))
    }) as never;

  it('is written as it lies on the neck behind a capo, where it was played on one', () => {
    const pitchesOf = (way: TakeData['way']) =>
      ownPart(data(way, [62, 64]), 2).notes.map((note) => note.midi);
    expect(pitchesOf('microphone')).toEqual([60, 62]);
    expect(pitchesOf('player')).toEqual([62, 64]);
  });

  it('has silence where blocks were lost', () => {
    const block = (frame: number, value: number) => ({ frame, samples: new Float32Array(2).fill(value) });
    expect([...joinedBlocks([block(10, 1), block(14, 0.5)])]).toEqual([1, 1, 0, 0, 0.5, 0.5]);
    expect(joinedBlocks([])).toHaveLength(0);
  });

  it('swings within each round', () => {
    const { sheet } = workspaceOf();
    const beatAt = swungBeats(sheet, feelNamed('swing')!, 120);
    expect(beatAt(0.5)).toBeGreaterThan(0.6);
    expect([beatAt(1), beatAt(16), beatAt(17)]).toEqual([1, 16, 17]);
    expect(swungBeats(sheet, feelNamed('straight')!, 120)(0.5)).toBe(0.5);
  });
});

describe('takes', () => {
  it('of the simulated player on the target line hit every target, and nothing is blamed', async () => {
    const takes = room();
    await simulate(takes, perfect(PLAYED.targets));
    const { judgement, remarks } = takes.judging;
    expect(judgement!.changes.every(({ target }) => target === undefined || target.met === 'hit')).toBe(true);
    expect(remarks.filter(({ kind }) => kind === 'mend' || kind === 'time')).toEqual([]);
    expect(takes.shelf.list).toHaveLength(1);
  });

  it('are corrected by hand: judged at once, step by step taken back, kept with what came meanwhile', async () => {
    const takes = room();
    await simulate(takes, perfect(PLAYED.targets));
    const { correcting, shelf } = takes;
    const pitches = () => shelf.opened!.data!.notes.map(({ midi: own }) => own);
    const stored = () => [...server.takes.values()][0]!;
    const [before, version] = [pitches(), stored().version];
    correcting.start();
    correcting.transpose(1);
    expect(takes.judging.judgement!.changes[0]!.target!.met).not.toBe('hit');
    correcting.split();
    correcting.remove();
    expect(pitches()).toEqual([before[0]! + 1, ...before.slice(1)]);
    server.failures = 1;
    await shelf.corrections.send();
    expect(stored().version).toBe(version);
    const isSent = shelf.corrections.send();
    correcting.undo();
    await isSent;
    correcting.stop();
    await shelf.corrections.send();
    expect(stored().data!.notes).toHaveLength(before.length + 1);
    correcting.start();
    for (let i = 0; i < 5; i++) correcting.undo();
    expect(pitches()).toEqual(before);
    expect(takes.judging.judgement!.changes[0]!.target!.met).toBe('hit');
    correcting.redo();
    expect(pitches()[0]).toBe(before[0]! + 1);
    // What was taken back is gone once something else is done.
    correcting.undo();
    correcting.transpose(-1);
    expect(correcting.canRedo).toBe(false);
    // Another take has no steps of this one.
    await simulate(takes, perfect(PLAYED.targets));
    expect([correcting.canUndo, correcting.canRedo]).toEqual([false, false]);
  });

  it('of the simulated player sound through its effect again whenever they are replayed', async () => {
    const takes = room();
    await simulate(takes, { ...perfect(PLAYED.targets), effect: 'delay' });
    expect(heardThrough).toBe('delay');
    expect(takes.shelf.opened!.data!.player!.effect).toBe('delay');
    heardThrough = '';
    await soundOf(takes);
    expect(heardThrough).toBe('delay');
  });

  it('know what the band sounded meanwhile, round after round, without what is muted', () => {
    const { rehearsal, workspace } = room();
    const { beats } = workspace.sheet.form;
    const seconds = 2 * beats + 0.9;
    const known = knownSounds(rehearsal, 60, 1, seconds);
    const ats = known.map(({ at }) => at);
    expect(Math.min(...ats)).toBeGreaterThan(0.9);
    expect(Math.max(...ats)).toBeGreaterThan(beats + 1);
    expect(known.some(({ midi: own }) => own === null)).toBe(true);
    const bass = known.filter(({ midi: own }) => own !== null && own < 48).length;
    expect(bass).toBeGreaterThan(4);
    rehearsal.desk.setMix('bass', { isMuted: true });
    const left = knownSounds(rehearsal, 60, 1, seconds);
    expect(left.length).toBeLessThan(known.length);
    rehearsal.desk.setMix('bass', { isMuted: false });
  });

  it('say what is missing where there is no line', async () => {
    const takes = room();
    await simulate(takes, perfect('a line that is gone'));
    expect(takes.notices.problem).toContain('There is no line to play yet');
    expect(server.takes.size).toBe(0);
  });

  it('stay judged by the plan of their day, and can be judged by today’s', async () => {
    const takes = room();
    await simulate(takes, perfect(PLAYED.targets));
    expect(takes.judging.isOfThen).toBe(false);
    const { choices, chosen } = takes.workspace;
    const then = chosen[0]!.name;
    choices.take(choices.offered[0]!.find(({ name }) => name !== chosen[0]!.name)!);
    expect([takes.judging.isOfThen, takes.judging.isOtherwise]).toEqual([true, true]);
    const judgedWith = () => takes.judging.arranged!.chosen[0]!.name;
    expect(judgedWith()).toBe(then);
    const undo = await takes.judging.byToday();
    expect([takes.judging.isOtherwise, takes.shelf.opened!.data!.today]).toEqual([false, true]);
    expect(judgedWith()).not.toBe(then);
    await undo!();
    expect(takes.judging.isOtherwise).toBe(true);
  });

  it('are moved by beats, and back', async () => {
    const takes = room();
    await simulate(takes, perfect(PLAYED.targets));
    const { start, tempo } = takes.shelf.opened!.data!;
    const undo = await takes.shelf.moveBy(1);
    expect(takes.shelf.opened!.data!.start).toBeCloseTo(start - 60 / tempo);
    await undo!();
    expect(takes.shelf.opened!.data!.start).toBe(start);
    server.failures = 1;
    expect(await takes.shelf.moveBy(1)).toBeNull();
    expect(takes.notices.problem).toBe('The server does not answer.');
  });

  it('that two views listen to are shown by both as one of them heard them', async () => {
    const [left, returned] = [room(), room()];
    await simulate(left, perfect(PLAYED.targets));
    const { id, data } = left.shelf.opened!;
    const recorded = { ...data!, way: 'microphone', notes: [] } as TakeData;
    server.takes.set(id, {
      ...server.takes.get(id)!,
      data: recorded,
      way: 'microphone',
      seconds: 0,
      bytes: 9
    });
    await returned.shelf.load();
    expect(returned.shelf.unheard).toBe('torn off');
    left.shelf.close();
    await hearing(id, async () => {
      expect(returned.shelf.unheard).toBe('being heard');
      await left.shelf.hear(id, 5, (own) => ({ ...own, notes: data!.notes }));
    });
    await vi.waitFor(() => expect(returned.shelf.unheard).toBe(null));
    expect(returned.shelf.opened!.data!.notes).toEqual(data!.notes);
    server.conflicts = 1;
    await returned.shelf.hear(id, 7, (own) => ({ ...own, notes: [] }));
    expect(returned.notices.problem).toBe('');
    expect(returned.shelf.opened!.seconds).toBe(5);
    returned.shelf.close();
  });

  it('are read round by round, bar by bar, and change by change', async () => {
    const takes = room();
    await simulate(takes, { ...perfect(PLAYED.targets), rounds: 2 });
    const looped: number[][] = [];
    const replaying = { beat: null as number | null, loop: (...ends: number[]) => looped.push(ends) };
    const reading = new TakeReading(takes, replaying as never);
    const { beats, bars } = takes.workspace.sheet.form;
    expect([reading.rounds, reading.round, reading.time]).toEqual([2, 0, null]);
    const first = reading.line.map(({ start, midi: own }) => [start, own]);
    // A hair before the second round it is as good as there.
    replaying.beat = beats - 0.01;
    reading.followReplay();
    expect(reading.round).toBe(1);
    expect(reading.line.map(({ start, midi: own }) => [start, own])).toEqual(first);
    expect(reading.line.every(({ place }) => place)).toBe(true);
    expect(reading.over.every(({ read }) => read.change === 0)).toBe(true);
    replaying.beat = null;
    takes.workspace.select(1);
    expect(reading.over.every(({ read }) => read.change === 1)).toBe(true);
    expect(reading.over.length).toBeGreaterThan(0);
    reading.loopChange();
    reading.mark('from', 2);
    reading.mark('to', 1);
    expect(reading.passage).toEqual({ from: 1, to: 1 });
    reading.mark('to', 2);
    reading.loopPassage();
    const { start, beats: long } = reading.change!;
    expect(looped).toEqual([
      [beats + start, beats + start + long],
      [beats, beats + bars[1]!.start + bars[1]!.beats]
    ]);
    reading.begin();
    expect([reading.round, reading.passage]).toEqual([0, null]);
  });

  it('give way to the next one when they are deleted', async () => {
    const takes = room();
    await simulate(takes, perfect(PLAYED.targets));
    await simulate(takes, { ...perfect(PLAYED.targets), seed: 2 });
    const [first, second] = takes.shelf.list;
    await takes.shelf.open(second!.id);
    await takes.shelf.putBeside(first!.id);
    expect(takes.judging.beside!.judgement.changes.length).toBeGreaterThan(0);
    expect(await takes.shelf.remove(second!)).toBe(true);
    expect([takes.shelf.opened!.id, takes.shelf.list.length]).toEqual([first!.id, 1]);
  });

  it('trade bars: Corvel calls, the answers alone are the player’s', async () => {
    const takes = room();
    takes.trading.bars = 2;
    await simulate(takes, perfect(PLAYED.found));
    const { data } = takes.shelf.opened!;
    expect(data!.trade!.bars).toBe(2);
    const beat = (at: number) => ((at - data!.start) * data!.tempo) / 60;
    // The first two bars are Corvel's.
    expect(Math.min(...data!.notes.map(({ at }) => beat(at)))).toBeGreaterThan(7);
    expect(takes.judging.exchanges.length).toBeGreaterThan(0);
  });

  it('come from a MIDI instrument against the first beat, and nothing is kept where nothing came', async () => {
    const takes = room();
    const stand = {
      firstBeat: { second: 10, tempo: 120 },
      audioNow: 10,
      stop: () => undefined,
      play: () => Promise.resolve()
    };
    Object.defineProperty(takes.rehearsal, 'transport', { value: stand });
    await takes.record(takes.midi);
    expect(takes.isRecording).toBe(true);
    await takes.finish();
    expect([takes.notices.problem, server.takes.size]).toEqual([
      'No note came in from the instrument; nothing was kept.',
      0
    ]);
    await takes.record(takes.midi);
    midi.strike({ midi: 67, at: performance.now() + 500 });
    stand.audioNow = 12;
    await takes.finish();
    const [note] = takes.shelf.opened!.data!.notes;
    expect(note!.midi).toBe(67);
    expect(note!.at).toBeCloseTo(0.5, 1);
  });
});
