/** What the tests of the routes share. */

/** What a request is refused with. */
export function refusal(work: () => unknown): {
  readonly status: number;
  readonly error: { readonly code: string; readonly message: string; readonly path?: string };
} {
  try {
    work();
  } catch (thrown) {
    return thrown as ReturnType<typeof refusal>;
  }
  throw new Error('was taken');
}
