// Measures the turns of a server's own thread from within: processor time between two looks of its event loop; /turns tells the longest
// since it was asked last.
import { readFileSync } from 'node:fs';
import http from 'node:http';
import { syncBuiltinESMExports } from 'node:module';
import { isMainThread } from 'node:worker_threads';

if (isMainThread) {
  const own = () =>
    Number(readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'latin1').split(' ')[0]) / 1e6;
  let [longest, last] = [0, own()];
  const look = () => {
    const now = own();
    longest = Math.max(longest, now - last);
    last = now;
    setImmediate(look).unref();
  };
  // Looking on takes its own part; only while something is measured.
  let isLooking = false;
  const { createServer } = http;
  http.createServer = (answer) =>
    createServer((request, response) => {
      if (request.url !== '/turns') return answer(request, response);
      response.end(String(longest));
      [longest, last] = [0, own()];
      if (!isLooking) look();
      isLooking = true;
    });
  syncBuiltinESMExports();
}
