<!-- The practice page for a day, on paper: the parts with room to write how it went. -->
<script lang="ts">
  import { keyName } from '$lib/core/practice/items/words';
  import type { RunPart } from '$lib/state/practice/run-part';
  import { longDay } from './days';

  let { day, parts }: { day: string; parts: readonly RunPart[] } = $props();
</script>

<section class="hidden text-black print:block" aria-hidden="true" data-sheet="day">
  <h1 class="font-display text-3xl">Practice, {longDay(day)}</h1>
  <table class="mt-4 w-full border-collapse text-left">
    <thead>
      <tr class="border-b border-black text-sm"
        ><th class="w-16 py-1">minutes</th><th>what</th><th class="w-24">tempo</th><th class="w-28"
          >clean at</th
        ><th class="w-1/4">note</th></tr
      >
    </thead>
    <tbody>
      {#each parts as part (part.id)}
        <tr class="break-inside-avoid border-b border-black/40 align-top">
          <td class="py-2 font-display text-2xl">{part.minutes}</td>
          <td class="py-2 pr-3">
            <b class="font-display text-lg">{part.name}</b>
            {#if part.title}<br />{part.title}{part.key ? `, ${keyName(part.key)}` : ''}{part.data?.area
                ? `, position ${part.data.area}`
                : ''}{/if}
            <br /><span class="text-sm">{part.why}</span>
          </td>
          <td class="py-2">{part.tempo ?? ''}</td><td></td><td></td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>
