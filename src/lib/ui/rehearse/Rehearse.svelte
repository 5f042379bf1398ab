<!--
  Rehearse: while the band plays the stand has the whole page; at rest the picture of the selected change stands over the desk.
-->
<script lang="ts">
  import { keyName } from '$lib/core/practice/items/words';
  import { onDestroy, onMount, tick, untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Coffee from '@lucide/svelte/icons/coffee';
  import Play from '@lucide/svelte/icons/play';
  import Square from '@lucide/svelte/icons/square';
  import { Landings } from '$lib/state/stand/landings.svelte';
  import { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { PEDAL_ACTIONS, pedalName, pedalOfKey } from '$lib/state/stand/pedals.svelte';
  import { assignmentOf, placeOfPart } from '$lib/state/practice/run-part';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import { takeAssignment } from '$lib/state/practice/assigned';
  import ClimbSaid from './ClimbSaid.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { ViewProps } from '../view';
  import Button from '../kit/Button.svelte';
  import { behindPicture, Deferred } from '../kit/deferred.svelte';
  import Neck from '../neck/Neck.svelte';
  import { bindKeys, layKeys } from '../keys/keys';
  import { LEAVE_STAND, STAND_KEYS } from './stand-keys';
  import Stand from '../stand/Stand.svelte';
  import StandChords from '../stand/StandChords.svelte';
  import StandFoot from '../stand/StandFoot.svelte';
  import Threads from '../threads/Threads.svelte';
  import Desk from './Desk.svelte';
  import RoundMarks from './RoundMarks.svelte';
  import RunScore from './RunScore.svelte';
  import RunStrip from './RunStrip.svelte';

  /** The chord bar at rest, in pixels. */
  const AT_REST = { chord: 64, next: 42, degree: 18, fret: 14 };

  let { workspace, page }: ViewProps = $props();
  const rehearsal = untrack(() => new Rehearsal(workspace));
  const landings = new Landings(rehearsal);
  /** The desk comes behind the first picture. */
  const drawn = new Deferred(0);

  const selected = $derived(rehearsal.picture.change?.source ?? rehearsal.picture.shown.change);

  /** The screen stays awake while the band plays; the browser lets go of that whenever the page is hidden. */
  $effect(() => {
    if (!rehearsal.transport.isPlaying) return;
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

  $effect(() => {
    const leaveStand = isStanding ? LEAVE_STAND : [];
    const pedals = PEDAL_ACTIONS.flatMap(({ id, name }) => {
      const pedal = rehearsal.pedals.board[id];
      if (!pedal?.startsWith('key ')) return [];
      return {
        id: `pedal-${id}`,
        keys: pedalName(pedal),
        name: `Pedal: ${name}`,
        presses: [pedal.slice(4)],
        // Held down it is pressed once.
        run: (event: KeyboardEvent | null) => void (event?.repeat || rehearsal.pedals.press(pedal)),
        single: false,
        command: false
      };
    });
    const own = bindKeys([...STAND_KEYS, ...leaveStand], { rehearsal, landings, openDesk });
    return layKeys('At the stand', () => [...own, ...pedals]);
  });

  /** A pedal that is being learnt goes before everything else that a key may do. */
  function learnKey(event: KeyboardEvent) {
    const { pedals } = rehearsal;
    if (!pedals.learning) return;
    if (event.key === 'Escape') pedals.learning = null;
    else if (!pedals.press(pedalOfKey(event))) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /**
   * A session opens the stand for its part, and again for the next one in the same chart; where the player has pressed Start or
   * next for it, the band begins at once. When the session is over, or elsewhere, the desk is as it was.
   */
  let taken: string | null = null;
  $effect(() => {
    const part = sessionRun.current;
    untrack(() => void takeUp(part?.chart === workspace.document.id ? part : null));
  });
  async function takeUp(part: typeof sessionRun.current) {
    if (part?.id === taken) return;
    const assignment = part && assignmentOf(part);
    if (!assignment) {
      if (taken !== null) rehearsal.assigned.end();
      taken = null;
      return;
    }
    taken = part.id;
    await rehearsal.assign(assignment);
    if (sessionRun.takeStart()) await rehearsal.transport.play();
  }
  /** Clean at its goal the part is done: what is left of its time flows on. */
  $effect(() => {
    if (rehearsal.marks.climb?.isDone && sessionRun.current?.id === taken) untrack(() => sessionRun.giveOn());
  });
  /** The clock of a part runs from the moment at which it sounds. */
  $effect(() => {
    if (rehearsal.transport.isPlaying) untrack(() => sessionRun.begin());
  });
  async function nextPart() {
    sessionRun.next();
    if (sessionRun.current) await goto(placeOfPart(sessionRun.current));
  }
  onMount(() => {
    const asked = takeAssignment(workspace.document.id);
    if (asked) void rehearsal.assign(asked);
    // Making ready to sound takes longer than the first picture does.
    return behindPicture(() => {
      void rehearsal.transport.fetchSounds();
      void rehearsal.backing.load();
    });
  });

  let isCautioned = $state(false);
  /** While the band plays the desk is away, unless the player wants it. */
  let isDeskOpen = $state(false);
  const isStanding = $derived(rehearsal.transport.isPlaying && !isDeskOpen);
  $effect(() => {
    if (!rehearsal.transport.isPlaying) isDeskOpen = false;
  });
  let playButton: HTMLButtonElement | undefined = $state();
  function openDesk() {
    if (rehearsal.transport.isPlaying) isDeskOpen = true;
  }
  /** The focus goes back to where the band is started and stopped. */
  let wasStanding = false;
  $effect(() => {
    const came = wasStanding && !isStanding;
    wasStanding = isStanding;
    if (came) void tick().then(() => playButton?.focus({ preventScroll: true }));
  });
  let barWidth = $state(900);
  /** The drill stands on staff and tab where the player wants it so; what is hidden on the neck is not told there either. */
  const showsScore = $derived(
    rehearsal.rounds.drill !== null &&
      settings.now.lineAs === 'score' &&
      rehearsal.picture.hides === 'nothing'
  );
  /** What is heard, as it is written; how the changes were met. */
  const heard = $derived(
    landings.ear.sounds === null ? null : landings.ear.sounds - rehearsal.picture.shown.neck.raised
  );
  const met = $derived(landings.ear.input ? landings.met : undefined);
  const runPlaces = $derived(rehearsal.picture.run.flatMap(({ place }) => place ?? []));
  /** Where the music is in the form, for the threads. */
  const formBeat = $derived(
    rehearsal.transport.isPlaying && rehearsal.picture.change
      ? rehearsal.picture.change.source.start +
          Math.min(
            rehearsal.picture.change.source.beats,
            rehearsal.picture.written - rehearsal.picture.change.start
          )
      : null
  );
  /** The head says the tempo that sounds. */
  $effect(() => {
    workspace.soundingTempo = rehearsal.tempo.sounding;
  });
  onDestroy(() => (workspace.soundingTempo = null));
</script>

<svelte:window
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

{#snippet notices()}
  {#if rehearsal.notice.problem}
    <p class="card px-3 py-2 text-warn" role="alert">{rehearsal.notice.problem}</p>
  {/if}
  {#if landings.ear.problem}
    <p class="card px-3 py-2 text-warn" role="alert">{landings.ear.problem}</p>
  {/if}
  {#if rehearsal.rest.isDue}
    <div class="flex items-center gap-3 card px-3 py-2" role="status">
      <Coffee size={20} />
      <p class="flex-1">
        {settings.now.restAfter} minutes of playing. Take a break and shake out your hands. If something hurts,
        stop; if it persists, see a professional.
      </p>
      <Button size="stand" onclick={() => (rehearsal.rest.isDue = false)}>OK</Button>
    </div>
  {/if}
{/snippet}

<section
  class="flex min-w-0 flex-col gap-2.5"
  aria-label="Rehearse"
  data-keys-return
  data-playing={rehearsal.transport.isPlaying || undefined}
  data-round={rehearsal.transport.round}
  data-lag={JSON.stringify(rehearsal.transport.lag.measured)}
  data-late={rehearsal.transport.late}
  data-sounds={rehearsal.transport.sounds}
>
  {#if isStanding}
    <Stand {rehearsal} {heard} {met}>
      {#snippet notice()}{@render notices()}{/snippet}
      {#snippet foot(isAwake)}
        <StandFoot {rehearsal} {landings} {isAwake} onnext={() => void nextPart()} ondesk={openDesk} />
      {/snippet}
    </Stand>
  {:else}
    <div class="flex flex-wrap items-stretch gap-2.5">
      <Button
        size="stand"
        tone="strong"
        class="min-h-20 w-24 max-sm:w-16"
        aria-label={rehearsal.transport.isPlaying ? 'Stop' : 'Play'}
        hint="Space"
        bind:element={playButton}
        onclick={() => rehearsal.transport.toggle()}
      >
        {#if rehearsal.transport.isPlaying}<Square size={30} class="fill-current" />{:else}<Play
            size={34}
          />{/if}
      </Button>
      <div class="min-w-0 flex-1" bind:clientWidth={barWidth}>
        <StandChords {rehearsal} sizes={AT_REST} width={barWidth} met={met?.get(selected?.index ?? -1)} />
      </div>
    </div>
    {@render notices()}
    {#if rehearsal.picture.shown.changes.length > 0}
      <Neck
        workspace={rehearsal.picture.shown}
        isStand
        isStill={rehearsal.transport.isPlaying}
        run={runPlaces}
        hides={rehearsal.picture.hides}
        lit={rehearsal.picture.lit}
        {heard}
      />
      {#if showsScore}
        <RunScore {rehearsal} />
      {:else}
        {#if rehearsal.picture.run.length}
          <RunStrip
            run={rehearsal.picture.run}
            beats={rehearsal.picture.change?.beats ?? 0}
            into={rehearsal.transport.isPlaying && !rehearsal.picture.counting
              ? rehearsal.picture.into
              : null}
            isHidden={rehearsal.picture.hides !== 'nothing'}
          />
        {/if}
        <Threads
          workspace={rehearsal.picture.shown}
          height={150}
          isBare
          isStill={rehearsal.transport.isPlaying}
          time={formBeat}
          hidesTargets={rehearsal.desk.now.hides !== 'nothing'}
          {met}
        />
      {/if}
    {/if}
    {#if rehearsal.assigned.now}
      <p
        class="flex flex-wrap items-center gap-x-3 text-soft"
        data-assigned={rehearsal.assigned.now.item ?? ''}
      >
        <b class="text-ink">{rehearsal.assigned.now.name}</b>
        {#if rehearsal.assigned.now.key}<span>in {keyName(rehearsal.assigned.now.key)}</span>{/if}
        {#if rehearsal.assigned.now.area !== null}<span>position {rehearsal.assigned.now.area}</span>{/if}
        {#if rehearsal.marks.climb}<ClimbSaid {rehearsal} />{/if}
        <Button size="small" hint="Back to your own settings" onclick={() => rehearsal.assigned.end()}
          >Reset</Button
        >
      </p>
    {/if}
    {#if rehearsal.transport.isPlaying || rehearsal.marks.given.length > 0}<RoundMarks {rehearsal} />{/if}
    {#if drawn.count > 0}<Desk {rehearsal} {landings} ontune={page.tune} />{/if}
    {#if rehearsal.transport.isPlaying}
      <Button size="stand" onclick={() => (isDeskOpen = false)}
        ><ChevronDown size={17} /> Hide the desk</Button
      >
    {/if}
    {#if rehearsal.transport.sounds === 'plain'}
      <p class="text-xs text-soft">
        The band’s sampled sounds could not be loaded. It plays with plain ones until you open this view
        again.
      </p>
    {/if}
    {#if !isCautioned}
      <p class="flex items-center gap-3 text-xs text-soft">
        Keep headphones low: the band should sit under your guitar, not over it.
        <Button size="small" onclick={() => (isCautioned = true)}>OK</Button>
      </p>
    {/if}
  {/if}
  <p class="sr-only" aria-live="polite">{selected?.symbol ?? ''}</p>
</section>
