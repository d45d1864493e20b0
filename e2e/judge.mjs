// Opens pages in Chromium and reads where everything stands. cmd/oracle starts it
// and holds the answers against core's boxes.
//
// Reads a line of JSON a page, {url, widths}, and writes one, {widths: {"320": […]}}:
// for each element that has a box of its own, in document order, its tag, x, y,
// width and height (getBoundingClientRect) and the lines of text in it, each as
// [left, right] (the client rects of a Range, those of a line following each other).
// With {time: true} it writes how long the browser took instead. With {axe: widths} it also writes
// how wide what can be scrolled is at each width, and what axe-core finds at those.
import fs from 'node:fs';
import readline from 'node:readline';
import { launch } from './chromium.mjs';

const axeSource = fs.readFileSync(new URL('node_modules/axe-core/axe.min.js', import.meta.url), 'utf8');
const browser = await launch();
// What moves as one scrolls is measured at rest.
const page = await browser.newPage({ viewport: { width: 2000, height: 900 }, reducedMotion: 'reduce' });
let base = '';

for await (const line of readline.createInterface({ input: process.stdin })) {
  const { url, widths, time, axe } = JSON.parse(line);
  const origin = new URL(url).origin;
  if (origin !== base) {
    // the frame's parent has to be of the same origin
    base = origin;
    await page.goto(`${origin}/empty`);
    await page.evaluate(() => {
      const f = document.createElement('iframe');
      f.style.cssText = 'border:0;width:1280px;height:800px;display:block';
      document.body.append(f);
    });
  }
  let answer;
  try {
    answer = await page.evaluate(time ? clock : read, { url, widths });
    if (axe) Object.assign(answer, await page.evaluate(outside, { widths, axe, source: axeSource }));
  } catch (e) {
    answer = { error: String(e) };
  }
  process.stdout.write(`${JSON.stringify(answer)}\n`);
}
await browser.close();

/** The time in ms that the browser takes to lay out at the widths, reading all boxes. */
async function clock({ url, widths }) {
  const frame = document.querySelector('iframe');
  await new Promise((resolve) => {
    frame.onload = resolve;
    frame.src = url;
  });
  const d = frame.contentDocument;
  await Promise.all([...d.fonts].map((f) => f.load()));
  await d.fonts.ready;
  const all = d.body.querySelectorAll('*');
  const times = [];
  for (let run = 0; run < 3; run++) {
    const start = performance.now();
    for (const width of widths) {
      frame.style.width = `${width}px`;
      for (const e of all) e.getBoundingClientRect();
    }
    times.push(performance.now() - start);
  }
  return { ms: times.sort((a, b) => a - b)[1], elements: all.length };
}

/** What can be scrolled to at each width, and what axe-core finds. */
async function outside({ widths, axe, source }) {
  const frame = document.querySelector('iframe');
  const w = frame.contentWindow;
  const scroll = {};
  for (const width of widths) {
    frame.style.width = `${width}px`;
    scroll[width] = w.document.documentElement.scrollWidth;
  }
  w.eval(source);
  const found = {};
  for (const width of axe) {
    frame.style.width = `${width}px`;
    const rules = [
      'color-contrast',
      'image-alt',
      'label',
      'select-name',
      'target-size',
      'heading-order',
      'page-has-heading-one',
      'link-name',
    ];
    const { violations } = await w.axe.run(w.document, { runOnly: { type: 'rule', values: rules } });
    found[width] = Object.fromEntries(violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 90))]));
  }
  return { scroll, axe: found };
}

async function read({ url, widths }) {
  const frame = document.querySelector('iframe');
  await new Promise((resolve) => {
    frame.onload = resolve;
    frame.src = url;
  });
  const d = frame.contentDocument;
  await Promise.all([...d.fonts].map((f) => f.load()));
  await d.fonts.ready;
  // A picture without a size of its own is never loaded when it may wait, and has the size of its stand-in.
  for (const i of d.images) i.loading = 'eager';
  await Promise.all([...d.images].map((i) => i.decode().catch(() => {})));
  const inline = new Set(['A', 'STRONG', 'EM', 'SPAN', 'SMALL', 'U', 'S', 'SUP', 'CODE', 'TIME']);
  const flows = (e) => inline.has(e.tagName) && frame.contentWindow.getComputedStyle(e).display === 'inline';
  const range = d.createRange();
  const lines = (e) => {
    if (![...e.childNodes].some((c) => (c.nodeType === 3 ? /[^ \t\n\r\f]/.test(c.data) : flows(c)))) return [];
    const found = [];
    const texts = d.createTreeWalker(e, NodeFilter.SHOW_TEXT);
    while (texts.nextNode()) {
      range.selectNodeContents(texts.currentNode);
      for (const r of range.getClientRects()) {
        if (r.width === 0) continue;
        const last = found.at(-1);
        if (last && r.left >= last[1] - 0.5)
          last[1] = r.right; // goes on where the one before ended
        else found.push([r.left, r.right]);
      }
    }
    return found;
  };
  const all = [d.body, ...d.body.querySelectorAll('*')];
  const out = {};
  for (const width of widths) {
    frame.style.width = `${width}px`;
    const boxes = [];
    const [sx, sy] = [frame.contentWindow.scrollX, frame.contentWindow.scrollY];
    for (const e of all) {
      if (e.tagName === 'BR' || !e.checkVisibility()) continue;
      if (flows(e) || e.ownerSVGElement) continue;
      const r = e.getBoundingClientRect();
      boxes.push([e.tagName.toLowerCase(), r.x + sx, r.y + sy, r.width, r.height, lines(e)]);
    }
    out[width] = boxes;
  }
  return { widths: out };
}
