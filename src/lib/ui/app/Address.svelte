<!-- Keeps the page's address in step with view, change and position; draws nothing. -->
<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import { afterNavigate, pushState, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { isSamePlace, placeIn, queryOf, type Place } from '$lib/state/address';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { VIEWS } from '../views';

  let { workspace }: { workspace: Workspace } = $props();

  /** Milliseconds of rest after which a change or position is written into the address. */
  const SETTLED = 300;
  /** What the address says: the same view, change and position again after a reload, or by a link. */
  const asked = untrack(() =>
    placeIn(
      page.url.searchParams,
      VIEWS.map(({ id }) => id)
    )
  );
  untrack(() => visit({ ...asked, position: undefined }));
  let isRouting = $state(false);

  function visit({ view, change, position }: { [Part in keyof Place]?: Place[Part] | undefined }) {
    if (view) workspace.view = view;
    if (change !== undefined) workspace.select(Math.min(change, workspace.changes.length - 1), false);
    if (position !== undefined) workspace.hand.moveTo(position);
  }

  onMount(() => {
    // The hand is part of the plan: it is moved where the plan can be saved.
    visit({ position: asked.position });
    void tick().then(() => (isRouting = true));
  });
  /** Sent to a view of the chart that is open already, as a session does. */
  afterNavigate(({ type, to }) => {
    if (!isRouting || !to || (type !== 'goto' && type !== 'link')) return;
    const { view } = placeIn(
      to.url.searchParams,
      VIEWS.map(({ id }) => id)
    );
    visit({ view });
  });
  /** Another view is a step to go back from; another change or position belongs to the step that one is at. */
  $effect(() => {
    const place: Place = {
      view: workspace.view,
      change: workspace.selected,
      position: workspace.position
    };
    if (!isRouting) return;
    const known = untrack(() => page.state.place);
    if (known && isSamePlace(place, known)) return;
    const isStep = known && known.view !== place.view;
    const write = isStep ? pushState : replaceState;
    // Writing asks how far the page is scrolled, and so has it laid out: never before all of it is there.
    const timer = setTimeout(() => write(queryOf(place), { place }), known && !isStep ? SETTLED : 0);
    return () => clearTimeout(timer);
  });
  /** Back and forward. */
  $effect(() => {
    const { place } = page.state;
    if (!place || !isRouting) return;
    untrack(() => {
      if (place.view !== workspace.view) visit(place);
    });
  });
</script>
