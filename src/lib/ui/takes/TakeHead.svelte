<!-- The head of the opened take: its name, replaying it, its rounds, and what can be done with it. -->
<script lang="ts">
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Heart from '@lucide/svelte/icons/heart';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import Repeat from '@lucide/svelte/icons/repeat';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { StoredTake } from '$lib/api/take';
  import type { Takes } from '$lib/state/takes/takes.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import { TAKE_FILES } from './files';

  interface Props {
    takes: Takes;
    opened: StoredTake;
    isPlaying: boolean;
    /** The round that is shown, from 0, of how many. */
    round: number;
    rounds: number;
    ontoggle: () => void;
    onloop: () => void;
    oncorrect: () => void;
    onsave: (id: string) => void;
    onremove: () => void;
  }
  let {
    takes,
    opened,
    isPlaying,
    round = $bindable(),
    rounds,
    ontoggle,
    onloop,
    oncorrect,
    onsave,
    onremove
  }: Props = $props();

  const DATE = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' });
  const FILES = [
    { value: '', name: 'save or keep' },
    ...TAKE_FILES.map(({ id, name, hint }) => ({ value: id, name, hint }))
  ];
  const { shelf } = $derived(takes);
  /** Takes that the opened one can be read beside. */
  const others = $derived([
    { value: '', name: 'compare with …' },
    ...shelf.list
      .filter(({ id, summary }) => id !== opened.id && summary?.figures.fits)
      .map(({ id, name, playedAt }) => ({ value: id, name, hint: DATE.format(playedAt) }))
  ]);

  /** An empty name is none; the old one comes back. */
  function rename({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
    const name = currentTarget.value.trim();
    if (name && name !== opened.name) void shelf.rename(name);
    else currentTarget.value = opened.name;
  }
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-2 text-sm">
  <h2 class="sr-only">{opened.name}</h2>
  <input
    class="min-w-0 flex-1 basis-56 rounded-md border border-transparent bg-transparent px-1 text-xl hover:border-edge focus:border-edge"
    aria-label="Name of the take"
    maxlength="120"
    value={opened.name}
    onchange={rename}
  />
  <span class="flex items-center gap-1.5">
    <span class="contents" data-replay>
      <Button tone="strong" hint="Space" disabled={takes.work.doing !== '' && !isPlaying} onclick={ontoggle}>
        {#if isPlaying}<Pause size={15} /> Stop{:else}<Play size={15} /> Replay{/if}
      </Button>
    </span>
    <Button hint="The selected change, with what leads into it, again and again (Q)" onclick={onloop}>
      <Repeat size={15} /> Loop the change
    </Button>
    <span class="contents" data-correct-toggle>
      <Button
        hint="Move, split, join, delete or add notes that were misheard (N)"
        pressed={takes.correcting.isOn}
        disabled={takes.judging.judgement === null}
        onclick={oncorrect}
      >
        <Pencil size={15} /> Correct
      </Button>
    </span>
    {#if rounds > 1}
      <Button label="The round before" disabled={round === 0} onclick={() => (round -= 1)}
        ><ChevronLeft size={16} /></Button
      >
      <span class="tabular-nums">round {round + 1} of {rounds}</span>
      <Button label="The next round" disabled={round + 1 >= rounds} onclick={() => (round += 1)}
        ><ChevronRight size={16} /></Button
      >
    {/if}
  </span>
  <span class="ml-auto flex items-center gap-1.5">
    <Button
      label={opened.isLoved ? 'Remove from favourites' : 'Add to favourites'}
      hint="Favourites keep their sound when you free space"
      pressed={opened.isLoved}
      onclick={() => void shelf.setLoved(!opened.isLoved)}
    >
      <Heart size={16} class={opened.isLoved ? 'fill-target text-target' : ''} />
    </Button>
    {#if others.length > 1}
      <Select
        label="Compare with another take"
        value={shelf.beside?.id ?? ''}
        options={others}
        onpick={(id) => (id ? void shelf.putBeside(id) : shelf.closeBeside())}
      />
    {/if}
    <Select label="Save or keep" value="" options={FILES} onpick={(id) => id && onsave(id)} />
    <Button label="Delete this take" onclick={onremove}><Trash2 size={16} /></Button>
  </span>
</div>
