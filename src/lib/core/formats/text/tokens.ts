/** Words of a line as chords stand in it: between spaces, bar lines, brackets and commas. */

/** The words of a line, without what separates them. */
export const tokens = (line: string): readonly string[] => line.match(/[^\s|[\](){},;:]+/g) ?? [];

/** Signs between chords, which say nothing of what a line is made of. */
const isSign = (word: string) => /^(?:[./%\-–—→>]+|x\d+)$/.test(word);

/** Whether a line is made of what a test knows, signs apart. */
export function looksLike(line: string, is: (word: string) => boolean): boolean {
  const telling = tokens(line).filter((word) => !isSign(word));
  return telling.length > 0 && telling.every(is);
}
