/** Chord symbols of a score, and the keys of its signatures. */
import { nth } from '../../base/list';
import { keyOf } from '../../harmony/key-signature';
import { MODES, type Mode } from '../../theory/mode';
import { spell, type NoteName } from '../../theory/note';
import { symbolOf } from './kinds';
import { all, attribute, numberAt, one, said, textOf, type Node } from './score';

/** The key of a signature in a mode as it is named; major where nothing is said, null where there is none of that name. */
export function keyNamed(fifths: number, mode: string): string | null {
  if (mode === 'minor' || mode === 'aeolian') return keyOf(fifths, true);
  if (mode in MODES && mode !== 'major') {
    const own = mode as Mode;
    // The tonic lies as many fifths from that of the major key as its mode has fewer sharps.
    const tonic = keyOf(fifths - MODES[own].sharps, false);
    return tonic === null ? null : `${tonic} ${own}`;
  }
  return keyOf(fifths, false);
}

function spelled(
  node: Node | undefined,
  what: string
): { readonly name: string; readonly alter: number } | null {
  const step = said(node, `${what}-step`).toUpperCase();
  const alter = Math.round(numberAt(node, `${what}-alter`) ?? 0);
  if (!/^[A-G]$/.test(step) || Math.abs(alter) > 2) return null;
  return { name: step + (alter < 0 ? 'b' : '#').repeat(Math.abs(alter)), alter };
}

/** The root of a chord: named, or counted from the tonic of a key. */
function rootOf(harmony: Node, signature: string | undefined): NoteName | null {
  const named = spelled(one(harmony, 'root'), 'root');
  if (named) return named.name;
  const numeral = one(harmony, 'numeral');
  const step = numberAt(numeral, 'numeral-root');
  if (step === null || step < 1 || step > 7) return null;
  const key = one(numeral, 'numeral-key');
  const fifths = numberAt(key, 'numeral-fifths');
  const written =
    key && fifths !== null ? keyNamed(Math.round(fifths), said(key, 'numeral-mode')) : signature;
  const [, tonic, rest = ''] = /^([A-G][b#]?)(.*)$/.exec(written ?? '') ?? [];
  if (!tonic) return null;
  const mode = rest.trim() === 'm' ? 'minor' : ((rest.trim() || 'major') as Mode);
  const alter = Math.round(numberAt(numeral, 'numeral-alter') ?? 0);
  return stepOf(tonic, nth(MODES[mode].steps, step - 1) + alter, step);
}

/** The note so many semitones over a tonic, on the letter of a step of its scale. */
function stepOf(tonic: NoteName, semitones: number, step: number): NoteName | null {
  const natural = spell(tonic, nth(['1', '9', '3', '11', '5', '13', '7'] as const, step - 1));
  const plain = nth([0, 2, 4, 5, 7, 9, 11], step - 1);
  const signs =
    [...natural.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 1 : -1), 0) + semitones - plain;
  return Math.abs(signs) > 2 ? null : natural.charAt(0) + (signs < 0 ? 'b' : '#').repeat(Math.abs(signs));
}

/** The symbol of a `harmony` element; null where it names no chord. `signature`: the key as it is written, for chords by function. */
export function readHarmony(harmony: Node, signature: string | undefined): string | null {
  const root = rootOf(harmony, signature);
  const kind = one(harmony, 'kind');
  if (!root || !kind) return textOf(kind).trim() === 'none' ? 'N.C.' : null;
  const bass = spelled(one(harmony, 'bass'), 'bass');
  const degrees = all(harmony, 'degree').map((degree) => ({
    value: numberAt(degree, 'degree-value') ?? 0,
    alter: Math.round(numberAt(degree, 'degree-alter') ?? 0),
    type: said(degree, 'degree-type') as 'add' | 'alter' | 'subtract'
  }));
  return symbolOf(root, {
    kind: textOf(kind).trim(),
    text: one(harmony, 'root') ? attribute(kind, 'text') : '',
    degrees,
    bass: bass?.name ?? '',
    inversion: numberAt(harmony, 'inversion') ?? undefined
  });
}

/** What stands on the page of a chord that is not known, as one word; null where nothing does. */
export function writtenSymbol(harmony: Node): string | null {
  const root = spelled(one(harmony, 'root'), 'root');
  const kind = one(harmony, 'kind');
  const written = `${root?.name ?? ''}${(kind && attribute(kind, 'text')) || `(${textOf(kind).trim()})`}`;
  const word = written.replaceAll(/[\s|{}%:[\]]+/g, '').slice(0, 24);
  return root && word ? word : null;
}
