<!-- Chords put together by touch: whole ones of the key and of this chart, or root, quality, colour and bass. -->
<script lang="ts">
  import CornerDownLeft from '@lucide/svelte/icons/corner-down-left';
  import Delete from '@lucide/svelte/icons/delete';
  import { PAD_COLOURS, PAD_QUALITIES, PAD_ROOTS, padPress, type PadKey } from '$lib/core/theory/chord-pad';
  import { prettySuffix } from '$lib/core/theory/typeset';
  import type { BarEdits } from '$lib/state/writing/bar-edits.svelte';
  import type { Writing } from '$lib/state/writing/writing.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';

  let { writing, bars }: { writing: Writing; bars: BarEdits } = $props();
  const put = (key: PadKey) =>
    writing.type(padPress(writing.isTyping || key.kind !== 'root' ? writing.text : '', key));
  const shape =
    'inline-flex min-h-11 items-center justify-center rounded-md border text-base whitespace-nowrap';
  const plain = `${shape} border-edge bg-surface active:bg-lit disabled:opacity-55`;
  const key = `${plain} min-w-8 flex-1 px-1`;
  /** As wide as its words, in a row that is scrolled. */
  const wide = `${plain} flex-none px-3`;
</script>

{#snippet press(name: string, pad: PadKey, label = name, isWide = false)}
  <button type="button" class={isWide ? wide : key} data-pad-key={name} tabindex="-1" onclick={() => put(pad)}
    >{label}</button
  >
{/snippet}
{#snippet whole(symbol: string, group: string)}
  <button
    type="button"
    class="inline-flex min-h-11 min-w-12 shrink-0 items-center justify-center rounded-md border border-edge bg-paper px-2 text-base"
    data-pad-chord={symbol}
    data-pad-group={group}
    tabindex="-1"
    onclick={() => {
      writing.type(symbol);
      writing.enter();
    }}><ChordSymbol {symbol} /></button
  >
{/snippet}

<div
  class="flex flex-col gap-1 border-t border-line pt-1.5"
  role="group"
  aria-label="Chord pad"
  data-chord-pad
>
  {#each [['Of the key', writing.proposals.keyChords], ['In this chart', writing.proposals.recentChords]] as const as [name, symbols] (name)}
    {#if symbols.length}
      <div class="flex items-center gap-1 overflow-x-auto" role="group" aria-label={name}>
        <span class="w-14 shrink-0 text-2xs leading-tight text-soft">{name}</span>
        {#each symbols as symbol (symbol)}{@render whole(symbol, name)}{/each}
      </div>
    {/if}
  {/each}
  <div class="flex gap-1">
    {#each PAD_ROOTS as sign (sign)}{@render press(sign, { kind: 'root', sign }, settings.note(sign))}{/each}
    {@render press('b', { kind: 'sign', sign: 'b' }, '♭')}
    {@render press('#', { kind: 'sign', sign: '#' }, '♯')}
  </div>
  <div class="flex gap-1 overflow-x-auto">
    {#each PAD_QUALITIES as sign (sign)}{@render press(
        sign,
        { kind: 'quality', sign },
        prettySuffix(sign),
        true
      )}{/each}
  </div>
  <div class="flex gap-1 overflow-x-auto">
    {#each PAD_COLOURS as sign (sign)}{@render press(
        sign,
        { kind: 'colour', sign },
        prettySuffix(sign),
        true
      )}{/each}
    {@render press('/', { kind: 'bass' }, '/ bass', true)}
  </div>
  <div class="flex gap-1">
    <button
      type="button"
      class={key}
      aria-label="Delete"
      data-pad-key="back"
      tabindex="-1"
      onclick={() => {
        if (writing.isTyping && writing.text) put({ kind: 'back' });
        else bars.erase();
      }}><Delete size={18} /></button
    >
    <button type="button" class={key} data-pad-key="%" tabindex="-1" onclick={() => writing.type('%')}
      >%</button
    >
    <button
      type="button"
      class={key}
      data-pad-key="previous"
      tabindex="-1"
      aria-label="Back"
      onclick={() => writing.step(-1)}>←</button
    >
    <button
      type="button"
      class={key}
      data-pad-key="split"
      tabindex="-1"
      disabled={!writing.chord}
      onclick={() => writing.split()}>+ chord</button
    >
    <button
      type="button"
      class="{shape} flex-2 border-ink bg-ink px-1 text-paper"
      data-pad-key="next"
      tabindex="-1"
      onclick={() => writing.enter()}><CornerDownLeft size={18} />&nbsp;Next bar</button
    >
  </div>
</div>
