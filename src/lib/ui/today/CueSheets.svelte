<!--
  Cue sheets on paper, to be read from a stand: each tune with its chords large, the note to land on, and what is to be known
  before it begins. As many on a page as fit; the set stands above the first.
-->
<script lang="ts">
  import type { StoredSetList } from '$lib/api/practice';
  import type { StoredChart } from '$lib/api/songbook';
  import { keyText, readKey } from '$lib/core/harmony/key';
  import { keyName } from '$lib/core/practice/items/words';
  import { feelOf } from '$lib/core/practice/feel';
  import { pitchClass, semitonesUp } from '$lib/core/theory/note';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { callRoute } from '$lib/state/call';
  import { chartInKey } from '$lib/state/chart/in-key';
  import { settings } from '$lib/state/settings.svelte';
  import { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { longDay } from './days';

  let { list }: { list: StoredSetList } = $props();
  type Tune = NonNullable<StoredSetList['data']>['charts'][number];
  interface Cue {
    readonly tune: Tune;
    readonly workspace: Workspace;
  }
  let cues: readonly Cue[] = $state.raw([]);

  /** Fetches the charts, each in the key of the day; one that is gone is left out. */
  export async function prepare(): Promise<void> {
    const found = await Promise.all(
      (list.data?.charts ?? []).map(async (tune): Promise<Cue | null> => {
        const chart = await callRoute<StoredChart>(`songbook/${tune.chart}`, '').catch(() => null);
        return chart && { tune, workspace: inKey(new Workspace(chart, true), tune.key) };
      })
    );
    cues = found.filter((cue) => cue !== null);
  }

  function inKey(workspace: Workspace, wanted: string | null): Workspace {
    const to = wanted === null ? null : readKey(wanted);
    const { document, analysis, neck } = workspace;
    const shift = to ? semitonesUp(pitchClass(analysis.key.tonic), pitchClass(to.tonic)) : 0;
    return shift ? chartInKey(document.id, document, analysis.key, shift, neck) : workspace;
  }

  /** Key, tempo, meter, feel, position and tuning, as far as there is something to say. */
  function facts({ tune, workspace }: Cue): string {
    const { head } = workspace.sheet;
    const tempo = tune.tempo ?? head.tempo;
    return [
      keyName(keyText(workspace.analysis.key)),
      tempo === null ? '' : `${tempo} bpm`,
      `${head.meter.beats}/${head.meter.unit}`,
      feelOf(head.feel, head.meter).name,
      `position ${workspace.arrangement.home}`,
      tune.tuning ? `tuning: ${tune.tuning}` : ''
    ]
      .filter(Boolean)
      .join(' · ');
  }
</script>

<section class="hidden text-black print:block" aria-hidden="true" data-sheet="cues">
  <header class="flex items-baseline justify-between border-b-2 border-black">
    <h1 class="font-display text-4xl">{list.name}</h1>
    {#if list.data}<p class="text-lg">{longDay(list.data.day)}</p>{/if}
  </header>
  {#each cues as cue, i (i)}
    {@const { tune, workspace } = cue}
    {@const { bars } = workspace.sheet.form}
    <article class="mt-5 break-inside-avoid" data-cue>
      <h2 class="flex items-baseline gap-3 font-display text-3xl">
        <span>{i + 1}</span><span>{workspace.document.title}</span>
      </h2>
      <p class="text-lg">{facts(cue)}</p>
      {#if tune.note}<p class="text-lg"><b>{tune.note}</b></p>{/if}
      <div class="mt-1.5 grid grid-cols-4 border-t border-l border-black">
        {#each bars as bar (bar.number)}
          {@const opens = bar.section !== bars[bar.number - 2]?.section}
          <div
            class="break-inside-avoid border-r border-b border-black px-1.5 pb-1 {opens ? 'border-l-4' : ''}"
          >
            <p class="h-[13pt] text-[9pt] leading-[13pt]" data-bar>
              {bar.number}{#if opens && bar.section}&ensp;<b>{bar.section}</b>{/if}
            </p>
            <div class="flex flex-wrap gap-x-3">
              {#each workspace.changes.filter((change) => change.bar === bar.number) as change (change.index)}
                {@const target = workspace.paths.targets.get(change.index)?.cell}
                <div class="leading-none whitespace-nowrap">
                  <span class="text-[22pt]" data-chord><ChordSymbol symbol={change.symbol} /></span>
                  {#if target}<p class="mt-0.5 text-[12pt]" data-land>
                      {prettyDegree(target.degree)}
                      {settings.note(target.note)}
                    </p>{/if}
                </div>
              {/each}
            </div>
          </div>
        {/each}
      </div>
    </article>
  {/each}
</section>
