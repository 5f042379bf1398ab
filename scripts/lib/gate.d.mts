import type { IncomingMessage, ServerResponse } from 'node:http';

export const SHORTEST_KEY: number;
export function isLoopback(host: string): boolean;
export function inAddress(host: string): string;
export function startRefusal(asked: {
  host: string;
  names: string | undefined;
  key: string | undefined;
}): string | null;
export function makeGate(options: {
  key: string;
  names: string;
  now?: () => number;
}): (request: IncomingMessage, response: ServerResponse) => Promise<boolean>;
