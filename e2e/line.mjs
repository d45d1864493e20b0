// A slow line: an HTTP proxy that answers after a delay, and no faster than a rate that all
// that goes over it shares. Chromium's own network emulation isn't used: in version 156 it
// now and then stops reading from its sockets for good, and holds up every page of the browser.
import http from 'node:http';

/** Opens a line of so many ms one way and back, and so many bits a second. */
export async function slowLine(ms, bits) {
  let free = 0; // when the line is free for what comes next
  const over = (bytes) => {
    // how long from now until so many bytes have come over
    const now = performance.now();
    free = Math.max(free, now) + (bytes * 8000) / bits;
    return free - now;
  };
  const later = (wait) =>
    new Promise((resolve) => {
      setTimeout(resolve, wait);
    });
  const proxy = http.createServer(async (request, response) => {
    const { port, pathname, search } = new URL(request.url);
    await later(ms);
    const asked = http.request(
      { host: '127.0.0.1', port, path: pathname + search, method: request.method, headers: request.headers },
      async (answer) => {
        response.writeHead(answer.statusCode, answer.headers);
        try {
          for await (const part of answer) {
            await later(over(part.length));
            response.write(part);
          }
          response.end();
        } catch {
          // the browser no longer wanted it
          response.destroy();
        }
      },
    );
    asked.on('error', () => response.destroy());
    response.on('close', () => asked.destroy());
    request.pipe(asked);
  });
  await new Promise((resolve) => {
    proxy.listen(0, '127.0.0.1', resolve);
  });
  return {
    server: `http://127.0.0.1:${proxy.address().port}`,
    close() {
      proxy.closeAllConnections();
      return new Promise((resolve) => {
        proxy.close(resolve);
      });
    },
  };
}
