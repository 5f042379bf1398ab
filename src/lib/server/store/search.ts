/** Finding as a person means it: case, accents and the signs of flat and sharp make no difference. */

/** A text as it is compared. */
export function folded(text: string): string {
  return text
    .normalize('NFD')
    .replaceAll(/\p{Mn}/gu, '')
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .toLowerCase();
}

/** What the search looks through. Key as the summary has it: "Gm", "Eb". */
export function searchText(
  title: string,
  { key, feel, opening }: { key: string; feel: string | null; opening: readonly string[] },
  tags: readonly string[] = []
): string {
  const keyName = key && (key.endsWith('m') ? `${key} ${key.slice(0, -1)} minor` : `${key} major`);
  return folded([title, keyName, feel ?? '', ...opening, ...tags].join('\n'));
}

/** The words that must all be found. */
export function searchWords(query: string): string[] {
  return folded(query).split(/\s+/).filter(Boolean);
}
