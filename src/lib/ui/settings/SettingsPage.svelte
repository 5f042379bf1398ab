<!-- All settings on one page: applied at once, and taken back by undo. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import History from '@lucide/svelte/icons/history';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { sure } from '$lib/core/base/list';
  import { settings } from '$lib/state/settings.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import { layKeys } from '../keys/keys';
  import Head from '../shell/Head.svelte';
  import Copies from '../songbook/Copies.svelte';
  import GuitarFields from './GuitarFields.svelte';
  import KeyFields from './KeyFields.svelte';
  import NameFields from './NameFields.svelte';
  import SoundFields from './SoundFields.svelte';

  const THEMES = [
    { value: 'system', name: 'As the device has it', hint: 'Day or Stage, as the device is light or dark' },
    { value: 'day', name: 'Day', hint: 'Warm paper, for the desk' },
    { value: 'stage', name: 'Stage', hint: 'Near-black, for the stand' }
  ] as const;
  const SIZES = [
    { value: 'normal', name: 'normal', hint: 'Read at an arm and a half from a tablet' },
    { value: 'large', name: 'large' },
    { value: 'larger', name: 'larger', hint: 'A few frets and chords less at a time' }
  ] as const;
  const SECTIONS = [
    ['guitar', 'Guitar'],
    ['names', 'Names'],
    ['look', 'Look and stand'],
    ['sound', 'Sound and input'],
    ['data', 'Data'],
    ['keys', 'Keys']
  ] as const;
  let showsCopies = $state(false);

  $effect(() =>
    layKeys('Settings', () => [
      {
        id: 'settings-undo',
        keys: 'Ctrl Z',
        name: 'Undo the last change',
        presses: ['$mod+z'],
        run: () => settings.undo(),
        single: false,
        command: true
      }
    ])
  );
</script>

{#snippet title(id: (typeof SECTIONS)[number][0])}
  <h2 class="mb-3 font-display text-xl">
    {sure(
      SECTIONS.find(([one]) => one === id),
      'SECTIONS'
    )[1]}
  </h2>
{/snippet}

<Copies bind:open={showsCopies} onback={() => location.reload()} />
<div class="page-head">
  <Head title="Settings">
    {#snippet tools()}
      <Button
        disabled={!settings.canUndo}
        hint="Undo the last change (Ctrl Z)"
        onclick={() => settings.undo()}><Undo2 size={17} /> Undo</Button
      >
    {/snippet}
  </Head>
</div>
<main class="page max-w-[1180px]" data-settings>
  <nav class="flex gap-1.5 overflow-x-auto" aria-label="Sections">
    {#each SECTIONS as [id, name] (id)}
      <a
        class={button({ tone: 'quiet', class: 'underline decoration-dotted underline-offset-4' })}
        href="#{id}">{name}</a
      >
    {/each}
  </nav>
  <div class="mt-2 grid grid-cols-[minmax(0,1fr)] items-start gap-3 md:grid-cols-2">
    <section id="guitar" class="card p-4" aria-label="Guitar">
      {@render title('guitar')}<GuitarFields />
    </section>
    <div class="grid gap-3">
      <section id="names" class="flex flex-col gap-2 card p-4" aria-label="Names">
        {@render title('names')}
        <NameFields />
      </section>
      <section id="look" class="card p-4" aria-label="Look and stand">
        {@render title('look')}
        <div class="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5">
          <span>Theme</span>
          <Select
            class="justify-self-start"
            label="Theme"
            value={settings.now.theme}
            options={THEMES}
            onpick={(theme) => settings.change({ theme })}
          />
          <span>Size of the stand</span>
          <Toggles
            label="Size of the stand"
            value={settings.now.standSize}
            options={SIZES}
            onpick={(standSize) => settings.change({ standSize })}
          />
          <span>Remind me to rest after</span>
          <NumberField
            label="Minutes of playing before a rest is proposed; 0 for never"
            min={0}
            max={120}
            unit="min"
            value={settings.now.restAfter}
            onset={(restAfter) => settings.change({ restAfter })}
          />
        </div>
        <p class="mt-2 text-sm text-soft">
          Take breaks, and keep headphones at a level at which you could still talk. If something hurts, stop;
          if it persists, see a professional.
        </p>
      </section>
    </div>
    <section id="sound" class="card p-4" aria-label="Sound and input">
      {@render title('sound')}
      <SoundFields />
    </section>
    <section id="data" class="card p-4" aria-label="Data">
      {@render title('data')}
      <p class="text-sm text-soft">
        All you write and play is kept on the computer that runs Corvel, and copied there once a day.
      </p>
      <div class="mt-2 flex flex-wrap gap-2">
        <Button onclick={() => (showsCopies = true)}><History size={17} /> Backups and archive</Button>
        <a class={button({})} href="/api/v1/practice/file?format=csv" download
          ><Download size={17} /> Practice log as a table</a
        >
      </div>
    </section>
    <section id="keys" class="card p-4 md:col-span-2" aria-label="Keys">
      {@render title('keys')}<KeyFields />
    </section>
  </div>
</main>
