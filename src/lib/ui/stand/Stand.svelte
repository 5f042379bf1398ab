<!--
  The stand while the band plays: the whole page, and nothing but what is played. One grid whose rows are measured; nothing
  overlaps and nothing scrolls. A touch or a moved mouse brings a slim bar for some seconds.
-->
<script lang="ts">
  import { onDestroy, onMount, type Snippet } from 'svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { standing } from '$lib/state/stand/standing.svelte';
  import RunScore from '../rehearse/RunScore.svelte';
  import { leastNeck, shownIn, sizesFor } from './fit';
  import StandChords from './StandChords.svelte';
  import StandForm from './StandForm.svelte';
  import StandLine from './StandLine.svelte';
  import StandNeck from './StandNeck.svelte';
  import StandTab from './StandTab.svelte';
  import { tabHeight } from './tab';

  interface Props {
    rehearsal: Rehearsal;
    /** The note that is heard, as it is written; and how the changes were met. */
    heard?: number | null;
    met?: ReadonlyMap<number, MetChange> | undefined;
    /** What must be known at once. */
    notice?: Snippet | undefined;
    /** The buttons; `isAwake` while the player has touched the page. */
    foot: Snippet<[isAwake: boolean]>;
  }
  let { rehearsal, heard = null, met, notice, foot }: Props = $props();

  /** Between the rows, and to the page's edge. */
  const GAP = 8;
  /** Milliseconds for which the bar stays, and pixels by which a mouse has moved when it was meant. */
  const AWAKE = 4000;
  const MEANT = 6;

  let width = $state(1280);
  let height = $state(800);
  let chordsHeight = $state(0);
  let footHeight = $state(0);

  const sizes = $derived(sizesFor(width, height, settings.now.standSize));
  const inner = $derived(width - 2 * GAP);
  const strings = $derived(rehearsal.picture.shown.neck.strings.length);
  const hasRun = $derived(rehearsal.rounds.drill !== null && rehearsal.picture.run.length > 0);
  const tab = $derived(tabHeight(strings, sizes));
  /** Of neck and what stands below it. */
  const room = $derived(height - chordsHeight - footHeight - 4 * GAP);
  /** A system of staff and tab is so high at most; it is measured once it stands. */
  const STAFF = 250;
  let staffHeight = $state(STAFF);
  const wantsStaff = $derived(settings.now.lineAs === 'score' && rehearsal.picture.hides === 'nothing');
  const shown = $derived(
    shownIn(
      { width: inner, height: room },
      leastNeck(strings, sizes),
      { run: rehearsal.rounds.drill !== null, staff: wantsStaff ? staffHeight + GAP : 0, tab: tab + GAP },
      sizes
    )
  );
  const below = $derived(
    shown.isBeside
      ? 0
      : shown.staff
        ? staffHeight + GAP
        : shown.tab
          ? tab + GAP
          : shown.line
            ? shown.lineHeight + GAP
            : 0
  );
  const neckHeight = $derived(Math.max(60, room - below));
  /** Beside the neck stands what would be below it. */
  const neckWidth = $derived(shown.isBeside ? Math.round(inner * 0.56) : inner);
  const otherWidth = $derived(shown.isBeside ? inner - neckWidth - GAP : inner);

  let isAwake = $state(false);
  let sleeps: ReturnType<typeof setTimeout> | undefined;
  function wake() {
    isAwake = true;
    clearTimeout(sleeps);
    sleeps = setTimeout(() => (isAwake = false), AWAKE);
  }
  let last: { x: number; y: number } | null = null;
  function move(event: PointerEvent) {
    const moved = last && Math.hypot(event.clientX - last.x, event.clientY - last.y);
    if (moved === null || moved >= MEANT) {
      if (moved !== null) wake();
      last = { x: event.clientX, y: event.clientY };
    }
  }

  let stand: HTMLElement | undefined = $state();
  onMount(() => stand?.focus({ preventScroll: true }));
  standing.isUp = true;
  onDestroy(() => {
    standing.isUp = false;
    clearTimeout(sleeps);
  });
</script>

<svelte:window bind:innerWidth={width} bind:innerHeight={height} />

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  bind:this={stand}
  tabindex="-1"
  class="fixed inset-0 z-40 flex flex-col overflow-hidden bg-paper outline-none print:hidden"
  style:gap="{GAP}px"
  style:padding="{GAP}px"
  data-stand
  data-awake={isAwake || undefined}
  onpointermove={move}
  onpointerdown={wake}
  onfocusin={(event) => event.target !== stand && wake()}
>
  <div bind:offsetHeight={chordsHeight} class="flex shrink-0 flex-col" style:gap="{GAP}px">
    {@render notice?.()}
    <StandChords
      {rehearsal}
      {sizes}
      width={inner}
      met={met?.get(rehearsal.picture.change?.source.index ?? -1)}
    />
  </div>
  {#if rehearsal.rounds.isLost}
    <div class="min-h-0 shrink-0" style:height="{room}px">
      <StandForm {rehearsal} {sizes} width={inner} height={room} />
    </div>
  {:else}
    <div class="flex shrink-0 {shown.isBeside ? 'items-center' : 'flex-col'}" style:gap="{GAP}px">
      <div class="min-h-0 shrink-0" style:height="{neckHeight}px" style:width="{neckWidth}px">
        <StandNeck {rehearsal} {sizes} width={neckWidth} height={neckHeight} {heard} />
      </div>
      {#if shown.staff}
        <div bind:offsetHeight={staffHeight} class="shrink-0"><RunScore {rehearsal} /></div>
      {:else if shown.tab}
        <div class="shrink-0" style:height="{tab}px" data-run-strip>
          {#if hasRun}<StandTab {rehearsal} {sizes} width={otherWidth} />{/if}
        </div>
      {:else if shown.line}
        <div class="shrink-0" style:height="{shown.lineHeight}px">
          <StandLine {rehearsal} {sizes} width={otherWidth} height={shown.lineHeight} {met} />
        </div>
      {/if}
    </div>
  {/if}
  <div bind:offsetHeight={footHeight} class="shrink-0">{@render foot(isAwake)}</div>
</div>
