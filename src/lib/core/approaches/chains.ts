/** Proposals for several changes at once: over a cadence, one idea carried through. */
import { firstOf, lastOf, nth, sure } from '../base/list';
import type { Analysis } from '../harmony/analysis';
import { isTwoFive } from '../harmony/cadence-model';
import type { Style } from '../harmony/style';
import { type Chord } from '../theory/chord';
import { noteAbove, pitchClass, semitonesUp, simpleSpelling } from '../theory/note';
import { choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { arpeggioOf, chordNamed, type Collection } from './collection';
import { contextOf, type ChangeContext } from './context';
import { displacedPentatonic } from './displaced-pentatonic';

export interface Chain {
  readonly approach: string;
  /** Change by change, by index. */
  readonly changes: readonly number[];
  /** What is played on each of them. */
  readonly collections: readonly Collection[];
  /** Semitones by which the roots move from one to the next; for a held sound, by which its one note moves. */
  readonly step: number;
  readonly why: string;
  /** The change within which the player may go over to the next sound wherever they like. */
  readonly freeWithin?: number;
}

/** The chains of a chart, cadence by cadence. `over`: only of cadences that a change lies in. */
export function findChains(analysis: Analysis, over: number | null = null): Chain[] {
  const seen = new Set<string>();
  return analysis.cadences.flatMap((cadence): Chain[] => {
    if (!isTwoFive(cadence)) return [];
    const { kind, goal, from, to } = cadence;
    if (over !== null && (over < from || over > to)) return [];
    const steps = distinctChanges(analysis, from, to);
    const id = steps.join();
    if (seen.has(id) || steps.length < 2) return [];
    seen.add(id);
    const contexts = steps.map((index) => sure(contextOf(analysis, index), 'contextOf'));
    const isMajor = kind === 'two-five-one' && goal.mode === 'major' && !cadence.isSubstitute;
    return [
      ...pentatonicChain(contexts),
      ...(isMajor ? fourThenOne(contexts) : []),
      ...heldSound(contexts.slice(0, 2))
    ];
  });
}

/** The changes of a cadence, repeats of the same chord folded into the first. */
function distinctChanges({ changes }: Analysis, from: number, to: number): number[] {
  const found: number[] = [];
  for (let i = from; i <= to; i++) {
    const chord = nth(changes, i).chord;
    const last = found.length ? nth(changes, lastOf(found)).chord : null;
    if (chord && (!last || pitchClass(last.root) !== pitchClass(chord.root))) found.push(i);
  }
  return found;
}

/** Styles whose dominants stay as they are written. */
const PLAIN: readonly Style[] = ['pop or folk', 'country', 'rock'];

/** Constant steps in the order of preference: a semitone up is best, then the small ones. */
const STEPS = [1, -1, 2, -2, 3, -3];

/** Pentatonics whose roots move by one constant interval; the V may be played altered, which a cadence bears where the style does. */
function pentatonicChain(contexts: readonly ChangeContext[]): Chain[] {
  const options = contexts.map((context) => {
    const bears = context.family === 'dominant' && !PLAIN.includes(context.style);
    const altered = bears ? { ...context, minorGoal: true } : context;
    const offered = displacedPentatonic(altered, null);
    return new Map(offered.map((choice) => [pitchClass(choice.root), choice]));
  });
  const clean = (choice: ScaleChoice) => choice.avoid.length + choice.blue.length;
  for (const step of STEPS) {
    const found = [...firstOf(options).keys()]
      .map((root) => options.map((byRoot, i) => byRoot.get((root + i * step + 36) % 12)))
      .filter((chain): chain is ScaleChoice[] => chain.every(Boolean))
      .sort((a, b) => a.reduce((n, c) => n + clean(c), 0) - b.reduce((n, c) => n + clean(c), 0))[0];
    if (!found) continue;
    const distance = `${Math.abs(step) === 1 ? 'a semitone' : `${Math.abs(step)} semitones`} ${step > 0 ? 'up' : 'down'}`;
    return [
      {
        approach: 'displaced-pentatonic',
        changes: contexts.map(({ change }) => change.index),
        collections: found,
        step,
        why: `One pentatonic shape moves ${distance} at every change of the cadence.`
      }
    ];
  }
  return [];
}

/** ii–V–I thought as IV then I; the change-over lies anywhere within the V. */
function fourThenOne(contexts: readonly ChangeContext[]): Chain[] {
  if (contexts.length !== 3) return [];
  const one = nth(contexts, 2).change.chord.root;
  const four = sure(chordNamed(`${simpleSpelling(noteAbove(one, '4P'))}maj7`), 'chordNamed');
  const home = sure(chordNamed(`${one}maj7`), 'chordNamed');
  const collections = [four, four, home].map(arpeggioOf);
  return [
    {
      approach: 'substitution',
      changes: contexts.map(({ change }) => change.index),
      collections,
      step: 7,
      why: `Think ${four.symbol} over ii and V, then ${home.symbol}; go over anywhere within the V.`,
      freeWithin: nth(contexts, 1).change.index
    }
  ];
}

/** The ii held over the V with one note changed: its seventh falls to the third of the V. */
function heldSound(contexts: readonly ChangeContext[]): Chain[] {
  const [two, five] = contexts.map(({ change }) => change.chord) as [Chord, Chord];
  const third = five.notes[five.tones.indexOf('3')];
  const seventh = two.tones.indexOf('b7');
  if (!third || seventh < 0) return [];
  const falls = -semitonesUp(pitchClass(third), pitchClass(nth(two.notes, seventh)));
  const suffix = two.tones.includes('b5') ? 'dim7' : 'm7b5';
  const changed = chordNamed(`${third}${suffix}`);
  if (falls !== -1 || !changed) return [];
  const held = arpeggioOf(changed);
  if (!fitsSymbol(choiceOf('substitution', held, nth(contexts, 1)))) return [];
  return [
    {
      approach: 'substitution',
      changes: contexts.map(({ change }) => change.index),
      collections: [arpeggioOf(two), held],
      step: falls,
      why: `Hold ${two.symbol} over both chords and change one note: its ♭7 falls a semitone to the 3 of ${five.symbol}.`
    }
  ];
}
