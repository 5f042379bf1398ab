/** Roman numerals as players write them, turned into chords of a key: "ii V I", "iiø V7 i", "bVII7", "V7/ii". */
import { sure } from '../../base/list';
import { MODES } from '../../theory/mode';
import { isChord } from '../../theory/chord-reader';
import type { Key } from '../../harmony/key';
import { noteAbove, type NoteName } from '../../theory/note';

/** The interval of each degree above a major tonic, and where it lies in natural minor. */
const DEGREES: Readonly<Record<string, { readonly major: string; readonly minor: string }>> = {
  i: { major: '1P', minor: '1P' },
  ii: { major: '2M', minor: '2M' },
  iii: { major: '3M', minor: '3m' },
  iv: { major: '4P', minor: '4P' },
  v: { major: '5P', minor: '5P' },
  vi: { major: '6M', minor: '6m' },
  vii: { major: '7M', minor: '7m' }
};
const FLATTENED: Readonly<Record<string, string>> = {
  '1P': '1d',
  '2M': '2m',
  '3M': '3m',
  '4P': '4d',
  '5P': '5d',
  '6M': '6m',
  '7M': '7m'
};
const SHARPENED: Readonly<Record<string, string>> = {
  '1P': '1A',
  '2M': '2A',
  '3M': '3A',
  '4P': '4A',
  '5P': '5A',
  '6M': '6A',
  '7M': '7A'
};

const NUMERAL = /^([b#♭♯]?)(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)(?![ivIV])([^/]*)$/;

interface Numeral {
  readonly sign: string;
  readonly degree: string;
  readonly isMinor: boolean;
  readonly suffix: string;
}

function readPlain(text: string): Numeral | null {
  const match = NUMERAL.exec(text);
  if (!match) return null;
  const [, sign = '', letters = '', suffix = ''] = match;
  const isMinor = letters === letters.toLowerCase();
  return isChord(`C${symbolSuffix(isMinor, suffix)}`)
    ? { sign, degree: letters.toLowerCase(), isMinor, suffix }
    : null;
}

/** A small numeral is minor, unless its suffix says more: "ii7" is m7, "iiø" ø. */
function symbolSuffix(isMinor: boolean, suffix: string): string {
  if (!isMinor || /^(?:ø|°|º|o|dim|m(?!aj))/i.test(suffix)) return suffix;
  if (/^(?:maj|M|Δ|△)7?$/.test(suffix)) return 'm(maj7)';
  return `m${suffix}`;
}

function rootOf({ sign, degree, suffix }: Numeral, { tonic, mode }: Key): NoteName {
  const { major, minor } = sure(DEGREES[degree], 'DEGREES');
  // In minor the diminished chords on 6 and 7 stand on the raised degrees.
  const isRaised = /^(?:ø|°|º|o|dim)/i.test(suffix);
  const inMode = MODES[mode].isMinor && !sign && !isRaised ? minor : major;
  const interval = /[b♭]/.test(sign)
    ? sure(FLATTENED[major], 'FLATTENED')
    : /[#♯]/.test(sign)
      ? sure(SHARPENED[major], 'SHARPENED')
      : inMode;
  return noteAbove(tonic, interval);
}

/** Whether a word is a numeral. */
export function isNumeral(word: string): boolean {
  return word.split('/').every((part) => readPlain(part) !== null);
}

/** The chord symbol of a numeral in a key; of "V7/ii" the V of the ii. Null where it is none. */
export function chordOfNumeral(word: string, key: Key): string | null {
  const parts = word.split('/').map(readPlain);
  const [numeral, ...goals] = parts.filter((part) => part !== null);
  if (!numeral || goals.length + 1 < parts.length) return null;
  const home = goals.reduceRight<Key>(
    (at, goal) => ({ tonic: rootOf(goal, at), mode: goal.isMinor ? 'minor' : 'major' }),
    key
  );
  return rootOf(numeral, home) + symbolSuffix(numeral.isMinor, numeral.suffix);
}
