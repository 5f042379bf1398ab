/** Everything that can be asked of the songbook, by name: what it takes, and what does it. The routes name these. */
import { z } from 'zod';
import { importArchive } from '../../api/archive';
import { importChartFile } from '../../api/chart-file';
import { changeLick, keepLick, listLicks as licksAsked } from '../../api/lick';
import { changeLine, keepLine } from '../../api/line';
import {
  changeItem,
  changeRow,
  changeSetList,
  dayField,
  keepItems,
  keepReviews,
  keepSetList,
  listLog,
  orderItems,
  recordRows
} from '../../api/practice';
import { findQuery } from '../../api/find';
import { settingsChange } from '../../api/settings';
import {
  createChart as newChart,
  listCharts,
  manyCharts,
  renameChart as newTitle,
  saveChart as newSave
} from '../../api/songbook';
import { changeTake, keepTake } from '../../api/take';
import { importArchiveInto, copyForArchive } from '../files/archive';
import { parse } from '../web/body';
import { importChart, chartFileOf } from '../files/chart-file';
import { restoreCopy, copyNow, listCopies } from '../store/copies';
import { find } from '../store/find';
import { editLick, keepNewLick, licks, listLicks } from '../store/licks';
import { editLine, keepNewLine, lines, listLines } from '../store/lines';
import { listCards, keepAnswers } from '../practice/cards';
import { logCsv, practiceJson, takeLog } from '../practice/files';
import {
  editItem,
  items,
  itemsOn,
  keepNewItems,
  keepWholeForms,
  listItems,
  reorderItems
} from '../practice/items';
import { correctRow, listRows, markRow, record } from '../practice/log';
import { picturesOf } from '../practice/pictures';
import { editSetList, keepNewSetList, listSetLists, setLists } from '../practice/set-lists';
import { aheadFrom, todayOf, todayQuery } from '../practice/today';
import { trainerOf } from '../practice/trainer';
import { readSettings, writeSettings } from '../store/settings';
import {
  restoreChart,
  changeMany,
  createChart,
  deleteChart,
  duplicateChart,
  listRevisions,
  listSongbook,
  openChart,
  openRevision,
  refreshSummaries,
  renameChart,
  saveChart
} from '../store/songbook';
import { start } from '../store/start';
import { soundFile, writeSound } from '../takes/sounds';
import {
  editTake,
  forgetSound,
  keepNewTake,
  listTakes,
  measureSound,
  openTake,
  takes,
  takeSounds
} from '../takes/takes';
import { doing, json, keeping, reading, type Job } from './job';

const ofDay = z.object({ day: dayField });
const mayOfDay = z.object({ day: dayField.optional() });
const fileOfPractice = z.object({ format: z.enum(['csv', 'json']).default('csv') });
const withAll = z.object({ with: z.string().optional() });
const piece = z.object({ from: z.coerce.number().int().min(0), rate: z.coerce.number().int() });
const table = z.object({ text: z.string() });
const archive = z.object({ path: z.string(), merge: importArchive.shape.merge });

/** The day's log as a table, or all of practice as it is kept. */
const practiceFile: Job = async ({ query }, songbook) => {
  const { format } = parse(fileOfPractice, query);
  const db = await songbook();
  return format === 'csv'
    ? { body: await logCsv(db), type: 'text/csv; charset=utf-8', name: 'practice.csv' }
    : { body: JSON.stringify(await practiceJson(db)), type: 'application/json', name: 'practice.json' };
};

/** A piece of a take's sound, which is the body as it comes. */
const keepSound: Job = async ({ params, query, bytes }, songbook) => {
  const { from, rate } = parse(piece, query);
  const db = await songbook();
  await openTake(db, params.id, params.take);
  const written = writeSound(db, params.take, { from, rate, samples: bytes });
  await measureSound(db, params.take);
  return json(written);
};

