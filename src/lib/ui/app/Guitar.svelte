<!-- The player's guitar and hand, and how notes are named, over the chart that is open. -->
<script lang="ts">
  import { button } from '../kit/button';
  import Dialog from '../kit/Dialog.svelte';
  import GuitarFields from '../settings/GuitarFields.svelte';
  import NameFields from '../settings/NameFields.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog bind:open title="Your guitar and hand" size="narrow">
  <GuitarFields />
  <div class="mt-4 flex flex-col gap-2 border-t border-line pt-3"><NameFields /></div>
  {#snippet actions()}<a class={button({ class: 'mr-auto' })} href="/settings">All settings</a>{/snippet}
</Dialog>
