/**
 * What people paste, turned into a chart text: chords parted in any way, lists, boxes, chords over lyrics, words with
 * chords in brackets, numerals with a key. What is left out is told line by line. Source: docs/music-rules.md, Paste.
 */
import { firstOf, lastOf, nth, sure } from '../../base/list';
import { isChord } from '../../theory/chord-reader';
import { writeDirective, declarationOf, readDirective, writeGridArguments } from '../../chart/directives';
import { readChart } from '../../chart/read';
import type { ChartLine } from '../../chart/model';
import { transposeText } from '../../chart/transpose';
import { readKey, type Key } from '../../harmony/key';
import { readSheet } from '../../harmony/sheet';
import { counted } from '../../theory/words';
import { fromGerman, germanName } from './german';
import { fromNumbers, isNumberLine } from './numbers';
import { readFacts, type Fact } from './facts';
import { chordOfNumeral, isNumeral } from './numerals';
import { isNearlyChord, looseWords, timesOf, withBarLines, withoutParentheses } from './words';

/** Something that did not go into the chart, and why. */
export interface LeftOut {
  /** Counted from 1; absent where the file has no lines. */
  readonly line?: number;
  readonly text: string;
  readonly why: string;
}

export interface TextImport {
  /** Null where no chord was found. */
  readonly chart: string | null;
  readonly left: readonly LeftOut[];
  /** B and H were read as German names. */
  readonly german?: true;
}

/** Bars at most; what comes after is left out. */
const MOST_BARS = 2000;
const LONGEST_ROW = 8;
const SPLIT_ROW = 4;
/** Letters of a line that are quoted. */
const QUOTED = 80;

interface Section {
  readonly label: string;
  readonly rows: string[];
}

/**
 * Turns a pasted text into a chart. Never throws; takes time linear in its length. `german`: whether B and H are read as German names;
 * where it is left out an H tells.
 */
export function importText(text: string, german?: boolean): TextImport {
  const lines = text.split(/\r\n|\r|\n/);
  const told = german === false ? null : (germanName(lines) ?? (german ? { line: 0, text: '' } : null));
  if (!told) return isChartAlready(text) ? { chart: text, left: [] } : new Reader(text).read();
  const { chart, left } = new Reader(lines.map(fromGerman).join('\n')).read();
  const why = 'German names: H is read as B, and B as B♭';
  return chart === null
    ? { chart, left }
    : { chart, left: [{ line: told.line + 1, text: told.text, why }, ...left], german: true };
}

const RECALLING = new Set(['chorus', 'transpose']);
/** Directives that say something to the player, in all their spellings. */
const COMMENTS = new Set(['comment', 'c', 'ci', 'cb', 'comment_italic', 'comment_box', 'highlight']);
/** Semitones by which a sheet may ask to be moved. */
const MOST_MOVED = 11;

/** Bars and directives with nothing else beside them are taken as they are. */
function isChartAlready(text: string): boolean {
  const { chart, problems } = readChart(text);
  const isOurs = (line: ChartLine) =>
    line.kind === 'text'
      ? line.text.trim() === '' || line.text.trimStart().startsWith('#')
      : line.kind !== 'bars' ||
        (line.right === '' && /^[A-G]?$/.test(line.left) && line.bars.every(isPlainBar));
  return (
    problems.length === 0 &&
    // What is recalled or moved has to be worked out.
    !chart.lines.some((line) => line.kind === 'directive' && RECALLING.has(line.name.toLowerCase())) &&
    chart.lines.some(({ kind }) => kind === 'bars') &&
    chart.lines.every(isOurs)
  );
}

function isPlainBar({ cells }: { cells: readonly { kind: string; symbol?: string }[] }): boolean {
  return cells.every(({ kind, symbol = '' }) => kind !== 'chord' || isChord(symbol) || isNearlyChord(symbol));
}

