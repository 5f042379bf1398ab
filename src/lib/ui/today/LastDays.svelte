<!-- The last two weeks, a bar a day: how much was played lately? -->
<script lang="ts">
  import type { Sum } from '$lib/core/practice/log/sums';

  let { days }: { days: readonly Sum[] } = $props();
  const [WIDTH, HEIGHT] = [252, 56];
  const most = $derived(Math.max(20 * 60, ...days.map(({ seconds }) => seconds)));
  const step = $derived(WIDTH / Math.max(1, days.length));
  const minutes = $derived(Math.round(days.reduce((sum, { seconds }) => sum + seconds, 0) / 60));
  const name = (day: string) =>
    new Date(`${day}T12:00:00Z`).toLocaleDateString('en', { weekday: 'narrow', timeZone: 'UTC' });
</script>

<div class="card p-4">
  <h2 class="font-display text-xl">The last two weeks</h2>
  <p class="text-sm text-soft">{minutes} minutes</p>
  <svg
    class="mt-2 w-full"
    viewBox="0 0 {WIDTH} {HEIGHT + 14}"
    role="img"
    aria-label="Minutes by day: {days
      .map(({ day, seconds }) => `${day} ${Math.round(seconds / 60)}`)
      .join(', ')}"
  >
    <line x1="0" x2={WIDTH} y1={HEIGHT} y2={HEIGHT} class="stroke-line" />
    {#each days as { day, seconds }, i (day)}
      {@const tall = (seconds / most) * (HEIGHT - 2)}
      <rect
        x={i * step + 2}
        y={HEIGHT - tall}
        width={step - 4}
        height={tall}
        class={i === days.length - 1 ? 'fill-target' : 'fill-ink'}
      />
      <text x={i * step + step / 2} y={HEIGHT + 12} class="fill-soft text-[10px]" text-anchor="middle"
        >{name(day)}</text
      >
    {/each}
  </svg>
</div>
