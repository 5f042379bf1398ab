/** Where strings and frets lie in a drawing of the neck. Pure numbers, in pixels. */
import { circlePath } from '../kit/circles';

export interface NeckGeometry {
  readonly width: number;
  readonly height: number;
  /** x of a fret wire (0 is the nut). */
  readonly wire: (fret: number) => number;
  /** x of a finger behind a fret; open strings stand before the nut. */
  readonly finger: (fret: number) => number;
  /** y of a string, 1 the highest in pitch and on top. */
  readonly string: (string: number) => number;
  /** The fret under an x, for dragging. */
  readonly fretAt: (x: number) => number;
}

interface NeckMeasures {
  readonly width: number;
  readonly strings: number;
  readonly from: number;
  readonly to: number;
  readonly stringGap: number;
  readonly top: number;
  readonly bottom: number;
  /** Room before the first wire for open strings. */
  readonly open: number;
  readonly leftHanded: boolean;
}

/** Real frets shrink by 5.6 % each; drawn at less than half of that, high frets keep room for a label. */
const SHRINK = 0.976;

/** Lays out the frets `from`…`to` of a neck; `from` 0 shows the nut. */
export function neckGeometry(measures: NeckMeasures): NeckGeometry {
  const { width, strings, from, to, stringGap, top, bottom, open, leftHanded } = measures;
  const first = Math.max(0, from - 1);
  const total = (1 - SHRINK ** (to - first)) / (1 - SHRINK);
  const unit = (width - open - 6) / total;
  const wire = (fret: number) => open + (unit * (1 - SHRINK ** (fret - first))) / (1 - SHRINK);
  const finger = (fret: number) => (fret <= first ? open / 2 : (wire(fret - 1) + wire(fret)) / 2);
  const mirror = (x: number) => (leftHanded ? width - x : x);
  return {
    width,
    height: top + (strings - 1) * stringGap + bottom,
    wire: (fret) => mirror(wire(fret)),
    finger: (fret) => mirror(finger(fret)),
    string: (string) => top + (string - 1) * stringGap,
    fretAt: (x) => {
      const at = mirror(x);
      for (let fret = from; fret <= to; fret++) if (at < wire(fret)) return fret;
      return to;
    }
  };
}

/** The wires of the frets `from`…`to`, with the one before them, and the strings, as one path. */
export function net({ wire, string }: NeckGeometry, strings: number, from: number, to: number): string {
  const [top, bottom] = [string(1), string(strings)];
  let path = '';
  for (let fret = from - 1; fret <= to; fret++) path += `M${wire(fret).toFixed(1)} ${top}V${bottom}`;
  const ends = `${wire(from - 1).toFixed(1)} `;
  for (let row = 1; row <= strings; row++) path += `M${ends}${string(row)}H${wire(to).toFixed(1)}`;
  return path;
}

/** Discs over some places as one path. `radius`: in pixels. */
export function dotsPath<Place extends { readonly string: number; readonly fret: number }>(
  { finger, string }: NeckGeometry,
  places: readonly Place[],
  radius: (place: Place) => number
): string {
  return circlePath(
    places.map((place) => ({ x: finger(place.fret), y: string(place.string), r: radius(place) }))
  );
}

/** Frets with an inlay, and those with two. */
export const INLAYS: readonly number[] = [3, 5, 7, 9, 12, 15, 17, 19, 21, 24];
export const DOUBLE_INLAYS: readonly number[] = [12, 24];
