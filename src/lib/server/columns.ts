/** The columns that this Corvel works with, by table. */
import type { Tables } from './database';

type ColumnsOf<T> = readonly (keyof T & string)[];

export const COLUMNS: { readonly [Name in keyof Tables]: ColumnsOf<Tables[Name]> } = {
  chart: [
    'id',
    'source',
    'version',
    'title',
    'summary',
    'search',
    'created_at',
    'updated_at',
    'practised_at',
    'deleted_at'
  ],
  plan: ['chart_id', 'data'],
  chart_revision: ['id', 'chart_id', 'version', 'source', 'plan', 'saved_at'],
  setting: ['name', 'value']
};
