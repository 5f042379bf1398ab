<!-- What the sounds of all takes fill, and those that could go first: the oldest that nobody loves. Their notes stay. -->
<script lang="ts">
  import type { TakeSounds } from '$lib/api/take';
  import { forgetSound, takeSounds } from '$lib/state/takes/client';
  import Button from '../kit/Button.svelte';

  interface Props {
    /** Changes whenever takes do. */
    stamp: unknown;
    onforgotten: (take: string) => void;
  }
  let { stamp, onforgotten }: Props = $props();

  const MOST = 6;
  let sounds = $state.raw<TakeSounds | null>(null);
  let isOpen = $state(false);
  let problem = $state('');
  const offered = $derived(sounds?.takes.filter(({ isLoved }) => !isLoved).slice(0, MOST) ?? []);
  const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
  const date = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' });

  async function load() {
    try {
      sounds = await takeSounds();
      problem = '';
    } catch (error) {
      problem = (error as Error).message;
    }
  }
  $effect(() => {
    void stamp;
    void load();
  });

  async function forget({ id, chart }: TakeSounds['takes'][number]) {
    try {
      await forgetSound(chart, id);
      onforgotten(id);
      await load();
    } catch (error) {
      problem = (error as Error).message;
    }
  }
</script>

{#if problem}<p class="px-2 text-sm text-warn" role="alert">{problem}</p>{/if}
{#if sounds && sounds.bytes > 0}
  <div class="mt-1 border-t border-line px-2 py-1.5 text-xs text-soft" data-sounds={sounds.bytes}>
    <p class="flex flex-wrap items-center justify-between gap-2">
      Sounds of all takes: {megabytes(sounds.bytes)}
      {#if offered.length}
        <Button size="small" aria-expanded={isOpen} onclick={() => (isOpen = !isOpen)}>free space</Button>
      {/if}
    </p>
    {#if isOpen}
      <p class="pt-1">
        Removes the sound of the oldest takes that are no favourites. Notes and results stay.
      </p>
      <ul>
        {#each offered as one (one.id)}
          <li class="flex items-center justify-between gap-2 py-0.5">
            <span class="min-w-0 truncate"
              >{date.format(one.playedAt)} · {one.title}, {one.name} · {megabytes(one.bytes)}</span
            >
            <Button size="small" label="Remove the sound of {one.name}" onclick={() => void forget(one)}
              >remove</Button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
{/if}
