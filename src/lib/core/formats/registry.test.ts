import { describe, expect, it } from 'vitest';
import { acceptOf, FORMAT_FACTS } from './facts';
import { formatLike, FORMATS } from './registry';

describe('formats', () => {
  it('are each read or written, and known by their facts', () => {
    for (const { id, write, read, name, endings } of FORMATS) {
      expect(write ?? read, id).toBeDefined();
      expect(FORMAT_FACTS.find((facts) => facts.id === id)).toMatchObject({ name, endings });
    }
  });

  it('are told by the name of a file whose text says nothing, where its ending is theirs alone', () => {
    for (const { id, endings, isByName } of FORMATS)
      for (const ending of endings)
        expect(formatLike('?', `quay.${ending.toUpperCase()}`).id, ending).toBe(isByName ? id : 'text');
    expect(formatLike('MThd', 'quay.xml').id).toBe('midi');
  });

  it('tell a file chooser each of their endings once', () => {
    expect(acceptOf(['midi', 'tab', 'text'])).toBe('.mid,.midi,.txt,.tab');
  });
});
