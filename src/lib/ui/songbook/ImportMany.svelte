<!-- Many files at once: what each of them holds, before anything is stored. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { counted } from '$lib/core/theory/words';
  import type { Importing, Take } from '$lib/state/songbook/importing.svelte';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import Progress from '../kit/Progress.svelte';

  interface Props {
    importing: Importing;
    take: Take;
    /** Told when it is closed, with what was taken. */
    onclose: (taken: readonly { readonly id: string; readonly title: string }[]) => void;
  }
  let { importing, take, onclose }: Props = $props();

  const isOpen = $derived(importing.files.length > 0 || importing.progress !== null);
  function close() {
    const { taken } = importing;
    importing.clear();
    onclose(taken);
  }
</script>

<Dialog
  bind:open={() => isOpen, (open) => !open && close()}
  title="Import these files"
  says="Check what each file contains. Nothing is stored until you import it, and nothing you have is replaced."
  size="wide"
  closing={importing.taken.length && !importing.wanted.length ? 'Done' : 'Close'}
>
  {#if importing.problem}<p class="mb-2 text-warn" role="alert">{importing.problem}</p>{/if}
  {#if importing.progress}
    {@const { doing, done, of } = importing.progress}
    <div class="mb-3 flex items-center gap-3" role="status" data-importing>
      <Progress value={done / Math.max(1, of)} label="{done} of {counted(of, 'file')} {doing}" />
      <span class="flex-1">{done} of {counted(of, 'file')} {doing}</span>
      <Button size="small" onclick={() => importing.stop()}>stop</Button>
    </div>
  {/if}
  <ul class="divide-y divide-[var(--line)] px-1" data-imported-files>
    {#each importing.files as { id, file, title, says, canBeTaken, isWanted, isTaken, imported } (id)}
      <li class="flex items-start gap-3 py-2" data-file={file} data-taken={isTaken || undefined}>
        <span class="flex w-7 justify-center pt-1">
          {#if isTaken}<Check size={20} class="text-tone" aria-label="imported" />
          {:else if canBeTaken}
            <input
              type="checkbox"
              class="size-6 accent-(--ink)"
              aria-label="Import {title}"
              checked={isWanted}
              onchange={(event) => importing.want(id, event.currentTarget.checked)}
            />
          {/if}
        </span>
        <div class="min-w-0 flex-1">
          <p class="truncate font-display text-lg leading-6">{title}</p>
          <p class="text-sm {canBeTaken ? 'text-soft' : 'text-warn'}">{says}</p>
          {#if canBeTaken && imported?.left.length}
            <details class="text-sm text-soft">
              <summary class="min-h-6 cursor-pointer">what is left out</summary>
              <ul class="pl-4">
                {#each imported.left.slice(0, 12) as { line, text, why }, i (i)}
                  <li>{line ? `line ${line}: ` : ''}{text ? `“${text}” ` : ''}{why}</li>
                {/each}
                {#if imported.left.length > 12}<li>and {imported.left.length - 12} more</li>{/if}
              </ul>
            </details>
          {/if}
        </div>
        <span class="max-w-40 truncate pt-1 text-xs text-soft max-sm:hidden">{file}</span>
      </li>
    {/each}
  </ul>
  {#snippet actions()}
    {#if importing.wanted.length}
      <Button tone="target" disabled={importing.progress !== null} onclick={() => void importing.take(take)}
        >Import {counted(importing.wanted.length, 'chart')}</Button
      >
    {/if}
  {/snippet}
</Dialog>
