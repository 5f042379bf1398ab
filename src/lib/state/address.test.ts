import { describe, expect, it } from 'vitest';
import { placeIn, queryOf } from './address';

const VIEWS = ['moment', 'grips'];

describe('the address', () => {
  it('comes round', () => {
    const place = { view: 'grips', change: 6, position: 0 } as const;
    expect(queryOf(place)).toBe('?view=grips&change=7&position=0');
    expect(placeIn(new URLSearchParams(queryOf(place)), VIEWS)).toEqual(place);
  });
  it.each(['', '?view=nowhere&change=0&position=-1', '?change=1e9&position=x', '?view=constructor'])(
    '%s says nothing that could be used',
    (query) => expect(placeIn(new URLSearchParams(query), VIEWS)).toEqual({})
  );
});
