<!-- What is done with a line now and then: its name, moved elsewhere, its motif repeated, files, deleted. -->
<script lang="ts">
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { toast } from 'svelte-sonner';
  import { acceptOf } from '$lib/core/formats/facts';
  import * as VOICES from '$lib/core/formats/piece';
  import { MOTIF_OPERATIONS } from '$lib/core/line/operations';
  import type { LineNote } from '$lib/core/line/model';
  import { readLine } from '$lib/core/line/read';
  import { spelledOver } from '$lib/core/line/spelling';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { Lines } from '$lib/state/lines/lines.svelte';
  import { moveLine, moveToStrings, repeatMotif } from '$lib/state/lines/moves';
  import { settings } from '$lib/state/settings.svelte';
  import { saveFile } from '../export/file';
  import { LINE_FORMATS } from '../exports';
  import Button from '../kit/Button.svelte';
  import PopoverButton from '../kit/PopoverButton.svelte';
  import MenuSelect from './MenuSelect.svelte';

  let { workspace, lines }: { workspace: Workspace; lines: Lines } = $props();

  const MOVES = [
    { value: 'octave up', name: 'an octave up', semitones: 12, where: 'along' },
    { value: 'octave down', name: 'an octave down', semitones: -12, where: 'along' },
    { value: 'octave up here', name: 'an octave up, in any place', semitones: 12, where: 'every octave' },
    { value: 'octave down here', name: 'an octave down, in any place', semitones: -12, where: 'every octave' }
  ] as const;
  const positions = $derived(
    Array.from(
      { length: Math.floor((workspace.neck.frets - 4) / 2) },
      (_, i) => workspace.neck.capo + 1 + 2 * i
    )
  );
  /** Neighbouring strings, three at a time. */
  const stringSets = $derived(
    Array.from({ length: Math.max(0, workspace.neck.strings.length - 2) }, (_, i) => [i + 1, i + 2, i + 3])
  );
  const moves = $derived([
    ...MOVES.map(({ value, name }) => ({ value: value as string, name: name as string })),
    ...positions.map((position) => ({ value: `position ${position}`, name: `into position ${position}` })),
    ...stringSets.map((strings) => ({
      value: `strings ${strings.join(' ')}`,
      name: `on strings ${strings.join(' ')}, along the neck`
    }))
  ]);
  type Carry = Omit<Parameters<typeof repeatMotif>[1], 'subdivision'> & {
    value: string;
    name: string;
    hint?: string;
  };
  const CARRIES: readonly Carry[] = [
    { value: 'led 1', name: 'this bar, led to the chords', bars: 1, how: 'led' },
    { value: 'led 2', name: 'this bar and the next, led', bars: 2, how: 'led' },
    { value: 'shifted 1', name: 'this bar, shifted exactly', bars: 1, how: 'shifted' },
    { value: 'shifted 2', name: 'this bar and the next, shifted', bars: 2, how: 'shifted' },
    ...MOTIF_OPERATIONS.filter(({ id }) => id !== 'repeat').map(({ id, name, hint }) => ({
      value: id,
      name: `this bar, then ${name}`,
      hint: `${hint}, and again as it is`,
      bars: 1,
      how: 'led' as const,
      operations: [id, 'repeat'] as const
    }))
  ];

  function move(value: string) {
    const known = MOVES.find((one) => one.value === value);
    if (known) moveLine(lines, known);
    else if (value.startsWith('strings')) moveToStrings(lines, value.split(' ').slice(1).map(Number));
    else moveLine(lines, { where: 'in place', position: Number(value.replace('position ', '')) });
  }

  let input: HTMLInputElement | undefined = $state();
  const IMPORT = 'import';
  const files = [
    ...LINE_FORMATS.map(({ id, name, hint }) => ({ value: id, name: `save as ${name}`, hint })),
    { value: IMPORT, name: 'import lines from a file', hint: 'MusicXML, MIDI, tab or CSV' }
  ];
  /** Names by the chord of their moment, as on the staff. */
  function spelled(notes: readonly LineNote[]) {
    const { sheet, analysis, chosen } = workspace;
    const ground = { form: sheet.form, analysis, chosen };
    return spelledOver(notes, readLine({ meter: sheet.head.meter, notes }, ground).notes, ground);
  }
  async function file(value: string) {
    if (value === IMPORT) return input?.click();
    const format = LINE_FORMATS.find(({ id }) => id === value);
    const { shown } = lines.current;
    if (!format || !shown) return;
    const { document, sheet, neck, melody } = workspace;
    const voices = [
      lines.current.isMelody
        ? { name: VOICES.MELODY, notes: shown.notes }
        : { name: `${VOICES.LINE}${shown.name}`, notes: spelled(shown.notes) },
      ...(melody && !lines.current.isMelody ? [{ name: VOICES.MELODY, notes: melody.line.notes }] : [])
    ];
    try {
      const blob = await format.make({ title: document.title, chart: document.source, sheet, neck, voices });
      saveFile(blob, `${document.title} ${shown.name}`, format.id);
    } catch {
      lines.current.problem = format.failure;
    }
  }

  async function remove() {
    const name = lines.shelf.stored?.name ?? '';
    const restore = await lines.shelf.remove();
    if (restore) toast(`“${name}” deleted.`, { action: { label: 'Undo', onClick: () => void restore() } });
  }
