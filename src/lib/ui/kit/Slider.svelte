<!-- A number on a scale: by pointer, finger, arrows, Home and End. -->
<script lang="ts">
  import { Slider } from 'bits-ui';

  interface Props {
    label: string;
    value: number;
    min: number;
    max: number;
    step?: number;
    /** What the value means, spoken. */
    says?: string | undefined;
    onslide: (value: number) => void;
    hint?: string | undefined;
    class?: string;
  }
  let { label, value, min, max, step = 1, says, onslide, hint, class: extra = 'w-32' }: Props = $props();
  /** Of the track at both ends, in percent, so that the thumb stays inside: told, or it would be measured at every move. */
  const PADDING = 9;
</script>

<Slider.Root
  type="single"
  {value}
  {min}
  {max}
  {step}
  trackPadding={PADDING}
  onValueChange={onslide}
  class="relative flex h-6 touch-none items-center select-none pointer-coarse:h-11 {extra}"
  data-slider={label}
>
  <span class="relative h-1.5 w-full rounded-full bg-edge" aria-hidden="true">
    <Slider.Range class="absolute h-full rounded-full bg-target" />
  </span>
  <Slider.Thumb
    index={0}
    class="block size-5 rounded-full border-2 border-target bg-surface pointer-coarse:size-7"
    aria-label={label}
    aria-valuetext={says}
    data-hint={hint}
  />
</Slider.Root>
