<!-- What is one quiet step behind. -->
<script lang="ts">
  import { Collapsible } from 'bits-ui';
  import type { Snippet } from 'svelte';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';

  interface Props {
    title: string;
    open?: boolean;
    class?: string;
    children: Snippet;
  }
  let { title, open = $bindable(false), class: extra = '', children }: Props = $props();
</script>

<Collapsible.Root bind:open class={extra}>
  <Collapsible.Trigger
    class="group flex min-h-6 items-center gap-1 rounded-md text-left text-soft hover:text-ink pointer-coarse:min-h-11"
  >
    <ChevronRight
      size={14}
      class="transition-transform group-data-[state=open]:rotate-90"
      aria-hidden="true"
    />
    {title}
  </Collapsible.Trigger>
  <Collapsible.Content>{@render children()}</Collapsible.Content>
</Collapsible.Root>
