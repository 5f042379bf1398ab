<!-- A page, as large as its paper: what stands on it, ruled where it is free, its number at the outer corner. -->
<script lang="ts">
  import { keyText } from '$lib/core/harmony/key';
  import { keyName } from '$lib/core/practice/items/words';
  import { leftOn } from '$lib/core/formats/book/pages';
  import { MARGINS, roomOn, type Paper } from '$lib/core/formats/book/paper';
  import type { BookKey } from '$lib/state/book/book.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Contents from './Contents.svelte';
  import Cover from './Cover.svelte';
  import Guide from './Guide.svelte';
  import type { Page } from './pages';
  import Ruled, { RULE, RULE_TITLE } from '../sheet/Ruled.svelte';
  import PieceView from './PieceView.svelte';

  interface Props {
    page: Page;
    paper: Paper;
    own: Workspace;
    keys: readonly BookKey[];
    /** How the keys are ordered, in words. */
    order: string;
    /** Only its outline, while it is out of sight. */
    isDrawn: boolean;
  }
  let { page, paper, own, keys, order, isDrawn }: Props = $props();

  /** Fewer lines are no room for notes. */
  const FEWEST = 3;
  const room = $derived(roomOn(paper));
  /** A right page has its inner margin on the left. */
  const isRight = $derived(page.number % 2 === 1);
  const ruled = $derived.by(() => {
    if (page.kind !== 'pieces' || !page.isRuled) return 0;
    const lines = Math.floor((leftOn(page.pieces, room.height) - RULE_TITLE) / RULE);
    return lines < FEWEST ? 0 : lines;
  });
</script>

<article
  class="page {paper.id}"
  class:right={isRight}
  style:width="{paper.width}mm"
  style:--high="{paper.height}mm"
  style:padding="{MARGINS.top}mm {isRight ? MARGINS.outer : MARGINS.inner}mm {MARGINS.bottom}mm {isRight
    ? MARGINS.inner
    : MARGINS.outer}mm"
  aria-label="Page {page.number}"
  id="page-{page.number}"
  data-page={page.number}
  data-page-kind={page.kind}
>
  {#if isDrawn}
    {#if page.kind === 'cover'}
      <Cover workspace={own} {keys} {order} width={room.width} />
    {:else if page.kind === 'guide'}
      <Guide workspace={own} />
    {:else if page.kind === 'contents'}
      <Contents entries={page.entries} />
    {:else}
      {#each page.pieces as piece, i (i)}
        <PieceView {piece} workspace={page.key.workspace} width={room.width} />
      {/each}
      {#if ruled}
        <Ruled lines={ruled} title="Notes" />
      {/if}
    {/if}
    {#if page.kind !== 'cover'}
      <footer>
        <span>{own.document.title}</span>
        {#if page.kind === 'pieces'}<span
            >{keyName(keyText(page.key.home))}{page.goesOn ? ', continued' : ''}</span
          >{/if}
        <b>{page.number}</b>
      </footer>
    {/if}
  {/if}
</article>

<style>
  @page a4 {
    size: 210mm 297mm;
    margin: 0;
  }

  @page letter {
    size: 215.9mm 279.4mm;
    margin: 0;
  }

  .page {
    position: relative;
    flex: none;
    height: var(--high);
    overflow: hidden;
    box-sizing: border-box;
    background: white;
    color: var(--ink);
    font-family: var(--font-sans);
  }

  /* Of the whole document: what follows the last page, were it nothing at all, would begin another sheet of another size. */
  :global(body:has(.page.a4)) {
    page: a4;
  }

  :global(body:has(.page.letter)) {
    page: letter;
  }

  footer {
    position: absolute;
    right: 12mm;
    bottom: 6mm;
    left: 17mm;
    display: flex;
    gap: 3mm;
    align-items: baseline;
    font-size: 3.2mm;
    color: var(--soft);
  }

  .page:not(.right) footer {
    flex-direction: row-reverse;
    right: 17mm;
    left: 12mm;
  }

  footer b {
    margin-left: auto;
    font-size: 4mm;
    color: var(--ink);
  }

  .page:not(.right) footer b {
    margin-right: auto;
    margin-left: 0;
  }

  @media print {
    .page {
      /* A hair less than the paper, or rounding gives every page an empty one behind it. */
      height: calc(var(--high) - 0.3mm);
    }
  }
</style>
