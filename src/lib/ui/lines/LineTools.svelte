<!-- Which line is shown, and how; kept, and opened again. What plays it, finds it and is done with it now and then stand beside. -->
<script lang="ts">
  import PenLine from '@lucide/svelte/icons/pen-line';
  import { prettyProse } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { MELODY } from '$lib/state/lines/current.svelte';
  import type { Lines } from '$lib/state/lines/lines.svelte';
  import { moveToChords } from '$lib/state/lines/moves';
  import type { Pen } from '$lib/state/lines/pen.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import LineFinding from './LineFinding.svelte';
  import LineMore from './LineMore.svelte';
  import LinePlaying from './LinePlaying.svelte';
  import type { LoopId } from './loops';

  interface Props {
    workspace: Workspace;
    lines: Lines;
    rehearsal: Rehearsal;
    pen: Pen;
    /** The licks that fit are shown below. */
    showsLicks: boolean;
    loop: LoopId;
    onloop: (loop: LoopId) => void;
  }
  let { workspace, lines, rehearsal, pen, showsLicks = $bindable(), loop, onloop }: Props = $props();

  const isMoved = $derived(rehearsal.keys.shift !== 0);
  const NEW = 'new';
  const kept = $derived([
    ...(lines.shelf.stored || lines.current.isMelody ? [] : [{ value: NEW, name: 'not kept yet' }]),
    { value: MELODY, name: 'the melody', hint: workspace.melody ? '' : 'The chart has none yet; write it' },
    ...lines.shelf.all.map(({ id, name, data }) => ({
      value: id,
      name,
      ...(data ? {} : { hint: 'Damaged; kept as it is' })
    }))
  ]);
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm" aria-label="The line, found, played and kept">
  <div class="flex flex-wrap items-center gap-x-2 gap-y-2">
    <LinePlaying {workspace} {rehearsal} {loop} {onloop} hasLine={lines.current.shown !== null} />
    {#if pen.isWriting}
      <div class="flex flex-wrap items-center gap-2">
        <Button hint="Begin with an empty line" onclick={() => lines.current.blank()}>empty</Button>
        <p class="text-soft tabular-nums" data-pen={pen.where}>{pen.where}</p>
      </div>
    {:else}
      <LineFinding {lines} />
    {/if}
    <div class="flex flex-wrap items-center gap-1.5">
      <Toggles
        label="How the line is shown"
        value={settings.now.lineAs}
        options={[
          { value: 'time', name: 'in time', hint: 'Time across, pitch up: degrees, and what is heard' },
          { value: 'score', name: 'tab', hint: 'Staff and tab' }
        ]}
        onpick={(lineAs) => settings.change({ lineAs: lineAs as 'time' | 'score' })}
      />
      <Button
        pressed={pen.isWriting}
        data-write
        disabled={isMoved}
        hint="By keys, or by tapping tab and neck (N)"
        onclick={() => (pen.isWriting ? pen.stop() : pen.start())}><PenLine size={15} /> write</Button
      >
      <Button
        pressed={showsLicks}
        hint="Keep a passage as a lick; insert one where it fits"
        onclick={() => (showsLicks = !showsLicks)}>licks</Button
      >
    </div>
    <div class="ml-auto flex flex-wrap items-center gap-1.5">
      {#if lines.shelf.isLoaded}
        <Select
          label="Line"
          class="max-w-40"
          value={lines.current.isMelody ? MELODY : (lines.shelf.stored?.id ?? NEW)}
          options={kept}
          onpick={(id) => (id === MELODY ? lines.shelf.openMelody() : id !== NEW && lines.shelf.open(id))}
        />
      {/if}
      <Button
        tone={lines.shelf.isKept ? undefined : 'strong'}
        disabled={!lines.current.shown?.notes.length || lines.shelf.isKept || isMoved}
        hint="Keep it with this chart"
        onclick={() => void lines.shelf.keep()}>{lines.shelf.isKept ? 'kept' : 'Keep'}</Button
      >
      <LineMore {workspace} {lines} />
    </div>
  </div>
  {#if lines.current.problem || rehearsal.notice.problem}
    <p class="text-warn" role="alert">{prettyProse(lines.current.problem || rehearsal.notice.problem)}</p>
  {/if}
  {#if lines.shelf.isOverOthers}
    <p class="flex flex-wrap items-center gap-2 text-warn" role="status" data-over-others>
      The chords have been edited since this line was kept; it stands as it was.
      <Button size="small" onclick={() => moveToChords(lines, lines.shelf.stored!.data!.over)}
        >adapt it to the new chords</Button
      >
    </p>
  {/if}
</section>
