<!-- Set lists with their day: how far each tune will be by then, a run-through, cue sheets. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Plus from '@lucide/svelte/icons/plus';
  import Printer from '@lucide/svelte/icons/printer';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { tick } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import type { SetListData, StoredSetList } from '$lib/api/practice';
  import { transposeKey } from '$lib/core/chart/transpose';
  import { keyText, readKey } from '$lib/core/harmony/key';
  import { keyName } from '$lib/core/practice/items/words';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { dayAfter, daysBetween } from '$lib/core/practice/log/day';
  import { DATE } from '$lib/core/practice/session/date';
  import { counted } from '$lib/core/theory/words';
  import { placeOfPart, type RunPart } from '$lib/state/practice/run-part';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import CueSheets from './CueSheets.svelte';
  import { longDay } from './days';
  import { outlookSaid } from './outlook';
  import OutlookPicture from './OutlookPicture.svelte';
  import type { PanelProps } from './panels';

  let { today }: PanelProps = $props();
  const now = $derived(today.now);
  const titles = $derived(new Map(now.charts.map(({ id, title }) => [id, title])));

  /** How far each tune of a list will be by its day; nothing is foretold of a list that is over. */
  const tunesOf = (list: StoredSetList, data: SetListData) =>
    data.charts.map((tune, at) => ({ ...tune, outlook: now.outlooks[list.id]?.[at] ?? null }));
  const daysTo = (day: string) => daysBetween(now.day, day);

  /** At this pace so many tunes reach their tempo; null where all do, or nothing is known. */
  function paceSaid(tunes: ReturnType<typeof tunesOf>): string | null {
    const known = tunes.flatMap(({ outlook }) => (outlook?.goal === undefined ? [] : [outlook]));
    const near = known.filter(({ middle, goal }) => middle! >= goal! * NEAR);
    if (known.length === 0 || near.length === known.length) return null;
    return near.length === 0
      ? 'At your pace none of these tunes reaches its tempo by then. Lower the tempo, or play fewer of them.'
      : `At your pace ${counted(near.length, 'tune')} of ${known.length} ${near.length === 1 ? 'reaches its' : 'reach their'} tempo by then. Play the others slower, or leave some out.`;
  }
  /** Share of the goal that counts as reached. */
  const NEAR = 0.97;

  const chartKey = (chart: string) => now.charts.find(({ id }) => id === chart)?.key ?? '';
  /** The twelve keys of a tune, its own first. */
  function keysOf(chart: string): readonly { value: string; name: string }[] {
    const key = readKey(chartKey(chart));
    if (!key) return [];
    return Array.from({ length: 12 }, (_, shift) => transposeKey(keyText(key), key, shift)).map((value) => ({
      value,
      name: keyName(value)
    }));
  }

  let name = $state('');
  async function add() {
    const own = name.trim();
    if (!own) return;
    await today.keepSetList(own, { day: dayAfter(now.day, 7), minutes: 30, charts: [] });
    name = '';
  }
  const edit = (list: StoredSetList, part: Partial<SetListData>) =>
    list.data && today.changeSetList(list, { data: { ...list.data, ...part } });
  function move(list: StoredSetList, at: number, by: number) {
    const charts = [...(list.data?.charts ?? [])];
    const [tune] = charts.splice(at, 1);
    if (!tune) return;
    charts.splice(at + by, 0, tune);
    void edit(list, { charts });
  }
  async function remove(list: StoredSetList) {
    const restore = await today.removeSetList(list);
    if (restore)
      toast(`“${list.name}” was deleted.`, { action: { label: 'Undo', onClick: () => void restore() } });
  }

  /** Minutes that a tune of a run-through is given. */
  const RUN_THROUGH = 5;
  /** All tunes in order with the band, at the tempo of the day. */
  async function runThrough({ name: of, data }: StoredSetList) {
    if (!data) return;
    const parts = data.charts.map((tune, i): RunPart => {
      const form = now.items.find(({ chart, data: own }) => chart === tune.chart && own?.form);
      const tempo = tune.tempo ?? form?.data?.tempo.goal;
      const title = titles.get(tune.chart) ?? 'A deleted chart';
      return {
        id: `${i} ${tune.chart}`,
        kind: 'form',
        minutes: RUN_THROUGH,
        chart: tune.chart,
        // It counts for the whole form, at the tempo of the day.
        ...(form ? { item: form.id } : {}),
        ...(tempo === undefined ? {} : { tempo }),
        key: tune.key ?? chartKey(tune.chart),
        why: `${of}, number ${i + 1}${tune.tuning ? `; tuning: ${tune.tuning}` : ''}`,
        name: `${title}, ${i + 1} of ${data.charts.length}`,
        title: tune.tuning ? `${title} · tuning: ${tune.tuning}` : title,
        data: form?.data ?? null
      };
    });
    sessionRun.start(parts.filter(({ chart }) => chart !== undefined && titles.has(chart)));
    if (sessionRun.current) await goto(placeOfPart(sessionRun.current));
  }

  let printed: StoredSetList | null = $state.raw(null);
  let sheets: CueSheets | undefined = $state();
  async function cue(list: StoredSetList) {
    printed = list;
    await tick();
    await sheets?.prepare();
    await tick();
    print();
  }
