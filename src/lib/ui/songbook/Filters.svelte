<!-- What the list is narrowed down to: key, form, style, tag, how long ago it was practised. -->
<script lang="ts">
  import type { Facet, Facets } from '$lib/api/songbook';
  import { keyName } from '$lib/core/practice/items/words';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import { FILTERS, NO_FILTER, type Filter } from '$lib/state/songbook/filter';

  interface Props {
    facets: Facets;
    filter: Filter;
    onfilter: (filter: Filter) => void;
  }
  let { facets, filter, onfilter }: Props = $props();

  const NAMES = { key: 'Key', form: 'Form', style: 'Style', tag: 'Tag' } as const;
  const ANY = { key: 'any key', form: 'any form', style: 'any style', tag: 'any tag' } as const;
  const PRACTISED = [
    { value: '', name: 'practised or not' },
    { value: 'lately', name: 'in the last 30 days' },
    { value: 'long ago', name: 'longer ago' },
    { value: 'never', name: 'not yet' }
  ] as const;
  const nameOf = (what: keyof Facets, { value, count }: Facet) =>
    `${what === 'key' ? keyName(value) : value} (${count})`;
  const isFiltered = $derived(FILTERS.some((one) => filter[one] !== ''));
</script>

<div class="mt-2 flex flex-wrap items-center gap-2" data-filters>
  {#each ['key', 'form', 'style', 'tag'] as const as what (what)}
    {#if facets[what].length > 0}
      <Select
        label={NAMES[what]}
        value={filter[what]}
        options={[
          { value: '', name: ANY[what] },
          ...facets[what].map((facet) => ({ value: facet.value, name: nameOf(what, facet) }))
        ]}
        onpick={(value) => onfilter({ ...filter, [what]: value })}
      />
    {/if}
  {/each}
  <Select
    label="Practised"
    value={filter.practised}
    options={PRACTISED}
    onpick={(practised) => onfilter({ ...filter, practised })}
  />
  {#if isFiltered}<Button tone="quiet" onclick={() => onfilter(NO_FILTER)}>show all</Button>{/if}
</div>
