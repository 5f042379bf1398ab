/** How what a take did is drawn and named. */
import type { Meeting } from '$lib/core/takes/judge/landing';

export const MEETING_WORDS: Readonly<Record<Meeting, string>> = {
  hit: 'hit',
  late: 'late',
  early: 'early',
  'chord tone': 'another chord tone',
  outside: 'outside the chord',
  silent: 'nothing played'
};

export const WAY_WORDS = {
  microphone: 'microphone',
  file: 'sound file',
  midi: 'MIDI instrument',
  'midi file': 'MIDI file',
  player: 'simulated player'
} as const;

export const percent = (share: number | null) => (share === null ? '–' : `${Math.round(100 * share)} %`);

/** "0.4 beats late", "on time". */
export function lateWords(late: number | null): string {
  if (late === null) return '';
  const beats = Math.round(Math.abs(late) * 10) / 10;
  return beats === 0
    ? 'on the beat'
    : `${beats} ${beats === 1 ? 'beat' : 'beats'} ${late > 0 ? 'late' : 'early'}`;
}
