<!-- The trainer: a question, the neck, an answer, and why; two minutes a round. By touch, by keys, by MIDI; read from a stand. -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import { onDestroy, onMount, tick, untrack } from 'svelte';
  import type { TrainerData } from '$lib/api/practice';
  import { ask, kindOf, solve } from '$lib/core/practice/trainer/kinds';
  import { degreeTyped } from '$lib/core/practice/trainer/typed';
  import { answerHeard, heardOf, lineSung } from '$lib/core/practice/trainer/sound';
  import type { Heard } from '$lib/core/practice/hearing';
  import { pitchClass, plainName, readNote } from '$lib/core/theory/note';
  import { readWritten } from '$lib/core/theory/letters';
  import { asciiAccidentals } from '$lib/core/theory/typeset';
  import { reviewBox } from '$lib/state/practice/practice-log';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { Ear as LiveInput } from '$lib/state/input/ear.svelte';
  import { Trainer } from '$lib/state/practice/trainer.svelte';
  import NotSaved from '../app/NotSaved.svelte';
  import Head from '../shell/Head.svelte';
  import Button from '../kit/Button.svelte';
  import { layKeys } from '../keys/keys';
  import { cardKeys, CHOICE_KEYS } from './card-keys';
  import CardNeck from './CardNeck.svelte';
  import ChoiceAnswers from './ChoiceAnswers.svelte';
  import RoundBegin from './RoundBegin.svelte';
  import RoundHead from './RoundHead.svelte';
  import RoundOver from './RoundOver.svelte';
  import SpelledAnswer from './SpelledAnswer.svelte';

  let { trainer: data }: { trainer: TrainerData } = $props();
  const trainer = untrack(() => new Trainer(data, settings.instrument));
  const waits = untrack(() => trainer.waiting(Date.now()));
  const question = $derived(trainer.question);
  const kind = $derived(question && kindOf(question.kind));
  const solution = $derived(question && solve(question, trainer.neck));
  const frets = $derived(question && kind ? kind.window(question, trainer.neck) : null);
  const showsNeck = $derived(kind !== null && kind.isNeckless !== true);
  const shown = $derived(question && kind?.shows ? kind.shows(question, trainer.neck) : []);
  let hearButton: HTMLButtonElement | undefined = $state();
  let nextButton: HTMLButtonElement | undefined = $state();
  let problem = $state('');
  let stopMidi: (() => void) | null = $state.raw(null);

  const now = () => Date.now();
  /** A card that sounds is not to be heard as its own answer; in milliseconds after it. */
  const DIES_AWAY = 400;
  let deafUntil = 0;
  /** Answers that are played or sung. */
  const ear = new LiveInput({ onHeld: (midi) => now() > deafUntil && hearNote(midi) });
  /** A note that sounds, as it is written: behind a capo that may be another one. */
  const hearNote = (midi: number) => trainer.hear(midi - trainer.neck.raised, now());
  onMount(() => {
    // Asked for by the plan: it begins at once.
    if (sessionRun.current?.kind === 'cards' && sessionRun.takeStart() && waits.due + waits.fresh > 0)
      trainer.start(now());
    const timer = setInterval(() => trainer.tick(now()), 250);
    return () => clearInterval(timer);
  });
  onDestroy(() => {
    stopMidi?.();
    ear.close();
    hush?.();
  });

  let hush: (() => void) | undefined;
  async function sound(heard: Heard | null) {
    if (!heard) return;
    try {
      const { listen, stopListening } = await import('$lib/audio/listen');
      hush = stopListening;
      stopListening();
      deafUntil = Infinity;
      await listen(heard, () => (deafUntil = now() + DIES_AWAY));
      problem = '';
    } catch {
      deafUntil = 0;
      problem = 'There is no sound here; skip this card, or look at its answer.';
    }
  }
  /** The clock of a session's part runs with the round. */
  $effect(() => {
    if (trainer.isRunning) untrack(() => sessionRun.begin());
  });
  /** A card that sounds does so by itself. */
  $effect(() => {
    if (question) untrack(() => void sound(heardOf(question)));
  });
  $effect(() => {
    if (trainer.verdict) void tick().then(() => nextButton?.focus());
    // Enter goes on here too, where the button for the next card stood before.
    else if (question && kind?.way === 'own') void tick().then(() => hearButton?.focus());
  });

  async function toggleMidi() {
    if (stopMidi) {
      stopMidi();
      stopMidi = null;
      return;
    }
    try {
      const { listenToMidi } = await import('$lib/audio/midi-in');
      stopMidi = await listenToMidi(({ midi }) => hearNote(midi));
      problem = '';
    } catch {
      problem = 'The browser can’t use MIDI instruments; tap the neck or use the keys.';
    }
  }
  function choose(choice: string) {
    trainer.answer({ way: 'choice', choice }, now());
  }
  /** The notes of a line as it stands on its button. */
  const namesIn = (line: string) =>
    line.split(' ').flatMap((word) => readNote(readWritten(asciiAccidentals(word))) ?? []);
  const go = () => trainer.next(now());

  /** Degrees are typed as such: ♭ or ♯, then the digit. */
  const typesDegrees = $derived(kind?.choosesFrom === 'degrees' && !trainer.verdict);
  let accidental: -1 | 0 | 1 = $state(0);
  $effect(() => {
    if (question) accidental = 0;
  });
  function typeDegree(digit: string) {
    const choice = degreeTyped(digit, accidental, solution?.choices ?? []);
    accidental = 0;
    if (choice !== null) choose(choice);
  }
  $effect(() =>
    layKeys('Cards', () =>
      cardKeys({
        degrees: typesDegrees ? { type: typeDegree, sign: (sign) => (accidental = sign) } : null,
        pick(i) {
          const choice = solution?.choices?.[i];
          if (trainer.verdict || typesDegrees) return;
          if (choice !== undefined && kind?.way === 'choice') choose(choice);
          else if (kind?.way === 'own' && isRevealed) own(i === 0);
        },
        goOn() {
          if (trainer.verdict) go();
          else if (!trainer.isRunning) trainer.start(now());
          else if (kind?.way === 'own' && !isRevealed) reveal();
        }
      })
    )
  );

  /** The note that was to be sung has been heard. */
  let isRevealed = $state(false);
  $effect(() => {
    if (question) isRevealed = false;
  });
  function reveal() {
    isRevealed = true;
    const name = solution?.notes[0];
    if (question && name) void sound(answerHeard(question, pitchClass(name)));
  }
  const own = (isRight: boolean) => trainer.answer({ way: 'own', isRight }, now());
