/** A chart's text in another key: every chord and the key line moved, spelled for where they land. */
import { readChord } from '../theory/chord-reader';
import * as Note from '@tonaljs/note';
import { readNote, withoutDoubles, type NoteName } from '../theory/note';
import { homeUp, type Home } from '../theory/tonic';
import { declarationOf, redeclared } from './directives';
import type { Cell, ChartLine } from './model';
import { movedMelody } from './melody-text';
import { readChart } from './read';
import { writeChart } from './write';

/** The interval from the home tonic to the one so many semitones up, so that all chords are spelled alike. */
function intervalUp(home: Home, semitones: number): string {
  return Note.distance(home.tonic, homeUp(home, semitones).tonic);
}

function noteUp(note: NoteName, interval: string): NoteName {
  return withoutDoubles(Note.transpose(note, interval));
}

/** A note with or without its octave. */
function pitchUp(note: string, interval: string): string {
  const moved = Note.transpose(note, interval);
  return /##|bb/.test(moved) ? Note.simplify(moved) : moved;
}

/** A note so many semitones up, spelled as the key it lands in. */
export function transposeNote(note: NoteName, home: Home, semitones: number): NoteName {
  return semitones % 12 === 0 ? note : noteUp(note, intervalUp(home, semitones));
}

/** A key as typed ("Eb", "f# minor", "D dorian") so many semitones up. */
export function transposeKey(key: string, home: Home, semitones: number): string {
  return semitones % 12 === 0 ? key : keyUp(key, intervalUp(home, semitones));
}

/** A chord symbol so many semitones up; what is no chord stays as typed. */
export function transposeSymbol(symbol: string, home: Home, semitones: number): string {
  return semitones % 12 === 0 ? symbol : symbolUp(symbol, intervalUp(home, semitones));
}

/** Whatever is read as a chord is moved, in any case and spelling; what is not understood stays as typed. */
function symbolUp(symbol: string, interval: string): string {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') return symbol;
  const { root, suffix, bass } = reading.chord;
  return noteUp(root, interval) + suffix + (bass ? `/${noteUp(bass, interval)}` : '');
}

/** "Eb", "f# minor", "D dorian": the tonic moved, the rest as typed. */
function keyUp(key: string, interval: string): string {
  const [, letter = '', rest = ''] = /^([A-Ga-g](?:b|#|♭|♯)?)(.*)$/u.exec(key) ?? [];
  const tonic = readNote(letter);
  return tonic ? noteUp(tonic, interval) + rest : key;
}

/** A chart text moved up by semitones; what is no chord and no key stays as it is. */
export function transposeText(source: string, home: Home, semitones: number): string {
  if (semitones % 12 === 0) return source;
  const interval = intervalUp(home, semitones);
  const cellUp = (cell: Cell): Cell =>
    cell.kind === 'chord' ? { ...cell, symbol: symbolUp(cell.symbol, interval) } : cell;
  const lineUp = (line: ChartLine): ChartLine => {
    if (line.kind === 'bars') {
      return { ...line, bars: line.bars.map(({ cells }) => ({ cells: cells.map(cellUp) })) };
    }
    if (line.kind !== 'directive') return line;
    const { name, value } = declarationOf(line);
    if (name === 'melody') {
      return {
        ...line,
        ...redeclared(
          line,
          movedMelody(value, (note) => pitchUp(note, interval))
        )
      };
    }
    return name === 'key' ? { ...line, ...redeclared(line, keyUp(value, interval)) } : line;
  };
  const { chart } = readChart(source);
  return writeChart({ ...chart, lines: chart.lines.map(lineUp) });
}
