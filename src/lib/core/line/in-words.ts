/** What a reading says of a line, in sentences. */
import { nth } from '../base/list';
import type { AnalysedChange } from '../harmony/analysis';
import { prettyDegree, prettySymbol } from '../theory/typeset';
import { counted, listed } from '../theory/words';
import { beatsOf, type LineNote } from './model';
import type { LineReading, ReadNote } from './read';

const percent = (share: number) => `${Math.round(100 * share)} %`;
/** Clashes that are named one by one. */
const MOST_NAMED = 4;
/** Silence from here on is worth a word, in beats. */
const LONG_SILENCE = 2;
/** So often begun the same way it is heard as a habit. */
const HABIT = 0.75;
/** Fewer changes make no habit. */
const ENOUGH = 4;

/** The figures of a line and what is to be remarked in it, a sentence each. */
export function inWords(
  reading: LineReading,
  line: readonly LineNote[],
  changes: readonly AnalysedChange[]
): string[] {
  if (line.length === 0) return ['The line is silent.'];
  const { chordTonesOnBeats, landingsOnThirdOrSeventh, landingsByStep, largestLeap, longestSilence } =
    reading.figures;
  const said = [
    chordTonesOnBeats === null
      ? null
      : `${percent(chordTonesOnBeats)} of the notes on beats are chord tones.`,
    landingsOnThirdOrSeventh === null
      ? null
      : `Of ${counted(landed(reading), 'landing')} ${percent(landingsOnThirdOrSeventh)} are on a 3 or a 7, ${percent(landingsByStep ?? 0)} come by step or stay.`,
    largestLeap === 0 ? null : `The largest leap is ${counted(largestLeap, 'semitone')}.`,
    longestSilence >= LONG_SILENCE ? `The longest silence lasts ${counted(longestSilence, 'beat')}.` : null
  ];
  return [...said.filter((one) => one !== null), ...remarksOn(reading, line, changes)];
}

/** What clashes, and what is done again and again. */
export function remarksOn(
  reading: LineReading,
  line: readonly LineNote[],
  changes: readonly AnalysedChange[]
): string[] {
  const { beginsOnRoot, beginsOnLowest } = reading.figures;
  const isHabit = (share: number | null) => landed(reading) >= ENOUGH && (share ?? 0) >= HABIT;
  return [
    isHabit(beginsOnRoot) ? 'It begins on the root again and again.' : null,
    isHabit(beginsOnLowest) ? 'It begins on its lowest note again and again.' : null,
    clashesInWords(reading.notes, line, changes)
  ].filter((one) => one !== null);
}

const landed = ({ landings }: LineReading) => landings.filter(({ note }) => note !== undefined).length;

function clashesInWords(
  notes: readonly ReadNote[],
  line: readonly LineNote[],
  changes: readonly AnalysedChange[]
): string | null {
  const clashing = notes.filter(({ role }) => role === 'avoid' || role === 'outside');
  if (clashing.length === 0) return null;
  const named = clashing.slice(0, MOST_NAMED).map(({ index, change, degree }) => {
    const at = nth(changes, change);
    const beat = Number((beatsOf(nth(line, index).start) - at.start + at.beat).toFixed(2));
    const what = degree
      ? `the ${prettyDegree(degree)} of ${prettySymbol(at.symbol)}`
      : 'a note without a chord';
    return `${what} (bar ${at.bar}, beat ${beat})`;
  });
  const more = clashing.length > MOST_NAMED ? [`${clashing.length - MOST_NAMED} more`] : [];
  const verb = clashing.length === 1 ? 'clashes' : 'clash';
  const words = listed([...named, ...more]);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)} ${verb}.`;
}
