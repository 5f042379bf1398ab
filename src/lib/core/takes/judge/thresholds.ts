/** Where one judgement ends and the next begins. Source: docs/music-rules.md, Judging a take. All in beats unless told. */
export const THRESHOLDS = {
  /** A landing this far from the change is on time. */
  onTime: 0.2,
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
  /** A habit: this share of so many changes begin alike. */
  habit: { share: 0.75, changes: 5 },
  /** A take fits its chart where so much more of it is chord tones than it would be in any other key, or so much is heard or hit. */
  fits: { above: 0.06, outlined: 0.5, hits: 0.5 },
  /** Fewer notes tell nothing of whether a chart fits. */
  notesToFit: 8
} as const;
