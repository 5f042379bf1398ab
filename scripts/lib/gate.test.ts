import { createServer, request, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { inAddress, isLoopback, makeGate, startRefusal } from './gate.mjs';

const KEY = 'a key as long as this';
let server: Server | undefined;
let clock = 0;
afterEach(() => server?.close());

async function open(): Promise<number> {
  const gate = makeGate({ key: KEY, names: 'corvel.example', now: () => clock });
  server = createServer((asked, answer) => {
    void gate(asked, answer).then((isIn: boolean) => {
      if (isIn) answer.end('the songbook');
    });
  });
  await new Promise<void>((ready) => server!.listen(0, '127.0.0.1', ready));
  return (server.address() as AddressInfo).port;
}

interface Asked {
  readonly method?: string;
  readonly path?: string;
  readonly headers?: Record<string, string>;
  readonly body?: string;
}
const ask = (port: number, { method = 'GET', path = '/', headers = {}, body = '' }: Asked = {}) =>
  new Promise<{ status: number; text: string; headers: IncomingMessage['headers'] }>((resolve, reject) => {
    const sent = request(
      { port, host: '127.0.0.1', method, path, headers: { host: 'corvel.example', ...headers } },
      (answer) => {
        let text = '';
        answer.on('data', (piece) => (text += piece));
        answer.on('end', () => resolve({ status: answer.statusCode!, text, headers: answer.headers }));
      }
    );
    sent.on('error', reject);
    sent.end(body);
  });
const guess = (port: number, key: string) =>
  ask(port, { method: 'POST', path: '/let-in', body: `key=${encodeURIComponent(key)}` });

describe('the door beyond this machine', () => {
  it('is not opened without key and names', () => {
    const host = '0.0.0.0';
    expect(startRefusal({ host, names: undefined, key: undefined })).toContain('CORVEL_KEY');
    expect(startRefusal({ host, names: 'corvel.example', key: 'short' })).toContain('16 characters');
    expect(startRefusal({ host, names: ' ', key: KEY })).toContain('CORVEL_NAMES');
    expect(startRefusal({ host, names: 'corvel.example', key: KEY })).toBeNull();
    for (const own of ['127.0.0.1', 'localhost', '::1', '127.1.2.3'])
      expect(startRefusal({ host: own, names: undefined, key: undefined })).toBeNull();
    expect(isLoopback('127.0.0.1.example')).toBe(false);
    expect([inAddress('::1'), inAddress('[::1]'), inAddress('10.0.0.1')]).toEqual([
      '[::1]',
      '[::1]',
      '10.0.0.1'
    ]);
  });

  it('answers nothing but the question for the key, then everything to who has it', async () => {
    const port = await open();
    const page = await ask(port, { headers: { accept: 'text/html' } });
    expect([page.status, page.text.includes('The key of this songbook')]).toEqual([401, true]);
    expect((await ask(port, { path: '/api/v1/songbook' })).status).toBe(401);
    expect((await ask(port, { path: '/_app/version.json' })).status).toBe(401);
    const let_in = await guess(port, KEY);
    expect(let_in.status).toBe(303);
    const [cookie] = let_in.headers['set-cookie']!;
    expect(cookie).toMatch(/^__Host-.*; Secure; HttpOnly; SameSite=Strict$/);
    expect(cookie).not.toContain(KEY);
    const inside = await ask(port, { headers: { cookie: cookie!.split(';')[0]! } });
    expect(inside.text).toBe('the songbook');
    expect((await ask(port, { headers: { cookie: '__Host-corvel-key=x' } })).status).toBe(401);
  });

  it('takes five guesses a minute, and not the right one after them', async () => {
    const port = await open();
    clock = 1_000_000;
    for (let i = 0; i < 5; i++) expect((await guess(port, `guess ${i}`)).status).toBe(401);
    expect((await guess(port, KEY)).status).toBe(429);
    clock += 61_000;
    expect((await guess(port, KEY)).status).toBe(303);
  });

  it('goes by its names alone', async () => {
    const port = await open();
    expect((await ask(port, { headers: { host: 'localhost' } })).status).toBe(403);
    expect((await ask(port, { headers: { origin: 'https://elsewhere.example' } })).status).toBe(403);
    expect((await ask(port, { headers: { origin: 'https://corvel.example' } })).status).toBe(401);
  });
});
