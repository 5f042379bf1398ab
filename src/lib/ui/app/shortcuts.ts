/** Every key of the workspace: one table for the handler, the help page and the command palette. */
import { goto } from '$app/navigation';
import { NECK_SYSTEMS } from '$lib/core/neck/systems/registry';
import type { Workspace } from '$lib/state/workspace.svelte';
import { settings } from '$lib/state/settings.svelte';
import type { Shortcut } from '../keys/keys';
import { hear } from './hear';
import { SHEETS } from '../sheets';
import type { View } from '../view';
import { FIRST_VIEW, VIEWS } from '../views';
import type { DialogName } from './Dialogs.svelte';

interface Actions {
  readonly workspace: Workspace;
  readonly toggleEditor: () => void;
  readonly open: (dialog: DialogName) => void;
  /** Prints a sheet by its id. */
  readonly print: (sheet: string) => void;
}

export function workspaceShortcuts({ workspace, toggleEditor, open, print }: Actions): Shortcut[] {
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
  const show = (view: View) => workspace.show(workspace.view === view.id ? FIRST_VIEW : view);
  return [
    single('→', 'Next change', 'ArrowRight', () => workspace.select(workspace.selected + 1)),
    single('←', 'Previous change', 'ArrowLeft', () => workspace.select(workspace.selected - 1)),
    single('Home', 'First change', 'Home', () => workspace.select(0)),
    single('End', 'Last change', 'End', () => workspace.select(workspace.changes.length - 1)),
    single('↑', 'Hand up the neck: a fret, or to the next area of your neck system', 'ArrowUp', () =>
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
    single('0', 'Unpin the target of this change', '0', () => workspace.unpin(workspace.selected)),
    single(
      'J',
      'Hear this: the change and the next on their targets, the choice you rest on, the grip; again to stop',
      'j',
      () => void hear(workspace)
    ),
    single(
      'K',
      'Hear the target line from here; again to stop',
      'k',
      () => void hear(workspace, { kind: 'line' })
    ),
    single('L', 'Labels: degree, name, finger', 'l', () => settings.cycleLabels()),
    single('C', 'To the choices: ↑ ↓ preview, Enter takes, P compares, Esc leaves', 'c', () =>
      document.querySelector<HTMLElement>('[data-choice]')?.focus()
    ),
    single('A', 'Apply the choice to every change like this', 'a', () => {
      const choice = workspace.chosen[workspace.selected];
      if (choice) workspace.choices.takeForAllAlike(choice);
    }),
    single('B', 'Chord table and guide-tone lines', 'b', () => open('table')),
    ...VIEWS.map((view) =>
      single(
        view.key.toUpperCase(),
        view === FIRST_VIEW ? 'Moment: the change of chord' : `${view.name}, or back to the moment`,
        view.key,
        () => show(view)
      )
    ),
    single('W', 'The whole neck, or back to the hand', 'w', () => {
      workspace.show(FIRST_VIEW);
      workspace.neckMode = workspace.neckMode === 'whole' ? 'hand' : 'whole';
    }),
    single('F', 'Find a degree everywhere; again for the next one', 'f', () => {
      workspace.show(FIRST_VIEW);
      workspace.findNext();
    }),
    single('H', 'Back to what lies under the hand', 'h', () => {
      workspace.show(FIRST_VIEW);
      workspace.neckMode = 'hand';
    }),
    single('Y', 'The melody round the hand in every octave, or back', 'y', () => {
      workspace.show(FIRST_VIEW);
      workspace.showMelody();
    }),
    command('Land on the melody: pin the targets to it', () => workspace.landOnMelody()),
    single('O', 'Next neck system', 'o', () => {
      const at = NECK_SYSTEMS.findIndex(({ id }) => id === settings.now.organise);
      const next = NECK_SYSTEMS[(at + 1) % NECK_SYSTEMS.length]!;
      settings.change({ organise: next.id });
      workspace.say(next.title);
    }),
    single('U', 'Tune the guitar', 'u', () => open('tuner')),
    command('Today: what to practise', () => void goto('/today')),
    command('Cards: a two-minute round', () => void goto('/trainer')),
    command('Lick book', () => void goto('/licks')),
    command('Your guitar: tuning, frets, hand', () => open('guitar')),
    command('Earlier versions of this chart', () => open('versions')),
    command(
      'Practice book: every key on an opening of its own',
      () => void goto(`/charts/${workspace.document.id}/book`)
    ),
    command(
      'Worksheet: to be filled in, with its answers',
      () => void goto(`/charts/${workspace.document.id}/book?kind=worksheet`)
    ),
    ...SHEETS.map(({ id, name }) => command(`Print ${name}`, () => print(id))),
    single('R', 'Rules of the target line, or back to the choices', 'r', () => {
      workspace.isRuling = !workspace.isRuling;
    }),
    single('X', 'The next best paths, or hide them', 'x', () => {
      workspace.paths.wantsAlternatives = !workspace.paths.wantsAlternatives;
    }),
    single('V', 'Voice leading: where every chord tone goes', 'v', () => {
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
      run: () => open('find'),
      single: false,
      command: false
    },
    single('?', 'This list', '?', () => open('help'), false)
  ];
}
