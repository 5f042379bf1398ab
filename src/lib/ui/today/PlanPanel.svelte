<!-- The plan for the minutes there are: parts with their reasons, bent by the player, started with one press; a page to print. -->
<script lang="ts">
  import ArrowLeftRight from '@lucide/svelte/icons/arrow-left-right';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import Minus from '@lucide/svelte/icons/minus';
  import Play from '@lucide/svelte/icons/play';
  import Plus from '@lucide/svelte/icons/plus';
  import Printer from '@lucide/svelte/icons/printer';
  import X from '@lucide/svelte/icons/x';
  import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import { FEWEST_MINUTES, MOST_MINUTES, PARTS } from '$lib/core/practice/session/parts';
  import { keyName, loopName } from '$lib/core/practice/items/words';
  import { counted } from '$lib/core/theory/words';
  import { placeOfPart, type RunPart } from '$lib/state/practice/run-part';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import AheadPicture from './AheadPicture.svelte';
  import { longDay } from './days';
  import LastDays from './LastDays.svelte';
  import PlanSheet from './PlanSheet.svelte';
  import type { PanelProps } from './panels';
  import TakeUp from './TakeUp.svelte';

  let { today }: PanelProps = $props();
  const USUAL = [10, 25, 45, 60];
  const now = $derived(today.now);
  const isNewcomer = $derived(now.items.length === 0);
  const next = $derived(
    now.setLists.find(({ data }) => data && data.charts.length > 0 && data.day >= now.day)
  );

  /** The set list whose day drives the plan. */
  const driving = $derived(now.plan.readiness && next?.data ? { name: next.name, day: next.data.day } : null);

  /** While a part is dragged the list is the dragger's, until the plan is another one. */
  let dragged: { of: readonly RunPart[]; parts: RunPart[] } | null = $state.raw(null);
  const parts: RunPart[] = $derived.by(() =>
    dragged?.of === today.parts ? dragged.parts : [...today.parts]
  );
  function consider(event: CustomEvent<DndEvent<RunPart>>) {
    dragged = { of: today.parts, parts: event.detail.items };
  }
  function finish(event: CustomEvent<DndEvent<RunPart>>) {
    today.order(event.detail.items);
    dragged = null;
  }
  /** The same without dragging. */
  function move(at: number, by: number) {
    const order = [...today.parts];
    const [part] = order.splice(at, 1);
    if (!part) return;
    order.splice(Math.min(order.length, Math.max(0, at + by)), 0, part);
    today.order(order);
  }

  async function start() {
    sessionRun.start(today.parts);
    const first = sessionRun.current;
    if (first) await goto(placeOfPart(first));
  }
  const place = ({ kind, title, name, key, data, steps }: RunPart) =>
    [
      // The name of a form tells its tune; with a tuning the title says more.
      kind === 'form' && title && name.startsWith(title) ? null : title,
      key ? keyName(key) : null,
      data && data.area !== null ? `position ${data.area}` : null,
      stretches(steps ?? [])
    ]
      .filter(Boolean)
      .join(' · ');
  /** "the whole, bars 9 to 16, the whole" where a part has more than one stretch. */
  const stretches = (steps: NonNullable<RunPart['steps']>) =>
    steps.length > 1
      ? steps.map(({ bars }) => (bars ? loopName({ kind: 'bars', ...bars }) : 'the whole')).join(', ')
      : '';
</script>

