/** What sounds when: plain events in beats, the same for the band on the page, a MIDI file and a test. */

import type { Beats, Midi } from '../base/units';

/** `backing` is a recording of the player's own. */
export const PARTS = ['bass', 'chords', 'drums', 'click', 'line', 'backing'] as const;
export type Part = (typeof PARTS)[number];

export interface SoundEvent {
  readonly part: Part;
  /** Beats from the start of the excerpt. */
  readonly start: Beats;
  /** Length in beats. */
  readonly beats: Beats;
  /** Pitch; for drums and click the number of the General MIDI percussion map. */
  readonly midi: Midi;
  /** Loudness, 0 to 1. */
  readonly velocity: number;
  /** It goes on as loud as it began: a drone. */
  readonly isHeld?: true;
  /** It comes from another pitch: a bend or a slide, which takes so many beats. A bend may be let down again to a pitch at its end. */
  readonly glide?: { readonly from: number; readonly beats: Beats; readonly backTo?: number };
  /** It is shaken: so many cents to either side. */
  readonly vibrato?: number;
  /** It rises by so many cents at its end, without becoming another pitch: a curl. */
  readonly curl?: number;
  /** It goes on from the note before without a new stroke: hammered on or pulled off. */
  readonly isSlurred?: true;
  /** Touched rather than struck: it is damped at once. */
  readonly isMuted?: true;
  /** Of a recording: the second that sounds first, and how much faster than it was made, at its own pitch. */
  readonly backing?: { readonly from: number; readonly rate: number };
  /** A drum played with brushes. */
  readonly isBrushed?: true;
}
