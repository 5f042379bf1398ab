/**
 * Accidentals: ASCII inside ("b", "#"), true signs where a player reads (♭, ♯), and back. The only place that turns one
 * into the other.
 */

/** Every way of writing an accidental as ASCII: "B♭" → "Bb", "F𝄪" → "F##". */
export function asciiAccidentals(text: string): string {
  return text
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replaceAll('♮', 'natural ')
    .replaceAll('𝄫', 'bb')
    .replaceAll('𝄪', '##');
}

/** A note name as a player reads it: "Bb" → "B♭". */
export function prettyNote(name: string): string {
  return name.charAt(0) + name.slice(1).replaceAll('b', '♭').replaceAll('#', '♯');
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
  return symbol.replaceAll(/(?<=(?:^|\/)[A-G]b?)b|b(?=\d)/g, '♭').replaceAll('#', '♯');
}

/** A numeral: "subV7/bIII" → "subV7/♭III". */
export function prettyNumeral(roman: string): string {
  return roman.replaceAll(/(?<![a-z])b(?=[IViv])/g, '♭').replaceAll('#', '♯');
}

/** A sentence with true accidentals in its note and chord names. */
export function prettyProse(text: string): string {
  return text.replaceAll(/\b[A-G][b#]{0,2}[^\s,;:.]*/g, (name) => prettySymbol(name));
}
