/** One plain sentence of reasons, built from the facts of a judgement. */
import { prettyDegree } from '../theory/typeset';
import { type Degree } from '../theory/degree';
import type { Chord } from '../theory/chord';
import { listed } from '../theory/words';
import type { Judgement } from './judge';

/** Where it is said. */
interface Place {
  readonly change: { readonly chord: Chord };
  readonly leadsToFive: boolean;
}

const list = (degrees: readonly string[]) => listed(degrees.map(prettyDegree));

/** "Holds all of the chord, adds 9, 11 and 13." */
export function reason(
  judgement: Judgement & { readonly softAvoid?: Degree; readonly against?: readonly Degree[] },
  { change: { chord }, leadsToFive }: Place,
  passing?: string
): string {
  const { lacks, covers, tensions, avoid, blue, softAvoid, against } = judgement;
  const parts = [
    lacks.length === 0
      ? 'Holds every tone of the chord'
      : covers.length === 0
        ? 'Holds no tone of the chord'
        : `Holds ${list(covers)} but not the ${list(lacks)}`
  ];
  if (tensions.length) parts.push(`adds ${list(tensions)} as colour`);
  if (avoid.length) parts.push(`keep the ${list(avoid)} passing`);
  if (against) parts.push(`its ${list(against)} goes against the symbol: ${passing}`);
  if (softAvoid)
    parts.push(
      `go easy on the ${prettyDegree(softAvoid)}${leadsToFive ? ', the third of the V to come' : ''}`
    );
  if (blue.length) {
    parts.push(
      blue.includes('b3') && chord.tones.includes('3')
        ? 'the ♭3 is a blue note and wants to rise to the 3'
        : `the ${list(blue)} is a blue note to pass through`
    );
  }
  return `${parts.join('; ')}.`;
}
