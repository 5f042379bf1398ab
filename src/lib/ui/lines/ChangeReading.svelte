<!-- What is heard in the line at one change, how it is landed on, note by note; and the smallest change that would tell the chord. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { plainName } from '$lib/core/theory/note';
  import type { Key } from '$lib/core/harmony/key';
  import { prettyDegree, prettyNote, prettySymbol } from '$lib/core/theory/typeset';
  import { beatIn } from '$lib/core/line/over-change';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import type { LineNote } from '$lib/core/line/model';
  import type { Mend, OutlinedWindow } from '$lib/core/line/outline';
  import type { LineReading, ReadNote } from '$lib/core/line/read';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import { heardSymbol } from '$lib/core/line/heard-name';
  import { LANDED_WORDS, ROLE_NAMES, VERDICT_WORDS } from './looks';
  import VerdictMark from './VerdictMark.svelte';

  interface Props {
    change: AnalysedChange;
    /** Of the chart. */
    home: Key;
    window: OutlinedWindow;
    reading: LineReading;
    notes: readonly { readonly note: LineNote; readonly read: ReadNote }[];
    mend: Mend | null;
    /** The note that is asked about, by its place in the line, and why it is there. */
    pointed: number | null;
    why: readonly string[];
    onpoint: (index: number | null) => void;
    onhear: (mend: Mend) => void;
    ontake: (mend: Mend) => void;
  }
  let { change, home, window, reading, notes, mend, pointed, why, onpoint, onhear, ontake }: Props = $props();

  const landing = $derived(reading.landings.find((one) => one.change === change.index));
  const changed = $derived(
    (mend?.changes ?? [])
      .map(({ from, to, note }) => {
        const own = notes.find(({ read }) => read.index === note)?.note;
        const when = own ? ` on beat ${beatIn(own, change)}` : '';
        const { chord } = change;
        const spelled = chord?.notes[chord.pitchClasses.indexOf(to % 12)] ?? plainName(to % 12);
        return `${prettyNote(spelled)} instead of ${prettyNote(own?.note ?? plainName(from % 12))}${when}`;
      })
      .join(', ')
  );
  /** From note to note by keys. */
  function ask(event: KeyboardEvent) {
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const at = notes.findIndex(({ read }) => read.index === pointed);
    const to = at < 0 ? (by > 0 ? 0 : notes.length - 1) : Math.max(0, Math.min(notes.length - 1, at + by));
    onpoint(nth(notes, to).read.index);
  }
</script>

<section
  class="flex min-w-0 flex-col gap-2 card p-3 text-sm"
  aria-label="The line at this change"
  data-reading
>
  <h2 class="flex items-baseline gap-2">
    <span class="text-2xl leading-8"><ChordSymbol symbol={change.symbol} /></span>
    <span class="text-soft">bar {change.bar}</span>
  </h2>
  {#if notes.length}
    <div class="min-h-6" aria-live="polite" data-why={pointed ?? undefined}>
      {#if why.length}
        <p class="border-l-3 border-ink pl-2.5">{why.join(' ')}</p>
      {:else}
        <p class="text-soft">Point at a note to see why it is there.</p>
      {/if}
    </div>
  {/if}
  {#if window.verdict}
    <p class="flex items-center gap-2">
      <VerdictMark verdict={window.verdict} size={18} />
      <span class="font-bold">{VERDICT_WORDS[window.verdict]}</span>
    </p>
  {/if}
  {#if window.heard.length}
    <ol class="flex flex-col gap-0.5" aria-label="What a listener would infer from the line alone">
      {#each window.heard.slice(0, 3) as heard (heard.pitchSet)}
        <li class="grid grid-cols-[5.5rem_1fr_2.6rem] items-center gap-2">
          <span class="text-base"><ChordSymbol symbol={heardSymbol(home, change, heard)} /></span>
          <span class="h-2 overflow-hidden rounded-full bg-line"
            ><span class="block h-full bg-tone" style:width="{100 * heard.share}%"></span></span
          >
          <span class="text-right text-soft">{Math.round(100 * heard.share)} %</span>
        </li>
      {/each}
    </ol>
  {/if}
  {#if mend}
    <div class="flex flex-col gap-1.5 border-l-3 border-target pl-2.5" data-mend={mend.reaches}>
      <p>{changed}: {mend.why.charAt(0).toLowerCase() + mend.why.slice(1)}</p>
      <p class="flex flex-wrap gap-1.5">
        <Button size="small" hint="This change after the fix" onclick={() => onhear(mend)}>hear it</Button>
        <Button
          size="small"
          tone="strong"
          hint="Change the line so; undo brings it back"
          onclick={() => ontake(mend)}>fix it</Button
        >
      </p>
    </div>
  {:else if window.verdict === 'not' || window.verdict === 'partly'}
    <p class="text-soft">No change of one or two notes makes it clearer.</p>
  {/if}
  {#if landing && landing.note !== undefined}
    <p>
      Lands on the <b>{landing.degree ? prettyDegree(landing.degree) : 'note'}</b>
      {LANDED_WORDS[landing.by]}{landing.by === 'leap' && landing.semitones !== undefined
        ? ` of ${Math.abs(landing.semitones)} semitones`
        : ''}{landing.late ? (landing.late < 0 ? ', ahead of the beat' : ', behind the beat') : ''}.
    </p>
  {:else}
    <p class="text-soft">Nothing lands on it.</p>
  {/if}
  {#if notes.length}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <div
      class="max-h-44 overflow-y-auto"
      role="group"
      tabindex="0"
      aria-label="Notes over {prettySymbol(change.symbol)}: arrows up and down ask why each is there"
      data-notes-here
      onkeydown={ask}
    >
      <table class="w-full">
        <caption class="sr-only">Notes over {prettySymbol(change.symbol)}</caption>
        <thead class="text-2xs text-soft">
          <tr class="text-left"><th>beat</th><th>note</th><th>is</th><th>as</th></tr>
        </thead>
        <tbody>
          {#each notes as { note, read } (read.index)}
            <tr
              class="border-t border-line hover:bg-lit {read.index === pointed ? 'bg-lit' : ''}"
              onclick={() => onpoint(read.index === pointed ? null : read.index)}
            >
              <td class="text-soft">{beatIn(note, change)}</td>
              <td>{prettyNote(note.note)}</td>
              <td class="font-bold">{read.degree ? prettyDegree(read.degree) : '–'}</td>
              <td class="text-soft">{ROLE_NAMES[read.role]}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>
