/** A chart's text in another key: every chord and the key line moved, spelled for where they land. */
import { Interval, Note } from 'tonal';
import { writeChart } from '../chart/write';
import { readChart } from '../chart/read';
import type { Cell, ChartLine } from '../chart/model';
import { plainName, pitchClass, readNote, type NoteName } from '../theory/note';

/** The interval from the home tonic to its plain name so many semitones up, so that all chords are spelled alike. */
function intervalUp(tonic: NoteName, semitones: number): string {
  return Interval.distance(tonic, plainName((pitchClass(tonic) + semitones) % 12));
}

/** A name that begins with a note: "F#m7", "F dorian", "Ebmaj7 arpeggio from G"; the notes after "from" and "/" too. */
export function transposeName(name: string, tonic: NoteName, semitones: number): string {
  if (semitones % 12 === 0) return name;
  const interval = intervalUp(tonic, semitones);
  return name.replaceAll(
    /(^\s*|\/|\bfrom )([A-G](?:##|bb|#|b|♯|♭)?)/gu,
    (whole, before: string, letter: string) => {
      const note = readNote(letter);
      return note ? before + simplest(Note.transpose(note, interval)) : whole;
    }
  );
}

/** Names with more than one accidental are read more easily by their neighbour. */
function simplest(note: NoteName): NoteName {
  return /##|bb/.test(note) ? plainName(pitchClass(note)) : note;
}

/** A chart text moved up by semitones; what is no chord stays as it is. */
export function transposeText(source: string, tonic: NoteName, semitones: number): string {
  if (semitones % 12 === 0) return source;
  const cellUp = (cell: Cell): Cell =>
    cell.kind === 'chord' ? { ...cell, symbol: transposeName(cell.symbol, tonic, semitones) } : cell;
  const lineUp = (line: ChartLine): ChartLine => {
    if (line.kind === 'bars')
      return { ...line, bars: line.bars.map(({ cells }) => ({ cells: cells.map(cellUp) })) };
    if (line.kind === 'directive' && line.name === 'key') {
      return { ...line, value: transposeName(line.value, tonic, semitones) };
    }
    return line;
  };
  const { chart } = readChart(source);
  return writeChart({ ...chart, lines: chart.lines.map(lineUp) });
}
