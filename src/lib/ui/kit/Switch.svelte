<!-- On or off, with its words beside it. -->
<script lang="ts">
  import { Switch } from 'bits-ui';

  interface Props {
    label: string;
    hint?: string | undefined;
    checked: boolean;
    onswitch: (checked: boolean) => void;
  }
  let { label, hint, checked, onswitch }: Props = $props();
  const id = $props.id();
</script>

<div class="flex items-center gap-2.5 pointer-coarse:min-h-11">
  <!-- Where a finger is used all around it belongs to it. -->
  <Switch.Root
    {id}
    {checked}
    onCheckedChange={onswitch}
    class="group inline-flex shrink-0 items-center justify-center pointer-coarse:size-11"
  >
    <span
      class="inline-flex h-6 w-10 items-center rounded-full border border-edge bg-paper px-0.5 group-data-[state=checked]:border-ink group-data-[state=checked]:bg-ink"
    >
      <Switch.Thumb
        class="block size-4.5 rounded-full bg-soft transition-transform data-[state=checked]:translate-x-4 data-[state=checked]:bg-paper"
      />
    </span>
  </Switch.Root>
  <label for={id} class="cursor-pointer"
    >{label}{#if hint}<span class="block text-xs text-soft">{hint}</span>{/if}</label
  >
</div>
