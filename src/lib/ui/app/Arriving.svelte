<!--
  A part of the page that arrives when it is used. While the server is away that is said, and it is tried again; a part
  that has come once is there at once.
-->
<script lang="ts" generics="Component">
  import { onMount, untrack, type Snippet } from 'svelte';
  import { reach } from '$lib/state/reach.svelte';
  import Button from '../kit/Button.svelte';
  import type { Part } from './part';

  interface Props {
    part: Part<Component>;
    children: Snippet<[Component]>;
    /** Says nothing while it waits, for a dialog that is not seen yet. */
    isQuiet?: boolean;
    /** The room that is kept for it meanwhile. */
    height?: string;
  }
  let { part, children, isQuiet = false, height = 'min-h-40' }: Props = $props();

  /** Milliseconds between tries. */
  const RETRY = 3000;
  let arrived: Component | null = $state.raw(untrack(() => part.now));
  let hasFailed = $state(false);

  onMount(() => {
    if (arrived) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isGone = false;
    const attempt = () =>
      part.fetch().then(
        (component) => {
          if (isGone) return;
          arrived = component;
          hasFailed = false;
        },
        () => {
          if (isGone) return;
          hasFailed = true;
          reach.lost();
          timer = setTimeout(() => void attempt(), RETRY);
        }
      );
    void attempt();
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  });
</script>

{#if arrived}{@render children(arrived)}
{:else if hasFailed}
  <div class="flex flex-wrap items-center gap-3 card p-5" role="alert" data-arriving="failed">
    <p class="flex-1">
      Corvel’s server does not answer, so this part could not be loaded. Corvel keeps trying.
    </p>
    <Button onclick={() => location.reload()}>Reload the page</Button>
  </div>
{:else if !isQuiet}<div class="{height} card" aria-busy="true"></div>{/if}
