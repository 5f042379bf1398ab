/** Short lines that cards show and sound: one that outlines a chord, two that do not, and a phrase to be sung. */
import { nth, sure } from '../../base/list';
import type { Midi } from '../../base/units';
import { readKey } from '../../harmony/key';
import type { Chord } from '../../theory/chord';
import { DEGREES, degreeOf, type Degree } from '../../theory/degree';
import { MODES } from '../../theory/mode';
import { pitchClass, semitonesUp, spell, type NoteName } from '../../theory/note';
import { scaleOf } from '../../theory/scale';

/** The tone of a chord in a slot (its third, whatever its quality); its root where it has none. */
function tone({ tones, notes, root }: Chord, slot: '1' | '3' | '5' | '7'): NoteName {
  const at = tones.findIndex((degree) => DEGREES[degree].slot === slot);
  return notes[at] ?? root;
}

function keyScale(key: string): readonly NoteName[] {
  const read = readKey(key);
  return (
    (read && scaleOf(read.tonic, MODES[read.mode].scale)?.notes) ??
    sure(scaleOf('C', 'major'), 'scaleOf').notes
  );
}

/**
 * Eight eighths each, the right one first: thirds and sevenths on beats; the chord's root, fifth and ninth alone; the key's
 * seventh chord a step higher.
 */
export const LINES: readonly ((chord: Chord, key: string) => readonly NoteName[])[] = [
  (chord) => {
    const [one, three, five, seven] = (['1', '3', '5', '7'] as const).map((slot) => tone(chord, slot)) as [
      NoteName,
      NoteName,
      NoteName,
      NoteName
    ];
    return [three, five, seven, one, three, one, seven, five];
  },
  (chord) => {
    const [one, five] = [tone(chord, '1'), tone(chord, '5')];
    const nine = spell(chord.root, '9');
    return [one, nine, five, one, nine, five, one, nine];
  },
  (chord, key) => {
    const scale = keyScale(key);
    const up = (name: NoteName) => (pitchClass(name) - chord.rootPc + 12) % 12;
    // The key's own seventh chord on the next step up: a neighbour, and another chord.
    const from = scale.reduce((near, name, i) => {
      const [own, best] = [up(name), up(nth(scale, near))];
      return own > 0 && (best === 0 || own < best) ? i : near;
    }, 0);
    const stacked = [0, 2, 4, 6].map((third) => nth(scale, (from + third) % scale.length));
    return [0, 1, 2, 3, 2, 1, 0, 3].map((i) => nth(stacked, i));
  }
];

/** The lowest note that a phrase may have: it is sung, and lies on the middle strings. */
const LOWEST = 55;
/** Phrases by their steps: the place of a tone among the chord's, thirds first. */
const SHAPES = [
  ['3', '5', '3', '1'],
  ['5', '3', '1', '3'],
  ['1', '3', '5', '3'],
  ['3', '1', '5', '3']
] as const;

/** Three notes of a chord as MIDI numbers, close together: the same for the same chord. */
export function phraseOf(chord: Chord): readonly number[] {
  const shape = nth(SHAPES, chord.rootPc % SHAPES.length);
  let before: number | null = null;
  return shape.map((slot) => {
    const pc = pitchClass(tone(chord, slot));
    const low = LOWEST + ((pc - LOWEST + 120) % 12);
    const near: number =
      before === null || Math.abs(low - before) <= 6 ? low : low > before ? low - 12 : low + 12;
    before = near < LOWEST ? near + 12 : near;
    return before;
  });
}

/** A MIDI number as it is written over a chord. */
export function lineOver({ root, rootPc, tones }: Chord, midi: Midi): NoteName {
  const degree: Degree = degreeOf(semitonesUp(rootPc, midi % 12), tones);
  return spell(root, degree);
}
