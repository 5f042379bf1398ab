<!-- A new chart: typed, pasted or from a file; what it would give is said before it is made. -->
<script lang="ts">
  import FileMusic from '@lucide/svelte/icons/file-music';
  import Plus from '@lucide/svelte/icons/plus';
  import X from '@lucide/svelte/icons/x';
  import { acceptOf, FORMAT_FACTS } from '$lib/core/formats/facts';
  import { FORM_PATTERNS, formText } from '$lib/core/harmony/forms';
  import { tonicOn } from '$lib/core/theory/tonic';
  import { prettyNote } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import { settings } from '$lib/state/settings.svelte';
  import type { NewChart } from '$lib/state/songbook/new-chart.svelte';
  import PasteLook from '../chart/PasteLook.svelte';
  import Button from '../kit/Button.svelte';

  interface Props {
    fresh: NewChart;
    /** The field that is typed in. */
    field: HTMLTextAreaElement | undefined;
    /** It lies over the page, where the window is narrow. */
    isOver: boolean;
    oncreate: () => void;
    onfiles: (files: FileList | null) => void;
    onclose: () => void;
  }
  let { fresh, field = $bindable(), isOver, oncreate, onfiles, onclose }: Props = $props();

  const FILES = `${acceptOf(FORMAT_FACTS.map(({ id }) => id))},.json`;
  /** What is told of a file at most. */
  const MOST_TOLD = 6;
  /** A form that is laid out in a key, to be filled or changed. */
  let pattern = $state('');
  let tonic = $state('Bb');
  const tonics = $derived.by(() => {
    const mode = FORM_PATTERNS.find(({ id }) => id === pattern)?.mode ?? 'major';
    return Array.from({ length: 12 }, (_, pc) => tonicOn(pc, mode, { tonic: 'F', mode: 'major' }));
  });
  let laid = $state('');
  /** What the player has typed is not written over. */
  const isFree = $derived(!fresh.text.trim() || fresh.text === laid);
  function layOut(id: string, key: string) {
    [pattern, tonic] = [id, key];
    const own = FORM_PATTERNS.find((one) => one.id === id);
    laid = own ? formText(own, key, `${own.name} in ${prettyNote(key)}`) : '';
    fresh.text = laid;
    fresh.typed();
  }
  const { imported } = $derived(fresh);
  const isOfFile = $derived(imported !== null && (imported.chart === null || fresh.file !== null));
  const told = $derived(
    imported?.left.filter(({ text }) => text || imported.chart).slice(0, MOST_TOLD) ?? []
  );
</script>

<section
  class="card p-4 lg:sticky lg:top-2.5 lg:h-fit {isOver
    ? 'max-lg:fixed max-lg:inset-0 max-lg:z-30 max-lg:overflow-y-auto max-lg:rounded-none max-lg:pb-20'
    : 'max-lg:hidden'}"
  aria-label="New chart"
  data-new-chart
>
  <div class="flex items-center justify-between">
    <h2 class="font-display text-xl">New chart</h2>
    <Button class="lg:hidden" tone="quiet" label="Back to the charts" onclick={onclose}
      ><X size={18} /></Button
    >
  </div>
  <p class="mt-1 text-base text-soft">
    Type or paste chords: <code>| Fm7 | Bb7 |</code>, a list, or chords over lyrics.
    <span class="pointer-coarse:hidden"><kbd>Ctrl Enter</kbd> opens it.</span>
  </p>
  <form
    class="mt-3"
    onsubmit={(event) => {
      event.preventDefault();
      oncreate();
    }}
  >
    <textarea
      class="w-full rounded-md border border-edge bg-paper p-2.5 font-mono text-base leading-6"
      rows="6"
      aria-label="Chart text"
      aria-describedby="verdict"
      spellcheck="false"
      placeholder="| Fm7 | Bb7 | Ebmaj7 | C7b9 |"
      bind:this={field}
      bind:value={fresh.text}
      oninput={() => fresh.typed()}
      onkeydown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) oncreate();
        else if (event.key === 'Escape') onclose();
      }}></textarea>
    <label
      class="mt-1 flex min-h-8.5 cursor-pointer items-center gap-1.5 text-sm text-soft underline decoration-dotted underline-offset-4 focus-within:outline-2 focus-within:outline-next hover:text-ink pointer-coarse:min-h-11"
    >
      <FileMusic size={16} class="shrink-0" /> Import files: MusicXML, MIDI, tab, CSV, chart text; or drop them
      anywhere here
      <input
        type="file"
        multiple
        class="sr-only"
        accept={FILES}
        data-import
        onchange={(event) => {
          onfiles(event.currentTarget.files);
          event.currentTarget.value = '';
        }}
      />
    </label>
    {#if isFree}
      <div class="mt-1 flex flex-wrap items-center gap-1.5 text-sm" data-forms>
        <label class="flex min-w-0 flex-1 items-center gap-1.5"
          ><span class="shrink-0">Or from a form</span>
          <select
            class="min-h-8.5 min-w-0 flex-1 rounded-md border border-edge bg-paper px-1.5 pointer-coarse:min-h-11"
            aria-label="Form"
            value={pattern}
            onchange={(event) => layOut(event.currentTarget.value, tonic)}
          >
            <option value="">none</option>
            {#each FORM_PATTERNS as { id, name } (id)}<option value={id}>{name}</option>{/each}
          </select></label
        >
        <select
          class="min-h-8.5 rounded-md border border-edge bg-paper px-1.5 pointer-coarse:min-h-11"
          aria-label="Key of the form"
          value={tonic}
          onchange={(event) => layOut(pattern, event.currentTarget.value)}
        >
          {#each tonics as one (one)}<option value={one}>{settings.note(one)}</option>{/each}
        </select>
      </div>
    {/if}
    {#if imported && isOfFile}
      <div class="mt-1 text-sm" role="status" data-imported>
        {#if imported.lines.length}
          <p>
            {counted(imported.lines.length, 'line')} in it; {imported.lines.length === 1
              ? 'it is'
              : 'they are'} kept with the chart.
          </p>
        {/if}
        {#if imported.plan}
          <p>
            {counted(imported.plan.decisions.length, 'chord')} read in a key that is written inside the tune.
          </p>
        {/if}
        {#if imported.chart === null}<p class="text-warn">“{fresh.importedName}” has no chords in it.</p>{/if}
        <ul class="text-soft">
          {#each told as { text, why }, i (i)}<li>{text ? `“${text}” ` : ''}{why}</li>{/each}
        </ul>
      </div>
    {/if}
    <p
      id="verdict"
      class="mt-1 min-h-10 text-sm {fresh.isTooLarge || fresh.sheet?.problems.length
        ? 'text-warn'
        : 'text-soft'}"
      aria-live="polite"
    >
      {fresh.verdict}
    </p>
    {#if fresh.look?.german || (fresh.german !== undefined && fresh.text.trim())}
      <div class="mb-2" data-german>
        <Button
          size="small"
          pressed={fresh.look?.german === true}
          hint="H is read as B, and B as B♭"
          onclick={() => (fresh.german = fresh.look?.german !== true)}>German names</Button
        >
      </div>
    {/if}
    {#if fresh.look && fresh.isTurned}<div class="mb-2"><PasteLook look={fresh.look} /></div>{/if}
    <Button class="mt-1 w-full" tone="strong" type="submit" disabled={fresh.isTooLarge}
      ><Plus size={16} />
      {!fresh.text.trim()
        ? 'Start an empty chart'
        : fresh.isTurned && fresh.sheet
          ? 'Take these bars'
          : 'Open it with a plan'}</Button
    >
  </form>
</section>