</script>

{#if !question}<div class="page-head"><Head at="cards" title="Cards" /></div>{/if}
<main
  class="flex flex-col {question
    ? 'mx-auto h-dvh min-h-[480px] max-w-[1800px] gap-2 p-2.5'
    : 'page max-w-[1180px] gap-4'}"
  data-trainer
  data-kind={question?.kind}
>
  {#if ear.problem}<p class="card px-3 py-2 text-warn" role="alert">{ear.problem}</p>{/if}
  {#if problem}<p class="card px-3 py-2 text-warn" role="alert">{problem}</p>{/if}
  {#if !question}
    <NotSaved box={reviewBox} noun={['answer', 'answers']} told={(review) => ask(review.question)} />
  {/if}

  {#if question && kind && solution && frets}
    <RoundHead {trainer} {ear} hasMidi={stopMidi !== null} onmidi={() => void toggleMidi()} />
    <section
      class="flex min-h-0 flex-1 flex-col gap-3 card p-4 {showsNeck ? '' : 'justify-center'}"
      aria-label="Card"
    >
      <h2 class="text-center font-display text-3xl leading-tight max-sm:text-2xl" aria-live="polite" data-ask>
        {kind.ask(question)}
      </h2>
      {#key question}
        {#if showsNeck}
          <CardNeck
            neck={trainer.neck}
            from={frets[0]}
            to={frets[1]}
            {shown}
            right={solution.cells}
            tapped={trainer.tapped}
            verdict={trainer.verdict}
            isStill={kind.way !== 'cell' && kind.way !== 'cells'}
            isUnnumbered={kind.id === 'shape'}
            ontap={(place) => trainer.tap(place, now())}
            onsubmit={() => trainer.submit(now())}
          />
        {/if}
        {#if ear.input && kind.sounds && !trainer.verdict}
          <p class="text-center text-lg text-soft" role="status" data-heard={trainer.heard.length}>
            {trainer.heard.length
              ? `heard ${trainer.heard.map((midi) => settings.note(plainName(midi % 12))).join(' ')}`
              : kind.isSung
                ? 'Sing it.'
                : 'Play or sing it.'}{kind.isSung && trainer.heard.length === 1 ? ': now play it' : ''}
          </p>
        {/if}
        {#if !trainer.verdict}
          {#if kind.way === 'cells'}
            <div class="flex justify-center gap-3">
              <Button
                size="stand"
                tone="strong"
                class="min-w-40 text-lg"
                onclick={() => trainer.submit(now())}
                >{trainer.tapped.length
                  ? `these ${trainer.tapped.length}`
                  : question.kind === 'moves'
                    ? 'none stays'
                    : 'none'}</Button
              >
            </div>
          {:else if kind.way === 'choice' && solution.choices}
            <ChoiceAnswers
              choices={solution.choices}
              are={kind.choosesFrom}
              keys={CHOICE_KEYS}
              {accidental}
              onchoose={choose}
              onhear={question.kind === 'outlines' ? (line) => void sound(lineSung(namesIn(line))) : null}
            />
          {:else if kind.way === 'names'}
            <SpelledAnswer
              onanswer={(notes) => {
                problem = '';
                trainer.answerNames(notes, now());
              }}
              onproblem={(said) => (problem = said)}
            />
          {:else if kind.way === 'own'}
            <div class="flex flex-wrap justify-center gap-3">
              {#if isRevealed}
                <Button size="stand" tone="strong" class="min-w-32" onclick={() => own(true)}>I got it</Button
                >
                <Button size="stand" class="min-w-32" onclick={() => own(false)}>I missed it</Button>
              {:else}
                <Button bind:element={hearButton} size="stand" tone="strong" class="min-w-40" onclick={reveal}
                  >hear it</Button
                >
              {/if}
            </div>
          {/if}
          {#if heardOf(question)}
            <div class="flex justify-center">
              <Button size="stand" onclick={() => void sound(heardOf(question))}
                ><Ear size={17} /> again</Button
              >
            </div>
          {/if}
        {:else}
          <div
            class="flex flex-col items-center gap-3"
            role="status"
            data-verdict={trainer.verdict.isRight ? 'right' : 'wrong'}
          >
            <p class="font-display text-3xl {trainer.verdict.isRight ? '' : 'text-target'}">
              {trainer.verdict.isRight ? 'Right.' : 'Wrong.'}
            </p>
            <p class="max-w-2xl text-center text-xl">{trainer.verdict.why}</p>
            <Button bind:element={nextButton} size="stand" tone="strong" class="min-w-40 text-lg" onclick={go}
              >next</Button
            >
          </div>
        {/if}
      {/key}
    </section>
  {:else if trainer.isOver}
    <RoundOver {trainer} onstart={() => trainer.start(now())} />
  {:else}
    <RoundBegin
      {waits}
      hasCharts={data.charts.length > 0 || data.cards.length > 0}
      onstart={() => trainer.start(now())}
    />
  {/if}
</main>
