/** Colours of the two themes against each other, as WCAG counts contrast. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync(new URL('./app.css', import.meta.url), 'utf8');
const COLOURS = [...css.matchAll(/--([\w-]+): light-dark\((#[0-9a-f]{6}), (#[0-9a-f]{6})\)/g)];
const THEMES = {
  day: Object.fromEntries(COLOURS.map(([, name, day]) => [name!, day!])),
  stage: Object.fromEntries(COLOURS.map(([, name, , stage]) => [name!, stage!]))
};

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const part = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

describe.each(Object.entries(THEMES))('%s', (_, colours) => {
  it.each(['ink', 'soft', 'target', 'next', 'warn', 'tone'])(
    '%s can be read as text on every ground',
    (name) => {
      for (const ground of ['paper', 'surface', 'lit']) {
        expect(contrast(colours[name]!, colours[ground]!), ground).toBeGreaterThanOrEqual(4.5);
      }
    }
  );
  it('labels in notes can be read, and the edges of controls be seen', () => {
    expect(contrast(colours['on-target']!, colours.target!)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(colours['on-tone']!, colours.tone!)).toBeGreaterThanOrEqual(4.5);
    for (const ground of ['paper', 'surface']) {
      expect(contrast(colours.edge!, colours[ground]!)).toBeGreaterThanOrEqual(3);
    }
  });
});
