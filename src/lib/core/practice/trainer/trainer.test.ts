import { createEmptyCard, fsrs, Rating } from 'ts-fsrs';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { STANDARD, soundAt } from '../../neck/tuning';
import { outlineLine } from '../../line/outline';
import { TICKS, type LineNote } from '../../line/model';
import { question as questionSchema } from '../../../api/practice';
import type { Degree } from '../../theory/degree';
import { pitchClass } from '../../theory/note';
import { LINES } from './lines';
import { cardId, type Answer, type Question, type Solution } from './card';
import { afterAnswer, NEW_A_DAY, roundOf } from './deck';
import { ask, CARD_KINDS, cardsOf, check, kindOf, solve } from './kinds';
import { gradeOf, recall, remembered, usualSeconds, type Review } from './memory';

const CHARTS = [
  '{key: Eb}\n| Eb7 | Ab7 | Eb7 | C7b9 | Fm7 | Bb7 |',
  '{key: Gm}\n| Gm6 | Am7b5 | D7b9 | Gm6 |',
  '{key: Db}\n| Dbmaj7 | Gb7/Bb | Fm7 | Bbdim7 | N.C. | E7#5 |',
  '{key: F#m}\n| F#m7 | B7sus4 | E | A+ |'
];
const material = (text: string) => ({
  analysis: readSheet(text).analysis,
  neck: STANDARD,
  positions: [3, 6]
});
const ALL = CHARTS.flatMap((text) => cardsOf(material(text)));
const solved = (question: Question) => solve(question, STANDARD);
const neck = (...cells: string[]): Answer => ({
  way: 'neck',
  cells: cells.map((cell) => {
    const [string, fret] = cell.split(':').map(Number);
    return { string: string!, fret: fret! };
  })
});
const isRight = (question: Question, answer: Answer) => check(question, answer, STANDARD).isRight;

/** An answer that is right by every way a kind is answered. */
function right(question: Question, { cells, notes, choice, need }: Solution): Answer {
  const { way } = kindOf(question.kind);
  if (way === 'names') return { way: 'names', notes };
  if (way === 'choice') return { way: 'choice', choice: choice! };
  if (way === 'own') return { way: 'own', isRight: true };
  return { way: 'neck', cells: need === 'one' ? cells.slice(0, 1) : cells };
}

describe('cards', () => {
  it('are of every kind, each with an id of its own', () => {
    expect(new Set(ALL.map(({ kind }) => kind))).toEqual(new Set(CARD_KINDS.map(({ id }) => id)));
    const own = cardsOf(material(CHARTS[0]!));
    expect(new Set(own.map(cardId)).size).toBe(own.length);
  });

  it('take their own solution as right, and say why in a sentence', () => {
    for (const question of ALL) {
      const solution = solved(question);
      expect(isRight(question, right(question, solution)), cardId(question)).toBe(true);
      expect(solution.why.length, cardId(question)).toBeGreaterThan(10);
      expect(ask(question), cardId(question)).not.toMatch(/undefined|null|NaN/);
    }
  });

  it('name only places that sound what they claim, inside the window shown', () => {
    for (const question of ALL) {
      const { cells, notes, need } = solved(question);
      const [from, to] = kindOf(question.kind).window(question, STANDARD);
      for (const { string, fret, midi, note } of cells) {
        expect(soundAt(STANDARD, string, fret)).toBe(midi);
        expect(pitchClass(note)).toBe(midi % 12);
        expect(fret >= from && fret <= to, cardId(question)).toBe(true);
      }
      if (need !== 'each') continue;
      const { shows } = kindOf(question.kind);
      if (shows) expect(notes.every((name) => cells.some(({ note }) => note === name))).toBe(true);
    }
  });

  it('ask for thirds before sevenths, roots and fifths', () => {
    const finds = kindOf('find').make({ ...material('{key: Eb}\n| Ab7 |'), positions: [4] });
    expect(finds.map((question) => ('degree' in question ? question.degree : ''))).toEqual([
      '3',
      'b7',
      '1',
      '5'
    ]);
  });
});

