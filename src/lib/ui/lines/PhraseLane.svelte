<!--
  The phrases of a line as blocks over the axes of its drawing: dragged to another bar, walked by keys. One stop for the Tab key; arrows go
  from block to block. Bars without a note offer a new phrase.
-->
<script lang="ts">
  import Lock from '@lucide/svelte/icons/lock';
  import Plus from '@lucide/svelte/icons/plus';
  import { nth } from '$lib/core/base/list';
  import { beatsOf } from '$lib/core/line/model';
  import type { LinePhrase } from '$lib/core/line/phrases-in';
  import type { Phrases } from '$lib/state/lines/phrases.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { dragByTouch } from '../kit/touch';
  import { RELATION_WORDS } from './looks';

  interface Props {
    workspace: Workspace;
    phrases: Phrases;
    /** Pixels from the left edge at a beat of the form. */
    x: (beat: number) => number;
    width: number;
    /** Only what lies between is drawn, in pixels. */
    seen: { readonly from: number; readonly to: number };
    onwrite: (at: number) => void;
  }
  let { workspace, phrases, x, width, seen, onwrite }: Props = $props();

  const bars = $derived(workspace.sheet.form.bars);
  interface Block {
    readonly left: number;
    readonly width: number;
    readonly index: number;
    readonly phrase: LinePhrase;
  }
  const blocks = $derived(
    phrases.all.map((phrase, index): Block => {
      const left = x(beatsOf(phrase.from));
      return { left, width: Math.max(22, x(beatsOf(phrase.to)) - left), index, phrase };
    })
  );
  const isSeen = ({ left, width }: { left: number; width: number }) =>
    left + width >= seen.from && left <= seen.to;
  const shown = $derived(blocks.filter((block) => isSeen(block) || block.index === phrases.selected));
  const gaps = $derived(
    phrases.gaps
      .map((gap) => {
        const [first, last] = [nth(bars, gap.first), nth(bars, gap.first + gap.bars - 1)];
        const left = x(first.start);
        return { ...gap, left, width: x(last.start + last.beats) - left };
      })
      .filter(isSeen)
  );
  /** The one block that the Tab key comes to. */
  const stop = $derived(phrases.selected ?? shown[0]?.index ?? 0);

  let lane: HTMLElement | undefined = $state();
  function go(index: number) {
    const to = Math.max(0, Math.min(blocks.length - 1, index));
    phrases.select(to);
    requestAnimationFrame(() => lane?.querySelector<HTMLElement>(`[data-phrase="${to}"]`)?.focus());
  }
  /** Keeps the focus on the phrase that was worked on. */
  async function after(work: Promise<boolean>) {
    await work;
    if (phrases.selected !== null) go(phrases.selected);
  }
  function press(event: KeyboardEvent, index: number) {
    const done = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by !== 0) {
      done();
      if (event.ctrlKey || event.metaKey) void after(phrases.move(index, by));
      else if (event.shiftKey) void after(phrases.shift(index, by));
      else go(index + by);
    } else if (event.key === 'Enter') {
      done();
      toggle(index);
    } else if (event.key === 'Escape' && phrases.selected !== null) {
      done();
      phrases.select(null);
    } else if (event.key === 'Delete') {
      done();
      phrases.remove(index);
    } else if (!event.ctrlKey && !event.metaKey && !event.altKey) {
      const key = event.key.toLowerCase();
      if (key === 'k') phrases.lock(index);
      else if (key === 'o') void after(phrases.renew(index));
      else if (key === 'w') onwrite(nth(phrases.all, index).from);
      else return;
      done();
    }
  }

  let dragged: { index: number; from: number; by: number; isMoved: boolean } | null = $state(null);
  function take(event: PointerEvent & { currentTarget: Element }, index: number) {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    dragged = { index, from: event.clientX, by: 0, isMoved: false };
  }
  /** Bars that a block would go, for where it is held. */
  function drag(event: PointerEvent) {
    if (!dragged) return;
    const phrase = nth(phrases.all, dragged.index);
    const start = nth(bars, phrase.first).start;
    const wanted = x(start) + event.clientX - dragged.from;
    let nearest = phrase.first;
    bars.forEach((bar, i) => {
      if (Math.abs(x(bar.start) - wanted) < Math.abs(x(nth(bars, nearest).start) - wanted)) nearest = i;
    });
    dragged.by = nearest - phrase.first;
    dragged.isMoved ||= Math.abs(event.clientX - dragged.from) > 6;
  }
  function drop() {
    const held = dragged;
    dragged = null;
    if (!held) return;
    if (held.by !== 0) void phrases.move(held.index, held.by);
    else if (!held.isMoved) toggle(held.index);
  }
  const toggle = (index: number) => phrases.select(phrases.selected === index ? null : index);
  /** A press without a pointer: Space, or a screen reader. */
  function click({ detail }: MouseEvent, index: number) {
    if (detail === 0) toggle(index);
  }
  const ghost = $derived.by(() => {
    if (!dragged || dragged.by === 0) return null;
    const { phrase, width: wide } = nth(blocks, dragged.index);
    const to = bars[phrase.first + dragged.by];
    if (!to) return null;
    return { left: x(to.start + beatsOf(phrase.from) - nth(bars, phrase.first).start), width: wide };
  });

  const likeWords = ({ phrase }: Block) =>
    phrase.like ? `${RELATION_WORDS[phrase.like.how]} ${nth(phrases.all, phrase.like.of).name}` : '';
