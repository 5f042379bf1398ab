/** Cards that find a target: in every octave, in the window, nearest to where the hand is. */
import type { Fret, StringNumber } from '../../../base/units';
import { spots } from '../../../neck/tuning';
import { listed } from '../../../theory/words';
import {
  asLearnt,
  chordsOf,
  guides,
  nameIn,
  note,
  pairsOf,
  pcOf,
  placed,
  say,
  sayDegree,
  chordOf,
  TURN,
  windowAt,
  type CardKind,
  type Of
} from './kit';

export const find: CardKind<Of<'find'>> = {
  id: 'find',
  name: 'Find a tone in this window',
  fields: { symbol: 'chord', degree: 'degree', from: 'fret', to: 'fret' },
  way: 'cell',
  sounds: true,
  seconds: 5,
  ask: ({ symbol, degree, from, to }) =>
    `Find the ${sayDegree(degree, chordOf(symbol))} of ${say(symbol)} between frets ${from} and ${to}`,
  window: ({ from, to }) => [from, to],
  solve: ({ symbol, degree, from, to }, neck) => {
    const chord = chordOf(symbol);
    const cells = placed(neck, chord, [pcOf(chord, degree)], from, to);
    const name = nameIn(chord, degree);
    return {
      cells,
      need: 'one',
      notes: [name],
      why: `The ${sayDegree(degree, chord)} of ${say(symbol)} is ${note(name)}: ${listed(
        cells.map(({ string, fret }) => `string ${string}, fret ${fret}`),
        'or'
      )}.`
    };
  },
  make: ({ analysis, positions, neck }) =>
    positions.flatMap((at) =>
      chordsOf(analysis).flatMap((chord) =>
        asLearnt(chord.tones)
          .map((degree): Of<'find'> => {
            const [from, to] = windowAt(at, neck);
            return { kind: 'find', symbol: chord.symbol, degree, from, to };
          })
          .filter(({ degree, from, to }) => placed(neck, chord, [pcOf(chord, degree)], from, to).length > 0)
      )
    )
};

export const octaves: CardKind<Of<'octaves'>> = {
  id: 'octaves',
  name: 'Every octave of a tone',
  fields: { symbol: 'chord', degree: 'degree', to: 'fret' },
  way: 'cells',
  seconds: 20,
  ask: ({ symbol, degree, to }) =>
    `Every ${sayDegree(degree, chordOf(symbol))} of ${say(symbol)} up to fret ${to}, on all strings`,
  window: ({ to }, neck) => [neck.capo, to],
  solve: ({ symbol, degree, to }, neck) => {
    const chord = chordOf(symbol);
    const cells = placed(neck, chord, [pcOf(chord, degree)], neck.capo, to);
    const name = nameIn(chord, degree);
    return {
      cells,
      need: 'every',
      notes: [name],
      why: `${note(name)} lies at ${listed(cells.map(({ string, fret }) => `${string}:${fret}`))} (string:fret).`
    };
  },
  make: ({ analysis, neck }) =>
    chordsOf(analysis).flatMap((chord) =>
      guides(chord).map((degree) => ({
        kind: 'octaves',
        symbol: chord.symbol,
        degree,
        to: Math.min(neck.frets, neck.capo + TURN)
      }))
    )
};

/** How far a place lies from another for a hand: frets, and half a fret for a string. */
const farFrom = (a: { string: StringNumber; fret: Fret }, b: { string: StringNumber; fret: Fret }) =>
  Math.abs(a.fret - b.fret) + 0.5 * Math.abs(a.string - b.string);
/** Frets around the note that is shown. */
const AROUND = 5;

export const nearest: CardKind<Of<'nearest'>> = {
  id: 'nearest',
  name: 'The nearest target of the next chord',
  fields: { from: 'chord', degree: 'degree', to: 'chord', target: 'degree', string: 'string', at: 'fret' },
  way: 'cell',
  sounds: true,
  seconds: 6,
  ask: ({ from, degree, to, target }) =>
    `You are on the ${sayDegree(degree, chordOf(from))} of ${say(from)}. Where is the nearest ${sayDegree(target, chordOf(to))} of ${say(to)}?`,
  shows: ({ from, string, at }, neck) =>
    placed(neck, chordOf(from), chordOf(from).pitchClasses, at, at).filter((cell) => cell.string === string),
  window: ({ at }, neck) => [Math.max(neck.capo, at - AROUND), Math.min(neck.frets, at + AROUND)],
  solve: ({ to, target, string, at }, neck) => {
    const chord = chordOf(to);
    const all = placed(neck, chord, [pcOf(chord, target)], Math.max(neck.capo, at - AROUND), at + AROUND);
    const least = Math.min(...all.map((cell) => farFrom(cell, { string, fret: at })));
    // What is nearly as near is as good: the hand decides.
    const cells = all.filter((cell) => farFrom(cell, { string, fret: at }) <= least + 0.5);
    const name = nameIn(chord, target);
    return {
      cells,
      need: 'one',
      notes: [name],
      why: `The ${sayDegree(target, chord)} of ${say(to)} is ${note(name)}: ${listed(
        cells.map((cell) => `string ${cell.string}, fret ${cell.fret}`),
        'or'
      )}.`
    };
  },
  make: ({ analysis, positions, neck }) =>
    pairsOf(analysis).flatMap(([from, to]) => {
      const [degree, target] = [guides(from)[0], guides(to)[0]];
      if (!degree || !target) return [];
      const [low, high] = windowAt(positions[0] ?? neck.capo + 1, neck);
      const [start] = spots(neck, low, high).filter(({ midi }) => midi % 12 === pcOf(from, degree));
      if (!start) return [];
      const { string, fret: at } = start;
      return [{ kind: 'nearest', from: from.symbol, degree, to: to.symbol, target, string, at }];
    })
};
