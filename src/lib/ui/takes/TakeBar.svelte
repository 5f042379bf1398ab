<!-- How a take comes in: one source, one red button; what the source is asked for stands beside it. -->
<script lang="ts">
  import Circle from '@lucide/svelte/icons/circle';
  import Dices from '@lucide/svelte/icons/dices';
  import FileAudio from '@lucide/svelte/icons/file-audio';
  import Timer from '@lucide/svelte/icons/timer';
  import UserRound from '@lucide/svelte/icons/user-round';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { TRADE_BARS } from '$lib/core/takes/trade';
  import { EFFECTS, type Effect } from '$lib/core/takes/player/effects';
  import { TONES, type Tone } from '$lib/core/takes/player/string';
  import { calibrateMicrophone, calibrateMidi } from '$lib/state/takes/calibration';
  import type { Takes } from '$lib/state/takes/takes.svelte';
  import { readFile } from '$lib/state/takes/ways/file';
  import { PLAYED, simulate } from '$lib/state/takes/ways/player';
  import Button from '../kit/Button.svelte';
  import Progress from '../kit/Progress.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';

  let { takes }: { takes: Takes } = $props();

  const rehearsal = $derived(takes.rehearsal);
  const storedLines = $derived(takes.workspace.storedLines);
  let input: HTMLInputElement | undefined = $state();
  /** Where the take comes from. */
  type Source = 'microphone' | 'midi' | 'file' | 'player';
  let source: Source = $state('microphone');
  const SOURCES: readonly { value: Source; name: string; hint: string }[] = [
    { value: 'microphone', name: 'microphone or interface', hint: 'Record with the band' },
    { value: 'midi', name: 'MIDI instrument', hint: 'Record with the band' },
    { value: 'file', name: 'sound or MIDI file', hint: 'WAV, MP3, OGG, FLAC or MIDI' },
    { value: 'player', name: 'simulated player', hint: 'Try it without an instrument' }
  ];
  let skill = $state(0.7);
  let tone: Tone = $state('bright');
  let effect: Effect | 'dry' = $state('dry');
  let seed = $state(1);
  let what: string = $state(PLAYED.targets);
  let rounds = $state(1);

  const TRADES = [
    { value: '', name: 'the whole form is yours' },
    ...TRADE_BARS.map((bars) => ({
      value: String(bars),
      name: `trade ${bars} bars`,
      hint: 'Corvel plays, you answer'
    }))
  ];
  const tones = TONES.map((value) => ({ value, name: value }));
  const effects = (['dry', ...EFFECTS] as const).map((value) => ({ value, name: value }));
  const lines = $derived([
    { value: PLAYED.targets, name: 'the target line, led in' },
    { value: PLAYED.found, name: 'a line that is found over it' },
    ...storedLines.flatMap(({ id, name, data }) => (data ? [{ value: id, name: `“${name}”` }] : []))
  ]);

  function importFile(event: Event & { currentTarget: HTMLInputElement }) {
    const [file] = event.currentTarget.files ?? [];
    event.currentTarget.value = '';
    if (file) void readFile(takes, file);
  }
  /** What the red button does. */
  const GOES: Readonly<Record<Source, { name: string; hint: string; run: () => void }>> = {
    microphone: {
      name: 'Record',
      hint: 'The microphone, with the band; a bar is counted in (Space)',
      run: () => void takes.record()
    },
    midi: {
      name: 'Record',
      hint: 'A MIDI guitar or keyboard, with the band; a bar is counted in',
      run: () => void takes.record(takes.midi)
    },
    file: {
      name: 'Choose a file',
      hint: 'WAV, MP3, OGG, FLAC or MIDI; or drop it anywhere here',
      run: () => input?.click()
    },
    player: {
      name: 'Let it play',
      hint: 'Corvel plays a line as a person would, and reads it',
      run: () =>
        void simulate(takes, {
          skill,
          tone,
          effect: effect === 'dry' ? undefined : effect,
          seed,
          what,
          rounds
        })
    }
  };
  const goes = $derived(GOES[source]);
  const isBusy = $derived(takes.work.doing !== '');
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm" aria-label="Play a take" data-take-bar>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <Select label="Source" value={source} options={SOURCES} onpick={(value) => (source = value as Source)} />
    <Button tone="record" hint={goes.hint} disabled={isBusy} onclick={goes.run} data-go={source}>
      {#if source === 'file'}<FileAudio size={15} />{:else if source === 'player'}<UserRound
          size={15}
        />{:else}<Circle size={15} class="fill-current" />{/if}
      {goes.name}
    </Button>
    <input
      bind:this={input}
      class="sr-only"
      type="file"
      tabindex="-1"
      aria-label="A sound or MIDI file"
      accept="audio/*,.wav,.mp3,.ogg,.flac,.m4a,.mid,.midi"
      onchange={importFile}
    />
    <NumberField
      label="Tempo"
      value={rehearsal.tempo.value}
      min={LOWEST_TEMPO}
      max={HIGHEST_TEMPO}
      unit="bpm"
      onset={(tempo) => rehearsal.tempo.set(tempo)}
    />
    {#if source !== 'file'}
      <Select
        label="Trade bars"
        value={String(takes.trading.bars ?? '')}
        options={TRADES}
        onpick={(value) => (takes.trading.bars = TRADE_BARS.find((bars) => String(bars) === value) ?? null)}
      />
    {/if}
    {#if !isBusy && (source === 'microphone' || source === 'midi')}
      <Button
        hint="Play along with eight clicks: how late your input comes in is measured and taken out of every take"
        onclick={() =>
          void (source === 'midi' ? calibrateMidi(takes) : calibrateMicrophone(takes, takes.microphone))}
      >
        <Timer size={15} />
        {source === 'midi' ? 'MIDI latency' : 'Latency'}
      </Button>
      <span class="text-soft">What you play stays on this machine.</span>
    {/if}
    {#if isBusy}
      <p class="flex items-center gap-3 text-soft" role="status" data-doing>
        <span
          class="size-3 animate-spin rounded-full border-2 border-target border-t-transparent motion-reduce:animate-none"
        ></span>
        {takes.work.doing} …
        {#if takes.work.done !== null}
          <Progress label="How much of it is done" value={takes.work.done} />
          <span class="tabular-nums" data-done={takes.work.done}>{Math.round(takes.work.done * 100)} %</span>
        {/if}
        {#if takes.work.isStoppable}<Button size="small" onclick={() => takes.work.stop()}>stop</Button>{/if}
      </p>
    {/if}
  </div>
  {#if takes.notices.said}<p role="status" data-said>{takes.notices.said}</p>{/if}
  {#if takes.microphone.waits}<p class="text-warn" role="status">{takes.microphone.waits}</p>{/if}
  {#if source === 'player'}
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-2" data-player>
      <Select label="What is played" value={what} options={lines} onpick={(value) => (what = value)} />
      <span class="flex items-center gap-2">
        <span class="text-soft">skill</span>
        <Slider
          label="Skill"
          value={Math.round(skill * 100)}
          min={0}
          max={100}
          step={5}
          says="{Math.round(skill * 100)} per cent"
          onslide={(value) => (skill = value / 100)}
        />
        <span class="w-12 tabular-nums">{Math.round(skill * 100)} %</span>
      </span>
      <Select label="Tone" value={tone} options={tones} onpick={(value) => (tone = value)} />
      <Select label="Effect" value={effect} options={effects} onpick={(value) => (effect = value)} />
      <NumberField
        label="Rounds"
        value={rounds}
        min={1}
        max={8}
        unit={rounds === 1 ? 'round' : 'rounds'}
        onset={(value) => (rounds = value)}
      />
      <span class="flex items-center gap-1.5">
        <NumberField label="Variation" value={seed} min={0} max={9999} onset={(value) => (seed = value)} />
        <Button
          label="Another variation"
          hint="Other mistakes by the same player"
          onclick={() => (seed = (seed + 1) % 10000)}><Dices size={16} /></Button
        >
      </span>
    </div>
  {/if}
</section>
