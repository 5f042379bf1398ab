/** Small words of English in one place: lists, counts, numbers and ordinals. */

/** "a", "a and b", "a, b and c"; with `or` where that is asked for. */
export function listed(names: readonly string[], joint: 'and' | 'or' = 'and'): string {
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} ${joint} ${names.at(-1)}` : (names[0] ?? '');
}

const NUMBERS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');

/** "two" to "twelve" in words, larger numbers in figures. */
export function numberWord(count: number): string {
  return NUMBERS[count] ?? String(count);
}

/** "1 change", "3 changes". */
export function counted(count: number, noun: string, plural = `${noun}s`): string {
  return `${count} ${count === 1 ? noun : plural}`;
}

/** "1st", "2nd", "3rd", "4th" … for 1 to 20. */
export function ordinal(number: number): string {
  return `${number}${['th', 'st', 'nd', 'rd'][number] ?? 'th'}`;
}

/** "bar 5", "bars 5 and 6", "bars 5, 9 to 12 and 15". `bars` in order. */
export function barRanges(bars: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const bar of bars) {
    const last = runs.at(-1);
    if (last && bar === last[1] + 1) last[1] = bar;
    else runs.push([bar, bar]);
  }
  const said = runs.flatMap(([from, to]) =>
    to === from ? [`${from}`] : to === from + 1 ? [`${from}`, `${to}`] : [`${from} to ${to}`]
  );
  return `${bars.length === 1 ? 'bar' : 'bars'} ${listed(said)}`;
}
