/** How late an input comes in, as it was measured: kept on the device, one for each input. */

const PLACE = 'corvel-latency';

/** MIDI instruments are one input. */
export const MIDI_INPUT = 'midi';

type Kept = Readonly<Record<string, { readonly seconds: number; readonly spread: number }>>;

function kept(): Kept {
  try {
    return JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Kept;
  } catch {
    return {};
  }
}

/** Seconds from a click being handed to the loudspeaker to its answer coming in; null where it was never measured. */
export function latencyOf(input: string): number | null {
  return kept()[input]?.seconds ?? null;
}

export function keepLatency(
  input: string,
  measured: { readonly seconds: number; readonly spread: number }
): void {
  try {
    localStorage.setItem(PLACE, JSON.stringify({ ...kept(), [input]: measured }));
  } catch {
    // A browser that keeps nothing measures again.
  }
}

/** Every input whose lateness was measured, by its name. */
export function measuredLatencies(): readonly { readonly input: string; readonly seconds: number }[] {
  return Object.entries(kept()).map(([input, { seconds }]) => ({ input, seconds }));
}

/** The input counts as never measured. */
export function forgetLatency(input: string): void {
  const left = Object.fromEntries(Object.entries(kept()).filter(([name]) => name !== input));
  try {
    localStorage.setItem(PLACE, JSON.stringify(left));
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
