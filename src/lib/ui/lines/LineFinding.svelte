<!-- Finding a line: of what kind, and by which rules. -->
<script lang="ts">
  import RefreshCw from '@lucide/svelte/icons/refresh-cw';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { sure } from '$lib/core/base/list';
  import { STYLES, type Style } from '$lib/core/harmony/style';
  import { LINE_LEVELS, levelOf, type LevelId, type LineLevel } from '$lib/core/line/find/registry';
  import { counted } from '$lib/core/theory/words';
  import type { Lines } from '$lib/state/lines/lines.svelte';
  import Button from '../kit/Button.svelte';
  import PopoverButton from '../kit/PopoverButton.svelte';
  import Select from '../kit/Select.svelte';
  import MenuSelect from './MenuSelect.svelte';

  let { lines }: { lines: Lines } = $props();

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
</script>

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
  <PopoverButton
    label="How it is found"
    hint="Style, density, boldness; figure and notes in a beat"
    look={{ isIcon: true }}
    within="main"
  >
    {#snippet face()}<SlidersHorizontal size={15} />{/snippet}
    {#if isPhrases}
      <MenuSelect
        name="Style"
        label="Style of the music"
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
      <MenuSelect
        name="Density"
        label="How dense the phrases are"
        value={density}
        options={[
          { value: 'sparse', name: 'sparse', hint: 'Few notes, much air' },
          { value: 'style', name: 'as the style', hint: 'Growing towards its height' },
          { value: 'dense', name: 'dense', hint: 'Many notes, short breaths' }
        ]}
        onpick={(name) => void lines.finding.find({ density: DENSITIES[name as Density] })}
      />
      <MenuSelect
        name="Boldness"
        label="How bold the phrases are"
        value={boldness}
        options={[
          { value: 'plain', name: 'plain', hint: 'Chord tones on time, a narrow range' },
          { value: 'style', name: 'as the style' },
          { value: 'bold', name: 'bold', hint: 'More pushes, enclosures, bends; a higher summit' }
        ]}
        onpick={(name) => void lines.finding.find({ boldness: BOLDNESSES[name as Boldness] })}
      />
    {:else}
      {#if figures}
        <MenuSelect
          name="Figure"
          value={lines.finding.asked.figure ?? figures[0]?.id ?? ''}
          options={figures.map(({ id, name }) => ({ value: id, name }))}
          onpick={(figure) => void lines.finding.find({ figure })}
        />
      {/if}
      <MenuSelect
        name="Notes in a quarter"
        value={String(lines.finding.asked.subdivision)}
        options={[
          { value: '2', name: 'eighths' },
          { value: '3', name: 'triplets' },
          { value: '4', name: 'sixteenths' }
        ]}
        onpick={(count) => void lines.finding.find({ subdivision: Number(count) })}
      />
      <div>
        <Button hint="The next best notes in the same rhythm" onclick={() => void lines.finding.nextBest()}
          >other notes</Button
        >
      </div>
    {/if}
    {#if lines.current.shown?.finding}
      <p class="text-soft" data-finding>
        Variation {lines.current.shown.finding.seed + 1}{isPhrases
          ? ''
          : `, no. ${lines.current.shown.finding.rank + 1}`}{!isPhrases && lines.current.shown.differs
          ? `: ${counted(lines.current.shown.differs, 'note')} differ`
          : ''}
      </p>
    {/if}
  </PopoverButton>
</div>
