/** Sheets of paper that books are printed on. Millimetres. */

export interface Paper {
  readonly id: 'a4' | 'letter';
  readonly name: string;
  readonly width: number;
  readonly height: number;
}

export const PAPERS: readonly Paper[] = [
  { id: 'a4', name: 'A4', width: 210, height: 297 },
  { id: 'letter', name: 'Letter', width: 215.9, height: 279.4 }
];

/** Margins of a page: the inner one is wider, for the binding. */
export const MARGINS = { inner: 17, outer: 12, top: 11, bottom: 15 } as const;

/** What the margins leave. */
export function roomOn({ width, height }: Paper): { readonly width: number; readonly height: number } {
  return {
    width: width - MARGINS.inner - MARGINS.outer,
    height: height - MARGINS.top - MARGINS.bottom
  };
}
