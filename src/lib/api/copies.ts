/** What the routes of copies give. */
export interface Copy {
  /** Of its file. */
  readonly name: string;
  readonly day: string;
  readonly bytes: number;
  /** Milliseconds since 1970. */
  readonly madeAt: number;
  /** Charts in it; null where it cannot be read. */
  readonly charts: number | null;
  /** Made by itself before a day's first change. */
  readonly isByItself: boolean;
}
