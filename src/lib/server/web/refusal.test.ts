import { afterEach, describe, expect, it } from 'vitest';
import { refusal } from './refusal';

const ask = (method: string, headers: Record<string, string>, isApi = true) => {
  const all = new Map(Object.entries({ host: 'localhost:4173', ...headers }));
  // The constructor of requests forbids what a server is sent.
  const request = {
    method,
    headers: { get: (name: string) => all.get(name) ?? null, has: (name: string) => all.has(name) }
  };
  return refusal(request as unknown as Request, isApi)?.status ?? null;
};

afterEach(() => {
  delete process.env.CORVEL_NAMES;
});

describe('who is let in', () => {
  it.each(['localhost', '127.0.0.1:4173', '[::1]:80', '127.9.9.9'])('this machine, called %s', (host) => {
    expect(ask('GET', { host })).toBeNull();
  });
  it.each(['corvel.example', 'localhost.example', '127.0.0.1.example', '::1', ''])('no other: %j', (host) => {
    expect(ask('GET', { host })).toBe(403);
  });
  it('the names that were given where it is open to others, and those alone', () => {
    process.env.CORVEL_NAMES = 'corvel.example, Band.example:8443';
    expect(ask('GET', { host: 'corvel.example' })).toBeNull();
    expect(ask('GET', { host: 'corvel.example:443' })).toBeNull();
    expect(ask('GET', { host: 'band.example:8443' })).toBeNull();
    expect(ask('GET', { host: 'band.example' })).toBe(403);
    expect(ask('GET', { host: 'localhost' })).toBe(403);
  });
  it('no page elsewhere, be it to change something or to set the server to work', () => {
    const type = { 'content-type': 'application/json', 'content-length': '2' };
    expect(ask('PUT', { ...type, origin: 'http://elsewhere.example' })).toBe(403);
    expect(ask('PUT', { ...type, origin: 'null' })).toBe(403);
    expect(ask('PUT', { ...type, 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(ask('PUT', { ...type, origin: 'http://localhost:4173' })).toBeNull();
    expect(ask('GET', { 'sec-fetch-site': 'cross-site' })).toBe(403);
    // A link from elsewhere to a page is a link.
    expect(ask('GET', { 'sec-fetch-site': 'cross-site' }, false)).toBeNull();
  });
  it('no body that does not say what it is', () => {
    expect(ask('PUT', { 'content-length': '12' })).toBe(415);
    expect(ask('PUT', { 'transfer-encoding': 'chunked' })).toBe(415);
    expect(ask('POST', { 'content-length': '0' })).toBeNull();
    expect(ask('POST', {})).toBeNull();
  });
});
