import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { beforeEach, describe, expect, it } from 'vitest';
import { listCharts } from '../../api/songbook';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { importArchiveInto } from './archive';
import { closeFile, openDatabase, type Database } from '../store/database';
import { admit } from './door';
import { replaceAll } from './merge';
import * as songbook from '../store/songbook';
import { sweepTakes } from '../takes/takes';
import { zipSync } from 'fflate';
import { readFileSync } from 'node:fs';

const REFUSAL = { code: 'damaged', message: 'It cannot be read.' };
const folder = () => mkdtempSync(join(tmpdir(), 'corvel-door-'));
const GOOD = randomUUID();
const OTHER = randomUUID();
let path: string;

/** A songbook with two charts, closed, to be spoilt. */
beforeEach(async () => {
  path = join(folder(), 'songbook.db');
  const db = await openDatabase(path);
  await songbook.createChart(db, { id: GOOD, source: '{title: Good}\n| Dbm7 | Gb7 |' });
  await songbook.createChart(db, { id: OTHER, source: '{title: Other}\n| C |' });
  closeFile(db);
});

function spoil(...statements: readonly string[]): void {
  const file = new Sqlite(path);
  file.pragma('foreign_keys = off');
  for (const statement of statements) file.exec(statement);
  file.close();
}
async function opened(file: string): Promise<Database> {
  const db = await openDatabase(join(folder(), 'here.db'));
  await replaceAll(db, file);
  return db;
}
const titles = async (db: Database) =>
  (await songbook.listSongbook(db, listCharts.parse({ sort: 'title' }))).charts.map(({ title }) => title);

const TAKE = `insert into take values ('%', '${GOOD}', 'A', 1, 'midi', 1, '2026-01-01', 1, 0, 100, 0, '', '{}', 1, 1, 1)`;

/** What is wrong with it, how it is made so, and what stays out. */
const HOSTILE: readonly (readonly [string, readonly string[], readonly string[]])[] = [
  ['a take with an id that is none', [TAKE.replace('%', '../../x')], ['take']],
  ['a take whose data is none', [TAKE.replace('%', randomUUID())], ['take']],
  ['a BLOB as the text of a chart', [`update chart set source = x'00ff' where id = '${OTHER}'`], ['chart']],
  ['a text of 20 MB', [`update chart set source = hex(zeroblob(10000000)) where id = '${OTHER}'`], ['chart']],
  [
    'text that is no UTF-8',
    [`update chart set source = cast(x'7cff43fe7c' as text) where id = '${OTHER}'`],
    []
  ],
  ['a version that is a word', [`update chart set version = 'x' where id = '${OTHER}'`], ['chart']],
  [
    'a plan that cannot be read',
    [`update plan set data = '{"position": "far"}' where chart_id = '${OTHER}'`],
    ['plan']
  ],
  [
    'a plan of a chart that is not there',
    [`insert into plan values ('${randomUUID()}', '${JSON.stringify(DEFAULT_PLAN)}')`],
    ['plan']
  ],
  [
    'a line of a chart that is not there',
    [`insert into line values ('${randomUUID()}', '${randomUUID()}', 'x', 1, '{}', 1, 1, null, 1)`],
    ['line']
  ],
  [
    'a solo whose data is none',
    [`insert into solo values ('${randomUUID()}', '${GOOD}', 'x', 1, 1, '{"arc": 3}', 1, 1, null)`],
    ['solo']
  ],
  [
    'a setting that is endless',
    [`insert into setting values ('player', hex(zeroblob(9000000)))`],
    ['setting']
  ],
  [
    'an endless view in the place of a table',
    [
      'drop table lick',
      `create view lick as with recursive n(i) as (select 1 union all select i + 1 from n) select i as id, i as name, 1 as version, '' as data, 1 as created_at, 1 as updated_at, null as deleted_at from n`
    ],
    []
  ],
  ['a trigger', [`create trigger t after insert on chart begin delete from chart; end`], []],
  [
    'an index on an expression',
    [`create index i on chart (hex(randomblob(length(source))))`.replace('randomblob', 'zeroblob')],
    []
  ]
];