export const songbookJobs = {
  start: (_call, _songbook) => start(),
  summaries: doing(async (db) => {
    await refreshSummaries(db);
    await keepWholeForms(db);
  }),

  'charts.list': reading(listCharts, listSongbook),
  'charts.create': keeping(newChart, createChart),
  'charts.open': doing((db, { id }) => openChart(db, id)),
  'charts.save': keeping(newSave, (db, edit, { id }) => saveChart(db, id, edit)),
  'charts.delete': doing((db, { id }) => deleteChart(db, id)),
  'charts.restore': doing((db, { id }) => restoreChart(db, id)),
  'charts.duplicate': doing((db, { id }) => duplicateChart(db, id)),
  'charts.rename': keeping(newTitle, (db, { title }, { id }) => renameChart(db, id, title)),
  'charts.many': keeping(manyCharts, changeMany),
  'charts.revisions': doing(async (db, { id }) => ({ revisions: await listRevisions(db, id) })),
  'charts.revision': doing((db, { id, version }) => openRevision(db, id, Number(version))),
  'charts.file': reading(withAll, (db, query, { id }) => chartFileOf(db, id, query.with === 'all')),
  'charts.import-file': keeping(importChartFile, importChart),

  'lines.list': doing(async (db, { id }) => ({ lines: await listLines(db, id) })),
  'lines.keep': keeping(keepLine, (db, line, { id }) => keepNewLine(db, id, line)),
  'lines.edit': keeping(changeLine, (db, edit, { id, line }) => editLine(db, id, line, edit)),
  'lines.delete': doing((db, { id, line }) => lines.remove(db, line, id)),
  'lines.restore': doing((db, { id, line }) => lines.restore(db, line, id)),

  'takes.list': doing(async (db, { id }) => ({ takes: await listTakes(db, id) })),
  'takes.keep': keeping(keepTake, (db, take, { id }) => keepNewTake(db, id, take)),
  'takes.open': doing((db, { id, take }) => openTake(db, id, take)),
  'takes.edit': keeping(changeTake, (db, edit, { id, take }) => editTake(db, id, take, edit)),
  'takes.delete': doing((db, { id, take }) => takes.remove(db, take, id)),
  'takes.restore': doing((db, { id, take }) => takes.restore(db, take, id)),
  'takes.sounds': doing(takeSounds),
  'sound.keep': keepSound,
  'sound.place': doing(async (db, { id, take }) => {
    await openTake(db, id, take);
    return soundFile(db, take);
  }),
  'sound.delete': doing((db, { id, take }) => forgetSound(db, id, take)),

  'licks.list': reading(licksAsked, listLicks),
  'licks.keep': keeping(keepLick, keepNewLick),
  'licks.edit': keeping(changeLick, (db, edit, { id }) => editLick(db, id, edit)),
  'licks.delete': doing((db, { id }) => licks.remove(db, id)),
  'licks.restore': doing((db, { id }) => licks.restore(db, id)),

  'log.list': reading(listLog, listRows),
  'log.record': keeping(recordRows, record),
  'log.correct': keeping(changeRow, (db, edit, { id }) => correctRow(db, id, edit)),
  'log.delete': doing((db, { id }) => markRow(db, id, Date.now())),
  'log.restore': doing((db, { id }) => markRow(db, id, null)),
  'practice.file': practiceFile,
  'practice.import-table': keeping(table, (db, { text }) => takeLog(db, text)),
  'practice.pictures': reading(ofDay, (db, { day }) => picturesOf(db, day)),
  'practice.today': reading(todayQuery, todayOf),
  'practice.ahead': reading(todayQuery, aheadFrom),
  'practice.trainer': reading(ofDay, (db, { day }) => trainerOf(db, day)),

  'items.list': reading(mayOfDay, async (db, { day }) => ({
    items: day === undefined ? await listItems(db) : await itemsOn(db, day)
  })),
  'items.keep': keeping(keepItems, keepNewItems),
  'items.order': keeping(orderItems, reorderItems),
  'items.edit': keeping(changeItem, (db, edit, { id }) => editItem(db, id, edit)),
  'items.delete': doing((db, { id }) => items.remove(db, id)),
  'items.restore': doing((db, { id }) => items.restore(db, id)),
  'set-lists.list': doing(async (db) => ({ setLists: await listSetLists(db) })),
  'set-lists.keep': keeping(keepSetList, keepNewSetList),
  'set-lists.edit': keeping(changeSetList, (db, edit, { id }) => editSetList(db, id, edit)),
  'set-lists.delete': doing((db, { id }) => setLists.remove(db, id)),
  'set-lists.restore': doing((db, { id }) => setLists.restore(db, id)),
  'cards.list': doing(async (db) => ({ cards: await listCards(db) })),
  'cards.answer': keeping(keepReviews, keepAnswers),

  find: reading(findQuery, find),

  'settings.read': doing(readSettings),
  'settings.write': keeping(settingsChange, writeSettings),

  'copies.list': doing((db) => ({ copies: listCopies(db) })),
  'copies.now': doing((db) => copyNow(db, new Date())),
  'copies.restore': doing((db, { name }) => restoreCopy(db, name, new Date())),
  'archive.copy': reading(z.object({ folder: z.string(), sounds: z.enum(['yes', 'no']) }), copyForArchive),
  'archive.import': reading(archive, (db, { path, merge }) => importArchiveInto(db, path, merge, new Date()))
} as const satisfies Readonly<Record<string, Job>>;

export type KeptName = keyof typeof songbookJobs;
