/**
 * Accidentals: ASCII inside ("b", "#"), true signs where a player reads (♭, ♯), and back. The only place that turns one
 * into the other.
 */
import { lettersWritten, written } from './letters';

/** Every way of writing an accidental as ASCII: "B♭" → "Bb", "F𝄪" → "F##". */
export function asciiAccidentals(text: string): string {
  return text
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replaceAll('♮', 'natural ')
    .replaceAll('𝄫', 'bb')
    .replaceAll('𝄪', '##');
}

const signs = (accidentals: string) => accidentals.replaceAll('b', '♭').replaceAll('#', '♯');

/** A note name as a player reads it: "Bb" → "B♭", in the letters that are written. */
export function prettyNote(name: string): string {
  const spelled = written(name.charAt(0), name.slice(1));
  // A syllable has no accidental in it; a letter is one sign long.
  const length = spelled.length - (name.length - 1);
  return lettersWritten() === 'solfege'
    ? spelled.slice(0, length) + signs(spelled.slice(length))
    : spelled.charAt(0) + signs(spelled.slice(1));
}

/** A degree as a player reads it: "bb7" → "♭♭7". */
export function prettyDegree(degree: string): string {
  return degree.replaceAll('b', '♭').replaceAll('#', '♯');
}

/** What follows a root: flats stand before numbers only ("m7b5", but "sub"). */
export function prettySuffix(suffix: string): string {
  return suffix.replaceAll(/b(?=\d)/g, '♭').replaceAll('#', '♯');
}

/** A chord symbol: "Bbm7b5" → "B♭m7♭5", "C7/Eb" → "C7/E♭". */
export function prettySymbol(symbol: string): string {
  if (lettersWritten() !== 'b')
    return prettySuffix(
      symbol.replaceAll(
        /(^|\/)([A-G][b#]{0,2})/g,
        (_, before: string, name: string) => before + prettyNote(name)
      )
    );
  return symbol.replaceAll(/(?<=(?:^|\/)[A-G]b?)b|b(?=\d)/g, '♭').replaceAll('#', '♯');
}

/** A numeral: "subV7/bIII" → "subV7/♭III". */
export function prettyNumeral(roman: string): string {
  return roman.replaceAll(/(?<![a-z])b(?=[IViv])/g, '♭').replaceAll('#', '♯');
}

/** What may follow a root in a chord symbol: a word that goes on otherwise is none. */
const SYMBOL = /^([A-G][b#]{0,2})(?=$|[^a-z]|(?:m|maj|min|dim|aug|sus|add|dom|alt|o|ø)(?![a-z]{2}))/;
/** After these an "A" that begins a sentence is a note, not the article. */
const TELLING =
  /^ (?:major|minor|dorian|phrygian|lydian|mixolydian|aeolian|locrian|ionian|melodic|harmonic|altered|blues|bebop|diminished|whole|dominant|flat|sharp|natural|pentatonic|half|and [A-G]|to [A-G]|in bar|of the)/;

/** A sentence with true accidentals in its note and chord names. */
export function prettyProse(text: string): string {
  return text.replaceAll(/\b[A-G][b#]{0,2}[^\s,;:.]*/g, (name, at: number) => {
    if (lettersWritten() === 'b') return prettySymbol(name);
    if (!SYMBOL.test(name)) return name;
    const isArticle =
      name === 'A' && /(?:^|[.!?] )$/.test(text.slice(0, at)) && !TELLING.test(text.slice(at + 1));
    return isArticle ? name : prettySymbol(name);
  });
}
