<!-- Over the list of charts: find, sort, narrow down, select several. -->
<script lang="ts">
  import ListChecks from '@lucide/svelte/icons/list-checks';
  import ListFilter from '@lucide/svelte/icons/list-filter';
  import Search from '@lucide/svelte/icons/search';
  import { NO_FILTER } from '$lib/state/songbook/filter';
  import type { Listing } from '$lib/state/songbook/listing.svelte';
  import type { Many } from '$lib/state/songbook/many.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Filters from './Filters.svelte';

  interface Props {
    listing: Listing;
    many: Many;
    field: HTMLInputElement | undefined;
  }
  let { listing, many, field = $bindable() }: Props = $props();

  /** Filters are of use once there is more than one looks over. */
  const MANY_CHARTS = 8;
  const SORTS = [
    { value: 'practised', name: 'last practised' },
    { value: 'title', name: 'title' },
    { value: 'changed', name: 'last changed' }
  ] as const;

  let wantsFilters = $state(false);
  const showsFilters = $derived(listing.isNarrowed || wantsFilters);
  function toggleFilters() {
    wantsFilters = !showsFilters;
    if (listing.isNarrowed) void listing.narrow(NO_FILTER);
  }
</script>

<div class="flex flex-wrap items-center gap-2">
  <label class="relative min-w-40 flex-1 basis-48">
    <span class="sr-only">Find a chart</span>
    <Search size={16} class="absolute top-1/2 left-3 -translate-y-1/2 text-soft" />
    <input
      type="search"
      class="h-10 w-full rounded-md border border-edge bg-surface pr-3 pl-9"
      placeholder="Title, key or chord"
      bind:this={field}
      bind:value={listing.search}
      oninput={() => void listing.refresh()}
    />
  </label>
  <div class="flex max-w-full flex-wrap items-center gap-2">
    <span class="text-sm whitespace-nowrap text-soft max-sm:hidden">Sort by</span>
    <Select
      class="h-10"
      label="Sort by"
      value={listing.sort}
      options={SORTS}
      onpick={(next) => void listing.sortBy(next)}
    />
    {#if listing.found.total > MANY_CHARTS || listing.isNarrowed}
      <Button
        class="h-10"
        pressed={showsFilters}
        hint="By key, form, style, tag, and what was practised"
        onclick={toggleFilters}><ListFilter size={16} /> Filter</Button
      >
    {/if}
    {#if listing.found.total > 1}
      <Button
        class="h-10"
        pressed={many.isOn}
        hint="Several charts at once: tag, save, delete"
        onclick={() => (many.isOn ? many.end() : many.begin())}><ListChecks size={16} /> Select</Button
      >
    {/if}
  </div>
</div>
{#if showsFilters}
  <Filters
    facets={listing.found.facets}
    filter={listing.filter}
    onfilter={(next) => void listing.narrow(next)}
  />
{/if}
