<!--
  The stand: this chord, the next one and the beats until it, a large neck, the threads in time; the desk below. To be read
  from two metres and worked by touch.
-->
<script lang="ts">
  import { keyName } from '$lib/core/practice/items/words';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { onDestroy, onMount, untrack } from 'svelte';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Coffee from '@lucide/svelte/icons/coffee';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import SlidersHorizontal from '@lucide/svelte/icons/sliders-horizontal';
  import { Landings } from '$lib/state/landings.svelte';
  import { FADE_BEATS, INTENSITY_STEP, Rehearsal } from '$lib/state/rehearsal.svelte';
  import { PEDAL_ACTIONS, pedalName, pedalOfKey } from '$lib/state/pedals.svelte';
  import { assignmentOf, sessionRun } from '$lib/state/session-run.svelte';
  import { takeAssignment } from '$lib/state/assigned';
  import { settings } from '$lib/state/settings.svelte';
  import type { ViewProps } from '../view';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import { behindPicture, Gradual } from '../kit/gradual.svelte';
  import Neck from '../neck/Neck.svelte';
  import { layKeys } from '../keys/keys';
  import MeetingMark from '../takes/MeetingMark.svelte';
  import { MEETING_WORDS } from '../takes/words';
  import Threads from '../threads/Threads.svelte';
  import Desk from './Desk.svelte';
  import Listening from './Listening.svelte';
  import RoundMarks from './RoundMarks.svelte';
  import RunScore from './RunScore.svelte';
  import RunStrip from './RunStrip.svelte';

  /** Pixels with the gap below them: this chord and the next, the run, the marks with the folded desk and the page's edge. */
  const CHORD_BAR = 95;
  const RUN_STRIP = 62;
  const DESK_BAR = 92;
  const [SESSION_BAR, ASSIGNED] = [76, 34];
  const LARGEST_NECK = 512;
  const [SMALLEST_THREADS, LARGEST_THREADS] = [130, 380];

  let { workspace, page }: ViewProps = $props();
  const rehearsal = untrack(() => new Rehearsal(workspace));
  const landings = new Landings(rehearsal);
  /** The desk comes behind the first picture. */
  const drawn = new Gradual(0);

  /** The sounding change; at rest the one that is selected. */
  const selected = $derived(rehearsal.isPlaying ? rehearsal.change?.source : rehearsal.shown.change);
  const coming = $derived.by(() => {
    if (rehearsal.isPlaying) return rehearsal.next?.source;
    const { nextIndex, changes } = rehearsal.shown;
    return nextIndex === null || !rehearsal.next ? undefined : changes[nextIndex];
  });
  const target = $derived(selected && rehearsal.shown.paths.targets.get(selected.index));
  const nextTarget = $derived(coming && rehearsal.shown.paths.targets.get(coming.index));
  /** The next chord comes up over its last beats; always there while the band rests. */
  const nextShows = $derived(
    rehearsal.isPlaying ? Math.min(1, Math.max(0.25, 1 - (rehearsal.left - 1) / FADE_BEATS)) : 0.6
  );
  const share = $derived(rehearsal.change ? rehearsal.left / rehearsal.change.beats : 1);

  /** The screen stays awake while the band plays; the browser lets go of that whenever the page is hidden. */
  $effect(() => {
    if (!rehearsal.isPlaying) return;
    let wake: WakeLockSentinel | null = null;
    let isOver = false;
    const ask = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock?.request('screen').then(
        (lock) => {
          if (isOver) void lock.release();
          else wake = lock;
        },
        () => undefined
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', ask);
      void wake?.release();
    };
  });
  /** The band follows whom it hears. */
  $effect(() => {
    rehearsal.isHeard = landings.ear.input !== null;
  });
  onDestroy(() => {
    landings.close();
    rehearsal.close();
  });

  /** The stand is dark, whatever the desk's theme; T still changes it. */
  $effect(() => {
    document.documentElement.dataset.theme = 'stage';
    return () => (document.documentElement.dataset.theme = untrack(() => settings.now.theme));
  });

  $effect(() =>
    layKeys(() => [
      {
        keys: 'Space',
        name: 'Play or stop',
        presses: ['Space'],
        run: () => rehearsal.toggle(),
        single: false,
        command: false
      },
      {
        keys: 'C',
        name: 'The last round was clean',
        presses: ['[Shift]+c'],
        run: () => rehearsal.mark(true),
        single: true,
        command: false
      },
      {
        keys: 'Z',
        name: 'Listen to what I play, or stop listening',
        presses: ['[Shift]+z'],
        run: () => void landings.ear.toggle(rehearsal.desk.hears),
        single: true,
        command: false
      },
      {
        keys: 'X',
        name: 'Stumbled here',
        presses: ['[Shift]+x'],
        run: () => rehearsal.stumble(),
        single: true,
        command: false
      },
      {
        keys: ']',
        name: 'More from the band',
        presses: [']'],
        run: () => rehearsal.changeIntensity(INTENSITY_STEP),
        single: true,
        command: false
      },
      {
        keys: '[',
        name: 'Less from the band',
        presses: ['['],
        run: () => rehearsal.changeIntensity(-INTENSITY_STEP),
        single: true,
        command: false
      },
      ...PEDAL_ACTIONS.flatMap(({ id, name }) => {
        const pedal = rehearsal.pedals.board[id];
        if (!pedal?.startsWith('key ')) return [];
        return {
          keys: pedalName(pedal),
          name: `Pedal: ${name}`,
          presses: [pedal.slice(4)],
          // Held down it is pressed once.
          run: (event: KeyboardEvent | null) => void (event?.repeat || rehearsal.pedals.press(pedal)),
          single: false,
          command: false
        };
      })
    ])
  );

  /** A pedal that is being learnt goes before everything else that a key may do. */
  function learnKey(event: KeyboardEvent) {
    const { pedals } = rehearsal;
    if (!pedals.learning) return;
    if (event.key === 'Escape') pedals.learning = null;
    else if (!pedals.press(pedalOfKey(event))) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** A session opens the stand for its part, and again for the next one in the same chart. */
  let taken: string | null = null;
  $effect(() => {
    const part = sessionRun.current;
    if (!part || part.chart !== workspace.document.id || part.id === taken) return;
    taken = part.id;
    const assignment = assignmentOf(part);
    if (assignment) untrack(() => void rehearsal.assign(assignment));
  });
  onMount(() => {
    const asked = takeAssignment(workspace.document.id);
    if (asked) void rehearsal.assign(asked);
    // Making ready to sound takes longer than the first picture does.
    return behindPicture(() => {
      void rehearsal.fetchSounds();
      void rehearsal.backing.restore();
    });
  });

  let isCautioned = $state(false);
  /** While the band plays the desk is folded to a bar, unless the player wants it. */
  let isDeskOpen = $state(false);
  const isFolded = $derived(rehearsal.isPlaying && !isDeskOpen);
  $effect(() => {
    if (!rehearsal.isPlaying) isDeskOpen = false;
  });
  /** The picture fills what the page leaves: the neck what the rest does not take. */
  let pageHeight = $state(800);
  let top = $state(60);
  let section: HTMLElement | undefined = $state();
  $effect(() => {
    if (isFolded && section) top = section.getBoundingClientRect().top + globalThis.scrollY;
  });
  /** The drill stands on staff and tab where the player wants it so; what is hidden on the neck is not told there either. */
  const showsScore = $derived(
    rehearsal.drill !== null && settings.now.lineAs === 'score' && rehearsal.hides === 'nothing'
  );
  let scoreHeight = $state(200);
  const room = $derived(
    pageHeight -
      top -
      CHORD_BAR -
      DESK_BAR -
      (sessionRun.isOn ? SESSION_BAR : 0) -
      (rehearsal.assigned ? ASSIGNED : 0) -
      (rehearsal.drill && !showsScore ? RUN_STRIP : 0)
  );
  const threadsHeight = $derived(
    isFolded ? Math.min(LARGEST_THREADS, Math.max(SMALLEST_THREADS, 0.2 * room, room - LARGEST_NECK)) : 150
  );
  const neckRoom = $derived(room - (showsScore ? scoreHeight : threadsHeight));
  /** What is heard, as it is written; how the change that sounds was met. */
  const heard = $derived(
    landings.ear.sounds === null ? null : landings.ear.sounds - rehearsal.shown.neck.raised
  );
  const metNow = $derived(
    landings.ear.input && rehearsal.isPlaying && selected ? landings.met.get(selected.index) : undefined
  );
  const runPlaces = $derived(rehearsal.run.flatMap(({ place }) => place ?? []));
  /** Where the music is in the form, for the threads. */
  const formBeat = $derived(
    rehearsal.isPlaying && rehearsal.change
      ? rehearsal.change.source.start +
          Math.min(rehearsal.change.source.beats, rehearsal.inRound - rehearsal.change.start)
      : null
  );
</script>

<svelte:window
  bind:innerHeight={pageHeight}
  onkeydowncapture={learnKey}
  ondragover={(event) => {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }}
  ondrop={(event) => {
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    void rehearsal.backing.take(event.dataTransfer.files);
  }}
/>

<section
  bind:this={section}
  class="flex min-w-0 flex-col gap-2.5"
  aria-label="Rehearse"
  data-keys-return
  data-playing={rehearsal.isPlaying || undefined}
  data-round={rehearsal.round}
  data-lag={JSON.stringify(rehearsal.lag)}
  data-late={rehearsal.late}
  data-sounds={rehearsal.sounds}
>
  <div class="flex flex-wrap items-stretch gap-2.5">
    <Button
      size="stand"
      tone="strong"
      class="min-h-20 w-24 max-sm:w-16"
      aria-label={rehearsal.isPlaying ? 'Stop' : 'Play'}
      hint="Space"
      onclick={() => rehearsal.toggle()}
    >
      {#if rehearsal.isPlaying}<Pause size={34} />{:else}<Play size={34} />{/if}
    </Button>
    <div
      class="relative flex min-w-0 flex-1 flex-wrap items-center gap-x-6 overflow-hidden card px-4 max-sm:gap-x-3"
      aria-live="off"
    >
      <!-- Beats until the change, seen from the corner of the eye: the light runs out towards the next chord. -->
      <div
        class="absolute inset-y-0 left-0 bg-lit"
        style:width="{(rehearsal.isPlaying ? share : 1) * 100}%"
        data-left={rehearsal.left.toFixed(2)}
      ></div>
      <div
        class="relative text-4xl leading-[80px] whitespace-nowrap max-sm:text-3xl max-sm:leading-[52px]"
        data-now={selected?.symbol}
      >
        <ChordSymbol symbol={selected?.symbol ?? '—'} />
      </div>
      {#if metNow && !metNow.isPast}
        <svg
          class="relative"
          width="40"
          height="40"
          viewBox="0 0 16 16"
          role="img"
          aria-label={MEETING_WORDS[metNow.met]}
          data-met-now={metNow.met}><MeetingMark met={metNow.met} /></svg
        >
      {/if}
      {#if target && rehearsal.hides === 'nothing'}
        <div class="relative text-2xl font-bold whitespace-nowrap text-target max-sm:text-xl">
          {prettyDegree(target.cell.degree)}
          <span class="text-xl"
            >{settings.note(target.cell.note)} {target.cell.string}:{target.cell.fret}</span
          >
        </div>
      {/if}
      <div
        class="relative ml-auto text-3xl font-bold tabular-nums"
        role="timer"
        aria-label="Beats until the change"
      >
        {rehearsal.counting || (rehearsal.isPlaying ? Math.ceil(rehearsal.left - 1e-6) : '')}
      </div>
      {#if coming}
        <div
          class="relative flex items-baseline gap-3 text-3xl leading-[80px] whitespace-nowrap text-next max-sm:text-2xl max-sm:leading-[40px]"
          style:opacity={nextShows}
          data-next={coming.symbol}
        >
          <ChordSymbol symbol={coming.symbol} />
          {#if nextTarget && rehearsal.hides === 'nothing'}
            <span class="text-xl font-bold">{prettyDegree(nextTarget.cell.degree)}</span>
          {/if}
        </div>
      {/if}
    </div>
  </div>

  {#if rehearsal.problem}
    <p class="card px-3 py-2 text-warn" role="alert">{rehearsal.problem}</p>
  {/if}
  {#if rehearsal.wantsRest}
    <div class="flex items-center gap-3 card px-3 py-2" role="status">
      <Coffee size={20} />
      <p class="flex-1">
        {rehearsal.desk.restAfter} minutes of playing: shake the hands out. If anything hurts, stop; if it goes
        on hurting, see someone who knows.
      </p>
      <Button size="stand" onclick={() => (rehearsal.wantsRest = false)}>all right</Button>
    </div>
  {/if}

  {#if rehearsal.shown.changes.length > 0}
    <Neck
      workspace={rehearsal.shown}
      isStand
      room={isFolded ? neckRoom : 0}
      run={runPlaces}
      hides={rehearsal.hides}
      lit={rehearsal.lit}
      {heard}
      nextShows={rehearsal.isPlaying ? nextShows : 1}
    />
    {#if showsScore}
      <div bind:clientHeight={scoreHeight}><RunScore {rehearsal} /></div>
    {:else if rehearsal.run.length}
      <RunStrip
        run={rehearsal.run}
        beats={rehearsal.change?.beats ?? 0}
        into={rehearsal.isPlaying && !rehearsal.counting ? rehearsal.into : null}
        isHidden={rehearsal.hides !== 'nothing'}
      />
    {/if}
    {#if !showsScore}
      <Threads
        workspace={rehearsal.shown}
        height={threadsHeight}
        isBare
        time={formBeat}
        hidesTargets={rehearsal.desk.hides !== 'nothing'}
        met={landings.ear.input ? landings.met : undefined}
      />
    {/if}
  {/if}
  {#if rehearsal.assigned}
    <p class="flex flex-wrap items-center gap-x-3 text-soft" data-assigned={rehearsal.assigned.item ?? ''}>
      <b class="text-ink">{rehearsal.assigned.name}</b>
      {#if rehearsal.assigned.key}<span>in {keyName(rehearsal.assigned.key)}</span>{/if}
      {#if rehearsal.assigned.area !== null}<span>position {rehearsal.assigned.area}</span>{/if}
      {#if rehearsal.assigned.tempo}<span>to be held at {rehearsal.assigned.tempo.goal}</span>{/if}
      <Button size="small" hint="Back to the desk as it is" onclick={() => rehearsal.unassign()}
        >let go</Button
      >
    </p>
  {/if}
  {#if !isFolded}
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <Listening {rehearsal} {landings} isWide />
      {#if rehearsal.isPlaying || rehearsal.marks.length > 0}<RoundMarks {rehearsal} />{/if}
    </div>
  {/if}
  {#if isFolded}
    <div class="flex flex-wrap items-center gap-2.5">
      <RoundMarks {rehearsal} />
      <Listening {rehearsal} {landings} />
      <button
        type="button"
        class="flex min-h-11 flex-1 basis-72 items-center gap-4 card px-4 text-left text-soft"
        aria-expanded="false"
        data-desk-bar
        onclick={() => (isDeskOpen = true)}
      >
        <b class="text-ink tabular-nums">{rehearsal.sounding} bpm</b>
        <span class="truncate">{rehearsal.backing.playing?.name ?? rehearsal.feel.name}</span>
        {#if rehearsal.drill}<span class="truncate max-sm:hidden">{rehearsal.drill.name}</span>{/if}
        <span class="tabular-nums">round {rehearsal.round + 1}</span>
        <span
          class="tabular-nums"
          data-intensity={rehearsal.intensity.toFixed(2)}
          data-follows={rehearsal.follower.intensity !== null}
          >{rehearsal.follower.intensity === null ? 'intensity' : 'follows you,'}
          {Math.round(rehearsal.intensity * 100)} %</span
        >
        <span class="ml-auto flex items-center gap-1.5 text-ink"><SlidersHorizontal size={17} /> desk</span>
      </button>
    </div>
  {:else}
    {#if drawn.count > 0}<Desk {rehearsal} ontune={page.tune} />{/if}
    {#if rehearsal.isPlaying}
      <Button size="stand" onclick={() => (isDeskOpen = false)}
        ><ChevronDown size={17} /> fold the desk</Button
      >
    {/if}
  {/if}
  {#if rehearsal.sounds === 'plain' && !isFolded}
    <p class="text-xs text-soft">
      The band’s sampled sounds could not be had; it plays on plain ones until the view is opened again.
    </p>
  {/if}
  {#if !isCautioned && !isFolded}
    <p class="flex items-center gap-3 text-xs text-soft">
      Keep headphones low: the band should sit under your guitar, not over it.
      <Button size="small" onclick={() => (isCautioned = true)}>all right</Button>
    </p>
  {/if}
  <p class="sr-only" aria-live="polite">{selected?.symbol ?? ''}</p>
</section>
