import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { figuresOf } from './figures';
import { DEFAULT_WEIGHTS, FREE_PATH } from './options';
import { findTargets } from './path';
import { STYLES, styleOf } from './styles';

const { analysis } = readSheet('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 | Fm7 | Abm7 | Ebmaj7 | Bb7 |');
const figures = (id: string) => {
  const { weights, direction } = STYLES.find((style) => style.id === id)!;
  const { paths } = findTargets(analysis, { ...FREE_PATH, weights, direction, window: { from: 0, to: 14 } });
  return { ...figuresOf(paths[0]!), path: paths[0]! };
};

describe('styles', () => {
  it('are known again, however their weights were stored', () => {
    for (const { id, weights, direction } of STYLES) expect(styleOf(weights, direction)?.id).toBe(id);
    const { degree, ...others } = DEFAULT_WEIGHTS;
    const turned = {
      ...others,
      degree: { tension: degree.tension, '7': degree['7'], '5': degree['5'], '3': 0, '1': 1 }
    };
    expect(styleOf(turned, 'free')?.id).toBe('smooth');
    expect(styleOf({ ...DEFAULT_WEIGHTS, pitch: 2 }, 'free')).toBeNull();
    expect(styleOf(DEFAULT_WEIGHTS, 'arch')).toBeNull();
  });

  it('do what they are called', () => {
    expect(figures('smooth').semitones).toBeLessThanOrEqual(figures('thirds').semitones);
    const thirds = figures('thirds').path.targets.filter(({ cell }) => cell.slot === '3').length;
    const smooth = figures('smooth').path.targets.filter(({ cell }) => cell.slot === '3').length;
    expect(thirds).toBeGreaterThanOrEqual(smooth);
    expect(figures('put').shifts).toBe(0);
    expect(
      figures('climb')
        .path.targets.slice(1)
        .every(({ step }) => step!.semitones >= 0)
    ).toBe(true);
  });
});
