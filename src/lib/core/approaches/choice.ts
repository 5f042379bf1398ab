/** A scale choice: a collection that an approach proposes for a change, with its reasons. */
import type { Degree } from '../theory/degree';
import type { NoteName } from '../theory/note';
import { parentOf, scalePitchClasses, type Scale } from '../theory/scale';
import type { ChangeContext } from './context';
import { judge, type Judgement } from './judge';
import { reason } from './reason';

export interface Parent {
  readonly tonic: NoteName;
  readonly scale: string;
  /** Which mode of the parent it is, from 1. */
  readonly degree: number;
}

export interface ScaleChoice extends Judgement {
  readonly approach: string;
  /** With its root, as in JSON: "F dorian". */
  readonly name: string;
  readonly root: NoteName;
  readonly notes: readonly NoteName[];
  readonly parent?: Parent;
  /** A tone to pass over softly: the 13 of a ii minor seventh. */
  readonly softAvoid?: Degree;
  /** One plain sentence. */
  readonly why: string;
}

/** Judges a scale on a change and says why. */
export function choiceOf(approach: string, scale: Scale, context: ChangeContext): ScaleChoice {
  const { chord } = context.change;
  const judgement = judge(chord, scalePitchClasses(scale), { minorGoal: context.minorGoal });
  const parent = parentOf(scale);
  const isTwo =
    context.family === 'minor' && chord.tones.includes('b7') && context.change.function === 'pre-dominant';
  const softAvoid: Degree | undefined = isTwo && judgement.tensions.includes('13') ? '13' : undefined;
  const choice = {
    ...judgement,
    approach,
    name: `${scale.root} ${scale.name}`,
    root: scale.root,
    notes: scale.notes,
    ...(parent ? { parent } : {}),
    ...(softAvoid ? { softAvoid } : {})
  };
  return { ...choice, why: reason(choice, chord) };
}
