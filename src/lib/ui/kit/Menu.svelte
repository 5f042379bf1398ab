<!-- A button that opens a list of things to do; each may carry its key and a few words. -->
<script lang="ts" module>
  export interface MenuItem {
    readonly name: string;
    /** How its key is called. */
    readonly keys?: string | undefined;
    readonly hint?: string | undefined;
    readonly disabled?: boolean | undefined;
    readonly run: () => void;
  }
</script>

<script lang="ts">
  import { DropdownMenu } from 'bits-ui';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { button } from './button';

  interface Props {
    label: string;
    hint?: string | undefined;
    /** Groups are parted by a line. */
    groups: readonly (readonly MenuItem[])[];
    /** Once something is done and the list is gone. */
    onclosed?: (() => void) | undefined;
  }
  let { label, hint, groups, onclosed }: Props = $props();
  let trigger = $state<HTMLElement | null>(null);
  let isOpen = $state(false);
  const place = $derived(isOpen ? trigger?.closest('[role="dialog"], main, aside, header') : undefined);
</script>

<DropdownMenu.Root bind:open={isOpen} onOpenChangeComplete={(open) => !open && onclosed?.()}>
  <DropdownMenu.Trigger bind:ref={trigger} class={button({})} data-menu={label} data-hint={hint}
    >{label}<ChevronDown size={14} class="opacity-70" aria-hidden="true" /></DropdownMenu.Trigger
  >
  <DropdownMenu.Portal to={place ?? 'body'}>
    <DropdownMenu.Content
      class="z-60 max-h-(--bits-dropdown-menu-content-available-height) max-w-[94vw] min-w-52 overflow-y-auto card p-1 shadow-lg"
      sideOffset={4}
      collisionPadding={8}
      preventScroll={false}
      onCloseAutoFocus={(event) => onclosed && event.preventDefault()}
      aria-label={label}
    >
      {#each groups.filter((group) => group.length > 0) as group, i (i)}
        {#if i > 0}<DropdownMenu.Separator class="my-1 h-px bg-line" />{/if}
        <DropdownMenu.Group>
          {#each group as { name, keys, hint: words, disabled, run } (name)}
            <DropdownMenu.Item
              class="flex min-h-8 cursor-pointer items-center gap-3 rounded-md px-2.5 py-1 outline-none data-disabled:cursor-default data-disabled:opacity-50 data-highlighted:bg-lit pointer-coarse:min-h-11"
              {disabled}
              textValue={name}
              data-item={name}
              onSelect={run}
            >
              <span class="min-w-0 flex-1"
                >{name}{#if words}<span class="block text-xs text-soft">{words}</span>{/if}</span
              >
              {#if keys}<kbd class="text-xs text-soft">{keys}</kbd>{/if}
            </DropdownMenu.Item>
          {/each}
        </DropdownMenu.Group>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
