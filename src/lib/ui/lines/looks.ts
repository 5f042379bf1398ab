/** How the notes of a line and what is heard in it are drawn and named. */
import type { NoteRole } from '$lib/core/line/read';
import type { Relation } from '$lib/core/line/phrase/styles';
import type { Verdict } from '$lib/core/line/outline';
import type { LandedBy } from '$lib/core/line/read';

interface Look {
  readonly box: string;
  readonly text: string;
  readonly isBroken?: true;
}

export const TARGET_LOOK: Look = { box: 'fill-target', text: 'fill-on-target' };
const OUTLINED: Look = { box: 'fill-surface stroke-tone', text: 'fill-ink' };
const CLASHING: Look = { box: 'fill-surface stroke-warn', text: 'fill-warn', isBroken: true };

/** Weight first, hue second: chord tones are filled, what passes is outlined, what clashes is broken. */
export const ROLE_LOOKS: Readonly<Record<NoteRole, Look>> = {
  'chord tone': { box: 'fill-tone', text: 'fill-on-tone' },
  approach: { box: 'fill-surface stroke-soft', text: 'fill-soft' },
  passing: { box: 'fill-surface stroke-soft', text: 'fill-soft' },
  leaning: { box: 'fill-surface stroke-soft', text: 'fill-soft' },
  blue: OUTLINED,
  tension: OUTLINED,
  avoid: CLASHING,
  outside: CLASHING
};

export const ROLE_NAMES: Readonly<Record<NoteRole, string>> = {
  'chord tone': 'chord tone',
  approach: 'leads in',
  passing: 'passing',
  leaning: 'leans on the next note',
  blue: 'blue note',
  tension: 'colour',
  avoid: 'clashes',
  outside: 'outside'
};

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  clear: 'heard as its chord',
  partly: 'heard in part',
  not: 'not heard as its chord',
  silence: 'silent'
};

export const LANDED_WORDS: Readonly<Record<LandedBy, string>> = {
  held: 'held over',
  'semitone below': 'from a semitone below',
  'semitone above': 'from a semitone above',
  step: 'by a step',
  enclosure: 'by an enclosure',
  leap: 'by a leap',
  leaning: 'after a note that leans on it',
  silence: 'after silence'
};

/** How a phrase takes up another one: "varies A", "moves A up or down". */
export const RELATION_WORDS: Readonly<Record<Relation, string>> = {
  literal: 'repeats',
  varied: 'varies',
  'same rhythm': 'has the rhythm of',
  sequence: 'is a sequence of'
};

export const RELATION_HINTS: Readonly<Record<Relation, string>> = {
  literal: 'Note for note, where the chords have them',
  varied: 'The same beginning, another end',
  'same rhythm': 'The same rhythm, other notes',
  sequence: 'The same shape, a step higher or lower'
};
