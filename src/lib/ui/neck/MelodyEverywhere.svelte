<!--
  The melody of one change round the hand and everywhere else: the note it lands on large, the others with it, in every
  octave the neck has. Drawn into the neck.
-->
<script lang="ts">
  import { landingOf, notesOver } from '$lib/core/line/melody';
  import { nameOf, namingOf } from '$lib/core/neck/shape';
  import { spots } from '$lib/core/neck/tuning';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { NeckGeometry } from './geometry';
  import NoteMark from './NoteMark.svelte';

  let { workspace, geometry }: { workspace: Workspace; geometry: NeckGeometry } = $props();
  const change = $derived(workspace.change);
  const notes = $derived(workspace.melody && change ? notesOver(workspace.melody.line, change) : []);
  const landing = $derived(workspace.melody && change ? landingOf(workspace.melody.line, change) : null);
  const marks = $derived.by(() => {
    const chord = change?.chord;
    if (!chord) return [];
    const naming = namingOf(chord, { notes: notes.map(({ note }) => note) });
    const sounding = new Set(notes.map(({ midi }) => midi % 12));
    const written = new Set(notes.map(({ midi }) => midi));
    return spots(workspace.neck, 0, workspace.neck.frets)
      .filter(({ midi }) => sounding.has(midi % 12))
      .map((spot) => ({
        ...spot,
        ...nameOf(spot.midi % 12, naming),
        isLanding: landing !== null && spot.midi % 12 === landing.midi % 12,
        isWritten: written.has(spot.midi)
      }));
  });
</script>

{#each marks as mark (`${mark.string}:${mark.fret}`)}
  <g opacity={mark.isWritten ? 1 : 0.62} data-melody="{mark.string}:{mark.fret}">
    <NoteMark
      x={geometry.finger(mark.fret)}
      y={geometry.string(mark.string)}
      role={mark.isLanding ? 'target' : 'tension'}
      label={settings.label(mark)}
      scale={mark.isWritten ? 1 : 0.86}
    />
  </g>
{/each}
