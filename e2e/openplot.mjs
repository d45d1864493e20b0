// Runs Open Plot for the browser tests: the built program, a data folder of its
// own, free ports.
import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import http from 'node:http';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';

const root = new URL('..', import.meta.url).pathname;

const freePort = () =>
  new Promise((resolve) => {
    const s = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = s.address();
      s.close(() => resolve(port));
    });
  });

/** Runs the program over a data folder and resolves when it serves. */
async function run(data) {
  const [port, pagesPort] = [await freePort(), await freePort()];
  const child = spawn(path.join(root, '.build/openplot'), ['serve'], {
    env: {
      ...process.env,
      OPENPLOT_DATA: data,
      OPENPLOT_PORT: port,
      OPENPLOT_PAGES_PORT: pagesPort,
      OPENPLOT_DATABASE_URL: '',
      OPENPLOT_THROWAWAY: '1',
      OPENPLOT_DEMO: process.env.OPENPLOT_DEMO ?? 'quick',
      OPENPLOT_AVIF: process.env.OPENPLOT_AVIF ?? 'no',
      OPENPLOT_LOG: path.join(data, 'openplot.log'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve, reject) => {
    let out = '';
    child.stdout.on('data', (b) => {
      out += b;
      if (out.includes('Ctrl+C')) resolve();
    });
    child.on('exit', (code) => reject(new Error(`openplot ended with ${code}: ${out}`)));
  });
  return {
    app: `http://localhost:${port}`,
    site: `http://skerry-line.localhost:${pagesPort}`, // what the demo published
    draft: `http://skerry-line--try.localhost:${pagesPort}`, // its previews
    media: `http://media.localhost:${pagesPort}`,
    data,
    async end() {
      child.removeAllListeners('exit');
      const ended = new Promise((r) => child.once('exit', r));
      child.kill('SIGINT');
      await ended;
    },
  };
}

/**
 * A data folder in which the program has drawn the demo; made once for each build
 * of it, by the first of the test files that asks: the others wait for it.
 */
async function prepared() {
  const { mtimeMs, size } = fs.statSync(path.join(root, '.build/openplot'));
  const at = `/tmp/openplot-demo-${Math.round(mtimeMs)}-${size}${process.env.OPENPLOT_DEMO ?? ''}`;
  while (!fs.existsSync(`${at}/ready`)) {
    try {
      fs.mkdirSync(`${at}.making`);
    } catch {
      await new Promise((r) => {
        setTimeout(r, 200);
      });
      continue;
    }
    try {
      fs.rmSync(at, { recursive: true, force: true });
      fs.mkdirSync(at, { mode: 0o755 });
      const first = await run(at);
      await first.end();
      fs.writeFileSync(`${at}/ready`, '');
    } finally {
      fs.rmdirSync(`${at}.making`);
    }
  }
  return at;
}

/** Runs the program with the demo in a data folder of its own. */
export async function start() {
  const data = fs.mkdtempSync('/tmp/openplot-e2e-');
  execFileSync('cp', ['-a', `${await prepared()}/.`, data]);
  fs.chmodSync(data, 0o755); // the user postgres has to get in
  const plot = await run(data);
  return {
    ...plot,
    async stop() {
      await plot.end();
      fs.rmSync(data, { recursive: true, force: true });
    },
  };
}

/** The text at an address of a host that only browsers find, such as skerry-line.localhost. */
export const visit = (address) =>
  new Promise((resolve, reject) => {
    const { host, port, pathname, search } = new URL(address);
    http
      .get({ host: '127.0.0.1', port, path: pathname + search, headers: { host } }, (r) => {
        let text = '';
        r.setEncoding('utf8')
          .on('data', (b) => {
            text += b;
          })
          .on('end', () => resolve(text));
      })
      .on('error', reject);
  });

export const designer = { email: 'designer@skerry.example', password: 'three-islands' };
export const writer = { email: 'writer@skerry.example', password: 'three-islands' };
export const tmp = () => fs.mkdtempSync(path.join(os.tmpdir(), 'openplot-'));
