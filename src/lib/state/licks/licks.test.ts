import { describe, expect, it } from 'vitest';
import type { LickData, StoredLick } from '$lib/api/lick';
import { lickFacts } from '$lib/core/line/lick-facts';
import { lineOf } from '$lib/core/line/testing';
import { STANDARD } from '$lib/core/neck/tuning';
import { isFound, NO_SEARCH, type LickSearch } from './licks.svelte';

const lick = (name: string, over: LickData['over'], notes: string, tags: string[] = []): StoredLick => {
  const data: LickData = {
    meter: { beats: 4, unit: 4 },
    over,
    notes: lineOf(notes),
    tags,
    source: 'Slack Water: First watch',
    rating: 0,
    played: 0
  };
  return { id: name, name, version: 1, data, facts: lickFacts(data, STANDARD) };
};
const BOOK = [
  lick(
    'Hawser',
    [
      { symbol: 'Am7b5', beats: 4 },
      { symbol: 'D7b9', beats: 4 },
      { symbol: 'Gm6', beats: 4 }
    ],
    'A3, C4, Eb4, G4, Eb4, C4, A3, G3, F#3, A3, C4, Eb4, D4, C4, A3, F#3, G3 1, Bb3 1, D4 2',
    ['swing', 'minor']
  ),
  lick('Capstan', [{ symbol: 'Eb7', beats: 4 }], 'G4, Bb4, Db5, Bb4, G4, Eb4, G4, Bb4', ['blues']),
  { id: 'x', name: 'Torn page', version: 1, data: null, facts: null }
];
const found = (part: Partial<LickSearch>) =>
  BOOK.filter((one) => isFound(one, { ...NO_SEARCH, ...part })).map(({ name }) => name);

describe('the lick book is looked through', () => {
  it('by words in name, tags, chords, motion and source', () => {
    expect(found({})).toEqual(['Hawser', 'Capstan', 'Torn page']);
    expect(found({ text: 'hawser' })).toEqual(['Hawser']);
    expect(found({ text: 'BLUES' })).toEqual(['Capstan']);
    expect(found({ text: 'D7b9 swing' })).toEqual(['Hawser']);
    expect(found({ text: 'slack' })).toEqual(['Hawser', 'Capstan']);
    expect(found({ text: 'page' })).toEqual(['Torn page']);
    // A motion with or without its strokes.
    expect(found({ text: 'V7–i6' })).toEqual(['Hawser']);
    expect(found({ text: 'v7i6' })).toEqual(['Hawser']);
  });

  it('by chord, resolution, position, length and tag', () => {
    expect(found({ family: 'dominant' })).toEqual(expect.arrayContaining(['Hawser', 'Capstan']));
    expect(found({ family: 'half-diminished' })).toContain('Hawser');
    expect(found({ family: 'half-diminished' })).not.toContain('Capstan');
    expect(found({ resolves: '1' })).toContain('Hawser');
    expect(found({ bars: 1 })).not.toContain('Hawser');
    expect(found({ tag: 'blues' })).toEqual(['Capstan']);
    const at = BOOK[1]!.facts!.position!;
    expect(found({ position: at })).toContain('Capstan');
    expect(found({ position: at + 5 })).not.toContain('Capstan');
  });
});
