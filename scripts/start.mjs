// Serves a build. PORT, HOST (default 127.0.0.1) and CORVEL_DB say where.
import { createServer } from 'node:http';
import { existsSync } from 'node:fs';
import { say, stop } from './lib/say.mjs';

const host = (process.env.HOST ||= '127.0.0.1');
const port = Number(process.env.PORT || 4173);

if (!existsSync(new URL('../build/handler.js', import.meta.url))) {
  stop('There is no build yet; run "npm run build" first, or "npm run demo" for everything at once.');
}
if (!Number.isInteger(port) || port < 0 || port > 65535) stop(`"${process.env.PORT}" is not a port.`);

process.env.ORIGIN ||= `http://${host}:${port}`;
// Every route bounds what it reads by itself, and says so in its own words.
process.env.BODY_SIZE_LIMIT ||= 'Infinity';

/** Opening the songbook is part of starting: a file that is refused ends the start with its reason. */
async function loadHandler() {
  try {
    return (await import('../build/handler.js')).handler;
  } catch (error) {
    return stop(error.message);
  }
}

const handler = await loadHandler();
const server = createServer(handler);
server.on('error', (error) => {
  if (error.code === 'EADDRINUSE') {
    stop(`Port ${port} is taken. Stop the program that uses it, or choose another: PORT=4200 npm start`);
  }
  stop(`Corvel cannot listen on ${host}:${port} (${error.code ?? error.message}).`);
});
server.listen(port, host, () => {
  const { port: actual } = server.address();
  say(`Corvel is ready on http://${host}:${actual}  (Ctrl+C stops it)`);
});

/** Milliseconds that requests under way are given to end. */
const PATIENCE = 3000;

let isStopping = false;
function end() {
  if (isStopping) return;
  isStopping = true;
  // Answers under way are sent to their end; then the songbook is closed in order.
  const leave = () => {
    process.emit('corvel:close');
    process.exit(0);
  };
  server.close(leave);
  server.closeIdleConnections();
  setTimeout(() => {
    server.closeAllConnections();
    setTimeout(leave, 100);
  }, PATIENCE).unref();
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, end);
