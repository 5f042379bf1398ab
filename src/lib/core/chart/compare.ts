/** Two charts side by side: which bars are alike, which one has alone. */
import { nth } from '../base/list';
import { diffArrays } from 'diff/lib/diff/array.js';
import type { Form } from './unroll';

/** A bar as it is played. */
export interface ComparedBar {
  readonly number: number;
  readonly section: string;
  readonly symbols: readonly string[];
}

export interface BarPair {
  readonly left: ComparedBar | null;
  readonly right: ComparedBar | null;
  readonly isSame: boolean;
}

type Played = Pick<Form, 'bars' | 'changes'>;

/** The bars of a form with the chords that begin in each; a bar in which none begins holds the chord before. */
function comparedBars({ bars, changes }: Played): (ComparedBar & { readonly said: string })[] {
  let at = 0;
  let held = '';
  return bars.map(({ number, section, beats }) => {
    const own = [];
    while (changes[at] && nth(changes, at).bar <= number) own.push(nth(changes, at++));
    const first = own[0]?.beat === 1 ? '' : held;
    held = own.at(-1)?.symbol ?? held;
    const said = `${beats}:${first}:${own.map(({ beat, symbol }) => `${beat}${symbol}`).join()}`;
    return { number, section, symbols: own.map(({ symbol }) => symbol), said };
  });
}

/** The bars of two forms as they are played, paired where they are alike; runs that differ stand beside one another. */
export function compareForms(left: Played, right: Played): BarPair[] {
  const [a, b] = [comparedBars(left), comparedBars(right)];
  const pairs: BarPair[] = [];
  let [from, to] = [0, 0];
  let gone: ComparedBar[] = [];
  let come: ComparedBar[] = [];
  const flush = () => {
    for (let i = 0; i < Math.max(gone.length, come.length); i++)
      pairs.push({ left: gone[i] ?? null, right: come[i] ?? null, isSame: false });
    [gone, come] = [[], []];
  };
  for (const { value, added, removed } of diffArrays(
    a.map(({ said }) => said),
    b.map(({ said }) => said)
  )) {
    if (removed) gone.push(...a.slice(from, (from += value.length)));
    else if (added) come.push(...b.slice(to, (to += value.length)));
    else {
      flush();
      for (let i = 0; i < value.length; i++)
        pairs.push({ left: nth(a, from++), right: nth(b, to++), isSame: true });
    }
  }
  flush();
  return pairs;
}
