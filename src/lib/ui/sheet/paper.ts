/** Width of what an A4 page leaves inside its margins, 190 mm, in CSS pixels. */
export const PAPER = 718;
