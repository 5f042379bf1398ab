<!-- A row of toggles: one of them is on. -->
<script lang="ts" generics="Value extends string">
  import { ToggleGroup } from 'bits-ui';
  import { button, type ButtonLook } from './button';
  import type { Option } from './options';

  interface Props extends Pick<ButtonLook, 'size'> {
    label: string;
    value: Value;
    options: readonly Option<Value>[];
    onpick: (value: Value) => void;
    class?: string;
  }
  let { label, value, options, onpick, size, class: extra = '' }: Props = $props();
</script>

<ToggleGroup.Root
  type="single"
  {value}
  onValueChange={(next) => next && onpick(next as Value)}
  class="flex flex-wrap gap-1 {extra}"
  aria-label={label}
>
  {#each options as option (option.value)}
    <ToggleGroup.Item
      value={option.value}
      class={button({ size })}
      data-toggle={option.value}
      data-hint={option.hint}>{option.name}</ToggleGroup.Item
    >
  {/each}
</ToggleGroup.Root>
