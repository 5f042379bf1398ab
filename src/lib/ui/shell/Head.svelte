<!--
  The head of every page, one row: the places, what the page is called, what belongs to it, the finder, and all the rest behind
  More. On a phone the places stand at the foot.
-->
<script lang="ts" module>
  import { Part } from '../app/part';

  const morePart = new Part(() => import('./More.svelte'));
</script>

<script lang="ts">
  import Search from '@lucide/svelte/icons/search';
  import type { Snippet } from 'svelte';
  import { shell } from '$lib/state/shell.svelte';
  import Arriving from '../app/Arriving.svelte';
  import Button from '../kit/Button.svelte';
  import Places from './Places.svelte';
  import type { Place } from './places';

  interface Props {
    /** Which of the places this is; null for what lies inside one. */
    at?: Place | null;
    /** The page's name, where nothing else says it. */
    title?: string;
    /** Name and facts of what is shown; where the page is a place its name says it. */
    lead?: Snippet;
    /** Between the name and the tools: the views of a chart. */
    children?: Snippet;
    /** Before the finder. */
    tools?: Snippet;
    /** At the top of More; `close` puts it away. */
    more?: Snippet<[close: (work: () => void) => void]>;
  }
  let { at = null, title, lead, children, tools, more }: Props = $props();
</script>

<header class="flex h-11 items-center gap-2 print:hidden" data-head>
  <Places {at} isNamed={at !== null} />
  {#if lead}{@render lead()}
  {:else}
    <h1 class="truncate font-display text-xl {at === null ? '' : 'sm:sr-only'}">{title}</h1>
  {/if}
  {@render children?.()}
  <div class="ml-auto flex shrink-0 items-center gap-0.5">
    {@render tools?.()}
    <Button
      tone="quiet"
      label="Find"
      hint="Find charts, licks, takes, log, and what can be done (Ctrl K)"
      onclick={() => (shell.open = 'find')}><Search size={17} /></Button
    >
    <Arriving isQuiet part={morePart}>{#snippet children(More)}<More {more} />{/snippet}</Arriving>
  </div>
</header>
