/** How what a take did is drawn and named. */
import type { PitchEvent } from '$lib/core/takes/model';
import type { PlayersTime } from '$lib/core/takes/clock';
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

/** "late, 0.4 beats late": how a target was met. */
export const metWords = ({ met, late }: { readonly met: Meeting; readonly late: number | null }): string =>
  `${MEETING_WORDS[met]}${late === null ? '' : `, ${lateWords(late)}`}`;

/** "+20", "−5": milliseconds behind the beat, ahead of it below 0. */
export function signedMs(seconds: number): string {
  const whole = Math.round(seconds * 1000);
  return whole > 0 ? `+${whole}` : whole < 0 ? `−${-whole}` : '0';
}

const ms = (seconds: number) => `${Math.round(Math.abs(seconds) * 1000)} ms`;

/** "40 ms behind the beat, give or take 15 ms". */
export function lieWords({ mean, spread }: Pick<PlayersTime, 'mean' | 'spread'>): string {
  const lies =
    Math.abs(mean) < ON_IT ? 'on the beat' : `${ms(mean)} ${mean > 0 ? 'behind' : 'ahead of'} the beat`;
  return `${lies}, give or take ${ms(spread)}`;
}

/** "You lie 40 ms behind the beat, give or take 15 ms. You rush 2 %." */
export function timeWords({ mean, spread, drift }: Pick<PlayersTime, 'mean' | 'spread' | 'drift'>): string {
  const side = mean > 0 ? 'behind' : 'ahead of';
  const lies = Math.abs(mean) < ON_IT ? 'You play on the beat' : `You lie ${ms(mean)} ${side} the beat`;
  const way = drift > 0 ? 'rush' : 'drag';
  const drifts = Math.abs(drift) < DRIFTS ? '' : ` You ${way} ${Math.round(Math.abs(drift) * 100)} %.`;
  return `${lies}, give or take ${ms(spread)}.${drifts}`;
}
/** So near the beat nobody hears it, in seconds; and a tempo that is off by less stands. */
const ON_IT = 0.02;
const DRIFTS = 0.01;

/** "Swing: you 1.8 : 1, the band 2 : 1"; where the second half of a beat lies, 0.5 for straight. */
export function swingWords(swing: number | null, band: number): string {
  const ratio = (half: number) => {
    const long = Math.round((10 * half) / (1 - half)) / 10;
    return long < 1.1 ? 'straight' : `${long} : 1`;
  };
  if (swing === null) return band > 0.52 ? `The band swings ${ratio(band)}.` : '';
  return `Eighths: you ${ratio(swing)}, the band ${ratio(band)}.`;
}

/** Semitones with a decimal only where they are between. */
const semitonesWords = (cents: number) => {
  const tenths = Math.round(Math.abs(cents) / 10) / 10;
  return Math.abs(tenths - Math.round(tenths)) < 0.15 ? String(Math.round(tenths)) : String(tenths);
};

/** "bend 1.8", "slide", "vibrato": what a hand does to a pitch; a bend in semitones. */
export function eventWords({ kind, cents }: PitchEvent): string {
  if (kind === 'bend') return cents < CURL ? 'curl' : `bend ${semitonesWords(cents)}`;
  return kind;
}
/** The same as one sign, where there is no room for words. */
export const EVENT_SIGNS: Readonly<Record<PitchEvent['kind'], string>> = {
  bend: '↑',
  release: '↓',
  slide: '/',
  vibrato: '~'
};
/** A bend of less is a curl, in cents. */
const CURL = 60;
