/**
 * Reading what stands behind the root of a chord symbol: tables of what may be written there, and what each of it means. Source:
 * docs/music-rules.md, Chord symbols.
 */
import { asciiAccidentals } from '../typeset';
import {
  addSixth,
  addTone,
  alterAll,
  alterFifth,
  alterTension,
  omit,
  raiseSeventh,
  stackThirds,
  suspend,
  type Draft
} from './draft';

interface Token {
  readonly pattern: RegExp;
  /**
   * Returns false where what was matched is no tone of any chord, such as a ♯13, or denies what was read before, such
   * as a minor chord suspended; reading stops there.
   */
  readonly apply: (draft: Draft, match: RegExpExecArray) => void | false;
}

const MAJOR_WORD = String.raw`(?:[mM][aA][jJ](?:[oO][rR])?|M[aA](?!dd|DD|Dd)|ma(?!dd)|j(?=7|9|1[13])|M(?![iI]))`;
export const MINOR_WORD = String.raw`(?:[mM][iI](?:[nN](?:[oO][rR])?)?|m|-|–|−)`;
/** Both Greek and geometric triangles, and what stands for one on a keyboard. */
const TRIANGLE = '[Δ△∆^]';

/** What may stand right after the root; at most one of them is read. */
const QUALITIES: readonly Token[] = [
  {
    pattern: new RegExp(`${MAJOR_WORD}(?:[-–−](?=7|9|1[13]))?`, 'y'),
    apply: (d) => {
      d.seventhMeant = '7';
    }
  },
  {
    pattern: new RegExp(TRIANGLE, 'y'),
    apply: (d) => {
      d.seventhMeant = '7';
      d.seventh = '7';
    }
  },
  {
    pattern: /dom(?:inant)?\s*(?=7|9|1[13])/iy,
    apply: () => undefined
  },
  {
    pattern: new RegExp(MINOR_WORD, 'y'),
    apply: (d) => {
      d.third = 'b3';
    }
  },
  {
    pattern: /half-?\s?dim(?:inished)?|[ø∅⌀]/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.fifthSettled = true;
      d.seventh = 'b7';
    }
  },
  {
    pattern: /dim(?:inished)?|°|º|˚|o(?!mit)/iy,
    apply: (d) => {
      d.third = 'b3';
      d.fifths = ['b5'];
      d.fifthSettled = true;
      d.seventhMeant = 'bb7';
    }
  },
  {
    pattern: /aug(?:mented)?|\+(?:5(?!\d))?/iy,
    apply: (d) => {
      d.fifths = ['#5'];
      d.fifthSettled = true;
    }
  }
];

/** The number that says how far the thirds are stacked; at most one of them is read. */
const STACKS: readonly Token[] = [
  {
    pattern: /6\s*\/?\s*9|9\s*\/\s*6/y,
    apply: (d) => {
      d.sixth = true;
      d.tensions.add('9');
    }
  },
  { pattern: /6/y, apply: addSixth },
  {
    // The major sign behind its number, as some countries write it.
    pattern: /(13|11|9|7)M(?![aiAI])/y,
    apply: (d, [, size]) => {
      if (raiseSeventh(d) === false) return false;
      stackThirds(d, Number(size));
    }
  },
  { pattern: /13|11|9|7/y, apply: (d, [size]) => stackThirds(d, Number(size)) }
];

/** Numbers that are chords only when they stand alone behind the root. */
const BARE_STACKS: readonly Token[] = [
  {
    pattern: /5(?!\d)/y,
    apply: (d) => {
      d.third = null;
    }
  },
  { pattern: /2/y, apply: (d) => void d.tensions.add('9') }
];

const ALTERED_TONE: Readonly<Record<string, (d: Draft) => void | false>> = {
  b5: (d) => alterFifth(d, 'b5'),
  '#5': (d) => alterFifth(d, '#5'),
  b9: (d) => alterTension(d, '9', 'b9'),
  '#9': (d) => alterTension(d, '9', '#9'),
  '#11': (d) => alterTension(d, '11', '#11'),
  '#4': (d) => alterTension(d, '11', '#11'),
  b13: (d) => alterTension(d, '13', 'b13'),
  b6: (d) => alterTension(d, '13', 'b13'),
  // Only a minor chord has a seventh to raise: C+7 and C7+ are augmented.
  '#7': (d) => (d.third === 'b3' ? raiseSeventh(d) : false)
};

