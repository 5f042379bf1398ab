<!-- Everything in one file: saved, looked into, brought in beside what is here or instead of it. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import PackageOpen from '@lucide/svelte/icons/package-open';
  import type { ArchiveImported, ArchiveLook, Merge } from '$lib/api/archive';
  import { sure } from '$lib/core/base/list';
  import { counted } from '$lib/core/theory/words';
  import { archivePath, importArchive, lookIntoArchive } from '$lib/state/songbook/archive';
  import { dayHere } from '$lib/state/day-here';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import Progress from '../kit/Progress.svelte';
  import Switch from '../kit/Switch.svelte';
  import Toggles from '../kit/Toggles.svelte';

  interface Props {
    /** It came in; `before` is the copy of what was here. */
    onimported: (imported: ArchiveImported) => void;
  }
  let { onimported }: Props = $props();

  const WAYS = [
    {
      value: 'add',
      name: 'Add what is missing',
      hint: 'What is here stays as it is; what you deleted here comes back'
    },
    {
      value: 'newer',
      name: 'Add what is missing or newer',
      hint: 'The newer version wins; yours stays among the earlier versions'
    },
    {
      value: 'replace',
      name: 'Replace everything',
      hint: 'The songbook becomes the archive; what you have now is kept as a backup'
    }
  ] as const;
  let withSounds = $state(true);
  let input: HTMLInputElement | undefined = $state();
  let file: File | null = $state.raw(null);
  let look: ArchiveLook | null = $state.raw(null);
  let merge: Merge = $state('add');
  let problem = $state('');
  /** How much of what is being sent has gone. */
  let sent: number | null = $state(null);
  let stopper = new AbortController();

  const news = $derived.by(() => look?.compared.filter(({ missing, newer }) => missing + newer > 0) ?? []);

  async function attempt(work: (signal: AbortSignal) => Promise<void>) {
    problem = '';
    sent = 0;
    stopper = new AbortController();
    try {
      await work(stopper.signal);
    } catch (error) {
      if ((error as Error).name !== 'AbortError') problem = (error as Error).message;
      else problem = 'Stopped; nothing was changed.';
    } finally {
      sent = null;
    }
  }
  const tell = (done: number) => (sent = done);

  function pick(picked: File | null) {
    file = picked;
    look = null;
    if (!picked) return;
    void attempt(async (signal) => {
      look = await lookIntoArchive(picked, tell, signal);
    });
  }
  function importFile() {
    const chosen = file;
    if (!chosen) return;
    void attempt(async (signal) => {
      const imported = await importArchive(chosen, merge, tell, signal);
      file = null;
      look = null;
      onimported(imported);
    });
  }
</script>

<section class="mt-4 border-t border-line px-1 pt-3" aria-label="Everything in one file" data-archive>
  <h3 class="font-display text-xl">Everything in one file</h3>
  <p class="text-sm text-soft">
    Charts, plans, lines, licks, practice, log and takes: for another machine, or to be kept somewhere safe.
  </p>
  <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
    <a class={button()} href={archivePath(withSounds)} download="corvel {dayHere(Date.now())}.zip"
      ><Download size={16} /> Save everything</a
    >
    <Switch
      label="with the sound of takes"
      checked={withSounds}
      onswitch={(checked) => (withSounds = checked)}
    />
    <Button disabled={sent !== null} onclick={() => input?.click()}
      ><PackageOpen size={16} /> Import an archive …</Button
    >
    <input
      bind:this={input}
      type="file"
      accept=".zip,application/zip"
      class="sr-only"
      tabindex="-1"
      aria-label="An archive of Corvel"
      onchange={(event) => {
        pick(event.currentTarget.files?.[0] ?? null);
        event.currentTarget.value = '';
      }}
    />
  </div>
  {#if sent !== null}
    <div class="mt-3 flex items-center gap-3" role="status">
      <Progress label="Archive read" value={sent} class="w-40" />
      <span>{sent < 1 ? 'It is sent' : 'It is read'} …</span>
      <!-- Once it is there to be brought in, it comes in whole: to stop then would say what is not so. -->
      {#if !look || sent < 1}<Button size="small" onclick={() => stopper.abort()}>Stop</Button>{/if}
    </div>
  {/if}
  {#if problem}<p class="mt-2 text-warn" role="alert">{problem}</p>{/if}
  {#if look && file}
    <div class="mt-3 card p-3" data-archive-look>
      <p class="font-bold">{file.name}</p>
      {#if news.length}
        <table class="mt-1 text-sm">
          <thead>
            <tr class="text-left text-soft">
              <th class="pr-5 font-normal" scope="col">in the archive</th>
              <th class="pr-5 font-normal" scope="col">new</th>
              <th class="pr-5 font-normal" scope="col">newer in the archive</th>
              <th class="font-normal" scope="col">already here</th>
            </tr>
          </thead>
          <tbody>
            {#each news as { kind, missing, newer, known } (kind)}
              <tr data-archived={kind}>
                <th class="pr-5 text-left font-normal" scope="row">{kind}</th>
                <td class="pr-5">{missing || '–'}</td>
                <td class="pr-5">{newer || '–'}</td>
                <td>{known || '–'}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {:else}
        <p class="text-sm">You already have everything in it.</p>
      {/if}
      {#if look.sounds}<p class="mt-1 text-sm text-soft">
          With {counted(look.sounds, 'sound')} of takes.
        </p>{/if}
      {#if look.left.length}
        <div class="mt-2 text-sm" role="alert" data-left-out={look.left.length}>
          <p>Some of it cannot be read and will be skipped:</p>
          <ul class="list-disc pl-5 text-soft">
            {#each look.left.slice(0, 20) as { kind, what, why }, i (i)}<li>{kind}, {what}: {why}</li>{/each}
          </ul>
        </div>
      {/if}
      <Toggles
        label="How to import it"
        value={merge}
        options={WAYS}
        onpick={(way) => (merge = way)}
        class="mt-3"
      />
      <p class="mt-1 text-sm text-soft">
        {sure(
          WAYS.find(({ value }) => value === merge),
          'WAYS'
        ).hint}.
      </p>
      <div class="mt-2 flex gap-2">
        <Button tone="target" disabled={sent !== null} onclick={importFile}>Import</Button>
        <Button onclick={() => pick(null)}>Cancel</Button>
      </div>
    </div>
  {/if}
</section>
