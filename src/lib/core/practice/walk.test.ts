import { describe, expect, it } from 'vitest';
import { excerptOf } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { pitchClass } from '../theory/note';
import { bandEvents } from './band';
import { feelNamed } from './feel';
import { WALKED_TUNES, walkFigures, type WalkedTune } from './walk-testing';
import { HIGHEST_WALK, kindsOver, LOWEST_WALK } from './walk';

describe('a bass that walks', () => {
  it.each(Object.keys(WALKED_TUNES) as WalkedTune[])('goes somewhere over 200 bars of a %s tune', (tune) => {
    for (const seed of [1, 2, 3]) {
      const { seventhFirst, rootAgain, steps, led, offBeats, equal } = walkFigures(tune, seed);
      expect(seventhFirst).toBeLessThanOrEqual(0.1);
      expect(rootAgain).toBeLessThanOrEqual(0.15);
      expect(steps).toBeGreaterThanOrEqual(0.25);
      expect(led).toBeGreaterThanOrEqual(0.9);
      expect(offBeats).toBeGreaterThanOrEqual(0.15);
      expect(offBeats).toBeLessThanOrEqual(0.35);
      expect(equal).toBeLessThanOrEqual(0.03);
    }
  });

  it('stands on the root where a chord begins, plays tones and steps, and what lies between them only in passing', () => {
    for (const tune of Object.keys(WALKED_TUNES) as WalkedTune[]) {
      const sheet = readSheet(WALKED_TUNES[tune]);
      const excerpt = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
      for (let round = 0; round < 8; round++) {
        const events = bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed: 5,
          round,
          isLast: false
        }).filter(({ part }) => part === 'bass');
        events.forEach(({ midi, start }, i) => {
          expect(midi).toBeGreaterThanOrEqual(LOWEST_WALK);
          expect(midi).toBeLessThanOrEqual(HIGHEST_WALK);
          const change = excerpt.changes.findLast((one) => one.start <= start + 1e-6)!;
          const kinds = kindsOver({ ...change.source, chord: change.source.chord! });
          if (Math.abs(change.start - start) < 1e-6)
            expect(midi % 12).toBe(pitchClass(change.source.chord!.root));
          const next = events[i + 1]?.midi ?? events[0]!.midi;
          if (kinds[midi % 12] === 'between') expect(Math.abs(next - midi)).toBeLessThanOrEqual(2);
          expect(Math.abs(next - midi)).toBeLessThanOrEqual(12);
        });
      }
    }
  });

  it('is the same for the same seed and another for the next round', () => {
    const line = (round: number) => {
      const sheet = readSheet(WALKED_TUNES.blues);
      const excerpt = excerptOf(sheet.form, sheet.analysis, { kind: 'form' })!;
      return JSON.stringify(
        bandEvents({
          excerpt,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed: 3,
          round,
          isLast: false
        }).filter(({ part }) => part === 'bass')
      );
    };
    expect(line(0)).toBe(line(0));
    expect(line(0)).not.toBe(line(1));
  });
});