/** What may follow, any number of times, with or without parentheses, commas and strokes. */
const MODIFIERS: readonly Token[] = [
  {
    pattern: /sus(?:pended)?\s*(?:\(([24])\)|(2\/?4|4\/?2|13|2|4|7|9))?/iy,
    apply: (d, [, inside, size]) => suspend(d, inside ?? size ?? '4')
  },
  { pattern: /alt(?:ered)?\.?/iy, apply: (d) => alterAll(d) },
  {
    pattern: /(?:no|omit)\s*(?:(1|root)|(3)|(5))(?:rd|th)?/iy,
    apply: (d, [, root, third]) => omit(d, root ? '1' : third ? '3' : '5')
  },
  {
    pattern: /add\s*([b#♭♯]?(?:13|11|9|6|4|2))/iy,
    apply: (d, [, tone = '']) => addTone(d, ascii(tone))
  },
  {
    pattern: new RegExp(`(?:${MAJOR_WORD}|${TRIANGLE})\\s*(7|9|11|13)?`, 'y'),
    apply: (d, [, size]) => {
      if (raiseSeventh(d) === false) return false;
      if (size) stackThirds(d, Number(size));
    }
  },
  {
    pattern: /([b#♭♯+–−-])(5|9|11|13|6|4|7)/y,
    apply: (d, [, sign = '', number = '']) => {
      const alter = ALTERED_TONE[ascii(sign) + number];
      return alter ? alter(d) : false;
    }
  },
  {
    pattern: /aug|\+/iy,
    apply: (d) => alterFifth(d, '#5')
  }
];

/** A plain number inside parentheses or after a stroke adds its tone: "7(9, 13)", "7/13". */
const ADDED_NUMBERS: readonly Token[] = [
  {
    pattern: /7/y,
    apply: (d) => {
      if (d.seventh) return false;
      d.seventh = d.seventhMeant;
    }
  },
  { pattern: /13|11|9|6/y, apply: (d, [number]) => addTone(d, number) }
];

function ascii(sign: string): string {
  return asciiAccidentals(sign)
    .replace(/^[–−-]/, 'b')
    .replace(/^\+/, '#');
}

/** Reads a suffix into the draft; returns where it stopped, or null when all of it was read. */
export function readSuffix(suffix: string, draft: Draft): number | null {
  let at = 0;
  const take = (tokens: readonly Token[]): boolean => {
    for (const token of tokens) {
      token.pattern.lastIndex = at;
      const match = token.pattern.exec(suffix);
      if (!match) continue;
      const end = token.pattern.lastIndex;
      if (token.apply(draft, match) === false) return false;
      at = end;
      draft.bare = false;
      return true;
    }
    return false;
  };
  const skip = (pattern: RegExp): string => {
    pattern.lastIndex = at;
    const found = pattern.exec(suffix)?.[0] ?? '';
    at += found.length;
    return found;
  };
  skip(/\s*/y);
  take(QUALITIES);
  skip(/\s*/y);
  if (!take(STACKS) && draft.bare) take(BARE_STACKS);
  let opened = 0;
  /** Right behind a stroke a plain number adds its tone, as it does in parentheses. */
  let isAdding = false;
  while (at < suffix.length) {
    const separator = skip(/[\s,(]+|\)/y);
    if (separator) {
      draft.depth += separator.split('(').length - 1 - (separator === ')' ? 1 : 0);
      opened = separator.includes('(') ? at - separator.length : opened;
      if (draft.depth < 0) return at - 1;
      continue;
    }
    if (skip(/\/\s*(?=\S)/y)) {
      if (isAdding) return at - 1;
      isAdding = true;
      continue;
    }
    if (!take(MODIFIERS) && !((isAdding || draft.depth > 0) && take(ADDED_NUMBERS))) return at;
    isAdding = false;
  }
  if (isAdding) return at - 1;
  return draft.depth === 0 ? null : opened;
}
