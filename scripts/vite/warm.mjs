/** After a build: the server is used once, so that V8's code of what it runs can be kept beside it. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const CHART = '{key: Gm}\n| Cm7 | F7 | Bbmaj7 | Ebmaj7 |\n| Am7b5 | D7b9 | Gm6 | % |';

/** Milliseconds that an answer may take before the build fails: a busy machine is slow, not broken. */
const PATIENCE = 120_000;

/** Keeps what was compiled for the pages and for what they ask for. */
export async function warm() {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-build-'));
  // Settings of whoever builds do not reach this server.
  const env = Object.fromEntries(
    Object.entries(process.env).filter(([name]) => !/^(CORVEL_.*|HOST|NODE_OPTIONS)$/.test(name))
  );
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    env: {
      ...env,
      PORT: '0',
      CORVEL_DB: join(folder, 'songbook.db'),
      CORVEL_KEEP_CODE: '1'
    },
    stdio: ['ignore', 'pipe', 'inherit']
  });
  const ended = once(server, 'exit');
  try {
    const url = await Promise.race([
      once(server.stdout, 'data').then(([said]) => /http:\S+/.exec(String(said))[0]),
      ended.then(() => Promise.reject(new Error('The server that was built does not start.')))
    ]);
    const ask = async (path, body) => {
      const sent = body && {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body)
      };
      const response = await fetch(`${url}/${path}`, { ...sent, signal: AbortSignal.timeout(PATIENCE) });
      const said = await response.text();
      if (!response.ok) throw new Error(`The server that was built fails at /${path}: ${said}`);
      return said;
    };
    const { id } = JSON.parse(await ask('api/v1/songbook', { source: CHART }));
    for (const page of ['', `charts/${id}`, 'licks', 'today', 'trainer', 'settings']) await ask(page);
    const level = 'arpeggio and scale';
    for (const path of ['analysis', 'lines', 'targets']) await ask(`api/v1/${path}`, { chart: CHART, level });
  } finally {
    server.kill();
    await ended;
    rmSync(folder, { recursive: true, force: true });
  }
}
