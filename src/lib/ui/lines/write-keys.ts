/** The keys of writing: one table, laid while the pen is out. */
import { TECHNIQUES, WRITTEN_LENGTHS, type Technique } from '$lib/core/line/edit';
import type { Pen } from '$lib/state/pen.svelte';
import type { Shortcut } from '../keys/keys';

/** A technique's key and name on the pad. */
export const TECHNIQUE_KEYS: Readonly<
  Record<Technique, { readonly key: string; readonly name: string; readonly hint: string }>
> = {
  slide: { key: '/', name: 'slide', hint: 'Slid into from the note before (/)' },
  slur: { key: '-', name: 'slur', hint: 'Hammered on or pulled off from the note before (-)' },
  vibrato: { key: 'v', name: 'vibrato', hint: 'Vibrato (V)' },
  ghost: { key: 'g', name: 'ghost', hint: 'Touched rather than struck (G)' },
  tie: { key: '=', name: 'tie', hint: 'Held on from the note before (=)' }
};

export function writeKeys(pen: Pen): Shortcut[] {
  const key = (keys: string, name: string, presses: readonly string[], run: Shortcut['run']): Shortcut => ({
    keys,
    name: `Writing: ${name}`,
    presses,
    run,
    single: false,
    command: false
  });
  return [
    key('Esc', 'stop editing', ['Escape'], () => pen.stop()),
    key('0 … 9', 'the fret at the caret; two digits quickly are one', ['([0-9])'], (event) =>
      pen.digit(Number(event?.key))
    ),
    key('← →', 'the caret in time', ['ArrowLeft', 'ArrowRight'], (event) =>
      pen.step(event?.key === 'ArrowLeft' ? -1 : 1)
    ),
    key('Shift ← →', 'select', ['Shift+ArrowLeft', 'Shift+ArrowRight'], (event) =>
      pen.step(event?.key === 'ArrowLeft' ? -1 : 1, true)
    ),
    key('Ctrl ← →', 'the caret by bars', ['$mod+ArrowLeft', '$mod+ArrowRight'], (event) =>
      pen.leap(event?.key === 'ArrowLeft' ? -1 : 1)
    ),
    key('↑ ↓', 'the caret from string to string', ['ArrowUp', 'ArrowDown'], (event) =>
      pen.cross(event?.key === 'ArrowUp' ? -1 : 1)
    ),
    key('Ctrl ↑ ↓', 'a semitone up or down', ['$mod+ArrowUp', '$mod+ArrowDown'], (event) =>
      pen.transpose(event?.key === 'ArrowUp' ? 1 : -1)
    ),
    key('Ctrl Shift ↑ ↓', 'an octave up or down', ['$mod+Shift+ArrowUp', '$mod+Shift+ArrowDown'], (event) =>
      pen.transpose(event?.key === 'ArrowUp' ? 12 : -12)
    ),
    ...WRITTEN_LENGTHS.map(({ letter, value, name }) =>
      key(letter.toUpperCase(), `${name} notes`, [letter], () => pen.setLength({ value }))
    ),
    key('.', 'dotted, or not', ['.'], () => pen.setLength({ isDotted: !pen.length.isDotted })),
    key('T', 'triplets, or not', ['t'], () => pen.setLength({ isTriplet: !pen.length.isTriplet })),
    key('Enter R', 'go on: a rest where nothing is', ['Enter', 'r'], () => pen.step(1)),
    key('Delete', 'delete', ['Backspace', 'Delete'], () => pen.erase()),
    key('B', 'bend: half, whole, release, none', ['b'], () => pen.bend()),
    ...TECHNIQUES.map((technique) => {
      const { key: press, name } = TECHNIQUE_KEYS[technique];
      return key(press.toUpperCase(), name, [press], () => pen.technique(technique));
    }),
    key('X', 'split the note in two', ['x'], () => pen.split()),
    key('J', 'join what is selected', ['j'], () => pen.join()),
    key('D', 'repeat what is selected, or the bar', ['d'], () => pen.repeat()),
    key('Ctrl A', 'select all', ['$mod+a'], () => pen.selectAll()),
    key('Ctrl C', 'copy what is selected, or the bar', ['$mod+c'], () => pen.copy()),
    key('Ctrl X', 'cut', ['$mod+x'], () => pen.cut()),
    key('Ctrl V', 'paste', ['$mod+v'], () => pen.paste())
  ];
}
