/** Charts of any length in keys of our own choosing, for measuring. */

export const CYCLE = 'Fm7 Bb7 Ebmaj7 Abmaj7 Dm7b5 G7b9 Cm6 C7 F#m7 B7 Emaj7 Am7 D7 Gmaj7 Gm7 C7'.split(' ');

export function chart(changes: number, variant = 0): string {
  const symbols = Array.from({ length: changes }, (_, i) => CYCLE[(i + variant) % CYCLE.length]!);
  const rows = Array.from(
    { length: Math.ceil(changes / 4) },
    (_, r) => `| ${symbols.slice(4 * r, 4 * r + 4).join(' | ')} |`
  );
  return `# ${variant}\n${rows.join('\n')}`;
}
