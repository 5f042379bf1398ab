<!-- A quiet button that lets something be heard; pressed again while it sounds, it stops. -->
<script lang="ts">
  import Volume1 from '@lucide/svelte/icons/volume-1';
  import type { Ask } from '$lib/state/chart/hearing';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import { hear } from './hear';

  interface Props {
    workspace: Workspace;
    /** What is heard; without it what the player is at. */
    ask?: Ask;
    label: string;
    hint?: string;
  }
  let { workspace, ask, label, hint }: Props = $props();
</script>

<Button size="small" isRound {label} {hint} onclick={() => hear(workspace, ask)}><Volume1 size={15} /></Button
>
