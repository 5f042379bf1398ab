<!-- One change as a small neck: chord, what is played, its shape under the hand, the target. -->
<script lang="ts">
  import type { Mark, Moment } from '$lib/core/moment/moment';
  import { areaLabel } from '$lib/core/neck/area';
  import type { Instrument } from '$lib/core/neck/tuning';
  import type { Target } from '$lib/core/targets/path';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck, { type MiniNote } from '../neck/MiniNeck.svelte';
  import { handWindow } from './window';

  interface Props {
    moment: Moment;
    neck: Instrument;
    /** Where the hand is wanted, where nothing is played. */
    wanted: number;
    target: Target | undefined;
    width: number;
  }
  let { moment, neck, wanted, target, width }: Props = $props();

  const { change, choice, area, marks } = $derived(moment);
  const position = $derived(area?.position ?? wanted);
  const { from, to } = $derived(handWindow(moment, neck, wanted));
  const strings = $derived(neck.strings.length);
  const geometry = $derived(
    neckGeometry({
      width,
      strings,
      from,
      to,
      stringGap: Math.min(11.5, 57.5 / (strings - 1)),
      top: 8,
      bottom: 8,
      open: from === 1 ? 14 : 3,
      leftHanded: settings.now.leftHanded
    })
  );
  const LOOKS = { chord: 'full', tension: 'open', avoid: 'dot', other: 'dot' } as const;
  const noteOf = ({ string, fret, role }: Mark): MiniNote => {
    const isTarget = target?.cell.string === string && target.cell.fret === fret;
    return { string, fret, look: isTarget ? 'target' : LOOKS[role] };
  };
</script>

<span class="block" aria-hidden="true">
  <span class="flex items-baseline justify-between">
    <span class="text-lg leading-6"><ChordSymbol symbol={change.symbol} /></span>
    <span class="text-2xs text-soft">bar {change.bar}</span>
  </span>
  <span class="block truncate text-2xs leading-4 text-soft">
    {choice ? settings.collection(choice) : change.problem ? 'not understood' : 'rest'}
  </span>
  <svg {width} height={geometry.height} class="drawing block">
    <MiniNeck {geometry} {strings} {from} {to} notes={marks.map(noteOf)} />
  </svg>
  <span class="flex justify-between text-2xs leading-4">
    <span class="truncate text-soft"
      >{area && area.name.kind !== 'position' ? areaLabel(area) : `fret ${area?.anchor ?? position}`}</span
    >
    {#if target}<span class="font-bold text-target">{settings.label(target.cell)}</span>{/if}
  </span>
</span>
