/** Errors as they cross the boundary: a sentence a player understands, and where it applies. */
export interface ApiError {
  readonly code: string;
  readonly message: string;
  /** The field of the request, "fixed.0.fret". */
  readonly path?: string;
  readonly line?: number;
  readonly column?: number;
}

/** Thrown in a route to answer with an error that is told. */
export class PlayerError extends Error {
  constructor(
    readonly status: 400 | 403 | 404 | 405 | 409 | 413 | 415 | 500 | 503 | 507,
    readonly error: ApiError,
    /** Further fields of the answer. */
    readonly extra: Record<string, unknown> = {}
  ) {
    super(error.message);
  }
}

/** Ends a route's work with an error that is told. */
export function fail(status: PlayerError['status'], error: ApiError, extra?: Record<string, unknown>): never {
  throw new PlayerError(status, error, extra);
}

/** A value as it can stand in a sentence, whatever it is. */
export function shown(value: unknown): string {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? 'nothing');
  return text.length > 60 ? `${text.slice(0, 60)}…` : text;
}
