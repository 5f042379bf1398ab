/** The solos that are kept with a chart, each with the version of it that it was made over. */
import type { z } from 'zod';
import { soloData, type keepSolo, type StoredSolo } from '../../api/solo';
import type { Database } from './database';
import { storedKind } from './stored-kind';
import { versionNamed, readColumn } from './songbook';

const MOST_SOLOS = 200;

export const solos = storedKind({
  table: 'solo',
  noun: 'solo',
  gone: { code: 'no-solo', message: 'This solo is not kept with the chart; it may have been deleted.' },
  most: {
    count: MOST_SOLOS,
    refusal: {
      code: 'too-many-solos',
      message: `A chart keeps up to ${MOST_SOLOS} solos; delete some you no longer play.`
    }
  },
  isOfChart: true,
  rows: (db) =>
    db
      .selectFrom('solo')
      .select(['id', 'name', 'version', 'chart_version', 'data'])
      .where('deleted_at', 'is', null),
  shown: ({ id, name, version, chart_version, data }): StoredSolo => ({
    id,
    name,
    version,
    chartVersion: chart_version,
    data: readColumn(soloData, data)
  })
});

/** Keeps a new solo; it belongs to the version of the chart that is named, else to the one there is. */
export async function keepNewSolo(
  db: Database,
  chart: string,
  { id, name, chartVersion, data }: z.infer<typeof keepSolo>
): Promise<StoredSolo> {
  const over = await versionNamed(db, chart, chartVersion);
  return solos.keep(db, { id, name, data: JSON.stringify(data), chart_version: over }, chart);
}
