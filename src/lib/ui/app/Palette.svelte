<!-- The command palette: charts by name and everything that can be done here. -->
<script lang="ts">
  import { Command, Dialog } from 'bits-ui';
  import { goto } from '$app/navigation';
  import type { ChartList } from '$lib/api/songbook';
  import type { Shortcut } from '../keys/keys';

  let { open = $bindable(), commands }: { open: boolean; commands: readonly Shortcut[] } = $props();
  let charts: ChartList['charts'] = $state.raw([]);

  $effect(() => {
    if (!open) return;
    void fetch('/api/v1/songbook?limit=200')
      .then((response) => response.json() as Promise<ChartList>)
      .then((list) => (charts = list.charts))
      .catch(() => undefined);
  });

  const ITEM =
    'flex min-h-9 cursor-pointer items-center justify-between gap-3 rounded-md px-2 data-[selected]:bg-lit pointer-coarse:min-h-11';
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content class="fixed top-[12vh] left-1/2 z-50 w-[min(560px,94vw)] -translate-x-1/2 card p-2">
      <Dialog.Title class="sr-only">Find a chart or a command</Dialog.Title>
      <Command.Root label="Charts and commands">
        <Command.Input
          class="mb-2 h-11 w-full rounded-md border border-edge bg-paper px-3"
          aria-label="Find a chart or a command"
          placeholder="A chart, or something to do …"
        />
        <Command.List class="max-h-[52vh] overflow-y-auto" tabindex={0}>
          <Command.Viewport>
            <Command.Empty class="p-3 text-soft">Nothing by that name.</Command.Empty>
            <Command.Group>
              {#each commands.filter(({ command }) => command) as item (item.name)}
                <Command.Item
                  class={ITEM}
                  value={item.name}
                  onSelect={() => {
                    open = false;
                    item.run(null);
                  }}>{item.name}<kbd class="text-xs text-soft">{item.keys}</kbd></Command.Item
                >
              {/each}
              {#each charts as chart (chart.id)}
                <Command.Item
                  class={ITEM}
                  value="{chart.title} {chart.id}"
                  onSelect={() => {
                    open = false;
                    void goto(`/charts/${chart.id}`);
                  }}
                  ><span class="font-display">{chart.title}</span><span class="text-xs text-soft"
                    >{chart.key}</span
                  ></Command.Item
                >
              {/each}
            </Command.Group>
          </Command.Viewport>
        </Command.List>
      </Command.Root>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
