// Accessibility of the screens and of what is published, by axe-core 4.14 (WCAG
// 2.0 to 2.2, A and AA), and the keyboard.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { after, before, test } from 'node:test';
import { launch } from './chromium.mjs';
import { designer, start } from './openplot.mjs';
import { canvas, choose, newPage, openBench, ready, settled, signIn } from './person.mjs';

const axe = fs.readFileSync(new URL('node_modules/axe-core/axe.min.js', import.meta.url), 'utf8');
const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

let plot, browser, page;
before(async () => {
  plot = await start();
  browser = await launch();
  page = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
});
after(async () => {
  await browser?.close();
  await plot?.stop();
});

async function check(p, what) {
  await p.evaluate(axe);
  const found = await p.evaluate((values) => window.axe.run(document, { runOnly: { type: 'tag', values }, iframes: false }), tags);
  assert.ok(found.passes.length > 5, `${what}: axe looked at something`);
  assert.deepEqual(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`), [], what);
}

test('the screens pass axe', async () => {
  await page.goto(`${plot.app}/sign-in`);
  await check(page, 'sign-in');
  await signIn(page, plot.app, designer);
  await check(page, 'sites');
  await page.getByRole('link', { name: 'Skerry Line' }).click();
  await check(page, 'pages');
  await page.goBack();
  await openBench(page);
  await check(page, 'Bench');
  await choose(page, canvas(page).locator('h1'));
  await check(page, 'Bench with a block selected');
  await page.locator('.overview-go').nth(2).click();
  await settled(page);
  await check(page, 'Bench with a section selected');
  await page.keyboard.press('/');
  await check(page, 'Shelf');
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await check(page, 'keys');
  await page.keyboard.press('Escape');
});

test('the published page passes axe at three widths', async () => {
  await page.getByRole('button', { name: 'Publish' }).click();
  const href = await page.getByRole('link', { name: /Open it/ }).getAttribute('href');
  const p = await newPage(page.context());
  await p.goto(href);
  for (const width of [1280, 800, 375]) {
    await p.setViewportSize({ width, height: 800 });
    await check(p, `published at ${width}`);
  }
  assert.deepEqual(p.wrong, []);
  await p.close();
});

test('every control of the Bench is reached by Tab, and none is a trap', async () => {
  await page.reload();
  await ready(page);
  await page.locator('.top .brand').focus();
  const seen = new Set();
  for (let i = 0; i < 140; i++) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => { const a = document.activeElement; return a === document.body ? 'body' : a.id || a.getAttribute('aria-label') || a.textContent.trim().slice(0, 30); });
    seen.add(at);
    if (at === 'body') break;
  }
  for (const want of ['Publish', 'reach-handle', 'stage', 'Insert a section here']) assert.ok([...seen].some((s) => s.includes(want)), `${want} is reached: ${[...seen]}`);
  assert.ok(seen.has('body') || seen.size < 140, 'Tab leaves the page in the end');
});

test('the Reach works by keys', async () => {
  await page.locator('#reach-handle').focus();
  await page.keyboard.press('Home');
  await page.waitForFunction(() => document.getElementById('showing').textContent === '320 px');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  assert.equal(await page.locator('#reach-handle').getAttribute('aria-valuetext'), '331 px, Phone');
  assert.equal(await canvas(page).locator('body').evaluate((b) => b.clientWidth), 331, 'the canvas has that width');
  await page.waitForFunction(() => document.querySelector('#tray').dataset.zone === 'phone');
});
