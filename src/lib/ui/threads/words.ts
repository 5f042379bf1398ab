/** The target line in words, for those who hear it. */
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import type { Target } from '$lib/core/targets/path';
import type { MetChange } from '$lib/state/stand/landings.svelte';
import { MEETING_WORDS } from '../takes/words';
import { stepWords } from './layout';

/** One change: its chord and bar, its target and how far the line moves into it, how it was met. */
export function changeInWords(
  { symbol, bar, chord }: AnalysedChange,
  target: Target | undefined,
  met: MetChange | undefined
): string {
  const meeting = met ? `, ${MEETING_WORDS[met.met]}${met.isPast ? ' last time' : ''}` : '';
  if (!target) return `${symbol}, bar ${bar}, ${chord ? 'resting' : 'no target'}${meeting}`;
  const { cell, step, isFixed } = target;
  const move = step ? `, ${stepWords(step.semitones)}` : '';
  return `${symbol}, bar ${bar}, target ${cell.degree} ${cell.note}${move}${isFixed ? ', pinned' : ''}${meeting}`;
}
