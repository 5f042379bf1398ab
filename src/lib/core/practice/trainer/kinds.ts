/**
 * The kinds of cards in one table (docs/music-rules.md, *Practice*): how each is asked, what solves it, and which cards a chart gives.
 * A new kind is a new row, and a new form of question.
 */
import type { Analysis } from '../../harmony/analysis';
import { keyText, readKey } from '../../harmony/key';
import { areaLabel } from '../../neck/area';
import { shapeSubject, namingOf, nameOf } from '../../neck/shape';
import { minorBoxes } from '../../neck/systems/boxes';
import { spots, type Instrument } from '../../neck/tuning';
import type { Chord } from '../../theory/chord';
import { readChord } from '../../theory/chord-reader';
import { DEGREES, degreeOf, type Degree } from '../../theory/degree';
import { MODES } from '../../theory/mode';
import { pitchClass, semitonesUp, type NoteName } from '../../theory/note';
import { readScale, scaleOf } from '../../theory/scale';
import { prettyDegree, prettyNote, prettySymbol } from '../../theory/typeset';
import { listed } from '../../theory/words';
import { checked } from './check';
import type { Answer, CardKindId, Question, Solution, SolvedCell, Verdict } from './card';

/** What a chart that is practised gives for cards. */
export interface CardMaterial {
  readonly analysis: Analysis;
  readonly neck: Instrument;
  /** Where the hand is, in the areas that are practised. */
  readonly positions: readonly number[];
}

/** How a kind is answered at the screen; what sounds can be answered by playing where `sounds` is set. */
export type Way = 'cell' | 'cells' | 'names' | 'choice' | 'own';

export interface CardKind<Q extends Question = Question> {
  readonly id: Q['kind'];
  readonly name: string;
  readonly way: Way;
  /** Playing or singing answers it too. */
  readonly sounds?: true;
  /** Its choices are degrees, which are typed as such. */
  readonly asksDegrees?: true;
  /** Names have to be spelled, in their order. */
  readonly isSpelling?: true;
  /** Seconds that a player who knows it takes, before the card has a history of its own. */
  readonly seconds: number;
  readonly ask: (question: Q) => string;
  /** Places that are shown with the question. */
  readonly shows?: (question: Q, neck: Instrument) => readonly SolvedCell[];
  /** Frets that the answer lies between, both in. */
  readonly window: (question: Q, neck: Instrument) => readonly [number, number];
  readonly solve: (question: Q, neck: Instrument) => Solution;
  readonly make: (material: CardMaterial) => readonly Q[];
}

type Of<Kind extends CardKindId> = Extract<Question, { kind: Kind }>;

/** Frets of a window: the hand and a stretch. */
const WINDOW = 4;
/** Frets up to which octaves are asked for: one whole turn of the neck. */
const TURN = 12;
/** Chords to choose from by ear. */
const CHOICES = 4;

const chordIn = (symbol: string): Chord | null => {
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? reading.chord : null;
};
const sure = (symbol: string): Chord => chordIn(symbol) ?? chordIn('C')!;

/** The places of some pitch classes between two frets, named against a chord. */
function placed(
  neck: Instrument,
  chord: Chord,
  pcs: readonly number[],
  from: number,
  to: number
): SolvedCell[] {
  const naming = namingOf(chord, null);
  return spots(neck, from, to)
    .filter(({ midi }) => pcs.includes(midi % 12))
    .map((spot) => ({ ...spot, ...nameOf(spot.midi % 12, naming) }));
}

const pcOf = ({ rootPc }: Chord, degree: Degree) => (rootPc + DEGREES[degree].semitones) % 12;
const windowAt = (at: number, neck: Instrument) => [at, Math.min(neck.frets, at + WINDOW)] as const;
const say = (symbol: string) => prettySymbol(symbol);
const note = (name: NoteName) => prettyNote(name);

/** The chords of a chart, each once, in the order met. */
function chordsOf({ changes }: Analysis): Chord[] {
  const all = changes.flatMap(({ chord }) => (chord ? [chord] : []));
  return [...new Map(all.map((chord) => [chord.symbol, chord])).values()];
}

