/** The room for phrases, over a line that the finder makes in this process. */
import { describe, expect, it } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import type { Stretch } from '$lib/core/line/edit';
import { endOf, TICKS, type LineNote } from '$lib/core/line/model';
import type { OnePhrase } from '$lib/core/line/phrase/alone';
import { STANDARD } from '$lib/core/neck/tuning';
import { systemOf } from '$lib/core/neck/systems/registry';
import { arrange } from '$lib/core/plan/arrange';
import { linesOf, type LineWish } from '$lib/core/plan/lines';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import type { CurrentLine } from './current.svelte';
import type { Finding } from './finding.svelte';
import type { Workspace } from '../chart/workspace.svelte';
import { Phrases } from './phrases.svelte';

/** A bossa in A flat, so that phrases are short and between beats. */
const TUNE =
  '{key: Ab}\n{tempo: 126}\n{feel: bossa}\n{style: latin}\n| Abmaj7 | % | Bbm7 | Eb7 | Cm7 | F7b9 | Bbm7 | Eb7 | Abmaj7 | Ab7 | Dbmaj7 | Dbm6 | Cm7 | F7b9 | Bbm7 Eb7 | Abmaj7 |';

function room() {
  const sheet = readSheet(TUNE);
  const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
  const find = (wish: Partial<LineWish>) =>
    linesOf(arranged, { level: 'phrases', subdivision: 2, seed: 3, alternatives: 1, ...wish });
  const past: unknown[] = [];
  const lines = {
    shown: { notes: find({}).lines[0]!.notes as readonly LineNote[], locks: [] as readonly Stretch[] },
    problem: '',
    revise(notes: readonly LineNote[], _: string, locks: readonly Stretch[]) {
      past.push(lines.shown);
      lines.shown = { notes, locks };
    },
    findPhrase(only: Omit<OnePhrase, 'part'>, turn: number) {
      const { lines: found, noLine } = find({ only, seed: 3 + turn });
      lines.problem = found[0] ? '' : (noLine?.message ?? '');
      return Promise.resolve(found[0]?.notes ?? null);
    }
  };
  const said: string[] = [];
  const workspace = {
    sheet,
    changes: sheet.analysis.changes,
    selected: 0,
    select: () => undefined,
    say: (words: string) => said.push(words)
  };
  // Outside a component what is derived is worked out anew each time it is read.
  const phrases = new Phrases(
    lines as unknown as CurrentLine,
    lines as unknown as Finding,
    workspace as unknown as Workspace
  );
  const of = (i: number) => {
    const { first, end } = phrases.all[i]!.notes;
    return lines.shown.notes.slice(first, end);
  };
  return { phrases, lines, said, past, of, bars: sheet.form.bars };
}
const isWhole = (notes: readonly LineNote[]) =>
  notes.every(
    (note, i) => i === 0 || note.start >= endOf(notes[i - 1]!) || note.start === notes[i - 1]!.start
  );

