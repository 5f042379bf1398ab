<!-- What can be done with the phrase that is selected. -->
<script lang="ts">
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import ChevronsLeft from '@lucide/svelte/icons/chevrons-left';
  import ChevronsRight from '@lucide/svelte/icons/chevrons-right';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';
  import PenLine from '@lucide/svelte/icons/pen-line';
  import RefreshCw from '@lucide/svelte/icons/refresh-cw';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import X from '@lucide/svelte/icons/x';
  import { nth } from '$lib/core/base/list';
  import { RELATIONS, type Relation } from '$lib/core/line/phrase/styles';
  import type { Phrases } from '$lib/state/lines/phrases.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import { RELATION_HINTS, RELATION_WORDS } from './looks';

  interface Props {
    phrases: Phrases;
    index: number;
    isBusy: boolean;
    onwrite: (at: number) => void;
  }
  let { phrases, index, isBusy, onwrite }: Props = $props();

  const phrase = $derived(nth(phrases.all, index));
  const isLocked = $derived(phrases.isLocked(index));
  /** The phrase it is to follow: the one it follows already, else the one before it. */
  let model: number | null = $state(null);
  const of = $derived(
    model !== null && model !== index && phrases.all[model]
      ? model
      : (phrase.like?.of ?? (index > 0 ? index - 1 : 1))
  );
  const models = $derived(
    phrases.all.flatMap((one, i) =>
      i === index ? [] : [{ value: String(i), name: `${one.name}, ${phrases.barsOf(one)}` }]
    )
  );
</script>

<section
  class="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1.5 card p-2 text-sm"
  aria-label="Phrase {phrase.name}"
  aria-busy={isBusy}
  data-phrase-bar={index}
>
  <p class="font-bold" data-phrase-name>
    {phrase.name} <span class="font-normal text-soft">· {phrases.barsOf(phrase)}</span>
  </p>
  <div class="flex flex-wrap gap-1.5">
    <Button
      pressed={isLocked}
      hint="Locked phrases stay when others are made anew (K)"
      onclick={() => phrases.lock(index)}
      >{#if isLocked}<Lock size={15} /> locked{:else}<LockOpen size={15} /> lock{/if}</Button
    >
    <Button
      disabled={isLocked}
      hint="Another phrase in these bars (O)"
      onclick={() => void phrases.renew(index)}><RefreshCw size={15} /> new phrase</Button
    >
    <Button hint="Write on it (W)" onclick={() => onwrite(phrase.from)}><PenLine size={15} /> write</Button>
  </div>
  {#if models.length}
    <div class="flex flex-wrap items-center gap-1.5">
      <Select
        label="Relation"
        value=""
        options={[
          { value: '', name: 'relate' },
          ...RELATIONS.map((how) => ({ value: how, name: RELATION_WORDS[how], hint: RELATION_HINTS[how] }))
        ]}
        hint="Relate this phrase to another one"
        onpick={(how) => how && void phrases.relate(index, of, how as Relation)}
      />
      <Select
        label="Related phrase"
        value={String(of)}
        options={models}
        onpick={(value) => (model = Number(value))}
      />
    </div>
  {/if}
  <div class="flex flex-wrap gap-1">
    <Button label="A bar earlier" hint="A bar earlier (Ctrl ←)" onclick={() => void phrases.move(index, -1)}
      ><ChevronsLeft size={15} /></Button
    >
    <Button
      label="A beat earlier"
      hint="A beat earlier (Shift ←)"
      onclick={() => void phrases.shift(index, -1)}><ChevronLeft size={15} /></Button
    >
    <Button label="A beat later" hint="A beat later (Shift →)" onclick={() => void phrases.shift(index, 1)}
      ><ChevronRight size={15} /></Button
    >
    <Button label="A bar later" hint="A bar later (Ctrl →)" onclick={() => void phrases.move(index, 1)}
      ><ChevronsRight size={15} /></Button
    >
  </div>
  <div class="ml-auto flex gap-1.5">
    <Button
      label="Replace with silence"
      hint="Replace with silence (Delete)"
      disabled={isLocked}
      onclick={() => phrases.remove(index)}><Trash2 size={15} /></Button
    >
    <Button label="Deselect the phrase" hint="Deselect (Esc)" onclick={() => phrases.select(null)}
      ><X size={15} /></Button
    >
  </div>
</section>
