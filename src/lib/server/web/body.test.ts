import { describe, expect, it } from 'vitest';
import { readJson } from './body';

const read = (text: string) => readJson(new TextEncoder().encode(text));

describe('the body of a request', () => {
  it('is read as JSON', () => {
    expect(read('{"chart": "| Db♭7 |", "n": [1, {"a": "]]]["}]}')).toEqual({
      chart: '| Db♭7 |',
      n: [1, { a: ']]][' }]
    });
  });

  it.each(['{', '', 'nothing', '{"a": }'])('is refused where it is none: %j', (text) => {
    expect(() => read(text)).toThrow(
      expect.objectContaining({ status: 400, error: expect.objectContaining({ code: 'not-json' }) })
    );
  });

  it.each(['[', '{"a":'])('is refused where it nests as deep as nothing does: %j', (part) => {
    for (const depth of [65, 200_000])
      expect(() => read(part.repeat(depth))).toThrow(expect.objectContaining({ status: 400 }));
    // Whole JSON otherwise: only its depth speaks against it.
    for (const depth of [65, 5000])
      expect(() => read('['.repeat(depth) + ']'.repeat(depth))).toThrow(
        expect.objectContaining({ status: 400 })
      );
    const text = `${'['.repeat(64)}${']'.repeat(64)}`;
    expect(JSON.stringify(read(text))).toBe(text);
    // Brackets inside a text nest nothing.
    expect(read(JSON.stringify(`${part}\\"`.repeat(100)))).toBe(`${part}\\"`.repeat(100));
  });

  it('holds no half of a surrogate pair, so that it is the same when it was kept', () => {
    expect(
      read('{"title": "Ebb \\ud83c \\udfb8", "\\uD800": ["\\udfff"], "whole": "\\ud83c\\udfb8"}')
    ).toEqual({
      title: 'Ebb \ufffd \ufffd',
      '\ufffd': ['\ufffd'],
      whole: '🎸'
    });
  });
});
