// From signing in to publishing with the keyboard alone: everything that a hand does has a key or a field
// (WCAG 2.2, 2.1.1 and 2.5.7).
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, eventually, kept, ready, settled } from './person.mjs';

const press = async (...keys) => {
  for (const k of keys) {
    await page.keyboard.press(k);
    await settled(page);
  }
};

/** Presses a key until something that a selector finds has the focus. */
async function goOnTo(selector, key, most = 80) {
  for (let i = 0; i < most; i++) {
    if (await page.evaluate((s) => document.activeElement?.matches(s), selector)) return;
    await page.keyboard.press(key);
  }
  assert.fail(`${selector} isn't reached by ${most} presses of ${key}`);
}

const tabTo = (selector, most) => goOnTo(selector, 'Tab', most);

/** Goes from pane to pane until it is the canvas. */
async function toCanvas() {
  for (let i = 0; i < 4 && !(await page.evaluate(() => document.activeElement.id === 'stage')); i++) await press('F6');
}

/** Does a command of the list. */
async function command(words) {
  await press('Control+k');
  await page.keyboard.type(words);
  await press('Enter');
}

const box = (locator) =>
  locator.evaluate((e) => {
    const r = e.getBoundingClientRect();
    return { x: r.x, y: r.y + e.ownerDocument.defaultView.scrollY, w: r.width, h: r.height };
  });
const selected = (text) =>
  eventually(
    () =>
      page
        .locator('.trail [aria-current], .trail li:last-child, .trail')
        .first()
        .textContent()
        .then((t) => t.includes(text)),
    true,
    `${text} is selected`,
  );

test('signs in and opens a page', async () => {
  await page.goto(plot.app);
  await tabTo('input[type="email"], input[name="email"]');
  await page.keyboard.type(designer.email);
  await tabTo('input[type="password"]');
  await page.keyboard.type(designer.password);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: 'Sites' }).waitFor();
  await tabTo('a[href="/sites/skerry-line"]');
  await page.keyboard.press('Enter');
  await page.locator('.page-card').first().waitFor();
  await tabTo('a[href$="/pages/home/bench"]');
  await page.keyboard.press('Enter');
  await ready(page);
});

test('inserts a section and blocks, writes, places and resizes them', async () => {
  await tabTo('#stage');
  await press('Tab');
  await press('/');
  await page.keyboard.type('empty section');
  await page.locator('[data-filled]').waitFor();
  await page.waitForTimeout(200);
  await press('Enter');
  await eventually(
    () =>
      page
        .locator('.overview-item.selected')
        .textContent()
        .then((t) => t.includes('New section')),
    true,
    'a new section',
  );
  for (const kind of ['heading', 'text']) {
    await press('/');
    await page.keyboard.type(kind);
    await page.waitForTimeout(250);
    await tabTo(`.shelf-item[data-kind="${kind}"]`);
    await press('Enter');
    await toCanvas();
  }
  const heading = canvas(page).locator('section', { hasText: 'A heading for this part' }).first().locator('h2');
  await heading.waitFor();
  await selected('Write a few');
  await press('Shift+Tab');
  await selected('A heading');
  await press('Enter', 'Control+a');
  await page.keyboard.type('By keys alone');
  await press('Escape');
  await canvas(page).getByText('By keys alone').waitFor();
  const title = canvas(page).getByText('By keys alone').last();
  const was = await box(title);
  await press('ArrowRight', 'Shift+ArrowLeft');
  const now = await box(title);
  assert.ok(now.x > was.x + 20 && now.w < was.w - 20, `moved and narrower: ${JSON.stringify([was, now])}`);
});

test('several: grouped, aligned, duplicated, locked, and ungrouped', async () => {
  const section = canvas(page).locator('section', { hasText: 'By keys alone' }).first();
  await press('Control+a');
  await command('align left');
  const [a, b] = [await box(section.getByText('By keys alone')), await box(section.locator('p').first().locator('..'))];
  assert.ok(Math.abs(a.x - b.x) < 1, 'left edges are one');
  await press('Control+g');
  await selected('Container');
  await press('Control+Shift+l');
  const n = await kept(page);
  await press('Delete');
  assert.equal(await kept(page), n, 'what is locked isn’t deleted');
  await press('Control+Shift+l', 'Control+d');
  await eventually(() => section.getByText('By keys alone').count(), 2, 'duplicated');
  await press('Control+Shift+g');
  await press('Control+z', 'Control+z');
  await eventually(() => section.getByText('By keys alone').count(), 1, 'undone');
});

test('the tree: unfolded, gone through, renamed, moved', async () => {
  await tabTo('.overview-item.selected .overview-go', 200);
  await press('ArrowRight', 'ArrowRight'); // unfolded, and gone into
  assert.ok(await page.evaluate(() => document.activeElement.matches('.tree li')), 'its first block');
  await press('ArrowRight', 'ArrowRight');
  await press('F2');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('The title');
  await press('Enter');
  await eventually(() => page.locator('.tree-name', { hasText: 'The title' }).count(), 1, 'renamed');
  assert.deepEqual(await findings(page), []);
  await press('Home', 'ArrowLeft');
});

test('spacing by a field, a guide by its dialog, the section elsewhere; published', async () => {
  await press('Escape', 'F6'); // from the Overview to the canvas
  assert.equal(await page.evaluate(() => document.activeElement.id), 'stage');
  await press('Escape', 'Escape', 'Shift+F6');
  await press('End');
  await goOnTo('.overview-item:last-child .overview-go', 'ArrowUp');
  await press('Enter', 'F6', 'F6'); // the section, then on to the Tray
  await tabTo('#f-padding-top', 120);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('40');
  await press('Enter');
  const section = canvas(page).locator('section', { hasText: 'By keys alone' }).first();
  await eventually(() => section.evaluate((e) => getComputedStyle(e).paddingTop), '40px', 'padding');
  await settled(page); // the Tray comes after the canvas
  await press('Shift+F6');
  await command('guides');
  await tabTo('#guide-at');
  await page.keyboard.type('240');
  await press('Enter');
  await eventually(() => page.locator('#overlay .own-guide').count(), 1, 'a guide');
  assert.deepEqual(await findings(page), []);
  await toCanvas();
  await press('Control+Shift+ArrowUp');
  await command('publish');
  await page.getByRole('link', { name: /Open it/ }).waitFor();
});

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
