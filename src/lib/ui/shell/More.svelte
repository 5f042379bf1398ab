<!-- What is needed now and then: what the page adds, then theme, settings, the keys. -->
<script lang="ts">
  import CircleQuestionMark from '@lucide/svelte/icons/circle-question-mark';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Moon from '@lucide/svelte/icons/moon';
  import SettingsIcon from '@lucide/svelte/icons/settings';
  import Sun from '@lucide/svelte/icons/sun';
  import { tick, type Snippet } from 'svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { shell } from '$lib/state/shell.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import PopoverButton from '../kit/PopoverButton.svelte';

  let { more }: { more?: Snippet<[close: (work: () => void) => void]> | undefined } = $props();
  let isOpen = $state(false);

  /** What opens next takes the focus from here, and gives it back. */
  function close(work: () => void) {
    isOpen = false;
    void tick().then(work);
  }
</script>

<PopoverButton
  label="More"
  hint="Files, print, theme, settings, keys"
  bind:isOpen
  look={{ tone: 'quiet', isIcon: true }}
  class="w-64 gap-1 p-2"
>
  {#snippet face()}<Ellipsis size={17} />{/snippet}
  {#if more}
    {@render more(close)}
    <hr class="my-1 border-line" />
  {/if}
  <Button tone="quiet" class="justify-start" onclick={() => close(() => settings.toggleTheme())}
    >{#if settings.isStage}<Sun size={17} /> Day theme{:else}<Moon size={17} /> Stage theme{/if}
    <kbd class="ml-auto text-soft">T</kbd></Button
  >
  <a
    href="/settings"
    class={button({ tone: 'quiet', class: 'justify-start' })}
    onclick={() => (isOpen = false)}><SettingsIcon size={17} /> Settings</a
  >
  <Button tone="quiet" class="justify-start" onclick={() => close(() => (shell.open = 'help'))}
    ><CircleQuestionMark size={17} /> Keys and signs <kbd class="ml-auto text-soft">?</kbd></Button
  >
</PopoverButton>
