/**
 * Sheets with German names: H is B, and B is B flat. They are told by their H, which no other name has; a sheet in which only B
 * stands cannot be told, and is read as it is elsewhere unless the reader is asked.
 */
import { nth } from '../../base/list';
import { isChord } from '../../theory/chord-reader';
import { looksLike, tokens } from './tokens';

/** A chord whose root or bass has a German name, in international letters; null for any other word. */
function international(word: string): string | null {
  const plain = word
    .replace(/^(?:H|B(?![b♭]))/, (root) => (root === 'H' ? 'B' : 'Bb'))
    .replace(/\/(?:H|B(?![b♭]))$/, (bass) => (bass === '/H' ? '/B' : '/Bb'));
  return plain !== word && isChord(plain) ? plain : null;
}

const isGermanH = (word: string) => /^H|\/H$/.test(word) && international(word) !== null;
const KEY =
  /^\s*(?:\{(?:key|k|meta:?\s*key)\s*:?\s*|key\s*:\s*)([HB])((?:b|#|es|is)?\s*m?(?:inor|ajor|oll)?)\s*\}?\s*$/i;

/** No line that declares a key is longer; a longer one is not looked through. */
const LONGEST_KEY = 80;
const keyIn = (line: string) => (line.length > LONGEST_KEY ? null : KEY.exec(line));

/** A line of music, read with German names: it has bars or brackets, or is made of chords. */
const isMusic = (line: string) =>
  line.includes('|') ||
  line.includes('[') ||
  looksLike(line, (word) => isChord(word) || international(word) !== null);

/** The first word that says that a sheet has German names, with its line; null where none does. */
export function germanName(
  lines: readonly string[]
): { readonly line: number; readonly text: string } | null {
  for (const [at, line] of lines.entries()) {
    if (keyIn(line)?.[1] === 'H') return { line: at, text: line.trim() };
    if (!isMusic(line)) continue;
    const found = tokens(line).find(isGermanH);
    if (found) return { line: at, text: found };
  }
  return null;
}

/** A line of such a sheet in international letters; words stay as they are. */
export function fromGerman(line: string): string {
  const key = keyIn(line);
  if (key)
    return line.replace(
      nth(key, 1) + nth(key, 2),
      (nth(key, 1).toUpperCase() === 'H' ? 'B' : 'Bb') + nth(key, 2)
    );
  if (!isMusic(line)) return line;
  // Of a line with brackets only what stands in them is chords.
  const within = line.includes('[') && !line.includes('|') ? /\[[^[\]]*\]/g : /^.*$/g;
  return line.replaceAll(within, (part) =>
    part.replaceAll(/[^\s|[\](){},;:]+/g, (word) => international(word) ?? word)
  );
}
