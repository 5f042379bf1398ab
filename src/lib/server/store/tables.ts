/** The tables of the songbook's file and their columns. */
import type { Generated } from 'kysely';

export interface Tables {
  chart: {
    id: string;
    /** The chart text, ChordPro. */
    source: string;
    /** Counts every save; an edit names the one it was based on. */
    version: number;
    /** What the songbook lists, read from the source at each save. */
    title: string;
    summary: string;
    /** What the songbook's search looks through: title, key, feel and chords, folded. */
    search: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  plan: { chart_id: string; data: string };
  /** Append-only: what every save stored. */
  chart_revision: {
    id: Generated<number>;
    chart_id: string;
    version: number;
    source: string;
    plan: string;
    saved_at: number;
  };
  /** Lines that are kept with a chart: notes, and the chords they were written over. */
  line: {
    id: string;
    chart_id: string;
    name: string;
    /** Counts every edit; the next one names the one it was based on. */
    version: number;
    /** The version of the chart that it was written over; null where an older Corvel kept it. */
    chart_version: number | null;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** Solos over a chart: arc, phrases, notes. */
  solo: {
    id: string;
    chart_id: string;
    name: string;
    version: number;
    chart_version: number | null;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** The lick book: notes over chords of their own, with tags. */
  lick: {
    id: string;
    name: string;
    version: number;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** What is practised, in the player's order. */
  practice_item: {
    id: string;
    chart_id: string | null;
    place: number;
    version: number;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** What was played, as it happened. */
  practice_log: {
    /** The order in which rows were written, which no clock can change. */
    seq: Generated<number>;
    id: string;
    item_id: string | null;
    chart_id: string | null;
    kind: string;
    started_at: number;
    /** The day it began on, where it was played. */
    day: string;
    seconds: number;
    rounds: number;
    tempo: number | null;
    /** 1 clean, 0 not, null where nothing was said. */
    clean: number | null;
    key: string | null;
    area: number | null;
    data: string;
    /** Counts what the recorder has written; `version` counts corrections by hand. */
    revision: number;
    version: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** Cards of the trainer that were asked. */
  card: { id: string; data: string; memory: string; due: number; day: string };
  card_review: {
    seq: Generated<number>;
    id: string;
    card_id: string;
    at: number;
    day: string;
    seconds: number;
    grade: string;
  };
  /** Charts for a date. */
  set_list: {
    id: string;
    name: string;
    version: number;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  /** What was played to Corvel. The sound lies in a file beside the database. */
  take: {
    id: string;
    chart_id: string;
    name: string;
    version: number;
    way: string;
    played_at: number;
    day: string;
    seconds: number;
    /** Of its sound on the disk. */
    bytes: number;
    tempo: number;
    loved: number;
    /** What lists tell of it, made whenever `data` is written. */
    summary: string;
    data: string;
    created_at: number;
    updated_at: number;
    deleted_at: number | null;
  };
  setting: { name: string; value: string };
}

type ColumnsOf<T> = readonly (keyof T & string)[];

/** Every column, to be looked for at the start. */
export const COLUMNS: { readonly [Name in keyof Tables]: ColumnsOf<Tables[Name]> } = {
  chart: ['id', 'source', 'version', 'title', 'summary', 'search', 'created_at', 'updated_at', 'deleted_at'],
  plan: ['chart_id', 'data'],
  chart_revision: ['id', 'chart_id', 'version', 'source', 'plan', 'saved_at'],
  line: [
    'id',
    'chart_id',
    'name',
    'version',
    'chart_version',
    'data',
    'created_at',
    'updated_at',
    'deleted_at'
  ],
  solo: [
    'id',
    'chart_id',
    'name',
    'version',
    'chart_version',
    'data',
    'created_at',
    'updated_at',
    'deleted_at'
  ],
  lick: ['id', 'name', 'version', 'data', 'created_at', 'updated_at', 'deleted_at'],
  practice_item: ['id', 'chart_id', 'place', 'version', 'data', 'created_at', 'updated_at', 'deleted_at'],
  practice_log: [
    'seq',
    'id',
    'item_id',
    'chart_id',
    'kind',
    'started_at',
    'day',
    'seconds',
    'rounds',
    'tempo',
    'clean',
    'key',
    'area',
    'data',
    'revision',
    'version',
    'updated_at',
    'deleted_at'
  ],
  card: ['id', 'data', 'memory', 'due', 'day'],
  card_review: ['seq', 'id', 'card_id', 'at', 'day', 'seconds', 'grade'],
  set_list: ['id', 'name', 'version', 'data', 'created_at', 'updated_at', 'deleted_at'],
  take: [
    'id',
    'chart_id',
    'name',
    'version',
    'way',
    'played_at',
    'day',
    'seconds',
    'bytes',
    'tempo',
    'loved',
    'summary',
    'data',
    'created_at',
    'updated_at',
    'deleted_at'
  ],
  setting: ['name', 'value']
};
