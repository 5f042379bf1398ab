<!-- Which line is shown, of what kind, how it is found; kept, renamed, deleted; moved; played. One row: what is needed now and then is in menus. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Pause from '@lucide/svelte/icons/pause';
  import PenLine from '@lucide/svelte/icons/pen-line';
  import Play from '@lucide/svelte/icons/play';
  import RefreshCw from '@lucide/svelte/icons/refresh-cw';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { Snippet } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { nth, sure } from '$lib/core/base/list';
  import { acceptOf } from '$lib/core/formats/facts';
  import { LINE_LEVELS, levelOf, type LevelId, type LineLevel } from '$lib/core/line/find/registry';
  import { keyText } from '$lib/core/harmony/key';
  import { STYLES, type Style } from '$lib/core/harmony/style';
  import { MOTIF_OPERATIONS } from '$lib/core/line/operations';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { homeUp } from '$lib/core/theory/tonic';
  import type { LineNote } from '$lib/core/line/model';
  import { readLine } from '$lib/core/line/read';
  import { spelledOver } from '$lib/core/line/spelling';
  import { prettyProse } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import { MELODY } from '$lib/state/lines/current.svelte';
  import type { Lines } from '$lib/state/lines/lines.svelte';
  import { moveLine, moveToChords, moveToStrings, repeatMotif } from '$lib/state/lines/moves';
  import type { Pen } from '$lib/state/lines/pen.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import * as VOICES from '$lib/core/formats/piece';
  import { saveFile } from '../export/file';
  import { LINE_FORMATS } from '../exports';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import { LOOPS, type LoopId } from './loops';

  interface Props {
    workspace: Workspace;
    lines: Lines;
    rehearsal: Rehearsal;
    pen: Pen;
    /** The licks that fit are shown below. */
    showsLicks: boolean;
    loop: LoopId;
    onloop: (loop: LoopId) => void;
  }
  let { workspace, lines, rehearsal, pen, showsLicks = $bindable(), loop, onloop }: Props = $props();

  const LEVELS: readonly LineLevel[] = LINE_LEVELS;
  /** A motif is carried from what is written. */
  const kinds = LEVELS.filter(({ id }) => id !== 'motif');
  const OWN = 'own';
  /** The level of the line that is shown; none for one that was kept. */
  const level = $derived(lines.current.shown?.finding?.level ?? '');
  const figures = $derived(levelOf(level)?.figures);
  const isPhrases = $derived((level || lines.finding.asked.level) === 'phrases');
  const HEARD = 'heard';
  const heardStyle = $derived(
    sure(
      STYLES.find(({ id }) => id === lines.finding.style.style),
      'STYLES'
    ).name
  );
  /** How dense phrases are; between the two the style decides. */
  const DENSITIES = { sparse: 0.15, style: undefined, dense: 0.9 } as const;
  type Density = keyof typeof DENSITIES;
  const density = $derived(
    (Object.keys(DENSITIES) as Density[]).find((name) => DENSITIES[name] === lines.finding.asked.density) ??
      'style'
  );
  const BOLDNESSES = { plain: 0, style: undefined, bold: 1 } as const;
  type Boldness = keyof typeof BOLDNESSES;
  const boldness = $derived(
    (Object.keys(BOLDNESSES) as Boldness[]).find(
      (name) => BOLDNESSES[name] === lines.finding.asked.boldness
    ) ?? 'style'
  );
  const isMoved = $derived(rehearsal.keys.shift !== 0);
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
  const NEW = 'new';
  const kept = $derived([
    ...(lines.shelf.stored || lines.current.isMelody ? [] : [{ value: NEW, name: 'not kept yet' }]),
    { value: MELODY, name: 'the melody', hint: workspace.melody ? '' : 'The chart has none yet; write it' },
    ...lines.shelf.kept.map(({ id, name, data }) => ({
      value: id,
      name,
      ...(data ? {} : { hint: 'Damaged; kept as it is' })
    }))
  ]);
  const MOVES = [
    { value: 'octave up', name: 'an octave up', semitones: 12, where: 'along' },
    { value: 'octave down', name: 'an octave down', semitones: -12, where: 'along' },
    { value: 'octave up here', name: 'an octave up, in any place', semitones: 12, where: 'every octave' },
    { value: 'octave down here', name: 'an octave down, in any place', semitones: -12, where: 'every octave' }
  ] as const;
  const positions = $derived(
    Array.from(
      { length: Math.floor((workspace.neck.frets - 4) / 2) },
      (_, i) => workspace.neck.capo + 1 + 2 * i
    )
  );
  /** Neighbouring strings, three at a time. */
  const stringSets = $derived(
    Array.from({ length: Math.max(0, workspace.neck.strings.length - 2) }, (_, i) => [i + 1, i + 2, i + 3])
  );
  const moves = $derived([
    ...MOVES.map(({ value, name }) => ({ value: value as string, name: name as string })),
    ...positions.map((position) => ({ value: `position ${position}`, name: `into position ${position}` })),
    ...stringSets.map((strings) => ({
      value: `strings ${strings.join(' ')}`,
      name: `on strings ${strings.join(' ')}, along the neck`
    }))
  ]);
  type Carry = Omit<Parameters<typeof repeatMotif>[1], 'subdivision'> & {
    value: string;
    name: string;
    hint?: string;
  };
  const CARRIES: readonly Carry[] = [
    { value: 'led 1', name: 'this bar, led to the chords', bars: 1, how: 'led' },
    { value: 'led 2', name: 'this bar and the next, led', bars: 2, how: 'led' },
    { value: 'shifted 1', name: 'this bar, shifted exactly', bars: 1, how: 'shifted' },
    { value: 'shifted 2', name: 'this bar and the next, shifted', bars: 2, how: 'shifted' },
    ...MOTIF_OPERATIONS.filter(({ id }) => id !== 'repeat').map(({ id, name, hint }) => ({
      value: id,
      name: `this bar, then ${name}`,
      hint: `${hint}, and again as it is`,
      bars: 1,
      how: 'led' as const,
      operations: [id, 'repeat'] as const
    }))
  ];

  function move(value: string) {
    const known = MOVES.find((one) => one.value === value);
    if (known) moveLine(lines, known);
    else if (value.startsWith('strings')) moveToStrings(lines, value.split(' ').slice(1).map(Number));
    else moveLine(lines, { where: 'in place', position: Number(value.replace('position ', '')) });
  }

  let input: HTMLInputElement | undefined = $state();
  const BRING = 'bring';
  const files = [
    ...LINE_FORMATS.map(({ id, name, hint }) => ({ value: id, name: `save as ${name}`, hint })),
    { value: BRING, name: 'import lines from a file', hint: 'MusicXML, MIDI, tab or CSV' }
  ];
  /** Names by the chord of their moment, as on the staff. */
  function spelled(notes: readonly LineNote[]) {
    const { sheet, analysis, chosen } = workspace;
    const ground = { form: sheet.form, analysis, chosen };
    return spelledOver(notes, readLine({ meter: sheet.head.meter, notes }, ground).notes, ground);
  }
  async function file(value: string) {
    if (value === BRING) return input?.click();
    const format = LINE_FORMATS.find(({ id }) => id === value);
    const { shown } = lines.current;
    if (!format || !shown) return;
    const { document, sheet, neck, melody } = workspace;
    const voices = [
      lines.current.isMelody
        ? { name: VOICES.MELODY, notes: shown.notes }
        : { name: `${VOICES.LINE}${shown.name}`, notes: spelled(shown.notes) },
      ...(melody && !lines.current.isMelody ? [{ name: VOICES.MELODY, notes: melody.line.notes }] : [])
    ];
    try {
      const blob = await format.make({ title: document.title, chart: document.source, sheet, neck, voices });
      saveFile(blob, `${document.title} ${shown.name}`, format.id);
    } catch {
      lines.current.problem = format.trouble;
    }
  }

  async function remove() {
    const name = lines.shelf.stored?.name ?? '';
    const restore = await lines.shelf.remove();
    if (restore)
      toast(`“${name}” deleted.`, { action: { label: 'Undo', onClick: () => void restore() } });
  }
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm" aria-label="The line, found, played and kept">
  <div class="flex flex-wrap items-center gap-x-2 gap-y-2">
    <div class="flex flex-wrap items-center gap-1.5">
      <Button
        tone="strong"
        hint="With the band (Space)"
        onclick={() => rehearsal.transport.toggle()}
        disabled={!lines.current.shown}
        >{#if rehearsal.transport.isPlaying}<Pause size={15} /> Stop{:else}<Play size={15} /> Play{/if}</Button
      >
      <Popover.Root>
        <Popover.Trigger
          class={button({})}
          aria-label="{loopName} · {rehearsal.tempo.value} · {keyName}: how it plays"
          data-hint="What is looped, tempo, key"
          data-playing-rules
          >{loopName} · {rehearsal.tempo.value} · {keyName}<ChevronDown
            size={14}
            class="opacity-70"
          /></Popover.Trigger
        >
        <Popover.Portal to="main">
          <Popover.Content
            class="z-40 flex w-72 flex-col gap-2 card p-3 text-sm shadow-lg"
            sideOffset={6}
            collisionPadding={8}
            aria-label="How it plays"
          >
            {@render row('Loop', looping)}
            {@render row('Tempo', tempoField)}
            {@render row('Key', keyList)}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
    {#if pen.isWriting}
      <div class="flex flex-wrap items-center gap-2">
        <Button hint="Begin with an empty line" onclick={() => lines.current.blank()}>empty</Button>
        <p class="text-soft tabular-nums" data-pen={pen.where}>{pen.where}</p>
      </div>
    {:else}
      <div class="flex flex-wrap items-center gap-1.5" role="group" aria-label="Find a line">
        <Select
          label="Kind of line"
          class="max-w-36"
          value={level || OWN}
          options={[
            ...(level ? [] : [{ value: OWN, name: 'find a line' }]),
            ...kinds.map(({ id, name, hint }) => ({ value: id as string, name: name.toLowerCase(), hint }))
          ]}
          hint="Phrases, or an exercise"
          onpick={(id) => id !== OWN && void lines.finding.find({ level: id as LevelId, figure: undefined })}
        />
        <Button
          label={isPhrases ? 'New phrases' : 'New rhythm'}
          hint={isPhrases
            ? 'Other phrases in the same style; locked ones stay'
            : 'Another rhythm and another way, over the same targets'}
          onclick={() => void lines.finding.another()}><RefreshCw size={15} /></Button
        >
        <Popover.Root>
          <Popover.Trigger
            class={button({ isIcon: true })}
            aria-label="How it is found"
            data-hint="Style, density, boldness; figure and notes in a beat"
            ><SlidersHorizontal size={15} /></Popover.Trigger
          >
          <Popover.Portal to="main">
            <Popover.Content
              class="z-40 flex w-72 flex-col gap-2 card p-3 text-sm shadow-lg"
              sideOffset={6}
              collisionPadding={8}
              aria-label="How it is found"
              data-finding-rules
            >
              {#if isPhrases}
                {@render row('Style', styles)}
                {@render row('Density', densities)}
                {@render row('Boldness', boldnesses)}
              {:else}
                {#if figures}{@render row('Figure', figureList)}{/if}
                {@render row('Notes in a quarter', subdivisions)}
                <div>
                  <Button
                    hint="The next best notes in the same rhythm"
                    onclick={() => void lines.finding.nextBest()}>other notes</Button
                  >
                </div>
              {/if}
              {#if lines.current.shown?.finding}
                <p class="text-soft" data-finding>
                  Variation {lines.current.shown.finding.seed + 1}{isPhrases
                    ? ''
                    : `, no. ${lines.current.shown.finding.rank + 1}`}{!isPhrases &&
                  lines.current.shown.differs
                    ? `: ${counted(lines.current.shown.differs, 'note')} differ`
                    : ''}
                </p>
              {/if}
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </div>
    {/if}
    <div class="flex flex-wrap items-center gap-1.5">
      <Toggles
        label="How the line is shown"
        value={settings.now.lineAs}
        options={[
          { value: 'time', name: 'in time', hint: 'Time across, pitch up: degrees, and what is heard' },
          { value: 'score', name: 'tab', hint: 'Staff and tab' }
        ]}
        onpick={(lineAs) => settings.change({ lineAs: lineAs as 'time' | 'score' })}
      />
      <Button
        pressed={pen.isWriting}
        data-write
        disabled={isMoved}
        hint="By keys, or by tapping tab and neck (N)"
        onclick={() => (pen.isWriting ? pen.stop() : pen.start())}><PenLine size={15} /> write</Button
      >
      <Button
        pressed={showsLicks}
        hint="Keep a passage as a lick; insert one where it fits"
        onclick={() => (showsLicks = !showsLicks)}>licks</Button
      >
    </div>
    <div class="ml-auto flex flex-wrap items-center gap-1.5">
      {#if lines.shelf.isLoaded}
        <Select
          label="Line"
          class="max-w-40"
          value={lines.current.isMelody ? MELODY : (lines.shelf.stored?.id ?? NEW)}
          options={kept}
          onpick={(id) => (id === MELODY ? lines.shelf.openMelody() : id !== NEW && lines.shelf.open(id))}
        />
      {/if}
      <Button
        tone={lines.shelf.isKept ? undefined : 'strong'}
        disabled={!lines.current.shown?.notes.length || lines.shelf.isKept || isMoved}
        hint="Keep it with this chart"
        onclick={() => void lines.shelf.keep()}>{lines.shelf.isKept ? 'kept' : 'Keep'}</Button
      >
      <Popover.Root>
        <Popover.Trigger
          class={button({ isIcon: true })}
          aria-label="More for the line"
          data-hint="Name, transpose, repeat a motif, files, delete"><Ellipsis size={16} /></Popover.Trigger
        >
        <Popover.Portal to="main">
          <Popover.Content
            class="z-40 flex w-80 max-w-[calc(100vw-16px)] flex-col gap-2 card p-3 text-sm shadow-lg"
            sideOffset={6}
            collisionPadding={8}
            aria-label="More for the line"
          >
            {#if lines.current.shown}
              <label class="flex items-center gap-2">
                <span class="w-24 shrink-0 text-soft">Name</span>
                <input
                  class="min-h-8.5 min-w-0 grow rounded-md border border-edge bg-surface px-2 pointer-coarse:min-h-11"
                  aria-label="Name of the line"
                  maxlength="120"
                  value={lines.current.shown.name}
                  onchange={(event) => void lines.shelf.rename(event.currentTarget.value)}
                />
              </label>
            {/if}
            {@render row('Transpose', transposing)}
            {@render row('Repeat motif', carrying)}
            {@render row('File', filing)}
            {#if settings.now.lineAs === 'score'}
              <Button
                class="justify-start"
                pressed={settings.now.scoreDegrees}
                hint="What each note is on its chord, below the tab"
                onclick={() => settings.change({ scoreDegrees: !settings.now.scoreDegrees })}
                >degrees below the tab</Button
              >
            {/if}
            <Button class="justify-start" disabled={!lines.shelf.stored} onclick={() => void remove()}
              ><Trash2 size={15} /> Delete this line</Button
            >
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  </div>
  {#if lines.current.problem || rehearsal.notice.problem}
    <p class="text-warn" role="alert">{prettyProse(lines.current.problem || rehearsal.notice.problem)}</p>
  {/if}
  {#if lines.shelf.isOverOthers}
    <p class="flex flex-wrap items-center gap-2 text-warn" role="status" data-over-others>
      The chords have been edited since this line was kept; it stands as it was.
      <Button size="small" onclick={() => moveToChords(lines, lines.shelf.stored!.data!.over)}
        >adapt it to the new chords</Button
      >
    </p>
  {/if}
</section>
<input
  bind:this={input}
  type="file"
  class="sr-only"
  tabindex="-1"
  aria-label="A file of lines"
  accept={acceptOf(['musicxml', 'midi', 'tab', 'csv'])}
  data-import
  onchange={(event) => {
    const [chosen] = event.currentTarget.files ?? [];
    if (chosen) void lines.shelf.readFile(chosen);
    event.currentTarget.value = '';
  }}
/>

{#snippet row(name: string, content: Snippet)}
  <div class="flex items-center gap-2">
    <span class="w-24 shrink-0 text-soft">{name}</span>
    <div class="flex min-w-0 grow">{@render content()}</div>
  </div>
{/snippet}
{#snippet styles()}
  <Select
    label="Style of the music"
    class="grow"
    value={lines.finding.style.isDeclared ? lines.finding.style.style : HEARD}
    options={[
      {
        value: HEARD,
        name: lines.finding.style.isDeclared ? 'as it is heard' : heardStyle,
        hint: 'Told by the chords and the feel'
      },
      ...STYLES.map(({ id, name }) => ({ value: id, name }))
    ]}
    hint="Kept with the chart"
    onpick={(id) => void lines.finding.setStyle(id === HEARD ? null : (id as Style))}
  />
{/snippet}
{#snippet densities()}
  <Select
    label="How dense the phrases are"
    class="grow"
    value={density}
    options={[
      { value: 'sparse', name: 'sparse', hint: 'Few notes, much air' },
      { value: 'style', name: 'as the style', hint: 'Growing towards its height' },
      { value: 'dense', name: 'dense', hint: 'Many notes, short breaths' }
    ]}
    onpick={(name) => void lines.finding.find({ density: DENSITIES[name as Density] })}
  />
{/snippet}
{#snippet boldnesses()}
  <Select
    label="How bold the phrases are"
    class="grow"
    value={boldness}
    options={[
      { value: 'plain', name: 'plain', hint: 'Chord tones on time, a narrow range' },
      { value: 'style', name: 'as the style' },
      { value: 'bold', name: 'bold', hint: 'More pushes, enclosures, bends; a higher summit' }
    ]}
    onpick={(name) => void lines.finding.find({ boldness: BOLDNESSES[name as Boldness] })}
  />
{/snippet}
{#snippet figureList()}
  <Select
    label="Figure"
    class="grow"
    value={lines.finding.asked.figure ?? figures![0]!.id}
    options={figures!.map(({ id, name }) => ({ value: id, name }))}
    onpick={(figure) => void lines.finding.find({ figure })}
  />
{/snippet}
{#snippet subdivisions()}
  <Select
    label="Notes in a quarter"
    class="grow"
    value={String(lines.finding.asked.subdivision)}
    options={[
      { value: '2', name: 'eighths' },
      { value: '3', name: 'triplets' },
      { value: '4', name: 'sixteenths' }
    ]}
    onpick={(count) => void lines.finding.find({ subdivision: Number(count) })}
  />
{/snippet}
{#snippet transposing()}
  <Select
    label="Move the line"
    class="grow"
    value=""
    options={[{ value: '', name: 'to …' }, ...moves]}
    hint="Along its strings, to another octave, or into a position"
    onpick={(value) => value && move(value)}
  />
{/snippet}
{#snippet carrying()}
  <Select
    label="Repeat a motif"
    class="grow"
    value=""
    options={[{ value: '', name: 'how …' }, ...CARRIES]}
    hint="Rhythm and contour of this bar over each next chord"
    onpick={(value) => {
      const carry = CARRIES.find((one) => one.value === value);
      if (carry) repeatMotif(lines, { ...carry, subdivision: lines.finding.asked.subdivision });
    }}
  />
{/snippet}
{#snippet filing()}
  <Select
    label="Files of the line"
    class="grow"
    value=""
    options={[{ value: '', name: 'save or import …' }, ...files]}
    hint="Save the line, or import lines from elsewhere"
    onpick={(value) => value && void file(value)}
  />
{/snippet}
{#snippet looping()}
  <Select
    label="What is looped"
    class="grow"
    value={loop}
    options={LOOPS}
    onpick={(id) => onloop(id as LoopId)}
  />
{/snippet}
{#snippet tempoField()}
  <NumberField
    label="Tempo"
    value={rehearsal.tempo.value}
    min={LOWEST_TEMPO}
    max={HIGHEST_TEMPO}
    unit="bpm"
    onset={(tempo) => rehearsal.tempo.set(tempo)}
  />
{/snippet}
{#snippet keyList()}
  <Select
    label="Key"
    class="grow"
    value={rehearsal.keys.lineKeys === 'stay' ? String(rehearsal.keys.shift) : ALL_KEYS}
    options={keys}
    hint="Chart and line in another key, or round all twelve"
    onpick={pickKey}
  />
{/snippet}
