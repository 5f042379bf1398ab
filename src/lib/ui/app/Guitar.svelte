<!-- The player's guitar and hand: what everything is laid out on. -->
<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { FEWEST_FRETS, HIGHEST_CAPO } from '$lib/api/settings';
  import { MAX_FRETS, MAX_SPAN, MIN_SPAN, readTuning, TUNINGS } from '$lib/core/neck/tuning';
  import { settings } from '$lib/state/settings.svelte';

  let { open = $bindable() }: { open: boolean } = $props();

  const OWN = 'own';
  // The dialog is made anew each time it opens.
  let isOwn = $state(!Object.hasOwn(TUNINGS, settings.now.tuning));
  let typed = $state(settings.now.tuning);
  const isReadable = $derived(readTuning(typed) !== null);

  function pick(name: string) {
    isOwn = name === OWN;
    if (isOwn) typed = TUNINGS[settings.now.tuning] ?? settings.now.tuning;
    else settings.change({ tuning: name });
  }

  function type(text: string) {
    typed = text;
    if (readTuning(text)) settings.change({ tuning: text.trim() });
  }

  const numbers = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[88vh] w-[min(520px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto card p-5"
    >
      <Dialog.Title class="font-display text-2xl">Your guitar and hand</Dialog.Title>
      <div class="mt-3 grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5 text-[14px]">
        <label for="tuning">Tuning</label>
        <select
          id="tuning"
          class="btn justify-self-start"
          value={isOwn ? OWN : settings.now.tuning}
          onchange={(event) => pick(event.currentTarget.value)}
        >
          {#each Object.keys(TUNINGS) as name (name)}<option value={name}>{name}</option>{/each}
          <option value={OWN}>own strings …</option>
        </select>
        {#if isOwn}
          <label for="strings">Strings, lowest first</label>
          <div>
            <input
              id="strings"
              class="btn w-full font-bold"
              value={typed}
              aria-invalid={!isReadable}
              aria-describedby="strings-hint"
              oninput={(event) => type(event.currentTarget.value)}
            />
            <p id="strings-hint" class="mt-1 text-[12.5px] {isReadable ? 'text-soft' : 'text-warn'}">
              {isReadable
                ? 'Note and octave of each string; E2 is the low string of a guitar.'
                : 'This is no tuning yet: three to ten notes with octaves, such as D2 A2 D3 G3 B3 E4.'}
            </p>
          </div>
        {:else}
          <span></span>
          <p class="text-[12.5px] text-soft">{TUNINGS[settings.now.tuning]}, lowest string first</p>
        {/if}
        <label for="frets">Frets</label>
        <select
          id="frets"
          class="btn justify-self-start"
          value={settings.now.frets}
          onchange={(event) => settings.change({ frets: Number(event.currentTarget.value) })}
        >
          {#each numbers(FEWEST_FRETS, MAX_FRETS) as n (n)}<option value={n}>{n}</option>{/each}
        </select>
        <label for="capo">Capo</label>
        <select
          id="capo"
          class="btn justify-self-start"
          value={settings.now.capo}
          onchange={(event) => settings.change({ capo: Number(event.currentTarget.value) })}
        >
          {#each numbers(0, HIGHEST_CAPO) as n (n)}<option value={n}>{n === 0 ? 'none' : `fret ${n}`}</option
            >{/each}
        </select>
        <label for="span">Span of the hand</label>
        <select
          id="span"
          class="btn justify-self-start"
          value={settings.now.span}
          onchange={(event) => settings.change({ span: Number(event.currentTarget.value) })}
        >
          {#each numbers(MIN_SPAN, MAX_SPAN) as n (n)}<option value={n}>{n} frets</option>{/each}
        </select>
        {#if settings.now.span > 4}
          <span></span>
          <p class="text-[12.5px] text-soft">
            Wide spans strain the hand below fret 5: warm up, and stop if it hurts.
          </p>
        {/if}
      </div>
      <div class="mt-4 flex flex-col gap-1.5 border-t border-line pt-3 text-[14px]">
        {#each [['openStrings', 'Play open strings'], ['leftHanded', 'Left-handed neck'], ['simpleSpelling', 'Simple spelling (B for C♭, G for F♯♯)']] as const as [name, words] (name)}
          <label class="flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              class="size-5"
              checked={settings.now[name]}
              onchange={(event) => settings.change({ [name]: event.currentTarget.checked })}
            />
            {words}
          </label>
        {/each}
        <label class="flex min-h-8 items-center gap-2">
          <input
            type="checkbox"
            class="size-5"
            checked={settings.now.naming === 'parent'}
            onchange={(event) =>
              settings.change({ naming: event.currentTarget.checked ? 'parent' : 'modal' })}
          />
          Name modes by their parent (E♭ major from F)
        </label>
      </div>
      <div class="mt-4 flex justify-end"><Dialog.Close class="btn btn-strong">Close</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
