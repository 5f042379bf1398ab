/** Bounds on what crosses a boundary. */

/** Bytes of a chart text in UTF-8. */
export const MAX_CHART_BYTES = 64 * 1024;
/** Bytes of a request body: a chart, its plan and some air for JSON escapes. */
export const MAX_BODY_BYTES = 512 * 1024;

/** Bytes of a file of notes; and of the request that brings it, in which it may be written as base64 or with escapes. */
export const MAX_FILE_BYTES = 8 * 1024 * 1024;
export const MAX_FILE_BODY_BYTES = 12 * 1024 * 1024;

/** Bytes and seconds of a sound that is listened to at once. */
export const MAX_SOUND_BYTES = 20 * 1024 * 1024;
export const MAX_SOUND_SECONDS = 180;

export function byteLength(text: string): number {
  return new TextEncoder().encode(text).length;
}

export function tooLargeMessage(text: string): string {
  const size = Math.ceil(byteLength(text) / 1024);
  return `This chart is ${size} KiB long; Corvel takes charts up to ${MAX_CHART_BYTES / 1024} KiB. Split it into two charts.`;
}
