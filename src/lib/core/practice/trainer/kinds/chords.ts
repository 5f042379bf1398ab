/** Cards that know a chord: its spelling, where its tones go, what the key lacks of it, what one note makes of it. */
import { chordNamed } from '../../../approaches/collection';
import { nth, sure } from '../../../base/list';
import { keyText } from '../../../harmony/key';
import type { Chord } from '../../../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../../../theory/degree';
import { pitchClass, semitonesUp, type NoteName } from '../../../theory/note';
import { listed } from '../../../theory/words';
import {
  asLearnt,
  chordsOf,
  keyName,
  keyNotes,
  nameIn,
  note,
  pairsOf,
  pcOf,
  placed,
  say,
  sayDegree,
  chordOf,
  WINDOW,
  windowAt,
  type CardKind,
  type Of
} from './kit';

/** Where a chord's tones go: those that stay, and each of the others to its nearest tone of the next chord. */
function motion(from: Chord, to: Chord): { readonly stays: readonly number[]; readonly said: string } {
  const stays = from.pitchClasses.filter((pc) => to.pitchClasses.includes(pc));
  const said = from.pitchClasses.map((pc, i) => {
    const name = note(nth(from.notes, i));
    if (stays.includes(pc)) return `${name} stays`;
    const steps = to.pitchClasses.map((goal) => ((goal - pc + 18) % 12) - 6);
    // Downward on a tie, as the neck draws it.
    const far = steps.map((step) => Math.abs(step) + (step > 0 ? 0.5 : 0));
    const nearest = far.indexOf(Math.min(...far));
    return `${name} ${nth(steps, nearest) > 0 ? 'rises' : 'falls'} to ${note(nth(to.notes, nearest))}`;
  });
  return { stays, said: said.join(', ') };
}

function lacking({ pitchClasses, notes }: Chord, key: string): readonly NoteName[] {
  const held = new Set(keyNotes(key).map(pitchClass));
  return notes.filter((_, i) => !held.has(nth(pitchClasses, i)));
}

export const becomes: CardKind<Of<'becomes'>> = {
  id: 'becomes',
  name: 'The same note, the next chord',
  fields: { from: 'chord', degree: 'degree', to: 'chord', at: 'fret' },
  way: 'choice',
  choosesFrom: 'degrees',
  seconds: 6,
  ask: ({ from, degree, to }) =>
    `This is the ${sayDegree(degree, chordOf(from))} of ${say(from)}. Which degree is it when ${say(to)} comes?`,
  shows: ({ from, degree, at }, neck) => {
    const chord = chordOf(from);
    return placed(neck, chord, [pcOf(chord, degree)], ...windowAt(at, neck)).slice(0, 1);
  },
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ from, degree, to }) => {
    const [chord, next] = [chordOf(from), chordOf(to)];
    const pc = pcOf(chord, degree);
    const degreeAt = (semitones: number) => degreeOf(semitones, next.tones);
    const own = degreeAt(semitonesUp(next.rootPc, pc));
    const name = nameIn(chord, degree);
    const isTone = next.tones.includes(own);
    return {
      cells: [],
      need: 'one',
      notes: [name],
      choice: own,
      choices: Array.from({ length: 12 }, (_, semitones) => degreeAt(semitones)),
      why: `${note(name)} is the ${sayDegree(own, next)} of ${say(to)}: ${
        isTone ? 'a tone of the chord, it can stay' : 'no tone of the chord, it wants to move'
      }.`
    };
  },
  make: ({ analysis, positions, neck }) =>
    pairsOf(analysis).flatMap(([from, to]) =>
      asLearnt(from.tones)
        .filter((degree) => DEGREES[degree].slot !== 'tension')
        .map((degree): Of<'becomes'> => ({
          kind: 'becomes',
          from: from.symbol,
          degree,
          to: to.symbol,
          at: positions[0] ?? neck.capo + 1
        }))
        .filter((question) => sure(becomes.shows, 'what a card shows')(question, neck).length > 0)
    )
};

export const moves: CardKind<Of<'moves'>> = {
  id: 'moves',
  name: 'What stays, what moves',
  fields: { from: 'chord', to: 'chord', at: 'fret' },
  way: 'cells',
  sounds: true,
  seconds: 12,
  ask: ({ from, to }) => `${say(from)} becomes ${say(to)}: tap the notes that stay`,
  shows: ({ from, at }, neck) => {
    const chord = chordOf(from);
    return placed(neck, chord, chord.pitchClasses, ...windowAt(at, neck));
  },
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ from, to, at }, neck) => {
    const [chord, next] = [chordOf(from), chordOf(to)];
    const { stays, said } = motion(chord, next);
    return {
      cells: placed(neck, chord, stays, ...windowAt(at, neck)),
      need: 'each',
      notes: chord.notes.filter((_, i) => stays.includes(nth(chord.pitchClasses, i))),
      why: `${said}.`
    };
  },
  make: ({ analysis, positions, neck }) =>
    pairsOf(analysis)
      .map(([from, to]): Of<'moves'> => ({
        kind: 'moves',
        from: from.symbol,
        to: to.symbol,
        at: positions[0] ?? neck.capo + 1
      }))
      // Something stays, and lies under the hand.
      .filter((question) => {
        const { notes, cells } = moves.solve(question, neck);
        return notes.length > 0 && notes.every((name) => cells.some((cell) => cell.note === name));
      })
};

