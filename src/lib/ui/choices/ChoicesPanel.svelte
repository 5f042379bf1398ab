<!--
  What can be played on the selected change, school by school. Focus or hover previews a choice on the neck, Enter or a
  click takes it, P holds it against another.
-->
<script lang="ts">
  import { tick } from 'svelte';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import Columns2 from '@lucide/svelte/icons/columns-2';
  import { contextOf } from '$lib/core/approaches/context';
  import { judgedKeyScales } from '$lib/core/approaches/key-centre';
  import { prettyDegree } from '$lib/core/theory/degree';
  import type { OfferedChoice } from '$lib/core/approaches/registry';
  import { motionBetween } from '$lib/core/approaches/choice';
  import { warningsOf } from '$lib/core/approaches/outline';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import Degrees from './Degrees.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  /** Approaches whose whole list is open. */
  let open: readonly string[] = $state.raw([]);
  /** The beat of the V on which a free chain goes over to its last sound. */
  let changeOver = $state(3);
  let list: HTMLDivElement | undefined = $state();
  const SHOWN = 3;

  const chosen = $derived(workspace.chosen[workspace.selected] ?? null);
  const choices = $derived(workspace.offered[workspace.selected] ?? []);
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
  const chains = $derived(workspace.chains.filter(({ changes }) => changes.includes(workspace.selected)));
  const warnings = $derived(chosen ? warningsOf(chosen, workspace.analysis, workspace.selected) : []);
  /** How the choice moves from the one before. */
  const motion = $derived.by(() => {
    const before = workspace.chosen[workspace.selected - 1];
    if (!before || !chosen) return '';
    const { kept, semitone, tone } = motionBetween(before, chosen);
    if (semitone + tone === 0) return 'Every note was there in the choice before.';
    const moved = [semitone ? `${semitone} a semitone away` : '', tone ? `${tone} further` : '']
      .filter(Boolean)
      .join(', ');
    return `${kept} notes kept from the choice before, ${moved}.`;
  });
  const isChosen = (choice: OfferedChoice) =>
    choice.approach === chosen?.approach && choice.name === chosen.name;

  function toggle(id: string) {
    open = open.includes(id) ? open.filter((other) => other !== id) : [...open, id];
  }

  /** Brings a row into sight by moving the list alone: the page stays where it is. */
  async function focusRow(row: HTMLElement) {
    row.focus({ preventScroll: true });
    // The row grows with its reason.
    await tick();
    const [seen, own] = [list!.getBoundingClientRect(), row.getBoundingClientRect()];
    if (own.top < seen.top) list!.scrollTop -= seen.top - own.top;
    else if (own.bottom > seen.bottom) list!.scrollTop += own.bottom - seen.bottom;
  }

  function press(event: KeyboardEvent) {
    const rows = [...(list?.querySelectorAll<HTMLElement>('[data-choice]') ?? [])];
    const at = rows.indexOf(document.activeElement as HTMLElement);
    if (at < 0 || event.ctrlKey || event.metaKey || event.altKey) return;
    const row = rows[at]!;
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const own = choices.find(
      ({ approach, name }) => approach === row.dataset.approach && name === row.dataset.choice
    );
    if (step) void focusRow(rows[Math.min(rows.length - 1, Math.max(0, at + step))]!);
    else if (event.key === 'Escape') row.blur();
    else if (event.key.toLowerCase() === 'p' && own) workspace.pin(own);
    else return;
    event.preventDefault();
  }
</script>

