import { describe, expect, it } from 'vitest';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import { Workspace } from './workspace.svelte';

const TUNE = '{key: Gm}\n| Gm6 | Am7b5 D7b9 | Gm6 | Cm7 F7 |';
function open(source = TUNE, isFrozen = false) {
  const chart = { id: 'one', version: 1, damaged: false, source, plan: DEFAULT_PLAN };
  const workspace = new Workspace(chart, isFrozen);
  workspace.document.autosave.take = () => undefined;
  return workspace;
}
const symbols = (workspace: Workspace) => workspace.changes.map(({ symbol }) => symbol);
const pinned = (workspace: Workspace) =>
  workspace.plan.decisions.flatMap(({ change, pins }) => (pins ? [workspace.changes[change]!.symbol] : []));

describe('a workspace', () => {
  it('reads a long text when the player rests, and before anything else is done', () => {
    const rows = (symbol: string) => `| ${symbol} | F7 | Bb7 | Eb7 |\n`.repeat(200);
    const workspace = open(rows('Cm7'));
    const { document } = workspace;
    // So long a text takes its time to read.
    expect(workspace.changes).toHaveLength(800);
    document.type(rows('Cm7') + '| A');
    document.type(rows('Cm7') + '| Ab7 |');
    expect(workspace.changes).toHaveLength(800);
    document.settle();
    expect(workspace.changes.at(-1)?.symbol).toBe('Ab7');
    document.type(rows('Cm7') + '| Ab7 | G7 |');
    workspace.hand.moveTo(7);
    expect(workspace.changes.at(-1)?.symbol).toBe('G7');
    expect(workspace.position).toBe(7);
    document.type(TUNE);
    document.undo();
    expect(workspace.changes.at(-1)?.symbol).toBe('G7');
  });

  it('walks round the form and tells where it is', () => {
    const workspace = open();
    workspace.select(1);
    expect(workspace.document.announcement).toMatch(/^Am7b5, bar 2, target /);
    workspace.select(-1);
    expect(workspace.change?.symbol).toBe('F7');
    expect(workspace.nextIndex).toBe(0);
  });

  it('stays within the chart when the chart grows shorter', () => {
    const workspace = open();
    workspace.select(5);
    workspace.document.setSource('| Gm6 | Cm7 |');
    expect(workspace.selected).toBe(1);
  });

  it('keeps decisions on their chords while the text is edited, and lets them go with theirs', () => {
    const workspace = open();
    workspace.select(2);
    workspace.targetLine.aim('5');
    workspace.select(4);
    workspace.targetLine.aim('7');
    expect(pinned(workspace)).toEqual(['D7b9', 'Cm7']);
    workspace.document.setSource(TUNE.replace('| Gm6 | Am7b5 D7b9', '| Am7b5 D7b9'));
    expect(pinned(workspace)).toEqual(['D7b9', 'Cm7']);
    workspace.document.setSource(TUNE.replace('Am7b5 D7b9', 'Am7b5'));
    expect(pinned(workspace)).toEqual(['Cm7']);
    // The two edits of the text were one run of typing.
    workspace.document.undo();
    expect(symbols(workspace)).toHaveLength(6);
    expect(pinned(workspace)).toEqual(['D7b9', 'Cm7']);
  });

  it('aims at a degree, and at its next octave when pressed again', () => {
    const workspace = open();
    workspace.targetLine.aim('1');
    const first = workspace.paths.targets.get(0)!.cell;
    expect(first).toMatchObject({ degree: '1', note: 'G' });
    workspace.targetLine.aim('1');
    const second = workspace.paths.targets.get(0)!.cell;
    expect(second.note).toBe('G');
    // From the lowest octave up, and round again.
    const roots = workspace.tones[0]!.filter(({ degree }) => degree === '1').map(({ midi }) => midi);
    const after = (midi: number) => roots[(roots.indexOf(midi) + 1) % roots.length];
    expect(roots.length).toBeGreaterThan(2);
    expect(second.midi).toBe(after(first.midi));
    workspace.targetLine.aim('9');
    expect(workspace.document.announcement).toBe('Gm6 has no 9 in this position');
    workspace.targetLine.unpin(0);
    expect(pinned(workspace)).toEqual([]);
  });

  it('moves the hand of the whole plan, or of the change that has its own', () => {
    const workspace = open();
    workspace.hand.moveTo(7);
    expect(new Set(workspace.positions)).toEqual(new Set([7]));
    workspace.hand.paint(new Map([[2, 3]]));
    workspace.select(2);
    workspace.hand.moveTo(4);
    expect(workspace.positions).toEqual([7, 7, 4, 7, 7, 7]);
    workspace.hand.settle(5);
    expect(new Set(workspace.positions)).toEqual(new Set([5]));
    workspace.hand.moveTo(400);
    expect(workspace.position).toBe(workspace.arrangement.highestPosition);
  });

  it('takes another line by pinning what differs from the best', () => {
    const workspace = open();
    workspace.paths.wantsAlternatives = true;
    const other = workspace.paths.alternatives[0]!;
    workspace.targetLine.takePath(other.path);
    const cells = (targets: readonly { cell: { midi: number } }[]) => targets.map(({ cell }) => cell.midi);
    expect(cells(workspace.paths.path!.targets)).toEqual(cells(other.path.targets));
    expect(pinned(workspace).length).toBeLessThanOrEqual(other.differences.length);
  });

  it('follows a line of notes, each in the octave nearest the one before', () => {
    const workspace = open();
    workspace.targetLine.followLine(['Bb', 'C', 'C', 'Bb', 'Eb', null]);
    const line = [0, 1, 2, 3, 4].map((change) => workspace.paths.targets.get(change)!.cell);
    expect(line.map(({ note }) => note)).toEqual(['Bb', 'C', 'C', 'Bb', 'Eb']);
    expect(Math.abs(line[1]!.midi - line[0]!.midi)).toBe(2);
    expect(workspace.targetLine.isPinned(5)).toBe(false);
  });

  it('lands on the melody where it is a tone of the chord, as one step', () => {
    const workspace = open(`{melody: Bb4:4 | C5:2 D5:2 | E4:4 | Eb4:2 A4:2}\n${TUNE}`);
    workspace.targetLine.landOnMelody();
    const landed = workspace.changes.map(({ index }) => workspace.paths.targets.get(index)!.cell);
    expect(landed[0]!.degree).toBe('b3');
    expect(landed.slice(1, 3).map(({ note }) => note)).toEqual(['C', 'D']);
    expect(pinned(workspace)).toEqual(['Gm6', 'Am7b5', 'D7b9', 'Gm6', 'Cm7', 'F7']);
    expect(landed[3]!.note).toBe('E');
    workspace.document.undo();
    expect(pinned(workspace)).toEqual([]);
    workspace.shownNeck.showMelody();
    expect(workspace.shownNeck.mode).toBe('melody');
    const without = open();
    without.shownNeck.showMelody();
    expect(without.shownNeck.mode).toBe('hand');
  });

  it('does not read the text again, nor choose again, where only the hand moves', () => {
    const workspace = open();
    const { sheet, analysis, chosen } = workspace;
    workspace.hand.moveTo(9);
    expect(workspace.sheet).toBe(sheet);
    expect(workspace.analysis).toBe(analysis);
    expect(workspace.chosen).toBe(chosen);
  });

  it('that is only shown cannot be changed', () => {
    const workspace = open(TUNE, true);
    workspace.hand.moveTo(9);
    workspace.targetLine.aim('5');
    expect(workspace.plan).toBe(DEFAULT_PLAN);
  });
});
