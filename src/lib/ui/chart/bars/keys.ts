/** The keys of writing on bars, in one table: for the field at the caret, and for the help. */
import type { BarEdits } from '$lib/state/writing/bar-edits.svelte';
import type { FormEdits } from '$lib/state/writing/form-edits';
import type { Writing } from '$lib/state/writing/writing.svelte';
import type { Question } from './questions';

export interface BarKeys {
  readonly writing: Writing;
  readonly bars: BarEdits;
  readonly form: FormEdits;
  /** Asks for a word about the selected bars. */
  readonly ask: (question: Question) => void;
  /** Bars in a row of the page. */
  readonly inRow: () => number;
  /** Over bars and text alike. */
  readonly undo: () => void;
  readonly redo: () => void;
  /** Leaves the bars. */
  readonly leave: () => void;
}

/** What is known of a press beside its key. */
interface Held {
  /** The caret of the field stands at an end of what is typed. */
  readonly isAtStart: boolean;
  readonly isAtEnd: boolean;
}

export interface BarKeyRow {
  readonly id: string;
  readonly keys: string;
  readonly name: string;
  readonly matches: (press: KeyboardEvent, context: BarKeys, held: Held) => boolean;
  readonly run: (context: BarKeys, press: KeyboardEvent) => void;
}

const plain = ({ ctrlKey, metaKey, altKey }: KeyboardEvent) => !ctrlKey && !metaKey && !altKey;
const modified = (press: KeyboardEvent) => (press.ctrlKey || press.metaKey) && !press.altKey;
const key =
  (...names: readonly string[]) =>
  (press: KeyboardEvent) =>
    plain(press) && names.includes(press.key);
const mod = (name: string) => (press: KeyboardEvent) => modified(press) && press.key.toLowerCase() === name;
/** Arrows walk the bars while nothing is being typed. */
const atRest =
  (...names: readonly string[]) =>
  (press: KeyboardEvent, { writing }: BarKeys) =>
    plain(press) && names.includes(press.key) && !writing.isTyping;

/** Letters that begin no chord. */
const letter =
  (name: string) =>
  (press: KeyboardEvent, { writing }: BarKeys) =>
    plain(press) && press.key.toLowerCase() === name && !writing.isTyping && !writing.isBehind;