describe('the room for phrases', () => {
  it('makes one anew and leaves all others as they are', async () => {
    const { phrases, lines, of } = room();
    const before = lines.shown.notes;
    const own = of(1);
    expect(await phrases.renew(1)).toBe(true);
    const others = before.filter((note) => !own.includes(note));
    for (const note of others) expect(lines.shown.notes).toContain(note);
    expect(lines.shown.notes).not.toEqual(before);
    expect(isWhole(lines.shown.notes)).toBe(true);
  });

  it('touches nothing that is locked, and says why', async () => {
    const { phrases, lines, past, bars } = room();
    phrases.lock(1);
    expect(phrases.isLocked(1)).toBe(true);
    const { notes } = lines.shown;
    const { name } = phrases.all[1]!;
    for (const work of [() => phrases.renew(1), () => phrases.relate(1, 0, 'literal')]) {
      lines.problem = '';
      expect(await work()).toBe(false);
      expect(lines.problem).toContain(`Phrase ${name} is locked`);
    }
    phrases.remove(1);
    // Nor does it give way to one that is moved upon it.
    const [one, two] = [phrases.all[0]!, phrases.all[1]!];
    const over = bars.findIndex((bar, i) => {
      const by = (bar.start - bars[one.first]!.start) * TICKS;
      return i > one.first && one.from + by < two.to && two.from < one.to + by;
    });
    expect(over).toBeGreaterThan(one.first);
    lines.problem = '';
    expect(await phrases.move(0, over - one.first)).toBe(false);
    expect(lines.problem).toContain('is locked');
    expect(lines.shown.notes).toBe(notes);
    expect(past).toHaveLength(1);
    phrases.lock(1);
    expect(phrases.isLocked(1)).toBe(false);
    expect(await phrases.renew(1)).toBe(true);
  });

  it('moves by bars: the rhythm stays, what lies there gives way, and a lock goes along', async () => {
    const { phrases, lines, of, bars } = room();
    phrases.lock(0);
    const model = of(0);
    const { first } = phrases.all[0]!;
    const target = phrases.all[1]!;
    const by = target.first - first;
    expect(await phrases.move(0, by)).toBe(true);
    const moved = phrases.all[phrases.selected!]!;
    const shift = (bars[target.first]!.start - bars[first]!.start) * TICKS;
    const upper = (notes: readonly LineNote[]) =>
      notes.filter((note, i) => notes[i + 1]?.start !== note.start);
    // A note or two may be lost for the breath beside a neighbour.
    const times = upper(model).map(({ start }) => start + shift);
    const now = upper(of(phrases.selected!)).map(({ start }) => start);
    expect(times.join()).toContain(now.join());
    expect(now.length).toBeGreaterThanOrEqual(times.length - 2);
    expect(phrases.isLocked(phrases.selected!)).toBe(true);
    expect(moved.first).toBe(target.first);
    // Nothing sounds where it was.
    expect(lines.shown.notes.some(({ start }) => start >= model[0]!.start && start < target.from)).toBe(
      false
    );
    expect(isWhole(lines.shown.notes)).toBe(true);
  });

  it('goes no further than the chart, and keeps a beat of silence beside its neighbours', async () => {
    const { phrases, lines } = room();
    expect(await phrases.move(0, -40)).toBe(false);
    expect(lines.problem).toMatch(/no room for phrase A there/);
    for (let i = 0; i < phrases.all.length; i++)
      for (const beats of [1, -1]) {
        const { shown } = lines;
        const before = phrases.all.map(({ from, to }) => [from, to]);
        const done = await phrases.shift(i, beats);
        if (!done) {
          expect(lines.problem).not.toBe('');
          continue;
        }
        expect(phrases.all[i]!.from).toBe(before[i]![0]! + beats * TICKS);
        for (const [n, [from]] of before.entries())
          if (n !== i) expect(phrases.all.some((phrase) => phrase.from === from)).toBe(true);
        lines.shown = shown;
      }
  });

  it('takes up another phrase, and is named for it', async () => {
    const { phrases, said } = room();
    const at = phrases.all.findIndex(
      ({ first, bars }, i) => i > 0 && first + phrases.all[0]!.bars <= 16 && bars > 0
    );
    expect(await phrases.relate(at, 0, 'same rhythm')).toBe(true);
    expect(phrases.all[phrases.selected!]!.name).toMatch(/^A/);
    expect(said.at(-1)).toContain('after A');
  });

  it('leaves silence, which offers a new phrase', async () => {
    const { phrases, lines } = room();
    const { first } = phrases.all[1]!;
    phrases.remove(1);
    const gap = phrases.gaps.find((one) => one.first <= first && first < one.first + one.bars)!;
    expect(gap).toBeDefined();
    const count = lines.shown.notes.length;
    expect(await phrases.add(gap)).toBe(true);
    expect(lines.shown.notes.length).toBeGreaterThan(count + 2);
    expect(isWhole(lines.shown.notes)).toBe(true);
  });

  it('does not write over what was changed while it worked', async () => {
    const { phrases, lines } = room();
    const work = phrases.renew(0);
    const meanwhile = { notes: lines.shown.notes.slice(3), locks: [] };
    lines.shown = meanwhile;
    expect(await work).toBe(false);
    expect(lines.shown).toBe(meanwhile);
  });

  it('names bars as they are counted', () => {
    const { phrases } = room();
    expect(phrases.barsOf({ first: 4, bars: 1 })).toBe('bar 5');
    expect(phrases.barsOf({ first: 4, bars: 2 })).toBe('bars 5 and 6');
    expect(phrases.barsOf({ first: 4, bars: 4 })).toBe('bars 5 to 8');
  });
});
