// What isn't all seen at once: views of a page, sections that fold, what waits for a pointer
// or a script; with the files of the library that pages lead to. As visitors see it, too.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, page, plot } from './opened.mjs';
import { designer, visit } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  edit,
  enter,
  eventually,
  newPage,
  onShelf,
  openBench,
  option,
  publish,
  settled,
  signIn,
} from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

const go = async (name) => {
  await page.locator('.overview-item', { hasText: name }).first().locator('.overview-go').click();
  await settled(page);
};

/** Adds a block from the Shelf to a section of columns at the page's end. */
async function add(name) {
  await page.keyboard.press('Escape');
  await command(page, '/');
  await page.locator('#shelf-search').fill(name);
  await edit(page, () => onShelf(page, name).click());
  await settled(page);
}

/** Publishes, and gives a window with the published page, with or without scripts. */
async function published(options = {}) {
  await publish(page);
  await page.getByRole('link', { name: /Open it/ }).waitFor();
  const visitor = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options }));
  await visitor.goto(`${plot.site}/`);
  return visitor;
}

test('sections become views that are seen one at a time, without a script', async () => {
  await go('Departures');
  await enter(page, 'View', 'Boats today');
  await go('Three islands');
  await enter(page, 'View', 'The islands');
  await page.locator('.overview-view', { hasText: 'The islands' }).waitFor();
  await go('Top bar');
  await choose(page, canvas(page).locator('nav').first());
  await edit(page, () => option(page, 'Source', 'The page’s views'));
  await eventually(
    () => canvas(page).locator('nav a').allTextContents(),
    ['Boats today', 'The islands'],
    'the menu lists them',
  );
  const visitor = await published({ javaScriptEnabled: false });
  const [boats, islands] = [
    visitor.getByRole('heading', { name: 'Next departures' }),
    visitor.getByRole('heading', { name: 'Three islands, each a day out' }),
  ];
  const seen = async () => [await boats.isVisible(), await islands.isVisible()];
  await eventually(seen, [true, false], 'the first view by default');
  await visitor.locator('nav').getByRole('link', { name: 'The islands', exact: true }).click();
  await eventually(seen, [false, true], 'the other by its address');
  assert.match(visitor.url(), /#the-islands$/);
  await visitor.goBack();
  await eventually(seen, [true, false], 'the back button');
  await visitor.goto(`${plot.site}/#the-islands`);
  await eventually(seen, [false, true], 'a link from elsewhere');
  await visitor.context().close();
});

test('a section folds, is titled, and visitors unfold it by pointer and keys', async () => {
  await go('Winter week');
  await edit(page, () => option(page, 'Folds', 'Closed'));
  await enter(page, 'Title', 'A weekend in winter');
  await canvas(page).locator('summary', { hasText: 'A weekend in winter' }).waitFor();
  const visitor = await published({ javaScriptEnabled: false });
  const within = visitor
    .locator('details', { hasText: 'A weekend in winter' })
    .getByText('Two nights at the old customs house');
  assert.equal(await within.isVisible(), false, 'folded');
  await visitor.locator('summary', { hasText: 'A weekend in winter' }).click();
  await within.waitFor();
  await visitor.keyboard.press('Enter');
  await eventually(() => within.isVisible(), false, 'folded again by key');
  await visitor.context().close();
});

test('a countdown counts with its script and says the date without', async () => {
  await go('Contact');
  await add('Countdown');
  await page.locator('#tray').getByLabel('Date and time', { exact: true }).fill('2031-02-03T04:05');
  await edit(page, () => page.locator('#tray').getByLabel('Date and time', { exact: true }).press('Enter'), 0);
  await edit(page, () => option(page, 'Time zone', 'Berlin, Paris, Madrid, Stockholm'));
  await canvas(page).getByText('3 February 2031, 04:05').waitFor();
  await add('Share links');
  const plain = await published({ javaScriptEnabled: false });
  assert.equal(await plain.locator('time').getAttribute('datetime'), '2031-02-03T04:05+01:00');
  await plain.getByText('3 February 2031, 04:05').waitFor();
  // Chromium, driven so, says that it scripts although it doesn't: the rule is looked at.
  assert.match(
    await plain.locator('style').textContent(),
    /@media \(scripting:none\)\{\[data-scripted\]\{display:none\}\}/,
    'what needs a script isn’t there without one',
  );
  assert.equal(await plain.locator('[data-scripted]').count(), 2);
  await plain.context().close();
  const visitor = await published({ permissions: ['clipboard-read', 'clipboard-write'] });
  const timer = visitor.getByRole('timer');
  const told = async () => (await timer.locator('p').allTextContents()).filter((_, i) => i % 2 === 0).map(Number);
  const first = await told();
  const left = (Date.parse('2031-02-03T04:05+01:00') - Date.now()) / 1000;
  assert.ok(Math.abs(first[0] * 86400 + first[1] * 3600 + first[2] * 60 + first[3] - left) < 60, `${first} of ${left}`);
  await eventually(async () => (await told())[3] !== first[3], true, 'it goes on');
  await visitor.getByRole('button', { name: 'Copy this page’s address' }).click();
  await visitor.getByText('Copied').waitFor();
  assert.equal(await visitor.evaluate(() => navigator.clipboard.readText()), `${plot.site}/`);
  assert.deepEqual(await findings(visitor), []);
  assert.deepEqual(visitor.wrong, []);
  await visitor.context().close();
});

test('a file of the library is linked to in a new tab, and pages are listed with pictures', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/library`);
  await page.locator('#library-files').setInputFiles([
    { name: 'timetable.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.7\n1 0 obj\n<<>>\nendobj\n') },
    { name: 'stops.csv', mimeType: 'text/csv', buffer: Buffer.from('stop,at\nSkarva,8:10\n') },
  ]);
  await page.locator('.library-tile[title="stops.csv"]').waitFor();
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await page.locator('body[data-ready]').waitFor({ state: 'attached' });
  await go('Contact');
  await add('Button');
  await page.locator('#tray [data-opens="link"]').first().click();
  await page.locator('.link-search').fill('timetable');
  await page.getByRole('option', { name: /timetable\.pdf/ }).waitFor();
  await page.getByLabel('Opens in a new tab').check();
  await page.locator('.link-search').focus();
  await edit(page, () => page.keyboard.press('Enter'));
  await page.locator('#tray').getByText('timetable.pdf, in a new tab').waitFor();
  await page.locator('.top-page').click();
  await page.getByRole('button', { name: 'Page settings' }).click();
  await settled(page);
  await enter(page, 'Categories', 'News, Islands');
  await page.locator('#f-picture').click();
  await page.locator('#picker-search').fill('skarva');
  await edit(page, () => page.locator('#picker [data-picture]:visible').first().click());
  const visitor = await published();
  const link = visitor.getByRole('link', { name: 'Find out more' });
  assert.equal(await link.getAttribute('target'), '_blank');
  assert.equal(
    await link.evaluate((e) => document.getElementById(e.getAttribute('aria-describedby')).textContent),
    'opens in a new tab',
  );
  const [answer] = await Promise.all([
    visitor.context().waitForEvent('response', (r) => r.url().endsWith('.pdf')),
    link.click(),
  ]);
  assert.equal(answer.headers()['content-type'], 'application/pdf');
  await visitor.context().close();
  // On another page it is listed with its picture.
  await page.goto(`${plot.app}/sites/skerry-line/pages/notices/bench`);
  await page.locator('body[data-ready]').waitFor({ state: 'attached' });
  await page.locator('.overview-go').last().click();
  await settled(page);
  await add('Page list');
  await enter(page, 'Category', 'news');
  await edit(page, () => option(page, 'Pictures', 'Under the text, which hover shows'));
  await publish(page);
  await page.getByRole('link', { name: /Open it/ }).waitFor();
  assert.match(await visit(`${plot.site}/notices/`), /data-hover/);
  const reader = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await reader.goto(`${plot.site}/notices/`);
  const over = reader.locator('[data-hover]');
  const shown = () => over.evaluate((e) => Math.round(Number(getComputedStyle(e).opacity)));
  assert.equal(await over.count(), 1);
  await eventually(shown, 0, 'at rest it isn’t seen');
  await over.hover();
  await eventually(shown, 1, 'pointed at it is');
  await reader.mouse.move(0, 0);
  await eventually(shown, 0, 'and not any more');
  for (let i = 0; i < 60 && !(await over.evaluate((e) => e.parentElement === document.activeElement)); i++)
    await reader.keyboard.press('Tab');
  await eventually(shown, 1, 'with the focus it is');
  assert.deepEqual(await findings(reader), []);
  await reader.context().close();
});