describe('cards that can be answered', () => {
  const made = (text: string, kind: Question['kind']) =>
    cardsOf(material(text)).filter((question) => question.kind === kind);

  it('ask what stays only where something does, and where it lies under the hand', () => {
    for (const question of ALL.filter(({ kind }) => kind === 'moves')) {
      const { notes, cells } = solved(question);
      expect(notes.length, cardId(question)).toBeGreaterThan(0);
      expect(notes.every((name) => cells.some(({ note }) => note === name))).toBe(true);
    }
    // B and C have no tone in common.
    expect(made('{key: C}\n| Cmaj7 | Bbm |', 'moves')).toEqual([]);
  });

  it('show whole boxes, never one that the nut cuts', () => {
    for (const key of ['Em', 'F', 'Bbm', 'C#m', 'A']) {
      const shapes = made(`{key: ${key}}\n| ${key} |`, 'shape');
      expect(shapes, key).toHaveLength(5);
      for (const question of shapes) expect(kindOf('shape').shows!(question, STANDARD)).toHaveLength(12);
    }
  });

  it('say 4 of a suspended chord, and 11 of others', () => {
    expect(ask({ kind: 'find', symbol: 'B7sus4', degree: '11', from: 3, to: 7 })).toContain('Find the 4 of');
    expect(ask({ kind: 'find', symbol: 'Dsus2', degree: '9', from: 3, to: 7 })).toContain('Find the 2 of');
    expect(ask({ kind: 'find', symbol: 'Cm11', degree: '11', from: 3, to: 7 })).toContain('Find the 11 of');
  });

  it('ask for a target in every octave first, then under the hand, then nearest to it', () => {
    const order = cardsOf(material('{key: Eb}\n| Fm7 | Bb7 |')).map(({ kind }) => kind);
    expect(order.indexOf('octaves')).toBeLessThan(order.indexOf('find'));
    expect(order.indexOf('find')).toBeLessThan(order.indexOf('nearest'));
  });

  it('find the nearest third of the next chord: from A flat on string 2 down a fret to D', () => {
    const question: Question = {
      kind: 'nearest',
      from: 'Fm7',
      degree: 'b3',
      to: 'Bb7',
      target: '3',
      string: 2,
      at: 9
    };
    // D lies at 3:7, 2:3, 4:12, 1:10.
    expect(solved(question).cells.map(({ string, fret }) => `${string}:${fret}`)).toEqual(['1:10']);
    expect(isRight(question, neck('1:10'))).toBe(true);
    expect(isRight(question, neck('3:7'))).toBe(false);
  });

  it('compare two shapes: F dorian to B flat altered, and what comes in', () => {
    const question: Question = { kind: 'compare', from: 'F dorian', to: 'F aeolian', symbol: 'Fm7', at: 8 };
    const { notes, why } = solved(question);
    expect(notes).toEqual(['Db']);
    expect(why).toBe('D♭ comes in, D goes; all else stays under the hand.');
    expect(made('{key: Gm}\n| Gm7 | Am7b5 | D7b9 | Gm7 |', 'compare').length).toBeGreaterThan(0);
  });

  it('name what one note makes of a chord', () => {
    const of = (symbol: string, degree: Degree, step: number) =>
      solved({ kind: 'quality', symbol, degree, step }).choice;
    expect([
      of('Cmaj7', '7', -1),
      of('C7', '3', -1),
      of('Cm7', '5', -1),
      of('Cm7b5', 'b7', -1),
      of('Gb7', '3', 1)
    ]).toEqual(['C7', 'Cm7', 'Cm7b5', 'Cdim7', 'Gb7sus4']);
    for (const question of ALL.filter(({ kind }) => kind === 'quality')) {
      const { choice, choices } = solved(question);
      expect(choices, cardId(question)).toHaveLength(4);
      expect(new Set(choices).size).toBe(4);
      expect(choices).toContain(choice);
      if ('symbol' in question) expect(choice).not.toBe(question.symbol);
    }
  });

  it('tell by the outline test alone which line outlines the chord', () => {
    const cards = ALL.filter((question) => question.kind === 'outlines');
    expect(cards.length).toBeGreaterThan(5);
    for (const question of cards) {
      const chord = readSheet(`| ${question.symbol} |`).analysis.changes[0]!;
      const verdicts = LINES.map((line) => {
        let midi = 60;
        const notes = line(chord.chord!, question.key).map((name, i): LineNote => {
          const up = (pitchClass(name) - (midi % 12) + 12) % 12;
          midi += up > 6 ? up - 12 : up;
          return { start: (i * TICKS) / 2, length: TICKS / 2, midi, techniques: [] } as unknown as LineNote;
        });
        return outlineLine(notes, [{ from: 0, to: 4 * TICKS, change: chord }]).windows[0]!.verdict;
      });
      expect(verdicts[0], question.symbol).toBe('clear');
      expect(verdicts.slice(1).includes('clear'), question.symbol).toBe(false);
    }
  });

  it('let a phrase be found on one string and under the hand, every note of it where it sounds', () => {
    const cards = ALL.filter((question) => question.kind === 'phrase');
    expect(cards.some(({ string }) => string === 0)).toBe(true);
    for (const question of cards.filter(({ string }) => string > 0)) {
      expect(solved(question).cells.every(({ string }) => string === question.string)).toBe(true);
    }
  });

  it('cross the boundary as they are, and nothing else does', () => {
    for (const question of ALL) expect(questionSchema.parse(question)).toEqual(question);
    expect(questionSchema.safeParse({ kind: 'quality', symbol: 'C7', degree: '3', step: 5 }).success).toBe(
      false
    );
    expect(
      questionSchema.safeParse({ kind: 'compare', from: 'nothing', to: 'F dorian', symbol: 'C7', at: 3 })
        .success
    ).toBe(false);
  });
});

