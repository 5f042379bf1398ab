<!-- The bars of a chart, written where they stand: a field at the caret, bars to be pressed, selected and dragged. -->
<script lang="ts">
  import { tick } from 'svelte';
  import Plus from '@lucide/svelte/icons/plus';
  import type { BarEdits } from '$lib/state/writing/bar-edits.svelte';
  import type { FormEdits } from '$lib/state/writing/form-edits';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { Writing } from '$lib/state/writing/writing.svelte';
  import Pager from '../../kit/Pager.svelte';
  import { dragByTouch } from '../../kit/touch';
  import BarBox from './BarBox.svelte';
  import { BarDrag, type Dragged, type DropPlace } from './drag.svelte';
  import { BAR_KEYS } from './keys';
  import type { Question } from './questions';

  interface Props {
    workspace: Workspace;
    writing: Writing;
    bars: BarEdits;
    form: FormEdits;
    /** The symbol is put together on the pad: no keyboard on the screen comes up. */
    hasPad: boolean;
    /** The field is to have the focus as soon as it is there. */
    isFirst: boolean;
    onask: (question: Question) => void;
    onleave: () => void;
  }
  let { workspace, writing, bars, form, hasPad, isFirst, onask, onleave }: Props = $props();

  let grid: HTMLDivElement | undefined = $state();
  // svelte-ignore state_referenced_locally
  let hasFocus = isFirst;
  const { caret } = $derived(writing);
  const selected = $derived(writing.selection);
  const isIn = (bar: number) => writing.hasSelection && bar >= selected.from && bar <= selected.to;

  /** The field comes anew with every place; whoever was typing goes on typing. */
  const takeFocus = (field: HTMLInputElement) => {
    if (!hasFocus) return;
    field.focus({ preventScroll: true });
    if (!writing.isTyping) field.select();
    field.scrollIntoView({ block: 'nearest' });
  };
  /** The focus has gone elsewhere; a field that only comes anew at another place leaves for nothing. */
  function left({ relatedTarget }: FocusEvent) {
    const isGone = (to: Element | null) => {
      if (grid?.contains(to)) return;
      hasFocus = false;
      writing.settle();
    };
    if (relatedTarget instanceof Element) isGone(relatedTarget);
    else setTimeout(() => isGone(document.activeElement));
  }
  /** What belongs to the bars has been done elsewhere: the field has the focus again. */
  export async function back() {
    hasFocus = true;
    await tick();
    grid?.querySelector<HTMLInputElement>('[data-bar-field]')?.focus({ preventScroll: true });
  }
  const inRow = () =>
    getComputedStyle(grid!.querySelector('[data-bars]')!).gridTemplateColumns.split(' ').length;

  function press(event: KeyboardEvent) {
    const field = event.target as HTMLInputElement;
    const held = {
      isAtStart: field.selectionEnd === 0,
      isAtEnd: field.selectionStart === field.value.length
    };
    const context = {
      writing,
      bars,
      form,
      inRow,
      ask: onask,
      undo: () => workspace.undo(),
      redo: () => workspace.redo(),
      leave: onleave
    };
    const row = BAR_KEYS.find(({ matches }) => matches(event, context, held));
    if (!row) return;
    event.preventDefault();
    event.stopPropagation();
    row.run(context, event);
    // Selecting gives the focus as well, which may be in a question by now.
    if (!writing.isTyping) void tick().then(() => document.activeElement === field && field.select());
  }

  /** At rest the bars are copied, with what is being typed its letters. */
  function copied(event: ClipboardEvent) {
    if (writing.isTyping) return;
    if (event.type === 'cut') bars.cut();
    else bars.copy();
    event.clipboardData?.setData('text/plain', bars.clipText);
    event.preventDefault();
  }
  function pasted(event: ClipboardEvent) {
    if (bars.pasteText(event.clipboardData?.getData('text/plain') ?? '')) event.preventDefault();
  }

  const drag = new BarDrag((dragged: Dragged, { bar, part }: DropPlace) => {
    void back();
    if (dragged.kind === 'bars') {
      if (!isIn(dragged.bar)) writing.go(dragged.bar);
      bars.moveTo(part < 0.5 ? bar - 1 : bar);
      return;
    }
    const meter = writing.bars[bar]?.meter ?? { beats: 4 };
    bars.moveChord({ bar: dragged.bar, chord: dragged.chord }, { bar, beat: Math.floor(part * meter.beats) });
  });
  /** Where the mark of a drop stands in a bar. */
  function dropIn(bar: number): number | null {
    const { dragged, over } = drag;
    if (!dragged || over?.bar !== bar) return null;
    if (dragged.kind === 'bars') return over.part < 0.5 ? 0 : 0.99;
    const beats = writing.bars[bar]?.meter.beats ?? 4;
    return Math.floor(over.part * beats) / beats;
  }
  function go(bar: number, beat: number, isExtending: boolean) {
    if (drag.isOfDrag) return;
    hasFocus = true;
    if (isExtending) writing.extendTo(bar);
    else writing.go(bar, beat);
  }
</script>

{#snippet field(label: string)}
  <input
    class="h-8 w-full min-w-8 scroll-my-16 rounded border-2 border-next bg-paper px-1 font-display text-lg outline-none {hasPad
      ? 'max-sm:scroll-mb-[420px]'
      : ''}"
    aria-label={label}
    aria-describedby="bar-reading"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    inputmode={hasPad ? 'none' : 'text'}
    value={writing.text}
    oninput={(event) => writing.type(event.currentTarget.value)}
    onkeydown={press}
    oncopy={copied}
    oncut={copied}
    onpaste={pasted}
    data-bar-field
    {@attach takeFocus}
  />
{/snippet}

<div
  bind:this={grid}
  class="@container min-h-0 overflow-y-auto"
  data-bars-editor
  role="group"
  aria-label="Bars"
  onfocusin={() => (hasFocus = true)}
  onfocusout={left}
  onpointerdown={(event) => drag.down(event)}
  onpointermove={(event) => drag.move(event)}
  onpointerup={() => drag.up()}
  onpointercancel={() => drag.cancel()}
  {@attach dragByTouch(() => drag.dragged !== null)}
>
  <Pager count={writing.bars.length} at={Math.min(caret.bar, writing.bars.length - 1)} name="bars" size={96}>
    {#snippet children(from, to)}
      <div
        class="grid grid-cols-2 border-r border-line @min-[400px]:grid-cols-4 @min-[1100px]:grid-cols-8"
        data-bars
      >
        {#each writing.bars.slice(from, to) as bar (bar.index)}
          <BarBox
            {bar}
            caret={caret.bar === bar.index ? caret.beat : null}
            isSelected={isIn(bar.index)}
            dropAt={dropIn(bar.index)}
            problems={writing.problems.get(bar.index) ?? []}
            {field}
            onpress={(beat, isExtending) => go(bar.index, beat, isExtending)}
          />
        {/each}
        {#if to === writing.bars.length}
          <div class="flex min-h-15 items-center border-l border-edge px-2" data-bar={writing.bars.length}>
            {#if caret.bar >= writing.bars.length}
              {@render field(`New bar ${writing.bars.length + 1}: chord`)}
            {:else}
              <button
                type="button"
                class="flex h-full w-full items-center justify-center rounded text-soft hover:text-ink"
                aria-label="New bar"
                data-new-bar
                onclick={() => go(writing.bars.length, 0, false)}><Plus size={18} /></button
              >
            {/if}
          </div>
        {/if}
      </div>
    {/snippet}
  </Pager>
</div>
