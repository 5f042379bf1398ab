<!-- What is practised, chart by chart, in the player's order: how far each is, opened at the stand, put elsewhere, changed, left. -->
<script lang="ts">
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Play from '@lucide/svelte/icons/play';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import { itemData, type ItemWithProgress, type StoredItem } from '$lib/api/practice';
  import { lickPlaceOf } from '$lib/core/practice/items/lick-items';
  import { keyName, loopName } from '$lib/core/practice/items/words';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { agoText } from '$lib/core/practice/log/day';
  import { counted } from '$lib/core/theory/words';
  import { askFor } from '$lib/state/practice/assigned';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import ItemTempo from './ItemTempo.svelte';
  import type { PanelProps } from './panels';
  import TakeUp from './TakeUp.svelte';

  let { today }: PanelProps = $props();
  /** Charts of which what is not open yet is shown too. */
  let unfolded: readonly string[] = $state.raw([]);
  const isShut = ({ progress }: ItemWithProgress) => progress?.state === 'shut';
  const STATES = { shut: 'not open yet', open: 'open', 'in progress': 'in progress', held: 'held' } as const;

  /** While something is dragged its group stands as the dragger has it; once the items are others it is let go. */
  let dragged: { of: readonly ItemWithProgress[]; chart: string | null; items: ItemWithProgress[] } | null =
    $state.raw(null);
  const itemsOf = (group: { chart: string | null; items: ItemWithProgress[] }) =>
    dragged?.chart === group.chart && dragged.of === today.now.items ? dragged.items : group.items;
  function finish(chart: string | null, event: CustomEvent<DndEvent<ItemWithProgress>>) {
    dragged = null;
    void today.reorder([
      ...today.byChart.flatMap((group) =>
        (group.chart === chart ? event.detail.items : group.items).map(({ id }) => id)
      )
    ]);
  }
  function place({ data }: StoredItem): string {
    if (!data) return '';
    return [
      data.key ? keyName(data.key) : null,
      data.area === null ? null : `position ${data.area}`,
      loopName(data.over)
    ]
      .filter(Boolean)
      .join(' · ');
  }
  async function open({ id, chart, data, progress }: ItemWithProgress) {
    if (lickPlaceOf(id)) return goto(`/licks?item=${encodeURIComponent(id)}`);
    if (!data || chart === null) return;
    askFor(chart, {
      item: id,
      name: data.name,
      what: data.what,
      line: data.line,
      over: data.over,
      area: data.area,
      key: data.key,
      start: progress?.next ?? null,
      steps: progress
        ? [{ minutes: data.minutes, tempo: progress.next, base: progress.base, goal: data.tempo.goal }]
        : [],
      rung: data.tempo.step
    });
    await goto(`/charts/${chart}?view=rehearse`);
  }
  async function remove(items: readonly StoredItem[], name: string) {
    const restore = await today.remove(items);
    if (restore)
      toast(`${name} was archived. What you played stays in the log.`, {
        action: { label: 'Undo', onClick: () => void restore() }
      });
  }

  /** The item that is being changed. */
  let editing: string | null = $state(null);
  let own = $state('');
  async function addOwn() {
    const name = own.trim();
    if (!name) return;
    const data = itemData.parse({ what: 'own', name, tempo: { start: 60, goal: 90 } });
    if (await today.addItem(null, data)) own = '';
  }
</script>

