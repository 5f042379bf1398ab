/** The real build, served on a free port with a songbook of its own; it can be killed and started again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';

const START = fileURLToPath(new URL('../scripts/start.mjs', import.meta.url));

export class Server {
  #process: ChildProcess | undefined;
  port = 0;

  constructor(
    readonly database: string,
    readonly isDemo = true
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Starts, on the same port as before after a stop. */
  async start(): Promise<void> {
    const { ORIGIN: _, ...env } = process.env;
    const child = spawn(process.execPath, [START], {
      env: {
        ...env,
        PORT: String(this.port),
        HOST: '127.0.0.1',
        CORVEL_DB: this.database,
        CORVEL_DEMO: this.isDemo ? '1' : ''
      },
      stdio: ['ignore', 'pipe', 'pipe']
    });
    this.#process = child;
    this.port = await new Promise<number>((resolve, reject) => {
      let said = '';
      const listen = (chunk: Buffer) => {
        said += chunk.toString();
        const ready = /ready on http:\/\/127\.0\.0\.1:(\d+)/.exec(said);
        if (ready) resolve(Number(ready[1]));
      };
      child.stdout!.on('data', listen);
      child.stderr!.on('data', listen);
      child.on('exit', (code) => reject(new Error(`The server stopped with ${code}: ${said}`)));
    });
  }

  /** SIGKILL leaves it no time to tidy up. */
  async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const child = this.#process;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = once(child, 'exit');
    child.kill(signal);
    await ended;
  }

  async call<T>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
    const response = await fetch(`${this.url}/api/v1/${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) })
    });
    return { status: response.status, body: (await response.json()) as T };
  }
}
