/** What is shown over a score beside its notes. Times are in ticks. */
export interface ScoreMarks {
  readonly chords: readonly { readonly index: number; readonly symbol: string; readonly start: number }[];
  /** The change that is selected. */
  readonly change: number;
  /** Of each note of the line against its chord; null where they are not wanted. */
  readonly degrees: readonly (string | null)[] | null;
  /** Where the music is. */
  readonly time: number | null;
  /** Start of the note that sounds. */
  readonly lit: number | null;
  /** Where writing goes on. */
  readonly caret: { readonly at: number; readonly string: number } | null;
  readonly selected: { readonly from: number; readonly to: number } | null;
  /** Every bar says its number, not only the first of a system. */
  readonly numbersAll?: boolean;
}