<section aria-label="Exercises">
  <TakeUp {today} />
  <form
    class="mt-2 flex flex-wrap items-center gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      void addOwn();
    }}
  >
    <input
      class="h-11 min-w-40 flex-1 basis-60 rounded-md border border-edge bg-surface px-3"
      aria-label="Your own exercise"
      placeholder="Your own exercise: a warm-up, a tune by ear …"
      maxlength="120"
      bind:value={own}
    />
    <Button size="stand" type="submit" disabled={!own.trim() || today.isBusy}>add it</Button>
  </form>
  {#each today.byChart as group (group.chart)}
    {@const held = group.items.filter(({ progress }) => progress?.state === 'held').length}
    <section class="mt-5" aria-label={group.title} data-items-of={group.title}>
      <div class="flex flex-wrap items-baseline gap-3">
        <h2 class="font-display text-2xl">
          {#if group.chart}<a
              class="inline-flex items-center hover:underline pointer-coarse:min-h-11"
              href="/charts/{group.chart}">{group.title}</a
            >{:else}{group.title}{/if}
        </h2>
        <p class="text-soft">{held} of {group.items.length} held</p>
        <Button size="small" class="ml-auto" onclick={() => void remove(group.items, group.title)}
          >archive it</Button
        >
      </div>
      <ol
        class="mt-1.5 divide-y divide-[var(--line)] card"
        aria-label="In order: {group.title}"
        use:dragHandleZone={{
          items: itemsOf(group),
          flipDurationMs: 0,
          dropTargetStyle: {},
          type: group.chart ?? 'own'
        }}
        onconsider={(event: CustomEvent<DndEvent<ItemWithProgress>>) =>
          (dragged = { of: today.now.items, chart: group.chart, items: event.detail.items })}
        onfinalize={(event: CustomEvent<DndEvent<ItemWithProgress>>) => finish(group.chart, event)}
      >
        {#each itemsOf(group) as item (item.id)}
          {@const { data, progress } = item}
          <li
            class="px-3 py-2"
            hidden={isShut(item) && !unfolded.includes(group.chart ?? '')}
            data-item={item.id}
            data-state={progress?.state ?? 'gone'}
          >
            <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
              <div
                use:dragHandle
                class="flex w-6 cursor-grab items-center justify-center text-soft pointer-coarse:min-h-11 pointer-coarse:w-11"
                aria-label="Move {data?.name ?? 'this'}"
              >
                <GripVertical size={17} />
              </div>
              <div class="min-w-40 flex-1 {progress?.state === 'shut' ? 'text-soft' : ''}">
                <b class="font-display text-lg">{data?.name ?? 'It cannot be read any more'}</b>
                <span class="ml-2 text-base">{place(item)}</span>
                <p class="text-sm text-soft">
                  {#if progress}{progress.isResting ? 'rests for some days' : STATES[progress.state]}{progress
                      .seams.length
                      ? `, a seam in bar ${progress.seams.join(' and ')}`
                      : ''}{progress.lastDay
                      ? `; last played ${agoText(progress.lastDay, today.now.day)}, ${Math.round(progress.seconds / 60)} minutes in all`
                      : ''}{:else if data}its chart was deleted; it is kept, but not planned{:else}it is kept
                    as it is{/if}
                </p>
              </div>
              {#if data && progress}
                <ItemTempo tempo={data.tempo} {progress} />
                {#if item.chart || lickPlaceOf(item.id)}<Button
                    label="Play {data.name}"
                    hint="{item.chart ? 'At the stand' : 'In the lick book'}, at {progress.next}"
                    onclick={() => void open(item)}><Play size={16} /></Button
                  >{/if}
              {/if}
              {#if data}<Button
                  label="Change {data.name}"
                  pressed={editing === item.id}
                  onclick={() => (editing = editing === item.id ? null : item.id)}
                  ><Pencil size={15} /></Button
                >{/if}
              <Button
                label="Archive {data?.name ?? 'it'}"
                onclick={() => void remove([item], data?.name ?? 'It')}><Trash2 size={15} /></Button
              >
            </div>
            {#if data && editing === item.id}
              <div class="mt-1 ml-9 flex flex-wrap items-center gap-2 py-1">
                <input
                  class="h-9 min-w-40 rounded-md border border-edge bg-surface px-2 pointer-coarse:h-11"
                  aria-label="Name of {data.name}"
                  maxlength="120"
                  value={data.name}
                  onchange={(event) => {
                    const name = event.currentTarget.value.trim();
                    if (name) void today.change(item, { name });
                  }}
                />
                {#each [['start', 'from'], ['goal', 'to be held at']] as const as [end, word] (end)}
                  <span>{word}</span>
                  <NumberField
                    label="{data.name}: {word}"
                    min={LOWEST_TEMPO}
                    max={HIGHEST_TEMPO}
                    value={data.tempo[end]}
                    onset={(value) => void today.change(item, { tempo: { ...data.tempo, [end]: value } })}
                  />
                {/each}
                <span>bpm, for</span>
                <NumberField
                  label="{data.name}: minutes"
                  min={1}
                  max={60}
                  unit="min"
                  value={data.minutes}
                  onset={(minutes) => void today.change(item, { minutes })}
                />
                {#if data.after.length}
                  <Button
                    size="small"
                    hint="It opens once {counted(data.after.length, 'other')} was clean at 85 % of its goal"
                    onclick={() => void today.change(item, { after: [] })}>open it now</Button
                  >
                {/if}
              </div>
            {/if}
          </li>
        {/each}
      </ol>
      {#if group.items.some(isShut)}
        {@const name = group.chart ?? ''}
        {@const isOpen = unfolded.includes(name)}
        <Button
          size="small"
          class="mt-1.5"
          aria-expanded={isOpen}
          data-unfold={group.title}
          onclick={() => (unfolded = isOpen ? unfolded.filter((one) => one !== name) : [...unfolded, name])}
          >{isOpen ? 'hide' : 'show'}
          {counted(group.items.filter(isShut).length, 'exercise')} not open yet</Button
        >
      {/if}
    </section>
  {:else}
    <p class="mt-4 card p-6 text-center text-soft">Nothing is practised yet. Choose a chart above.</p>
  {/each}
</section>
