/** Every key of a chart, in one table: for the handler, the help, the command palette and the player's own keys. */
import { goto } from '$app/navigation';
import { nth } from '$lib/core/base/list';
import { NECK_SYSTEMS } from '$lib/core/neck/systems/registry';
import type { Workspace } from '$lib/state/chart/workspace.svelte';
import { settings } from '$lib/state/settings.svelte';
import type { KeyRow } from '../keys/keys';
import { hear } from './hear';
import { SHEETS } from '../sheets';
import type { View } from '../view';
import { FIRST_VIEW, VIEWS } from '../views';
import type { DialogName } from './dialogs';

/** What the keys of a chart act on. */
export interface ChartKeys {
  readonly workspace: Workspace;
  readonly toggleEditor: () => void;
  readonly open: (dialog: DialogName) => void;
  /** Prints a sheet by its id. */
  readonly print: (sheet: string) => void;
}
type Row = KeyRow<ChartKeys>;

const LABELS = { degree: 'degrees', name: 'names', finger: 'fingers' } as const;

const single = (id: string, keys: string, name: string, press: string, run: Row['run']): Row => ({
  id,
  keys,
  name,
  presses: [`[Shift]+${press}`],
  run,
  command: true
});
/** Only in the palette. */
const command = (id: string, name: string, run: Row['run']): Row => ({
  id,
  keys: '',
  name,
  presses: [],
  run,
  single: false,
  command: true
});
const show = (workspace: Workspace, view: View) =>
  workspace.show(workspace.view === view.id ? FIRST_VIEW : view);