<section class="flex min-h-0 flex-col card" aria-label="Choices">
  {#if chosen}
    <div class="border-b border-line p-3 pb-2">
      <p class="flex flex-wrap justify-between gap-x-2 text-[12.5px] text-soft">
        <span>
          {workspace.isTaken(workspace.selected)
            ? 'You play'
            : workspace.outlined < workspace.outlineOrder.length
              ? 'By the dial'
              : 'First choice'}
        </span>
        {#if workspace.alike.length > 1}
          <button
            class="underline"
            title="Every {workspace.change?.roman} of the chart (A)"
            onclick={() => workspace.takeForAllAlike(chosen)}
            >apply to all {workspace.alike.length} like this</button
          >
        {/if}
        {#if workspace.isTaken(workspace.selected)}
          <button class="underline" onclick={() => workspace.leave()}>leave it</button>
        {/if}
      </p>
      <h3 class="font-display text-[19px] leading-6" data-chosen={chosen.name}>
        {settings.collection(chosen)}
      </h3>
      <Degrees choice={chosen} />
      <p class="mt-1 text-[12.5px] leading-[1.35] text-soft">
        {chosen.why}
        {#if chosen.parent}
          Same notes as {settings.note(chosen.parent.tonic)} {chosen.parent.scale}.
        {/if}
      </p>
      {#if workspace.changeOver}
        {@const { beat, name } = workspace.changeOver}
        <label class="mt-1 flex items-center gap-2 text-[12.5px]" data-change-over={beat}>
          <span>from beat {beat}: {settings.collection({ name, root: name.split(' ')[0]!, notes: [] })}</span>
          <input
            type="range"
            class="w-20 accent-[var(--target)]"
            min="1"
            max={workspace.change?.beats ?? 4}
            step="1"
            value={beat}
            aria-label="Beat of the change-over in this change"
            oninput={(event) => workspace.moveChangeOver(Number(event.currentTarget.value))}
          />
        </label>
      {/if}
      {#if motion}<p class="mt-1 text-[12.5px] text-soft">{motion}</p>{/if}
      {#each warnings as warning (warning)}<p class="mt-1 text-[12.5px] text-warn">{warning}</p>{/each}
    </div>
  {/if}

  {#if workspace.pins.length}
    <p
      class="flex items-center justify-between gap-2 border-b border-line px-3 py-1.5 text-[12.5px]"
      data-pins
    >
      <span>
        {#if workspace.pins.length === 2}
          <b>□ {settings.collection(workspace.pins[0]!)}</b> against
          <b>◇ {settings.collection(workspace.pins[1]!)}</b>, shared notes filled
        {:else}
          {settings.collection(workspace.pins[0]!)} held; pin another to compare
        {/if}
      </span>
      <button class="underline" onclick={() => (workspace.pins = [])}>end</button>
    </p>
  {/if}

  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div
    class="min-h-[220px] flex-1 overflow-y-auto pb-2 max-lg:max-h-[420px]"
    bind:this={list}
    onkeydown={press}
    onpointerleave={() => (workspace.preview = null)}
  >
    {#if chains.length}
      <details class="border-b border-line px-3 py-1.5" data-chains>
        <summary class="cursor-pointer text-[13px]">
          {chains.length === 1 ? 'One idea' : `${chains.length} ideas`} for the whole cadence
        </summary>
        {#each chains as chain (chain.approach + chain.names.join())}
          <div class="mt-1.5 border-t border-line py-2">
            <p class="text-[13.5px]">
              {chain.names
                .map((name) => settings.collection({ name, root: name.split(' ')[0]!, notes: [] }))
                .join(' → ')}
            </p>
            <p class="text-[12.5px] text-soft">{settings.prose(chain.why)}</p>
            {#if chain.freeWithin !== undefined}
              {@const beats = workspace.changes[chain.freeWithin]!.beats}
              <label class="flex min-h-7 items-center gap-2 text-[12.5px]">
                <span class="text-soft">over the V go over</span>
                <input
                  type="range"
                  class="w-24 accent-[var(--target)]"
                  min="1"
                  max={beats + 1}
                  step="1"
                  bind:value={changeOver}
                  aria-label="Beat of the change-over"
                />
                {changeOver > beats ? 'after it' : `on beat ${changeOver}`}
              </label>
            {/if}
            <button class="mt-1 btn text-[13px]" onclick={() => workspace.takeChain(chain, changeOver)}
              >Take it</button
            >
          </div>
        {/each}
      </details>
    {/if}
    {#if denied}<p class="border-b border-line px-3 py-1.5 text-[12.5px] text-soft" data-denied>
        {denied}
      </p>{/if}
    {#each groups as { approach, choices: offered }, g (approach.id)}
      {@const isOpen = open.includes(approach.id)}
      <div class="flex items-center justify-between px-3 pt-2">
        <h4 class="text-[12.5px] font-bold text-soft">{approach.name}</h4>
        {#if g > 0}
          <button
            class="grid size-7 place-items-center text-soft hover:text-ink"
            aria-label="Move {approach.name} up"
            title="Move this school up"
            onclick={() => settings.raiseApproach(approach.id)}><ArrowUp size={14} /></button
          >
        {/if}
      </div>
      <ul>
        {#each isOpen ? offered : offered.slice(0, SHOWN) as choice (choice.name + choice.why)}
          <li class="flex items-stretch {isChosen(choice) ? 'bg-lit' : ''}">
            <button
              class="min-w-0 flex-1 px-3 py-1 text-left hover:bg-lit focus:bg-lit {isChosen(choice)
                ? 'border-l-3 border-target'
                : ''}"
              data-choice={choice.name}
              data-approach={choice.approach}
              title={choice.why}
              aria-pressed={isChosen(choice)}
              onpointerenter={() => (workspace.preview = choice)}
              onfocus={() => (workspace.preview = choice)}
              onblur={() => (workspace.preview = null)}
              onclick={() => workspace.take(choice)}
            >
              <span class="block text-[14.5px] leading-5">
                {settings.collection(choice)}
                {#if choice.keptFromPrevious && approach.id !== 'key-centre'}<span
                    class="text-[12px] text-soft">kept</span
                  >{/if}
              </span>
              {#if choice.over}<span class="block text-[12px] leading-4 text-soft"
                  >think {settings.prose(choice.over)}</span
                >{/if}
              <Degrees {choice} />
              {#if workspace.preview === choice}<span class="block text-[12.5px] leading-[1.35] text-soft"
                  >{choice.why}</span
                >{/if}
            </button>
            <button
              class="grid w-8 place-items-center text-soft hover:text-ink"
              aria-label="Compare {choice.name}"
              aria-pressed={workspace.isPinned(choice)}
              title="Hold it against another (P)"
              onclick={() => workspace.pin(choice)}
            >
              <Columns2 size={15} class={workspace.isPinned(choice) ? 'text-target' : ''} />
            </button>
          </li>
        {/each}
      </ul>
      {#if offered.length > SHOWN}
        <button class="px-3 py-0.5 text-[12.5px] text-soft underline" onclick={() => toggle(approach.id)}>
          {isOpen ? 'fewer' : `${offered.length - SHOWN} more`}
        </button>
      {/if}
    {:else}
      <p class="px-3 py-3 text-soft">
        {workspace.change?.problem
          ? 'A chord that is not understood gets no choices; mend its symbol in the chart.'
          : 'No chord sounds here.'}
      </p>
    {/each}
  </div>
</section>
