// Accessibility of the screens and of what is published, by axe-core 4.14 (WCAG
// 2.0 to 2.2, A and AA), and the keyboard.
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  drag,
  eventually,
  middle,
  near,
  newPage,
  openBench,
  publish,
  ready,
  settled,
  signIn,
} from './person.mjs';

const check = async (p, what) => assert.deepEqual(await findings(p), [], what);

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
  await command(page, '/');
  await check(page, 'Shelf');
  await page.keyboard.press('Escape');
  await command(page, '?');
  await check(page, 'keys');
  await page.keyboard.press('Escape');
});

test('the published page passes axe at three widths', async () => {
  await publish(page);
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
  await page.goto(page.url().split('?')[0]); // with nothing selected
  await ready(page);
  await page.locator('.top .brand').focus();
  const seen = new Set();
  for (let i = 0; i < 140; i++) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => {
      const a = document.activeElement;
      return a === document.body ? 'body' : a.id || a.getAttribute('aria-label') || a.textContent.trim().slice(0, 30);
    });
    seen.add(at);
    if (at === 'body') break;
  }
  for (const want of ['Publish', 'reach-handle', 'stage', 'Insert before Top bar'])
    assert.ok(
      [...seen].some((s) => s.includes(want)),
      `${want} is reached: ${[...seen]}`,
    );
  assert.ok(seen.has('body') || seen.size < 140, 'Tab leaves the page in the end');
});

test('the Reach works by keys', async () => {
  await page.locator('#reach-handle').focus();
  await page.keyboard.press('Home');
  await page.waitForFunction(() => document.getElementById('showing').textContent === '320 px');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  assert.equal(await page.locator('#reach-handle').getAttribute('aria-valuetext'), '331 px, Phone');
  assert.equal(
    await canvas(page)
      .locator('body')
      .evaluate((b) => b.clientWidth),
    331,
    'the canvas has that width',
  );
  await page.waitForFunction(() => document.querySelector('#tray').dataset.zone === 'phone');
});

test('the Reach works by pointer, and a zone’s name goes to its typical width', async () => {
  await page.locator('#reach').getByRole('button', { name: 'Desktop' }).click();
  await page.waitForFunction(() => document.getElementById('showing').textContent === '1280 px');
  await page.waitForFunction(() => document.querySelector('#tray').dataset.zone === 'desktop');
  const at = middle(await page.locator('#reach-handle').boundingBox());
  const rule = await page.locator('.reach-rule').boundingBox();
  const to = rule.x + ((800 - 320) / 1600) * rule.width;
  await drag(page, at, { x: to, y: at.y });
  const shown = Number((await page.locator('#showing').textContent()).split(' ')[0]);
  near(shown, 800, 2, 'the width under the pointer');
  await page.waitForFunction(() => document.querySelector('#tray').dataset.zone === 'tablet');
  assert.equal(
    await canvas(page)
      .locator('body')
      .evaluate((b) => b.clientWidth),
    shown,
  );
});

test('Escape goes out, from the words to the block to the section to nothing', async () => {
  await page.reload();
  await ready(page);
  await choose(page, canvas(page).locator('h1'));
  await page.keyboard.press('Enter');
  await eventually(() => canvas(page).locator('h1[contenteditable]').count(), 1, 'writing in the heading');
  await page.keyboard.press('Escape');
  await eventually(() => canvas(page).locator('[contenteditable]').count(), 0, 'no longer writing');
  const kind = () => page.locator('.trail').innerText();
  await eventually(async () => /Heading: Small boats/.test(await kind()), true, 'the block');
  await page.keyboard.press('Escape');
  await eventually(
    async () => (await kind()).startsWith('Welcome') && !/Heading/.test(await kind()),
    true,
    'its section',
  );
  await page.keyboard.press('Escape');
  await eventually(() => page.getByText('Nothing selected').count(), 1, 'nothing');
  assert.deepEqual(page.wrong, []);
});
