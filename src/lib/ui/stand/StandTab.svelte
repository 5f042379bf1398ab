<!--
  The run over this change as tab, its degrees below, along the beats as they are written; at the end the first note over the
  coming chord. What has sounded fades, what sounds is lit.
-->
<script lang="ts">
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { RunNote } from '$lib/core/practice/run-over';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import type { StandSizes } from './fit';
  import { tabHeight } from './tab';

  interface Props {
    rehearsal: Rehearsal;
    sizes: StandSizes;
    width: number;
  }
  let { rehearsal, sizes, width }: Props = $props();

  const strings = $derived(rehearsal.picture.shown.neck.strings.length);
  const run = $derived(rehearsal.picture.run);
  const beats = $derived(rehearsal.picture.change?.beats ?? 1);
  const isHidden = $derived(rehearsal.picture.hides !== 'nothing');
  const size = $derived(sizes.fret + 1);
  const height = $derived(tabHeight(strings, sizes));
  const [left, right] = $derived([size * 1.4, width - size * 2.8]);
  const x = (at: number) => left + at * (right - left);
  const y = (string: number) => size * 0.75 + (string - 1) * (size * 0.92);
  const bottom = $derived(y(strings));
  const into = $derived(
    rehearsal.transport.isPlaying && !rehearsal.picture.counting ? rehearsal.picture.into : null
  );
  const isLit = ({ at, length }: RunNote) => into !== null && into >= at && into < at + length;
  const isPast = ({ at, length }: RunNote) => into !== null && into >= at + length;
  /** Degrees closer than this would run into one another. */
  const isCrowded = $derived(run.length > 1 && (right - left) / run.length < sizes.degree * 1.5);
</script>

<svg {width} {height} class="block select-none" role="img" aria-label="The run over this chord" data-run-tab>
  {#each { length: strings } as _, i (i)}
    <line
      x1="0"
      x2={width}
      y1={y(i + 1)}
      y2={y(i + 1)}
      class="stroke-string"
      stroke="var(--string)"
      stroke-width="1"
    />
  {/each}
  {#each { length: Math.max(1, Math.ceil(beats - 1e-6)) } as _, i (i)}
    <line
      x1={x(i / beats) - size * 0.9}
      x2={x(i / beats) - size * 0.9}
      y1={y(1)}
      y2={bottom}
      class={i === 0 ? 'stroke-ink' : 'stroke-line'}
      stroke-width={i === 0 ? 2 : 1}
    />
  {/each}
  <line
    x1={right + size * 0.2}
    x2={right + size * 0.2}
    y1={y(1)}
    y2={bottom}
    class="stroke-ink"
    stroke-width="2"
  />
  {#each run as note, i (i)}
    {@const nowLit = isLit(note)}
    <g
      transform="translate({x(note.at)}, 0)"
      opacity={isPast(note) ? 0.5 : 1}
      data-tab-note={note.place ? `${note.place.string}:${note.place.fret}` : ''}
    >
      {#if note.place && !isHidden}
        <rect
          x={-size * 0.62}
          y={y(note.place.string) - size * 0.54}
          width={size * 1.24}
          height={size * 1.08}
          rx="4"
          class={nowLit ? 'fill-ink' : 'fill-paper'}
        />
        <text
          y={y(note.place.string) + size * 0.36}
          text-anchor="middle"
          font-size={size}
          class="font-bold {nowLit ? 'fill-paper' : note.isTarget ? 'fill-target' : 'fill-ink'}"
          >{note.place.fret}</text
        >
      {/if}
      {#if !isCrowded || note.isTarget}
        <text
          y={bottom + sizes.degree * 1.25}
          text-anchor="middle"
          font-size={sizes.degree}
          class="font-bold {note.isTarget ? 'fill-target' : nowLit ? 'fill-ink' : 'fill-soft'}"
          data-tab-degree>{isHidden ? '·' : prettyDegree(note.degree)}</text
        >
      {/if}
    </g>
  {/each}
  {#if rehearsal.picture.firstOver && !isHidden}
    {@const { place, degree } = rehearsal.picture.firstOver}
    <text
      x={width - size * 1.2}
      y={y(place.string) + size * 0.36}
      text-anchor="middle"
      font-size={size}
      class="fill-next font-bold">{place.fret}</text
    >
    <text
      x={width - size * 1.2}
      y={bottom + sizes.degree * 1.25}
      text-anchor="middle"
      font-size={sizes.degree}
      class="fill-next font-bold">{prettyDegree(degree)}</text
    >
  {/if}
  {#if into !== null}
    <line
      x1={x(into)}
      x2={x(into)}
      y1="0"
      y2={bottom}
      class="stroke-target"
      stroke-width="2"
      stroke-opacity="0.8"
      data-tab-playhead
    />
  {/if}
</svg>