/** The changes of chord, each once. */
function pairsOf({ changes }: Analysis): (readonly [Chord, Chord])[] {
  const pairs = changes.flatMap(({ chord }, i) => {
    const next = changes[(i + 1) % changes.length]?.chord;
    return chord && next && next.symbol !== chord.symbol ? [[chord, next] as const] : [];
  });
  return [...new Map(pairs.map((pair) => [pair.map(({ symbol }) => symbol).join(' '), pair])).values()];
}

/** Thirds first, then sevenths, roots, fifths: the order in which targets are learnt. */
const LEARNT = ['3', '7', '1', '5', 'tension'] as const;
const asLearnt = (tones: readonly Degree[]) =>
  [...tones].sort((a, b) => LEARNT.indexOf(DEGREES[a].slot) - LEARNT.indexOf(DEGREES[b].slot));
const guides = ({ tones }: Chord) =>
  asLearnt(tones).filter((tone) => ['3', '7'].includes(DEGREES[tone].slot));

/** Where a chord's tones go: those that stay, and each of the others to its nearest tone of the next chord. */
function motion(from: Chord, to: Chord): { readonly stays: readonly number[]; readonly said: string } {
  const stays = from.pitchClasses.filter((pc) => to.pitchClasses.includes(pc));
  const said = from.pitchClasses.map((pc, i) => {
    const name = note(from.notes[i]!);
    if (stays.includes(pc)) return `${name} stays`;
    const steps = to.pitchClasses.map((goal) => ((goal - pc + 18) % 12) - 6);
    // Downward on a tie, as the neck draws it.
    const far = steps.map((step) => Math.abs(step) + (step > 0 ? 0.5 : 0));
    const nearest = far.indexOf(Math.min(...far));
    return `${name} ${steps[nearest]! > 0 ? 'rises' : 'falls'} to ${note(to.notes[nearest]!)}`;
  });
  return { stays, said: said.join(', ') };
}

function keyNotes(key: string): readonly NoteName[] {
  const read = readKey(key);
  return (read && scaleOf(read.tonic, MODES[read.mode].scale)?.notes) ?? [];
}

/** "E♭ major". */
function keyName(key: string): string {
  const read = readKey(key);
  return read ? `${note(read.tonic)} ${read.mode}` : key;
}

function lacking({ pitchClasses, notes }: Chord, key: string): readonly NoteName[] {
  const held = new Set(keyNotes(key).map(pitchClass));
  return notes.filter((_, i) => !held.has(pitchClasses[i]!));
}

const find: CardKind<Of<'find'>> = {
  id: 'find',
  name: 'Find a tone in this window',
  way: 'cell',
  sounds: true,
  seconds: 5,
  ask: ({ symbol, degree, from, to }) =>
    `Find the ${prettyDegree(degree)} of ${say(symbol)} between frets ${from} and ${to}`,
  window: ({ from, to }) => [from, to],
  solve: ({ symbol, degree, from, to }, neck) => {
    const chord = sure(symbol);
    const cells = placed(neck, chord, [pcOf(chord, degree)], from, to);
    const name = chord.notes[chord.tones.indexOf(degree)] ?? chord.root;
    return {
      cells,
      need: 'one',
      notes: [name],
      why: `The ${prettyDegree(degree)} of ${say(symbol)} is ${note(name)}: ${listed(
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

const octaves: CardKind<Of<'octaves'>> = {
  id: 'octaves',
  name: 'Every octave of a tone',
  way: 'cells',
  seconds: 20,
  ask: ({ symbol, degree, to }) =>
    `Every ${prettyDegree(degree)} of ${say(symbol)} up to fret ${to}, on all strings`,
  window: ({ to }, neck) => [neck.capo, to],
  solve: ({ symbol, degree, to }, neck) => {
    const chord = sure(symbol);
    const cells = placed(neck, chord, [pcOf(chord, degree)], neck.capo, to);
    const name = chord.notes[chord.tones.indexOf(degree)] ?? chord.root;
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

const becomes: CardKind<Of<'becomes'>> = {
  id: 'becomes',
  name: 'The same note, the next chord',
  way: 'choice',
  asksDegrees: true,
  seconds: 6,
  ask: ({ from, degree, to }) =>
    `This is the ${prettyDegree(degree)} of ${say(from)}. Which degree is it when ${say(to)} comes?`,
  shows: ({ from, degree, at }, neck) => {
    const chord = sure(from);
    return placed(neck, chord, [pcOf(chord, degree)], ...windowAt(at, neck)).slice(0, 1);
  },
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ from, degree, to }) => {
    const [chord, next] = [sure(from), sure(to)];
    const pc = pcOf(chord, degree);
    const degreeAt = (semitones: number) => degreeOf(semitones, next.tones);
    const own = degreeAt(semitonesUp(next.rootPc, pc));
    const name = chord.notes[chord.tones.indexOf(degree)] ?? chord.root;
    const isTone = next.tones.includes(own);
    return {
      cells: [],
      need: 'one',
      notes: [name],
      choice: own,
      choices: Array.from({ length: 12 }, (_, semitones) => degreeAt(semitones)),
      why: `${note(name)} is the ${prettyDegree(own)} of ${say(to)}: ${
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
        .filter((question) => becomes.shows!(question, neck).length > 0)
    )
};

const moves: CardKind<Of<'moves'>> = {
  id: 'moves',
  name: 'What stays, what moves',
  way: 'cells',
  sounds: true,
  seconds: 12,
  ask: ({ from, to }) => `${say(from)} becomes ${say(to)}: tap the notes that stay`,
  shows: ({ from, at }, neck) => {
    const chord = sure(from);
    return placed(neck, chord, chord.pitchClasses, ...windowAt(at, neck));
  },
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ from, to, at }, neck) => {
    const [chord, next] = [sure(from), sure(to)];
    const { stays, said } = motion(chord, next);
    return {
      cells: placed(neck, chord, stays, ...windowAt(at, neck)),
      need: 'each',
      notes: chord.notes.filter((_, i) => stays.includes(chord.pitchClasses[i]!)),
      why: `${said}.`
    };
  },
  make: ({ analysis, positions, neck }) =>
    pairsOf(analysis).map(([from, to]) => ({
      kind: 'moves',
      from: from.symbol,
      to: to.symbol,
      at: positions[0] ?? neck.capo + 1
    }))
};

