/** What a request brings, read within bounds: JSON of bounded depth, in well-formed text, through a schema. */
import { firstOf } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';

/** Lists and objects inside one another at most. What Corvel takes is a handful deep. */
const DEEPEST = 64;

const [QUOTE, BACKSLASH] = [34, 92];
const OPENING = new Set([91, 123]);
const CLOSING = new Set([93, 125]);

/** Whether JSON nests deeper than is ever meant: reading or telling of it would go down as deep. */
function isTooDeep(bytes: Uint8Array): boolean {
  let depth = 0;
  let isText = false;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!;
    if (isText) {
      if (byte === BACKSLASH) i++;
      else if (byte === QUOTE) isText = false;
    } else if (byte === QUOTE) isText = true;
    else if (OPENING.has(byte)) {
      if (++depth > DEEPEST) return true;
    } else if (CLOSING.has(byte)) depth--;
  }
  return false;
}

/** Halves of surrogate pairs alone, which no encoding can write, become the sign for what could not be read. */
function wellFormed(value: unknown): unknown {
  if (typeof value === 'string') return value.toWellFormed();
  if (Array.isArray(value)) return value.map(wellFormed);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, own]) => [name.toWellFormed(), wellFormed(own)])
  );
}

/** The JSON in a body. Throws a PlayerError where there is none that can be read. */
export function readJson(bytes: Uint8Array): unknown {
  const notJson = (message: string) => fail(400, { code: 'not-json', message });
  if (isTooDeep(bytes))
    return notJson('The request nests lists and objects deeper than anything Corvel takes.');
  const text = new TextDecoder().decode(bytes);
  try {
    const value: unknown = JSON.parse(text);
    // Bytes that are no text were replaced by the decoder; only an escape can still bring half a pair.
    return /\\u[dD][89a-fA-F]/.test(text) ? wellFormed(value) : value;
  } catch {
    return notJson('The request is not JSON that Corvel can read.');
  }
}

/** Parses a value, or answers with the first thing that is wrong with it. */
export function parse<T extends z.ZodType>(schema: T, value: unknown): z.infer<T> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = firstOf(result.error.issues);
  const path = issue.path.join('.');
  return fail(400, {
    code: 'bad-request',
    message: issue.message.startsWith('“') ? issue.message : `${path || 'The request'}: ${issue.message}.`,
    ...(path ? { path } : {})
  });
}
