/** The keys of a line, and those of writing, laid while it is edited. */
import { TECHNIQUES, WRITTEN_LENGTHS, type Technique } from '$lib/core/line/edit';
import type { Pen } from '$lib/state/lines/pen.svelte';
import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
import type { KeyRow } from '../keys/keys';

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

/** What the keys of the view act on. */
export interface LineKeys {
  readonly pen: Pen;
  readonly rehearsal: Rehearsal;
}

export const LINE_KEYS: readonly KeyRow<LineKeys>[] = [
  {
    id: 'line-edit',
    keys: 'N',
    name: 'Edit the line, or stop editing',
    presses: ['n'],
    run: ({ pen }) => (pen.isWriting ? pen.stop() : pen.start()),
    command: true
  },
  {
    id: 'line-play',
    keys: 'Space',
    name: 'Play the line with the band, or stop',
    presses: ['Space'],
    run: ({ rehearsal }) => rehearsal.transport.toggle(),
    single: false
  }
];

const key = (
  id: string,
  keys: string,
  name: string,
  presses: readonly string[],
  run: KeyRow<Pen>['run']
): KeyRow<Pen> => ({
  id,
  keys,
  name: name.charAt(0).toUpperCase() + name.slice(1),
  presses,
  run,
  single: false
});

export const PEN_KEYS: readonly KeyRow<Pen>[] = [
  key('pen-stop', 'Esc', 'stop editing', ['Escape'], (pen) => pen.stop()),
  key('pen-fret', '0 … 9', 'the fret at the caret; two digits quickly are one', ['([0-9])'], (pen, event) =>
    pen.digit(Number(event?.key))
  ),
  key('pen-caret', '← →', 'the caret in time', ['ArrowLeft', 'ArrowRight'], (pen, event) =>
    pen.step(event?.key === 'ArrowLeft' ? -1 : 1)
  ),
  key('pen-select', 'Shift ← →', 'select', ['Shift+ArrowLeft', 'Shift+ArrowRight'], (pen, event) =>
    pen.step(event?.key === 'ArrowLeft' ? -1 : 1, true)
  ),
  key('pen-bars', 'Ctrl ← →', 'the caret by bars', ['$mod+ArrowLeft', '$mod+ArrowRight'], (pen, event) =>
    pen.leap(event?.key === 'ArrowLeft' ? -1 : 1)
  ),
  key('pen-string', '↑ ↓', 'the caret from string to string', ['ArrowUp', 'ArrowDown'], (pen, event) =>
    pen.cross(event?.key === 'ArrowUp' ? -1 : 1)
  ),
  key('pen-semitone', 'Ctrl ↑ ↓', 'a semitone up or down', ['$mod+ArrowUp', '$mod+ArrowDown'], (pen, event) =>
    pen.passage.transpose(event?.key === 'ArrowUp' ? 1 : -1)
  ),
  key(
    'pen-octave',
    'Ctrl Shift ↑ ↓',
    'an octave up or down',
    ['$mod+Shift+ArrowUp', '$mod+Shift+ArrowDown'],
    (pen, event) => pen.passage.transpose(event?.key === 'ArrowUp' ? 12 : -12)
  ),
  ...WRITTEN_LENGTHS.map(({ letter, value, name }) =>
    key(`pen-length-${letter}`, letter.toUpperCase(), `${name} notes`, [letter], (pen) =>
      pen.setLength({ value })
    )
  ),
  key('pen-dotted', '.', 'dotted, or not', ['.'], (pen) => pen.setLength({ isDotted: !pen.length.isDotted })),
  key('pen-triplets', 'T', 'triplets, or not', ['t'], (pen) =>
    pen.setLength({ isTriplet: !pen.length.isTriplet })
  ),
  key('pen-on', 'Enter R', 'go on: a rest where nothing is', ['Enter', 'r'], (pen) => pen.step(1)),
  key('pen-delete', 'Delete', 'delete', ['Backspace', 'Delete'], (pen) => pen.erase()),
  key('pen-bend', 'B', 'bend: half, whole, release, none', ['b'], (pen) => pen.bend()),
  ...TECHNIQUES.map((technique) => {
    const { key: press, name } = TECHNIQUE_KEYS[technique];
    return key(`pen-${technique}`, press.toUpperCase(), name, [press], (pen) => pen.technique(technique));
  }),
  key('pen-split', 'X', 'split the note in two', ['x'], (pen) => pen.split()),
  key('pen-join', 'J', 'join what is selected', ['j'], (pen) => pen.passage.join()),
  key('pen-repeat', 'D', 'repeat what is selected, or the bar', ['d'], (pen) => pen.passage.repeat()),
  key('pen-all', 'Ctrl A', 'select all', ['$mod+a'], (pen) => pen.selectAll()),
  key('pen-copy', 'Ctrl C', 'copy what is selected, or the bar', ['$mod+c'], (pen) => pen.passage.copy()),
  key('pen-cut', 'Ctrl X', 'cut', ['$mod+x'], (pen) => pen.passage.cut()),
  key('pen-paste', 'Ctrl V', 'paste', ['$mod+v'], (pen) => pen.passage.paste())
];
