<!-- Which line is shown and how full it is; kept, renamed, deleted; moved; played. -->
<script lang="ts">
  import Pause from '@lucide/svelte/icons/pause';
  import PenLine from '@lucide/svelte/icons/pen-line';
  import Play from '@lucide/svelte/icons/play';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { toast } from 'svelte-sonner';
  import { LINE_LEVELS, levelOf, type LevelId, type LineLevel } from '$lib/core/line/find/registry';
  import { keyText } from '$lib/core/harmony/key';
  import { STYLES, type Style } from '$lib/core/harmony/style';
  import { MOTIF_OPERATIONS } from '$lib/core/line/operations';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { homeUp } from '$lib/core/theory/tonic';
  import { prettyProse } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import { MELODY, type Lines } from '$lib/state/lines.svelte';
  import type { Pen } from '$lib/state/pen.svelte';
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import * as VOICES from '$lib/core/formats/piece';
  import { saveFile } from '../export/file';
  import { LINE_FORMATS } from '../exports';
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
  const growth = LEVELS.filter(({ grows }) => grows);
  const others = LEVELS.filter(({ grows, id }) => !grows && id !== 'motif' && id !== 'phrases');
  const phrases = levelOf('phrases')!;
  /** The level of the line that is shown; none for one that was kept. */
  const level = $derived(lines.shown?.finding?.level ?? '');
  const figures = $derived(levelOf(level)?.figures);
  const isPhrases = $derived(level === 'phrases');
  const HEARD = 'heard';
  const heardStyle = $derived(STYLES.find(({ id }) => id === lines.style.style)!.name);
  /** How dense phrases are; between the two the style decides. */
  const DENSITIES = { sparse: 0.15, style: undefined, dense: 0.9 } as const;
  type Density = keyof typeof DENSITIES;
  const density = $derived(
    (Object.keys(DENSITIES) as Density[]).find((name) => DENSITIES[name] === lines.asked.density) ?? 'style'
  );
  const isMoved = $derived(rehearsal.shift !== 0);
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
    rehearsal.lineKeys = key === ALL_KEYS ? 'fourths' : 'stay';
    rehearsal.shift = key === ALL_KEYS ? 0 : Number(key);
    if (rehearsal.isPlaying) void rehearsal.play();
  }
  const NEW = 'new';
  const kept = $derived([
    ...(lines.stored || lines.isMelody ? [] : [{ value: NEW, name: 'not kept yet' }]),
    { value: MELODY, name: 'the melody', hint: workspace.melody ? '' : 'The chart has none yet; write it' },
    ...lines.kept.map(({ id, name, data }) => ({
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
  type Carry = Parameters<typeof lines.carry>[0] & { value: string; name: string; hint?: string };
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
    if (known) lines.move(known);
    else if (value.startsWith('strings')) lines.onStrings(value.split(' ').slice(1).map(Number));
    else lines.move({ where: 'in place', position: Number(value.replace('position ', '')) });
  }

  let input: HTMLInputElement | undefined = $state();
  const BRING = 'bring';
  const files = [
    ...LINE_FORMATS.map(({ id, name, hint }) => ({ value: id, name: `save as ${name}`, hint })),
    { value: BRING, name: 'bring lines from a file', hint: 'MusicXML, MIDI, tab or CSV' }
  ];
  async function file(value: string) {
    if (value === BRING) return input?.click();
    const format = LINE_FORMATS.find(({ id }) => id === value);
    const { shown } = lines;
    if (!format || !shown) return;
    const { document, sheet, neck, melody } = workspace;
    const voices = [
      { name: lines.isMelody ? VOICES.MELODY : `${VOICES.LINE}${shown.name}`, notes: shown.notes },
      ...(melody && !lines.isMelody ? [{ name: VOICES.MELODY, notes: melody.line.notes }] : [])
    ];
    try {
      const blob = await format.make({ title: document.title, chart: document.source, sheet, neck, voices });
      saveFile(blob, `${document.title} ${shown.name}`, format.id);
    } catch {
      lines.problem = format.trouble;
    }
  }

  async function remove() {
    const name = lines.stored?.name ?? '';
    const bringBack = await lines.remove();
    if (bringBack)
      toast(`“${name}” deleted.`, { action: { label: 'Undo', onClick: () => void bringBack() } });
  }
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm" aria-label="The line, played and kept">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <div class="flex flex-wrap items-center gap-1.5">
      <Button
        tone="strong"
        hint="With the band (Space)"
        onclick={() => rehearsal.toggle()}
        disabled={!lines.shown}
        >{#if rehearsal.isPlaying}<Pause size={15} /> Stop{:else}<Play size={15} /> Play{/if}</Button
      >
      <Toggles label="What is looped" value={loop} options={LOOPS} onpick={onloop} />
      <NumberField
        label="Tempo"
        value={rehearsal.tempo}
        min={LOWEST_TEMPO}
        max={HIGHEST_TEMPO}
        unit="bpm"
        onset={(tempo) => rehearsal.setTempo(tempo)}
      />
      <Select
        label="Key"
        value={rehearsal.lineKeys === 'stay' ? String(rehearsal.shift) : ALL_KEYS}
        options={keys}
        hint="Chart and line in another key, or round all twelve"
        onpick={pickKey}
      />
    </div>
    <div class="flex flex-wrap items-center gap-1.5">
      <Button
        tone={pen.isWriting ? 'strong' : undefined}
        aria-pressed={pen.isWriting}
        data-write
        disabled={isMoved}
        hint="By keys, or by tapping tab and neck (N)"
        onclick={() => (pen.isWriting ? pen.stop() : pen.start())}><PenLine size={15} /> write</Button
      >
      <Button
        tone={showsLicks ? 'strong' : undefined}
        aria-pressed={showsLicks}
        hint="Keep a passage as a lick; put one in where it fits"
        onclick={() => (showsLicks = !showsLicks)}>licks</Button
      >
      <Select
        label="Files of the line"
        value=""
        options={[{ value: '', name: 'file' }, ...files]}
        hint="Save the line, or bring lines from elsewhere"
        onpick={(value) => value && void file(value)}
      />
      <input
        bind:this={input}
        type="file"
        class="sr-only"
        tabindex="-1"
        aria-label="A file of lines"
        accept=".musicxml,.xml,.mid,.midi,.txt,.tab,.csv"
        data-bring
        onchange={(event) => {
          const [chosen] = event.currentTarget.files ?? [];
          if (chosen) void lines.bring(chosen);
          event.currentTarget.value = '';
        }}
      />
    </div>
    <div class="ml-auto flex flex-wrap items-center gap-1.5">
      {#if lines.isLoaded}
        <Select
          label="Line"
          class="max-w-40"
          value={lines.isMelody ? MELODY : (lines.stored?.id ?? NEW)}
          options={kept}
          onpick={(id) => (id === MELODY ? lines.openMelody() : id !== NEW && lines.open(id))}
        />
      {/if}
      {#if lines.shown}
        <input
          class="min-h-8.5 w-44 rounded-md border border-edge bg-surface px-2 pointer-coarse:min-h-11"
          aria-label="Name of the line"
          maxlength="120"
          value={lines.shown.name}
          onchange={(event) => void lines.rename(event.currentTarget.value)}
        />
      {/if}
      <Button
        tone={lines.isKept ? undefined : 'strong'}
        disabled={!lines.shown?.notes.length || lines.isKept || isMoved}
        hint="Keep it with this chart"
        onclick={() => void lines.keep()}>{lines.isKept ? 'kept' : 'Keep'}</Button
      >
      <Button label="Delete this line" disabled={!lines.stored} onclick={() => void remove()}
        ><Trash2 size={15} /></Button
      >
      <Button label="Undo in the line" disabled={!lines.canUndo} onclick={() => lines.undo()}
        ><Undo2 size={15} /></Button
      >
      <Button label="Redo in the line" disabled={!lines.canRedo} onclick={() => lines.redo()}
        ><Redo2 size={15} /></Button
      >
    </div>
  </div>
  {#if lines.problem || rehearsal.problem}
    <p class="text-warn" role="alert">{prettyProse(lines.problem || rehearsal.problem)}</p>
  {/if}
  {#if lines.isOverOthers}
    <p class="flex flex-wrap items-center gap-2 text-warn" role="status" data-over-others>
      The chords have been edited since this line was kept; it stands as it was.
      <Button size="small" onclick={() => lines.moveToChords()}>move it to the new chords</Button>
    </p>
  {/if}
</section>
<!-- On a phone the line is read first. -->
<section class="min-w-0 card p-2.5 text-sm max-md:order-1" aria-label="How the line is found">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <Toggles
      label="How the line is shown"
      value={settings.now.lineAs}
      options={[
        { value: 'time', name: 'in time', hint: 'Time across, pitch up: degrees, and what is heard' },
        { value: 'score', name: 'staff and tab', hint: 'Notation and tab' }
      ]}
      onpick={(lineAs) => settings.change({ lineAs: lineAs as 'time' | 'score' })}
    />
    {#if pen.isWriting}
      <Button hint="Begin with an empty line" onclick={() => lines.blank()}>empty</Button>
      <p class="ml-auto text-soft tabular-nums" data-pen={pen.where}>{pen.where}</p>
    {:else}
      <div class="flex flex-wrap items-center gap-1.5">
        {#if settings.now.lineAs === 'score'}
          <Button
            tone={settings.now.scoreDegrees ? 'strong' : undefined}
            aria-pressed={settings.now.scoreDegrees}
            hint="What each note is on its chord, below the tab"
            onclick={() => settings.change({ scoreDegrees: !settings.now.scoreDegrees })}>degrees</Button
          >
        {/if}
        <Toggles
          label="Phrases"
          value={level}
          options={[{ value: 'phrases', name: 'phrases', hint: phrases.hint }]}
          onpick={() => void lines.find({ level: 'phrases', figure: undefined })}
        />
        <Toggles
          label="How full the line is"
          value={growth.some(({ id }) => id === level) ? level : ''}
          options={growth.map(({ id, name, hint }) => ({ value: id, name, hint }))}
          onpick={(id) => void lines.find({ level: id as LevelId, figure: undefined })}
        />
        <Select
          label="Other kinds of line"
          value={others.some(({ id }) => id === level) ? level : ''}
          options={[
            ...(others.some(({ id }) => id === level) ? [] : [{ value: '', name: 'another kind' }]),
            ...others.map(({ id, name, hint }) => ({ value: id, name, hint }))
          ]}
          onpick={(id) => id && void lines.find({ level: id as LevelId, figure: undefined })}
        />
        {#if figures}
          <Select
            label="Figure"
            value={lines.asked.figure ?? figures[0]!.id}
            options={figures.map(({ id, name }) => ({ value: id, name }))}
            onpick={(figure) => void lines.find({ figure })}
          />
        {/if}
      </div>
      {#if isPhrases}
        <Select
          label="Style of the music"
          value={lines.style.isDeclared ? lines.style.style : HEARD}
          options={[
            {
              value: HEARD,
              name: lines.style.isDeclared ? 'as it is heard' : heardStyle,
              hint: 'Told by the chords and the feel'
            },
            ...STYLES.map(({ id, name }) => ({ value: id, name }))
          ]}
          hint="Kept with the chart"
          onpick={(id) => void lines.setStyle(id === HEARD ? null : (id as Style))}
        />
        <Select
          label="How dense the phrases are"
          value={density}
          options={[
            { value: 'sparse', name: 'sparse', hint: 'Few notes, much air' },
            { value: 'style', name: 'as the style', hint: 'Growing towards its height' },
            { value: 'dense', name: 'dense', hint: 'Many notes, short breaths' }
          ]}
          onpick={(name) => void lines.find({ density: DENSITIES[name as Density] })}
        />
      {:else}
        <Select
          label="Notes in a quarter"
          value={String(lines.asked.subdivision)}
          options={[
            { value: '2', name: 'eighths' },
            { value: '3', name: 'triplets' },
            { value: '4', name: 'sixteenths' }
          ]}
          onpick={(count) => void lines.find({ subdivision: Number(count) })}
        />
      {/if}
      <div class="flex flex-wrap items-center gap-1.5">
        <Button
          hint={isPhrases
            ? 'Other phrases in the same style'
            : 'Another rhythm and another way, over the same targets'}
          onclick={() => void lines.another()}>another one</Button
        >
        {#if !isPhrases}
          <Button hint="In the same rhythm the next best" onclick={() => void lines.nextBest()}
            >next best</Button
          >
        {/if}
        {#if lines.shown?.finding}
          <span class="text-xs text-soft" data-finding
            >variation {lines.shown.finding.seed + 1}{isPhrases
              ? ''
              : `, no. ${lines.shown.finding.rank + 1}`}{!isPhrases && lines.shown.differs
              ? `: ${counted(lines.shown.differs, 'note')} differ`
              : ''}</span
          >
        {/if}
      </div>
      <div class="ml-auto flex flex-wrap gap-1.5">
        <Select
          label="Carry a motif"
          value=""
          options={[{ value: '', name: 'repeat motif' }, ...CARRIES]}
          hint="Rhythm and contour of this bar over each next chord"
          onpick={(value) => {
            const carry = CARRIES.find((one) => one.value === value);
            if (carry) lines.carry(carry);
          }}
        />
        <Select
          label="Move the line"
          value=""
          options={[{ value: '', name: 'transpose' }, ...moves]}
          hint="Along its strings, to another octave, or into a position"
          onpick={(value) => value && move(value)}
        />
      </div>
    {/if}
  </div>
</section>
