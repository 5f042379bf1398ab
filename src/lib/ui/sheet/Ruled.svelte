<!-- Ruled lines, for what is written by hand: each `RULE` millimetres high, below a title of `RULE_TITLE`. -->
<script lang="ts" module>
  /** Millimetres that a line takes, and the title above them. */
  export const RULE = 9;
  export const RULE_TITLE = 8;
</script>

<script lang="ts">
  let { lines, title }: { lines: number; title: string } = $props();
</script>

<div class="ruled" aria-hidden="true" style:--rule="{RULE}mm" style:--title="{RULE_TITLE}mm">
  <p>{title}</p>
  {#each { length: lines } as _, i (i)}<hr />{/each}
</div>

<style>
  .ruled {
    break-inside: avoid;
  }

  p {
    height: var(--title);
    padding-top: 3mm;
    font-size: 3.2mm;
    color: var(--soft);
  }

  hr {
    height: var(--rule);
    margin: 0;
    border: 0;
    border-bottom: 0.2mm solid var(--line);
  }
</style>
