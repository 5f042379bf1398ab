/** Files that leave the page: a new format is a row here and a module that makes it, fetched when it is asked for. */
import type { PracticeRound } from '$lib/core/practice/round';
import type { Part } from '$lib/core/practice/events';
import type { Meter } from '$lib/core/chart/model';

export interface Format<Subject> {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** Said where it fails. */
  readonly trouble: string;
  readonly make: (subject: Subject) => Promise<Blob>;
}

/** A drawing on the screen. */
export const DRAWING_FORMATS: readonly Format<SVGSVGElement>[] = [
  {
    id: 'svg',
    name: 'SVG',
    hint: 'Save this drawing as SVG, sharp at any size',
    trouble: 'The picture could not be made.',
    make: async (drawing) => (await import('./export/drawing')).svgFile(drawing)
  },
  {
    id: 'png',
    name: 'PNG',
    hint: 'Save this drawing as PNG, a picture',
    trouble: 'The picture could not be made.',
    make: async (drawing) => (await import('./export/drawing')).pngFile(drawing)
  }
];

/** A round of practice as it sounds. */
export interface Piece {
  readonly round: PracticeRound;
  readonly title: string;
  readonly meter: Meter;
  /** Beats a minute as they sound. */
  readonly tempo: number;
  readonly mix: Readonly<Record<Part, { readonly decibels: number; readonly isMuted: boolean }>>;
}

export const ROUND_FORMATS: readonly Format<Piece>[] = [
  {
    id: 'mid',
    name: 'MIDI',
    hint: 'Band and drill on tracks of their own',
    trouble: 'The MIDI file could not be made here.',
    make: async (piece) => (await import('./export/round')).midiOf(piece)
  },
  {
    id: 'wav',
    name: 'WAV',
    hint: 'One round as it sounds',
    trouble: 'The sound could not be made into a file here.',
    make: async (piece) => (await import('./export/round')).wavOf(piece)
  }
];
