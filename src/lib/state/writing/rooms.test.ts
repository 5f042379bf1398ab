/** Writing on bars without a browser: the caret, what is typed, what is undone, and what stays the player's. */
import { describe, expect, it, vi } from 'vitest';
import { pin } from '$lib/core/plan/edits';
import { workspaceOf } from '../testing';
import { BarEdits } from './bar-edits.svelte';
import { FormEdits } from './form-edits';
import { Writing } from './writing.svelte';

function room(source: string) {
  const workspace = workspaceOf(source);
  const writing = new Writing(workspace);
  const text = () => workspace.document.source.replaceAll(/ +/g, ' ');
  // On a busy machine a text is read at rest.
  const read = () => workspace.document.settle();
  const type = (...words: string[]) => {
    // Letter by letter, as a hand does.
    for (const word of words) for (let i = 1; i <= word.length; i++) writing.type(word.slice(0, i));
    read();
  };
  return {
    workspace,
    writing,
    bars: new BarEdits(workspace, writing),
    form: new FormEdits(writing),
    text,
    type
  };
}

describe('what is typed at the caret', () => {
  it('stands in the chart at once, goes on bar by bar, and is one undo a place', () => {
    vi.useFakeTimers();
    const { writing, workspace, text, type } = room('{key: Eb}\n');
    for (const symbol of ['Fm7', 'Bb7', 'Ebmaj7']) {
      type(symbol);
      expect(text()).toContain(`| ${symbol} |`.slice(1));
      writing.enter();
      vi.advanceTimersByTime(5000);
    }
    expect(text()).toBe('{key: Eb}\n{start_of_grid}\n| Fm7 | Bb7 | Ebmaj7 |\n{end_of_grid}\n');
    workspace.undo();
    expect(text()).toContain('| Fm7 | Bb7 |\n');
    workspace.redo();
    expect(workspace.changes.map(({ symbol }) => symbol)).toEqual(['Fm7', 'Bb7', 'Ebmaj7']);
    vi.useRealTimers();
  });

  it('is taken back by Escape, with the decisions that stood on the chord', () => {
    const { writing, workspace, text, type } = room('| Fm7 | Bb7 | Ebmaj7 |');
    workspace.document.decide((plan) => pin(plan, 1, { string: 3, fret: 7 }), 'pin');
    writing.go(1);
    type('E7');
    expect(workspace.targetLine.isPinned(1)).toBe(false);
    expect(writing.cancel()).toBe(true);
    expect(text()).toBe('| Fm7 | Bb7 | Ebmaj7 |');
    expect(workspace.targetLine.isPinned(1)).toBe(true);
    // Typed as it was: nothing is lost on the way there.
    type('Bb7');
    writing.enter();
    expect(workspace.targetLine.isPinned(1)).toBe(true);
  });

  it('is several chords, a sign for the bar, or a further chord in half the time', () => {
    const { writing, text, type } = room('| C | F | G | Am |');
    type('Dm7 G7');
    writing.enter();
    type('%');
    writing.enter();
    writing.split();
    type('E7');
    writing.enter();
    expect(text()).toBe('| Dm7 G7 | % | G E7 | Am |');
    writing.go(0, 2);
    writing.split();
    type('C7');
    expect(text()).toBe('| Dm7 . G7 C7 | % | G E7 | Am |');
  });

  it('is what is proposed, by its number, and the page shows the change', () => {
    const { writing, workspace, text } = room('{key: Gm}\n| Am7b5 | |');
    writing.go(1);
    expect(writing.proposals.suggestions[0]).toMatchObject({ symbol: 'D7b9' });
    writing.take(0);
    expect(text()).toBe('{key: Gm}\n| Am7b5 | D7b9 |');
    writing.go(1);
    expect(workspace.change?.symbol).toBe('D7b9');
    expect(writing.proposals.reading).toMatchObject({ kind: 'chord', numeral: 'V7' });
    workspace.select(0);
    writing.follow(workspace.selected);
    expect(writing.caret).toEqual({ bar: 0, beat: 0 });
  });

  it('is said where it is not understood, in its bar, and mended', () => {
    const { writing, text, type } = room('| C | F |');
    writing.go(1);
    type('Fmja7');
    expect(writing.proposals.reading?.kind).toBe('problem');
    expect([...writing.problems.keys()]).toEqual([1]);
    writing.mend('Fmaj7');
    expect(text()).toBe('| C | Fmaj7 |');
    expect(writing.problems.size).toBe(0);
  });
});