/** A line that opens a part of the tune by its usual name. */
const PART_NAME =
  /^(?:intro|verse|pre-?chorus|chorus|refrain|bridge|middle(?: eight)?|solo|interlude|vamp|turnaround|head|coda|outro|ending|tag|part|section|break|theme)\b[ \w'’.]{0,20}$/i;
/** The same or a letter, in brackets or before a colon. */
const BEGINS_WITH_METER = /^\d{1,2}\s*\/\s*(?:2|4|8|16)(?![\w/])/;
const LABEL = /^(?:\[([^\]|*][^\]|]{0,39})\]|([A-Za-z][\w '’-]{0,24}):)\s*(.*)$/;
const TAB_LINE = /^[A-Ga-g][#b]?\s?[|:][-\d|hpbrsx/\\~()^. ]*--/;

class Reader {
  readonly #lines: readonly string[];
  readonly #left: LeftOut[] = [];
  readonly #facts: Fact[] = [];
  readonly #sections: Section[] = [];
  #bars = 0;
  #isFull = false;

  constructor(text: string) {
    this.#lines = text.split(/\r\n|\r|\n/).map(withBarLines);
  }

  read(): TextImport {
    for (const [at, line] of this.#lines.entries()) {
      // Past the longest chart there is nothing to take; that was said where it ended.
      if (this.#isFull) break;
      this.#readLine(line, at);
    }
    const sections = this.#sections.filter(({ rows }) => rows.length > 0);
    if (sections.length === 0) {
      return {
        chart: null,
        left: this.#left.length ? this.#left : [{ line: 1, text: '', why: 'There is no chord in it.' }]
      };
    }
    const head = this.#facts.map((fact) => writeDirective(fact));
    const body = sections.flatMap(({ label, rows }) => {
      const said = writeGridArguments({ label, rest: '' });
      return [said ? `{start_of_grid ${said}}` : '{start_of_grid}', ...rows, '{end_of_grid}'];
    });
    const chart = `${[...head, ...body].join('\n')}\n`;
    return { chart: this.#moved === 0 ? chart : this.#movedChart(chart), left: this.#left };
  }

  /** What `{transpose: 2}` asks for, in semitones. */
  #moved = 0;

  #movedChart(chart: string): string {
    return transposeText(chart, readSheet(chart).analysis.key, this.#moved);
  }

  #readLine(source: string, at: number): void {
    const line = source.trim();
    // A line of rules or dots says nothing.
    if (!/[\p{L}\p{N}%]/u.test(line)) return;
    const directive = readDirective(line);
    if (directive) return this.#readDirective(declarationOf(directive), directive.value, at);
    if (line.startsWith('#')) return this.#leave(at, line, 'a remark');
    if (TAB_LINE.test(line)) return this.#leave(at, line, 'a line of tab');
    // "3/4" is a meter, not a chord over a bass, whether a key is known or not.
    const meter = BEGINS_WITH_METER.test(line) ? readFacts(line) : null;
    if (meter) return this.#take(meter);
    const bare = this.#named(withoutBullet(line), at);
    const label = LABEL.exec(bare);
    if (label && this.#readLabelled(label, bare, at)) return;
    if (PART_NAME.test(bare)) return this.#open(bare);
    if (this.#readMusic(bare, at)) return;
    const facts = readFacts(line);
    if (facts) return this.#take(facts);
    if (!this.#knows('title') && this.#bars === 0 && bare.length <= 120 && !bare.includes('|')) {
      return this.#take([{ name: 'title', value: line }]);
    }
    this.#leave(at, line, 'words, not chords');
  }

  #readDirective({ name, value }: Fact, typed: string, at: number): void {
    if (name === 'chorus') return this.#recall(value || 'chorus', at);
    if (name === 'transpose') return this.#move(value, at);
    const environment = /^(?:start_of_|so)(verse|chorus|bridge|part|v|c|b)$/.exec(name);
    const names: Readonly<Record<string, string>> = { v: 'verse', c: 'chorus', b: 'bridge' };
    if (environment) {
      const plain = names[nth(environment, 1)] ?? nth(environment, 1);
      return this.#open(value.replaceAll(/^label\s*=\s*|["']/g, '') || plain);
    }
    if (name === 'start_of_grid') return this.#open(value.replaceAll(/^label\s*=\s*|["']/g, ''));
    if (/^(?:end_of_|eo[vcbtg]$)/.test(name)) return this.#open('');
    if (COMMENTS.has(name)) {
      // A part is often named by a comment; anything else is told.
      if (PART_NAME.test(typed.trim()) || /^[A-Z]\d?$/.test(typed.trim())) this.#open(typed);
      else this.#leave(at, typed, 'a comment');
      return;
    }
    this.#take([{ name, value }]);
  }

  /** A part that is played again where it is named: the last one of that name. */
  #recall(label: string, at: number): void {
    const name = label.replaceAll(/^label\s*=\s*|["']/g, '').toLowerCase();
    const meant = this.#sections.findLast(
      (section) => section.rows.length > 0 && section.label.toLowerCase().startsWith(name)
    );
    if (!meant) return this.#leave(at, label, 'recalls a part that was not written before');
    const bars = meant.rows.reduce((sum, row) => sum + row.split('|').length - 2, 0);
    if (this.#bars + bars > MOST_BARS) {
      this.#isFull = true;
      return this.#leave(at, label, `a chart holds ${MOST_BARS} bars; what follows is left out`);
    }
    this.#bars += bars;
    this.#sections.push({ label: meant.label, rows: [...meant.rows] }, { label: '', rows: [] });
  }

  #move(value: string, at: number): void {
    const semitones = Number(value);
    if (!Number.isInteger(semitones) || Math.abs(semitones) > MOST_MOVED)
      return this.#leave(at, `transpose: ${value}`, 'is no number of semitones from -11 to 11');
    this.#moved += semitones;
    if (semitones !== 0)
      this.#leave(
        at,
        `transpose: ${value}`,
        `the chords were moved ${semitones > 0 ? 'up' : 'down'} by ${counted(Math.abs(semitones), 'semitone')}`
      );
  }

  /** "A: Fm7 Bb7", "[Verse 1]", "[Bridge] | Cm7 |": the label opens a part; a chord in brackets is none. */
  #readLabelled([, bracketed, word, rest = '']: RegExpExecArray, line: string, at: number): boolean {
    const label = (bracketed ?? word ?? '').trim();
    const isLetter = /^[A-G]$/.test(label);
    if (bracketed !== undefined && isChord(label) && (!isLetter || (rest !== '' && !this.#isMusic(rest))))
      return false;
    if (bracketed !== undefined && isLetter && /\[/.test(rest)) return false;
    if (word !== undefined && !isLetter && readFacts(line)) return false;
    if (rest === '') {
      if (word !== undefined && !isLetter && !PART_NAME.test(label) && !/^\w{1,3}$/.test(label)) return false;
      this.#open(label);
      return true;
    }
    if (!this.#isMusic(rest)) return false;
    this.#open(label);
    return this.#readMusic(rest, at);
  }

  /** A line of numbers as chords of its key; any other line as it is. */
  #named(line: string, at: number): string {
    const { rest, key } = keyAtEnd(line);
    // "| 1 | 4 | in Bb": the bar line before the key is the last one.
    const music = key && rest.includes('|') ? `${withoutEnd(rest)} |` : rest;
    if (!isNumberLine(music)) return line;
    if (key && !this.#knows('key')) this.#take([{ name: 'key', value: key }]);
    const named = this.#facts.find(({ name }) => name === 'key')?.value;
    const known = named ? readKey(named) : null;
    if (!known) {
      // Numbers alone may be anything.
      if (music.includes('|')) this.#leave(at, line, 'numbers of chords want a key: Key: G');
      return line;
    }
    return fromNumbers(music, known);
  }

  #isMusic(line: string): boolean {
    return line.includes('|') || this.#chordsOf(line) !== null || /\[[^\]]*\]/.test(line);
  }

  #readMusic(line: string, at: number): boolean {
    if (line.includes('|')) return this.#readBars(line, at);
    const chords = this.#chordsOf(line);
    if (chords) {
      // A letter on a line of its own, over a line of chords, is the name of a part.
      if (chords.length === 1 && /^[A-G]$/.test(line) && this.#nextHasMany(at)) this.#open(line);
      else this.#addLoose(line, chords, at);
      return true;
    }
    return this.#readBracketed(line, at);
  }

  #nextHasMany(at: number): boolean {
    const next = this.#lines.slice(at + 1, at + 4).find((line) => line.trim() !== '');
    return !!next && (next.includes('|') || (this.#chordsOf(withoutBullet(next.trim()))?.length ?? 0) > 1);
  }

  /** The words of a line that is made of chords or numerals; null where it is made of something else. */
  #chordsOf(line: string): readonly { text: string; isApart: boolean }[] | null {
    const { rest } = keyAtEnd(line);
    const words = looseWords(rest);
    const bare = words
      .map(({ text }) => withoutParentheses(text).text)
      .filter((text) => timesOf(text) === null);
    const telling = bare.filter((text) => text && !isSign(text));
    if (telling.length === 0) return null;
    const chords = telling.filter((text) => isChord(text)).length;
    const near = telling.filter((text) => !isChord(text) && isNearlyChord(text)).length;
    const unknown = telling.length - chords - near;
    // One word that is no chord among several that are: it is told, and the chords come in.
    const isMostly =
      unknown === 1 &&
      chords >= 3 &&
      telling.some((text) => isChord(text) && (text.length > 1 || chords > 3));
    const isChords = isMostly || (unknown === 0 && (chords >= near || telling.length === 1));
    const isNumerals = telling.every(isNumeral) && (telling.length > 1 || /\d|[ø°Δ]/.test(firstOf(telling)));
    return isChords || isNumerals ? words : null;
  }

  /** Chords with no bars: one a bar, unless wide gaps part the bars. */
  #addLoose(line: string, words: readonly { text: string; isApart: boolean }[], at: number): void {
    const inKey = keyAtEnd(line).key;
    if (inKey && !this.#knows('key')) this.#take([{ name: 'key', value: inKey }]);
    const hasGaps = words.some(({ isApart }) => isApart) && words.some(({ isApart }, i) => i > 0 && !isApart);
    const spaced = hasGaps && !this.#standsOverWords(at);
    let bars: string[] = [];
    let group = 0;
    for (const { text: word, isApart } of words) {
      const times = timesOf(word);
      if (times !== null) {
        const again = bars.slice(group);
        bars = [...bars, ...Array.from({ length: times - 1 }, () => again).flat()];
        group = bars.length;
        continue;
      }
      const { text, opens, closes } = withoutParentheses(word);
      if (opens) group = bars.length;
      if (text && !isSign(text) && !isChord(text) && !isNearlyChord(text) && !isNumeral(text)) {
        this.#leave(at, text, 'not a chord');
      } else if (text) {
        const chord = this.#chord(text, at);
        if (spaced && !isApart && bars.length > 0) bars[bars.length - 1] += ` ${chord}`;
        else bars.push(chord);
      }
      if (closes && !words.some(({ text: other }) => timesOf(other) !== null)) group = 0;
    }
    this.#addBars(bars, at);
  }

  /** Chords over lyrics: their places are those of the syllables. */
  #standsOverWords(at: number): boolean {
    const next = this.#lines[at + 1]?.trim() ?? '';
    return next !== '' && !next.includes('|') && this.#chordsOf(next) === null;
  }

  #chord(text: string, at: number): string {
    if (isChord(text) || !isNumeral(text)) return text;
    return chordOfNumeral(text, this.#key(text, at)) ?? text;
  }

  /** The key that numerals stand in; where none is named C is taken, and said. */
  #key(numeral: string, at: number): Key {
    const named = this.#facts.find(({ name }) => name === 'key')?.value;
    const key = named && readKey(named);
    if (key) return key;
    const isMinor = this.#lines.some((line) => /(?:^|\s)i(?:m?6|7)?(?:\s|$)/.test(line));
    const tonic = isMinor ? 'Cm' : 'C';
    this.#take([{ name: 'key', value: tonic }]);
    this.#leave(
      at,
      numeral,
      `no key is named for these numerals; ${isMinor ? 'C minor' : 'C major'} was taken`
    );
    return sure(readKey(tonic), 'readKey');
  }

  #addBars(bars: readonly string[], at: number): void {
    const room = MOST_BARS - this.#bars;
    if (bars.length > room && !this.#isFull) {
      this.#isFull = true;
      this.#leave(at, nth(this.#lines, at), `a chart holds ${MOST_BARS} bars; what follows is left out`);
    }
    const taken = bars.slice(0, room);
    this.#bars += taken.length;
    const length = taken.length > LONGEST_ROW ? SPLIT_ROW : LONGEST_ROW;
    for (let from = 0; from < taken.length; from += length) {
      this.#rows.push(`| ${taken.slice(from, from + length).join(' | ')} |`);
    }
  }

  /** A line with bar lines: its bars as they stand, chords made plain, words beside them left out. */
  #readBars(line: string, at: number): boolean {
    const first = line.indexOf('|');
    const last = line.lastIndexOf('|');
    const before = line.slice(0, first).replace(/:$/, '').trim();
    const isBarBefore = before !== '' && this.#chordsOf(before) !== null;
    if (before && !isBarBefore) {
      if (/^[\w .'’-]{1,24}$/.test(before) && !/^\d+$/.test(before)) this.#open(before);
      else if (!/^\d+$/.test(before)) this.#leave(at, before, 'words, not chords');
    }
    let after = line.slice(last + 1).trim();
    const times = timesOf(after) ?? 1;
    if (times > 1) after = '';
    // The signs of a repeat and "x2" behind them say the same thing.
    const isRepeat = line[last - 1] === ':' && times > 1;
    const isBarAfter = after !== '' && !/^[:.\d]/.test(after) && this.#chordsOf(after) !== null;
    const marks = isBarAfter ? '' : (/^[:.][\d,.-]*|^\d[\d,-]*\.?(?=\s|$)/.exec(after)?.[0] ?? '');
    const remark = isBarAfter ? '' : after.slice(marks.length).trim();
    if (remark) this.#leave(at, remark, 'words, not chords');
    const opening = line.startsWith(':|') ? ':' : '';
    const music = [
      isBarBefore ? `| ${before} ` : opening,
      line.slice(first, last + 1),
      marks,
      isBarAfter ? ` ${after} |` : ''
    ].join('');
    const plain = music.replaceAll(/[^|]+/g, (bar) => this.#plainBar(bar, at));
    const row = isRepeat && times > 2 ? plain.replace(/\|:/, '|').replace(/:\|(?=[^:]*$)/, '|') : plain;
    const rounds = isRepeat && times === 2 ? 1 : times;
    const { chart } = readChart(`{sog}\n${row}\n{eog}`);
    const bars = chart.lines.reduce((sum, one) => sum + (one.kind === 'bars' ? one.bars.length : 0), 0);
    const hasChords = chart.lines.some(
      (one) => one.kind === 'bars' && one.bars.some((bar) => bar.cells.length > 0 && isPlainBar(bar))
    );
    if (!hasChords) {
      this.#leave(at, line, 'no chord is in it');
      return true;
    }
    for (let n = 0; n < rounds && this.#bars + bars <= MOST_BARS; n++) {
      this.#bars += bars;
      this.#rows.push(row);
    }
    return true;
  }

  /** What stands between two bar lines: signs of the form stay, words go. */
  #plainBar(bar: string, at: number): string {
    const signs = sure(/^([:.]?(?:\s*\d[\d,\s-]*\.?(?=\s|$))?)(.*?)(:?)$/s.exec(bar), 'the signs of a bar');
    const [, opening = '', inside = '', closing = ''] = signs;
    const words = inside.replaceAll(/[,;→⇒⟶➔➜]|[-=]+>/g, ' ').match(/\S+/g) ?? [];
    const dashes = words.filter((word) => /^[-–—]$/.test(word)).length;
    const kept = words.flatMap((word): string[] => {
      // One dash between each two chords only parts them; any other dash holds the chord.
      if (/^[-–—]$/.test(word)) return dashes === words.length - dashes - 1 ? [] : ['.'];
      if (isSign(word) || isChord(word)) return [word];
      const { text } = withoutParentheses(word);
      if (isNumeral(text)) return [this.#chord(text, at)];
      if (isChord(text) || isNearlyChord(text)) return [text];
      const parts = looseWords(word).map((part) => part.text);
      if (parts.length > 1 && parts.every((part) => isChord(part))) return parts;
      if (text) this.#leave(at, text, 'not a chord');
      return [];
    });
    if (kept.length) return `${opening} ${kept.join(' ')} ${closing}`;
    // An empty bar keeps its room, for two bar lines side by side are one double one.
    return opening || closing ? opening + closing : ' ';
  }

  /** Words with chords in brackets: "[Fm7]Down by the [Bb7]pier". */
  #readBracketed(line: string, at: number): boolean {
    const notes = [...line.matchAll(/\[\*([^[\]]{1,80})\]/g)].map(([, inside = '']) => inside.trim());
    for (const note of notes) this.#leave(at, note, 'an annotation');
    if (notes.length) return this.#readBracketed(line.replaceAll(/\[\*[^[\]]{1,80}\]/g, ' '), at) || true;
    const chords = [...line.matchAll(/\[([^[\]]{1,40})\]/g)]
      .flatMap(([, inside = '']) => inside.split(/\s+/))
      .filter(Boolean);
    const readable = chords.filter((chord) => isChord(chord) || isNearlyChord(chord));
    if (readable.length === 0) return false;
    const words = line
      .replaceAll(/\[[^[\]]{1,40}\]/g, ' ')
      .replaceAll(/\s+/g, ' ')
      .trim();
    if (/\p{L}/u.test(words)) this.#leave(at, words, 'words under the chords');
    for (const other of chords.filter((chord) => !readable.includes(chord))) {
      this.#leave(at, `[${other}]`, 'not a chord');
    }
    this.#addBars(readable, at);
    return true;
  }

  get #rows(): string[] {
    if (this.#sections.length === 0) this.#sections.push({ label: '', rows: [] });
    return lastOf(this.#sections).rows;
  }

  #open(label: string): void {
    this.#sections.push({ label: label.trim(), rows: [] });
  }

  #knows(name: string): boolean {
    return this.#facts.some((fact) => fact.name === name);
  }

  #take(facts: readonly Fact[]): void {
    this.#facts.push(...facts);
  }

  #leave(at: number, text: string, why: string): void {
    const plain = text.trim();
    const quoted = plain.length > QUOTED ? `${plain.slice(0, QUOTED)}…` : plain;
    this.#left.push({ line: at + 1, text: quoted, why });
  }
}

/** A line without the spaces and bar lines at its end; from behind, so that a long line costs no more than its length. */
function withoutEnd(line: string): string {
  let end = line.length;
  while (end > 0 && (line[end - 1] === '|' || line.charAt(end - 1).trim() === '')) end--;
  return line.slice(0, end);
}

/** A number, letter or mark in front of a line of a list. */
function withoutBullet(line: string): string {
  return line.replace(/^(?:\d{1,3}[.):]\s+|[-–—*•●▪◦‣>]\s+|\d{1,3}\s+(?=\|))/, '');
}

const isSign = (word: string) => /^(?:[./%]|%%|\|+)$/.test(word);

/** "ii V I in Eb": the key at the end of a line. */
function keyAtEnd(line: string): { rest: string; key: string | null } {
  const at = line.search(/\s\(?in (?:the )?(?:key of )?[A-Ga-g]/);
  if (at < 0) return { rest: line, key: null };
  const key = line
    .slice(at)
    .replace(/^\s\(?in (?:the )?(?:key of )?/, '')
    .replace(/\)?[.,]?$/, '');
  return readKey(key) ? { rest: line.slice(0, at), key } : { rest: line, key: null };
}
