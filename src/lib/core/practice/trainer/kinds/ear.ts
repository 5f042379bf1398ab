/** Cards for the ear: which chord a line outlines, which line outlines a chord, sung tones, a phrase found on the neck. */
import { nth } from '../../../base/list';
import type { Midi } from '../../../base/units';
import { keyText } from '../../../harmony/key';
import { spots } from '../../../neck/tuning';
import type { Chord } from '../../../theory/chord';
import { LINES, lineOver, phraseOf } from '../lines';
import {
  chordsOf,
  guides,
  keyName,
  nameIn,
  note,
  placed,
  say,
  sayDegree,
  chordOf,
  WINDOW,
  windowAt,
  type CardKind,
  type Of
} from './kit';

/** Chords to choose from by ear. */
const CHOICES = 4;

/** Chords of the same notes are one chord to the ear. */
const different = (chords: readonly Chord[]) => [
  ...new Map(chords.map((chord) => [chord.pitchSet, chord])).values()
];

export const hear: CardKind<Of<'hear'>> = {
  id: 'hear',
  name: 'Hear a line: which chord?',
  fields: { symbol: 'chord', key: 'key', among: 'chords' },
  isNeckless: true,
  way: 'choice',
  choosesFrom: 'chords',
  seconds: 8,
  ask: ({ key }) => `You hear the home of ${keyName(key)}, then a line. Which chord does the line outline?`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, among }) => {
    const { notes } = chordOf(symbol);
    return {
      cells: [],
      need: 'one',
      notes,
      choice: symbol,
      choices: among,
      why: `It was ${say(symbol)}: ${notes.map(note).join(' ')}.`
    };
  },
  make: ({ analysis }) => {
    const chords = different(chordsOf(analysis));
    if (chords.length < 2) return [];
    return chords.map(({ symbol }, at) => ({
      kind: 'hear',
      symbol,
      key: keyText(analysis.key),
      among: Array.from(
        { length: Math.min(CHOICES, chords.length) },
        (_, i) => nth(chords, (at + i) % chords.length).symbol
      ).sort()
    }));
  }
};

export const sing: CardKind<Of<'sing'>> = {
  id: 'sing',
  name: 'Sing the third, then play it',
  fields: { symbol: 'chord', degree: 'degree' },
  isNeckless: true,
  isSung: true,
  way: 'own',
  sounds: true,
  seconds: 8,
  ask: ({ symbol, degree }) =>
    `${say(symbol)} sounds. Sing its ${sayDegree(degree, chordOf(symbol))}, then play it`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, degree }) => {
    const chord = chordOf(symbol);
    const name = nameIn(chord, degree);
    return {
      cells: [],
      need: 'one',
      notes: [name],
      why: `The ${sayDegree(degree, chord)} of ${say(symbol)} is ${note(name)}.`
    };
  },
  make: ({ analysis }) =>
    chordsOf(analysis).flatMap((chord) =>
      guides(chord)
        .slice(0, 1)
        .map((degree) => ({ kind: 'sing', symbol: chord.symbol, degree }))
    )
};

export const outlines: CardKind<Of<'outlines'>> = {
  id: 'outlines',
  name: 'Which of these lines outlines the chord?',
  fields: { symbol: 'chord', key: 'key', turn: 'number' },
  isNeckless: true,
  way: 'choice',
  seconds: 12,
  ask: ({ symbol }) => `Which of these lines tells ${say(symbol)} without the band?`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, key, turn }) => {
    const chord = chordOf(symbol);
    const lines = LINES.map((line) => line(chord, key).map(note).join(' '));
    const [choice] = lines as [string];
    // The right one is not always in the same place.
    const choices = [...new Set(lines)].map((_, i, all) => nth(all, (i + turn) % all.length));
    const told = guides(chord).map(
      (degree) => `${note(nameIn(chord, degree))}, the ${sayDegree(degree, chord)}`
    );
    return {
      cells: [],
      need: 'one',
      notes: chord.notes,
      choice,
      choices,
      why: `${choice}: on its beats it has ${told.join(', and ')}.`
    };
  },
  make: ({ analysis }) => {
    const key = keyText(analysis.key);
    return different(chordsOf(analysis)).flatMap((chord, i): Of<'outlines'>[] => {
      const lines = new Set(LINES.map((line) => line(chord, key).join(' ')));
      // Three lines that differ, and a chord that has a third and a seventh to be told by.
      if (lines.size < LINES.length || guides(chord).length < 2) return [];
      return [{ kind: 'outlines', symbol: chord.symbol, key, turn: i % LINES.length }];
    });
  }
};

/** A phrase to be sung and found: on one string, and in the area of the hand. */
export const phrase: CardKind<Of<'phrase'>> = {
  id: 'phrase',
  name: 'Sing a phrase, find it on the neck',
  fields: { symbol: 'chord', at: 'fret', string: 'string' },
  way: 'cells',
  seconds: 25,
  ask: ({ at, string }) =>
    string > 0
      ? `A phrase sounds. Sing it, then find it on string ${string}: tap its notes`
      : `A phrase sounds. Sing it, then find it between frets ${at} and ${at + WINDOW}: tap its notes`,
  window: ({ at, string }, neck) =>
    string > 0 ? [neck.capo, Math.min(neck.frets, neck.capo + 14)] : windowAt(at, neck),
  solve: ({ symbol, at, string }, neck) => {
    const chord = chordOf(symbol);
    const midis = phraseOf(chord);
    const [from, to] = phrase.window({ kind: 'phrase', symbol, at, string }, neck);
    const cells = placed(
      neck,
      chord,
      midis.map((midi) => midi % 12),
      from,
      to
    ).filter((cell) => midis.includes(cell.midi) && (string === 0 || cell.string === string));
    const notes = midis
      .map((midi) => cells.find((cell) => cell.midi === midi)?.note)
      .filter((name) => name !== undefined);
    return {
      cells,
      need: 'each',
      notes: [...new Set(notes)],
      why: `It was ${midis.map((midi) => note(lineOver(chord, midi))).join(' ')} over ${say(symbol)}: ${cells
        .map((cell) => `${cell.string}:${cell.fret}`)
        .join(', ')} (string:fret).`
    };
  },
  make: ({ analysis, positions, neck }) =>
    chordsOf(analysis).flatMap((chord) => {
      const midis = phraseOf(chord);
      const at = positions[0] ?? neck.capo + 1;
      const reaches = (cells: readonly { midi: Midi }[]) =>
        midis.every((midi) => cells.some((cell) => cell.midi === midi));
      // First on one string, then where the hand is.
      const one = Array.from({ length: neck.strings.length }, (_, i) => i + 1).find((string) =>
        reaches(
          spots(neck, neck.capo, Math.min(neck.frets, neck.capo + 14)).filter(
            (cell) => cell.string === string
          )
        )
      );
      const [low, high] = windowAt(at, neck);
      return [...(one === undefined ? [] : [one]), ...(reaches(spots(neck, low, high)) ? [0] : [])].map(
        (string): Of<'phrase'> => ({ kind: 'phrase', symbol: chord.symbol, at, string })
      );
    })
};
