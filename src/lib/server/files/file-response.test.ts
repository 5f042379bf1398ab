import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { fileResponse, rangeOf } from './file-response';

const path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'ten.wav');
writeFileSync(path, '0123456789');
const get = (range: string | null) => fileResponse(path, 10, 'audio/wav', range);

describe('a file that is sent', () => {
  it.each([
    [null, 200, '0123456789', null],
    ['bytes=2-4', 206, '234', 'bytes 2-4/10'],
    ['bytes=7-', 206, '789', 'bytes 7-9/10'],
    ['bytes=-3', 206, '789', 'bytes 7-9/10'],
    ['bytes=8-99', 206, '89', 'bytes 8-9/10'],
    // Several parts, another unit: all of it is a right answer.
    ['bytes=0-1,3-4', 200, '0123456789', null],
    ['lines=1-2', 200, '0123456789', null]
  ])('%j', async (range, status, text, told) => {
    const response = await get(range);
    expect(response.status).toBe(status);
    expect(await response.text()).toBe(text);
    expect(response.headers.get('content-range')).toBe(told);
    expect(response.headers.get('content-length')).toBe(String(text.length));
  });

  it.each(['bytes=10-', 'bytes=5-2'])('has no part %j', async (range) => {
    const response = await get(range);
    expect(response.status).toBe(416);
    expect(response.headers.get('content-range')).toBe('bytes */10');
    expect(rangeOf(range, 10)).toBeNull();
  });

  it('that is gone is told as gone', async () => {
    await expect(fileResponse(`${path}.gone`, 10, 'audio/wav', null)).rejects.toMatchObject({ status: 404 });
  });
});
