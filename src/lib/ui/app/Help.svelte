<!-- Every key, and how notes are drawn. -->
<script lang="ts">
  import { settings } from '$lib/state/settings.svelte';
  import type { Shortcut } from '../keys/keys';
  import Dialog from '../kit/Dialog.svelte';
  import Switch from '../kit/Switch.svelte';
  import NoteMark from '../neck/NoteMark.svelte';

  let { open = $bindable(), shortcuts }: { open: boolean; shortcuts: readonly Shortcut[] } = $props();
  const STAND = [
    ['Space', 'Play or stop'],
    ['[ ]', 'Less from the band, more from the band'],
    ['Z', 'Listen to what I play, or stop listening'],
    ['C', 'The last round was clean'],
    ['X', 'Missed here: the round is not clean, and the log keeps the change']
  ] as const;
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

<Dialog bind:open title="Keys and signs" size="wide">
  <div class="grid gap-6 md:grid-cols-2">
    <dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1.5 self-start">
      {#each shortcuts.filter(({ keys }) => keys) as { keys, name } (name)}
        <dt class="text-right font-bold whitespace-nowrap text-tone">{keys}</dt>
        <dd>{name}</dd>
      {/each}
      <dt class="col-span-2 mt-2 font-display text-lg">At the stand</dt>
      {#each STAND as [keys, name] (keys)}
        <dt class="text-right font-bold whitespace-nowrap text-tone">{keys}</dt>
        <dd>{name}</dd>
      {/each}
    </dl>
    <div>
      <ul class="flex flex-col gap-2">
        {#each LEGEND as [role, words] (role)}
          <li class="flex items-start gap-2">
            <svg width="32" height="32" class="shrink-0" aria-hidden="true"
              ><NoteMark x={16} y={16} {role} label="3" /></svg
            >
            <span class="pt-1.5">{words}</span>
          </li>
        {/each}
        <li class="flex items-start gap-2">
          <svg width="32" height="32" class="shrink-0" aria-hidden="true"
            ><circle cx="16" cy="16" r="12" fill="none" class="stroke-next" stroke-width="2" /></svg
          >
          <span class="pt-1.5"
            >Where the target of the next change lies; thin strokes show where other chord tones move</span
          >
        </li>
      </ul>
      <div class="mt-4 border-t border-line pt-3">
        <Switch
          label="Single keys act without Ctrl"
          checked={settings.now.singleKeys}
          onswitch={(singleKeys) => settings.change({ singleKeys })}
        />
      </div>
      <p class="mt-2 text-sm text-soft">
        Tuning, capo, span, left-handed neck and naming are under <em>Your guitar</em>.
      </p>
    </div>
  </div>
</Dialog>
