<!-- Where the music is, over a drawing in time: a layer of its own, so that nothing below it is drawn anew as it moves. -->
<script lang="ts">
  interface Props {
    /** Pixels from the left edge of the drawing. */
    x: number;
    /** Pixels. */
    top: number;
    height: number;
  }
  let { x, top, height }: Props = $props();
</script>

<div
  class="pointer-events-none absolute left-0 w-0.5 bg-ink will-change-transform"
  style:top="{top}px"
  style:height="{height}px"
  style:transform="translateX({x - 1}px)"
  data-playhead
></div>
