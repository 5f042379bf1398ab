import { describe, expect, it } from 'vitest';
import type { AnalysedChange } from '../../harmony/analysis';
import { readSheet } from '../../harmony/sheet';
import { STANDARD } from '../../neck/tuning';
import type { Chord } from '../../theory/chord';
import { midiName } from '../../theory/note';
import { chanceOf } from '../chance';
import { endOf, TICKS, ticksOf } from '../model';
import { phrasesOver } from '../../plan/phrase-testing';
import { cellsOf } from './cells';
import { figuresIn, triadPairsIn, type FigureGround } from './figures';
import { changesOf, gridOf, pulseAt } from './grid';
import { ownCost, type PitchSlot } from './pitch';
import { planPhrases } from './plan';
import { rhythmOf, type Strike } from './rhythm';
import { soundsOver, type Sounds } from './sounds';
import { rowNamed, type PhraseRow } from './styles';

const SEEDS = Array.from({ length: 30 }, (_, i) => i + 1);
const VAMP = '{key: D dorian}\n{style: modal}\n{feel: swing}\n| Dm7 | % | % | % |';

function soundsOf(text: string, row: PhraseRow): Sounds[] {
  const { analysis } = readSheet(text);
  return analysis.changes.map((change) =>
    soundsOver(change as AnalysedChange & { readonly chord: Chord }, analysis, row, null)
  );
}

const eighth = (start: number): Strike => ({
  start,
  length: TICKS / 2,
  isGhost: false,
  ahead: 0,
  leans: false,
  repeats: false,
  isPinned: false
});

/** Sixteen eighths over one chord. */
function ground(row: PhraseRow, seed: number): FigureGround {
  const sheet = readSheet(VAMP);
  const [sounds] = soundsOf(VAMP, row);
  const strikes = Array.from({ length: 16 }, (_, i) => eighth((i * TICKS) / 2));
  return {
    strikes,
    sounds: strikes.map(() => sounds!),
    lands: strikes.map((_, i) => i === 0),
    isNew: true,
    grid: gridOf(sheet.form.bars),
    row,
    chance: chanceOf(seed, 1)
  };
}

const names = (mask: readonly boolean[]) =>
  mask.flatMap((has, pc) => (has ? [midiName(60 + pc).replace(/\d/, '')] : [])).join(' ');

describe('triad pairs', () => {
  const pairsOf = (text: string) =>
    triadPairsIn(soundsOf(text, rowNamed('modal'))[0]!).map(({ masks }) => masks.map(names).join(' | '));

  it('are two triads a step apart whose tones are all at home', () => {
    // F major and G major over D Dorian; their tones are the scale without its second, E.
    expect(pairsOf(VAMP)).toContain('C F A | D G B');
    // Over C Ionian the fourth is to be avoided: one pair a step apart does without it.
    expect(pairsOf('{key: C}\n{style: jazz}\n| Cmaj7 | Dm7 | G7 | Cmaj7 |')).toEqual(['D G B | C E A']);
  });

  it('have no tone in common, in every key', () => {
    for (const key of ['D', 'Gb', 'B', 'Ab', 'F#'])
      for (const { masks } of triadPairsIn(
        soundsOf(`{key: ${key} dorian}\n{style: modal}\n| ${key}m7 | % |`, rowNamed('modal'))[0]!
      )) {
        expect(masks[0].filter(Boolean)).toHaveLength(3);
        expect(masks[0].some((has, pc) => has && masks[1][pc])).toBe(false);
      }
  });

  it('go three notes of one, three of the other, each the next tone of its triad', () => {
    const row = { ...rowNamed('modal'), triadPairs: 1, fourths: 0, enclosure: 0 };
    for (const seed of SEEDS) {
      const { only, steps } = figuresIn(ground(row, seed));
      const first = only.findIndex(Boolean);
      const asked = only.slice(first).filter(Boolean);
      expect(asked.length).toBeGreaterThanOrEqual(12);
      asked.forEach((mask, n) => {
        expect(names(mask!)).toBe(names(asked[Math.floor(n / 3) * 3]!));
        if (n >= 3) expect(names(mask!)).not.toBe(names(asked[n - 3]!));
        if (n % 3 > 0) expect(steps[first + n]!.every((step) => Math.abs(step) >= 3)).toBe(true);
      });
    }
  });
});

describe('fourths', () => {
  it('are perfect, and of notes that are at home', () => {
    const row = { ...rowNamed('modal'), triadPairs: 0, fourths: 1, enclosure: 0 };
    for (const seed of SEEDS) {
      const { only, steps } = figuresIn(ground(row, seed));
      expect(steps.filter((own) => own?.some((step) => Math.abs(step) === 5)).length).toBeGreaterThanOrEqual(
        2
      );
      expect(names(only.find(Boolean)!)).toBe('C D E F G A B');
    }
  });

  it('are played where a modal tune has room for them', () => {
    const text = `${VAMP.replace('| Dm7 | % | % | % |', `| Dm7 |${' % |'.repeat(15)}`)}`;
    const count = SEEDS.slice(0, 8).reduce((sum, seed) => {
      const { notes } = phrasesOver(text, seed).line;
      return (
        sum +
        notes.filter((note, i) => {
          const [a, b] = [notes[i - 2], notes[i - 1]];
          return a && b && Math.abs(b.midi - a.midi) === 5 && b.midi - a.midi === note.midi - b.midi;
        }).length
      );
    }, 0);
    expect(count).toBeGreaterThan(5);
  });
});

