<!-- The player's guitar and hand: what everything is laid out on. -->
<script lang="ts">
  import { FEWEST_FRETS, HIGHEST_CAPO } from '$lib/api/settings';
  import { MAX_FRETS, MAX_SPAN, MIN_SPAN, readTuning, TUNINGS } from '$lib/core/neck/tuning';
  import { plainName } from '$lib/core/theory/note';
  import { settings } from '$lib/state/settings.svelte';
  import Select from '../kit/Select.svelte';
  import Switch from '../kit/Switch.svelte';

  const OWN = 'own';
  let isOwn = $state(!Object.hasOwn(TUNINGS, settings.now.tuning));
  let typed = $state(settings.now.tuning);
  const isReadable = $derived(readTuning(typed) !== null);
  const TUNING_OPTIONS = [
    ...Object.entries(TUNINGS).map(([value, strings]) => ({ value, name: value, hint: strings })),
    { value: OWN, name: 'own strings …' }
  ];
  const SWITCHES = [
    ['openStrings', 'Play open strings'],
    ['leftHanded', 'Left-handed neck']
  ] as const;

  function pick(name: string) {
    isOwn = name === OWN;
    if (isOwn) typed = TUNINGS[settings.now.tuning] ?? settings.now.tuning;
    else settings.change({ tuning: name });
  }

  function type(text: string) {
    typed = text;
    if (readTuning(text)) settings.change({ tuning: text.trim() });
  }

  const numbers = (from: number, to: number, name: (n: number) => string) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({ value: String(from + i), name: name(from + i) }));
  const NUMBERS = [
    ['frets', 'Frets', numbers(FEWEST_FRETS, MAX_FRETS, String)],
    ['capo', 'Capo', numbers(0, HIGHEST_CAPO, (n) => (n === 0 ? 'none' : `fret ${n}`))],
    ['span', 'Span of the hand', numbers(MIN_SPAN, MAX_SPAN, (n) => `${n} frets`)]
  ] as const;
</script>

<div class="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5">
  <span>Tuning</span>
  <Select
    class="justify-self-start"
    label="Tuning"
    value={isOwn ? OWN : settings.now.tuning}
    options={TUNING_OPTIONS}
    onpick={pick}
  />
  {#if isOwn}
    <label for="strings">Strings, lowest first</label>
    <div>
      <input
        id="strings"
        class="min-h-8.5 w-full rounded-md border border-edge bg-surface px-2 font-bold"
        value={typed}
        aria-invalid={!isReadable}
        aria-describedby="strings-hint"
        oninput={(event) => type(event.currentTarget.value)}
      />
      <p id="strings-hint" class="mt-1 text-xs {isReadable ? 'text-soft' : 'text-warn'}">
        {isReadable
          ? 'Note and octave of each string; E2 is the low string of a guitar.'
          : 'This is no tuning yet: three to ten notes with octaves, such as D2 A2 D3 G3 B3 E4.'}
      </p>
    </div>
  {/if}
  {#each NUMBERS as [name, label, options] (name)}
    <span>{label}</span>
    <Select
      class="justify-self-start"
      {label}
      value={String(settings.now[name])}
      {options}
      onpick={(value) => settings.change({ [name]: Number(value) })}
    />
  {/each}
  {#if settings.now.span > 4}
    <span></span>
    <p class="text-xs text-soft">Wide spans strain the hand below fret 5: warm up, and stop if it hurts.</p>
  {/if}
</div>
<div class="mt-4 flex flex-col gap-2 border-t border-line pt-3">
  <Switch
    label="Charts are written as they are fingered behind the capo"
    checked={settings.now.capoChords === 'fingered'}
    onswitch={(checked) => settings.change({ capoChords: checked ? 'fingered' : 'sounding' })}
  />
  {#if settings.now.capo > 0}
    <p class="text-xs text-soft" data-capo-says>
      {#if settings.instrument.raised}
        A written G is fingered as an open G and sounds {settings.note(
          plainName((7 + settings.now.capo) % 12)
        )}.
      {:else}
        A written G sounds G, and is fingered as {settings.note(plainName((7 + 12 - settings.now.capo) % 12))} behind
        the capo.
      {/if}
    </p>
  {/if}
  {#each SWITCHES as [name, label] (name)}
    <Switch
      {label}
      checked={settings.now[name]}
      onswitch={(checked) => settings.change({ [name]: checked })}
    />
  {/each}
</div>
