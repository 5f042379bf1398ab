/** The demo songbook is made once for all files of jobs; each server begins with a copy of it. */
import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { Server } from './server';

declare module 'vitest' {
  export interface ProvidedContext {
    /** The folder of the songbook that each copies. */
    seed: string;
  }
}

export default async function makeSeed({ provide }: TestProject): Promise<void> {
  const database = join(mkdtempSync(join(tmpdir(), 'corvel-seed-')), 'songbook.db');
  const server = new Server(database);
  await server.start();
  await server.stop();
  provide('seed', dirname(database));
}

/** The database of a songbook of one's own that has the demo's charts, plans, lines, takes and log. */
export function copyOf(seed: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-'));
  cpSync(seed, folder, { recursive: true });
  return join(folder, 'songbook.db');
}
