<!--
  The run over this change as it is written: what each note is on the chord, along its beats. What has sounded fades, what
  sounds is lit.
-->
<script lang="ts">
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { RunNote } from '$lib/core/practice/run-over';

  interface Props {
    run: readonly RunNote[];
    /** Of the change. */
    beats: number;
    /** How much of the change has sounded, 0 to 1; null at rest. */
    into: number | null;
    isHidden: boolean;
  }
  let { run, beats, into, isHidden }: Props = $props();

  const isLit = ({ at, length }: RunNote) => into !== null && into >= at && into < at + length;
  const isPast = ({ at, length }: RunNote) => into !== null && into >= at + length;
</script>

<div
  class="relative h-13 overflow-hidden card"
  role="group"
  aria-label="The run over this chord"
  data-run-strip
>
  {#each { length: Math.max(0, Math.ceil(beats) - 1) } as _, i (i)}
    <div class="absolute inset-y-0 border-l border-line" style:left="{((i + 1) / beats) * 100}%"></div>
  {/each}
  {#each run as note (note.at)}
    <span
      class="absolute top-1/2 -translate-y-1/2 rounded-md px-1.5 text-xl leading-9 font-bold transition-none {isLit(
        note
      )
        ? 'bg-ink text-surface'
        : note.isTarget
          ? 'text-target'
          : isPast(note)
            ? 'text-soft opacity-60'
            : ''}"
      style:left="calc({note.at * 100}% + 6px)">{isHidden ? '·' : prettyDegree(note.degree)}</span
    >
  {/each}
</div>
