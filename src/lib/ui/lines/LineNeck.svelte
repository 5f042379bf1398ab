<!-- The notes of a line over one change, where they lie: in their order from finger to finger. -->
<script lang="ts">
  import type { LineNote } from '$lib/core/line/model';
  import type { ReadNote } from '$lib/core/line/read';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import Board from '../neck/Board.svelte';
  import { neckGeometry } from '../neck/geometry';
  import NoteMark from '../neck/NoteMark.svelte';

  interface Props {
    workspace: Workspace;
    /** Of the change that is shown, in their order. */
    notes: readonly { readonly note: LineNote; readonly read: ReadNote }[];
    /** The landing that follows, faint. */
    next: LineNote | null;
    /** Start of the note that sounds, in ticks. */
    lit: number | null;
    /** A place was tapped, to be written. */
    onstrike?: ((string: number, fret: number) => void) | undefined;
  }
  let { workspace, notes, next, lit, onstrike }: Props = $props();

  const NARROWEST = 620;
  let width = $state(900);
  const scroller = new ScrollWindow();
  const neck = $derived(workspace.neck);
  const strings = $derived(neck.strings.length);
  const geometry = $derived(
    neckGeometry({
      width: Math.max(NARROWEST, width - 16),
      strings,
      from: 0,
      to: neck.frets,
      stringGap: Math.min(35, 175 / (strings - 1)),
      top: 28,
      bottom: 24,
      open: 34,
      leftHanded: settings.now.leftHanded
    })
  );
  interface Placed {
    readonly x: number;
    readonly y: number;
    readonly note: LineNote;
    readonly read: ReadNote;
    readonly place: { readonly string: number; readonly fret: number };
  }
  const placed = $derived(
    notes.flatMap(({ note, read }): Placed[] =>
      note.place
        ? [
            {
              note,
              read,
              place: note.place,
              x: geometry.finger(note.place.fret),
              y: geometry.string(note.place.string)
            }
          ]
        : []
    )
  );
  /** One mark a place, whatever comes back to it: the first, and the target before all. */
  const marks = $derived(
    placed.filter((one, i) => {
      const same = placed.filter(({ x, y }) => x === one.x && y === one.y);
      const shown = same.find(({ note }) => note.purpose === 'target') ?? same[0];
      return placed[i] === shown;
    })
  );
  const way = $derived(placed.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(''));
  const markRole = ({ note, read }: Placed) =>
    note.purpose === 'target'
      ? 'target'
      : read.role === 'chord tone'
        ? 'chord'
        : read.role === 'avoid' || read.role === 'outside'
          ? 'avoid'
          : 'tension';
  const labelOf = ({ note, read }: Placed) =>
    settings.label({ degree: read.degree ?? '', note: note.note, finger: note.place?.finger });
  const spoken = $derived(
    placed
      .map(({ place, read }) => `string ${place.string} fret ${place.fret}, ${read.degree ?? 'no chord'}`)
      .join('; ')
  );

  function tap(event: MouseEvent & { currentTarget: Element }) {
    if (!onstrike) return;
    const box = event.currentTarget.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left, event.clientY - box.top];
    const gap = geometry.string(2) - geometry.string(1);
    const string = 1 + Math.round((y - geometry.string(1)) / gap);
    const isOpen = settings.now.leftHanded ? x > geometry.wire(0) : x < geometry.wire(0);
    if (string >= 1 && string <= strings) onstrike(string, isOpen ? 0 : Math.max(1, geometry.fretAt(x)));
  }

  $effect(() => {
    const xs = marks.map(({ x }) => x);
    if (xs.length) scroller.centre(Math.min(...xs) - 40, Math.max(...xs) + 40);
  });
</script>

<section class="min-w-0 card px-2 pt-1" aria-label="The line on the neck" bind:clientWidth={width}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="overflow-x-auto"
    role="group"
    aria-label="Neck, to be scrolled"
    tabindex="0"
    {@attach scroller.follow}
  >
    <!-- By keys the same is written at the caret. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      onclick={tap}
      width={geometry.width}
      height={geometry.height}
      class="block {onstrike ? 'cursor-crosshair' : ''}"
      role="img"
      aria-label={spoken || 'The line is silent here'}
    >
      <rect
        x={Math.min(geometry.wire(0), geometry.wire(neck.frets))}
        y={geometry.string(1) - 10}
        width={Math.abs(geometry.wire(neck.frets) - geometry.wire(0))}
        height={geometry.string(strings) - geometry.string(1) + 20}
        fill="var(--wood)"
      />
      <Board {geometry} {strings} from={1} to={neck.frets} isLarge capo={neck.capo} />
      <path d={way} fill="none" class="stroke-soft" stroke-width="1.6" stroke-dasharray="4 3" />
      {#if next?.place}
        <circle
          cx={geometry.finger(next.place.fret)}
          cy={geometry.string(next.place.string)}
          r="14"
          fill="none"
          class="stroke-next"
          stroke-width="2"
          data-next-landing
        />
      {/if}
      {#each marks as one (`${one.x} ${one.y}`)}
        {@const isLit = placed.some(({ note, x, y }) => note.start === lit && x === one.x && y === one.y)}
        <g data-place="{one.place.string}:{one.place.fret}">
          <NoteMark x={one.x} y={one.y} role={markRole(one)} label={labelOf(one)} />
          {#if isLit}
            <circle cx={one.x} cy={one.y} r="17" fill="none" class="stroke-ink" stroke-width="3" data-lit />
          {/if}
        </g>
      {/each}
    </svg>
  </div>
</section>
