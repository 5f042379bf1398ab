<!-- How the thread is led, and what it costs. -->
<script lang="ts">
  import { THREADS, type Workspace } from '$lib/state/workspace.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const DEGREE_CHOICES = ['3', '7', '1', '5'] as const;
  const path = $derived(workspace.path);
  const guideTones = $derived(
    path ? path.targets.filter(({ cell }) => cell.slot === '3' || cell.slot === '7').length : 0
  );
  const longest = $derived(
    Math.max(0, ...(path?.targets ?? []).map(({ step }) => Math.abs(step?.semitones ?? 0)))
  );
  const shifts = $derived((path?.targets ?? []).filter(({ step }) => Math.abs(step?.frets ?? 0) > 3).length);
  const held = $derived((path?.targets ?? []).filter(({ step }) => step?.semitones === 0).length);
</script>

<section class="flex flex-col gap-2 card p-3" aria-label="Target path">
  <label class="flex items-center justify-between gap-2">
    <span class="font-display text-[17px]">Target path</span>
    <select
      class="btn"
      value={workspace.plan.thread}
      onchange={(event) => workspace.pickThread(event.currentTarget.value as typeof workspace.plan.thread)}
    >
      {#each THREADS as { rule, name, hint } (rule)}
        <option value={rule} title={hint}>{name}</option>
      {/each}
    </select>
  </label>
  <div class="flex flex-wrap items-center gap-1.5">
    {#if workspace.plan.thread === 'free'}
      <span class="text-[12.5px] text-soft">through</span>
      {#each DEGREE_CHOICES as degree (degree)}
        <button
          class="btn btn-icon"
          aria-pressed={workspace.plan.degrees.includes(degree)}
          aria-label="Allow the {degree} as a target"
          onclick={() => workspace.toggleDegree(degree)}>{degree}</button
        >
      {/each}
    {/if}
    <button class="btn" aria-pressed={workspace.plan.loop} onclick={() => workspace.toggleLoop()}>loop</button
    >
    {#if workspace.plan.fixed.length}
      <button class="btn" onclick={() => workspace.releaseAll()}
        >release all {workspace.plan.fixed.length}</button
      >
    {/if}
  </div>
  {#if path}
    <p class="text-[13px] leading-[1.4] text-soft" data-path-summary>
      Moves {path.parts.pitch} semitones in all, longest step {longest}; {held} held, {guideTones} of {path
        .targets.length} on a 3 or 7{shifts
        ? `, ${shifts} shift${shifts > 1 ? 's' : ''} of the hand`
        : ', no shift of the hand'}.
    </p>
  {/if}
</section>
