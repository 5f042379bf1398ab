<!--
  What can be played on the selected change, approach by approach. Focus or hover previews a choice on the neck, Enter or a
  click takes it, P holds it against another.
-->
<script lang="ts" module>
  import { Part } from '../app/part';

  const cadenceIdeasPart = new Part(() => import('./CadenceIdeas.svelte'));
</script>

<script lang="ts">
  import { firstOf, nth } from '$lib/core/base/list';
  import { prettyDegree, prettyProse } from '$lib/core/theory/typeset';
  import { tick } from 'svelte';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import Columns2 from '@lucide/svelte/icons/columns-2';
  import { leaveAlone } from '$lib/core/approaches/advice';
  import { contextOf } from '$lib/core/approaches/context';
  import { sameCollection } from '$lib/core/approaches/collection';
  import { judgedKeyScales } from '$lib/core/approaches/key-centre';
  import type { OfferedChoice } from '$lib/core/approaches/registry';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '../app/Arriving.svelte';
  import Button from '../kit/Button.svelte';
  import Follows from '../kit/Follows.svelte';
  import { Deferred } from '../kit/deferred.svelte';
  import ChosenCard from './ChosenCard.svelte';
  import Degrees from './Degrees.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  /** Approaches whose whole list is open. */
  let open: readonly string[] = $state.raw([]);
  let list: HTMLDivElement | undefined = $state();
  const SHOWN = 3;
  /** Pixels around a row for the ring that shows the focus. */
  const RING = 3;
  /** The keyboard or a pointer is in the list: what may be taken next is of this change, however fast one came to it. */
  let hasKeys = $state(false);
  let hasPointer = $state(false);
  let isScrolled = false;
  // Of another change what is chosen is seen first.
  $effect(() => {
    void workspace.selected;
    if (isScrolled) list!.scrollTop = 0;
  });
  /** As many approaches as are in sight come with the first picture. */
  const drawn = new Deferred(2);

  const chosen = $derived(workspace.chosen[workspace.selected] ?? null);
  const choices = $derived(workspace.choices.offered[workspace.selected] ?? []);
  const groups = $derived(
    settings.approaches
      .map((approach) => ({ approach, choices: choices.filter((choice) => choice.approach === approach.id) }))
      .filter((group) => group.choices.length > 0)
  );
  /** What the scale of the key costs here, told where it denies the chord and so is not offered. */
  const denied = $derived.by(() => {
    const context = contextOf(workspace.analysis, workspace.selected);
    const plain = context && judgedKeyScales(context)[0];
    if (!plain?.contradicts.length) return '';
    const list = (degrees: readonly string[]) => degrees.map(prettyDegree).join(', ');
    const lacks = plain.lacks.length ? `lacks its ${list(plain.lacks)} and ` : '';
    return `${settings.collection(plain)} does not hold here: it ${lacks}sounds a ${list(plain.contradicts)} against it.`;
  });
  /** Where the scale before is better kept. */
  const stays = $derived(leaveAlone(workspace.analysis, workspace.selected));
  const asSentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
  const compared = $derived(workspace.choices.compared);
  const isChosen = (choice: OfferedChoice) =>
    choice.approach === chosen?.approach && sameCollection(choice.facts, chosen.facts);

  function toggle(id: string) {
    open = open.includes(id) ? open.filter((other) => other !== id) : [...open, id];
  }

  /** Brings a row into sight by moving the list alone: the page stays where it is. */
  async function focusRow(row: HTMLElement) {
    row.focus({ preventScroll: true });
    // The row grows with its reason.
    await tick();
    const [seen, own] = [list!.getBoundingClientRect(), row.getBoundingClientRect()];
    if (own.top - RING < seen.top) list!.scrollTop -= seen.top + RING - own.top;
    else if (own.bottom + RING > seen.bottom) list!.scrollTop += own.bottom + RING - seen.bottom;
  }

  function press(event: KeyboardEvent) {
    const rows = [...(list?.querySelectorAll<HTMLElement>('[data-choice]') ?? [])];
    const at = rows.indexOf(document.activeElement as HTMLElement);
    if (at < 0 || event.ctrlKey || event.metaKey || event.altKey) return;
    const row = nth(rows, at);
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const own = choices.find(
      ({ approach, name }) => approach === row.dataset.approach && name === row.dataset.choice
    );
    if (step) void focusRow(nth(rows, Math.min(rows.length - 1, Math.max(0, at + step))));
    else if (event.key === 'Escape') row.blur();
    else if (event.key.toLowerCase() === 'p' && own) workspace.choices.compare(own);
    else return;
    event.preventDefault();
  }
</script>

