// Small things that a person stumbles over, each tried as they do it.
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { designer, writer } from './openplot.mjs';
import { browser, context, page, plot } from './opened.mjs';
import {
  canvas,
  choose,
  command,
  drag,
  edit,
  eventually,
  kept,
  middle,
  newPage,
  onShelf,
  openBench,
  ready,
  settled,
  signIn,
  undo,
} from './person.mjs';

const tray = () => page.locator('#tray');
const focused = (p = page) => p.evaluate(() => document.activeElement?.id ?? '');

test('a page’s address comes of its name, unless another one is written', async () => {
  await signIn(page, plot.app, designer);
  await page.getByRole('link', { name: 'Skerry Line' }).click();
  await eventually(() => page.locator('.page-card svg.drawing').count(), 8, 'all pages are drawn');
  await page.getByRole('link', { name: 'New page' }).click();
  await page.getByLabel('Name', { exact: true }).pressSequentially('Über uns');
  await eventually(
    () => page.getByLabel('Address').first().getAttribute('placeholder'),
    'uber-uns',
    'the address follows the name',
  );
  await page.locator('#page-slug').fill('about-us');
  await page.getByLabel('Name', { exact: true }).fill('Über uns alle');
  await page.waitForTimeout(400);
  assert.equal(await page.locator('#page-slug').inputValue(), 'about-us', 'what was written stays');
  await page.locator('#page-slug').fill('');
  await page.getByLabel(/Blank page/).check();
  await page.getByLabel(/With the top bar/).uncheck();
  await page.getByRole('button', { name: 'Add the page' }).click();
  await ready(page);
  assert.match(page.url(), /pages\/uber-uns-alle\/bench/);
});

test('an empty section says what can be done there, and the page is reached from its menu', async () => {
  await eventually(() => page.locator('#overlay .empty-text').count(), 1, 'a word on the canvas');
  assert.equal(await canvas(page).getByText('Empty section').count(), 0, 'and none on the page');
  await page.locator('.overview-go').click();
  await settled(page);
  await page.locator('.top-page').click();
  await page.getByRole('button', { name: 'Page settings' }).click();
  await settled(page);
  await tray().getByLabel('Meta description').waitFor();
});

test('after a drop from the Shelf the next click is one', async () => {
  await page.locator('.overview-go').click();
  await settled(page);
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('heading');
  const item = await onShelf(page, 'Heading').boundingBox();
  const section = await canvas(page).locator('section').boundingBox();
  await edit(page, () => drag(page, middle(item), { x: section.x + 500, y: section.y + 40 }));
  await settled(page);
  assert.equal(
    await canvas(page).locator('h2').count(),
    1,
    'the drop inserted it, and the click after it nothing more',
  );
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('cover');
  assert.ok(await onShelf(page, 'Welcome over a picture').isVisible(), 'found by another word for it');
  await page.getByLabel('Search sections and blocks').fill('heading');
  await edit(page, () => onShelf(page, 'Heading').click());
  await eventually(() => canvas(page).locator('h2').count(), 2, 'a real click after a drop is taken');
});

test('stand-in words are written over; a heading isn’t made bold', async () => {
  const h2 = canvas(page).locator('h2').first();
  const b = await h2.boundingBox();
  await page.mouse.dblclick(b.x + 60, b.y + 12); // at once, without choosing it first
  await eventually(() => canvas(page).locator('h2[contenteditable]').count(), 1, 'an instant double-click writes');
  assert.ok(await page.locator('#format [data-format="bold"]').isHidden(), 'bold isn’t offered');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('Kept');
  await edit(page, () => page.keyboard.press('Escape'));
  assert.equal(await h2.innerHTML(), 'Kept', 'all stand-in words are gone, and nothing is bold');
  assert.equal(
    await page.evaluate(() => window.getSelection().toString()),
    '',
    'no words of the application are marked',
  );
});

test('Delete works from the Overview, Ctrl+A paints nothing, and undo lowers the count', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  const n = await kept(page);
  await page.locator('.overview-go').nth(2).click();
  await settled(page);
  await edit(page, () => page.keyboard.press('Delete'));
  assert.equal(await page.locator('.overview-item').count(), 5);
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+a');
  assert.equal(await page.evaluate(() => window.getSelection().toString()), '');
  await undo(page);
  assert.equal(await kept(page), n);
  assert.equal(await page.locator('.overview-item').count(), 6);
});

test('the Tray begins at its beginning for another kind, stays on the page, and a wheel moves it', async () => {
  await page.locator('.overview-go').nth(1).click();
  await settled(page);
  await choose(page, canvas(page).locator('h1'));
  const body = page.locator('#tray-body');
  const left = () => body.evaluate((e) => e.scrollLeft);
  await page.mouse.move(300, 720);
  await page.mouse.wheel(0, 300);
  await eventually(async () => (await left()) > 100, true, 'an ordinary wheel moves it sideways');
  await page.mouse.wheel(2000, 0);
  await page.mouse.wheel(2000, 0);
  await page.waitForTimeout(300);
  assert.match(page.url(), /home\/bench/, 'scrolling on at its end stays on the Bench');
  await page.locator('.overview-go').nth(2).click();
  await settled(page);
  await eventually(left, 0, 'another kind begins at its beginning');
});

