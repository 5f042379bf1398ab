/** Words that stand on printed pages. */
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { romanText } from '$lib/core/harmony/numeral';
import { prettyNumeral } from '$lib/core/theory/typeset';

export const TABLE_COLUMNS = ['bars', 'chord', 'numeral', 'tones', 'scale', 'land on'] as const;

/** The numeral of a change as it is printed; empty where it has none. */
export const numeralOf = ({ numeral }: AnalysedChange): string =>
  numeral ? prettyNumeral(romanText(numeral)) : '';
