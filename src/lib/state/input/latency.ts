/** How late an input comes in, as it was measured: kept on the device, one for each input. */

const PLACE = 'corvel-latency';

/** MIDI instruments are one input. */
export const MIDI_INPUT = 'midi';

type Stored = Readonly<Record<string, { readonly seconds: number; readonly spread: number }>>;

function stored(): Stored {
  try {
    return JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Stored;
  } catch {
    return {};
  }
}

/** Seconds from a click being handed to the loudspeaker to its answer coming in; null where it was never measured. */
export function latencyOf(input: string): number | null {
  return stored()[input]?.seconds ?? null;
}

export function keepLatency(
  input: string,
  measured: { readonly seconds: number; readonly spread: number }
): void {
  try {
    localStorage.setItem(PLACE, JSON.stringify({ ...stored(), [input]: measured }));
  } catch {
    // A browser that keeps nothing measures again.
  }
}

/** Every input whose lateness was measured, by its name. */
export function measuredLatencies(): readonly { readonly input: string; readonly seconds: number }[] {
  return Object.entries(stored()).map(([input, { seconds }]) => ({ input, seconds }));
}

/** The input counts as never measured. */
export function forgetLatency(input: string): void {
  const left = Object.fromEntries(Object.entries(stored()).filter(([name]) => name !== input));
  try {
    localStorage.setItem(PLACE, JSON.stringify(left));
  } catch {
    // A browser that keeps nothing has nothing to forget.
  }
}
