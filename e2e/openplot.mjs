// Runs Open Plot for the browser tests: the built program, a data folder of its
// own, free ports.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';

const root = new URL('..', import.meta.url).pathname;

const freePort = () => new Promise((resolve) => {
  const s = net.createServer().listen(0, '127.0.0.1', () => { const { port } = s.address(); s.close(() => resolve(port)); });
});

export async function start() {
  const data = fs.mkdtempSync('/tmp/openplot-e2e-');
  fs.chmodSync(data, 0o755); // the user postgres has to get in
  const [port, pagesPort] = [await freePort(), await freePort()];
  const child = spawn(path.join(root, '.build/openplot'), ['serve'], {
    env: { ...process.env, OPENPLOT_DATA: data, OPENPLOT_PORT: port, OPENPLOT_PAGES_PORT: pagesPort, OPENPLOT_DATABASE_URL: '', OPENPLOT_THROWAWAY: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve, reject) => {
    let out = '';
    child.stdout.on('data', (b) => { out += b; if (out.includes('Ctrl+C')) resolve(); });
    child.on('exit', (code) => reject(new Error(`openplot ended with ${code}: ${out}`)));
  });
  return {
    app: `http://localhost:${port}`,
    pages: `http://127.0.0.1:${pagesPort}`,
    data,
    async stop() {
      child.removeAllListeners('exit');
      const ended = new Promise((r) => child.once('exit', r));
      child.kill('SIGINT');
      await ended;
      fs.rmSync(data, { recursive: true, force: true });
    },
  };
}

export const designer = { email: 'designer@skerry.example', password: 'three-islands' };
export const writer = { email: 'writer@skerry.example', password: 'three-islands' };
export const tmp = () => fs.mkdtempSync(path.join(os.tmpdir(), 'openplot-'));
