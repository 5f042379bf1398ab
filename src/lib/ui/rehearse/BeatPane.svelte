<!--
  A few seconds of a recording with the beats of the chart over it, and one beat to be dragged to where it is heard: by
  pointer, touch or arrows.
-->
<script lang="ts">
  import { secondOfBeat, type BeatGrid } from '$lib/core/practice/beats';

  interface Props {
    sound: AudioBuffer;
    grid: BeatGrid;
    /** The beat that is dragged. */
    beat: number;
    /** Beats of the form on which bars begin. */
    bars: readonly number[];
    name: string;
    ondrag: (second: number) => void;
  }
  let { sound, grid, beat, bars, name, ondrag }: Props = $props();

  /** Seconds that are shown, and how the picture is cut into strokes. */
  const SHOWN = 6;
  const STROKES = 300;
  const HEIGHT = 72;
  /** Seconds that an arrow moves it. */
  const [STEP, BIG_STEP] = [0.01, 0.1];

  let width = $state(500);
  let dragging = $state.raw<{ readonly from: number; readonly grip: number } | null>(null);
  const second = $derived(secondOfBeat(grid, beat));
  /** The picture stands still while it is dragged over. */
  const from = $derived(
    dragging ? dragging.from : Math.max(-0.5, Math.min(second - SHOWN / 3, sound.duration - SHOWN / 2))
  );
  const x = (at: number) => ((at - from) / SHOWN) * width;
  const outline = $derived.by(() => {
    const samples = sound.getChannelData(0);
    const size = (SHOWN * sound.sampleRate) / STROKES;
    let path = '';
    for (let i = 0; i < STROKES; i++) {
      const start = Math.floor(from * sound.sampleRate + i * size);
      let most = 0;
      // Every few samples tell enough of how loud it is.
      for (let at = Math.max(0, start); at < Math.min(samples.length, start + size); at += 8) {
        most = Math.max(most, Math.abs(samples[at]!));
      }
      const half = Math.max(0.5, (most * HEIGHT) / 2);
      path += `M${((i + 0.5) / STROKES) * width} ${HEIGHT / 2 - half}v${2 * half}`;
    }
    return path;
  });
  const lines = $derived.by(() => {
    const first = Math.max(0, Math.ceil(((from - grid.first) * grid.tempo) / 60));
    const last = Math.floor(((from + SHOWN - grid.first) * grid.tempo) / 60);
    const count = Math.min(80, Math.max(0, last - first + 1));
    return Array.from({ length: count }, (_, i) => first + i);
  });
  const isBar = (line: number) => bars.some((bar) => Math.abs(bar - line) < 1e-6);

  const secondUnder = (event: PointerEvent) => {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    return from + ((event.clientX - box.left) / box.width) * SHOWN;
  };
  function grab(event: PointerEvent) {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    const under = secondUnder(event);
    // Near the line it is taken where it is; elsewhere it comes to the pointer.
    dragging = { from, grip: Math.abs(under - second) < 0.25 ? under - second : 0 };
    drag(event);
  }
  function drag(event: PointerEvent) {
    if (dragging) ondrag(secondUnder(event) - dragging.grip);
  }
  function press(event: KeyboardEvent) {
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (!way) return;
    event.preventDefault();
    ondrag(second + way * (event.shiftKey ? BIG_STEP : STEP));
  }
</script>

<div class="min-w-64 flex-1">
  <p class="text-xs text-soft">{name}: <b class="text-ink tabular-nums">{second.toFixed(2)} s</b></p>
  <div
    class="relative cursor-ew-resize touch-none overflow-hidden rounded-md border border-edge bg-surface"
    role="slider"
    tabindex="0"
    aria-label="{name}, second of the recording"
    aria-valuenow={Number(second.toFixed(2))}
    aria-valuemin={0}
    aria-valuemax={Number(sound.duration.toFixed(2))}
    data-beat-pane={beat}
    bind:clientWidth={width}
    onpointerdown={grab}
    onpointermove={drag}
    onpointerup={() => (dragging = null)}
    onpointercancel={() => (dragging = null)}
    onkeydown={press}
  >
    <svg {width} height={HEIGHT} class="block" aria-hidden="true">
      <path d={outline} class="stroke-soft" stroke-width="1" fill="none" />
      {#each lines as line (line)}
        {@const at = x(secondOfBeat(grid, line))}
        <line
          x1={at}
          x2={at}
          y1={isBar(line) ? 0 : HEIGHT * 0.7}
          y2={HEIGHT}
          class={isBar(line) ? 'stroke-ink' : 'stroke-soft'}
          stroke-width={isBar(line) ? 1.5 : 1}
        />
      {/each}
      <line x1={x(second)} x2={x(second)} y1="0" y2={HEIGHT} class="stroke-target" stroke-width="4" />
    </svg>
  </div>
</div>