test('a new entry is gone into, and Tab goes on from field to field', async () => {
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('Timetable');
  await edit(page, () => onShelf(page, 'Timetable').click());
  await settled(page);
  const entries = tray().locator('.entry');
  if ((await entries.count()) === 0) await choose(page, canvas(page).locator('ol > li').last());
  await eventually(async () => (await entries.count()) > 0, true, 'entries in the Tray');
  const before = await entries.count();
  await edit(page, () => tray().getByRole('button', { name: 'Add one' }).click());
  await eventually(() => focused(), `e-${before}-time`, 'the focus is in the new entry');
  await edit(page, async () => {
    await page.keyboard.type('21:00');
    await page.keyboard.press('Tab');
  });
  await eventually(() => focused(), `e-${before}-title`, 'and goes on to its next field');
  const who = canvas(page).locator('[data-part="0.who"]').last();
  await choose(page, who);
  await page.keyboard.press('Enter');
});

test('a block dragged into another section lands where it was shown', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/uber-uns-alle/bench`);
  await ready(page);
  await page.locator('.overview-go').last().click();
  await settled(page);
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('empty section');
  await edit(page, () => onShelf(page, 'Empty section').click());
  await settled(page);
  const sections = canvas(page).locator('section');
  const target = await sections.nth(1).boundingBox();
  const block = canvas(page).locator('h2').last();
  const from = await block.boundingBox();
  await edit(page, () =>
    drag(page, { x: from.x + 30, y: from.y + 10 }, { x: target.x + 360, y: target.y + target.height / 2 }),
  );
  await settled(page);
  assert.equal(await sections.nth(1).locator('h2').count(), 1, 'it stands in the section that it was dropped in');
  const now = await sections.nth(1).locator('h2').boundingBox();
  assert.ok(Math.abs(now.y - target.y) < target.height, 'and near where it was let go');
});

test('what is tried in a preview is kept apart', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/ask-for-a-berth/bench`);
  await ready(page);
  const [preview] = await Promise.all([
    context.waitForEvent('page'),
    page.getByRole('button', { name: 'Try it' }).click(),
  ]);
  await preview.waitForLoadState();
  for (const box of await preview.locator('form [required]').all()) {
    const type = await box.getAttribute('type');
    const tag = await box.evaluate((e) => e.tagName);
    if (type === 'radio' || type === 'checkbox') await box.check();
    else if (tag === 'SELECT') await box.selectOption({ index: 1 });
    else
      await box.fill(
        { email: 'a@example.org', date: '2026-12-01', number: '1', time: '08:00', tel: '555' }[type] ?? 'A trial',
      );
  }
  await preview.locator('form button[type="submit"]').click();
  await preview.getByText('This was a trial').waitFor();
  await preview.close();
  await page.goto(`${plot.app}/sites/skerry-line/entries`);
  await page.getByRole('link', { name: 'Trials' }).click();
  await page.getByRole('button', { name: 'Delete all trials' }).click();
  await eventually(() => page.getByRole('link', { name: 'Trials 0' }).count(), 1, 'they can be deleted');
});

test('the demo is published', async () => {
  const live = await context.newPage();
  const r = await live.goto(`${plot.site}/`);
  assert.equal(r.status(), 200);
  assert.match(await r.text(), /Small boats/);
  await live.close();
});

test('a background video has no controls on the canvas, and a section of 75 vh is as high there as in the Overview', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await page.locator('.overview-go').nth(1).click();
  await settled(page);
  await edit(page, async () => {
    await tray().getByLabel('Min height', { exact: true }).fill('75vh');
    await page.keyboard.press('Enter');
  });
  await settled(page);
  const height = await canvas(page)
    .locator('section')
    .first()
    .evaluate((e) => e.getBoundingClientRect().height);
  const measure = Number(await page.locator('.overview-item').nth(1).locator('.measure').textContent());
  assert.equal(Math.round(height), 600);
  assert.equal(measure, 600);
  await undo(page);
});

test('a writer takes back what they did, and nothing else', async () => {
  const c = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const w = await newPage(c);
  await signIn(w, plot.app, writer);
  await openBench(w);
  assert.ok(await w.getByRole('button', { name: 'Undo' }).isDisabled(), 'others’ edits aren’t theirs');
  await choose(w, canvas(w).locator('h1'));
  await w.keyboard.press('Enter');
  await w.keyboard.press('Control+a');
  await w.keyboard.type('Small boats.');
  await edit(w, () => w.keyboard.press('Escape'));
  await undo(w);
  await eventually(() => canvas(w).locator('h1').innerText(), 'Small boats, three islands, all year.', 'as it was');
  assert.deepEqual(w.wrong, []);
  await c.close();
});

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
