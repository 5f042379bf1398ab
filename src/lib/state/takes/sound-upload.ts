/**
 * Sends the sound of a take to the server while it is played, piece by piece, in their order. What cannot be sent waits in the page and is
 * tried again, so that a server that was away has everything once it is back.
 */
import { sure } from '$lib/core/base/list';
import { soundPath } from './client';

/** Milliseconds from one piece to the next: no more than this can be lost with the page. */
const EVERY = 2000;
const RETRY = 3000;
/** Bytes of a piece at most. */
const MOST = 4 * 1024 * 1024;

/** Samples as whole numbers of 16 bits, little end first. */
export function asBytes(samples: Float32Array): Uint8Array<ArrayBuffer> {
  const view = new DataView(new ArrayBuffer(2 * samples.length));
  samples.forEach((sample, i) =>
    view.setInt16(2 * i, Math.round(Math.max(-1, Math.min(1, sample)) * 0x7fff), true)
  );
  return new Uint8Array(view.buffer);
}

export class SoundUpload {
  readonly #path: string;
  #waiting: Uint8Array<ArrayBuffer>[] = [];
  #sent = 0;
  /** The piece that was acknowledged last. */
  #last: Uint8Array<ArrayBuffer> = new Uint8Array();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #running: Promise<boolean> | null = null;
  /** Why nothing goes through; empty while it does. */
  problem = '';

  #isReady = false;

  /** `begin`: what has to be on the server before the first piece, the take itself; tried again until it is. */
  constructor(
    chart: string,
    take: string,
    readonly rate: number,
    readonly begin: () => Promise<unknown> = () => Promise.resolve()
  ) {
    this.#path = soundPath(chart, take);
  }

  add(samples: Float32Array): void {
    this.#waiting.push(asBytes(samples));
    this.#timer ??= setTimeout(() => void this.send(), EVERY);
  }

  /** Sends what waits; tells whether all of it has arrived. */
  send(): Promise<boolean> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    return (this.#running ??= this.#sendAll().finally(() => (this.#running = null)));
  }

  async #sendAll(): Promise<boolean> {
    try {
      if (!this.#isReady) await this.begin();
      this.#isReady = true;
    } catch (error) {
      return this.#waitOn((error as Error).message);
    }
    while (this.#waiting.length) {
      const piece = this.#nextPiece();
      const response = await fetch(`${this.#path}?from=${this.#sent}&rate=${this.rate}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/octet-stream' },
        body: piece
      }).catch(() => null);
      if (!response?.ok) {
        const told = (await response?.json().catch(() => null)) as {
          error?: { message: string };
          bytes?: number;
        } | null;
        this.#waiting.unshift(piece);
        // The server says how far the sound goes there; it goes on from that.
        if (response?.status === 409 && told?.bytes !== undefined && this.#goOnFrom(told.bytes)) continue;
        return this.#waitOn(told?.error?.message ?? 'The server does not answer; the sound waits here.');
      }
      this.problem = '';
      this.#sent += piece.length;
      this.#last = piece;
    }
    return true;
  }

  /** Goes back to where the server's sound ends; false where what is missing there is not here any more. */
  #goOnFrom(bytes: number): boolean {
    const missing = this.#sent - bytes;
    if (missing <= 0 || missing > this.#last.length) return false;
    this.#waiting.unshift(this.#last.slice(this.#last.length - missing));
    this.#sent = bytes;
    this.#last = new Uint8Array();
    return true;
  }

  #waitOn(problem: string): false {
    this.problem = problem;
    this.#timer ??= setTimeout(() => void this.send(), RETRY);
    return false;
  }

  #nextPiece(): Uint8Array<ArrayBuffer> {
    let size = 0;
    const pieces: Uint8Array[] = [];
    while (this.#waiting[0] && (size === 0 || size + this.#waiting[0].length <= MOST)) {
      const piece = sure(this.#waiting.shift(), 'waiting');
      pieces.push(piece);
      size += piece.length;
    }
    const whole = new Uint8Array(size);
    let at = 0;
    for (const piece of pieces) {
      whole.set(piece, at);
      at += piece.length;
    }
    return whole;
  }
}