</script>

<section class="print:hidden" aria-label="Set lists">
  <form
    class="flex flex-wrap items-center gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      void add();
    }}
  >
    <input
      class="h-11 min-w-40 flex-1 basis-60 rounded-md border border-edge bg-surface px-3"
      aria-label="Name of a new set list"
      placeholder="A set list: Saturday, the lesson, the session …"
      maxlength="120"
      bind:value={name}
    />
    <Button size="stand" type="submit" disabled={!name.trim()}><Plus size={16} /> new set list</Button>
  </form>
  {#each now.setLists as list (list.id)}
    {#if list.data}
      {@const data = list.data}
      {@const tunes = tunesOf(list, data)}
      {@const days = Math.max(0, daysTo(data.day))}
      {@const said = days ? paceSaid(tunes) : null}
      <article class="mt-4 card p-4" aria-label={list.name} data-set-list={list.name}>
        <div class="flex flex-wrap items-center gap-3">
          <input
            class="min-w-40 flex-1 rounded-md border border-transparent bg-transparent px-1 font-display text-2xl hover:border-edge focus:border-edge pointer-coarse:min-h-11"
            aria-label="Name of the set list"
            maxlength="120"
            value={list.name}
            onchange={(event) => {
              const own = event.currentTarget.value.trim();
              if (own) void today.changeSetList(list, { name: own });
            }}
          />
          <label class="flex items-center gap-2"
            >on <input
              type="date"
              class="h-9 rounded-md border border-edge bg-surface px-2 pointer-coarse:h-11"
              value={data.day}
              onchange={(event) =>
                event.currentTarget.value && void edit(list, { day: event.currentTarget.value })}
            /></label
          >
          <Button tone="strong" disabled={data.charts.length === 0} onclick={() => void runThrough(list)}
            ><Play size={16} /> run-through</Button
          >
          <Button disabled={data.charts.length === 0} onclick={() => void cue(list)}
            ><Printer size={16} /> cue sheets</Button
          >
          <Button label="Delete {list.name}" onclick={() => void remove(list)}><Trash2 size={15} /></Button>
        </div>
        <p class="mt-1 px-1 text-soft">
          {longDay(data.day)}: {days
            ? `${counted(days, 'day')} from now`
            : data.day === now.day
              ? 'today'
              : 'gone by'}.
          {#if days > 0 && days <= DATE.days}The plan of each day works towards it.{/if}
        </p>
        {#if said}<p class="mt-1 px-1 text-warn" data-pace>{said}</p>{/if}
        <ol class="mt-2 divide-y divide-[var(--line)]">
          {#each tunes as tune, at (at)}
            <li class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2" data-tune>
              <span class="w-6 text-right font-display text-lg text-soft">{at + 1}</span>
              <div class="min-w-44 flex-1">
                {#if titles.has(tune.chart)}<a
                    class="inline-flex items-center font-display text-lg hover:underline pointer-coarse:min-h-11"
                    href="/charts/{tune.chart}">{titles.get(tune.chart)}</a
                  >{:else}<span class="text-warn">A deleted chart</span>{/if}
              </div>
              {#if tune.outlook?.goal !== undefined}<OutlookPicture outlook={tune.outlook} />{/if}
              {#if keysOf(tune.chart).length}<Select
                  label="Key of {titles.get(tune.chart)} on the day"
                  value={tune.key ?? chartKey(tune.chart)}
                  options={keysOf(tune.chart)}
                  onpick={(key) =>
                    void edit(list, {
                      charts: data.charts.map((one, i) =>
                        i === at ? { ...one, key: key === chartKey(tune.chart) ? null : key } : one
                      )
                    })}
                />{/if}
              <NumberField
                label="Tempo of {titles.get(tune.chart) ?? 'it'} on the day"
                min={LOWEST_TEMPO}
                max={HIGHEST_TEMPO}
                unit="bpm"
                value={tune.tempo ?? tune.outlook?.goal ?? 100}
                onset={(tempo) =>
                  void edit(list, {
                    charts: data.charts.map((one, i) => (i === at ? { ...one, tempo } : one))
                  })}
              />
              <input
                class="h-9 w-32 rounded-md border border-transparent bg-transparent px-1 text-sm hover:border-edge focus:border-edge pointer-coarse:h-11"
                aria-label="Tuning for {titles.get(tune.chart) ?? 'it'}"
                placeholder="tuning"
                maxlength="80"
                value={tune.tuning}
                onchange={(event) =>
                  void edit(list, {
                    charts: data.charts.map((one, i) =>
                      i === at ? { ...one, tuning: event.currentTarget.value } : one
                    )
                  })}
              />
              <Button size="small" label="Earlier" disabled={at === 0} onclick={() => move(list, at, -1)}
                >↑</Button
              >
              <Button
                size="small"
                label="Later"
                disabled={at === tunes.length - 1}
                onclick={() => move(list, at, 1)}>↓</Button
              >
              <Button
                size="small"
                label="Remove from the list"
                onclick={() => void edit(list, { charts: data.charts.filter((_, i) => i !== at) })}
                ><Trash2 size={14} /></Button
              >
              <div class="flex min-w-0 basis-full flex-wrap items-center gap-x-4 pl-10">
                <p class="min-w-60 flex-1 text-sm text-soft" data-outlook-said>{outlookSaid(tune.outlook)}</p>
                <input
                  class="h-9 w-64 rounded-md border border-transparent bg-transparent px-1 text-sm hover:border-edge focus:border-edge pointer-coarse:h-11"
                  aria-label="Note on {titles.get(tune.chart) ?? 'it'}"
                  placeholder="note: who begins, how it ends …"
                  maxlength="500"
                  value={tune.note}
                  onchange={(event) =>
                    void edit(list, {
                      charts: data.charts.map((one, i) =>
                        i === at ? { ...one, note: event.currentTarget.value } : one
                      )
                    })}
                />
              </div>
            </li>
          {/each}
        </ol>
        {#if now.charts.length}
          <!-- Anew after each tune: the same one may come twice. -->
          {#key data.charts.length}
            <Select
              class="mt-2"
              label="Add a tune to {list.name}"
              value=""
              options={[
                { value: '', name: 'add a tune …' },
                ...now.charts.map(({ id, title }) => ({ value: id, name: title }))
              ]}
              onpick={(chart) =>
                chart &&
                void edit(list, {
                  charts: [...data.charts, { chart, key: null, tempo: null, tuning: '', note: '' }]
                })}
            />
          {/key}
        {/if}
      </article>
    {:else}
      <p class="mt-4 card p-4 text-warn">
        “{list.name}” cannot be read any more. It is kept as it is.
        <Button onclick={() => void remove(list)}>delete it</Button>
      </p>
    {/if}
  {:else}
    <p class="mt-4 card p-6 text-center text-soft">
      No date yet. A set list works towards a day: it shows how far each tune will be by then, and the plan of
      each day puts its tunes first.
    </p>
  {/each}
</section>
{#if printed}<CueSheets bind:this={sheets} list={printed} />{/if}
