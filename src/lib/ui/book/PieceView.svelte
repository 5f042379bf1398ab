<!-- One piece of a page, as high as it said. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { romanText } from '$lib/core/harmony/numeral';
  import { keyName } from '$lib/core/practice/items/words';
  import { keyText } from '$lib/core/harmony/key';
  import { accidentalsOf } from '$lib/core/harmony/key-signature';
  import { ticksOf } from '$lib/core/line/model';
  import { prettyDegree, prettyNumeral } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import SystemDrawing from '../score/System.svelte';
  import { barsText } from '../sheet/distinct';
  import type { Piece } from './pieces';
  import PrintedNeck from './PrintedNeck.svelte';

  interface Props {
    piece: Piece;
    workspace: Workspace;
    /** Width of the page inside its margins, in millimetres. */
    width: number;
  }
  let { piece, workspace, width }: Props = $props();

  const GAP = 6;
  const key = $derived(workspace.analysis.key);
  const signature = $derived.by(() => {
    const count = accidentalsOf(key);
    return count === 0 ? 'no accidentals' : `${Math.abs(count)}${count > 0 ? '♯' : '♭'}`;
  });
  /** The positions that the hand goes through, lowest and highest. */
  const hand = $derived.by(() => {
    const [low, high] = [Math.min(...workspace.hands), Math.max(...workspace.hands)];
    return low === high ? `position ${low}` : `positions ${low} to ${high}`;
  });
  const numeralOf = (index: number) => {
    const { numeral } = nth(workspace.changes, index);
    return numeral ? prettyNumeral(romanText(numeral)) : '';
  };
</script>

