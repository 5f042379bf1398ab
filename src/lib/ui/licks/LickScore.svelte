<!-- A lick on staff and tab, in one key. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const scorePart = new Part(() => import('../score/Score.svelte'));
</script>

<script lang="ts">
  import type { LickThere } from '$lib/core/line/lick-elsewhere';
  import { readLine } from '$lib/core/line/read';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';

  interface Props {
    name: string;
    /** Its chords in this key. */
    workspace: Workspace;
    there: LickThere;
  }
  let { name, workspace, there }: Props = $props();

  const degrees = $derived(
    readLine(
      { meter: workspace.sheet.head.meter, notes: there.notes },
      { form: workspace.sheet.form, analysis: workspace.analysis, chosen: [] }
    ).notes.map(({ degree }) => degree)
  );
</script>

<Arriving part={scorePart} height="min-h-40">
  {#snippet children(Score)}
    <Score {workspace} notes={there.notes} {degrees} label="{name} on staff and tab" />
  {/snippet}
</Arriving>
