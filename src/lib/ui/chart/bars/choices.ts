/** What is offered for key and meter. */
import type { Key } from '$lib/core/harmony/key';
import { readMeter } from '$lib/core/chart/read';
import { DEFAULT_METER, type Meter } from '$lib/core/chart/model';
import type { Mode } from '$lib/core/theory/mode';
import { tonicOn } from '$lib/core/theory/tonic';

export const METERS = [
  '4/4',
  '3/4',
  '6/8',
  '12/8',
  '2/4',
  '5/4',
  '6/4',
  '7/4',
  '2/2',
  '9/8',
  '5/8',
  '7/8'
] as const;
export const readMeterChoice = (text: string): Meter => readMeter(text) ?? DEFAULT_METER;

const MODES: readonly (readonly [Mode, string])[] = [
  ['major', 'Major'],
  ['minor', 'Minor'],
  ['dorian', 'Dorian'],
  ['mixolydian', 'Mixolydian'],
  ['lydian', 'Lydian'],
  ['phrygian', 'Phrygian']
];
/** Keys by their mode, each as the head of a chart writes it. */
export const KEYS: readonly { readonly name: string; readonly keys: readonly Key[] }[] = MODES.map(
  ([mode, name]) => ({
    name,
    keys: Array.from({ length: 12 }, (_, pc) => ({
      tonic: tonicOn(pc, mode, { tonic: 'F', mode: 'major' }),
      mode
    }))
  })
);