export const CHART_KEYS: readonly Row[] = [
  single('next-change', '→', 'Next change', 'ArrowRight', ({ workspace }) =>
    workspace.select(workspace.selected + 1)
  ),
  single('previous-change', '←', 'Previous change', 'ArrowLeft', ({ workspace }) =>
    workspace.select(workspace.selected - 1)
  ),
  single('first-change', 'Home', 'First change', 'Home', ({ workspace }) => workspace.select(0)),
  single('last-change', 'End', 'Last change', 'End', ({ workspace }) =>
    workspace.select(workspace.changes.length - 1)
  ),
  single(
    'hand-up',
    '↑',
    'Hand up the neck: a fret, or to the next area of your neck system',
    'ArrowUp',
    ({ workspace }) => workspace.hand.step(1)
  ),
  single('hand-down', '↓', 'Hand down the neck', 'ArrowDown', ({ workspace }) => workspace.hand.step(-1)),
  {
    id: 'aim',
    keys: '1 3 5 7',
    name: 'Aim at that degree of the chord: first where it lies, again for its next octave (2, 4, 6 for 9, 11, 13 or 6 of the chord)',
    presses: ['([1-7])'],
    run: ({ workspace }, event) => event && workspace.targetLine.aim(event.key)
  },
  single('unpin', '0', 'Unpin the target of this change', '0', ({ workspace }) =>
    workspace.targetLine.unpin(workspace.selected)
  ),
  single(
    'hear',
    'J',
    'Hear this: the change and the next on their targets, the choice you rest on, the grip; again to stop',
    'j',
    ({ workspace }) => void hear(workspace)
  ),
  single(
    'hear-line',
    'K',
    'Hear the target line from here; again to stop',
    'k',
    ({ workspace }) => void hear(workspace, { kind: 'line' })
  ),
  single('labels', 'L', 'Labels: degree, name, finger', 'l', ({ workspace }) => {
    settings.cycleLabels();
    workspace.say(`Notes show ${LABELS[settings.now.labels]}`);
  }),
  single('choices', 'C', 'To the choices: ↑ ↓ preview, Enter takes, P compares, Esc leaves', 'c', () =>
    document.querySelector<HTMLElement>('[data-choice]')?.focus()
  ),
  single('apply', 'A', 'Apply the choice to every change like this', 'a', ({ workspace }) => {
    const choice = workspace.chosen[workspace.selected];
    if (choice) workspace.choices.takeForAllAlike(choice);
  }),
  single('table', 'B', 'Chord table and guide-tone lines', 'b', ({ open }) => open('table')),
  ...VIEWS.map((view) =>
    single(
      `view-${view.id}`,
      view.key.toUpperCase(),
      view === FIRST_VIEW ? 'Moment: the change of chord' : `${view.name}, or back to the moment`,
      view.key,
      ({ workspace }) => show(workspace, view)
    )
  ),
  single('whole-neck', 'W', 'The whole neck, or back to the hand', 'w', ({ workspace }) => {
    workspace.show(FIRST_VIEW);
    workspace.shownNeck.mode = workspace.shownNeck.mode === 'whole' ? 'hand' : 'whole';
  }),
  single('find-degree', 'F', 'Find a degree everywhere; again for the next one', 'f', ({ workspace }) => {
    workspace.show(FIRST_VIEW);
    workspace.shownNeck.findNext();
  }),
  single('under-hand', 'H', 'Back to what lies under the hand', 'h', ({ workspace }) => {
    workspace.show(FIRST_VIEW);
    workspace.shownNeck.mode = 'hand';
  }),
  single('melody', 'Y', 'The melody round the hand in every octave, or back', 'y', ({ workspace }) => {
    workspace.show(FIRST_VIEW);
    workspace.shownNeck.showMelody();
  }),
  command('land-melody', 'Land on the melody: pin the targets to it', ({ workspace }) =>
    workspace.targetLine.landOnMelody()
  ),
  single('neck-system', 'O', 'Next neck system', 'o', ({ workspace }) => {
    const at = NECK_SYSTEMS.findIndex(({ id }) => id === settings.now.organise);
    const next = nth(NECK_SYSTEMS, (at + 1) % NECK_SYSTEMS.length);
    settings.change({ organise: next.id });
    workspace.say(next.title);
  }),
  single('tune', 'U', 'Tune the guitar', 'u', ({ open }) => open('tuner')),
  command('guitar', 'Your guitar: tuning, frets, hand', ({ open }) => open('guitar')),
  command('compare', 'Compare with another chart, bar by bar', ({ open }) => open('compare')),
  command('versions', 'Earlier versions of this chart', ({ open }) => open('versions')),
  command(
    'book',
    'Practice book: every key on an opening of its own',
    ({ workspace }) => void goto(`/charts/${workspace.document.id}/book`)
  ),
  command(
    'worksheet',
    'Worksheet: to be filled in, with its answers',
    ({ workspace }) => void goto(`/charts/${workspace.document.id}/book?kind=worksheet`)
  ),
  ...SHEETS.map(({ id, name }) => command(`print-${id}`, `Print ${name}`, ({ print }) => print(id))),
  single('rules', 'R', 'Rules of the target line, or back to the choices', 'r', ({ workspace }) => {
    workspace.isRuling = !workspace.isRuling;
    workspace.say(workspace.isRuling ? 'Rules of the target line' : 'Choices');
  }),
  single('alternatives', 'X', 'The next best paths, or hide them', 'x', ({ workspace }) => {
    workspace.paths.wantsAlternatives = !workspace.paths.wantsAlternatives;
    workspace.say(
      workspace.paths.wantsAlternatives ? 'The next best paths are shown' : 'The next best paths are hidden'
    );
  }),
  single('voice-leading', 'V', 'Voice leading: where every chord tone goes', 'v', ({ workspace }) => {
    workspace.showsLanes = !workspace.showsLanes;
    workspace.say(workspace.showsLanes ? 'Voice leading is shown' : 'Voice leading is hidden');
  }),
  single('naming', 'N', 'Naming: modal or parent', 'n', ({ workspace }) => {
    settings.change({ naming: settings.now.naming === 'modal' ? 'parent' : 'modal' });
    workspace.say(settings.now.naming === 'modal' ? 'Modes by their own name' : 'Modes by their parent');
  }),
  single('editor', 'E', 'Open or close the chart editor', 'e', ({ toggleEditor }) => toggleEditor()),
  {
    id: 'undo',
    keys: 'Ctrl Z',
    name: 'Undo',
    presses: ['$mod+z'],
    run: ({ workspace }) => workspace.undo(),
    single: false,
    command: true
  },
  {
    id: 'redo',
    keys: 'Ctrl Shift Z',
    name: 'Redo',
    presses: ['$mod+Shift+z', '$mod+y'],
    run: ({ workspace }) => workspace.redo(),
    single: false,
    command: true
  }
];
