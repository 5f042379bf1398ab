/** Where one judgement ends and the next begins. Source: docs/music-rules.md, Judging a take. All in beats unless told. */
export const THRESHOLDS = {
  /** A landing this far from the change is near it. */
  onTime: 0.2,
  /** It is late from so many pulses on, and so many seconds: whichever is more. */
  lateFrom: { pulses: 0.12, seconds: 0.07 },
  /** A player lies behind the beat, or ahead of it, throughout: this share of the notes on one side, the spread below this share of the mean. */
  throughout: { share: 0.9, spread: 0.5 },
  /** A tempo drifts that is off by so much, as a share of it. */
  drift: 0.01,
  /** The take lies beside the band where it is so much better moved by pulses: hits and what is heard, each 0 to 1, summed. */
  moved: { better: 0.5, poor: 1.1, good: 1.2 },
  /** A chord is named as heard from so many notes, or beats of sound, on and where it leads the written one by so much. */
  evidence: { notes: 4, beats: 2, lead: 2 },
  /** A whole take lies so many semitones off where it fits so much better there. */
  fretOff: { better: 0.2, share: 0.75, targets: 4 },
  /** A line that never rests: so many beats of playing, no silence of a beat. */
  restless: 32,
  /** So much before that the target has come early; what lasts into the change was pushed, and is a hit. */
  early: 0.5,
  /** So long after the change the target is still the one meant, unless the next change comes before. */
  late: 1.5,
  /** A note that lasts so far into a change is held over it. */
  held: 0.25,
  /** The first note this far into a change is what it was landed on; after it the landing is silent. */
  landing: 1,
  /** Silence of this much before a change is a breath that was not led into it. */
  silence: 1,
  /** A change that is always this late is a seam. */
  seam: 0.25,
  /** A bend misses its goal by so many cents. */
  bentOff: 25,
  /** A habit: this share of so many changes begin alike. */
  habit: { share: 0.75, changes: 5 },
  /** A take fits its chart where so much more of it is chord tones than it would be in any other key, or so much is heard or hit. */
  fits: { above: 0.06, outlined: 0.5, hits: 0.5 },
  /** Fewer notes tell nothing of whether a chart fits. */
  notesToFit: 8
} as const;
