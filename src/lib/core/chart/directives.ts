/**
 * Directives, one to a line of a chart text: `{title: Rope Locker}`, `{t: …}`, `{meta: title …}`, in any case. Read and
 * written by scanning once from left to right, so that no text can make either slow.
 */
import { isSpace } from './space';

/** A directive as it was typed. */
export interface Directive {
  /** Letters as typed: "Title", "t", "meta". */
  readonly name: string;
  readonly value: string;
}

/** What a directive declares, however it was spelled. */
export interface Declaration {
  /** Lower case and in full: "title", "key", "start_of_grid". */
  readonly name: string;
  readonly value: string;
}

const IN_FULL: Readonly<Record<string, string>> = {
  t: 'title',
  st: 'subtitle',
  c: 'comment',
  sog: 'start_of_grid',
  eog: 'end_of_grid'
};

/** Where a name occurs more than once, the first one counts for these and the last one for all others. */
const FIRST_COUNTS = new Set(['time']);

/** Splits a text at the first sign that ends a word. */
function word(text: string, ends: (sign: string) => boolean): [string, string] {
  let at = 0;
  while (at < text.length && !ends(text.charAt(at))) at++;
  return [text.slice(0, at), text.slice(at)];
}

/** Reads a line as a directive; null where it is none. */
export function readDirective(line: string): Directive | null {
  const trimmed = line.trim();
  if (!trimmed.startsWith('{') || !trimmed.endsWith('}') || trimmed.length < 2) return null;
  const [name, rest] = word(
    trimmed.slice(1, -1).trimStart(),
    (sign) => isSpace(sign) || sign === ':' || sign === '}'
  );
  if (!name) return null;
  const after = rest.trim();
  return { name, value: after.startsWith(':') ? after.slice(1).trim() : after };
}

/** Writes a directive so that it reads back as the same one. */
export function writeDirective({ name, value }: Directive): string {
  return value ? `{${name}: ${value}}` : `{${name}}`;
}

/** What a directive declares: names in full and in lower case, `{meta: key Eb}` as the key. */
export function declarationOf({ name, value }: Directive): Declaration {
  const plain = name.toLowerCase();
  if (plain !== 'meta') return { name: IN_FULL[plain] ?? plain, value };
  const [item, rest] = word(value, isSpace);
  const known = item.toLowerCase();
  return { name: IN_FULL[known] ?? known, value: rest.trim() };
}

/** The same directive, in its own spelling, with another value. */
export function redeclared(directive: Directive, value: string): Directive {
  if (directive.name.toLowerCase() !== 'meta') return { ...directive, value };
  const [item] = word(directive.value, isSpace);
  return { ...directive, value: `${item} ${value}`.trim() };
}

/** The value that counts for a name among directives in the order of the text; null where none says anything. */
export function declared(directives: readonly Directive[], name: string): string | null {
  const said = directives.map(declarationOf).filter((one) => one.name === name);
  return (FIRST_COUNTS.has(name) ? said[0] : said.at(-1))?.value || null;
}

/** The directives of a text, without reading its bars. */
export function directivesIn(text: string): Directive[] {
  return text.split(/\r\n|\r|\n/).flatMap((line) => readDirective(line) ?? []);
}

/**
 * The text with a name declared anew: the line that counts is rewritten in its own spelling, or a new line put first.
 * Everything else stays as typed.
 */
export function withDeclaration(text: string, name: string, value: string): string {
  // A line break would end the directive.
  const plain = value.replaceAll(/[\r\n]+/g, ' ').trim();
  const pieces = text.split(/(\r\n|\r|\n)/);
  const lines = pieces.flatMap((piece, at) => {
    const directive = readDirective(piece);
    return directive && declarationOf(directive).name === name ? [{ at, directive }] : [];
  });
  const line = FIRST_COUNTS.has(name) ? lines[0] : lines.at(-1);
  const written = writeDirective({ name, value: plain });
  // A melody is long: whoever reads the text sees the chords first.
  if (!line && name === 'melody')
    return `${text}${text.endsWith('\n') || text === '' ? '' : '\n'}${written}\n`;
  if (!line) return `${written}\n${text}`;
  pieces[line.at] = writeDirective(redeclared(line.directive, plain));
  return pieces.join('');
}

/** The text without the lines that declare a name. */
export function withoutDeclaration(text: string, name: string): string {
  const isIt = (line: string) => {
    const directive = readDirective(line);
    return directive !== null && declarationOf(directive).name === name;
  };
  return text
    .split('\n')
    .filter((line) => !isIt(line))
    .join('\n');
}

/** What a grid's first line says: its label, and the rest of its arguments word for word. */
export interface GridArguments {
  readonly label: string;
  readonly rest: string;
}

const LABEL = /label\s*=\s*(?:"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)')/;

/** `4x4`, `1+4x2+4` or `shape="4x4"`: how the grid is laid out, which is no label. */
const isShape = (text: string) => /^\d+(?:[x+]\d+)*$|^shape\s*=/.test(text);

/** Reads the value of `start_of_grid`: `label="A"`, or the plain word of an older file. */
export function readGridArguments(value: string): GridArguments {
  const named = LABEL.exec(value);
  if (named) {
    const label = (named[1] ?? named[2] ?? '').replaceAll(/\\(["'\\])/g, '$1');
    const around = [value.slice(0, named.index), value.slice(named.index + named[0].length)];
    return {
      label,
      rest: around
        .map((part) => part.trim())
        .join(' ')
        .trim()
    };
  }
  return isShape(value) ? { label: '', rest: value } : { label: value, rest: '' };
}

/** Writes the value of `start_of_grid`; it reads back as the same. */
export function writeGridArguments({ label, rest }: GridArguments): string {
  const needsLabel = label !== '' || (rest !== '' && (!isShape(rest) || LABEL.test(rest)));
  const named = needsLabel ? `label="${label.replaceAll(/["'\\]/g, '\\$&')}"` : '';
  return [named, rest].filter(Boolean).join(' ');
}
