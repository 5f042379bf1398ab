/** Errors as they cross the boundary: a sentence a player understands, and where it applies. */
export interface ApiError {
  readonly code: string;
  readonly message: string;
  /** The field of the request, "fixed.0.fret". */
  readonly path?: string;
  readonly line?: number;
  readonly column?: number;
}

/** Thrown in a route to answer with a 4xx. */
export class PlayerError extends Error {
  constructor(
    readonly status: 400 | 403 | 404 | 409 | 413 | 415,
    readonly error: ApiError,
    /** Further fields of the answer. */
    readonly extra: Record<string, unknown> = {}
  ) {
    super(error.message);
  }
}
