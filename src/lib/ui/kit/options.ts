/** One of several that can be chosen. */
export interface Option<Value extends string = string> {
  readonly value: Value;
  readonly name: string;
  /** A few words of explanation. */
  readonly hint?: string | undefined;
}
