<!-- The frame of a picture: its question, what is seen, and the same as a table. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import Button from '../kit/Button.svelte';

  interface Props {
    question: string;
    /** Names of the table's columns, and its rows. */
    columns: readonly string[];
    rows: readonly (readonly (string | number)[])[];
    tools?: Snippet;
    children: Snippet;
  }
  let { question, columns, rows, tools, children }: Props = $props();
  let isTable = $state(false);
</script>

<article class="min-w-0 card p-4" aria-label={question} data-picture={question}>
  <div class="flex flex-wrap items-center gap-3">
    <h2 class="flex-1 basis-60 font-display text-xl">{question}</h2>
    {@render tools?.()}
    <Button size="small" pressed={isTable} onclick={() => (isTable = !isTable)}>as a table</Button>
  </div>
  {#if isTable}
    <div class="mt-2">
      <table class="w-full text-left text-base">
        <thead
          ><tr class="border-b border-edge"
            >{#each columns as column (column)}<th class="py-1 pr-3">{column}</th>{/each}</tr
          ></thead
        >
        <tbody>
          {#each rows as row, i (i)}
            <tr class="border-b border-line"
              >{#each row as cell, n (n)}<td class="py-1 pr-3 tabular-nums">{cell}</td>{/each}</tr
            >
          {/each}
        </tbody>
      </table>
    </div>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="mt-2 overflow-x-auto" tabindex="0" role="region" aria-label={question}>
      {@render children()}
    </div>
  {/if}
</article>
