<!-- What stands above the bars: key, meter, tempo, feel, style; the rest behind Details. -->
<script lang="ts">
  import { FEELS } from '$lib/core/practice/feel';
  import { feelIdOf } from '$lib/core/chart/feel-name';
  import { declared, directivesIn } from '$lib/core/chart/directives';
  import { MAX_TEMPO, MIN_TEMPO } from '$lib/core/chart/model';
  import { keyText, readKey } from '$lib/core/harmony/key';
  import { readStyle, STYLES } from '$lib/core/harmony/style';
  import { tappedTempo, withTap } from '$lib/core/practice/tap';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { FormEdits } from '$lib/state/writing/form-edits';
  import Button from '../../kit/Button.svelte';
  import NumberField from '../../kit/NumberField.svelte';
  import { KEYS, METERS } from './choices';

  let { workspace, form }: { workspace: Workspace; form: FormEdits } = $props();
  const head = $derived(workspace.sheet.head);
  const analysis = $derived(workspace.analysis);
  const saidKey = $derived(head.key === null ? null : readKey(head.key));
  const runnerUp = $derived(analysis.key.runnerUp);
  const meter = $derived(`${head.meter.beats}/${head.meter.unit}`);
  const saidStyle = $derived(head.style === null ? null : readStyle(head.style));
  const feel = $derived(feelIdOf(head.feel, head.meter));
  const words = $derived(directivesIn(workspace.document.source));
  const DETAILS = [
    { name: 'subtitle', label: 'Subtitle', of: '' },
    { name: 'composer', label: 'Composer', of: '' },
    { name: 'tags', label: 'Tags, separated by commas', of: 'opener, latin' },
    { name: 'capo', label: 'Capo, fret', of: '2' },
    { name: 'pickup', label: 'Pickup, beats before bar 1', of: '1' }
  ] as const;
  let showsDetails = $state(false);
  let taps: readonly number[] = [];
  function tap() {
    taps = withTap(taps, performance.now());
    const tempo = tappedTempo(taps);
    if (tempo !== null) form.declare('tempo', String(Math.max(MIN_TEMPO, Math.min(MAX_TEMPO, tempo))));
  }
  const list =
    'min-h-8.5 max-w-38 rounded-md border border-edge bg-paper px-1.5 text-sm pointer-coarse:min-h-11';
  /** On a phone the bars come first. */
  const inRow = $derived(`flex items-center gap-1.5 ${showsDetails ? '' : 'max-sm:hidden'}`);
  const nameOf = (key: { tonic: string; mode: string }) => `${settings.note(key.tonic)} ${key.mode}`;
</script>

<div
  class="flex flex-wrap items-center gap-x-3 gap-y-1.5 text-sm"
  role="group"
  aria-label="About the chart"
  data-head-fields
>
  <label class={inRow}
    >Key
    <select
      class={list}
      aria-label="Key"
      value={saidKey ? keyText(saidKey) : ''}
      onchange={(event) => form.declare('key', event.currentTarget.value)}
    >
      <option value=""
        >{saidKey || workspace.changes.length === 0
          ? 'detected'
          : `${nameOf(analysis.key)} (detected)`}</option
      >
      {#if !saidKey && workspace.changes.length > 0}
        <option value={keyText(analysis.key)}>{nameOf(analysis.key)}, as detected</option>
        {#if runnerUp}<option value={keyText(runnerUp)}>{nameOf(runnerUp)}, next likely</option>{/if}
      {:else if saidKey && !KEYS.some(({ keys }) => keys.some((key) => keyText(key) === keyText(saidKey)))}
        <option value={keyText(saidKey)}>{nameOf(saidKey)}</option>
      {/if}
      {#each KEYS as { name, keys } (name)}
        <optgroup label={name}>
          {#each keys as key (key.tonic)}<option value={keyText(key)}>{nameOf(key)}</option>{/each}
        </optgroup>
      {/each}
    </select></label
  >
  <label class={inRow}
    >Meter
    <select
      class={list}
      aria-label="Meter"
      value={meter}
      onchange={(event) => form.declare('time', event.currentTarget.value)}
    >
      {#each [...new Set<string>([...METERS, meter])] as one (one)}<option>{one}</option>{/each}
    </select></label
  >
  <span class={inRow}
    >Tempo
    <NumberField
      label="Tempo"
      value={head.tempo ?? 120}
      min={MIN_TEMPO}
      max={MAX_TEMPO}
      unit="bpm"
      onset={(tempo) => form.declare('tempo', String(tempo))}
    />
    <Button hint="Tap four beats and more" onclick={tap}>Tap</Button>
  </span>
  <label class={inRow}
    >Feel
    <select
      class={list}
      aria-label="Feel"
      value={head.feel === null ? '' : feel}
      onchange={(event) => form.declare('feel', event.currentTarget.value)}
    >
      <option value="">by the meter</option>
      {#each FEELS as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </select></label
  >
  <Button aria-expanded={showsDetails} pressed={showsDetails} onclick={() => (showsDetails = !showsDetails)}
    >Details</Button
  >
  {#if showsDetails}
    <div class="grid basis-full gap-2 sm:grid-cols-2 lg:grid-cols-3" data-details>
      <label class="flex flex-col gap-0.5"
        >Style
        <select
          class={list}
          aria-label="Style"
          value={saidStyle ?? ''}
          onchange={(event) => form.declare('style', event.currentTarget.value)}
        >
          <option value="">{saidStyle ? 'detected' : `${analysis.style} (detected)`}</option>
          {#each STYLES as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select></label
      >
      {#each DETAILS as { name, label, of } (name)}
        <label class="flex flex-col gap-0.5"
          >{label}
          <input
            class="min-h-8.5 rounded-md border border-edge bg-paper px-2 pointer-coarse:min-h-11"
            value={declared(words, name) ?? ''}
            placeholder={of}
            maxlength="200"
            autocomplete="off"
            onchange={(event) => form.declare(name, event.currentTarget.value)}
          /></label
        >
      {/each}
    </div>
  {/if}
</div>
