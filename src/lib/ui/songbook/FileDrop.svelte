<!-- Files that are dropped anywhere on the page. -->
<script lang="ts">
  interface Props {
    onfiles: (files: FileList) => void;
  }
  let { onfiles }: Props = $props();
  let isOver = $state(false);

  function over(event: DragEvent) {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    isOver = true;
  }
  function drop(event: DragEvent) {
    isOver = false;
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    onfiles(event.dataTransfer.files);
  }
</script>

<svelte:window
  ondragover={over}
  ondragleave={(event) => event.relatedTarget === null && (isOver = false)}
  ondrop={drop}
/>
{#if isOver}
  <div
    class="pointer-events-none fixed inset-3 z-40 flex items-center justify-center rounded-2xl border-4 border-dashed border-target bg-paper/80"
    data-drop
  >
    <p class="font-display text-4xl">Drop to import</p>
  </div>
{/if}
