<!-- How a take comes in: played to the band, brought as a file, or played by the simulated player. -->
<script lang="ts">
  import Circle from '@lucide/svelte/icons/circle';
  import Dices from '@lucide/svelte/icons/dices';
  import FileAudio from '@lucide/svelte/icons/file-audio';
  import Piano from '@lucide/svelte/icons/piano';
  import Timer from '@lucide/svelte/icons/timer';
  import Square from '@lucide/svelte/icons/square';
  import UserRound from '@lucide/svelte/icons/user-round';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { TRADE_BARS } from '$lib/core/takes/trade';
  import { TONES, type Tone } from '$lib/core/takes/player/string';
  import { LEVELS, PLAYED, type Takes } from '$lib/state/takes.svelte';
  import Button from '../kit/Button.svelte';
  import Level from '../kit/Level.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';

  let { takes }: { takes: Takes } = $props();

  const rehearsal = $derived(takes.rehearsal);
  const kept = $derived(takes.workspace.keptLines);
  let input: HTMLInputElement | undefined = $state();
  let showsPlayer = $state(false);
  let skill = $state(0.7);
  let tone: Tone = $state('bright');
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
  const lines = $derived([
    { value: PLAYED.targets, name: 'the target line, led in' },
    { value: PLAYED.found, name: 'a line that is found over it' },
    ...kept.flatMap(({ id, name, data }) => (data ? [{ value: id, name: `“${name}”` }] : []))
  ]);

  function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const [file] = event.currentTarget.files ?? [];
    event.currentTarget.value = '';
    if (file) void takes.bring(file);
  }
  function play() {
    void takes.simulate({ skill, tone, seed, what, rounds });
  }
  const isBusy = $derived(takes.doing !== '');
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm" aria-label="Play a take">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    {#if takes.isRecording}
      <Button tone="strong" size="stand" hint="Space" onclick={() => void takes.finish()}>
        <Square size={18} /> Stop and read it
      </Button>
      <p class="flex items-center gap-2 font-bold text-warn" role="status" data-recording>
        <span class="size-3.5 rounded-full bg-warn motion-safe:animate-pulse"></span> recording
      </p>
    {:else}
      <Button
        tone="strong"
        hint="The microphone, with the band; a bar is counted in (Space)"
        disabled={isBusy}
        onclick={() => void takes.record()}
      >
        <Circle size={15} class="fill-current" /> Record
      </Button>
      <Button
        hint="A MIDI guitar or keyboard, with the band"
        disabled={isBusy}
        onclick={() => void takes.recordMidi()}
      >
        <Piano size={15} /> MIDI
      </Button>
      <Button
        hint="WAV, MP3, OGG, FLAC or MIDI; or drop it anywhere here"
        disabled={isBusy}
        onclick={() => input?.click()}
      >
        <FileAudio size={15} /> Bring a file
      </Button>
      <Button
        hint="Corvel plays a line as a person would, to try all of this without an instrument"
        aria-expanded={showsPlayer}
        disabled={isBusy}
        onclick={() => (showsPlayer = !showsPlayer)}
      >
        <UserRound size={15} /> Simulated player
      </Button>
    {/if}
    <input
      bind:this={input}
      class="sr-only"
      type="file"
      tabindex="-1"
      aria-label="A sound or MIDI file"
      accept="audio/*,.wav,.mp3,.ogg,.flac,.m4a,.mid,.midi"
      onchange={bring}
    />
    <NumberField
      label="Tempo"
      value={rehearsal.tempo}
      min={LOWEST_TEMPO}
      max={HIGHEST_TEMPO}
      unit="bpm"
      onset={(tempo) => !takes.isRecording && rehearsal.setTempo(tempo)}
    />
    {#if !takes.isRecording}
      <Select
        label="Trade bars"
        value={String(takes.trading ?? '')}
        options={TRADES}
        onpick={(value) => (takes.trading = TRADE_BARS.find((bars) => String(bars) === value) ?? null)}
      />
    {/if}
    {#if takes.isRecording}
      <div class="flex items-center gap-2" data-level={takes.level.toFixed(3)}>
        <Level level={takes.level} isWarning={takes.isClipping} class="w-40" />
        <span class="text-soft" aria-live="polite">
          {#if takes.isClipping}too loud: turn the input down
          {:else if takes.level < LEVELS.silent}nothing heard yet{/if}
        </span>
      </div>
    {:else if !isBusy}
      <Button
        hint="Eight clicks to play with: how late your microphone or interface comes in is measured, and taken out of every take"
        onclick={() => void takes.calibrate()}
      >
        <Timer size={15} /> Latency
      </Button>
      <Button hint="The same for a MIDI instrument" onclick={() => void takes.calibrateMidi()}>
        <Timer size={15} /> MIDI latency
      </Button>
      <span class="text-soft">What you play stays on this machine.</span>
    {/if}
    {#if isBusy}
      <p class="flex items-center gap-3 text-soft" role="status" data-doing>
        <span
          class="size-3 animate-spin rounded-full border-2 border-target border-t-transparent motion-reduce:animate-none"
        ></span>
        {takes.doing} …
        {#if takes.isStoppable}<Button size="small" onclick={() => takes.stopWork()}>stop</Button>{/if}
      </p>
    {/if}
  </div>
  {#if takes.turn}
    {@const { isOwn, left } = takes.turn}
    <p
      class="flex items-baseline gap-4 rounded-md px-3 py-1 {isOwn ? 'bg-target text-on-target' : 'bg-lit'}"
      role="status"
      data-turn={isOwn ? 'own' : 'corvel'}
    >
      <span class="font-display text-4xl whitespace-nowrap max-sm:text-3xl"
        >{isOwn ? 'Your turn' : 'Corvel plays'}</span
      >
      <span class="text-2xl tabular-nums" aria-hidden="true">{Math.ceil(left - 1e-6)}</span>
    </p>
  {/if}
  {#if takes.said}<p role="status" data-said>{takes.said}</p>{/if}
  {#if takes.waits}<p class="text-warn" role="status">{takes.waits}</p>{/if}
  {#if showsPlayer && !takes.isRecording}
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
      <NumberField
        label="Rounds"
        value={rounds}
        min={1}
        max={8}
        unit={rounds === 1 ? 'round' : 'rounds'}
        onset={(value) => (rounds = value)}
      />
      <span class="flex items-center gap-1.5">
        <NumberField label="Seed" value={seed} min={0} max={9999} onset={(value) => (seed = value)} />
        <Button
          label="Another seed"
          hint="Other mistakes by the same player"
          onclick={() => (seed = (seed + 1) % 10000)}><Dices size={16} /></Button
        >
      </span>
      <Button tone="strong" disabled={isBusy} onclick={play}>Let it play</Button>
    </div>
  {/if}
</section>
