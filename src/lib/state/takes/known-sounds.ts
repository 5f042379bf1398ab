/** What Corvel itself sounded while a take was played, so that the listener can tell it from the player. */
import type { KnownSound } from '$lib/core/takes/model';
import type { Rehearsal } from '../stand/rehearsal.svelte';

/** Parts that sound no pitch. */
const UNPITCHED: readonly string[] = ['drums', 'click'];
/** Rounds that are looked at, at most. */
const MOST_ROUNDS = 500;

/**
 * What the band played, and what is mixed in with it, in a take of so many seconds.
 * @param tempo beats a minute
 * @param start the second of the take at which the first beat sounded
 */
export function knownSounds(
  rehearsal: Rehearsal,
  tempo: number,
  start: number,
  seconds: number
): KnownSound[] {
  const { rounds, desk, workspace } = rehearsal;
  const known: KnownSound[] = [];
  let beat = 0;
  for (let round = 0; round < MOST_ROUNDS && start + (beat * 60) / tempo < seconds; round++) {
    const laid = rounds.of(workspace, { round, tempo, isLast: false });
    if (!laid || laid.excerpt.beats <= 0) break;
    for (const event of laid.events) {
      if (event.part !== 'backing' && desk.now.mix[event.part].isMuted) continue;
      const at = start + ((beat + event.start) * 60) / tempo;
      known.push({ at, midi: UNPITCHED.includes(event.part) ? null : event.midi });
    }
    beat += laid.excerpt.beats;
  }
  return known;
}