export const BAR_KEYS: readonly BarKeyRow[] = [
  {
    id: 'bars-take',
    keys: '1 … 8',
    name: 'Take that suggestion, and go on to the next bar',
    matches: (press, { writing }) => plain(press) && /^[1-8]$/.test(press.key) && !writing.isTyping,
    run: ({ writing }, { key: digit }) => writing.take(Number(digit) - 1)
  },
  {
    id: 'bars-walk-suggestions',
    keys: '↓ ↑',
    name: 'While a chord is typed: walk the suggestions; Enter takes one',
    matches: (press, { writing }) =>
      plain(press) && ['ArrowDown', 'ArrowUp'].includes(press.key) && writing.isTyping,
    run: ({ writing }, { key: arrow }) => writing.proposals.walk(arrow === 'ArrowDown' ? 1 : -1)
  },
  {
    id: 'bars-split',
    keys: 'Space',
    name: 'A further chord in the same bar',
    matches: (press, { writing }) => key(' ')(press) && (writing.chord !== undefined || writing.isTyping),
    run: ({ writing }) => writing.split()
  },
  {
    id: 'bars-next-bar',
    keys: 'Enter',
    name: 'To the next bar; behind the last one a new bar',
    matches: (press) => (key('Enter')(press) && !press.shiftKey) || (plain(press) && press.key === '|'),
    run: ({ writing }) => writing.enter()
  },
  {
    id: 'bars-insert',
    keys: 'Shift Enter',
    name: 'A new bar behind this one',
    matches: (press) => key('Enter')(press) && press.shiftKey,
    run: ({ bars }) => bars.insert('after')
  },
  {
    id: 'bars-next-chord',
    keys: 'Tab →',
    name: 'To the next chord or bar; Shift Tab and ← go back',
    matches: (press, { writing }, held) =>
      plain(press) &&
      ((press.key === 'Tab' &&
        !(press.shiftKey && writing.isAtFirst) &&
        !(!press.shiftKey && writing.isBehind)) ||
        (press.key === 'ArrowRight' && !press.shiftKey && (!writing.isTyping || held.isAtEnd)) ||
        (press.key === 'ArrowLeft' && !press.shiftKey && (!writing.isTyping || held.isAtStart))),
    run: ({ writing }, press) =>
      writing.step(press.key === 'ArrowLeft' || (press.key === 'Tab' && press.shiftKey) ? -1 : 1)
  },
  {
    id: 'bars-select',
    keys: 'Shift ← →',
    name: 'Select bars; Shift ↑ ↓ by rows',
    matches: (press, context) =>
      press.shiftKey && atRest('ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown')(press, context),
    run: ({ writing, inRow }, { key: arrow }) =>
      writing.walkBars(
        { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -inRow(), ArrowDown: inRow() }[arrow] ?? 0,
        true
      )
  },
  {
    id: 'bars-rows',
    keys: '↑ ↓',
    name: 'To the bar above or below; Home and End to the first and behind the last',
    matches: atRest('ArrowUp', 'ArrowDown', 'Home', 'End'),
    run: ({ writing, inRow }, { key: arrow }) => {
      const far = writing.bars.length;
      writing.walkBars({ ArrowUp: -inRow(), ArrowDown: inRow(), Home: -far, End: far }[arrow] ?? 0);
    }
  },
  {
    id: 'bars-move',
    keys: 'Alt ← →',
    name: 'Move the chord by a beat, or the selected bars by a bar',
    matches: ({ altKey, key: arrow }) => altKey && ['ArrowLeft', 'ArrowRight'].includes(arrow),
    run: ({ bars }, { key: arrow }) => bars.nudge(arrow === 'ArrowRight' ? 1 : -1)
  },
  {
    id: 'bars-section',
    keys: 'S',
    name: 'A section begins here: its name',
    matches: letter('s'),
    run: ({ ask }) => ask('section')
  },
  {
    id: 'bars-repeat',
    keys: 'R',
    name: 'Repeat the selected bars, or no longer',
    matches: letter('r'),
    run: ({ form }) => form.toggleRepeat()
  },
  {
    id: 'bars-endings',
    keys: '[ ]',
    name: 'The selected bars are the first ending; the second one begins here',
    matches: (press, { writing }) => ['[', ']'].includes(press.key) && !writing.isTyping && !writing.isBehind,
    run: ({ form }, { key: sign }) => form.setEnding(sign === '[' ? [1] : [2])
  },
  {
    id: 'bars-meter',
    keys: 'M',
    name: 'Another meter for the selected bars',
    matches: letter('m'),
    run: ({ ask }) => ask('meter')
  },
  {
    id: 'bars-note',
    keys: 'O',
    name: 'A note to this bar',
    matches: letter('o'),
    run: ({ ask }) => ask('note')
  },
  {
    id: 'bars-erase',
    keys: 'Del',
    name: 'Delete the chord; in an empty bar, or over several, the bars',
    matches: (press, { writing }) =>
      plain(press) &&
      ['Delete', 'Backspace'].includes(press.key) &&
      (!writing.isTyping || writing.text === ''),
    run: ({ writing, bars }) => {
      writing.settle();
      bars.erase();
    }
  },
  {
    id: 'bars-all',
    keys: 'Ctrl A',
    name: 'Select all bars',
    matches: (press, { writing }) => mod('a')(press) && !writing.isTyping,
    run: ({ writing }) => writing.selectAll()
  },
  {
    id: 'bars-copy',
    keys: 'Ctrl C',
    name: 'Copy the selected bars; Ctrl X cuts, Ctrl V pastes them',
    // The field hears of it from the clipboard, so that bars go to other programs and come from there.
    matches: () => false,
    run: () => undefined
  },
  {
    id: 'bars-duplicate',
    keys: 'Ctrl D',
    name: 'The selected bars once more',
    matches: mod('d'),
    run: ({ bars }) => bars.duplicate()
  },
  {
    id: 'bars-undo',
    keys: 'Ctrl Z',
    name: 'Undo, what is being typed too; Ctrl Shift Z does it again',
    matches: (press) => modified(press) && ['z', 'y'].includes(press.key.toLowerCase()),
    run: ({ writing, undo, redo }, press) => {
      writing.settle();
      if (press.shiftKey || press.key.toLowerCase() === 'y') redo();
      else undo();
    }
  },
  {
    id: 'bars-leave',
    keys: 'Esc',
    name: 'Take back what is typed; else leave the bars',
    matches: key('Escape'),
    run: ({ writing, leave }) => {
      if (!writing.cancel()) leave();
    }
  }
];
