<!-- One of several, set in a menu: its name, and beside it the choice. -->
<script lang="ts" generics="Value extends string">
  import type { Option } from '../kit/options';
  import Select from '../kit/Select.svelte';
  import MenuRow from './MenuRow.svelte';

  interface Props {
    /** What stands before it; and what is chosen, for those who do not see the row. */
    name: string;
    label?: string;
    value: Value;
    options: readonly Option<Value>[];
    hint?: string;
    onpick: (value: Value) => void;
  }
  let { name, label = name, value, options, hint, onpick }: Props = $props();
</script>

<MenuRow {name}><Select {label} class="grow" {value} {options} {hint} {onpick} /></MenuRow>