export const lacks: CardKind<Of<'lacks'>> = {
  id: 'lacks',
  name: 'What the key’s scale lacks',
  fields: { symbol: 'chord', key: 'key', at: 'fret' },
  way: 'cells',
  sounds: true,
  seconds: 10,
  ask: ({ symbol, key }) => `Which tones of ${say(symbol)} does the scale of ${keyName(key)} lack?`,
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ symbol, key, at }, neck) => {
    const chord = chordOf(symbol);
    const missing = lacking(chord, key);
    const degrees = missing.map((name) => sayDegree(nth(chord.tones, chord.notes.indexOf(name)), chord));
    return {
      cells: placed(neck, chord, missing.map(pitchClass), ...windowAt(at, neck)),
      need: 'each',
      notes: missing,
      why: `${keyName(key)} has no ${listed(missing.map(note), 'or')}: the ${listed(degrees)} of ${say(symbol)}, exactly what tells it.`
    };
  },
  make: ({ analysis, positions, neck }) => {
    const key = keyText(analysis.key);
    return chordsOf(analysis)
      .filter((chord) => lacking(chord, key).length > 0)
      .map((chord) => ({ kind: 'lacks', symbol: chord.symbol, key, at: positions[0] ?? neck.capo + 1 }));
  }
};

export const spell: CardKind<Of<'spell'>> = {
  id: 'spell',
  name: 'Spell the chord',
  fields: { symbol: 'chord' },
  isNeckless: true,
  way: 'names',
  sounds: true,
  isSpelling: true,
  seconds: 10,
  ask: ({ symbol }) => `Spell ${say(symbol)}`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol }) => {
    const chord = chordOf(symbol);
    const { notes, tones } = chord;
    return {
      cells: [],
      need: 'each',
      notes,
      why: `${say(symbol)}: ${notes.map((name, i) => `${note(name)} (${sayDegree(nth(tones, i), chord)})`).join(', ')}.`
    };
  },
  make: ({ analysis }) => chordsOf(analysis).map(({ symbol }) => ({ kind: 'spell', symbol }))
};

/** Qualities that one note makes of another, as they are written after a root. */
const QUALITIES = [
  'maj7',
  '7',
  'm7',
  'm7b5',
  'dim7',
  'm(maj7)',
  'maj7#5',
  '7#5',
  '7b5',
  '7sus4',
  '6',
  'm6',
  '',
  'm',
  'dim',
  'aug',
  'sus4'
] as const;
/** Choices of a card. */
const CHOICES = 4;

/** What a chord becomes when one of its tones moves by a semitone; null where that has no plain name. */
function changed({ root, pitchClasses, tones }: Chord, degree: Degree, step: number): string | null {
  const at = tones.indexOf(degree);
  const moved = pitchClasses.map((pc, i) => (i === at ? (pc + step + 12) % 12 : pc));
  if (at < 0 || new Set(moved).size < moved.length) return null;
  const same = QUALITIES.find((quality) => {
    const own = sure(chordNamed(`${root}${quality}`), `${root}${quality}`);
    return own.pitchClasses.length === moved.length && own.pitchClasses.every((pc) => moved.includes(pc));
  });
  return same === undefined ? null : `${root}${same}`;
}

export const quality: CardKind<Of<'quality'>> = {
  id: 'quality',
  name: 'Change one note: which chord is it now?',
  fields: { symbol: 'chord', degree: 'degree', step: 'step' },
  isNeckless: true,
  way: 'choice',
  choosesFrom: 'chords',
  seconds: 7,
  ask: ({ symbol, degree, step }) =>
    `The ${sayDegree(degree, chordOf(symbol))} of ${say(symbol)} ${step > 0 ? 'rises' : 'falls'} a semitone. Which chord is it now?`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, degree, step }) => {
    const chord = chordOf(symbol);
    const choice = changed(chord, degree, step) ?? symbol;
    const own = chordOf(choice);
    const at = QUALITIES.findIndex((one) => `${chord.root}${one}` === choice);
    // Neighbours in the table are near in sound; the chord it was is among them where it has a plain name.
    const near = [1, 2, 3, 4, 5].map((by) => `${chord.root}${nth(QUALITIES, (at + by) % QUALITIES.length)}`);
    const others = [...new Set([symbol, ...near])].filter((one) => one !== choice).slice(0, CHOICES - 1);
    return {
      cells: [],
      need: 'each',
      notes: own.notes,
      choice,
      choices: [choice, ...others].sort(),
      why: `${own.notes.map(note).join(' ')} is ${say(choice)}.`
    };
  },
  make: ({ analysis }) =>
    chordsOf(analysis).flatMap((chord) =>
      asLearnt(chord.tones).flatMap((degree) =>
        [-1, 1].flatMap((step): Of<'quality'>[] =>
          degree !== '1' && changed(chord, degree, step) !== null
            ? [{ kind: 'quality', symbol: chord.symbol, degree, step }]
            : []
        )
      )
    )
};