describe('answers', () => {
  it('finds the flat seventh of A flat seven between frets 4 and 8: G flat, nowhere else', () => {
    const question: Question = { kind: 'find', symbol: 'Ab7', degree: 'b7', from: 4, to: 8 };
    expect(solved(question).cells.map(({ string, fret }) => `${string}:${fret}`)).toEqual(['2:7', '4:4']);
    expect(isRight(question, neck('4:4'))).toBe(true);
    expect(check(question, neck('4:5'), STANDARD)).toMatchObject({
      isRight: false,
      wrong: [{ string: 4, fret: 5 }]
    });
    expect(isRight(question, { way: 'sound', midi: [78] })).toBe(true);
    expect(isRight(question, { way: 'sound', midi: [77] })).toBe(false);
  });

  it('wants every octave, and tells those that were missed', () => {
    const question: Question = { kind: 'octaves', symbol: 'D7b9', degree: '3', to: 12 };
    const all = solved(question).cells.map(({ string, fret }) => `${string}:${fret}`);
    expect(all).toEqual(['1:2', '2:7', '3:11', '4:4', '5:9', '6:2']);
    expect(isRight(question, neck(...all))).toBe(true);
    expect(check(question, neck(...all.slice(1)), STANDARD).missed).toMatchObject([{ string: 1, fret: 2 }]);
  });

  it('turns the seventh of F minor into the fourth of B flat seven', () => {
    const question: Question = { kind: 'becomes', from: 'Fm7', degree: 'b7', to: 'Bb7', at: 6 };
    expect(solved(question).choice).toBe('11');
    expect(isRight(question, { way: 'choice', choice: '11' })).toBe(true);
    expect(solved({ ...question, degree: 'b3' }).choice).toBe('b7');
  });

  it('knows what stays from D flat to G flat seven, and where the rest goes', () => {
    const question: Question = { kind: 'moves', from: 'Dbmaj7', to: 'Gb7', at: 3 };
    const { notes, why, cells } = solved(question);
    expect(notes).toEqual(['Db']);
    expect(why).toBe('D♭ stays, F falls to F♭, A♭ falls to G♭, C rises to D♭.');
    // One of each note is enough; a note that moves is wrong.
    expect(isRight(question, { way: 'neck', cells: cells.slice(0, 1) })).toBe(true);
    expect(isRight(question, { way: 'neck', cells: [] })).toBe(false);
  });

  it('says what E flat major lacks on C seven flat nine', () => {
    const question: Question = { kind: 'lacks', symbol: 'C7b9', key: 'Eb', at: 6 };
    expect(solved(question).notes).toEqual(['E', 'Db']);
    expect(isRight(question, { way: 'names', notes: ['Db', 'E'] })).toBe(true);
    expect(isRight(question, { way: 'names', notes: ['E'] })).toBe(false);
  });

  it('wants chords spelled by their names, in order, but takes any octave and order when played', () => {
    const question: Question = { kind: 'spell', symbol: 'Am7b5' };
    expect(isRight(question, { way: 'names', notes: ['A', 'C', 'Eb', 'G'] })).toBe(true);
    expect(isRight(question, { way: 'names', notes: ['A', 'C', 'D#', 'G'] })).toBe(false);
    expect(isRight(question, { way: 'sound', midi: [79, 57, 63, 48] })).toBe(true);
  });

  it('names the first box of G minor pentatonic at the third fret', () => {
    const shapes = cardsOf(material(CHARTS[1]!)).filter(({ kind }) => kind === 'shape');
    expect(shapes.map((question) => solved(question).choice)).toContain('box 1 · 3');
    for (const question of shapes) expect(solved(question).choices).toHaveLength(4);
  });

  it('offers by ear only chords of different notes', () => {
    const hears = cardsOf(material('| C6 | Am7 | Dm7 |')).filter(({ kind }) => kind === 'hear');
    expect(hears).toHaveLength(2);
  });
});

