/** Whether the client that asked is still there. */
import type { RequestEvent } from '@sveltejs/kit';

/**
 * Does work for a client, and tells it by a signal when the client leaves. The request's own signal does not tell once its body has been
 * read, so the connection is watched where it is known.
 */
export async function whileThere<T>(
  { platform, request }: RequestEvent,
  work: (signal: AbortSignal) => Promise<T>
): Promise<T> {
  const socket = platform?.req.socket;
  if (!socket) return work(request.signal);
  const gone = new AbortController();
  const leave = () => gone.abort();
  if (socket.destroyed) leave();
  socket.once('close', leave);
  try {
    return await work(gone.signal);
  } finally {
    socket.off('close', leave);
  }
}
