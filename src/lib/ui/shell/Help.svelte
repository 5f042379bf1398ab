<!-- The keys that act now, by what they belong to, and how notes are drawn. -->
<script lang="ts">
  import { settings } from '$lib/state/settings.svelte';
  import { laidKeys } from '../keys/keys';
  import { button } from '../kit/button';
  import Dialog from '../kit/Dialog.svelte';
  import Switch from '../kit/Switch.svelte';
  import NoteMark from '../neck/NoteMark.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
  const groups = $derived(open ? laidKeys() : []);
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
    <div class="flex flex-col gap-4" data-keys>
      {#each groups as { name, shortcuts } (name)}
        <section aria-label={name}>
          <h3 class="font-display text-lg">{name}</h3>
          <dl class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1.5">
            {#each shortcuts.filter(({ keys }) => keys) as { id, keys, name } (id)}
              <dt class="text-right font-bold whitespace-nowrap text-tone" data-key-of={id}>{keys}</dt>
              <dd>{name}</dd>
            {/each}
          </dl>
        </section>
      {/each}
    </div>
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
      <div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-3">
        <Switch
          label="Single keys act without Ctrl"
          checked={settings.now.singleKeys}
          onswitch={(singleKeys) => settings.change({ singleKeys })}
        />
        <a class={button({})} href="/settings#keys" onclick={() => (open = false)}>Change keys</a>
      </div>
    </div>
  </div>
</Dialog>
