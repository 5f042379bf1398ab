<!-- Copies of the songbook: what there is, one more by hand, one brought back with a way back from there. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { invalidateAll } from '$app/navigation';
  import type { Copy } from '$lib/api/copies';
  import { counted } from '$lib/core/theory/words';
  import { callRoute } from '$lib/state/call';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import Archive from './Archive.svelte';

  interface Props {
    open: boolean;
    /** Everything is as it was in a copy. */
    onback: () => void;
  }
  let { open = $bindable(), onback }: Props = $props();

  const AWAY = 'nothing was changed';
  const DATE = new Intl.DateTimeFormat(undefined, {
    weekday: 'short',
    day: 'numeric',
    month: 'long',
    year: 'numeric'
  });
  const TIME = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
  let copies: readonly Copy[] | null = $state.raw(null);
  let problem = $state('');
  let isBusy = $state(false);
  /** The copy that is asked about once more. */
  let asked = $state('');

  $effect(() => {
    if (open) void attempt(load);
  });

  async function load() {
    copies = (await callRoute<{ copies: Copy[] }>('copies', AWAY)).copies;
  }
  async function attempt(work: () => Promise<void>) {
    isBusy = true;
    problem = '';
    try {
      await work();
    } catch (error) {
      problem = (error as Error).message;
    } finally {
      isBusy = false;
    }
  }
  const copyNow = () =>
    attempt(async () => {
      await callRoute<Copy>('copies', 'no backup was made', 'POST');
      await load();
    });
  const restore = (name: string) =>
    attempt(async () => {
      asked = '';
      const { before } = await callRoute<{ before: string }>(
        `copies/${encodeURIComponent(name)}/bring-back`,
        AWAY,
        'POST'
      );
      await cameIn(before, 'The songbook was restored from that backup.');
    });
  /** What is shown is what is there now, with a way back. */
  async function cameIn(before: string, says: string) {
    open = false;
    await invalidateAll();
    onback();
    toast(says, { duration: 15_000, action: { label: 'Undo', onClick: () => void restore(before) } });
  }
  const says = ({ charts, bytes }: Copy) =>
    charts === null ? 'cannot be read' : `${counted(charts, 'chart')}, ${(bytes / 1e6).toFixed(1)} MB`;
</script>

<Dialog
  bind:open
  title="Backups"
  says="Corvel backs up the songbook on every day you use it and keeps the last ten. Sounds of takes are not included."
>
  {#if problem}<p class="mb-2 text-warn" role="alert">{problem}</p>{/if}
  {#if copies}
    <ul class="divide-y divide-[var(--line)] px-1" data-copies>
      {#each copies as copy (copy.name)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2" data-copy={copy.name}>
          <div class="min-w-48 flex-1">
            <p class="text-lg leading-6">{DATE.format(copy.madeAt)}</p>
            <p class="text-sm text-soft">
              {TIME.format(copy.madeAt)}, {copy.isByItself
                ? 'by itself'
                : copy.name.includes('before')
                  ? 'before something was brought in'
                  : 'by hand'} · {says(copy)}
            </p>
          </div>
          {#if asked === copy.name}
            <span class="text-sm">Everything since then goes back.</span>
            <Button tone="target" disabled={isBusy} onclick={() => void restore(copy.name)}>Restore it</Button
            >
            <Button onclick={() => (asked = '')}>Cancel</Button>
          {:else}
            <Button
              disabled={isBusy || copy.charts === null}
              aria-label="Restore the backup of {DATE.format(copy.madeAt)}"
              onclick={() => (asked = copy.name)}>restore …</Button
            >
          {/if}
        </li>
      {:else}
        <li class="py-4 text-soft">No backup yet. The first is made before the next change.</li>
      {/each}
    </ul>
  {:else if !problem}
    <p class="text-soft" role="status">Loading backups …</p>
  {/if}
  <Archive onimported={({ before }) => void cameIn(before, 'The archive is in your songbook.')} />
  {#snippet actions()}
    <Button disabled={isBusy} onclick={() => void copyNow()}>Back up now</Button>
  {/snippet}
</Dialog>
