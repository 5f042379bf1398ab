<!-- What is listened to, and how late it comes in. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { forgetLatency, measuredLatencies, MIDI_INPUT } from '$lib/state/input/latency';
  import { settings } from '$lib/state/settings.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';

  const USUAL = 'usual';
  let inputs: readonly MediaDeviceInfo[] = $state.raw([]);
  let problem = $state('');
  let measured = $state.raw<ReturnType<typeof measuredLatencies>>([]);
  /** Browsers name what is plugged in only once they may listen. */
  const isNamed = $derived(inputs.some(({ label }) => label !== ''));

  async function look() {
    const all = await navigator.mediaDevices?.enumerateDevices().catch(() => []);
    inputs = (all ?? []).filter(({ kind, deviceId }) => kind === 'audioinput' && deviceId !== 'default');
  }
  onMount(() => {
    measured = measuredLatencies();
    void look();
    navigator.mediaDevices?.addEventListener('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener('devicechange', look);
  });
  async function name() {
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      for (const track of stream.getTracks()) track.stop();
      problem = '';
      await look();
    } catch {
      problem = 'The browser was not allowed to listen, or nothing is plugged in.';
    }
  }
  const options = $derived([
    { value: USUAL, name: 'the usual one', hint: 'As the browser has it' },
    ...inputs
      .filter(({ deviceId }) => deviceId !== '')
      .map(({ deviceId, label }, i) => ({ value: deviceId, name: label || `input ${i + 1}` })),
    ...(settings.now.input && !inputs.some(({ deviceId }) => deviceId === settings.now.input)
      ? [
          {
            value: settings.now.input,
            name: 'one that is not plugged in',
            hint: 'The usual one is used meanwhile'
          }
        ]
      : [])
  ]);
</script>

<div class="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5">
  <span>Microphone or interface</span>
  <span class="flex flex-wrap gap-2">
    <Select
      label="Microphone or interface"
      value={settings.now.input || USUAL}
      {options}
      onpick={(id) => settings.change({ input: id === USUAL ? '' : id })}
    />
    {#if !isNamed}<Button hint="The browser asks whether it may listen" onclick={() => void name()}
        >Show what is plugged in</Button
      >{/if}
  </span>
</div>
{#if problem}<p class="mt-2 text-warn" role="alert">{problem}</p>{/if}
<p class="mt-2 text-sm text-soft">
  No sound leaves this machine. How late an input comes in is measured in Takes, with eight clicks.
</p>
{#if measured.length > 0}
  <ul class="mt-2" data-latencies>
    {#each measured as { input, seconds } (input)}
      <li class="flex items-center gap-3 border-t border-line py-1">
        <span class="flex-1">{input === MIDI_INPUT ? 'MIDI instruments' : input}</span>
        <span class="tabular-nums">{Math.round(seconds * 1000)} ms</span>
        <Button
          size="small"
          label="Forget the latency of {input}"
          class="w-auto px-2"
          onclick={() => {
            forgetLatency(input);
            measured = measuredLatencies();
          }}>Forget</Button
        >
      </li>
    {/each}
  </ul>
{/if}
