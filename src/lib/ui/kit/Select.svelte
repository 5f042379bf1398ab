<!-- One of several: each option may carry a few words of explanation, read in the open list. -->
<script lang="ts" generics="Value extends string">
  import { Select } from 'bits-ui';
  import Check from '@lucide/svelte/icons/check';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { button, type ButtonLook } from './button';
  import type { Option } from './options';

  interface Props extends Pick<ButtonLook, 'size' | 'isRound'> {
    /** What is chosen here. */
    label: string;
    value: Value;
    options: readonly Option<Value>[];
    onpick: (value: Value) => void;
    hint?: string | undefined;
    id?: string | undefined;
    class?: string;
  }
  let { label, value, options, onpick, hint, id, size, isRound, class: extra = '' }: Props = $props();

  let trigger = $state<HTMLElement | null>(null);
  let isOpen = $state(false);
  const uid = $props.id();
  const listId = $derived(`${uid}-list`);
  const chosen = $derived(options.find((option) => option.value === value));

  /** The list stands in the landmark of its trigger, where screen readers look for it. */
  const place = $derived(isOpen ? trigger?.closest('[role="dialog"], main, aside, header') : undefined);
  /** The package leaves out which list the trigger opens. */
  const named = (element: Element) => {
    if (isOpen) element.setAttribute('aria-controls', listId);
    else element.removeAttribute('aria-controls');
  };

  /** Once something is chosen the keys belong to the page again; Tab goes on from here. */
  function opened(open: boolean) {
    if (!open) setTimeout(() => trigger?.dispatchEvent(new Event('keysback', { bubbles: true })));
  }
</script>

<Select.Root
  type="single"
  {value}
  items={options.map((option) => ({ value: option.value, label: option.name }))}
  onValueChange={(next) => onpick(next as Value)}
  bind:open={isOpen}
  onOpenChange={opened}
>
  <Select.Trigger
    bind:ref={trigger}
    {id}
    class={button({ size, isRound, class: `min-w-0 justify-between ${extra}` })}
    aria-label="{label}: {chosen?.name ?? value}"
    data-select={label}
    data-value={value}
    {@attach named}
    data-hint={hint}
  >
    <span class="truncate">{chosen?.name ?? value}</span>
    <ChevronDown size={14} class="shrink-0 opacity-70" aria-hidden="true" />
  </Select.Trigger>
  <Select.Portal to={place ?? 'body'}>
    <Select.Content
      id={listId}
      class="z-60 max-h-(--bits-select-content-available-height) max-w-[min(26rem,94vw)] min-w-(--bits-select-anchor-width) overflow-y-auto card p-1 shadow-lg"
      sideOffset={4}
      aria-label={label}
    >
      <Select.Viewport>
        {#each options as option (option.value)}
          <Select.Item
            value={option.value}
            label={option.name}
            class="flex min-h-8 cursor-pointer items-center gap-2 rounded-md px-2.5 py-1 outline-none data-highlighted:bg-lit pointer-coarse:min-h-11"
            data-option={option.value}
          >
            <span class="min-w-0 flex-1">
              {option.name}
              {#if option.hint}<span class="block text-xs text-soft">{option.hint}</span>{/if}
            </span>
            {#if option.value === value}<Check size={15} aria-hidden="true" />{/if}
          </Select.Item>
        {/each}
      </Select.Viewport>
    </Select.Content>
  </Select.Portal>
</Select.Root>