describe('the rhythm of a phrase', () => {
  function rhythms(row: PhraseRow, text: string, seed: number) {
    const { form, analysis } = readSheet(text);
    const grid = gridOf(form.bars);
    const changes = changesOf(form.changes);
    const plans = planPhrases({
      row,
      bars: form.bars.length,
      harmony: form.changes.map(({ symbol }) => symbol),
      pickup: true,
      needed: new Set(),
      chance: chanceOf(seed, 1)
    });
    const restless = new Set(
      analysis.changes.flatMap(({ index, symbol }) => (/dim/.test(symbol) ? [index] : []))
    );
    const phrases = rhythmOf(plans, {
      row,
      grid,
      changes,
      meets: new Map(),
      pinned: new Set(),
      restless,
      chance: chanceOf(seed, 2)
    });
    return { phrases, grid, form };
  }

  it('does not float: of two bars in which it sounds one has a note on a pulse', () => {
    // Bar lines are pushed over wherever they may be.
    const bossa = { ...rowNamed('bossa'), meets: { early: 0.9, on: 0.1, late: 0 } };
    let [floating, pairs] = [0, 0];
    for (const seed of SEEDS) {
      const { phrases, grid } = rhythms(
        bossa,
        `{key: Dm}\n{feel: bossa}\n| ${'Dm7 | G7 | '.repeat(8)}`,
        seed
      );
      for (const { plan, strikes } of phrases)
        for (let bar = plan.first + 1; bar < plan.first + plan.bars; bar++) {
          const inBar = (n: number) =>
            strikes.filter(({ start }) => start >= grid.bars[n]!.start && start < grid.bars[n]!.end);
          const [before, own] = [inBar(bar - 1), inBar(bar)];
          if (before.length === 0 || own.length === 0) continue;
          pairs++;
          if (![...before, ...own].some(({ start }) => pulseAt(grid, start).start === start)) floating++;
        }
    }
    expect(pairs).toBeGreaterThan(60);
    expect(floating / pairs).toBeLessThan(0.02);
  });

  it('goes on from a diminished chord to the one it leads to', () => {
    const text = '{key: Bb}\n{style: jazz}\n{feel: swing}\n| Bb | Bdim7 | Cm7 | F7 | Bb | Edim7 | F7 | Bb |';
    let [count, hanging] = [0, 0];
    for (const seed of SEEDS)
      for (const { strikes, plan } of rhythms(rowNamed('minor swing'), text, seed).phrases) {
        if (plan.model) continue;
        const last = strikes.at(-1)!;
        const bar = Math.floor((last.start + last.ahead) / (4 * TICKS));
        if (bar === 1 || bar === 5) hanging++;
        count++;
      }
    expect(count).toBeGreaterThan(40);
    // The phrase that follows may need the room.
    expect(hanging / count).toBeLessThan(0.03);
  });

  it('knows cells of two bars', () => {
    const row = {
      ...rowNamed('funk'),
      twoBars: 1,
      meets: { early: 0, on: 1, late: 0 },
      bars: [0, 1, 0, 0] as const
    };
    const { phrases } = rhythms(row, `{key: E}\n| ${'E7 | '.repeat(8)}`, 3);
    const { strikes, plan } = phrases[0]!;
    expect(plan.bars).toBe(2);
    const from = plan.first * 4 * TICKS;
    const own = strikes.filter(({ start }) => start >= from).map(({ start }) => (start - from) / (TICKS / 4));
    const cells = cellsOf('funk').D.map(({ words }) =>
      words
        .flatMap((word, i) =>
          [...word].flatMap((sign, n) => (/[xo]/.test(sign) ? [4 * i + (n * 4) / word.length] : []))
        )
        .join()
    );
    // The phrase that follows may need the room of the last note.
    expect(cells.filter((cell) => cell.startsWith(own.join()))).toHaveLength(1);
  });
});

