/** How far a tune will be by a day, in a sentence. */
import type { TuneOutlook } from '$lib/api/practice';
import { counted } from '$lib/core/theory/words';

export function outlookSaid(outlook: TuneOutlook | null): string {
  if (!outlook || outlook.items === 0) return 'Nothing of it is practised yet.';
  const { goal, now, low, middle, high, rungs, pace } = outlook;
  if (goal === undefined) return `${outlook.held} of ${counted(outlook.items, 'exercise')} held.`;
  const held = `${outlook.held} of ${counted(outlook.items, 'exercise')} held`;
  if (now === null || now === undefined) return `The whole form was not played clean yet; ${held}.`;
  if (low! >= goal) return `The whole form is clean at ${now}, and stays; ${held}.`;
  if (now >= goal) return `Clean at ${now} now, and not held yet; ${held}.`;
  const measured = pace === null || pace === undefined ? '' : `; ${pace.toFixed(1)} steps a week lately`;
  return `Clean at ${now} now; by then ${low} to ${high}, ${middle} most likely. ${counted(rungs!, 'tempo step')} to ${goal}${measured}. ${held}.`;
}
