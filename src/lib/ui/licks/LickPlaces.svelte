<!-- Where a lick is known: areas by keys, filled by tempo. A place shows the lick there; it is marked clean, and the next one is named. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import X from '@lucide/svelte/icons/x';
  import { untrack } from 'svelte';
  import type { LickData, StoredLick } from '$lib/api/lick';
  import { STANDARD } from '$lib/core/neck/tuning';
  import {
    LICK_KEYS,
    lickItemId,
    lickItems,
    nextPlace,
    type LickItem
  } from '$lib/core/practice/items/lick-items';
  import { keyShort } from '$lib/core/practice/items/words';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import type { LickPractice } from '$lib/state/practice/lick-practice.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';

  interface Props {
    lick: StoredLick;
    data: LickData;
    practice: LickPractice;
    /** Where it is shown. */
    shift: number;
    area: number | null;
    onplace: (place: { shift: number; area: number | null }) => void;
  }
  let { lick, data, practice, shift, area, onplace }: Props = $props();

  // The places are many, and the same as long as the notes are.
  const items = untrack(() => lickItems({ id: lick.id, name: lick.name, data }, STANDARD));
  const byId = new Map(items.map((item) => [item.id, item]));
  /** Rows: along the strings, then the forms, which lie elsewhere in every key. */
  const rows = [...new Set(items.map(({ areaName }) => areaName))];
  const rowName = (row: string | null) => row ?? 'as kept';
  const at = (column: number, row: string | null) =>
    items.find((item) => item.shift === column && item.areaName === row);
  const keyOf = (column: number) => items.find((item) => item.shift === column)?.key ?? '';
  const progress = $derived(
    new Map(
      [...practice.items].flatMap(([id, item]) => (item.progress ? [[id, item.progress] as const] : []))
    )
  );
  const of = (item: LickItem) => practice.items.get(item.id);
  const share = (item: LickItem) => {
    const own = of(item);
    const best = own?.progress?.held ?? own?.progress?.clean ?? 0;
    return own?.data ? Math.min(1, best / own.data.tempo.goal) : 0;
  };
  const next = $derived(nextPlace(items, progress));
  const here = $derived(byId.get(lickItemId(lick.id, { shift, area })) ?? null);
  let typed: number | null = $state(null);
  const tempo = $derived(typed ?? (here ? (of(here)?.progress?.next ?? 72) : 72));
  const said = (item: LickItem) => {
    const own = of(item)?.progress;
    if (!own?.isOpen) return 'not open yet';
    if (own.state === 'held') return `held at ${own.held}`;
    return own.clean === null ? 'open' : `clean at ${own.clean}`;
  };
  async function mark(clean: boolean) {
    if (here) await practice.mark(here, tempo, clean);
    typed = null;
  }
</script>

<section class="mt-1 min-w-0" aria-label="Where {lick.name} is known" data-places={lick.name}>
  <div class="overflow-x-auto">
    <table class="border-separate border-spacing-0.5 text-center text-xs">
      <thead>
        <tr
          ><th></th>{#each LICK_KEYS as column (column)}<th class="font-display text-xs font-normal"
              >{keyShort(keyOf(column))}</th
            >{/each}</tr
        >
      </thead>
      <tbody>
        {#each rows as row (row)}
          <tr>
            <th class="pr-1 text-right font-normal whitespace-nowrap text-soft" scope="row">{rowName(row)}</th
            >
            {#each LICK_KEYS as column (column)}
              {@const item = at(column, row)}
              <td>
                {#if item}
                  <button
                    type="button"
                    class="relative size-6 overflow-hidden rounded border pointer-coarse:size-11 {here?.id ===
                    item.id
                      ? 'border-2 border-target'
                      : 'border-edge'}"
                    aria-label="{rowName(row)}, {keyShort(item.key)}: {said(item)}"
                    aria-pressed={here?.id === item.id}
                    data-place={item.id}
                    data-known={share(item).toFixed(2)}
                    onclick={() => {
                      typed = null;
                      onplace({ shift: item.shift, area: item.area });
                    }}
                  >
                    <span class="absolute inset-x-0 bottom-0 bg-ink" style:height="{share(item) * 100}%"
                    ></span>
                    {#if next?.id === item.id}<span
                        class="absolute inset-1.5 rounded-full border-2 border-target"
                        aria-hidden="true"
                      ></span>{/if}
                  </button>
                {/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <div class="mt-1 flex flex-wrap items-center gap-1.5">
    <NumberField
      label="Tempo of {lick.name} here"
      min={LOWEST_TEMPO}
      max={HIGHEST_TEMPO}
      unit="bpm"
      value={tempo}
      onset={(value) => (typed = value)}
    />
    <Button size="small" disabled={!here} onclick={() => void mark(true)}><Check size={14} /> clean</Button>
    <Button size="small" disabled={!here} onclick={() => void mark(false)}><X size={14} /> not yet</Button>
    {#if next && next.id !== here?.id}
      <Button size="small" data-next={next.id} onclick={() => onplace({ shift: next.shift, area: next.area })}
        >next: {rowName(next.areaName)}, {keyShort(next.key)}</Button
      >
    {/if}
  </div>
</section>
