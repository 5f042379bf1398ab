<!-- Saves a drawing as a picture. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';

  let { of, name }: { of: () => SVGSVGElement | undefined; name: string } = $props();
  let problem = $state('');

  async function save(format: 'svg' | 'png') {
    const svg = of();
    if (!svg) return;
    try {
      const { saveDrawing } = await import('./drawing');
      await saveDrawing(svg, name, format);
      problem = '';
    } catch {
      problem = 'The picture could not be made.';
    }
  }
</script>

<div class="flex items-center gap-1 text-[12px]">
  {#if problem}<span role="alert" class="text-warn">{problem}</span>{/if}
  {#each ['svg', 'png'] as const as format (format)}
    <button
      class="flex items-center gap-1 rounded-full border border-line bg-surface px-2 leading-[22px]"
      title="Save this drawing as {format.toUpperCase()}"
      aria-label="Save this drawing as {format.toUpperCase()}"
      onclick={() => save(format)}><Download size={12} /> {format.toUpperCase()}</button
    >
  {/each}
</div>
