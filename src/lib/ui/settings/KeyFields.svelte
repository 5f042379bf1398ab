<!-- Every key, to be changed: press the one that is meant. -->
<script lang="ts">
  import RotateCcw from '@lucide/svelte/icons/rotate-ccw';
  import { settings } from '$lib/state/settings.svelte';
  import Button from '../kit/Button.svelte';
  import Switch from '../kit/Switch.svelte';
  import { pressName, pressOf } from '../keys/press';
  import { holderOfPress, KEY_SCOPES, keysShown, type KeyFacts } from '../keys/scopes';

  const own = $derived(settings.now.keys);
  /** The shortcut whose key is pressed next, and why the last one could not be it. */
  let learning: string | null = $state(null);
  let problem = $state('');

  function learn(row: KeyFacts) {
    learning = learning === row.id ? null : row.id;
    problem = '';
  }
  function press(event: KeyboardEvent) {
    if (!learning) return;
    if (event.key === 'Tab') {
      learning = null;
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') {
      learning = null;
      return;
    }
    const meant = pressOf(event);
    if (meant === null) return;
    const taken = holderOfPress(meant, learning, own);
    if (taken) {
      problem = `${pressName(meant)} is “${taken.name}” here. Press another key, or Esc.`;
      return;
    }
    settings.change({ keys: { ...own, [learning]: meant } });
    learning = null;
    problem = '';
  }
  const reset = ({ id }: KeyFacts) =>
    settings.change({ keys: Object.fromEntries(Object.entries(own).filter(([name]) => name !== id)) });
</script>

<svelte:window onkeydowncapture={press} />
<div class="flex flex-wrap items-center gap-3">
  <Switch
    label="Single keys act without Ctrl"
    checked={settings.now.singleKeys}
    onswitch={(singleKeys) => settings.change({ singleKeys })}
  />
  {#if Object.keys(own).length > 0}
    <Button onclick={() => settings.change({ keys: {} })}>Reset all keys</Button>
  {/if}
</div>
<p class="sr-only" role="status">{problem || (learning ? 'Press the new key, or Esc.' : '')}</p>
<div class="mt-3 columns-1 gap-8 lg:columns-2">
  {#each KEY_SCOPES as scope (scope.id)}
    <section class="mb-4 break-inside-avoid-column" aria-label={scope.name}>
      <h3 class="font-display text-lg">{scope.name}</h3>
      <ul>
        {#each scope.rows as row (row.id)}
          <li class="grid grid-cols-[7.5rem_1fr_auto] items-center gap-2 border-t border-line py-0.5">
            <Button
              class="justify-self-start"
              pressed={learning === row.id}
              aria-label="{keysShown(row, own)}: {row.name}. Change the key"
              data-key-of={row.id}
              onclick={() => learn(row)}>{learning === row.id ? 'press a key' : keysShown(row, own)}</Button
            >
            <span class="min-w-0 text-sm"
              >{row.name}{#if learning === row.id && problem}<b class="block text-warn">{problem}</b
                >{/if}</span
            >
            {#if own[row.id] !== undefined}
              <Button
                tone="quiet"
                label="Reset {row.name}"
                hint="Back to {row.keys}"
                onclick={() => reset(row)}><RotateCcw size={15} /></Button
              >
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/each}
</div>
