/** How players name feels, and which one a chart means. The feels themselves are rows of the band. */
import type { Meter } from './model';

/** What charts call their feel, and which one is meant; the first that is found. */
const CALLED: readonly (readonly [RegExp, string])[] = [
  [/half.?time/i, 'half-time rock'],
  [/gospel/i, 'gospel 6/8'],
  [/slow.*blues|12\s*\/\s*8/i, 'slow 12/8 blues'],
  [/second.?line|street.?beat|parade/i, 'second line'],
  [/bolero/i, 'bolero'],
  [/montuno|\bson\b|salsa|mambo|tumbao/i, 'montuno'],
  [/train/i, 'train'],
  [/country|two.?step|western/i, 'country'],
  [/hard.?rock|metal|punk/i, 'hard rock'],
  [/jazz.?waltz/i, 'jazz waltz'],
  [/samba/i, 'samba'],
  [/bossa|latin/i, 'bossa'],
  [/reggae|one.?drop|rocksteady|dub/i, 'reggae'],
  [/shuffle/i, 'shuffle'],
  [/waltz/i, 'waltz'],
  [/ballad|brush/i, 'ballad'],
  [/drone/i, 'drone'],
  [/swing|bop|jazz/i, 'swing'],
  [/funk/i, 'funk'],
  [/soul|r\s*&\s*b/i, 'soul'],
  [/rock|hard/i, 'rock'],
  [/straight|pop|even|folk/i, 'straight'],
  [/blues/i, 'shuffle'],
  [/vamp/i, 'drone']
];

/** The id of the feel that a chart says, by its usual words; without any the one of its meter. */
export function feelIdOf(said: string | null, { beats, unit }: Meter): string {
  const called = CALLED.find(([called]) => said && called.test(said))?.[1];
  const isDotted = unit >= 8 && beats % 3 === 0 && beats > 3;
  const isThree = beats === 3 && unit === 4;
  if (isThree && (!called || called === 'swing')) return 'waltz';
  return called ?? (isDotted ? 'slow 12/8 blues' : 'straight');
}
