/** Cards of shapes: which box it is, and what changes from one shape to the next. */
import { scaleChoices } from '../../../approaches/registry';
import { nth, sure } from '../../../base/list';
import { areaLabel } from '../../../neck/area';
import { positionFill } from '../../../neck/position';
import { namingOf, nameOf, shapeSubject } from '../../../neck/shape';
import { minorBoxes } from '../../../neck/systems/boxes';
import type { Instrument } from '../../../neck/tuning';
import { MODES } from '../../../theory/mode';
import { pitchClass } from '../../../theory/note';
import { readScale, scaleOf, type Scale } from '../../../theory/scale';
import { listed } from '../../../theory/words';
import type { SolvedCell } from '../card';
import { chordOf, note, windowAt, WINDOW, type CardKind, type Of } from './kit';

/** The boxes of a scale up the neck, each with its fret. */
function boxes(scale: string, neck: Instrument) {
  const read = sure(readScale(scale), 'readScale');
  const subject = sure(shapeSubject(null, read), 'shapeSubject');
  const rows = minorBoxes.rows(neck, { tonic: read.root, mode: 'minor' });
  return rows.map(({ position }) => minorBoxes.areaAt(neck, subject, position));
}

export const shape: CardKind<Of<'shape'>> = {
  id: 'shape',
  name: 'Name the shape and its fret',
  fields: { scale: 'scale', at: 'number' },
  way: 'choice',
  seconds: 8,
  ask: ({ scale }) => {
    const { root, name } = sure(readScale(scale), 'readScale');
    return `${note(root)} ${name}, the root filled: which box is it, and from which fret?`;
  },
  shows: ({ scale, at }, neck) => boxes(scale, neck)[at]?.cells ?? [],
  window: ({ scale, at }, neck) => {
    const frets = boxes(scale, neck)[at]?.cells.map(({ fret }) => fret) ?? [neck.capo];
    return [Math.min(...frets), Math.max(...frets)];
  },
  solve: ({ scale, at }, neck) => {
    const all = boxes(scale, neck);
    const own = nth(all, at);
    const others = all.filter((area) => area !== own);
    // The right shape at a wrong fret, a wrong shape at the right one, and one that is wrong in both.
    const [near, far] = [nth(others, at % others.length), nth(others, (at + 2) % others.length)];
    const choices = [
      areaLabel(own),
      areaLabel({ name: own.name, anchor: near.anchor }),
      areaLabel({ name: near.name, anchor: own.anchor }),
      areaLabel(far)
    ];
    const { root } = sure(readScale(scale), 'readScale');
    const on = own.cells.filter(({ degree }) => degree === '1').map(({ string }) => string);
    return {
      cells: own.cells,
      need: 'every',
      notes: [],
      choice: areaLabel(own),
      choices: [...new Set(choices)].sort(),
      why: `${areaLabel(own)}: ${note(root)} lies on ${listed(on.map((string) => `string ${string}`))}.`
    };
  },
  make: ({ analysis, neck }) => {
    const { tonic, mode } = analysis.key;
    const minorRoot = MODES[mode].isMinor ? tonic : nth(sure(scaleOf(tonic, 'major'), 'scaleOf').notes, 5);
    const scale = `${minorRoot} minor pentatonic`;
    // A box that the nut cuts is no box: each of the five is asked where all of it lies on the neck.
    const seen = new Set<string>();
    return boxes(scale, neck).flatMap((area, at): Of<'shape'>[] => {
      const name = JSON.stringify(area.name);
      if (area.cells.length < 2 * neck.strings.length || seen.has(name)) return [];
      seen.add(name);
      return [{ kind: 'shape', scale, at }];
    });
  }
};

/** The shape of a scale in a position, named against a chord. */
function scaleCells(neck: Instrument, symbol: string, scale: Scale, at: number): SolvedCell[] {
  const naming = namingOf(chordOf(symbol), scale);
  return positionFill(neck, scale.notes.map(pitchClass), at).map((cell) => ({
    ...cell,
    ...nameOf(cell.midi % 12, naming)
  }));
}
const sureScale = (text: string): Scale => readScale(text) ?? sure(scaleOf('C', 'major'), 'scaleOf');
const scaleName = (text: string): string => {
  const { root, name } = sureScale(text);
  return `${note(root)} ${name}`;
};
/** Notes of the second that the first does not have. */
function newNotes(from: string, to: string): readonly string[] {
  const held = new Set(sureScale(from).notes.map(pitchClass));
  return sureScale(to).notes.filter((name) => !held.has(pitchClass(name)));
}
/** New notes that a card may ask for: more of them are another key. */
const MOST_NEW = 3;

export const compare: CardKind<Of<'compare'>> = {
  id: 'compare',
  name: 'Compare two shapes: which notes change?',
  fields: { from: 'scale', to: 'scale', symbol: 'chord', at: 'fret' },
  way: 'cells',
  sounds: true,
  seconds: 14,
  ask: ({ from, to }) => `This is ${scaleName(to)}. Tap the notes that ${scaleName(from)} does not have`,
  shows: ({ to, symbol, at }, neck) => scaleCells(neck, symbol, sureScale(to), at),
  window: ({ at }, neck) => [
    Math.max(neck.capo, at - 1),
    Math.max(windowAt(at, neck)[1], Math.min(neck.frets, at + WINDOW))
  ],
  solve: ({ from, to, symbol, at }, neck) => {
    const fresh = newNotes(from, to);
    const gone = newNotes(to, from);
    const pcs = fresh.map(pitchClass);
    return {
      cells: scaleCells(neck, symbol, sureScale(to), at).filter(({ midi }) => pcs.includes(midi % 12)),
      need: 'each',
      notes: fresh,
      why: `${listed(fresh.map(note))} ${fresh.length > 1 ? 'come' : 'comes'} in${
        gone.length ? `, ${listed(gone.map(note))} ${gone.length > 1 ? 'go' : 'goes'}` : ''
      }; all else stays under the hand.`
    };
  },
  make: ({ analysis, positions, neck }) => {
    const first = scaleChoices(analysis, { approaches: ['modes'] }).map(([choice]) => choice);
    const at = positions[0] ?? neck.capo + 1;
    const cards = analysis.changes.flatMap(({ chord }, i): Of<'compare'>[] => {
      const [before, own] = [first[i === 0 ? first.length - 1 : i - 1], first[i]];
      if (!chord || !before || !own) return [];
      const [from, to] = [before, own].map(({ root, name }) => `${root} ${plainScale(root, name)}`) as [
        string,
        string
      ];
      if (!readScale(from) || !readScale(to)) return [];
      const fresh = newNotes(from, to).length;
      if (fresh === 0 || fresh > MOST_NEW) return [];
      const card: Of<'compare'> = { kind: 'compare', from, to, symbol: chord.symbol, at };
      const { cells, notes } = compare.solve(card, neck);
      return notes.every((name) => cells.some((cell) => cell.note === name)) ? [card] : [];
    });
    return [...new Map(cards.map((card) => [`${card.from} ${card.to}`, card])).values()];
  }
};

/** The name of a collection without its root: "F dorian" of F is "dorian". */
const plainScale = (root: string, name: string): string =>
  name.startsWith(`${root} `) ? name.slice(root.length + 1) : name;
