<!-- Every key, and how notes are drawn. -->
<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { settings } from '$lib/state/settings.svelte';
  import NoteMark from '../neck/NoteMark.svelte';
  import type { Shortcut } from '../keys/keys';

  let { open = $bindable(), shortcuts }: { open: boolean; shortcuts: readonly Shortcut[] } = $props();
  const LEGEND = [
    [
      'target',
      'Target: the note to be on when the chord arrives; its tail points to the next one, a bar under it says it stays'
    ],
    ['chord', 'Chord tone'],
    ['tension', 'Colour: a tension of the chord'],
    ['avoid', 'Avoid note: let it pass'],
    ['other', 'Other tone of the scale']
  ] as const;
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[88vh] w-[min(760px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto card p-5"
    >
      <Dialog.Title class="font-display text-2xl">Keys and signs</Dialog.Title>
      <div class="mt-3 grid gap-6 md:grid-cols-2">
        <dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1.5 self-start text-[14px]">
          {#each shortcuts.filter(({ keys }) => keys) as { keys, name } (name)}
            <dt class="text-right font-bold whitespace-nowrap text-tone">{keys}</dt>
            <dd>{name}</dd>
          {/each}
        </dl>
        <div>
          <ul class="flex flex-col gap-2 text-[14px]">
            {#each LEGEND as [role, words] (role)}
              <li class="flex items-start gap-2">
                <svg width="32" height="32" class="shrink-0"><NoteMark x={16} y={16} {role} label="3" /></svg>
                <span class="pt-1.5">{words}</span>
              </li>
            {/each}
            <li class="flex items-start gap-2">
              <svg width="32" height="32" class="shrink-0"
                ><circle cx="16" cy="16" r="12" fill="none" class="stroke-next" stroke-width="2" /></svg
              >
              <span class="pt-1.5"
                >Where the target of the next change lies; thin strokes show where other chord tones move</span
              >
            </li>
          </ul>
          <label class="mt-4 flex min-h-8 items-center gap-2 border-t border-line pt-3 text-[14px]">
            <input
              type="checkbox"
              class="size-5"
              checked={settings.now.singleKeys}
              onchange={(event) => settings.change({ singleKeys: event.currentTarget.checked })}
            />
            Single keys act without Ctrl
          </label>
          <p class="mt-2 text-[13px] text-soft">
            Tuning, capo, span, handedness and naming are under <em>Your guitar</em>.
          </p>
        </div>
      </div>
      <div class="mt-4 flex justify-end"><Dialog.Close class="btn btn-strong">Close</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
