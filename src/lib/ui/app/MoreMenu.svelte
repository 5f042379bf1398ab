<!-- What is needed now and then: guitar, tuner, theme, earlier versions, print. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import AudioLines from '@lucide/svelte/icons/audio-lines';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import GuitarIcon from '@lucide/svelte/icons/guitar';
  import History from '@lucide/svelte/icons/history';
  import Moon from '@lucide/svelte/icons/moon';
  import Printer from '@lucide/svelte/icons/printer';
  import Sun from '@lucide/svelte/icons/sun';
  import { settings } from '$lib/state/settings.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import { hint } from '../kit/hint';
  import type { DialogName } from './Dialogs.svelte';

  interface Props {
    onopen: (dialog: DialogName) => void;
    onprint: () => void;
  }
  let { onopen, onprint }: Props = $props();
  let isOpen = $state(false);

  function close(work: () => void) {
    isOpen = false;
    work();
  }
</script>

<Popover.Root bind:open={isOpen}>
  <Popover.Trigger
    class={button({ isIcon: true })}
    aria-label="More"
    {@attach hint('Guitar, tuner, theme, earlier versions, print')}><Ellipsis size={17} /></Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-50 flex w-60 flex-col gap-1 card p-2 shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      aria-label="More"
    >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('guitar'))}
        ><GuitarIcon size={17} /> Your guitar</Button
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('tuner'))}
        ><AudioLines size={17} /> Tune</Button
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => settings.toggleTheme())}
        >{#if settings.now.theme === 'day'}<Moon size={17} /> Stage theme{:else}<Sun size={17} /> Day theme{/if}</Button
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('versions'))}
        ><History size={17} /> Earlier versions</Button
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(onprint)}
        ><Printer size={17} /> Print what is shown</Button
      >
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
