/** Every key of the workspace: one table for the handler, the help page and the command palette. */
import type { Workspace } from '$lib/state/workspace.svelte';
import { settings } from '$lib/state/settings.svelte';

export interface Shortcut {
  /** As shown: "→", "1 3 5 7", "Ctrl Z". */
  readonly keys: string;
  readonly name: string;
  /** Whether a key press is this shortcut. */
  readonly matches: (event: KeyboardEvent) => boolean;
  readonly run: (event: KeyboardEvent | null) => void;
  /** Acts without a modifier, and so only while single keys are switched on. */
  readonly single: boolean;
  /** Offered in the command palette. */
  readonly command: boolean;
}

interface Actions {
  readonly workspace: Workspace;
  readonly toggleEditor: () => void;
  readonly openHelp: () => void;
  readonly openPalette: () => void;
  readonly openTable: () => void;
}

const plain = (event: KeyboardEvent) => !event.ctrlKey && !event.metaKey && !event.altKey;
const withControl = (event: KeyboardEvent) => (event.ctrlKey || event.metaKey) && !event.altKey;

export function workspaceShortcuts({
  workspace,
  toggleEditor,
  openHelp,
  openPalette,
  openTable
}: Actions): Shortcut[] {
  const single = (
    keys: string,
    name: string,
    key: string,
    run: Shortcut['run'],
    command = true
  ): Shortcut => ({
    keys,
    name,
    matches: (event) => plain(event) && event.key.toLowerCase() === key.toLowerCase(),
    run,
    single: true,
    command
  });
  return [
    single('→', 'Next change', 'ArrowRight', () => workspace.select(workspace.selected + 1)),
    single('←', 'Previous change', 'ArrowLeft', () => workspace.select(workspace.selected - 1)),
    single('Home', 'First change', 'Home', () => workspace.select(0)),
    single('End', 'Last change', 'End', () => workspace.select(workspace.changes.length - 1)),
    single('↑', 'Hand one fret up the neck', 'ArrowUp', () => workspace.moveTo(workspace.plan.position + 1)),
    single('↓', 'Hand one fret down the neck', 'ArrowDown', () =>
      workspace.moveTo(workspace.plan.position - 1)
    ),
    {
      keys: '1 3 5 7',
      name: 'Aim at that degree of the chord; again for its next octave (2, 4, 6 for 9, 11, 13 or 6 of the chord)',
      matches: (event) => plain(event) && /^[1-7]$/.test(event.key),
      run: (event) => event && workspace.aim(event.key),
      single: true,
      command: false
    },
    single('0', 'Release the target of this change', '0', () => workspace.release(workspace.selected)),
    single('L', 'Labels: degree, name, finger', 'l', () => settings.cycleLabels()),
    single('C', 'To the choices: ↑ ↓ preview, Enter takes, P compares, Esc leaves', 'c', () =>
      document.querySelector<HTMLElement>('[data-choice]')?.focus()
    ),
    single('A', 'Apply the choice to every change like this', 'a', () => {
      const choice = workspace.chosen[workspace.selected];
      if (choice) workspace.takeForAllAlike(choice);
    }),
    single('B', 'Chord table and guide-tone lines', 'b', openTable),
    single('N', 'Naming: modal or parent', 'n', () =>
      settings.change({ naming: settings.now.naming === 'modal' ? 'parent' : 'modal' })
    ),
    single('E', 'Open or close the chart editor', 'e', toggleEditor),
    single('T', 'Day or Stage theme', 't', () => settings.toggleTheme()),
    {
      keys: 'Ctrl Z',
      name: 'Undo',
      matches: (event) => withControl(event) && !event.shiftKey && event.key.toLowerCase() === 'z',
      run: () => workspace.undo(),
      single: false,
      command: true
    },
    {
      keys: 'Ctrl Shift Z',
      name: 'Redo',
      matches: (event) =>
        withControl(event) &&
        ((event.shiftKey && event.key.toLowerCase() === 'z') || event.key.toLowerCase() === 'y'),
      run: () => workspace.redo(),
      single: false,
      command: true
    },
    {
      keys: 'Ctrl K',
      name: 'Find a chart or a command',
      matches: (event) => withControl(event) && event.key.toLowerCase() === 'k',
      run: openPalette,
      single: false,
      command: false
    },
    single('?', 'This list', '?', openHelp, false)
  ];
}

/** Typing into a field is not a command. */
export function isTyping(event: KeyboardEvent): boolean {
  const at = event.target instanceof Element ? event.target : null;
  return !!at?.closest('input, textarea, select, [contenteditable="true"], [role="dialog"]');
}
