/** What a cadence is, and what it is called. Source: docs/music-rules.md, Cadences. */
import { isMinorKey, type Key } from './key';

export type CadenceKind =
  /** A ii–V that reaches its goal, and one that does not. */
  | 'two-five-one'
  | 'two-five'
  | 'five-one'
  | 'plagal'
  | 'backdoor'
  /** ♭VII–IV–I. */
  | 'double plagal'
  /** i–♭VII–♭VI–V. */
  | 'descent'
  | 'turnaround'
  | 'eight-bar'
  | 'twelve-bar'
  | 'sixteen-bar'
  /** Several ii–V in a row. */
  | 'chain'
  /** A held root with a voice that walks by semitones. */
  | 'line cliché';

export interface Cadence {
  readonly kind: CadenceKind;
  /** Where it leads. */
  readonly goal: Key;
  /** First and last change, by index. */
  readonly from: number;
  readonly to: number;
  /** A tritone substitute stands for the V. */
  readonly isSubstitute?: true;
  /** The chord before the tonic is minor: iv–I. */
  readonly isMinorPlagal?: true;
}

/** The name in use, by the third of the goal: [major, minor]. */
const TYPES: Readonly<Record<CadenceKind, readonly [string, string]>> = {
  'two-five-one': ['ii-V-I', 'ii-V-i'],
  'two-five': ['ii-V', 'ii-V'],
  'five-one': ['V-I', 'V-i'],
  plagal: ['IV-I', 'IV-I'],
  backdoor: ['iv-bVII7-I', 'iv-bVII7-I'],
  'double plagal': ['bVII-IV-I', 'bVII-IV-i'],
  descent: ['i-bVII-bVI-V', 'i-bVII-bVI-V'],
  turnaround: ['turnaround', 'turnaround'],
  'eight-bar': ['8-bar blues', '8-bar blues'],
  'twelve-bar': ['12-bar blues', '12-bar blues'],
  'sixteen-bar': ['16-bar blues', '16-bar blues'],
  chain: ['ii-V chain', 'ii-V chain'],
  'line cliché': ['line cliché', 'line cliché']
};

/** The kind of a cadence, as in the contract of the routes. */
export function cadenceName({ kind, goal }: Cadence): string {
  return TYPES[kind][isMinorKey(goal) ? 1 : 0];
}

/** The finer name: "ii-subV-I", "iv-I", "12-bar minor blues". */
export function cadenceTitle(cadence: Cadence): string {
  const { kind, goal, isSubstitute, isMinorPlagal } = cadence;
  const name = cadenceName(cadence);
  if (isSubstitute) return name.replace('V', 'subV');
  if (kind === 'plagal') return `${isMinorPlagal ? 'iv' : 'IV'}-${isMinorKey(goal) ? 'i' : 'I'}`;
  return name.endsWith('blues') && isMinorKey(goal) ? name.replace('blues', 'minor blues') : name;
}

/** Whether a cadence is one ii–V, with its goal or without. */
export function isTwoFive({ kind }: Cadence): boolean {
  return kind === 'two-five' || kind === 'two-five-one';
}
