<!-- Grip, arpeggio and scale of one change at one spot: seeing one shows the others. -->
<script lang="ts">
  import { systemOf } from '$lib/core/neck/systems/registry';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { momentOf } from '$lib/core/moment/moment';
  import { sayCell } from '$lib/core/neck/shape';
  import { unitsOf } from '$lib/core/neck/unit';
  import type { Grip } from '$lib/core/neck/voicing';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck from '../neck/MiniNeck.svelte';
  import NoteMark from '../neck/NoteMark.svelte';
  import SaveDrawing from '../export/SaveDrawing.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';

  let { workspace, grip }: { workspace: Workspace; grip: Grip } = $props();

  let layers = $state({ grip: true, arpeggio: true, scale: true });
  /** Round the grip of the path, or one octave from the root on a string. */
  let spot: 'path' | number = $state('path');
  let drawing: SVGSVGElement | undefined = $state();
  const neck = $derived(workspace.neck);
  const subject = $derived(workspace.arrangement.subjects[workspace.selected]);
  const hand = $derived(workspace.hands[workspace.selected] ?? 0);
  /** The unit of each root string that lies nearest the hand. */
  const units = $derived.by(() => {
    const chord = workspace.change?.chord;
    const all = chord && subject ? unitsOf(neck, chord, subject.collection.notes) : [];
    const near = [...all].sort((a, b) => Math.abs(a.anchor - hand) - Math.abs(b.anchor - hand));
    return [...new Set(all.map(({ rootString }) => rootString))].map((string) =>
      near.find(({ rootString }) => rootString === string)!
    );
  });
  const unit = $derived(units.find(({ rootString }) => rootString === spot));
  const held = $derived(unit ? unit.grip : grip.cells);
  const pressed = $derived(held.map(({ fret }) => fret).filter((fret) => fret > neck.capo));
  const position = $derived(unit ? unit.position : pressed.length ? Math.min(...pressed) : neck.capo + 1);
  const marks = $derived.by(() => {
    if (!subject) return [];
    const choice = workspace.chosen[workspace.selected] ?? null;
    const area = systemOf('positions').areaAt(neck, subject, position);
    const all = momentOf(workspace.analysis, workspace.selected, neck, choice, area).marks;
    if (!unit) return all;
    const octave = new Set([...unit.arpeggio, ...unit.scale].map(({ midi }) => midi));
    return all.filter(({ midi }) => octave.has(midi));
  });
  const isHeld = (cell: { string: number; fret: number }) =>
    held.some(({ string, fret }) => string === cell.string && fret === cell.fret);
  const shown = $derived(
    marks.filter(
      (mark) => (mark.role === 'chord' ? layers.arpeggio : layers.scale) && !(layers.grip && isHeld(mark))
    )
  );
  const from = $derived(Math.max(1, position - 1));
  const to = $derived(Math.min(neck.frets, Math.max(position + neck.span, ...pressed)));
  const geometry = $derived(
    neckGeometry({
      width: 400,
      strings: neck.strings.length,
      from,
      to,
      stringGap: Math.min(30, 150 / (neck.strings.length - 1)),
      top: 20,
      bottom: 30,
      open: from === 1 ? 34 : 8,
      leftHanded: settings.now.leftHanded
    })
  );
  const line = $derived(
    held.map(({ string, fret }) => `${geometry.finger(fret)},${geometry.string(string)}`).join(' ')
  );
</script>

<div class="min-w-0">
  <svg
    bind:this={drawing}
    width="400"
    height={geometry.height}
    class="block max-w-full"
    role="img"
    aria-label="Grip, arpeggio and scale"
  >
    <MiniNeck {geometry} strings={neck.strings.length} {from} {to} notes={[]} numbers={11.5} />
    {#each shown as mark (`${mark.string}:${mark.fret}`)}
      <g data-layer={mark.role === 'chord' ? 'arpeggio' : 'scale'}>
        <NoteMark
          x={geometry.finger(mark.fret)}
          y={geometry.string(mark.string)}
          role={mark.role}
          label={settings.label(mark)}
        />
      </g>
    {/each}
    {#if layers.grip}
      <polyline
        points={line}
        fill="none"
        class="stroke-target"
        stroke-width="5"
        stroke-linejoin="round"
        opacity="0.55"
      />
      {#each held as cell (cell.string)}
        <g data-layer="grip" data-cell="{cell.string}:{cell.fret}" data-finger={cell.finger}>
          <NoteMark
            x={geometry.finger(cell.fret)}
            y={geometry.string(cell.string)}
            role="target"
            label={settings.label(cell)}
          />
        </g>
      {/each}
    {/if}
  </svg>
  <p class="sr-only">Grip: {held.map(sayCell).join('; ')}. Round it: {shown.map(sayCell).join('; ')}</p>
  <div class="flex flex-wrap items-center gap-1.5 text-sm">
    {#each ['grip', 'arpeggio', 'scale'] as const as layer (layer)}
      <Button pressed={layers[layer]} onclick={() => (layers[layer] = !layers[layer])}>{layer}</Button>
    {/each}
    <Select
      label="Where grip, arpeggio and scale are shown"
      value={String(spot)}
      options={[
        { value: 'path', name: 'around this grip' },
        ...units.map(({ rootString }) => ({
          value: String(rootString),
          name: `one octave, root on ${rootString}`
        }))
      ]}
      onpick={(value) => (spot = value === 'path' ? 'path' : Number(value))}
    />
    <span class="ml-auto"><SaveDrawing of={() => drawing} name="{workspace.document.title}, grip" /></span>
  </div>
</div>
