<!-- How the book is read and used; opposite the contents. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const SIGNS = [
    { look: 'full', says: 'A filled note is a tone of the chord; inside it stands what it is: 1, ♭3, 5, 7.' },
    { look: 'target', says: 'The filled note with a ring is the one to be on when the chord comes.' },
    { look: 'open', says: 'An outlined note is a colour: it may be held.' },
    { look: 'dot', says: 'A dot belongs to the scale and is passed over.' }
  ] as const;
  const STEPS = [
    'Say the chords of the form aloud in this key, then play their roots in time.',
    'Play only the ringed notes, one on every chord, until they come without looking.',
    'Walk through each shape from the ringed note and back to it.',
    'Lead into each ringed note by a step from above or below.',
    'Improvise, with a ringed note at every change. Then turn the page.'
  ];
</script>

<div class="guide">
  <h2 class="font-display">How it is read</h2>
  <p>
    Every key is one opening: its form on the left, with the note to land on under each chord; then what is
    played over every chord, and where the hand has it. The lowest line of each small neck is string {workspace
      .neck.strings.length}, the numbers under it are frets.
  </p>
  <ul>
    {#each SIGNS as { look, says } (look)}
      <li>
        <svg width="34" height="34" aria-hidden="true">
          <circle
            cx="17"
            cy="17"
            r={look === 'dot' ? 4 : look === 'target' ? 10 : 9}
            class={look === 'open'
              ? 'fill-surface stroke-tone'
              : look === 'target'
                ? 'fill-target'
                : 'fill-tone'}
            stroke-width={look === 'open' ? 2 : 0}
          />
          {#if look === 'target'}<circle
              cx="17"
              cy="17"
              r="14"
              class="fill-none stroke-target"
              stroke-width="2"
            />{/if}
        </svg>
        {says}
      </li>
    {/each}
  </ul>
  <h2 class="font-display">A way through a key</h2>
  <ol>
    {#each STEPS as step, i (step)}<li><b class="font-display">{i + 1}</b>{step}</li>{/each}
  </ol>
  <p class="care">
    Slow enough to be clean, a few minutes at a time. Rest your hands when they tire, and skip a stretch that
    hurts.
  </p>
</div>

<style>
  .guide {
    padding-top: 14mm;
    font-size: 4.2mm;
    line-height: 6mm;
  }

  h2 {
    margin-bottom: 3mm;
    font-size: 8mm;
    line-height: 10mm;
  }

  ul,
  ol {
    margin: 5mm 0 12mm;
  }

  li {
    display: flex;
    gap: 4mm;
    align-items: center;
    margin-bottom: 2.5mm;
  }

  svg {
    flex: none;
  }

  b {
    width: 6mm;
    font-size: 7mm;
    line-height: 8mm;
  }

  .care {
    padding-top: 3mm;
    border-top: 0.2mm solid var(--line);
    color: var(--soft);
  }
</style>
