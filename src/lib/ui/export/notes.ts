/** Lines and charts as files of notes. */
import { sure } from '$lib/core/base/list';
import { WRITTEN_FORMATS } from '$lib/core/formats/registry';
import type { FormatId } from '$lib/core/formats/facts';
import type { Piece } from '$lib/core/formats/piece';

/** The file of a piece in a format. */
export function notesFile(piece: Piece, id: FormatId): Blob {
  const format = sure(
    WRITTEN_FORMATS.find((one) => one.id === id),
    id
  );
  return new Blob([sure(format.write, 'the writer of a format')(piece)], { type: format.type });
}
