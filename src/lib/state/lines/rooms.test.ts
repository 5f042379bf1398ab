/** The rooms of lines, each by itself. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { StoredLine } from '$lib/api/line';
import { noteOf, TICKS, type LineNote } from '$lib/core/line/model';
import { workspaceOf } from '../testing';
import { Lines } from './lines.svelte';
import { moveLine, moveToChords, moveToStrings, repeatMotif } from './moves';

const server = vi.hoisted(() => ({ lines: [] as StoredLine[], isAway: false }));
vi.mock('./client', () => {
  const answer = <T>(value: () => T) =>
    server.isAway ? Promise.reject(new Error('The server does not answer.')) : Promise.resolve(value());
  return {
    listLines: () => answer(() => ({ lines: server.lines })),
    keepLine: (_: string, id: string, line: Omit<StoredLine, 'id' | 'version'>) =>
      answer(() => ({ ...line, id, version: 1 })),
    changeLine: (_: string, __: string, { base }: { base: number }) => answer(() => ({ version: base + 1 })),
    deleteLine: () => answer(() => undefined),
    restoreLine: () => answer(() => undefined)
  };
});
vi.mock('../windows', async (original) => ({
  ...(await original<typeof import('../windows')>()),
  otherWindows: () => Promise.resolve([])
}));

const note = (beat: number, midi: number, beats = 1): LineNote => noteOf(beat * TICKS, beats * TICKS, midi);
/** G B♭ D G over Gm6. */
const LINE = [67, 70, 74, 67].map((midi, i) => note(i, midi));

function room() {
  const workspace = workspaceOf();
  const lines = new Lines(workspace);
  lines.current.edit(LINE, 'written');
  return { workspace, lines, current: lines.current };
}
const pitches = ({ current }: Lines) => current.shown!.notes.map(({ midi }) => midi);

beforeEach(() => {
  server.lines = [];
  server.isAway = false;
});

describe('the current line', () => {
  it('is placed where it has no place, and goes back and on step by step', () => {
    const { current } = room();
    expect(current.shown!.notes.every(({ place }) => place)).toBe(true);
    current.edit(LINE.slice(0, 2), 'shorter');
    current.undo();
    expect(current.shown!.notes).toHaveLength(4);
    current.undo();
    expect([current.shown, current.canUndo]).toEqual([null, false]);
    current.redo();
    current.redo();
    expect(current.shown!.notes).toHaveLength(2);
    current.undo();
    expect(current.canRedo).toBe(true);
    // What is done anew leaves nothing to be done again.
    current.blank();
    expect([current.shown!.notes.length, current.canRedo]).toEqual([0, false]);
  });
});

describe('moving a line', () => {
  it('goes along its strings, and undo brings it back', () => {
    const { lines, current } = room();
    const frets = () => current.shown!.notes.map(({ place }) => place!.fret);
    const before = frets();
    moveLine(lines, { semitones: 2, where: 'along' });
    expect(pitches(lines)).toEqual([69, 72, 76, 69]);
    expect(frets()).toEqual(before.map((fret) => fret + 2));
    current.undo();
    expect(pitches(lines)).toEqual([67, 70, 74, 67]);
  });

  it('says what no neck has, and leaves the line', () => {
    const { lines, current } = room();
    moveLine(lines, { semitones: 40, where: 'along' });
    expect(current.problem).not.toBe('');
    moveToStrings(lines, [6]);
    expect(pitches(lines)).toEqual([67, 70, 74, 67]);
  });

  it('follows chords that were edited under it, degree by degree', () => {
    const { lines, workspace } = room();
    const over = workspace.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
    workspace.document.setSource('{key: C}\n| Cm6 | Dm7b5 G7b9 | Cm6 | Fm7 Bb7 |');
    moveToChords(lines, over);
    expect(pitches(lines).map((midi) => midi % 12)).toEqual([0, 3, 7, 0]);
  });

  it('repeats a motif over what comes', () => {
    const { lines, current } = room();
    repeatMotif(lines, { bars: 1, how: 'led', subdivision: 2 });
    expect(current.shown!.notes.length).toBeGreaterThan(8);
    expect(pitches(lines).slice(0, 4)).toEqual([67, 70, 74, 67]);
    const { lines: empty, current: none } = room();
    none.blank();
    repeatMotif(empty, { bars: 1, how: 'led', subdivision: 2 });
    expect(none.problem).toBe('There is nothing in this bar to repeat.');
  });
});

describe('the shelf', () => {
  it('keeps a new line under a free name, then what is changed of it', async () => {
    const { lines, current } = room();
    await lines.shelf.keep();
    expect([lines.shelf.all.length, lines.shelf.isKept]).toEqual([1, true]);
    current.edit(LINE.slice(0, 3), 'shorter');
    expect(lines.shelf.isKept).toBe(false);
    await lines.shelf.keep();
    expect([lines.shelf.all.length, lines.shelf.all[0]!.version]).toEqual([1, 2]);
    current.show({ notes: LINE, name: lines.shelf.all[0]!.name, id: null, finding: null });
    await lines.shelf.keep();
    expect(lines.shelf.all.map(({ name }) => name)).toEqual(['A line of my own', 'A line of my own 2']);
  });

  it('loses nothing while the server is away, and says so', async () => {
    const { lines, current } = room();
    server.isAway = true;
    await lines.shelf.keep();
    expect([current.problem, lines.shelf.all.length, current.shown!.notes.length]).toEqual([
      'The server does not answer.',
      0,
      4
    ]);
    expect(await lines.shelf.remove()).toBeNull();
  });

  it('brings a deleted line back', async () => {
    const { lines, current } = room();
    await lines.shelf.keep();
    const back = await lines.shelf.remove();
    expect([lines.shelf.all.length, current.shown!.id]).toEqual([0, null]);
    await back!();
    expect(lines.shelf.all.map(({ id }) => id)).toEqual([current.shown!.id]);
  });

  it('knows a line whose chords were edited', async () => {
    const { lines, workspace } = room();
    await lines.shelf.keep();
    expect(lines.shelf.isOverOthers).toBe(false);
    workspace.document.setSource('{key: C}\n| Cm6 | Dm7b5 G7b9 | Cm6 | Fm7 Bb7 |');
    expect(lines.shelf.isOverOthers).toBe(true);
  });
});

describe('the judged line', () => {
  it('hears the line that is shown, and a mend makes its change clear', () => {
    const { lines, workspace, current } = room();
    workspace.select(0);
    current.edit([note(0, 65), note(1, 70), note(2, 74), note(3, 65)], 'another');
    const { outline, mend } = lines.judged;
    expect(outline!.windows[0]!.verdict).not.toBe('clear');
    expect(lines.judged.mended(mend!)).toHaveLength(4);
    lines.judged.take(mend!);
    expect(lines.judged.outline!.windows[0]!.verdict).toBe(mend!.reaches === 'clear' ? 'clear' : 'partly');
  });
});
