/** Lines and charts as files of notes. */
import { sure } from '$lib/core/base/list';
import { WRITTEN_FORMATS } from '$lib/core/formats/registry';
import type { Piece } from '$lib/core/formats/piece';

/** The file of a piece in the format that has this extension. */
export function notesFile(piece: Piece, extension: string): Blob {
  const format = sure(
    WRITTEN_FORMATS.find((one) => one.extension === extension),
    'WRITTEN_FORMATS'
  );
  return new Blob([sure(format.write, 'the writer of a format')(piece)], { type: format.type });
}
