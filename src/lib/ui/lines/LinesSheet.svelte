<!-- The line on paper: staff and tab over the whole page, degrees below, what is heard in it. -->
<script lang="ts">
  import { askedOf, outlineLine } from '$lib/core/line/outline';
  import { readLine } from '$lib/core/line/read';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Paper from '../export/Paper.svelte';
  import Score from '../score/Score.svelte';
  import { PAPER } from '../sheet/paper';

  let { workspace }: { workspace: Workspace } = $props();
  const stored = $derived(workspace.storedLines.find(({ data }) => data));
  const line = $derived(
    workspace.shownLine ?? (stored?.data ? { name: stored.name, notes: stored.data.notes } : null)
  );
  const notes = $derived(line?.notes ?? []);
  const ground = $derived({
    form: workspace.sheet.form,
    analysis: workspace.analysis,
    chosen: workspace.chosen
  });
  const reading = $derived(readLine({ meter: workspace.sheet.head.meter, notes }, ground));
  const share = $derived(outlineLine(notes, askedOf(workspace.changes)).share);
</script>

<Paper
  {workspace}
  says={line
    ? `${line.name}; ${Math.round((share ?? 0) * 100)} % of its chords are told by the line alone`
    : ''}
>
  <Score
    {workspace}
    {notes}
    degrees={reading.notes.map(({ degree }) => degree)}
    paperWidth={PAPER}
    label="The line"
  />
</Paper>
