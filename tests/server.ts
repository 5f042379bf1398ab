/** The real build, served on a free port with a songbook of its own; it can be killed and started again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

export class Server {
  #process: ChildProcess | undefined;
  port = 0;

  constructor(
    readonly database: string,
    readonly isDemo = true,
    readonly env: Readonly<Record<string, string>> = {}
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Milliseconds of processor time that the program has used, all its threads together. */
  worked(): number {
    // After the name in brackets: the fields of user and system time, in hundredths of a second.
    const fields = readFileSync(`/proc/${this.pid}/stat`, 'latin1').split(') ')[1]!.split(' ');
    return 10 * (Number(fields[11]) + Number(fields[12]));
  }

  get pid(): number {
    return this.#process!.pid!;
  }

  get isRunning(): boolean {
    return this.#process?.exitCode === null && this.#process.signalCode === null;
  }

  /** Starts, on the same port as before after a stop. */
  async start(): Promise<void> {
    const { ORIGIN: _, ...env } = process.env;
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: ROOT,
      env: {
        ...env,
        PORT: String(this.port),
        HOST: '127.0.0.1',
        CORVEL_DB: this.database,
        CORVEL_DEMO: this.isDemo ? '1' : '',
        ...this.env
      },
      stdio: ['ignore', 'pipe', 'pipe']
    });
    this.#process = child;
    this.port = await new Promise<number>((resolve, reject) => {
      let said = '';
      const listen = (chunk: Buffer) => {
        said += chunk.toString();
        const ready = /ready on http:\/\/\S+:(\d+)/.exec(said);
        if (ready) resolve(Number(ready[1]));
      };
      child.stdout!.on('data', listen);
      child.stderr!.on('data', listen);
      child.on('exit', (code) => reject(new Error(`The server stopped with ${code}: ${said}`)));
    });
  }

  /** Nobody reads any more what it says, as when a terminal is closed. */
  leaveAlone(): void {
    this.#process!.stdout!.destroy();
    this.#process!.stderr!.destroy();
  }

  /** The code with which it ends. */
  async ended(): Promise<number | null> {
    const child = this.#process!;
    if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
    return child.exitCode;
  }

  /** SIGKILL leaves it no time to tidy up. Gives the code with which it ended. */
  async stop(signal: 'SIGTERM' | 'SIGHUP' | 'SIGKILL' = 'SIGTERM'): Promise<number | null> {
    const child = this.#process;
    if (!child || child.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const ended = once(child, 'exit');
    child.kill(signal);
    await ended;
    return child.exitCode;
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
