// Holds the boxes that core computed against Chromium's own layout.
//
//   node oracle.mjs DIR [--max-worst PX]
//
// DIR is what cmd/oracle wrote. Prints how many boxes were compared and how near
// they are; ends with 1 when fewer than 99.9 % are within 1 px or a demo page has
// a box that isn't.
import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { launch } from './chromium.mjs';

const dir = path.resolve(process.argv[2]);
const types = { '.html': 'text/html; charset=utf-8', '.css': 'text/css', '.woff2': 'font/woff2', '.svg': 'image/svg+xml' };
const picture = '<svg xmlns="http://www.w3.org/2000/svg" width="1440" height="1080"><rect width="1440" height="1080" fill="#789"/></svg>';
const server = http.createServer((q, s) => {
  const name = path.join(dir, path.normalize(decodeURIComponent(q.url.split('?')[0])));
  if (name.endsWith('picture.svg')) { s.writeHead(200, { 'content-type': types['.svg'] }); s.end(picture); return; }
  fs.readFile(name, (err, b) => { s.writeHead(err ? 404 : 200, { 'content-type': types[path.extname(name)] ?? 'text/plain' }); s.end(b); });
});
await new Promise((r) => server.listen(0, '127.0.0.1', r));
const base = `http://127.0.0.1:${server.address().port}/`;

const browser = await launch();
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const total = { boxes: 0, half: 0, one: 0, worst: 0, paragraphs: 0, lines: 0, demo: 0 };
let worst = null;
const faults = [];
const names = fs.readdirSync(dir).filter((f) => f.endsWith('.json')).map((f) => f.slice(0, -5)).sort();
for (const name of names) {
  const want = JSON.parse(fs.readFileSync(path.join(dir, `${name}.json`)));
  await page.goto(base + name + '.html');
  await page.evaluate(async () => {
    for (const f of document.fonts) await f.load();
    await document.fonts.ready;
  });
  for (const [width, boxes] of Object.entries(want)) {
    await page.setViewportSize({ width: Number(width), height: 800 });
    const got = await page.evaluate(() => {
      const inline = new Set(['A', 'STRONG', 'EM', 'BR', 'SPAN']);
      const all = [document.body, ...document.body.querySelectorAll('*')].filter((e) => {
        const d = getComputedStyle(e).display;
        if (e.closest('[hidden]') || d === 'none') return false;
        return !(inline.has(e.tagName) && d === 'inline') && e.tagName !== 'BR' && e.checkVisibility();
      });
      const range = document.createRange();
      return all.map((e) => {
        const r = e.getBoundingClientRect();
        let lines = 0;
        if ([...e.childNodes].some((c) => c.nodeType === 3)) { // lines, by the rectangles of the text in it
          range.selectNodeContents(e);
          let bottom = -1e9;
          const rs = [...range.getClientRects()].sort((a, b) => (a.top + a.bottom) - (b.top + b.bottom));
          for (const q of rs) {
            if (q.width > 0 && (q.top + q.bottom) / 2 > bottom) { lines++; bottom = q.bottom; }
          }
        }
        return [e.tagName.toLowerCase(), r.x + scrollX, r.y + scrollY, r.width, r.height, lines];
      });
    });
    if (got.length !== boxes.length) {
      faults.push(`${name} at ${width}: ${boxes.length} boxes computed, ${got.length} in the browser`);
      total.boxes += boxes.length;
      continue;
    }
    boxes.forEach((b, i) => {
      const [tag, x, y, w, h, lines] = got[i];
      if (!b.name.startsWith(tag + ' ')) faults.push(`${name} at ${width}: ${b.name} against ${tag}`);
      const off = Math.max(Math.abs(b.x - x), Math.abs(b.y - y), Math.abs(b.w - w), Math.abs(b.h - h));
      total.boxes++;
      if (off <= 0.5) total.half++;
      if (off <= 1) total.one++;
      else {
        if (name.startsWith('demo')) total.demo++;
        if (faults.length < 60) faults.push(`${name} at ${width}: ${b.name} is ${[b.x, b.y, b.w, b.h].map((v) => v.toFixed(2))} and ${[x, y, w, h].map((v) => v.toFixed(2))} in the browser; lines ${b.lines}, ${lines}`);
      }
      if (off > total.worst) { total.worst = off; worst = `${name} at ${width}, ${b.name}`; }
      if (b.lines > 0 && lines > 0) {
        total.paragraphs++;
        if (b.lines === lines) total.lines++;
      }
    });
  }
}
await browser.close();
server.close();
for (const f of faults.slice(0, Number(process.env.FAULTS ?? 12))) console.log(f);
const share = (n, of) => `${((100 * n) / Math.max(of, 1)).toFixed(3)} %`;
console.log(`oracle: ${names.length} pages, ${total.boxes} boxes: ${share(total.half, total.boxes)} within 0.5 px, ${share(total.one, total.boxes)} within 1 px, worst ${total.worst.toFixed(2)} px (${worst})`);
console.log(`oracle: lines equal in ${share(total.lines, total.paragraphs)} of ${total.paragraphs} paragraphs`);
process.exit(total.demo > 0 || total.one < 0.999 * total.boxes || total.boxes === 0 ? 1 : 0);
