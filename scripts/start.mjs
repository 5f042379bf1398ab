// Serves a build. PORT, HOST (default 127.0.0.1) and CORVEL_DB say where; beyond this machine only with CORVEL_KEY and CORVEL_NAMES.
import { createServer } from 'node:http';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { inAddress, isLoopback, makeGate, startRefusal } from './lib/gate.mjs';
import { say, stop } from './lib/say.mjs';

const { CORVEL_KEY: key, CORVEL_NAMES: names } = process.env;
const host = (process.env.HOST ||= '127.0.0.1').replace(/^\[(.*)\]$/, '$1');
const port = Number(process.env.PORT || 4173);

if (!existsSync(new URL('../build/handler.js', import.meta.url))) {
  stop('There is no build yet; run "npm run build" first, or "npm run demo" for everything at once.');
}
if (!Number.isInteger(port) || port < 0 || port > 65535) stop(`"${process.env.PORT}" is not a port.`);
const refused = startRefusal({ host, names, key });
if (refused) stop(refused);
const isOpen = !isLoopback(host);
// On this machine the names of others mean nothing.
if (!isOpen) delete process.env.CORVEL_NAMES;

// Beyond this machine one's own TLS stands in front, and the address is what the browser says.
if (isOpen) process.env.HOST_HEADER ||= 'host';
else process.env.ORIGIN ||= `http://${inAddress(host)}:${port}`;
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

// What nobody reads any more is no reason to stop.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});

// What the server and its threads run.
process.env.CORVEL_PROGRAMS = fileURLToPath(new URL('../build/programs/run.cjs', import.meta.url));
const handler = await loadHandler();
const gate = isOpen ? makeGate({ key, names }) : () => true;

const server = createServer((request, response) => {
  // Also of files that lie in the build, which are sent before any page is asked.
  response.setHeader('X-Content-Type-Options', 'nosniff');
  void answer(request, response).catch((error) => {
    console.error(error);
    response.destroy();
  });
});

async function answer(request, response) {
  if (await gate(request, response)) await handler(request, response);
}

server.on('error', (error) => {
  if (error.code === 'EADDRINUSE') {
    stop(`Port ${port} is taken. Stop the program that uses it, or choose another: PORT=4200 npm start`);
  }
  stop(`Corvel cannot listen on ${host}:${port} (${error.code ?? error.message}).`);
});
server.listen(port, host, () => {
  const { port: actual } = server.address();
  say(`Corvel is ready on http://${inAddress(host)}:${actual}  (Ctrl+C stops it)`);
});

/** Milliseconds that requests under way are given to end, and the songbook to be closed. */
const [PATIENCE, CLOSING] = [3000, 4000];

let isStopping = false;
function end(code) {
  if (isStopping) return;
  isStopping = true;
  // Answers under way are sent to their end; then the songbook is closed in order.
  const leave = async () => {
    const closing = [];
    process.emit('corvel:close', closing);
    await Promise.race([Promise.allSettled(closing), new Promise((done) => setTimeout(done, CLOSING))]);
    process.exit(code);
  };
  server.close(leave);
  server.closeIdleConnections();
  setTimeout(() => {
    server.closeAllConnections();
    setTimeout(leave, 100);
  }, PATIENCE).unref();
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));

// The last net: what nobody foresaw is told, the songbook is closed in order, and whoever watches over the program may start it anew.
for (const kind of ['uncaughtException', 'unhandledRejection']) {
  process.on(kind, (error) => {
    console.error(
      'Corvel met something that nobody foresaw and stops; nothing that was saved is lost.',
      error
    );
    end(1);
  });
}
