/** Lines that say something about the whole chart: "Key: Eb", "Tempo = 120", "Time: 3/4, Feel: bossa". */
import { readMeter } from '../../chart/read';
import { MAX_TEMPO, MIN_TEMPO } from '../../chart/model';
import { readKey } from '../../harmony/key';

export interface Fact {
  /** The directive that says it. */
  readonly name: string;
  readonly value: string;
}

const plain = (value: string) => value;
const tempo = (value: string) => {
  const beats = Number(/\d{2,3}/.exec(value)?.[0]);
  return beats >= MIN_TEMPO && beats <= MAX_TEMPO ? String(beats) : null;
};

interface Kind {
  readonly words: readonly string[];
  readonly name: string;
  /** The value as a directive has it; null where it says nothing of the kind. */
  readonly read: (value: string) => string | null;
}

const KINDS: readonly Kind[] = [
  { words: ['title', 'song', 'tune', 'name'], name: 'title', read: plain },
  { words: ['subtitle'], name: 'subtitle', read: plain },
  { words: ['key', 'key of'], name: 'key', read: (value) => (readKey(value) ? value : null) },
  { words: ['tempo', 'bpm', 'speed', '♩', 'q'], name: 'tempo', read: tempo },
  {
    words: ['time', 'meter', 'metre', 'time signature', 'signature'],
    name: 'time',
    read: (value) => (readMeter(value) ? value.replaceAll(' ', '') : null)
  },
  { words: ['feel', 'style', 'groove', 'rhythm'], name: 'feel', read: plain },
  { words: ['capo'], name: 'capo', read: plain },
  {
    words: ['artist', 'composer', 'by', 'words', 'music', 'copyright', 'album', 'year'],
    name: '',
    read: plain
  }
];

function readFact(part: string): Fact | null {
  const at = part.search(/[:=]/);
  const bare = at < 0 ? readBare(part) : null;
  if (bare) return bare;
  const isKeyOf = /^key of /i.test(part);
  if (at < 0 && !isKeyOf) return null;
  const word = (isKeyOf ? 'key of' : part.slice(0, at)).trim().toLowerCase();
  const value = part.slice(isKeyOf ? 'key of'.length : at + 1).trim();
  const kind = KINDS.find(({ words }) => words.includes(word));
  if (!kind || !value) return null;
  const read = kind.read(value);
  return read === null || read === undefined ? null : { name: kind.name || word, value: read };
}

/** "120 bpm" and "3/4" need no word in front. */
function readBare(part: string): Fact | null {
  if (/^\d{2,3} ?bpm$/i.test(part)) return { name: 'tempo', value: part.slice(0, 3).trim() };
  return readMeter(part) ? { name: 'time', value: part.replaceAll(' ', '') } : null;
}

/** The facts of a line; null where some part of it says something else. */
export function readFacts(line: string): Fact[] | null {
  const whole = readFact(line.trim());
  const parts = line.split(/ {2,}|\t|[,;|·•]/).map((part) => part.trim());
  const facts = parts.filter(Boolean).map(readFact);
  // A title may hold a comma; several facts on one line all have their own word.
  if (facts.length > 0 && facts.every((fact) => fact !== null)) return facts;
  return whole ? [whole] : null;
}