describe('what phrases keep from', () => {
  it('a phrase moved on as a sequence begins elsewhere', () => {
    let count = 0;
    for (const seed of SEEDS) {
      const { notes, phrases } = phrasesOver(
        '{key: F dorian}\n{style: modal}\n{feel: swing}\n| Fm7 | % | % | % | % | % | % | % |',
        seed
      ).line;
      phrases!.forEach(({ relation, from }, i) => {
        if (relation !== 'sequence') return;
        const at = (beats: number) => notes.find(({ start }) => start === ticksOf(beats))!.midi;
        expect(at(from), `seed ${seed}`).not.toBe(at(phrases![i - 1]!.from));
        count++;
      });
    }
    expect(count).toBeGreaterThan(5);
  });

  it('says a phrase of two bars at most twice', () => {
    const rows = ['minor swing', 'bossa', 'ballad', 'country', 'modal'] as const;
    for (const row of rows)
      for (const seed of SEEDS) {
        const plans = planPhrases({
          row: rowNamed(row),
          bars: 32,
          harmony: [],
          pickup: true,
          needed: new Set(),
          chance: chanceOf(seed, 1)
        });
        for (const { model, bars } of plans) {
          if (bars >= 2 && model) expect(plans[model.of]!.model, `${row} ${seed}`).toBeNull();
        }
      }
  });

  it('leans on notes of the key: a foreign one is dearer', () => {
    const row = rowNamed('ballad');
    const [sounds] = soundsOf('{key: F}\n{style: jazz}\n| Fmaj7 | Gm7 | C7 | Fmaj7 |', row);
    const slot = (home: boolean): PitchSlot => ({
      length: TICKS / 2,
      sounds: { ...sounds!, kinds: sounds!.kinds.map(() => 'scale'), home: sounds!.home.map(() => home) },
      accent: 'strong',
      isLong: false,
      isShort: true,
      isFast: false,
      lands: false,
      leans: true,
      repeats: false,
      isLast: false,
      isFree: false,
      steps: null,
      only: null,
      isInFigure: false,
      centre: 71,
      model: null,
      modelStep: null,
      pinned: null,
      onChord: 4
    });
    const at = { midi: 71, string: 2, fret: 12 };
    expect(ownCost(slot(false), at, row) - ownCost(slot(true), at, row)).toBeGreaterThan(1);
  });

  it('leans on notes of the key', () => {
    const ballad =
      '{key: F}\n{tempo: 66}\n{feel: ballad}\n{style: jazz}\n| Fmaj7 | Dm7 | Gm7 | C7 | Fmaj7 | Dm7 | Gm7 | C7 |';
    const row = rowNamed('ballad');
    const key = new Set([5, 7, 9, 10, 0, 2, 4]);
    for (const { home } of soundsOf(ballad, row))
      expect(home.flatMap((has, pc) => (has ? [pc] : [])).filter((pc) => !key.has(pc))).toEqual([]);
    let [leaning, abroad] = [0, 0];
    for (const seed of SEEDS) {
      const { notes } = phrasesOver(ballad, seed).line;
      notes.forEach((note, i) => {
        const next = notes[i + 1];
        const isOnBar = note.start % (4 * TICKS) === 0 && note.length <= TICKS / 2;
        if (!isOnBar || !next || next.start !== endOf(note) || Math.abs(next.midi - note.midi) > 2) return;
        leaning++;
        if (!key.has(note.midi % 12)) abroad++;
      });
    }
    expect(leaning).toBeGreaterThan(20);
    expect(abroad / leaning).toBeLessThan(0.05);
  });

  it('stays on no note that is foreign to a triad, though the key’s pentatonic has it', () => {
    const rock = '{key: A}\n{feel: rock}\n{style: rock}\n| A | D | G | A | A | D | G | A |';
    const [a, d, g] = soundsOf(rock, rowNamed('rock'));
    const cSharp = 1;
    expect([a!.kinds[cSharp], d!.kinds[cSharp], g!.kinds[cSharp]]).toEqual(['chord', 'avoid', 'scale']);
    for (const seed of SEEDS) {
      const { notes } = phrasesOver(rock, seed).line;
      const overD = notes.filter(
        ({ start, midi, length, ghost }) =>
          !ghost &&
          midi % 12 === cSharp &&
          length >= TICKS &&
          [1, 5].includes(Math.floor(start / (4 * TICKS)))
      );
      expect(
        overD.filter((note) => endOf(note) <= (Math.floor(note.start / (4 * TICKS)) + 1) * 4 * TICKS),
        `seed ${seed}`
      ).toEqual([]);
    }
  });

  it('plays the minor pentatonic over fifths alone', () => {
    const [five] = soundsOf('{key: A}\n{feel: rock}\n{style: rock}\n| A5 | G5 | D5 | A5 |', rowNamed('rock'));
    expect(five!.kinds[0]).toBe('penta');
    expect(five!.kinds[1]).toBe('chromatic');
  });

  it('uses open strings where the key has them, and nowhere else', () => {
    const open = (key: string, four: string, five: string) =>
      SEEDS.reduce((sum, seed) => {
        const text = `{key: ${key}}\n{feel: country}\n{style: country}\n| ${key} | % | ${four} | ${key} | ${five} | ${four} | ${key} | % |`;
        return sum + phrasesOver(text, seed).line.notes.filter(({ place }) => place!.fret === 0).length;
      }, 0);
    expect(STANDARD.capo).toBe(0);
    expect(open('G', 'C', 'D')).toBeGreaterThan(8);
    expect(open('Ab', 'Db', 'Eb')).toBe(0);
  });
});
