/** What a card lets be heard: a chord to sing over, or the home of the key and then a line over no chord at all. */
import { nth } from '../../base/list';
import type { PitchClass } from '../../base/units';
import { readSheet } from '../../harmony/sheet';
import { readKey } from '../../harmony/key';
import { MODES } from '../../theory/mode';
import { readChord } from '../../theory/chord-reader';
import type { SoundEvent } from '../events';
import { pathOver, type Heard } from '../hearing';
import { pitchClass, type NoteName } from '../../theory/note';
import type { Question } from './card';
import { phraseOf } from './lines';

/** Tones of the chord by their place, up and down: each tells the chord without its root always first. */
const SHAPES = [
  [0, 1, 2, 3, 2, 1, 0],
  [2, 1, 0, 1, 2, 3, 1],
  [3, 2, 1, 0, 2, 1, 0],
  [1, 2, 3, 2, 0, 1, 0]
] as const;
/** Beats of the home chord, of a note, and between them. */
const [HOME, NOTE, BREATH] = [3, 0.75, 0.5];
const LINE_FROM = 58;

/** Null for a card that is silent. */
export function heardOf(question: Question): Heard | null {
  if (question.kind === 'sing') return chordAlone(question.symbol);
  if (question.kind === 'phrase') return phraseSung(question.symbol);
  if (question.kind !== 'hear') return null;
  const key = readKey(question.key);
  const home = key ? `${key.tonic}${MODES[key.mode].isMinor ? 'm' : ''}` : 'C';
  const chord = chordAlone(home);
  const line = lineOf(question.symbol, HOME + BREATH);
  return { events: [...(chord?.events ?? []), ...line], beats: HOME + BREATH + line.length * NOTE + 1 };
}

/** The answer to a card that was sung: the chord with the note. */
export function answerHeard(question: Question, pc: PitchClass): Heard | null {
  if (question.kind !== 'sing') return null;
  const [change] = readSheet(`| ${question.symbol} |`).analysis.changes;
  return change ? pathOver([{ change, midi: LINE_FROM + ((pc - LINE_FROM + 120) % 12) }]) : null;
}

/** The chord, then the notes of the phrase alone. */
function phraseSung(symbol: string): Heard | null {
  const reading = readChord(symbol);
  const chord = chordAlone(symbol);
  if (reading.kind !== 'chord' || !chord) return null;
  const notes = phraseOf(reading.chord).map((midi, i): SoundEvent => ({
    part: 'line',
    start: HOME + BREATH + i,
    beats: 1,
    midi,
    velocity: 0.85
  }));
  return { events: [...chord.events, ...notes], beats: HOME + BREATH + notes.length + 1 };
}

/** A line of note names, as a card shows it: eighths from a low one on, each the nearest above or below the one before. */
export function lineSung(names: readonly NoteName[]): Heard {
  let midi = LINE_FROM;
  const events = names.map((name, i): SoundEvent => {
    const up = (pitchClass(name) - (midi % 12) + 12) % 12;
    midi += up > 6 ? up - 12 : up;
    return { part: 'line', start: i * NOTE, beats: NOTE, midi, velocity: 0.85 };
  });
  return { events, beats: names.length * NOTE + 1 };
}

function chordAlone(symbol: string): Heard | null {
  const [change] = readSheet(`| ${symbol} |`).analysis.changes;
  return change ? pathOver([{ change, midi: null }]) : null;
}

function lineOf(symbol: string, start: number): SoundEvent[] {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') return [];
  const tones = [...reading.chord.pitchClasses]
    .map((pc) => LINE_FROM + ((pc - LINE_FROM + 120) % 12))
    .sort((a, b) => a - b);
  // The same chord always comes in the same shape: a card is one thing.
  const shape = nth(SHAPES, reading.chord.rootPc % SHAPES.length);
  return shape.map((at, i): SoundEvent => ({
    part: 'line',
    start: start + i * NOTE,
    beats: NOTE,
    midi: nth(tones, at % tones.length),
    velocity: 0.85
  }));
}
