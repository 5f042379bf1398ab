<!--
  The tuner: the strings as they lie on the neck, each with a bead that stands left of its mark where it is flat, right of it where it is
  sharp, and on it when it is in tune. The one that sounds is lit; the others stay where they were left. To be read from a stand.
-->
<script lang="ts">
  import { onDestroy } from 'svelte';
  import { IN_TUNE, openPitches } from '$lib/core/takes/tuner';
  import { plainName } from '$lib/core/theory/note';
  import { NO_SOUND } from '$lib/state/no-sound';
  import { settings } from '$lib/state/settings.svelte';
  import { Tuner } from '$lib/state/input/tuner.svelte';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import Level from '../kit/Level.svelte';

  let { open = $bindable() }: { open: boolean } = $props();

  /** Pixels that the names take, and that a bead keeps from the edge; the most it goes to each side, in cents. */
  const NAMES = 72;
  const EDGE = 22;
  const MOST = 50;
  let width = $state(760);
  const tuner = new Tuner();
  const neck = $derived(settings.instrument);
  const row = $derived(neck.strings.length > 6 ? 42 : 50);
  const strings = $derived(
    openPitches(neck).map((midi, i) => ({
      string: i + 1,
      midi,
      name: settings.note(plainName(midi % 12)),
      octave: Math.floor(midi / 12) - 1
    }))
  );
  const height = $derived(row * strings.length);
  const half = $derived((width - NAMES) / 2 - EDGE);
  const middle = $derived(NAMES + (width - NAMES) / 2);
  const x = (cents: number) => middle + (Math.max(-MOST, Math.min(MOST, cents)) / MOST) * half;
  const isIn = (cents: number) => Math.abs(cents) <= IN_TUNE;
  const sounding = $derived(tuner.now && strings[tuner.now.string - 1]);
  const words = $derived.by(() => {
    const { now } = tuner;
    if (!now) return '';
    const cents = Math.round(Math.abs(now.cents));
    if (isIn(now.cents)) return 'in tune';
    return now.cents < 0 ? `${cents} cents flat: tighten` : `${cents} cents sharp: slacken`;
  });
  let problem = $state('');

  // Another tuning, or the dialog closed: what was read of the strings is theirs no longer.
  $effect(() => {
    void neck;
    tuner.forget();
  });
  $effect(() => {
    if (open) void tuner.ear.open('microphone');
    else tuner.close();
  });
  onDestroy(() => tuner.close());

  async function hear(midi: number) {
    try {
      await (await import('$lib/audio/player')).tuningNote(midi);
      problem = '';
    } catch {
      problem = NO_SOUND;
    }
  }
</script>

<Dialog
  bind:open
  title="Tune"
  size="wide"
  says="Play one string at a time: {settings.now.tuning} tuning{neck.capo
    ? `, capo at fret ${neck.capo}`
    : ''}. A name lets you hear how it should sound."
>
  <div class="p-1" data-tuner data-string={tuner.now?.string} data-cents={tuner.now?.cents}>
    <div class="flex min-h-24 flex-wrap items-center gap-x-6" aria-live="off">
      {#if tuner.ear.problem || problem}
        <p class="flex flex-wrap items-center gap-3 text-warn" role="alert">
          {tuner.ear.problem || problem}
          {#if !tuner.ear.input}
            <Button tone="strong" onclick={() => void tuner.ear.open('microphone')}>Listen again</Button>
          {/if}
        </p>
      {:else if tuner.ear.isAsking}
        <p class="text-lg text-soft" role="status">The browser asks whether it may listen …</p>
      {:else if sounding && tuner.now}
        <span class="font-display text-7xl leading-none" data-name
          >{sounding.name}<sub class="text-3xl">{sounding.octave}</sub></span
        >
        <span class="text-3xl font-bold {isIn(tuner.now.cents) ? 'text-target' : ''}" data-words>{words}</span
        >
      {:else}
        <p class="text-lg text-soft" role="status">Listening. Play a string.</p>
      {/if}
      <Level level={tuner.ear.level} class="ml-auto w-32" />
    </div>
    <div class="relative" bind:clientWidth={width}>
      <svg {width} {height} class="block select-none" aria-hidden="true">
        <rect x={x(-IN_TUNE)} y="0" width={x(IN_TUNE) - x(-IN_TUNE)} {height} class="fill-lit" />
        {#each [-50, -25, 25, 50] as mark (mark)}
          <line x1={x(mark)} x2={x(mark)} y1="0" y2={height} class="stroke-line" stroke-width="1" />
        {/each}
        <line x1={middle} x2={middle} y1="0" y2={height} class="stroke-ink" stroke-width="2" />
        {#each strings as { string } (string)}
          {@const y = (string - 0.5) * row}
          {@const isNow = tuner.now?.string === string}
          {@const cents = isNow ? tuner.now!.cents : tuner.left.get(string)}
          {#if isNow}
            <rect
              x={NAMES}
              y={y - row / 2 + 2}
              width={width - NAMES}
              height={row - 4}
              rx="8"
              class="fill-lit"
            />
            <line
              x1={middle}
              x2={middle}
              y1={y - row / 2}
              y2={y + row / 2}
              class="stroke-ink"
              stroke-width="4"
            />
          {/if}
          <line
            x1={NAMES}
            x2={width}
            y1={y}
            y2={y}
            class={isNow ? 'stroke-ink' : 'stroke-soft'}
            stroke-width={1 + (2.6 * string) / strings.length}
            opacity={isNow ? 1 : 0.6}
          />
          {#if cents !== undefined}
            <circle
              cx={x(cents)}
              cy={y}
              r={isNow ? 17 : 10}
              class="stroke-target {isIn(cents) ? 'fill-target' : 'fill-surface'}"
              stroke-width={isNow ? 4 : 2.5}
              opacity={isNow ? 1 : 0.75}
              data-bead={string}
            />
          {/if}
        {/each}
      </svg>
      <!-- The names are buttons over the drawing, row by row. -->
      <div class="absolute inset-y-0 left-0 flex flex-col" style:width="{NAMES - 6}px">
        {#each strings as { string, midi, name, octave } (string)}
          <button
            type="button"
            class="flex min-h-6 flex-1 items-center justify-end gap-1 rounded-md pr-2 text-2xl hover:bg-lit {tuner
              .now?.string === string
              ? 'font-bold'
              : ''}"
            aria-label="String {string}, {name}{octave}: hear it{tuner.left.has(string)
              ? isIn(tuner.left.get(string)!)
                ? ', in tune'
                : `, ${Math.round(tuner.left.get(string)!)} cents off`
              : ''}"
            onclick={() => void hear(midi)}>{name}<sub class="text-sm text-soft">{octave}</sub></button
          >
        {/each}
      </div>
    </div>
    <p class="sr-only" aria-live="polite">
      {sounding
        ? `${sounding.name}, ${isIn(tuner.now!.cents) ? 'in tune' : tuner.now!.cents < 0 ? 'flat' : 'sharp'}`
        : ''}
    </p>
  </div>
</Dialog>
