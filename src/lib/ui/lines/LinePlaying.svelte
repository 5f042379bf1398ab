<!-- Playing the line: what is looped, how fast, in which key. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import { nth, sure } from '$lib/core/base/list';
  import { keyText } from '$lib/core/harmony/key';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { homeUp } from '$lib/core/theory/tonic';
  import { prettyProse } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import PopoverButton from '../kit/PopoverButton.svelte';
  import { LOOPS, type LoopId } from './loops';
  import MenuRow from './MenuRow.svelte';
  import MenuSelect from './MenuSelect.svelte';

  interface Props {
    workspace: Workspace;
    rehearsal: Rehearsal;
    /** There is a line to play. */
    hasLine: boolean;
    loop: LoopId;
    onloop: (loop: LoopId) => void;
  }
  let { workspace, rehearsal, hasLine, loop, onloop }: Props = $props();

  const keys = $derived.by(() => {
    const each = Array.from({ length: 12 }, (_, step) => ({
      value: String(step),
      name: prettyProse(keyText(homeUp(workspace.analysis.key, step)))
    }));
    return [...each, { value: ALL_KEYS, name: 'all twelve, a key a round' }];
  });
  const ALL_KEYS = 'all';
  /** Another key, or all of them in fourths, a key a round. */
  function pickKey(key: string) {
    rehearsal.keys.lineKeys = key === ALL_KEYS ? 'fourths' : 'stay';
    rehearsal.keys.shift = key === ALL_KEYS ? 0 : Number(key);
    if (rehearsal.transport.isPlaying) void rehearsal.transport.play();
  }
  const loopName = $derived(
    sure(
      LOOPS.find(({ value }) => value === loop),
      'LOOPS'
    ).name
  );
  const keyName = $derived(
    rehearsal.keys.lineKeys === 'stay' ? nth(keys, ((rehearsal.keys.shift % 12) + 12) % 12).name : 'all keys'
  );
</script>

<div class="flex flex-wrap items-center gap-1.5">
  <Button
    tone="strong"
    hint="With the band (Space)"
    onclick={() => rehearsal.transport.toggle()}
    disabled={!hasLine}
    >{#if rehearsal.transport.isPlaying}<Pause size={15} /> Stop{:else}<Play size={15} /> Play{/if}</Button
  >
  <PopoverButton
    label="{loopName} · {rehearsal.tempo.value} · {keyName}: how it plays"
    panelLabel="How it plays"
    hint="What is looped, tempo, key"
    within="main"
  >
    {#snippet face()}{loopName} · {rehearsal.tempo.value} · {keyName}<ChevronDown
        size={14}
        class="opacity-70"
      />{/snippet}
    <MenuSelect
      name="Loop"
      label="What is looped"
      value={loop}
      options={LOOPS}
      onpick={(id) => onloop(id as LoopId)}
    />
    <MenuRow name="Tempo">
      <NumberField
        label="Tempo"
        value={rehearsal.tempo.value}
        min={LOWEST_TEMPO}
        max={HIGHEST_TEMPO}
        unit="bpm"
        onset={(tempo) => rehearsal.tempo.set(tempo)}
      />
    </MenuRow>
    <MenuSelect
      name="Key"
      value={rehearsal.keys.lineKeys === 'stay' ? String(rehearsal.keys.shift) : ALL_KEYS}
      options={keys}
      hint="Chart and line in another key, or round all twelve"
      onpick={pickKey}
    />
  </PopoverButton>
</div>
