/** Requests that are nearly right: samples of every route with something in them changed, seeded. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

export interface Sample {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** The requests of docs/api.md, as they can be pasted, and what is kept beside them. */
export function samples(): Sample[] {
  const text = readFileSync(fileURLToPath(new URL('../docs/api.md', import.meta.url)), 'utf8');
  const pasted = [
    ...text.matchAll(
      /^curl -s (?:-X (\w+) )?http:\/\/127\.0\.0\.1:4173\/api\/v1\/(\S+)(?:[^\n]*\\\n)*[^\n]*$/gm
    )
  ];
  const found = pasted.map(([all, method, path]): Sample => {
    const body = / -d '([^']*)'/s.exec(all)?.[1];
    const json: unknown = body === undefined ? undefined : JSON.parse(body);
    return { method: method ?? (json === undefined ? 'GET' : 'POST'), path: path!, body: json };
  });
  const id = '3b241101-e2bb-4255-8caf-4136c566a962';
  const plan = { position: 5, thread: 'free', degrees: ['3', '7'], loop: true, decisions: [] };
  return [
    ...found,
    { method: 'POST', path: 'songbook', body: { id, source: '{title: Drift}\n| Dbm7 | Gb7 |', plan } },
    { method: 'PUT', path: `songbook/${id}`, body: { base: 1, source: '| C |', plan } },
    { method: 'POST', path: `songbook/${id}/rename`, body: { title: 'Slack' } },
    { method: 'GET', path: `songbook/${id}/file?with=all`, body: undefined },
    { method: 'GET', path: `songbook/${id}/revisions/1`, body: undefined },
    { method: 'GET', path: 'songbook?search=drift&sort=title&limit=5&offset=0', body: undefined },
    { method: 'POST', path: 'songbook/many', body: { ids: [id], what: 'tag', tag: 'x' } },
    { method: 'PUT', path: 'settings', body: { theme: 'day', labels: 'degree' } },
    { method: 'GET', path: 'practice/log?limit=5&day=2026-03-01', body: undefined },
    { method: 'GET', path: 'practice/today?day=2026-03-01&minutes=25', body: undefined },
    { method: 'GET', path: 'practice/pictures?day=2026-03-01', body: undefined },
    {
      method: 'POST',
      path: 'practice/items',
      body: {
        items: [
          {
            id: 'x',
            chart: id,
            data: { what: 'up', name: 'Up', area: 5, key: 'Db', after: [], tempo: { start: 60, goal: 90 } }
          }
        ]
      }
    },
    { method: 'POST', path: 'practice/file', body: { text: 'day,minutes\n2026-03-01,5' } },
    {
      method: 'POST',
      path: 'practice/log',
      body: {
        rows: [
          {
            id,
            item: null,
            chart: id,
            kind: 'stand',
            what: 'Up',
            startedAt: 1,
            day: '2026-03-01',
            seconds: 60,
            rounds: 2,
            tempo: 90,
            clean: true,
            key: 'Db',
            area: 5,
            note: '',
            stumbles: [],
            revision: 1
          }
        ]
      }
    },
    { method: 'GET', path: 'copies', body: undefined },
    { method: 'GET', path: `songbook/${id}/takes`, body: undefined }
  ];
}

/** A generator of numbers from 0 up to 1, the same for the same seed. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Values that have no business where they stand. */
const STRANGE: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  0.5,
  1e9,
  1e308,
  -1e308,
  '',
  ' ',
  'x',
  '\ud83c',
  '\u0000',
  '💥'.repeat(50),
  'C | '.repeat(300),
  '|%'.repeat(500),
  '../../etc/passwd',
  "'; drop table chart; --",
  '__proto__',
  [],
  {},
  [[]],
  [null],
  { toString: 1 },
  { length: 1e9 },
  { __proto__: null },
  '{time: 0/0}\n| C |',
  '{key: H}\n| C |',
  '| C7#13 | Am sus4 |',
  '99999999999999999999',
  'NaN',
  '2026-99-99',
  'bytes=0-'
];

const pick = <T>(random: () => number, all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

/** A value with one place of it changed. */
function mutated(value: unknown, random: () => number): unknown {
  if (random() < 0.12 || value === null || typeof value !== 'object') {
    if (typeof value === 'string' && random() < 0.5) return mutatedText(value, random);
    if (typeof value === 'number' && random() < 0.5)
      return value + pick(random, [-1, 1, 0.5, -1000, 1e6, NaN]);
    return pick(random, STRANGE);
  }
  if (Array.isArray(value)) {
    if (value.length === 0 || random() < 0.1) return [...(value as unknown[]), pick(random, STRANGE)];
    const at = Math.floor(random() * value.length);
    if (random() < 0.1) return Array.from({ length: 300 }, () => (value as unknown[])[at]);
    return (value as unknown[]).map((own, i) => (i === at ? mutated(own, random) : own));
  }
  const names = Object.keys(value);
  if (names.length === 0 || random() < 0.08)
    return { ...value, [pick(random, ['chart', 'id', 'x', '__proto__', ''])]: pick(random, STRANGE) };
  const name = pick(random, names);
  const { [name]: own, ...rest } = value as Record<string, unknown>;
  return random() < 0.1 ? rest : { ...rest, [name]: mutated(own, random) };
}

function mutatedText(text: string, random: () => number): string {
  const at = Math.floor(random() * (text.length + 1));
  const bits = [
    '',
    '|',
    '{',
    '}',
    '%%',
    '\n',
    '(',
    'b',
    '#',
    '\ud800',
    '%',
    ':|',
    '|:',
    ' D.S. al Coda',
    '4/4',
    '\t',
    ';',
    '"'
  ];
  const cut = Math.floor(random() * 6);
  return text.slice(0, at) + pick(random, bits).repeat(1 + Math.floor(random() * 4)) + text.slice(at + cut);
}

export interface Request {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | undefined;
}

/** The n-th request of a seed. */
export function mutant(all: readonly Sample[], random: () => number): Request {
  const { method, path, body } = pick(random, all);
  const isOther = random() < 0.03;
  const own = isOther ? pick(random, ['GET', 'POST', 'PUT', 'DELETE', 'PATCH']) : method;
  const at = random() < 0.15 ? mutatedText(path, random) : path;
  const value = random() < 0.95 ? mutated(body ?? null, random) : body;
  let text = own === 'GET' ? undefined : (JSON.stringify(value) ?? '');
  if (text !== undefined && random() < 0.05) text = mutatedText(text, random);
  if (text !== undefined && random() < 0.01) text = '['.repeat(5000);
  const type =
    random() < 0.95
      ? 'application/json'
      : pick(random, ['', 'text/plain', 'application/x-www-form-urlencoded', 'audio/wav', 'x']);
  return {
    method: own,
    path: encodeURI(at.toWellFormed()).replaceAll('#', '%23'),
    headers: type ? { 'content-type': type } : {},
    body: text
  };
}
