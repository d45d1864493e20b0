// What is arranged by hand: dragged within lines, columns and Series and from one into
// another, copied by it, several at once.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, choose, edit, eventually, kept, openBench, settled, signIn, undo } from './person.mjs';

const section = () => canvas(page).locator('section', { hasText: 'Three reasons to come' });
const middle = async (locator, dx = 0, dy = 0) => { const b = await locator.boundingBox(); return { x: b.x + Math.min(b.width / 2, 30) + dx, y: b.y + b.height / 2 + dy }; };

/** Presses, goes to a point in small steps, and does something before letting go. */
async function carry(from, to, before = async () => {}) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= 10; i++) await page.mouse.move(from.x + ((to.x - from.x) * i) / 10, from.y + ((to.y - from.y) * i) / 10);
  await before();
  await page.mouse.up();
}

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  await page.keyboard.press('/');
  await page.locator('#shelf-search').fill('three features');
  await page.locator('[data-filled]').waitFor();
  await page.waitForTimeout(200);
  await edit(page, () => page.keyboard.press('Enter'));
  await section().waitFor();
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
});

test('within an item of a Series a block goes where the line is, in every item', async () => {
  const first = section().locator('li').first();
  const kinds = (li) => li.evaluate((e) => [...e.querySelectorAll('[data-block]')].filter((b) => !b.querySelector('[data-block]')).map((b) => b.tagName));
  const was = await kinds(first);
  assert.equal(was.indexOf('H3') < was.lastIndexOf('DIV'), true);
  const heading = first.locator('h3');
  const text = first.getByText('Say in a sentence');
  await choose(page, heading);
  await edit(page, async () => carry(await middle(heading), await middle(text, 0, 18), async () => {
    assert.equal(await page.locator('#overlay .inserts').count(), 1, 'a line where it goes');
    assert.equal(await page.locator('#overlay .receives').count(), 1, 'and what takes it in');
  }));
  for (const i of [0, 1, 2]) await eventually(async () => (await kinds(section().locator('li').nth(i))).at(-1), 'H3', `item ${i}`);
  await undo(page);
  await eventually(() => kinds(first), was, 'undone');
});

test('an item is dragged by anything in it once it is selected, and Alt leaves a copy', async () => {
  const titles = section().locator('h3');
  await choose(page, titles.first());
  await page.keyboard.press('Escape'); // the item
  await settled(page);
  await edit(page, async () => carry(await middle(titles.first()), await middle(titles.last(), 120)));
  await eventually(() => titles.allTextContents(), ['The second', 'The third', 'The first reason'], 'behind the last');
  await undo(page);
  await eventually(() => titles.allTextContents(), ['The first reason', 'The second', 'The third'], 'undone');
  await choose(page, titles.first());
  await page.keyboard.press('Escape');
  await settled(page);
  await page.keyboard.down('Alt');
  await edit(page, async () => carry(await middle(titles.first()), await middle(titles.last(), 120)));
  await page.keyboard.up('Alt');
  await eventually(() => titles.count(), 4, 'one more');
  await undo(page);
});

test('a block goes from a grid into a container and back, and Escape calls it off', async () => {
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  const grid = canvas(page).locator('section', { hasText: 'Next departures' });
  const heading = grid.getByRole('heading', { name: 'Next departures' });
  const target = section().locator('h2');
  const n = await kept(page);
  await choose(page, heading);
  const from = await middle(heading);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 40);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  assert.equal(await kept(page), n, 'nothing came of it');
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  await choose(page, target);
  const words = await target.textContent();
  const b = await grid.boundingBox();
  await edit(page, async () => carry(await middle(target), { x: b.x + b.width / 2, y: Math.max(b.y + b.height - 40, 150) }));
  await eventually(() => grid.getByText(words).count(), 1, 'it is in the grid');
  await undo(page);
  await eventually(() => section().locator('h2').count(), 1, 'and back');
});

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