</script>

<div
  bind:this={lane}
  class="relative h-8 border-b border-line pointer-coarse:h-13.5"
  style:width="{width}px"
  role="toolbar"
  aria-label="Phrases"
  data-phrases={phrases.all.length}
  {@attach dragByTouch()}
>
  {#each gaps as gap (gap.first)}
    <button
      type="button"
      class="absolute inset-y-1 flex items-center justify-center rounded-md border border-dashed border-edge text-soft hover:text-ink"
      style:left="{gap.left + 2}px"
      style:width="{gap.width - 4}px"
      tabindex="-1"
      aria-label="A new phrase in {phrases.barsOf(gap)}"
      data-hint="A new phrase here"
      data-gap={gap.first}
      onclick={() => void phrases.add(gap)}><Plus size={14} /></button
    >
  {/each}
  {#each shown as block (block.index)}
    {@const isSelected = block.index === phrases.selected}
    {@const isLocked = phrases.isLocked(block.index)}
    <button
      type="button"
      class="absolute inset-y-1 flex cursor-grab items-center gap-1 overflow-hidden rounded-md border px-1.5 text-left text-xs font-bold {isSelected
        ? 'border-ink bg-ink text-surface'
        : isLocked
          ? 'border-2 border-ink bg-surface'
          : 'border-edge bg-lit'}"
      style:left="{block.left}px"
      style:width="{block.width}px"
      style:opacity={dragged?.index === block.index && dragged.by !== 0 ? 0.4 : undefined}
      tabindex={block.index === stop ? 0 : -1}
      aria-pressed={isSelected}
      data-phrase={block.index}
      data-locked={isLocked || undefined}
      data-drag
      onkeydown={(event) => press(event, block.index)}
      onclick={(event) => click(event, block.index)}
      onpointerdown={(event) => take(event, block.index)}
      onpointermove={drag}
      onpointerup={drop}
      onpointercancel={() => (dragged = null)}
    >
      {#if isLocked}<Lock size={12} class="shrink-0" />{/if}
      <span class="shrink-0"><span class="sr-only">Phrase&nbsp;</span>{block.phrase.name}</span>
      <span class="sr-only">, {phrases.barsOf(block.phrase)}</span>
      {#if block.phrase.like}
        <span class={block.width > 90 ? `truncate font-normal ${isSelected ? '' : 'text-soft'}` : 'sr-only'}
          ><span class="sr-only">,&nbsp;</span>{likeWords(block)}</span
        >
      {/if}
      <span class="sr-only"
        >{block.phrase.start === 'pickup' ? ', with a pickup' : ''}{isLocked ? ', locked' : ''}</span
      >
    </button>
  {/each}
  {#if ghost}
    <div
      class="pointer-events-none absolute inset-y-1 rounded-md border-2 border-dashed border-target"
      style:left="{ghost.left}px"
      style:width="{ghost.width}px"
      data-phrase-ghost
    ></div>
  {/if}
</div>
