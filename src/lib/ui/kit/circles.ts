/** Discs as one path: many of one look are one thing to draw, and one thing to move. */

export interface Circle {
  readonly x: number;
  readonly y: number;
  /** Radius, in pixels as x and y. */
  readonly r: number;
}

export function circlePath(circles: readonly Circle[]): string {
  return circles
    .map(({ x, y, r }) => {
      const arc = `a${r.toFixed(2)} ${r.toFixed(2)} 0 1 0`;
      return `M${(x - r).toFixed(1)} ${y.toFixed(1)}${arc} ${(2 * r).toFixed(2)} 0${arc} ${(-2 * r).toFixed(2)} 0`;
    })
    .join('');
}
