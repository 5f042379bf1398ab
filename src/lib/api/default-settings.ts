/** The settings of a player who has changed none: apart from their schema, so that a page comes without it. */
import { DEFAULT_FRETS, DEFAULT_SPAN } from '../core/neck/tuning';
import { READING } from './reading';
import type { Settings } from './settings';

export const DEFAULT_SETTINGS: Settings = {
  theme: 'system',
  labels: 'degree',
  naming: 'modal',
  approaches: [],
  tuning: 'standard',
  frets: DEFAULT_FRETS,
  capo: 0,
  capoChords: 'sounding',
  span: DEFAULT_SPAN,
  openStrings: true,
  organise: 'positions',
  voicing: 'closed',
  lineAs: 'time',
  scoreDegrees: true,
  leftHanded: false,
  simpleSpelling: false,
  reading: READING,
  singleKeys: true,
  keys: {},
  letters: 'b',
  standSize: 'normal',
  input: '',
  restAfter: 20
};
