/** Files that leave the page: a new format is a row here and a module that makes it, fetched when it is asked for. */
import { factsOf } from '$lib/core/formats/facts';
import type { Piece as NotesPiece } from '$lib/core/formats/piece';
import type { Format, Piece } from './export/format';

/** A drawing on the screen. */
export const DRAWING_FORMATS: readonly Format<SVGSVGElement>[] = [
  {
    id: 'svg',
    name: 'SVG',
    hint: 'Save this drawing as SVG, sharp at any size',
    failure: 'The picture could not be made.',
    make: async (drawing) => (await import('./export/drawing')).svgFile(drawing)
  },
  {
    id: 'png',
    name: 'PNG',
    hint: 'Save this drawing as PNG, a picture',
    failure: 'The picture could not be made.',
    make: async (drawing) => (await import('./export/drawing')).pngFile(drawing)
  }
];

export const ROUND_FORMATS: readonly Format<Piece>[] = [
  {
    id: 'mid',
    name: 'MIDI',
    hint: 'Band and drill on tracks of their own',
    failure: 'The MIDI file could not be made here.',
    make: async (piece) => (await import('./export/round')).midiOf(piece)
  },
  {
    id: 'wav',
    name: 'WAV',
    hint: 'One round as it sounds, at the speed that is set',
    failure: 'The sound could not be made into a file here.',
    make: async (piece, work) => (await import('./export/round')).wavOf(piece, work)
  }
];

/** A line over its chart, or the chart alone. */
export const LINE_FORMATS: readonly Format<NotesPiece>[] = (['musicxml', 'midi', 'tab', 'csv'] as const).map(
  (id) => {
    const { name, hint, endings } = factsOf(id);
    return {
      id: endings[0],
      name,
      hint,
      failure: 'The file could not be made here.',
      make: async (piece: NotesPiece) => (await import('./export/notes')).notesFile(piece, id)
    };
  }
);
