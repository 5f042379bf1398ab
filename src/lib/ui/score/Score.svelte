<!--
  A line as staff and tab, broken into systems by the width there is. Systems are drawn as they come into sight; where the music is, or
  the caret, or the selected change, comes into sight by itself.
-->
<script lang="ts" module>
  import { lastOf, nth } from '$lib/core/base/list';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import type { PlayedBar } from '$lib/core/chart/unroll';
  import { isReady, ready } from './engrave';

  /** Bars and chords of a part of a form; times are in beats. */
  export interface Part {
    readonly bars: readonly Pick<PlayedBar, 'number' | 'section' | 'start' | 'beats' | 'meter'>[];
    readonly chords: readonly Pick<AnalysedChange, 'index' | 'symbol' | 'start'>[];
  }
</script>

<script lang="ts">
  import { ticksOf, type LineNote } from '$lib/core/line/model';
  import { writtenBars } from '$lib/core/line/notation';
  import { accidentalsOf } from '$lib/core/harmony/key-signature';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import { systemsOf } from './layout';
  import type { ScoreMarks } from './marks';
  import System from './System.svelte';

  interface Props {
    workspace: Workspace;
    notes: readonly LineNote[];
    /** What each note is on its chord. */
    degrees: readonly (string | null)[] | null;
    /** What it stands over, where that is not the whole form; its times begin with nought. */
    part?: Part;
    /** Where the music is, in beats of the form, or of the part. */
    time?: number | null;
    /** Start of the note that sounds, in ticks. */
    lit?: number | null;
    caret?: ScoreMarks['caret'];
    selected?: ScoreMarks['selected'];
    /** Systems beyond which it is scrolled; 0 for all of them. */
    rows?: number;
    label: string;
    /** For paper: all of it at once, so wide in pixels. */
    paperWidth?: number;
    onpick?: (ticks: number, string: number) => void;
  }
  let {
    workspace,
    notes,
    degrees,
    part,
    time = null,
    lit = null,
    caret = null,
    selected = null,
    rows = 0,
    label,
    paperWidth = 0,
    onpick
  }: Props = $props();

  /** Pixels around the systems, and beyond what is in sight that is drawn already. */
  const MARGIN = 10;
  const OVER = 300;
  let available = $state(0);
  let scrolled = $state({ top: 0, height: 800 });
  let hasFont = $state(isReady());
  let hasFailed = $state(false);

  function fetchFont() {
    hasFailed = false;
    ready().then(
      () => (hasFont = true),
      () => (hasFailed = true)
    );
  }
  fetchFont();

  const changes = $derived(workspace.changes);
  const fifths = $derived(accidentalsOf(workspace.analysis.key));
  const strings = $derived(workspace.neck.strings.length);
  const bars = $derived(
    writtenBars(notes, part?.bars ?? workspace.sheet.form.bars, workspace.sheet.head.meter)
  );
  const chords = $derived(
    (part?.chords ?? changes).map(({ index, symbol, start }) => ({ index, symbol, start: ticksOf(start) }))
  );
  const systems = $derived(
    systemsOf(bars, notes, {
      width: paperWidth || Math.max(240, available - 2 * MARGIN),
      fifths,
      strings,
      hasDegrees: degrees !== null,
      chordsIn: ({ start, length }) =>
        chords.filter((one) => one.start >= start && one.start < start + length).map(({ symbol }) => symbol)
    })
  );
  const tops = $derived.by(() => {
    let top = 0;
    return systems.map((system) => {
      const at = top;
      top += system.height;
      return at;
    });
  });
  const whole = $derived((tops.at(-1) ?? 0) + (systems.at(-1)?.height ?? 0));
  const height = $derived(
    rows && systems.length > rows ? Math.max(...tops.map((top, i) => (tops[i + rows] ?? 0) - top)) + 8 : 0
  );
  const engraving = $derived({
    notes,
    fifths,
    strings,
    isTarget: ({ purpose }: LineNote) => purpose === 'target'
  });
  const marks: ScoreMarks = $derived({
    chords,
    change: workspace.selected,
    degrees,
    time: time === null ? null : ticksOf(time),
    lit,
    caret,
    selected
  });
  const isSeen = (i: number) =>
    paperWidth > 0 ||
    (nth(tops, i) < scrolled.top + scrolled.height + OVER &&
      nth(tops, i) + nth(systems, i).height > scrolled.top - OVER);

  let scroller: HTMLElement | undefined = $state();
  function look() {
    if (!scroller) return;
    scrolled = height
      ? { top: scroller.scrollTop, height: scroller.clientHeight }
      : { top: -scroller.getBoundingClientRect().top, height: globalThis.innerHeight };
  }
  $effect(() => {
    void available;
    void whole;
    look();
  });

  /** The system where the eye should be. */
  const at = $derived.by(() => {
    const selectedAt = chords.find(({ index }) => index === workspace.selected)?.start;
    const ticks = marks.time ?? caret?.at ?? selectedAt ?? 0;
    const found = systems.findIndex(({ bars: own }) => {
      const last = lastOf(own);
      return ticks < last.start + last.length;
    });
    return found < 0 ? systems.length - 1 : found;
  });
  $effect(() => {
    const [top, system] = [tops[at], systems[at]];
    if (top === undefined || !system || !height || !scroller) return;
    const { scrollTop, clientHeight } = scroller;
    if (top >= scrollTop && top + system.height <= scrollTop + clientHeight) return;
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches;
    scroller.scrollTo({ top, behavior: calm ? 'instant' : 'smooth' });
  });
</script>

<svelte:window onscroll={look} onresize={look} />
<section
  class="min-w-0 {paperWidth ? '' : 'overflow-hidden card'}"
  aria-label={label}
  data-score
  data-systems={systems.length}
>
  {#if hasFailed}
    <div class="flex flex-wrap items-center gap-3 p-4" role="alert">
      <p class="flex-1">The music font could not be fetched, so notation is not drawn yet.</p>
      <Button onclick={fetchFont}>Try again</Button>
    </div>
  {/if}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class={paperWidth ? '' : 'overflow-auto py-1'}
    style:max-height={height ? `${height}px` : undefined}
    style:padding-inline={paperWidth ? undefined : `${MARGIN}px`}
    role="group"
    aria-label="{label}, to be scrolled"
    tabindex="0"
    bind:clientWidth={available}
    bind:this={scroller}
    onscroll={look}
  >
    <div class="relative" style:height={paperWidth ? undefined : `${whole}px`} role="img" aria-label={label}>
      {#if hasFont && (available || paperWidth)}
        {#each systems as system, i (i)}
          {#if isSeen(i)}
            <div
              class={paperWidth ? 'break-inside-avoid' : 'absolute left-0'}
              style:top={paperWidth ? undefined : `${tops[i]}px`}
              data-system={i}
            >
              <System {system} {engraving} {marks} {onpick} />
            </div>
          {/if}
        {/each}
      {/if}
    </div>
  </div>
</section>