describe('memory', () => {
  const HOUR = 3_600_000;
  const NOW = Date.parse('2026-03-05T18:00:00Z');
  const review = (isRight: boolean, seconds: number): Review => ({ at: NOW, isRight, seconds });

  it('rates by right and wrong, and by the card’s own usual time', () => {
    const history = [4, 5, 6].map((seconds) => review(true, seconds));
    expect(usualSeconds(history, 20)).toBe(5);
    expect(usualSeconds([review(false, 1)], 20)).toBe(20);
    const grade = (isRight: boolean, seconds: number) => gradeOf(review(isRight, seconds), history, 20);
    expect([grade(true, 2), grade(true, 5), grade(true, 9), grade(false, 1)]).toEqual([
      'easy',
      'good',
      'hard',
      'again'
    ]);
  });

  it('is what its package reckons, answer by answer', () => {
    const scheduler = fsrs({ enable_fuzz: false });
    let theirs = createEmptyCard(new Date(NOW));
    let ours = null as ReturnType<typeof remembered> | null;
    const grades = ['good', 'good', 'easy', 'hard', 'again', 'good'] as const;
    const ratings = { again: Rating.Again, hard: Rating.Hard, good: Rating.Good, easy: Rating.Easy } as const;
    let at = NOW;
    for (const grade of grades) {
      theirs = scheduler.next(theirs, new Date(at), ratings[grade]).card;
      ours = remembered(ours, grade, at);
      expect(ours.due).toBe(theirs.due.getTime());
      expect(ours.stability).toBeCloseTo(theirs.stability, 8);
      expect(ours.difficulty).toBeCloseTo(theirs.difficulty, 8);
      at = theirs.due.getTime() + HOUR;
    }
    expect(recall(ours!, ours!.last!)).toBeCloseTo(1, 5);
    expect(recall(ours!, at + 400 * HOUR)).toBeLessThan(recall(ours!, at));
  });

  it('bears a clock that was set back', () => {
    const first = remembered(null, 'good', NOW);
    const second = remembered(first, 'good', NOW - 48 * HOUR);
    expect(second.last).toBe(NOW);
    expect(second.due).toBeGreaterThanOrEqual(NOW);
  });

  it('asks what is due first, the longest first, and a few new cards', () => {
    const fresh = cardsOf(material(CHARTS[0]!));
    const known = fresh.slice(0, 4).map((question, i) => ({
      id: cardId(question),
      question,
      memory: { ...remembered(null, 'good', NOW), due: NOW + [-1, -9, 5, 0][i]! * HOUR }
    }));
    const round = roundOf({ known, fresh: fresh.slice(4), newToday: 7 }, NOW);
    expect(round).toHaveLength(3 + NEW_A_DAY - 7);
    expect(round[0]).toBe(known[1]!.question);
    const kinds = roundOf({ known: [], fresh, newToday: 0 }, NOW).map(({ kind }) => kind);
    expect(kinds.some((kind, i) => i > 0 && kind === kinds[i - 1])).toBe(false);
  });

  it('brings a missed card again in the round', () => {
    const [a, b, c, d] = ALL as [Question, Question, Question, Question];
    expect(afterAnswer([b, c], a, false)).toEqual([b, c, a]);
    expect(afterAnswer([b, c, d, b], a, false)).toEqual([b, c, d, a, b]);
    expect(afterAnswer([b, c], a, true)).toEqual([b, c]);
    // Not for ever.
    expect([1, 2, 3].map((times) => afterAnswer([b], a, false, times).length)).toEqual([2, 2, 1]);
  });
});
