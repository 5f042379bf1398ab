/** Which row of the phrase table a chart takes. Source: docs/music-rules.md, Phrases, Which row. */
import type { Meter } from '../../chart/model';
import type { Analysis } from '../../harmony/analysis';
import type { Style } from '../../harmony/style';
import { rowNamed, type PhraseRow, type PhraseRowId, type PoolRule } from './styles';

export interface RowFacts {
  readonly style: Style;
  /** The feel as the chart says it, and the id of the one that is played. */
  readonly feel: string | null;
  readonly feelId: string;
  readonly meter: Meter;
  /** Beats a minute of the chart's own beat; null where the chart does not say. */
  readonly tempo: number | null;
  readonly analysis: Analysis;
}

/** Pulses a minute under which jazz, soul and pop are ballads. */
const BALLAD = 84;
const LATIN_FEELS = new Set(['bossa', 'samba', 'montuno', 'bolero']);
const LATIN_WORDS = /bolero|montuno|tango|\bson\b/i;

const POOL_OF: Readonly<Record<Style, PoolRule>> = {
  jazz: 'modes',
  modal: 'modes',
  blues: 'slow blues',
  rock: 'rock',
  'pop or folk': 'chord and key',
  country: 'chord and key',
  'soul or funk': 'key and chord',
  latin: 'key and chord'
};

const isTriple = ({ unit, beats }: Meter) => unit >= 8 && beats % 3 === 0 && beats > 3;

/** The first that fits. */
function idOf({ style, feel: said, feelId: feel, meter, tempo, analysis }: RowFacts): PhraseRowId {
  const isTwelve = meter.unit >= 8 && meter.beats === 12;
  if (isTwelve || (feel === 'slow 12/8 blues' && !isTriple(meter))) return 'slow 12/8 blues';
  if (isTriple(meter)) return '6/8 soul';
  if (meter.beats === 3 && meter.unit <= 4) return 'waltz';
  if (LATIN_FEELS.has(feel) || style === 'latin' || (said && LATIN_WORDS.test(said))) return 'bossa';
  const isSlow = tempo !== null && (tempo * 4) / meter.unit < BALLAD;
  if (feel === 'ballad' || (isSlow && ['jazz', 'soul or funk', 'pop or folk'].includes(style)))
    return 'ballad';
  switch (style) {
    case 'blues':
      return feel === 'swing' || hasTwoFive(analysis) ? 'jazz blues' : 'shuffle blues';
    case 'jazz':
      return 'minor swing';
    case 'modal':
      return 'modal';
    case 'rock':
      return 'rock';
    case 'country':
      return 'country';
    case 'soul or funk':
      return feel === 'funk' ? 'funk' : 'rock';
    default:
      return 'pop or folk';
  }
}

const hasTwoFive = ({ cadences }: Analysis) =>
  cadences.some(({ kind }) => ['two-five-one', 'two-five', 'chain'].includes(kind));

/** The row of a chart, with the notes of its style where the row is another style's. */
export function rowOf(facts: RowFacts): PhraseRow {
  const { style } = facts;
  const row = rowNamed(idOf(facts));
  if (row.id === 'slow 12/8 blues' && style !== 'blues')
    return { ...row, forms: ['free'], pool: POOL_OF[style] };
  if (row.id === '6/8 soul' && style === 'blues') return { ...row, pool: 'slow blues', idiom: 'pentatonic' };
  if (row.id === 'rock' && style === 'soul or funk') return { ...row, pool: 'key and chord' };
  return row;
}
