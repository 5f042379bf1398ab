<!-- The contents: every key with its page, and room for how far it is. -->
<script lang="ts">
  import { keyText } from '$lib/core/harmony/key';
  import { accidentalsOf } from '$lib/core/harmony/key-signature';
  import { keyName } from '$lib/core/practice/items/words';
  import type { Entry } from './pages';

  let { entries }: { entries: readonly Entry[] } = $props();
  const accidentals = ({ key }: Entry) => {
    const count = accidentalsOf(key.home);
    return count === 0 ? '' : `${Math.abs(count)}${count > 0 ? '♯' : '♭'}`;
  };
</script>

<div class="contents">
  <h2 class="font-display">Contents</h2>
  <table>
    <thead>
      <tr>
        <th scope="col">key</th>
        <th scope="col">signature</th>
        <th scope="col">hand</th>
        <th scope="col" class="noted">slowly</th>
        <th scope="col" class="noted">in time</th>
        <th scope="col" class="noted">by heart</th>
        <th scope="col" class="page">page</th>
      </tr>
    </thead>
    <tbody>
      {#each entries as entry (entry.key.shift)}
        {@const hands = entry.key.workspace.hands}
        <tr>
          <td class="name font-display"
            ><a href="#page-{entry.page}">{keyName(keyText(entry.key.home))}</a></td
          >
          <td>{accidentals(entry)}</td>
          <td>fret {hands.length ? Math.min(...hands) : entry.key.workspace.position}</td>
          {#each { length: 3 } as _, i (i)}<td class="noted"><i></i></td>{/each}
          <td class="page font-display">{entry.page}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .contents {
    padding-top: 14mm;
  }

  h2 {
    margin-bottom: 8mm;
    font-size: 8mm;
    line-height: 10mm;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 3.8mm;
  }

  th {
    padding-bottom: 1mm;
    font-size: 3.2mm;
    font-weight: 400;
    color: var(--soft);
    text-align: left;
  }

  td {
    height: 14.5mm;
    border-bottom: 0.2mm solid var(--line);
  }

  .name {
    font-size: 6mm;
  }

  .name a {
    display: flex;
    align-items: center;
    height: 14.5mm;
  }

  .noted {
    width: 24mm;
    text-align: center;
  }

  .noted i {
    display: inline-block;
    width: 16mm;
    height: 8mm;
    border: 0.2mm solid var(--soft);
    vertical-align: middle;
  }

  .page {
    width: 16mm;
    font-size: 6mm;
    text-align: right;
  }

  th.page {
    font-size: 3.2mm;
  }
</style>
