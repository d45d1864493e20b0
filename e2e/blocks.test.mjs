// Adds each of the smaller kinds of block, writes in it, and looks at what is tried.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, command, edit, eventually, onShelf, openBench, option, settled, signIn } from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
  await page
    .getByRole('button', { name: /^Insert (before|between|after|the first)/ })
    .nth(2)
    .click();
  await edit(page, () => onShelf(page, 'Empty section').click());
});

const section = () => canvas(page).locator('[data-section]').nth(2);

/** Adds a block from the Shelf and waits until it is what the Tray is about. */
async function add(name) {
  await page.locator('#stage').focus();
  await command(page, '/');
  await edit(page, () => onShelf(page, name).click());
  await page.locator('.trail', { hasText: name }).waitFor();
  await settled(page);
}

test('a list: written item by item, with marks of one’s own', async () => {
  await add('List');
  assert.equal(await section().locator('ul > li').count(), 3);
  await page.locator('#stage').focus();
  await page.keyboard.press('Enter');
  await section().locator('ul[contenteditable]').waitFor();
  await page.keyboard.type('Oilskins');
  await page.keyboard.press('Enter');
  await page.keyboard.type('A torch');
  await edit(page, () => page.keyboard.press('Escape'));
  await eventually(() => section().locator('li').allTextContents(), ['Oilskins', 'A torch'], 'an item a line');
  await edit(page, () => option(page, 'Markers', 'Numbers'));
  assert.equal(await section().locator('ol > li').count(), 2);
});

test('a quote and a divider', async () => {
  await add('Quote');
  assert.equal(await section().locator('blockquote p').count(), 2);
  await add('Divider');
  assert.equal(await section().locator('hr').count(), 1);
  await page.locator('#stage').focus();
  await page.keyboard.press('Enter'); // it has no words
  assert.equal(await canvas(page).locator('[contenteditable]').count(), 0);
  assert.deepEqual(page.wrong, []);
});

test('a visitor gets plain elements', async () => {
  const opened = context.waitForEvent('page');
  await page.getByRole('button', { name: 'Try it' }).click();
  const tried = await opened;
  await tried.waitForLoadState();
  for (const [tag, n] of [
    ['ol', 1],
    ['ol > li', 2],
    ['blockquote', 1],
    ['hr', 1],
  ])
    assert.equal(await tried.locator(tag).count(), n, tag);
  const [li, hr] = [await tried.locator('ol > li').first().boundingBox(), await tried.locator('hr').boundingBox()];
  assert.ok(li.height > 10 && hr.width > 900 && hr.height === 1, `${JSON.stringify(li)} ${JSON.stringify(hr)}`);
  await tried.close();
});