<div class="piece {piece.kind}" style:height="{piece.height}mm" data-piece={piece.kind}>
  {#if piece.kind === 'head'}
    <div class="min">
      <h2 class="font-display">{keyName(keyText(key))}</h2>
      <p class="soft">{piece.title} · {signature} · {hand}, {workspace.system.title.toLowerCase()}</p>
    </div>
    {#if piece.beside === 'played'}
      <table class="played">
        <tbody>
          {#each ['day', 'tempo', 'clean'] as what (what)}
            <tr
              ><th scope="row">{what}</th>{#each { length: 6 } as _, i (i)}<td></td>{/each}</tr
            >
          {/each}
        </tbody>
      </table>
    {:else if piece.beside === 'name'}
      <p class="name">name <span></span> day <span class="day"></span></p>
    {/if}
  {:else if piece.kind === 'title'}
    <h3 class="font-display">{piece.text}</h3>
    {#if piece.says}<p class="soft">{piece.says}</p>{/if}
  {:else if piece.kind === 'bars'}
    {#each piece.bars as bar (bar.number)}
      <div class="bar" class:opens={bar.section !== ''}>
        <small
          >{bar.number}{#if bar.section}&ensp;<b>{bar.section}</b>{/if}</small
        >
        {#each bar.changes as change (change.index)}
          {@const target = workspace.paths.targets.get(change.index)?.cell}
          <span
            class="change"
            style:left="{((change.beat - 1) / bar.beats) * 100}%"
            style:font-size="{bar.changes.length > 2 ? 4.1 : 5}mm"
            ><ChordSymbol symbol={change.symbol} />{#if piece.hasTargets && target}<i
                >{prettyDegree(target.degree)} {settings.note(target.note)}</i
              >{/if}</span
          >
        {/each}
      </div>
    {/each}
  {:else if piece.kind === 'moments'}
    {@const isBeside = piece.columns === 2}
    {@const column = (width - GAP * (piece.columns - 1)) / piece.columns}
    {#each piece.moments as { index, bars } (index)}
      {@const change = nth(workspace.changes, index)}
      {@const choice = workspace.chosen[index]}
      {@const target = workspace.paths.targets.get(index)}
      {@const moment = nth(workspace.moments, index)}
      <div class="moment" class:beside={isBeside} style:width="{column}mm">
        <div class="words">
          <p class="chord">
            <ChordSymbol symbol={change.symbol} />&ensp;<small
              >{piece.isBlank ? barsText(bars, 2) : numeralOf(index)}</small
            >
          </p>
          {#if !piece.isBlank}
            {#if choice}
              <p class="choice">
                <b>{settings.collection(choice)}</b>
                {#if isBeside}<br />{choice.notes.map((note) => settings.note(note)).join(' ')}{/if}
              </p>
            {/if}
            {#if target}
              <p class="land">
                land on {prettyDegree(target.cell.degree)}
                {settings.note(target.cell.note)}
              </p>
            {/if}
          {/if}
          {#if isBeside}
            {#if target && !piece.isBlank}<p class="soft">
                string {target.cell.string}, fret {target.cell.fret}
              </p>{/if}
            <p class="soft">{barsText(bars)}</p>
          {/if}
        </div>
        <PrintedNeck
          {moment}
          neck={workspace.neck}
          wanted={nth(workspace.positions, index)}
          {target}
          width={isBeside ? column * 0.6 : column}
          height={isBeside ? 32 : 27}
          isBlank={piece.isBlank}
        />
      </div>
    {/each}
  {:else if piece.kind === 'tableHead'}
    {#each ['bars', 'chord', 'numeral', 'tones', 'scale', 'land on'] as name (name)}<span>{name}</span>{/each}
  {:else if piece.kind === 'table'}
    {@const { index, bars } = piece.moment}
    {@const change = nth(workspace.changes, index)}
    {@const choice = workspace.chosen[index]}
    {@const target = workspace.paths.targets.get(index)?.cell}
    <span class="soft">{barsText(bars, 3).replace(/^bars? /, '')}</span>
    <span class="chord"><ChordSymbol symbol={change.symbol} /></span>
    {#if piece.isBlank}
      <span></span><span></span><span></span><span></span>
    {:else}
      <span>{numeralOf(index)}</span>
      <span>{change.chord?.notes.map((note) => settings.note(note)).join(' ') ?? ''}</span>
      <span>{choice ? settings.collection(choice) : ''}</span>
      <span>{target ? `${prettyDegree(target.degree)} ${settings.note(target.note)}` : ''}</span>
    {/if}
  {:else}
    <SystemDrawing
      system={piece.system}
      engraving={{
        notes: piece.line.notes,
        fifths: piece.fifths,
        strings: workspace.neck.strings.length,
        isTarget: ({ purpose }) => purpose === 'target'
      }}
      marks={{
        chords: workspace.changes.map(({ index, symbol, start }) => ({
          index,
          symbol,
          start: ticksOf(start)
        })),
        change: -1,
        degrees: null,
        time: null,
        lit: null,
        caret: null,
        selected: null
      }}
    />
  {/if}
</div>

<style>
  .piece {
    display: flex;
    overflow: hidden;
  }

  .min {
    flex: 1;
    min-width: 0;
  }

  .soft,
  small {
    color: var(--soft);
  }

  .head {
    gap: 6mm;
    align-items: flex-start;
  }

  h2 {
    font-size: 11mm;
    line-height: 12.5mm;
  }

  .head p {
    font-size: 3.4mm;
    line-height: 4.4mm;
  }

  .played {
    flex: none;
    border-collapse: collapse;
  }

  .played th {
    padding-right: 1.5mm;
    font-size: 3.2mm;
    font-weight: 400;
    color: var(--soft);
    text-align: right;
  }

  .played td {
    width: 11mm;
    height: 6.2mm;
    border: 0.2mm solid var(--soft);
  }

  .name {
    display: flex;
    flex: 0 0 92mm;
    gap: 2mm;
    align-items: baseline;
    padding-top: 6mm;
    color: var(--soft);
  }

  .name span {
    flex: 1;
    border-bottom: 0.2mm solid var(--soft);
  }

  .name .day {
    flex: 0 0 24mm;
  }

  .title {
    gap: 4mm;
    align-items: flex-end;
    padding-bottom: 1mm;
  }

  h3 {
    font-size: 5mm;
    line-height: 6mm;
    white-space: nowrap;
  }

  .title p {
    font-size: 3.2mm;
    line-height: 4.6mm;
  }

  .bar {
    position: relative;
    flex: 0 0 25%;
    border-bottom: 0.2mm solid var(--line);
    border-left: 0.25mm solid var(--ink);
  }

  .bar:last-child {
    border-right: 0.25mm solid var(--ink);
  }

  .opens {
    border-left-width: 0.9mm;
  }

  .bar small {
    position: absolute;
    top: 0;
    left: 1mm;
    font-size: 3.2mm;
    line-height: 3.4mm;
  }

  .change {
    position: absolute;
    top: 3.7mm;
    padding-left: 1mm;
    line-height: 5mm;
    white-space: nowrap;
  }

  .change i {
    position: absolute;
    top: 5mm;
    left: 1mm;
    font-size: 3.2mm;
    font-style: normal;
    line-height: 3.4mm;
    color: var(--soft);
  }

  .moments {
    gap: 6mm;
    align-items: flex-start;
    padding-top: 1.5mm;
  }

  .moment {
    flex: none;
  }

  .beside {
    display: flex;
    gap: 2mm;
    align-items: flex-start;
  }

  .words {
    flex: 1;
    min-width: 0;
    font-size: 3.3mm;
    line-height: 4.1mm;
  }

  .chord {
    font-size: 6.4mm;
    line-height: 7.4mm;
    white-space: nowrap;
  }

  .chord small {
    margin-left: 1mm;
    font-size: 3.3mm;
  }

  .moment:not(.beside) .words {
    display: grid;
    grid-template-columns: auto 1fr;
    column-gap: 3mm;
    height: 12mm;
    font-size: 3.2mm;
    line-height: 3.7mm;
  }

  .moment:not(.beside) .chord {
    grid-row: span 2;
  }

  .moment:not(.beside) :is(.choice, .land) {
    overflow: hidden;
    text-align: right;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .land {
    font-weight: 700;
  }

  .land .soft {
    font-weight: 400;
  }

  .tableHead,
  .table {
    display: grid;
    grid-template-columns: 20mm 26mm 18mm 1.1fr 1.5fr 20mm;
    gap: 0 3mm;
    align-items: center;
    border-bottom: 0.2mm solid var(--line);
    font-size: 3.4mm;
  }

  .tableHead {
    align-items: end;
    border-bottom: 0.3mm solid var(--ink);
    font-size: 3.2mm;
    color: var(--soft);
  }

  .table .chord {
    font-size: 5mm;
  }

  .table span:empty {
    align-self: end;
    height: 6.5mm;
    border-bottom: 0.2mm dotted var(--soft);
  }
</style>
