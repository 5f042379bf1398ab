<!-- One note on a neck: what it means is said by weight and outline first, by hue second. -->
<script lang="ts">
  import type { Role } from '$lib/core/moment/moment';

  interface Props {
    x: number;
    y: number;
    role: Role | 'target';
    label: string;
    /** 1 on the large neck; smaller in the strip, which shows no labels. */
    scale?: number;
    /** The least height of a label, in pixels, where it is read from afar: all of them are that high. */
    least?: number;
  }
  let { x, y, role, label, scale = 1, least = 0 }: Props = $props();

  const RADIUS = $derived(
    least > 0
      ? ({ target: 15, chord: 12.5, tension: 12, avoid: 11, other: 5 } as const)
      : ({ target: 14.5, chord: 11, tension: 10, avoid: 7.5, other: 4.5 } as const)
  );
  const LOOK = {
    target: 'fill-target',
    chord: 'fill-tone',
    tension: 'fill-surface stroke-tone',
    avoid: 'fill-surface stroke-soft',
    other: 'fill-soft'
  } as const;
  const TEXT = {
    target: 'fill-on-target',
    chord: 'fill-on-tone',
    tension: 'fill-ink',
    avoid: 'fill-soft',
    other: ''
  } as const;
  const SIZE = { target: 14, chord: 12, tension: 10.5, avoid: 8.5, other: 0 } as const;
  const size = $derived(SIZE[role] && Math.max(least, SIZE[role] * scale));
</script>

<circle
  cx={x}
  cy={y}
  r={RADIUS[role] * scale}
  class={LOOK[role]}
  stroke-width={role === 'tension' ? 1.8 * scale : role === 'avoid' ? 1.3 * scale : 0}
  stroke-dasharray={role === 'avoid' ? '2.5 2.5' : undefined}
/>
{#if label && size > 0}
  <text {x} y={y + size * 0.36} text-anchor="middle" font-size={size} class="font-bold {TEXT[role]}">
    {label}
  </text>
{/if}
