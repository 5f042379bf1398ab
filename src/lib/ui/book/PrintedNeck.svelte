<!-- The hand on paper: a few frets with degrees inside the notes and a ring round the target; or blank, to be drawn on. -->
<script lang="ts">
  import type { Mark, Moment } from '$lib/core/moment/moment';
  import type { Instrument } from '$lib/core/neck/tuning';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Target } from '$lib/core/targets/path';
  import { settings } from '$lib/state/settings.svelte';
  import { handWindow } from '../hands/window';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck, { type MiniNote } from '../neck/MiniNeck.svelte';
  import { PIXEL } from './pieces';

  interface Props {
    moment: Moment;
    neck: Instrument;
    /** Where the hand is wanted, where nothing is played. */
    wanted: number;
    target: Target | undefined;
    /** Millimetres. */
    width: number;
    height: number;
    isBlank: boolean;
  }
  let { moment, neck, wanted, target, width, height, isBlank }: Props = $props();

  /** Pixels below the lowest string, for the numbers of the frets. */
  const FOOT = 24;
  /** A note as a part of the room between two strings; above the highest there is room for the ring round a target. */
  const NOTE = 0.47;
  const TOP = 1.75 * NOTE;
  const strings = $derived(neck.strings.length);
  const { from, to } = $derived(handWindow(moment, neck, wanted));
  const gap = $derived((height / PIXEL - FOOT) / (strings - 1 + TOP));
  const geometry = $derived(
    neckGeometry({
      width: width / PIXEL,
      strings,
      from,
      to,
      stringGap: gap,
      top: TOP * gap,
      bottom: FOOT,
      open: from === 1 ? 20 : 3,
      leftHanded: settings.now.leftHanded
    })
  );
  const LOOKS = { chord: 'full', tension: 'open', avoid: 'dot', other: 'dot' } as const;
  const noteOf = ({ string, fret, role, degree }: Mark): MiniNote => ({
    string,
    fret,
    look: target?.cell.string === string && target.cell.fret === fret ? 'target' : LOOKS[role],
    label: prettyDegree(degree)
  });
</script>

<svg width={geometry.width} height={geometry.height} class="block" aria-hidden="true">
  <MiniNeck
    {geometry}
    {strings}
    {from}
    {to}
    notes={isBlank ? [] : moment.marks.map(noteOf)}
    radius={Math.min(8.2, gap * NOTE)}
    numbers={12}
    isRinged
  />
</svg>
