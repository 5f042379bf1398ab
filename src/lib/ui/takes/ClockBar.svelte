<!-- The clock of a take that came from a file: found in its notes, put right by hand. -->
<script lang="ts">
  import type { TakeData } from '$lib/api/take';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import type { TakeShelf } from '$lib/state/takes/shelf.svelte';
  import NumberField from '../kit/NumberField.svelte';

  let { shelf, data }: { shelf: TakeShelf; data: TakeData } = $props();
</script>

<p class="flex flex-wrap items-center gap-3 text-sm text-soft" data-clock>
  The beat was found in the notes. If it is wrong, correct it:
  <NumberField
    label="Tempo of the take"
    value={Math.round(data.tempo * 10) / 10}
    min={LOWEST_TEMPO}
    max={HIGHEST_TEMPO}
    unit="bpm"
    onset={(tempo) => void shelf.setClock(tempo, data.start)}
  />
  <NumberField
    label="Second of the first beat"
    value={Math.round(data.start * 100) / 100}
    min={-30}
    max={600}
    unit="s to the first beat"
    onset={(start) => void shelf.setClock(data.tempo, start)}
    class="w-20"
  />
</p>
