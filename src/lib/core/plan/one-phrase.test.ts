/** One phrase made anew while the others stand, over charts of three styles. */
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import type { Stretch } from '../line/edit';
import { endOf, TICKS, ticksOf, type LineNote } from '../line/model';
import { RELATIONS } from '../line/phrase/styles';
import { breathAt, phrasesIn } from '../line/phrases-in';
import { gridOf } from '../line/phrase/grid';
import { STANDARD } from '../neck/tuning';
import { systemOf } from '../neck/systems/registry';
import { arrange } from './arrange';
import { linesOf, type LineWish } from './lines';
import { DEFAULT_PLAN } from './model';

const CHARTS = {
  blues:
    '{key: Bb}\n{tempo: 140}\n{feel: swing}\n{style: blues}\n| Bb7 | Eb7 | Bb7 | Fm7 Bb7 | Eb7 | Edim7 | Bb7 | Dm7b5 G7b9 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |',
  rock: '{key: Dm}\n{tempo: 110}\n{feel: rock}\n{style: rock}\n| Dm | C | Bb | C | Dm | C | Bb | A7 |',
  waltz:
    '{key: Gb}\n{time: 3/4}\n{tempo: 130}\n{feel: waltz}\n{style: jazz}\n| Gbmaj7 | Ebm7 | Abm7 | Db7 | Bbm7 | Eb7b9 | Abm7 Db7 Db7 | Gbmaj7 |'
} as const;
const ANYWHERE: Stretch = { from: -8 * TICKS, to: 1000 * TICKS };

function roomFor(text: string) {
  const sheet = readSheet(text);
  const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
  const { bars } = sheet.form;
  const find = (wish: Partial<LineWish>) =>
    linesOf(arranged, { level: 'phrases', subdivision: 2, seed: 1, alternatives: 1, ...wish });
  const line = (seed = 1): readonly LineNote[] => find({ seed }).lines[0]!.notes;
  const one = (only: NonNullable<LineWish['only']>, seed = 1): readonly LineNote[] =>
    find({ only, seed }).lines[0]?.notes ?? [];
  return { bars, grid: gridOf(bars), find, line, one, analysis: sheet.analysis };
}

const upper = (notes: readonly LineNote[]) =>
  notes.filter((note, i) => notes[i + 1]?.start !== note.start && !note.ghost);

