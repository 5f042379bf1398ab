// Breaks the main thread of a program when it is asked for /bomb: an error that nobody foresaw. Asked for /word, it says one on the terminal.
import http from 'node:http';
import { syncBuiltinESMExports } from 'node:module';
import { isMainThread } from 'node:worker_threads';

if (isMainThread) {
  const { createServer } = http;
  http.createServer = (answer) =>
    createServer((request, response) => {
      if (request.url === '/word') {
        console.error('a word');
        return response.end();
      }
      if (request.url !== '/bomb') return answer(request, response);
      response.end();
      setTimeout(() => {
        throw new Error('out of the blue');
      });
    });
  syncBuiltinESMExports();
}
