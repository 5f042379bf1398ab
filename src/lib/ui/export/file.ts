/** Hands a file to the player. */
export function saveFile(blob: Blob, name: string, extension: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${name.replaceAll(/[^\p{L}\p{N} -]+/gu, '').trim() || 'corvel'}.${extension}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
