import { describe, expect, it } from 'vitest';
import { tellStrings } from './hand';

describe('what is on the neck, in words', () => {
  const told = [
    { string: 3, fret: 4, note: 'Cb' as const, degree: 'b3' as const, role: 'chord' as const },
    { string: 3, fret: 6, note: 'Db' as const, degree: '11' as const, role: 'tension' as const },
    { string: 1, fret: 0, note: 'Fb' as const, degree: 'b13' as const, role: 'avoid' as const }
  ];

  it('goes string by string, names the target, and the role of what is no chord tone', () => {
    expect(tellStrings({ count: 4, told, target: { string: 3, fret: 4 } })).toEqual([
      'String 1: open, F♭, ♭13, avoid',
      'String 2: no note',
      'String 3: fret 4, C♭, ♭3, target; fret 6, D♭, 11, tension',
      'String 4: no note'
    ]);
  });

  it('names no target that lies elsewhere', () => {
    const [, , third] = tellStrings({ count: 3, told, target: { string: 3, fret: 6 } });
    expect(third).toBe('String 3: fret 4, C♭, ♭3; fret 6, D♭, 11, target');
  });
});