describe.each(Object.entries(CHARTS))('one phrase over a %s', (_, text) => {
  const { bars, grid, find, line, one } = roomFor(text);
  const notes = line();
  const phrases = phrasesIn(notes, bars);
  const of = (i: number) => notes.slice(phrases[i]!.notes.first, phrases[i]!.notes.end);

  it('has three notes at least, in its own bars, and stays within its room', () => {
    for (const { first, bars: count, from, to } of phrases)
      for (let seed = 1; seed <= 6; seed++) {
        const room = { from: from - TICKS, to: to + TICKS };
        const made = one({ first, bars: count, room }, seed);
        if (made.length === 0) continue;
        expect(upper(made).length).toBeGreaterThanOrEqual(3);
        expect(made[0]!.start).toBeGreaterThanOrEqual(room.from);
        expect(Math.max(...made.map(endOf))).toBeLessThanOrEqual(room.to);
        const begun = made.filter(({ start }) => start >= grid.bars[first]!.start - 2 * TICKS);
        expect(begun).toHaveLength(made.length);
      }
  });

  it('is another one for another seed, and the same for the same', () => {
    const { first, bars: count } = phrases[0]!;
    const made = [1, 1, 2, 3].map((seed) =>
      JSON.stringify(one({ first, bars: count, room: ANYWHERE }, seed))
    );
    expect(made[1]).toBe(made[0]);
    expect(new Set(made).size).toBe(3);
  });

  it('says itself again note for note where it stands already', () => {
    for (const [i, { first, bars: count }] of phrases.entries()) {
      const own = of(i);
      const again = one({ first, bars: count, room: ANYWHERE, like: { notes: own, first, how: 'literal' } });
      expect(upper(again).map(({ start }) => start)).toEqual(upper(own).map(({ start }) => start));
      const same = upper(again).filter(({ midi }, n) => midi === upper(own)[n]!.midi);
      expect(same.length / upper(own).length).toBeGreaterThan(0.7);
    }
  });

  it('keeps its rhythm where it is moved by bars or by a beat', () => {
    const { first, bars: count } = phrases[0]!;
    const own = upper(of(0));
    const like = { notes: of(0), first, how: 'literal' } as const;
    const bar = grid.bars[first + 1]!.start - grid.bars[first]!.start;
    const later = one({ first: first + 1, bars: count, room: ANYWHERE, like });
    expect(upper(later).map(({ start }) => start - bar)).toEqual(own.map(({ start }) => start));
    const beat = one({ first, bars: count, room: ANYWHERE, like: { ...like, by: TICKS } });
    expect(upper(beat).map(({ start }) => start - TICKS)).toEqual(own.map(({ start }) => start));
  });

  it('takes up another one in every way that there is, and differs from it as it should', () => {
    const { first, bars: count } = phrases[0]!;
    const own = upper(of(0));
    const bar = grid.bars[first + 1]!.start - grid.bars[first]!.start;
    for (const how of RELATIONS)
      for (let seed = 1; seed <= 4; seed++) {
        const like = { notes: of(0), first, how };
        const made = upper(one({ first: first + 1, bars: count, room: ANYWHERE, like }, seed));
        expect(made.length, how).toBeGreaterThanOrEqual(Math.min(3, own.length - 2));
        const head = Math.max(2, Math.floor(own.length / 2));
        expect(made.slice(0, head).map(({ start }) => start - bar)).toEqual(
          own.slice(0, head).map(({ start }) => start)
        );
        const same = made.filter(({ midi }, n) => midi === own[n]?.midi).length;
        if (how === 'sequence') expect(same, `${seed}`).toBe(0);
      }
  });

  it('is refused in a sentence where there is no room, and beyond the last bar', () => {
    const { from } = phrases[0]!;
    const tight = find({ only: { first: phrases[0]!.first, bars: 1, room: { from, to: from + TICKS / 4 } } });
    expect(tight.noLine?.message).toMatch(/no room for a phrase/i);
    const like = { notes: of(0), first: phrases[0]!.first, how: 'literal' } as const;
    const beyond = find({ only: { first: bars.length, bars: 1, room: ANYWHERE, like } });
    expect(beyond.lines).toEqual([]);
    expect(beyond.noLine?.message).toMatch(/does not fit there/);
  });

  it('is left alone by phrases that are found beside it, with a beat of silence on both sides', () => {
    for (const held of phrases.slice(0, 3))
      for (let seed = 2; seed <= 8; seed++)
        for (const { start, length } of find({ seed, held: [held] }).lines[0]?.notes ?? []) {
          const breath = breathAt(grid, start);
          const isBefore = start + length <= held.from - breath;
          const isAfter = start >= held.to + breath;
          expect(isBefore || isAfter, `${start / TICKS} beside ${held.from / TICKS}–${held.to / TICKS}`).toBe(
            true
          );
        }
  });
});

describe('boldness', () => {
  const many = (boldness: number | undefined) =>
    Object.values(CHARTS).flatMap((text) => {
      const { find, analysis } = roomFor(text);
      return Array.from({ length: 8 }, (_, seed) => ({
        notes: upper(find({ seed, boldness }).lines[0]!.notes),
        analysis
      }));
    });
  const measured = (boldness: number) => {
    const lines = many(boldness);
    const onTime = lines.flatMap(({ notes, analysis }) =>
      analysis.changes.map(({ start }) => notes.some((note) => note.start === ticksOf(start)))
    );
    const high = lines.map(({ notes }) => Math.max(...notes.map(({ midi }) => midi)));
    const played = lines.flatMap(({ notes }) => notes);
    return {
      onTime: onTime.filter(Boolean).length / onTime.length,
      high: high.reduce((sum, one) => sum + one, 0) / high.length,
      techniques: played.filter((n) => n.bend || n.slide || n.slur || n.vibrato).length / played.length
    };
  };

  it('plain phrases meet changes on time, lie lower and are struck; bold ones push, reach and bend', () => {
    const [plain, style, bold] = [0, 0.5, 1].map(measured);
    expect(plain!.onTime).toBeGreaterThan(style!.onTime);
    expect(style!.onTime).toBeGreaterThan(bold!.onTime);
    expect(bold!.high - plain!.high).toBeGreaterThan(2);
    expect(bold!.techniques).toBeGreaterThan(plain!.techniques * 1.5);
  });

  it('is the style’s own where nothing is said', () => {
    expect(JSON.stringify(many(undefined))).toBe(JSON.stringify(many(0.5)));
  });
});
