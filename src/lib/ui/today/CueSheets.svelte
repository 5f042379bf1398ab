<!-- Cue sheets on paper: the set on one page, then a page for each tune: its bars, the chord at each, the target to land on. -->
<script lang="ts">
  import type { StoredSetList } from '$lib/api/practice';
  import type { StoredChart } from '$lib/api/songbook';
  import { keyText } from '$lib/core/harmony/key';
  import { keyName } from '$lib/core/practice/items/words';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { callRoute } from '$lib/state/call';
  import { settings } from '$lib/state/settings.svelte';
  import { Workspace } from '$lib/state/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { longDay } from './days';

  let { list }: { list: StoredSetList } = $props();
  let charts: readonly Workspace[] = $state.raw([]);

  /** Fetches the charts; one that is gone is left out. */
  export async function prepare(): Promise<void> {
    const wanted = list.data?.charts ?? [];
    const found = await Promise.all(
      wanted.map(({ chart }) => callRoute<StoredChart>(`songbook/${chart}`, '').catch(() => null))
    );
    charts = found.flatMap((chart) => (chart ? [new Workspace(chart, true)] : []));
  }
  const tuneOf = (workspace: Workspace) =>
    list.data?.charts.find(({ chart }) => chart === workspace.document.id);
</script>

<section class="hidden text-black print:block" aria-hidden="true" data-sheet="cues">
  <h1 class="font-display text-4xl">{list.name}</h1>
  {#if list.data}<p class="text-lg">{longDay(list.data.day)}</p>{/if}
  <ol class="mt-6 list-decimal space-y-3 pl-8 text-xl">
    {#each charts as workspace, i (i)}
      {@const tune = tuneOf(workspace)}
      <li>
        <b class="font-display text-2xl">{workspace.document.title}</b><br />
        {keyName(tune?.key ?? keyText(workspace.analysis.key))}, {tune?.tempo ??
          workspace.sheet.head.tempo ??
          '–'} bpm{tune?.tuning ? `, ${tune.tuning}` : ''}
      </li>
    {/each}
  </ol>
  {#each charts as workspace, i (i)}
    {@const tune = tuneOf(workspace)}
    <article class="break-before-page">
      <h2 class="font-display text-3xl">{workspace.document.title}</h2>
      <p class="text-lg">
        {keyName(tune?.key ?? keyText(workspace.analysis.key))}, {tune?.tempo ??
          workspace.sheet.head.tempo ??
          '–'} bpm,
        {workspace.sheet.head.meter.beats}/{workspace.sheet.head.meter.unit}{tune?.tuning
          ? `, ${tune.tuning}`
          : ''}
      </p>
      <div class="mt-4 grid grid-cols-4 border-t border-l border-black">
        {#each workspace.sheet.form.bars as bar (bar.number)}
          {@const inside = workspace.changes.filter((change) => change.bar === bar.number)}
          <div class="min-h-16 break-inside-avoid border-r border-b border-black p-1.5">
            <p class="text-xs">
              {bar.number === 1 || bar.section !== workspace.sheet.form.bars[bar.number - 2]?.section
                ? bar.section
                : ''}
            </p>
            <div class="flex flex-wrap gap-x-4">
              {#each inside as change (change.index)}
                {@const target = workspace.paths.targets.get(change.index)?.cell}
                <span class="text-xl whitespace-nowrap"
                  ><ChordSymbol symbol={change.symbol} />
                  {#if target}<span class="text-sm"
                      >{prettyDegree(target.degree)} {settings.note(target.note)}</span
                    >{/if}</span
                >
              {/each}
            </div>
          </div>
        {/each}
      </div>
    </article>
  {/each}
</section>
