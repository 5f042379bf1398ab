/** Finds charts, licks, takes and rows of the log by words that must all be in them. */
import { sql } from 'kysely';
import type { z } from 'zod';
import type { Found, findQuery } from '../../api/find';
import { listCharts } from '../../api/songbook';
import type { Database } from './database';
import { folded, searchWords } from './search';
import { listSongbook } from './songbook';

/** Rows of the log that are looked through, the latest first. */
const LOG_ROWS = 20_000;

/** Words of a row; none where it is damaged. */
const told = (path: string) =>
  sql<string>`iif(json_valid(practice_log.data), coalesce(json_extract(practice_log.data, ${sql.lit(path)}), ''), '')`;

const hasAll = (words: readonly string[]) => (text: string) => {
  const within = folded(text);
  return words.every((word) => within.includes(word));
};

/** With no words: the charts alone, the last used first. */
export async function find(db: Database, { search, limit }: z.infer<typeof findQuery>): Promise<Found> {
  const words = searchWords(search);
  const { charts } = await listSongbook(db, listCharts.parse({ search, limit }));
  const found = charts.map(({ id, title, key }) => ({ id, title, key: key ?? '' }));
  if (words.length === 0) return { charts: found, licks: [], takes: [], log: [] };
  const isMeant = hasAll(words);
  const [licks, takes, log] = await Promise.all([
    db
      .selectFrom('lick')
      .select(['id', 'name'])
      .where('deleted_at', 'is', null)
      .orderBy('updated_at', 'desc')
      .execute(),
    db
      .selectFrom('take')
      .innerJoin('chart', 'chart.id', 'take.chart_id')
      .select([
        'take.id as id',
        'take.name as name',
        'chart.id as chart',
        'chart.title as title',
        'take.day as day'
      ])
      .where('take.deleted_at', 'is', null)
      .where('chart.deleted_at', 'is', null)
      .orderBy('played_at', 'desc')
      .execute(),
    db
      .selectFrom('practice_log')
      .leftJoin('chart', (join) =>
        join.onRef('chart.id', '=', 'practice_log.chart_id').on('chart.deleted_at', 'is', null)
      )
      .select([
        'practice_log.id as id',
        'day',
        'chart.title as title',
        told('$.what').as('what'),
        told('$.note').as('note')
      ])
      .where('practice_log.deleted_at', 'is', null)
      .orderBy('started_at', 'desc')
      .limit(LOG_ROWS)
      .execute()
  ]);
  return {
    charts: found,
    licks: licks.filter(({ name }) => isMeant(name)).slice(0, limit),
    takes: takes.filter(({ name, title, day }) => isMeant(`${name} ${title} ${day}`)).slice(0, limit),
    log: log
      .filter(({ what, note, title, day }) => isMeant(`${what} ${note} ${title ?? ''} ${day}`))
      .slice(0, limit)
      .map(({ id, day, what, title }) => ({ id, day, what, title }))
  };
}