const lacks: CardKind<Of<'lacks'>> = {
  id: 'lacks',
  name: 'What the key’s scale lacks',
  way: 'cells',
  sounds: true,
  seconds: 10,
  ask: ({ symbol, key }) => `Which tones of ${say(symbol)} does the scale of ${keyName(key)} lack?`,
  window: ({ at }, neck) => windowAt(at, neck),
  solve: ({ symbol, key, at }, neck) => {
    const chord = sure(symbol);
    const missing = lacking(chord, key);
    const degrees = missing.map((name) => prettyDegree(chord.tones[chord.notes.indexOf(name)]!));
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

const spell: CardKind<Of<'spell'>> = {
  id: 'spell',
  name: 'Spell the chord',
  way: 'names',
  sounds: true,
  isSpelling: true,
  seconds: 10,
  ask: ({ symbol }) => `Spell ${say(symbol)}`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol }) => {
    const { notes, tones } = sure(symbol);
    return {
      cells: [],
      need: 'each',
      notes,
      why: `${say(symbol)}: ${notes.map((name, i) => `${note(name)} (${prettyDegree(tones[i]!)})`).join(', ')}.`
    };
  },
  make: ({ analysis }) => chordsOf(analysis).map(({ symbol }) => ({ kind: 'spell', symbol }))
};

/** The boxes of a scale up the neck, each with its fret. */
function boxes(scale: string, neck: Instrument) {
  const read = readScale(scale)!;
  const subject = shapeSubject(null, read)!;
  const rows = minorBoxes.rows(neck, { tonic: read.root, mode: 'minor' });
  return rows.map(({ position }) => minorBoxes.areaAt(neck, subject, position));
}

