// Prints Chromium's width of "AVATAR Wave To You" at 40 px in each shipped family:
// the figures in fonts/shape_test.go.
import fs from 'node:fs';
import http from 'node:http';
import { launch } from './chromium.mjs';

const dir = new URL('../fonts/files/', import.meta.url).pathname;
const faces = {
  'Hanken Grotesk': ['hanken-grotesk-latin-wght-normal', [400, 700]],
  'Bricolage Grotesque': ['bricolage-grotesque-latin-wght-normal', [400, 650]],
  'Source Serif 4': ['source-serif-4-latin-wght-normal', [400, 700]],
  Fraunces: ['fraunces-latin-wght-normal', [400, 600]],
  'IBM Plex Mono': ['ibm-plex-mono-latin-400-normal', [400]],
  Figtree: ['figtree-latin-wght-normal', [400, 700]],
  Lora: ['lora-latin-wght-normal', [400, 600]],
  Oswald: ['oswald-latin-wght-normal', [500]],
  Caveat: ['caveat-latin-wght-normal', [400]],
  'DM Serif Display': ['dm-serif-display-latin-400-normal', [400]],
  'Atkinson Hyperlegible': ['atkinson-hyperlegible-latin-400-normal', [400]],
};
const css = Object.entries(faces)
  .map(([f, [file]]) => `@font-face{font-family:"${f}";font-weight:100 900;src:url(/${file}.woff2)}`)
  .join('');
const server = http.createServer((q, s) =>
  q.url === '/'
    ? (s.setHeader('content-type', 'text/html'), s.end(`<!doctype html><style>${css}</style><body>`))
    : q.url.endsWith('.woff2')
      ? s.end(fs.readFileSync(dir + q.url.slice(1)))
      : s.end(),
);
await new Promise((r) => server.listen(0, '127.0.0.1', r));
const browser = await launch();
const page = await browser.newPage();
await page.goto(`http://127.0.0.1:${server.address().port}/`);
for (const [family, [, weights]] of Object.entries(faces)) {
  for (const weight of weights) {
    const width = await page.evaluate(
      async ([f, w]) => {
        await document.fonts.load(`${w} 40px "${f}"`);
        const e = document.createElement('span');
        e.style.cssText = `font:${w} 40px "${f}";white-space:pre;text-rendering:geometricPrecision;font-kerning:normal`;
        e.textContent = 'AVATAR Wave To You';
        document.body.append(e);
        return e.getBoundingClientRect().width;
      },
      [family, weight],
    );
    console.log(`\t\t{"${family}", ${weight}, ${width.toFixed(3)}},`);
  }
}
await browser.close();
server.close();
