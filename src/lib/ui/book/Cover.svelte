<!-- The cover: what it is, and the target line through the whole form as it moves from chord to chord. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { extent } from 'd3-array';
  import { keyText } from '$lib/core/harmony/key';
  import { keyName, keyShort } from '$lib/core/practice/items/words';
  import { counted } from '$lib/core/theory/words';
  import type { BookKey } from '$lib/state/book/book.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { PIXEL } from './pieces';

  interface Props {
    workspace: Workspace;
    keys: readonly BookKey[];
    /** How the keys are ordered, in words. */
    order: string;
    /** Millimetres inside the margins. */
    width: number;
  }
  let { workspace, keys, order, width }: Props = $props();

  const HEIGHT = 330;
  /** Changes that one can tell apart at this width. */
  const MOST = 64;
  const head = $derived(workspace.sheet.head);
  const shown = $derived(workspace.changes.slice(0, MOST));
  const across = $derived(
    scaleLinear()
      .domain([0, (shown.at(-1)?.start ?? 0) + (shown.at(-1)?.beats ?? 1)])
      .range([0, width / PIXEL])
  );
  const [low = 0, high = 1] = $derived(
    extent(shown.flatMap(({ index }) => (workspace.tones[index] ?? []).map(({ midi }) => midi)))
  );
  const up = $derived(
    scaleLinear()
      .domain([low - 1, high + 1])
      .range([HEIGHT - 6, 6])
  );
  const thread = $derived(
    shown
      .flatMap(({ index, start, beats }) => {
        const cell = workspace.paths.targets.get(index)?.cell;
        return cell ? [`${across(start)} ${up(cell.midi)}H${across(start + beats)}`] : [];
      })
      .join('L')
  );
</script>

<div class="cover">
  <p class="kind">Practice book</p>
  <h1 class="font-display">{workspace.document.title}</h1>
  <p class="says">
    {keyName(keyText(workspace.analysis.key))} · {head.meter.beats}/{head.meter.unit}{head.tempo
      ? ` · ${head.tempo} bpm`
      : ''}{head.feel ? ` · ${head.feel}` : ''}
  </p>
  <svg width={width / PIXEL} height={HEIGHT} aria-hidden="true">
    {#each shown as { index, start, beats } (index)}
      {#each workspace.tones[index] ?? [] as { midi, string, fret } (`${string}:${fret}`)}
        <line
          x1={across(start) + 1}
          x2={Math.max(across(start) + 2, across(start + beats) - 2)}
          y1={up(midi)}
          y2={up(midi)}
          class="stroke-tone"
          stroke-width="1.4"
          opacity="0.45"
        />
      {/each}
    {/each}
    {#if thread}<path
        d="M{thread}"
        class="fill-none stroke-target"
        stroke-width="3.2"
        stroke-linejoin="round"
      />{/if}
  </svg>
  <p class="keys font-display">{keys.map(({ home }) => keyShort(keyText(home))).join('  ·  ')}</p>
  <p class="says">
    {counted(keys.length, 'key')}, {order}. Guitar in {settings.now.tuning === 'standard'
      ? 'standard tuning'
      : settings.now.tuning}{settings.now.capo ? `, capo ${settings.now.capo}` : ''}; {workspace.system.title.toLowerCase()}.
  </p>
  <p class="owner">played by <span></span> from <span class="short"></span></p>
</div>

<style>
  .cover {
    display: flex;
    flex-direction: column;
    height: 100%;
    padding-top: 28mm;
  }

  .kind {
    font-size: 5mm;
    color: var(--soft);
  }

  h1 {
    margin: 2mm 0 3mm;
    font-size: 17mm;
    line-height: 1.08;
    overflow-wrap: anywhere;
  }

  .says {
    font-size: 4.2mm;
    color: var(--soft);
  }

  svg {
    display: block;
    margin: 16mm 0 12mm;
  }

  .keys {
    margin-bottom: 3mm;
    font-size: 6.4mm;
    line-height: 9mm;
    white-space: pre-wrap;
  }

  .owner {
    display: flex;
    gap: 2mm;
    align-items: baseline;
    margin-top: auto;
    font-size: 3.6mm;
    color: var(--soft);
  }

  .owner span {
    flex: 1;
    border-bottom: 0.2mm solid var(--soft);
  }

  .owner .short {
    flex: 0 0 40mm;
  }
</style>