const shape: CardKind<Of<'shape'>> = {
  id: 'shape',
  name: 'Name the shape and its fret',
  way: 'choice',
  seconds: 8,
  ask: ({ scale }) => {
    const { root, name } = readScale(scale)!;
    return `${note(root)} ${name}, the root filled: which box is it, and from which fret?`;
  },
  shows: ({ scale, at }, neck) => boxes(scale, neck)[at]?.cells ?? [],
  window: ({ scale, at }, neck) => {
    const frets = boxes(scale, neck)[at]?.cells.map(({ fret }) => fret) ?? [neck.capo];
    return [Math.min(...frets), Math.max(...frets)];
  },
  solve: ({ scale, at }, neck) => {
    const all = boxes(scale, neck);
    const own = all[at]!;
    const others = all.filter((area) => area !== own);
    // The right shape at a wrong fret, a wrong shape at the right one, and one that is wrong in both.
    const [near, far] = [others[at % others.length]!, others[(at + 2) % others.length]!];
    const choices = [
      areaLabel(own),
      areaLabel({ name: own.name, anchor: near.anchor }),
      areaLabel({ name: near.name, anchor: own.anchor }),
      areaLabel(far)
    ];
    const { root } = readScale(scale)!;
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
    const minorRoot = MODES[mode].isMinor ? tonic : scaleOf(tonic, 'major')!.notes[5]!;
    const scale = `${minorRoot} minor pentatonic`;
    return boxes(scale, neck)
      .slice(0, 5)
      .map((_, at) => ({ kind: 'shape', scale, at }));
  }
};

const hear: CardKind<Of<'hear'>> = {
  id: 'hear',
  name: 'Hear a line: which chord?',
  way: 'choice',
  seconds: 8,
  ask: ({ key }) => `You hear the home of ${keyName(key)}, then a line. Which chord does the line outline?`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, among }) => {
    const { notes } = sure(symbol);
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
    const chords = chordsOf(analysis);
    // Chords of the same notes are one chord to the ear.
    const different = [...new Map(chords.map((chord) => [chord.pitchSet, chord])).values()];
    if (different.length < 2) return [];
    return different.map(({ symbol }, at) => ({
      kind: 'hear',
      symbol,
      key: keyText(analysis.key),
      among: Array.from(
        { length: Math.min(CHOICES, different.length) },
        (_, i) => different[(at + i) % different.length]!.symbol
      ).sort()
    }));
  }
};

const sing: CardKind<Of<'sing'>> = {
  id: 'sing',
  name: 'Sing the third',
  way: 'own',
  sounds: true,
  seconds: 8,
  ask: ({ symbol, degree }) =>
    `${say(symbol)} sounds. Sing its ${prettyDegree(degree)}, then hear it: was it that?`,
  window: (_, neck) => [neck.capo, neck.capo + WINDOW],
  solve: ({ symbol, degree }) => {
    const chord = sure(symbol);
    const name = chord.notes[chord.tones.indexOf(degree)] ?? chord.root;
    return {
      cells: [],
      need: 'one',
      notes: [name],
      why: `The ${prettyDegree(degree)} of ${say(symbol)} is ${note(name)}.`
    };
  },
  make: ({ analysis }) =>
    chordsOf(analysis).flatMap((chord) =>
      guides(chord)
        .slice(0, 1)
        .map((degree) => ({ kind: 'sing', symbol: chord.symbol, degree }))
    )
};

/** In the order in which they are learnt. */
export const CARD_KINDS = [
  find,
  spell,
  becomes,
  moves,
  lacks,
  octaves,
  hear,
  sing,
  shape
] as unknown as readonly CardKind[];

export function kindOf(id: CardKindId): CardKind {
  return CARD_KINDS.find((kind) => kind.id === id)!;
}

export function ask(question: Question): string {
  return kindOf(question.kind).ask(question);
}

export function solve(question: Question, neck: Instrument): Solution {
  return kindOf(question.kind).solve(question, neck);
}

/** Whether an answer is right, what was wrong in it, and why. */
export function check(question: Question, answer: Answer, neck: Instrument): Verdict {
  const { isSpelling } = kindOf(question.kind);
  return checked(solve(question, neck), answer, isSpelling);
}

/** The degree that a card is about; null for those about a whole chord or shape. */
export function degreeAsked(question: Question): Degree | null {
  return 'degree' in question ? question.degree : null;
}

/** The fret where a card's hand is; null for those that lie everywhere. */
export function areaAsked(question: Question): number | null {
  if (question.kind === 'find') return question.from;
  return 'at' in question && question.kind !== 'shape' ? question.at : null;
}

/** Every card that a chart gives: kinds in turn, so that a round is never all of one kind. */
export function cardsOf(material: CardMaterial): readonly Question[] {
  const byKind = CARD_KINDS.map(({ make }) => make(material)).filter((cards) => cards.length > 0);
  const longest = Math.max(0, ...byKind.map(({ length }) => length));
  return Array.from({ length: longest }, (_, i) => byKind.flatMap((cards) => cards[i] ?? [])).flat();
}
