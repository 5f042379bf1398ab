/** Lines and charts as files of notes. */
import { WRITTEN_FORMATS } from '$lib/core/formats/registry';
import type { Piece } from '$lib/core/formats/piece';

/** The file of a piece in the format that has this extension. */
export function notesFile(piece: Piece, extension: string): Blob {
  const format = WRITTEN_FORMATS.find((one) => one.extension === extension)!;
  return new Blob([format.write!(piece)], { type: format.type });
}
