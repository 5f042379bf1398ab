/** Every key of the workspace: one table for the handler, the help page and the command palette. */
import { ORGANISATIONS } from '$lib/core/neck/area';
import type { View, Workspace } from '$lib/state/workspace.svelte';
import { settings } from '$lib/state/settings.svelte';
import type { Shortcut } from '../keys/keys';

interface Actions {
  readonly workspace: Workspace;
  readonly toggleEditor: () => void;
  readonly openHelp: () => void;
  readonly openPalette: () => void;
  readonly openTable: () => void;
  readonly openGuitar: () => void;
  readonly printMap: () => void;
  readonly printLanding: () => void;
  readonly saveMap: (format: 'svg' | 'png') => void;
}

export function workspaceShortcuts({
  workspace,
  toggleEditor,
  openHelp,
  openPalette,
  openTable,
  openGuitar,
  printMap,
  printLanding,
  saveMap
}: Actions): Shortcut[] {
  const single = (
    keys: string,
    name: string,
    press: string,
    run: Shortcut['run'],
    command = true
  ): Shortcut => ({ keys, name, presses: [`[Shift]+${press}`], run, single: true, command });
  /** Only in the palette. */
  const command = (name: string, run: Shortcut['run']): Shortcut => ({
    keys: '',
    name,
    presses: [],
    run,
    single: false,
    command: true
  });
  const show = (view: View) => workspace.show(workspace.view === view ? 'moment' : view);
  return [
    single('→', 'Next change', 'ArrowRight', () => workspace.select(workspace.selected + 1)),
    single('←', 'Previous change', 'ArrowLeft', () => workspace.select(workspace.selected - 1)),
    single('Home', 'First change', 'Home', () => workspace.select(0)),
    single('End', 'Last change', 'End', () => workspace.select(workspace.changes.length - 1)),
    single('↑', 'Hand up the neck: a fret, or to the next area of your school', 'ArrowUp', () =>
      workspace.step(1)
    ),
    single('↓', 'Hand down the neck', 'ArrowDown', () => workspace.step(-1)),
    {
      keys: '1 3 5 7',
      name: 'Aim at that degree of the chord; again for its next octave (2, 4, 6 for 9, 11, 13 or 6 of the chord)',
      presses: ['([1-7])'],
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
    single('M', 'Position map, or back', 'm', () => show('map')),
    single('G', 'Grips, or back', 'g', () => show('grips')),
    single('P', 'Rehearse with the band, or back; there Space plays and stops', 'p', () => show('rehearse')),
    single('W', 'The whole neck, or back to the hand', 'w', () => {
      workspace.show('moment');
      workspace.neckMode = workspace.neckMode === 'whole' ? 'hand' : 'whole';
    }),
    single('F', 'Find a degree everywhere; again for the next one', 'f', () => {
      workspace.show('moment');
      workspace.findNext();
    }),
    single('H', 'Back to what lies under the hand', 'h', () => {
      workspace.show('moment');
      workspace.neckMode = 'hand';
    }),
    single('O', 'Next school of organising the neck', 'o', () => {
      const at = ORGANISATIONS.findIndex(({ id }) => id === settings.now.organise);
      const next = ORGANISATIONS[(at + 1) % ORGANISATIONS.length]!;
      settings.change({ organise: next.id });
      workspace.announcement = next.name;
    }),
    command('Your guitar: tuning, frets, hand', openGuitar),
    command('Print the position map', printMap),
    command('Print the landing sheet', printLanding),
    command('Save the position map as SVG', () => saveMap('svg')),
    command('Save the position map as PNG', () => saveMap('png')),
    single('R', 'Rules of the path, or back to the choices', 'r', () => {
      workspace.isRuling = !workspace.isRuling;
    }),
    single('X', 'The next best paths, or none of them', 'x', () => {
      workspace.wantsAlternatives = !workspace.wantsAlternatives;
    }),
    single('V', 'Lanes: where every voice goes', 'v', () => {
      workspace.showsLanes = !workspace.showsLanes;
    }),
    single('N', 'Naming: modal or parent', 'n', () =>
      settings.change({ naming: settings.now.naming === 'modal' ? 'parent' : 'modal' })
    ),
    single('E', 'Open or close the chart editor', 'e', toggleEditor),
    single('T', 'Day or Stage theme', 't', () => settings.toggleTheme()),
    {
      keys: 'Ctrl Z',
      name: 'Undo',
      presses: ['$mod+z'],
      run: () => workspace.undo(),
      single: false,
      command: true
    },
    {
      keys: 'Ctrl Shift Z',
      name: 'Redo',
      presses: ['$mod+Shift+z', '$mod+y'],
      run: () => workspace.redo(),
      single: false,
      command: true
    },
    {
      keys: 'Ctrl K',
      name: 'Find a chart or a command',
      presses: ['$mod+k'],
      run: openPalette,
      single: false,
      command: false
    },
    single('?', 'This list', '?', openHelp, false)
  ];
}