</script>

<PopoverButton
  label="More for the line"
  hint="Name, transpose, repeat a motif, files, delete"
  look={{ isIcon: true }}
  class="w-80 gap-2 p-3 text-sm"
  within="main"
>
  {#snippet face()}<Ellipsis size={16} />{/snippet}
  {#if lines.current.shown}
    <label class="flex items-center gap-2">
      <span class="w-24 shrink-0 text-soft">Name</span>
      <input
        class="min-h-8.5 min-w-0 grow rounded-md border border-edge bg-surface px-2 pointer-coarse:min-h-11"
        aria-label="Name of the line"
        maxlength="120"
        value={lines.current.shown.name}
        onchange={(event) => void lines.shelf.rename(event.currentTarget.value)}
      />
    </label>
  {/if}
  <MenuSelect
    name="Transpose"
    label="Move the line"
    value=""
    options={[{ value: '', name: 'to …' }, ...moves]}
    hint="Along its strings, to another octave, or into a position"
    onpick={(value) => value && move(value)}
  />
  <MenuSelect
    name="Repeat motif"
    label="Repeat a motif"
    value=""
    options={[{ value: '', name: 'how …' }, ...CARRIES]}
    hint="Rhythm and contour of this bar over each next chord"
    onpick={(value) => {
      const carry = CARRIES.find((one) => one.value === value);
      if (carry) repeatMotif(lines, { ...carry, subdivision: lines.finding.asked.subdivision });
    }}
  />
  <MenuSelect
    name="File"
    label="Files of the line"
    value=""
    options={[{ value: '', name: 'save or import …' }, ...files]}
    hint="Save the line, or import lines from elsewhere"
    onpick={(value) => value && void file(value)}
  />
  {#if settings.now.lineAs === 'score'}
    <Button
      class="justify-start"
      pressed={settings.now.scoreDegrees}
      hint="What each note is on its chord, below the tab"
      onclick={() => settings.change({ scoreDegrees: !settings.now.scoreDegrees })}
      >degrees below the tab</Button
    >
  {/if}
  <Button class="justify-start" disabled={!lines.shelf.stored} onclick={() => void remove()}
    ><Trash2 size={15} /> Delete this line</Button
  >
</PopoverButton>
<input
  bind:this={input}
  type="file"
  class="sr-only"
  tabindex="-1"
  aria-label="A file of lines"
  accept={acceptOf(['musicxml', 'midi', 'tab', 'csv'])}
  data-import
  onchange={(event) => {
    const [chosen] = event.currentTarget.files ?? [];
    if (chosen) void lines.shelf.readFile(chosen);
    event.currentTarget.value = '';
  }}
/>