describe('a songbook from elsewhere', () => {
  it('comes in as it is where nothing is wrong with it', async () => {
    const { path: clean, left } = await admit(path, folder(), REFUSAL);
    expect(left).toEqual([]);
    expect(await titles(await opened(clean))).toEqual(['Good', 'Other']);
  });

  it.each(HOSTILE)('with %s is taken in as far as it can be read, and told', async (_, statements, kinds) => {
    spoil(...statements);
    const { path: clean, left } = await admit(path, folder(), REFUSAL);
    expect(
      [...new Set(left.map(({ kind }) => kind))]
        .filter((kind) => kind !== 'plan' || kinds.includes('plan'))
        .filter((kind) => kind !== 'earlier version')
    ).toEqual(kinds);
    const db = await opened(clean);
    expect(await titles(db)).toContain('Good');
    for (const { id } of (await songbook.listSongbook(db, listCharts.parse({}))).charts)
      expect((await songbook.openChart(db, id)).damaged).toBe(false);
    await sweepTakes(db, Date.now());
    // The next good one works.
    await songbook.createChart(db, { source: '| Gb |' });
  });

  it.each([
    ['no SQLite file', () => writeFileSync(path, 'x'.repeat(5000))],
    ['an empty file', () => writeFileSync(path, '')],
    ['a file of a newer Corvel', () => spoil('pragma user_version = 900')],
    ['a file without charts', () => spoil('drop table plan', 'drop table chart')],
    ['charts that are a view', () => spoil('drop table chart', `create view chart as select 1 as id`)]
  ])('that is %s is refused whole', async (_, make) => {
    make();
    await expect(admit(path, folder(), REFUSAL)).rejects.toMatchObject({
      status: 409,
      error: { code: 'damaged' }
    });
  });

  it('that is torn is taken in up to the tear, or refused; it ends in any case', async () => {
    const whole = readFileSync(path);
    for (let cut = 1; cut < 8; cut++) {
      writeFileSync(path, whole.subarray(0, Math.floor((whole.length * cut) / 8)));
      const answer = await admit(path, folder(), REFUSAL).catch((error: { status: number }) => error);
      if ('path' in answer) expect(await titles(await opened(answer.path))).toBeInstanceOf(Array);
      else expect(answer.status).toBe(409);
    }
  });

  it('tells what stays out before anything is stored', async () => {
    spoil(`update chart set version = 'x' where id = '${OTHER}'`);
    const here = await openDatabase(join(folder(), 'here.db'));
    const zip = join(folder(), 'archive.zip');
    writeFileSync(zip, zipSync({ 'songbook.db': readFileSync(path) }));
    const look = await importArchiveInto(here, zip, 'look', new Date());
    expect(look.left[0]).toEqual({
      kind: 'chart',
      what: 'Other',
      why: 'its version is not what Corvel writes'
    });
    // What hangs on it is told in one line a kind, not thing by thing.
    expect(look.left.filter(({ kind }) => kind === 'plan')).toEqual([
      { kind: 'plan', what: '1 of them', why: 'belongs to a chart that is not there' }
    ]);
    expect(await titles(here)).toEqual([]);
  });
});

describe('a row that something else has spoilt', () => {
  it('stops no start, no list and no sweep', async () => {
    spoil(
      `update chart set source = x'00ff', title = x'00', summary = '{' where id = '${OTHER}'`,
      TAKE.replace('%', '../../x')
    );
    const db = await openDatabase(path);
    await sweepTakes(db, Date.now() + 1e12);
    await songbook.refreshSummaries(db);
    const { charts } = await songbook.listSongbook(db, listCharts.parse({}));
    expect(charts.find(({ id }) => id === OTHER)).toMatchObject({ damaged: true });
    expect(await songbook.openChart(db, OTHER)).toMatchObject({ damaged: true, source: '' });
  });
});