<section class="flex min-h-0 flex-col card" aria-label="Choices">
  <!-- Drawn once, used by every row of the list. -->
  <svg class="absolute size-0" aria-hidden="true"
    ><symbol id="compare-sign" viewBox="0 0 24 24"><Columns2 size={24} /></symbol></svg
  >
  {#if compared.length}
    <p class="flex items-center justify-between gap-2 border-b border-line px-3 py-1.5 text-xs" data-compared>
      <span>
        {#if compared.length === 2}
          <b>□ {settings.collection(firstOf(compared))}</b> against
          <b>◇ {settings.collection(nth(compared, 1))}</b>, shared notes filled
        {:else}
          {settings.collection(firstOf(compared))} is held; pick another to compare
        {/if}
      </span>
      <Button size="small" onclick={() => workspace.choices.reset()}>end</Button>
    </p>
  {/if}

  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div
    class="min-h-16 flex-1 overflow-y-auto pb-2 own-layer max-lg:max-h-[640px]"
    bind:this={list}
    onscroll={() => (isScrolled = list!.scrollTop > 0)}
    onkeydown={press}
    onfocusin={() => (hasKeys = true)}
    onfocusout={() => (hasKeys = false)}
    onpointerenter={() => (hasPointer = true)}
    onpointerleave={() => {
      hasPointer = false;
      workspace.choices.preview = null;
    }}
  >
    <!-- What is chosen goes with the list: on a low screen there is more of both to be seen. -->
    {#if chosen}<ChosenCard {workspace} {chosen} />{/if}
    <Follows
      root={list}
      value={{ analysis: workspace.analysis, change: workspace.selected }}
      isAwake={hasKeys || hasPointer}
    >
      {#snippet children({ analysis, change })}
        <Arriving isQuiet part={cadenceIdeasPart}
          >{#snippet children(CadenceIdeas)}<CadenceIdeas
              {workspace}
              {analysis}
              {change}
            />{/snippet}</Arriving
        >
      {/snippet}
    </Follows>
    {#if stays}<p class="border-b border-line px-3 py-1.5 text-xs text-soft" data-leave-alone>
        {prettyProse(stays)}
      </p>{/if}
    {#if denied}<p class="border-b border-line px-3 py-1.5 text-xs text-soft" data-denied>
        {denied}
      </p>{/if}
    {#each groups.slice(0, drawn.count) as group, g (group.approach.id)}
      {@const { approach } = group}
      {@const isOpen = open.includes(approach.id)}
      <Follows root={list} value={group.choices} isAwake={hasKeys || hasPointer}>
        {#snippet children(offered)}
          <div class="flex items-center justify-between px-3 pt-2">
            <h4 class="text-xs font-bold text-soft">{approach.name}</h4>
            {#if g > 0}
              <Button
                size="small"
                tone="quiet"
                label="Move {approach.name} up"
                hint="Move this approach up the list"
                onclick={() => settings.raiseApproach(approach.id)}><ArrowUp size={14} /></Button
              >
            {/if}
          </div>
          <ul>
            {#each isOpen ? offered : offered.slice(0, SHOWN) as choice, i (i)}
              <li class="flex items-stretch {isChosen(choice) ? 'bg-lit' : ''}">
                <button
                  class="min-w-0 flex-1 px-3 py-1 text-left hover:bg-lit focus:bg-lit pointer-coarse:min-h-11 {isChosen(
                    choice
                  )
                    ? 'border-l-3 border-target'
                    : ''}"
                  data-choice={choice.name}
                  data-approach={choice.approach}
                  aria-pressed={isChosen(choice)}
                  onpointerenter={() => (workspace.choices.preview = choice)}
                  onfocus={() => (workspace.choices.preview = choice)}
                  onblur={() => (workspace.choices.preview = null)}
                  onclick={() => workspace.choices.take(choice)}
                >
                  <span class="block text-base leading-5">
                    {settings.collection(choice)}
                    {#if choice.keptFromPrevious && approach.id !== 'key-centre'}<span
                        class="text-xs text-soft">kept</span
                      >{/if}
                  </span>
                  {#if choice.over}<span class="block text-xs leading-4 text-soft"
                      >think {prettyProse(choice.over)}</span
                    >{/if}
                  <Degrees {choice} />
                  <span class="block truncate text-xs leading-4 text-soft" data-sound
                    >{prettyProse(choice.sound)}</span
                  >
                  {#if workspace.choices.preview === choice}<span
                      class="block text-xs leading-[1.35] text-soft"
                      ><span class="text-ink" data-use>{prettyProse(asSentence(choice.use))}</span>
                      {prettyProse(choice.why)}</span
                    >{/if}
                </button>
                <button
                  class="grid w-8 place-items-center text-soft hover:text-ink pointer-coarse:w-11"
                  aria-label="Compare {choice.name}"
                  aria-pressed={workspace.choices.isCompared(choice)}
                  onclick={() => workspace.choices.compare(choice)}
                  data-hint="Compare (P)"
                >
                  <svg
                    width="15"
                    height="15"
                    class={workspace.choices.isCompared(choice) ? 'text-target' : ''}
                    aria-hidden="true"><use href="#compare-sign" /></svg
                  >
                </button>
              </li>
            {/each}
          </ul>
          {#if offered.length > SHOWN}
            <Button size="small" tone="quiet" class="ml-1" onclick={() => toggle(approach.id)}
              >{isOpen ? 'fewer' : `${offered.length - SHOWN} more`}</Button
            >
          {/if}
        {/snippet}
      </Follows>
    {:else}
      <p class="px-3 py-3 text-soft">
        {workspace.change?.problem
          ? 'A chord that is not understood gets no choices; fix its symbol in the chart.'
          : 'No chord sounds here.'}
      </p>
    {/each}
  </div>
</section>
