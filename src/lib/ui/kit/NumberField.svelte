<!-- A number as typed: brought into its bounds when it is left, and said where it had to be. -->
<script lang="ts">
  interface Props {
    label: string;
    value: number;
    min: number;
    max: number;
    /** Behind the number: "min", "bpm". */
    unit?: string | undefined;
    onset: (value: number) => void;
    size?: 'normal' | 'stand';
    class?: string;
  }
  let { label, value, min, max, unit, onset, size = 'normal', class: extra = 'w-16' }: Props = $props();

  /** What was typed had to be brought into the bounds, or was no number. */
  let isBounded = $state(false);

  function take(event: Event & { currentTarget: HTMLInputElement }) {
    const field = event.currentTarget;
    const typed = field.valueAsNumber;
    const bounded = Math.min(max, Math.max(min, typed));
    isBounded = bounded !== typed;
    if (Number.isFinite(typed)) onset(bounded);
    field.value = String(value);
  }
</script>

<span class="inline-flex items-center gap-1.5">
  <input
    type="number"
    class="rounded-md border border-edge bg-surface px-2 pointer-coarse:min-h-11 {size === 'stand'
      ? 'min-h-11'
      : 'min-h-8.5'} {extra}"
    {min}
    {max}
    {value}
    aria-label={label}
    onchange={take}
  />
  {#if isBounded}<span class="text-xs text-warn" role="alert">{min} to {max}</span>{/if}
  {#if unit}<span class="text-soft">{unit}</span>{/if}
</span>