<div class="grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-[minmax(0,1fr)_300px] print:hidden">
  <section class="min-w-0" aria-label="The plan">
    <div class="flex flex-wrap items-center gap-2">
      <h2 class="font-display text-2xl">I have</h2>
      <NumberField
        size="stand"
        class="w-20 text-xl font-bold"
        label="Minutes"
        min={FEWEST_MINUTES}
        max={MOST_MINUTES}
        value={now.minutes}
        onset={(minutes) => today.load(minutes)}
      />
      <span class="font-display text-2xl">minutes</span>
      <div class="flex gap-1" role="group" aria-label="Usual lengths">
        {#each USUAL as minutes (minutes)}
          <Button size="stand" pressed={now.minutes === minutes} onclick={() => today.load(minutes)}
            >{minutes}</Button
          >
        {/each}
      </div>
      <Button
        size="stand"
        tone="target"
        class="ml-auto min-w-32 text-lg"
        disabled={parts.length === 0}
        onclick={() => void start()}><Play size={18} /> Start</Button
      >
    </div>

    {#if isNewcomer}
      <div class="mt-3 card p-4">
        <p class="text-base">
          Nothing is practised yet. Choose a chart to practise: its shapes, targets and lines come in the
          order you learn them, one area of the neck first.
        </p>
        <TakeUp {today} />
      </div>
    {/if}

    {#if now.plan.word}<p class="mt-2 text-base text-soft" data-word>{now.plan.word}</p>{/if}
    {#if driving}<p class="mt-2 text-base" data-driven>
        <b>{driving.name}</b>, {longDay(driving.day)}: its tunes come first until then.
      </p>{/if}

    <ol
      class="mt-3 flex flex-col gap-2"
      data-plan
      aria-label="Parts in their order"
      use:dragHandleZone={{ items: parts, flipDurationMs: 0, dropTargetStyle: {} }}
      onconsider={consider}
      onfinalize={finish}
    >
      {#each parts as part, at (part.id)}
        <li
          class="flex flex-wrap items-stretch gap-x-3 gap-y-1 card p-3 {part.kind === 'rest'
            ? 'border-dashed'
            : ''}"
          data-part={part.kind}
          data-item={part.item}
          data-minutes={part.minutes}
        >
          <div
            use:dragHandle
            class="-ml-1 flex w-6 cursor-grab items-center justify-center text-soft pointer-coarse:w-11"
            aria-label="Move {part.name}"
          >
            <GripVertical size={18} />
          </div>
          <div class="w-16 shrink-0 text-right whitespace-nowrap">
            <b class="font-display text-3xl leading-9 tabular-nums">{part.minutes}</b>
            <span class="text-xs text-soft">min</span>
          </div>
          <div class="min-w-0 flex-1 basis-52">
            <p class="flex flex-wrap items-baseline gap-x-3">
              <b class="font-display text-xl">{part.name}</b>
              {#if part.tempo !== undefined}<span class="tabular-nums">{part.tempo} bpm</span>{/if}
              {#if part.item && part.kind !== 'form'}<span class="text-sm text-soft"
                  >{PARTS[part.kind].name.toLowerCase()}</span
                >{/if}
            </p>
            {#if place(part)}<p class="text-base">{place(part)}</p>{/if}
            <p class="text-sm text-soft">{part.why}</p>
          </div>
          <div class="flex flex-wrap content-center items-center justify-end gap-1 max-sm:w-full">
            <Button
              size="small"
              label="A minute less of {part.name}"
              onclick={() => today.lengthen(part.id, -1)}><Minus size={14} /></Button
            >
            <Button
              size="small"
              label="A minute more of {part.name}"
              onclick={() => today.lengthen(part.id, 1)}><Plus size={14} /></Button
            >
            {#if part.item}
              <Button
                size="small"
                label="Swap {part.name}"
                onclick={() => {
                  if (!today.swap(part.id)) toast('Nothing else is open today.');
                }}><ArrowLeftRight size={14} /></Button
              >
            {/if}
            <Button size="small" label="{part.name} earlier" disabled={at === 0} onclick={() => move(at, -1)}
              >↑</Button
            >
            <Button size="small" label="Skip {part.name}" onclick={() => today.leaveOut(part.id)}
              ><X size={14} /></Button
            >
          </div>
        </li>
      {/each}
    </ol>
    <p class="mt-2 flex flex-wrap items-center gap-3 text-sm text-soft" aria-live="polite">
      <span data-planned={today.planned}>{counted(today.planned, 'minute')} planned.</span>
      <Button size="small" onclick={() => today.load()}>reset the plan</Button>
      <Button size="small" onclick={() => print()}><Printer size={14} /> a page for today</Button>
    </p>
    {#if !isNewcomer}<AheadPicture {today} />{/if}
  </section>

  <aside class="flex flex-col gap-4" aria-label="Beside the plan">
    <div class="card p-4">
      <h2 class="font-display text-xl">Cards</h2>
      <p class="mt-1 text-base" data-due={now.cards.due}>
        {#if now.cards.due}<b>{counted(now.cards.due, 'card')}</b> due of {now.cards
            .known}.{:else if now.cards.known}None due of {now.cards.known}.{:else}None yet; they come from
          the charts you practise.{/if}
      </p>
      <Button class="mt-2" onclick={() => void goto('/trainer')}>Two-minute round</Button>
    </div>
    {#if next?.data}
      <div class="card p-4">
        <h2 class="font-display text-xl">{next.name}</h2>
        <p class="mt-1 text-base">
          {longDay(next.data.day)}: {counted(next.data.charts.length, 'tune')}.
        </p>
        <Button class="mt-2" onclick={() => void goto('?show=dates')}>How ready it is</Button>
      </div>
    {/if}
    <LastDays days={now.days} />
    <p class="text-xs text-soft">
      Take breaks. If something hurts, stop; if it persists, see a professional.
    </p>
  </aside>
</div>
<PlanSheet day={now.day} parts={today.parts} />
