/**
 * Numbers that carry their unit. A plain number may stand for any of them, so that arithmetic stays as it is; one unit never stands for
 * another: ticks given where seconds are asked for, or a fret where a string is, are refused by the compiler.
 */
type In<Unit extends string> = number & { readonly unit?: Unit };

/** Written time, 960 to a beat; whole. */
export type Ticks = In<'ticks'>;
/** Beats of the chart's meter, from the start of the form where it is a place. */
export type Beats = In<'beats'>;
export type Seconds = In<'seconds'>;
/** Semitones, 60 for middle C. */
export type Midi = In<'midi'>;
/** Semitones above C, 0 to 11. */
export type PitchClass = In<'pitch class'>;
/** 0 is the open string, also under a capo. */
export type Fret = In<'fret'>;
/** 1 is the highest. */
export type StringNumber = In<'string'>;
