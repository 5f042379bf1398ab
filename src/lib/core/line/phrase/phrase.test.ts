import { describe, expect, it } from 'vitest';
import { STANDARD } from '../../neck/tuning';
import { midiName, pitchClass } from '../../theory/note';
import { chanceOf } from '../chance';
import { endOf, TICKS, ticksOf } from '../model';
import { readLine } from '../read';
import { CONTOURS, keptOutOf, planPhrases, spansOf, type PlannedPhrase } from './plan';
import { costOf, pitchWays, type PitchSlot } from './pitch';
import { placesUnder } from './hand';
import { rowOf } from './row';
import { PHRASE_ROWS, rowNamed } from './styles';
import {
  figuresOf,
  meanFigures,
  OTHER_CHARTS,
  outsideOf,
  phrasesAnew,
  phrasesOver,
  STYLE_CHARTS
} from '../../plan/phrase-testing';
import { soundsOver } from './sounds';
import type { AnalysedChange } from '../../harmony/analysis';
import type { Chord } from '../../theory/chord';
import { VOCABULARIES, cellsOf, type Vocabulary } from './cells';
import { readSheet } from '../../harmony/sheet';
import { arrange } from '../../plan/arrange';
import { linesOf } from '../../plan/lines';
import { DEFAULT_PLAN, type Plan } from '../../plan/model';
import { feelIdOf } from '../../chart/feel-name';
import { systemOf } from '../../neck/systems/registry';

const JAZZ = ['jazz blues', 'minor swing', 'bossa', 'waltz', 'ballad'];
const SEEDS = [1, 2, 3, 4, 5];
/** Seeds that nobody looked at while the rows were set. */
const OTHERS = [11, 12, 13, 14, 15];

it('a pitch under the hand lies within four frets where it can, on the middle strings', () => {
  const byPitch = new Map(placesUnder(STANDARD, 5, {}, []).map((spot) => [spot.midi, spot]));
  const placeOf = (midi: number) => [byPitch.get(midi)?.string, byPitch.get(midi)?.fret];
  // E4 lies at 5 on the second string and, a stretch away, at 9 on the third; B3 is a stretch either way.
  expect([placeOf(64), placeOf(59), placeOf(73)]).toEqual([
    [2, 5],
    [3, 4],
    [1, 9]
  ]);
  expect(
    placesUnder(STANDARD, 5, {}, [{ midi: 64, string: 3, fret: 9 }]).find(({ midi }) => midi === 64)
  ).toEqual({
    midi: 64,
    string: 3,
    fret: 9
  });
});

