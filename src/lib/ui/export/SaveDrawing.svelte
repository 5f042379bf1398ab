<!-- Saves a drawing as a picture. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import { DRAWING_FORMATS } from '../exports';
  import type { Format } from './format';
  import Button from '../kit/Button.svelte';
  import { saveFile } from './file';

  interface Props {
    of: () => SVGSVGElement | undefined;
    name: string;
    size?: 'small' | 'normal';
  }
  let { of, name, size = 'small' }: Props = $props();
  let problem = $state('');

  async function save(format: Format<SVGSVGElement>) {
    const drawing = of();
    if (!drawing) return;
    try {
      saveFile(await format.make(drawing), name, format.id);
      problem = '';
    } catch {
      problem = format.failure;
    }
  }
</script>

<div class="flex items-center gap-1 text-xs">
  {#if problem}<span role="alert" class="text-warn">{problem}</span>{/if}
  {#each DRAWING_FORMATS as format (format.id)}
    <Button
      {size}
      isRound={size === 'small'}
      aria-label={format.hint}
      hint={format.hint}
      onclick={() => save(format)}><Download size={12} /> {format.name}</Button
    >
  {/each}
</div>
