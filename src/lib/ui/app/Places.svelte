<!-- The head of what stands over all charts: where one is, the other places, the theme. -->
<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';
  import { settings } from '$lib/state/settings.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';

  let { at, title }: { at: 'songbook' | 'today' | 'licks'; title: string } = $props();
  const PLACES = [
    { id: 'songbook', name: 'Songbook', href: '/' },
    { id: 'today', name: 'Today', href: '/today' },
    { id: 'licks', name: 'Lick book', href: '/licks' }
  ] as const;
</script>

<header class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
  <div>
    <p class="text-sm font-bold tracking-[0.14em] text-target uppercase">Corvel</p>
    <h1 class="font-display text-3xl leading-11">{title}</h1>
  </div>
  <nav class="flex gap-1.5" aria-label="Places">
    {#each PLACES as { id, name, href } (id)}
      <a
        class={button({ tone: id === at ? 'strong' : undefined })}
        {href}
        aria-current={id === at ? 'page' : undefined}>{name}</a
      >
    {/each}
    <Button
      label={settings.now.theme === 'day' ? 'Stage theme' : 'Day theme'}
      onclick={() => settings.toggleTheme()}
      >{#if settings.now.theme === 'day'}<Moon size={17} />{:else}<Sun size={17} />{/if}</Button
    >
  </nav>
</header>