describe('selected bars', () => {
  it('are copied, pasted, moved, made simpler, transposed, replaced', () => {
    const { writing, bars, text } = room('{key: Eb}\n| Fm9 | Bb13 | Ebmaj7 | Fm9 |');
    writing.go(0);
    writing.walkBars(1, true);
    expect(writing.selection).toEqual({ from: 0, to: 1 });
    bars.copy();
    bars.moveTo(3);
    expect(text()).toBe('{key: Eb}\n| Ebmaj7 | Fm9 | Fm9 | Bb13 |');
    expect(writing.selection).toEqual({ from: 2, to: 3 });
    bars.simplify('triads');
    expect(text()).toBe('{key: Eb}\n| Ebmaj7 | Fm9 | Fm | Bb |');
    writing.selectAll();
    bars.transpose(2);
    expect(text()).toBe('{key: Eb}\n| Fmaj7 | Gm9 | Gm | C |');
    bars.replace('Gm9', 'G7');
    writing.go(4);
    bars.paste();
    expect(text()).toBe('{key: Eb}\n| Fmaj7 | G7 | Gm | C |\n| Fm9 | Bb13 |');
  });

  it('go to other charts as text, and come from any text that has bars', () => {
    const { writing, bars, text } = room('|: Fm7 | Bb7 :| Eb |');
    writing.selectAll();
    bars.copy();
    expect(bars.clipText).toBe('|: Fm7 | Bb7 :| Eb |');
    writing.go(3);
    expect(bars.pasteText('Gm7')).toBe(false);
    expect(bars.pasteText('C7 | F7 |')).toBe(true);
    expect(bars.pasteText('Chords:\nDm7\nG7\n')).toBe(true);
    expect(bars.pasteText(bars.clipText)).toBe(true);
    expect(text()).toBe('|: Fm7 | Bb7 :| Eb | C7 | F7 |\n| Dm7 | G7 |: Fm7 | Bb7 :| Eb |');
  });

  it('go chord by chord and bar by bar where they are deleted', () => {
    const { writing, bars, text } = room('| C F | G | Am |');
    writing.go(0, 2);
    bars.erase();
    expect([text(), writing.caret]).toEqual(['| C | G | Am |', { bar: 0, beat: 0 }]);
    bars.erase();
    bars.erase();
    expect(text()).toBe('| G | Am |');
    bars.insert('before');
    bars.nudge(1);
    expect(text()).toBe('| G | | Am |');
  });

  it('get sections, repeats, endings, meters, notes; all is taken away again', () => {
    const { writing, form, text, workspace } = room('| C | F | G | Am | Dm | E |\n');
    writing.go(2);
    writing.walkBars(1, true);
    form.setEnding([1]);
    writing.go(4);
    form.setEnding([2]);
    expect(text()).toBe('|: C | F |1 G | Am :|2 Dm | E |\n');
    expect(workspace.changes).toHaveLength(8);
    form.setEnding([]);
    writing.selectAll();
    form.toggleRepeat();
    expect(text()).toBe('| C | F | G | Am | Dm | E |\n');
    writing.go(3);
    form.nameSection('B');
    form.setNotes(['brushes']);
    form.setMeter({ beats: 3, unit: 4 });
    expect(writing.bar).toMatchObject({ section: 'B', notes: ['brushes'], meter: { beats: 3 } });
    expect(form.section).toEqual({ from: 3, to: 5 });
    form.setMeter({ beats: 4, unit: 4 });
    form.setNotes([]);
    form.joinSection();
    form.declare('composer', 'the bass player');
    form.declare('composer', '');
    expect(workspace.changes.map(({ symbol, beats }) => symbol + beats).join(' ')).toBe(
      'C4 F4 G4 Am4 Dm4 E4'
    );
  });
});
