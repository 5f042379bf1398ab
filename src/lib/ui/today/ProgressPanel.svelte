<!-- Pictures of practice: each answers the question above it, and reads as a table too. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import type { Pictures } from '$lib/api/practice';
  import { callRoute } from '$lib/state/call';
  import { logBox } from '$lib/state/practice/practice-log';
  import Button from '../kit/Button.svelte';
  import CardsPicture from './CardsPicture.svelte';
  import CoveragePicture from './CoveragePicture.svelte';
  import LatenessPicture from './LatenessPicture.svelte';
  import MinutesPicture from './MinutesPicture.svelte';
  import type { PanelProps } from './panels';
  import StumblesPicture from './StumblesPicture.svelte';
  import TimePicture from './TimePicture.svelte';
  import TempoPicture from './TempoPicture.svelte';

  let { today }: PanelProps = $props();
  const day = untrack(() => today.now.day);
  let pictures: Pictures | null = $state.raw(null);
  let problem = $state('');

  async function load() {
    problem = '';
    try {
      await logBox.send();
      pictures = await callRoute<Pictures>(`practice/pictures?day=${day}`, 'the charts could not be loaded');
    } catch (error) {
      problem = error instanceof Error ? error.message : 'That did not work.';
    }
  }
  onMount(() => void load());
</script>

<section class="flex flex-col gap-5" aria-label="Progress">
  {#if problem}
    <p class="card p-4 text-warn" role="alert">
      {problem}
      <Button onclick={() => void load()}>try again</Button>
    </p>
  {:else if !pictures}
    <p class="card p-6 text-center text-soft">The log is being read …</p>
  {:else if pictures.weeks.every(({ seconds }) => seconds === 0) && pictures.coverage.length === 0}
    <p class="card p-6 text-center text-soft">
      Nothing played yet. After your first session you see here where on the neck you are at home.
    </p>
  {:else}
    <CoveragePicture coverage={pictures.coverage} {day} />
    {#if pictures.tempos.length}<TempoPicture tempos={pictures.tempos} />{/if}
    <div class="grid grid-cols-[minmax(0,1fr)] gap-5 lg:grid-cols-2">
      <MinutesPicture weeks={pictures.weeks} />
      {#if pictures.cards.length}<CardsPicture cards={pictures.cards} />{/if}
    </div>
    {#if pictures.time.length}<TimePicture time={pictures.time} />{/if}
    {#if pictures.lateness.length}<LatenessPicture lateness={pictures.lateness} />{/if}
    {#if pictures.stumbles.length}<StumblesPicture stumbles={pictures.stumbles} />{/if}
  {/if}
</section>
