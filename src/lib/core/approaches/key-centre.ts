/** The `key-centre` approach, horizontal: the scale of the key of the moment, its pentatonic and its blues scale. */
import type { Key } from '../harmony/key';
import { choiceOf, fitsSymbol, type ScaleChoice } from './choice';
import { scaleNamed, type Collection } from './collection';
import type { ChangeContext } from './context';

/** The scales of a key, the plain one first. */
const SCALES: Readonly<Record<Key['mode'] | 'blues', readonly string[]>> = {
  major: ['major', 'major pentatonic', 'major blues'],
  minor: ['aeolian', 'harmonic minor', 'minor pentatonic', 'minor blues'],
  blues: ['minor blues', 'major blues', 'minor pentatonic', 'major pentatonic', 'mixolydian']
};

function keyCollections({ change, blues }: ChangeContext): Collection[] {
  return SCALES[blues ? 'blues' : change.key.mode].map((name) => scaleNamed(change.key.tonic, name));
}

export function keyCentre(context: ChangeContext): ScaleChoice[] {
  return judgedKeyScales(context).filter(fitsSymbol);
}

/** Every scale of the key on the change, those that deny its symbol among them: what the horizontal choice costs. */
export function judgedKeyScales(context: ChangeContext): ScaleChoice[] {
  return keyCollections(context).map((collection) => choiceOf('key-centre', collection, context));
}