describe('phrases in every style', () => {
  const charts = STYLE_CHARTS.filter(({ row }) => row !== 'modal' && row !== 'pop or folk');

  it.each(charts)('$row: what is counted over them keeps within its bounds', (own) =>
    expect(outsideOf(meanFigures(own, SEEDS), own)).toEqual([])
  );

  it.each(OTHER_CHARTS)('$row: they do so over another chart, on other seeds', (own) =>
    expect(outsideOf(meanFigures(own, OTHERS), own)).toEqual([])
  );

  it.each([...STYLE_CHARTS, ...OTHER_CHARTS])('$row: takes its row', ({ row, text }) => {
    const { head, analysis } = readSheet(text);
    expect(
      rowOf({
        ...head,
        feelId: feelIdOf(head.feel, head.meter),
        analysis,
        style: analysis.style
      }).id
    ).toBe(row);
  });

  it.each(STYLE_CHARTS)('$row: the same seed gives the same phrases, another gives others', ({ text }) => {
    const [one, other] = [1, 2].map((seed) => JSON.stringify(phrasesOver(text, seed).line.notes));
    expect(other).not.toBe(one);
    // Found anew: of eight bars, which tells as much as three choruses.
    const lines = text.split('\n');
    const eight = [...lines.slice(0, -1), `${lines.at(-1)!.split(' | ').slice(0, 8).join(' | ')} |`].join(
      '\n'
    );
    const [first, again] = [1, 2].map(() => JSON.stringify(phrasesAnew(eight, 1).line.notes));
    expect(again).toBe(first);
  });

  it.each(STYLE_CHARTS)('$row: every note is in its place', ({ row, text }) => {
    for (const seed of [1, 7]) {
      const { sheet, line } = phrasesOver(text, seed);
      const { notes } = line;
      const bar = ticksOf(sheet.form.bars[0]!.beats);
      const { changes } = sheet.analysis;
      notes.forEach((note, i) => {
        const where = `${row} ${seed} note ${i} at ${note.start / TICKS}`;
        const { string, fret } = note.place!;
        // The fretted pitch lies where it is said to lie.
        expect(STANDARD.strings[string - 1]! + fret, where).toBe(note.bend?.from ?? note.midi);
        expect(fret >= note.position - 1 && fret <= note.position + 4, where).toBe(true);
        expect(note.start, where).toBeGreaterThanOrEqual(-bar);
        expect(note.length, where).toBeGreaterThan(0);
        const next = notes.find(({ start }) => start > note.start);
        if (next) expect(endOf(note), where).toBeLessThanOrEqual(next.start);
        // Nothing sounds past its chord unless it comes early for the next.
        const after = changes.find(({ start, chord }) => {
          const at = ticksOf(start);
          return at > note.start && at < endOf(note) && chord;
        });
        const before = changes.findLast(({ start }) => ticksOf(start) <= Math.max(0, note.start));
        if (after && after.symbol !== before?.symbol)
          expect(ticksOf(after.start) - note.start, where).toBeLessThanOrEqual(TICKS);
      });
    }
  });

  it('lands on tones of the chord that comes, or of what is played over it', () => {
    for (const { text, row } of STYLE_CHARTS.filter((chart) => JAZZ.includes(chart.row))) {
      const landings = SEEDS.flatMap((seed) => {
        const { sheet, line } = phrasesOver(text, seed);
        return readLine(
          { meter: sheet.head.meter, notes: line.notes },
          { form: sheet.form, analysis: sheet.analysis, chosen: sheet.analysis.changes.map(() => null) }
        ).landings;
      });
      const landed = landings.filter(({ degree }) => degree);
      const isChordal = ({ degree }: (typeof landed)[number]) =>
        /^(1|b?3|b?5|#5|b?b?7|6|9|13|b9|#9)$/.test(degree!);
      expect(landed.filter(isChordal).length / landed.length, row).toBeGreaterThan(0.95);
      expect(landings.filter(({ by }) => by === 'leaning').length, row).toBeGreaterThan(2);
    }
  });

  it('are named as players name them: the blue third of A is C, and no note has two signs', () => {
    const { line } = phrasesOver(STYLE_CHARTS.find(({ row }) => row === 'shuffle blues')!.text, 2);
    const minorThirds = line.notes.filter(({ midi }) => midi % 12 === 0);
    expect(minorThirds.length).toBeGreaterThan(2);
    expect(new Set(minorThirds.map(({ note }) => note))).toEqual(new Set(['C']));
    for (const root of ['Gb', 'C#', 'Ab', 'F#', 'Db']) {
      const own = phrasesOver(
        `{key: ${root}}\n{style: jazz}\n{feel: swing}\n| ${root}maj7 | ${root}7b9 | ${root}m7b5 | ${root}7#11 |`,
        3
      );
      expect(own.line.notes.filter(({ note }) => /##|bb/.test(note))).toEqual([]);
      for (const { note, midi } of own.line.notes) expect(pitchClass(note)).toBe(midi % 12);
    }
  });

  it('keep clear of the natural third of the key over IV in a blues', () => {
    const { sheet, line } = phrasesOver(STYLE_CHARTS.find(({ row }) => row === 'shuffle blues')!.text, 2);
    const overFour = line.notes.filter(({ start, length }) => {
      const change = sheet.form.changes.findLast((one) => ticksOf(one.start) <= start);
      // What comes early for the next chord is no note of this one.
      return (
        change?.symbol === 'D7' && length >= TICKS && start + length <= ticksOf(change.start + change.beats)
      );
    });
    expect(overFour.length).toBeGreaterThan(3);
    expect(overFour.filter(({ midi }) => midi % 12 === 1).map(({ midi }) => midiName(midi))).toEqual([]);
  });
});

describe('what the player has decided', () => {
  const TUNE = '{key: Bb}\n{tempo: 140}\n{feel: swing}\n| Cm7 | F7 | Bbmaj7 | G7b9 | Cm7 | F7 | Bbmaj7 | % |';
  const over = (plan: Partial<Plan>, seed = 1) => phrasesOver(TUNE, seed, plan);

  it('is kept: the hand stays where it was put', () => {
    for (const position of [1, 3, 7, 12]) {
      const { line } = over({ position });
      expect(line.notes.every((note) => note.position === position)).toBe(true);
      expect(line.notes.length).toBeGreaterThan(10);
    }
  });

  it('is kept: strings and range', () => {
    const { line } = over({ reach: 'neck', strings: [1, 2, 3], range: { low: 60, high: 76 } });
    expect(line.notes.every(({ place }) => place!.string <= 3)).toBe(true);
    expect(line.notes.every(({ midi, bend }) => (bend?.from ?? midi) >= 60 && midi <= 76)).toBe(true);
  });

  it('is kept: a pinned target is met on its string and fret, and when it was asked for', () => {
    // The A of F7 on string 2, fret 10; half a beat early and late in swing.
    const at = ticksOf(4);
    const times = {
      on: [at],
      early: [at - TICKS / 2],
      late: [at + TICKS / 2],
      any: [at - TICKS / 2, at, at + TICKS / 2]
    };
    for (const when of ['on', 'early', 'late', 'any', undefined] as const)
      for (let seed = 1; seed <= 12; seed++) {
        const { line } = over({ decisions: [{ change: 1, pins: [{ string: 2, fret: 10, when }] }] }, seed);
        const met = line.notes.filter(
          ({ midi, start, place }) =>
            midi === 69 && times[when ?? 'on'].includes(start) && place?.string === 2 && place.fret === 10
        );
        expect(met.length, `${when}, seed ${seed}`).toBe(1);
      }
  });

  it('is kept: notes of a choice, nothing beside it but what leads', () => {
    const sheet = readSheet('{key: Am}\n{feel: rock}\n{style: rock}\n| Am | F | C | G |');
    const plan: Plan = { ...DEFAULT_PLAN, approach: 'key-centre' };
    const arranged = arrange({ sheet, plan }, STANDARD, systemOf('positions')!);
    const { lines } = linesOf(arranged, { level: 'phrases', subdivision: 2, seed: 4, alternatives: 1 });
    const white = new Set([0, 2, 4, 5, 7, 9, 11]);
    expect(lines[0]!.notes.filter(({ midi }) => !white.has(midi % 12))).toEqual([]);
  });

  it('is kept: without a pickup nothing sounds before the first bar', () => {
    const firsts = [...Array(20).keys()].map(
      (seed) => phrasesOver(TUNE, seed, {}, { pickup: false }).line.notes[0]!.start
    );
    expect(Math.min(...firsts)).toBeGreaterThanOrEqual(0);
    const free = [...Array(20).keys()].map((seed) => phrasesOver(TUNE, seed).line.notes[0]!.start);
    expect(Math.min(...free)).toBeLessThan(0);
  });

  it('is told where there is nothing to play over', () => {
    for (const text of ['{title: Empty}', '| N.C. | N.C. |'])
      expect(() => phrasesOver(text, 1)).toThrow(/No chord of this part/);
  });

  it('is kept: the denser, the more notes', () => {
    const count = (density: number) =>
      SEEDS.reduce((sum, seed) => sum + phrasesOver(TUNE, seed, {}, { density }).line.notes.length, 0);
    expect(count(0.9)).toBeGreaterThan(count(0.1) * 1.2);
  });

  it('moves with the key: the same plan, every note as far away', () => {
    const up = TUNE.replace('{key: Bb}', '{key: C}')
      .replaceAll('Cm7', 'Dm7')
      .replaceAll('F7', 'G7')
      .replaceAll('Bbmaj7', 'Cmaj7')
      .replaceAll('G7b9', 'A7b9');
    const rhythm = (text: string) =>
      phrasesOver(text, 5).line.notes.map(({ start, length }) => `${start}:${length}`);
    // Pitches may fall otherwise, as the seed is one of pitches too; the plan does not.
    const [a, b] = [new Set(rhythm(TUNE)), new Set(rhythm(up.replaceAll('Cmaj7b9', 'A7b9')))];
    const both = [...a].filter((one) => b.has(one)).length;
    expect(both / a.size).toBeGreaterThan(0.85);
  });
});

describe('the pitches of a phrase', () => {
  const row = rowNamed('minor swing');
  const sheet = readSheet('{key: C}\n| Dm7 | G7 |');

  /** Slots with random demands, over two chords. */
  function problem(seed: number) {
    const chance = chanceOf(seed, 77);
    const { line } = phrasesOver('{key: C}\n{style: jazz}\n{feel: swing}\n| Dm7 | G7 | Cmaj7 | A7b9 |', seed);
    expect(line.notes.length).toBeGreaterThan(0);
    const sounds = soundsFor(sheet);
    const places = placesUnder(STANDARD, 5, {}, []).filter(({ midi }) => midi >= 60 && midi <= 68);
    const slots = Array.from({ length: 5 }, (_, i): PitchSlot => {
      const short = chance() < 0.6;
      return {
        length: short ? 480 : 960,
        sounds: sounds[i < 3 ? 0 : 1]!,
        accent: chance() < 0.4 ? 'off' : chance() < 0.5 ? 'weak' : 'strong',
        isLong: !short,
        isShort: short,
        isFast: false,
        lands: i === 3,
        leans: i === 1 && chance() < 0.3,
        repeats: i === 2 && chance() < 0.3,
        isLast: i === 4,
        isFree: chance() < 0.15,
        steps: i === 4 && chance() < 0.2 ? [1, -2] : null,
        only: i === 1 && chance() < 0.2 ? Array.from({ length: 12 }, (_, pc) => pc % 3 !== 0) : null,
        isInFigure: i === 2 && chance() < 0.2,
        centre: 60 + 8 * chance(),
        model: chance() < 0.2 ? { midi: 64, weight: 1 } : null,
        modelStep: null,
        pinned: i === 3 && chance() < 0.15 ? 65 : null,
        onChord: i < 3 ? 3 : 2
      };
    });
    const seeded = (slot: number, midi: number) => 0.3 * chanceOf(seed, slot, midi)();
    return { slots, places, row, seeded };
  }

  it('are the cheapest there are, and so are the k best', () => {
    let solved = 0;
    for (let seed = 1; seed <= (process.env.CORVEL_LARGE ? 60 : 10); seed++) {
      const own = problem(seed);
      const all: number[] = [];
      const walk = (way: (typeof own.places)[number][]) => {
        if (way.length === own.slots.length) {
          const cost = costOf(way, own);
          if (cost < Infinity) all.push(cost);
          return;
        }
        for (const place of own.places) walk([...way, place]);
      };
      walk([]);
      all.sort((a, b) => a - b);
      const found = pitchWays({ ...own, k: 3 });
      expect(found.map(({ cost }) => cost.toFixed(6))).toEqual(
        all.slice(0, 3).map((cost) => cost.toFixed(6))
      );
      const [one] = pitchWays({ ...own, k: 1 });
      expect(one?.cost.toFixed(6)).toBe(all[0]?.toFixed(6));
      if (one) {
        expect(costOf(one.places, own).toFixed(6)).toBe(one.cost.toFixed(6));
        solved++;
      }
    }
    expect(solved).toBeGreaterThan(5);
  });
});

function soundsFor({ analysis }: ReturnType<typeof readSheet>) {
  return analysis.changes.map((change) =>
    soundsOver(change as AnalysedChange & { readonly chord: Chord }, analysis, rowNamed('minor swing'), null)
  );
}

describe('the plan of phrases', () => {
  it('gives way to bars that are taken: shorter, or not at all, and without what it would have taken up', () => {
    const phrase = (first: number, model: PlannedPhrase['model'] = null): PlannedPhrase => ({
      first,
      bars: 2,
      start: 'one',
      model,
      contour: 'arch',
      isAnswer: false,
      density: 0.5,
      height: 0
    });
    const plans = [phrase(0), phrase(2), phrase(4, { of: 1, how: 'varied' })];
    const without = (...taken: number[]) =>
      keptOutOf(plans, new Set(taken)).map(({ first, bars, model }) => [first, bars, model?.of ?? null]);
    expect(without(8)).toEqual([
      [0, 2, null],
      [2, 2, null],
      [4, 2, 1]
    ]);
    // The first falls away: the model is the first now.
    expect(without(0, 1)).toEqual([
      [2, 2, null],
      [4, 2, 0]
    ]);
    expect(without(4)).toEqual([
      [0, 2, null],
      [2, 2, null],
      [5, 1, null]
    ]);
    expect(without(2, 3)).toEqual([
      [0, 2, null],
      [4, 2, null]
    ]);
  });

  const wish = (row: (typeof PHRASE_ROWS)[number], bars: number, seed: number) => ({
    row,
    bars,
    harmony: Array.from({ length: bars }, (_, i) => String(i % 12)),
    pickup: true,
    needed: new Set<number>(),
    chance: chanceOf(seed, 1)
  });

  it('keeps within the bars, in order, and takes up only what was there', () => {
    for (const row of PHRASE_ROWS)
      for (const bars of [1, 2, 4, 7, 12, 16, 24, 36])
        for (const seed of SEEDS) {
          const phrases = planPhrases(wish(row, bars, seed));
          expect(phrases.length).toBeGreaterThan(0);
          phrases.forEach((phrase, i) => {
            expect(phrase.first).toBeGreaterThanOrEqual(i === 0 ? 0 : phrases[i - 1]!.first + 1);
            expect(phrase.first + phrase.bars).toBeLessThanOrEqual(bars);
            expect(CONTOURS).toContain(phrase.contour);
            if (phrase.model) expect(phrase.model.of).toBeLessThan(i);
          });
        }
  });

  it('says a line of a blues twice before it is answered', () => {
    for (const seed of SEEDS) {
      const phrases = planPhrases(
        wish(rowNamed('slow 12/8 blues') as (typeof PHRASE_ROWS)[number], 12, seed)
      );
      const again = phrases.find(({ first }) => first === 4)!;
      expect(['literal', 'varied']).toContain(again.model?.how);
      expect(phrases[again.model!.of]!.first).toBe(0);
      expect(phrases.some(({ first }) => first === 8)).toBe(true);
    }
  });

  it('gives twelve bars twice to a form of twenty-four that is one long blues', () => {
    const row = rowNamed('shuffle blues');
    const long = Array.from({ length: 24 }, (_, i) => String(i));
    expect(spansOf({ row, bars: 24, harmony: long })).toEqual([
      { from: 0, to: 24, form: 'AAB', isDoubled: true }
    ]);
    const twice = Array.from({ length: 24 }, (_, i) => String(i % 12));
    expect(spansOf({ row, bars: 24, harmony: twice })).toHaveLength(2);
  });
});

describe('the rhythm vocabulary', () => {
  const names = Object.keys(VOCABULARIES) as Vocabulary[];
  it.each(names)('%s: every cell divides its pulses, and every role has some', (name) => {
    const size = name === 'waltz' ? 3 : name === 'soul' ? 2 : 4;
    for (const [role, cells] of Object.entries(cellsOf(name))) {
      expect(cells.length, role).toBeGreaterThanOrEqual(5);
      for (const { words, notes, text } of cells) {
        expect(words.length, text).toBe(role === 'D' ? 2 * size : size);
        expect(notes, text).toBeGreaterThan(0);
        for (const word of words) expect([1, 2, 3, 4, 6], text).toContain(word.length);
      }
    }
  });

  it('serves bars of every length', () => {
    for (const time of ['2/4', '3/4', '5/4', '6/4', '7/4', '5/8', '6/8', '7/8', '9/8', '12/8', '2/2']) {
      const { line, sheet } = phrasesOver(
        `{time: ${time}}\n{key: G}\n{tempo: 120}\n| Gm7 | C7 | Fmaj7 | D7b9 | Gm7 | C7 | Fmaj7 | % |`,
        3
      );
      expect(line.notes.length, time).toBeGreaterThan(8);
      const figures = figuresOf(sheet, line);
      expect(figures.jumps, time).toBe(0);
    }
  });
});
