/** White space as the readers know it, the same as for `trim`. */
export function isSpace(sign: string | undefined): boolean {
  // Nearly every sign is decided by these two; the rest is for the spaces of other scripts.
  if (sign === ' ') return true;
  if (sign === undefined || (sign > ' ' && sign <= '~')) return false;
  return /\s/.test(sign);
}
