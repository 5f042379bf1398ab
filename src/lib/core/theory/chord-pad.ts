/** Building a chord symbol press by press, as on a pad: root, quality, colours, bass. */
import { asciiAccidentals } from './typeset';

export const PAD_ROOTS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const;
export const PAD_SIGNS = ['b', '#'] as const;
/** Each takes the place of the one before. */
export const PAD_QUALITIES = [
  'm',
  '7',
  'maj7',
  'm7',
  'm7b5',
  'dim7',
  '6',
  'm6',
  'sus4',
  '7sus4',
  'aug',
  'm(maj7)',
  'dim',
  '5'
] as const;
/** Each is added to what stands there. */
export const PAD_COLOURS = ['9', '11', '13', 'b9', '#9', '#11', 'b13', 'add9', 'alt'] as const;

export type PadKey =
  | { readonly kind: 'root' | 'sign' | 'quality' | 'colour'; readonly sign: string }
  | { readonly kind: 'bass' | 'back' };

const SYMBOL = /^([A-G](?:bb|##|b|#)?)?([^/]*)(?:\/([A-G]?(?:bb|##|b|#)?))?$/;

interface Parts {
  readonly root: string;
  readonly suffix: string;
  /** Null where no slash was pressed. */
  readonly bass: string | null;
}

function partsOf(text: string): Parts {
  const [, root = '', suffix = '', bass] = SYMBOL.exec(asciiAccidentals(text.trim())) ?? [];
  return { root, suffix, bass: bass ?? null };
}

const written = ({ root, suffix, bass }: Parts) => root + suffix + (bass === null ? '' : `/${bass}`);

/** A ninth, eleventh or thirteenth is stacked on the seventh that stands there. */
function coloured(suffix: string, colour: string): string {
  if (/^\d+$/.test(colour)) {
    const stack = /^(m|maj|m\(maj|)(7|9|11|13)(\)?)(.*)$/.exec(suffix);
    return stack
      ? `${stack[1]}${colour}${stack[3]}${stack[4]}`
      : `${suffix}${suffix === '6' ? '/9' : colour}`;
  }
  if (suffix.includes(colour)) return suffix.replace(colour, '');
  if (colour === 'alt') return '7alt';
  // An altered tone wants the seventh under it.
  const needsSeventh = colour !== 'add9' && !/7|9|11|13|6|dim/.test(suffix);
  return suffix + (needsSeventh ? (colour === '#11' ? 'maj7' : '7') : '') + colour;
}

/** The symbol after one more press. A root begins a new chord, or is the bass after a slash. */
export function padPress(text: string, key: PadKey): string {
  const parts = partsOf(text);
  const isBass = parts.bass !== null;
  switch (key.kind) {
    case 'root':
      return isBass && parts.bass === '' ? written({ ...parts, bass: key.sign }) : key.sign;
    case 'sign': {
      const note = isBass ? parts.bass! : parts.root;
      if (!note) return text;
      const next = note.endsWith(key.sign) ? note.slice(0, -1) : note.charAt(0) + key.sign;
      return written(isBass ? { ...parts, bass: next } : { ...parts, root: next });
    }
    case 'quality':
      return parts.root ? written({ ...parts, suffix: parts.suffix === key.sign ? '' : key.sign }) : text;
    case 'colour':
      return parts.root ? written({ ...parts, suffix: coloured(parts.suffix, key.sign) }) : text;
    case 'bass':
      return parts.root ? written({ ...parts, bass: isBass ? null : '' }) : text;
    case 'back':
      return text.slice(0, -1);
  }
}
