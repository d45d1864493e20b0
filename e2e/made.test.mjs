// What a page is made of: arrangements, series, entries, other layouts, the Shelf's
// own sections, pictures, new pages and what visitors send; by pointer, keys and labels.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import path from 'node:path';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, page, plot } from './opened.mjs';
import { designer, tmp } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  drag,
  edit,
  enter,
  eventually,
  middle,
  more,
  newPage,
  option as choice,
  publish,
  ready,
  settled,
  signIn,
  undo,
} from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await page.getByRole('link', { name: 'Skerry Line' }).click();
});

const pick = (label, option) => edit(page, () => choice(page, label, option));
const left = async (locator) => (await locator.boundingBox()).x;

test('a page is added from ready-made sections', async () => {
  await page.getByRole('link', { name: 'New page' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Harbour');
  await page.locator('#page-slug').fill('Harbour Days');
  await page.getByRole('radio', { name: /Programme/ }).check();
  await page.getByRole('button', { name: 'Add the page' }).click();
  await page
    .getByRole('alert')
    .getByText(/small letters, digits and hyphens/)
    .waitFor();
  assert.equal(
    await page.getByLabel('Name', { exact: true }).inputValue(),
    'Harbour',
    'nothing that was entered is lost',
  );
  await page.locator('#page-slug').fill('harbour-days');
  await page.getByRole('button', { name: 'Add the page' }).click();
  await ready(page);
  assert.equal(await page.locator('.overview-item').count(), 7);
});

test('a Series has one look, and each item its own words', async () => {
  await page.locator('.overview-item', { hasText: 'Steps' }).locator('.overview-go').click();
  await settled(page);
  const titles = canvas(page).locator('section', { hasText: 'How it goes' }).locator('h3');
  assert.deepEqual(await titles.allTextContents(), ['Ask', 'Hear from us', 'Come']);
  await choose(page, titles.nth(1));
  await page.locator('.trail-note', { hasText: '2 of 3' }).waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.type('Wait a little');
  await edit(page, () => page.keyboard.press('Escape'));
  assert.deepEqual(await titles.allTextContents(), ['Ask', 'Wait a little', 'Come']);
  await pick('Align text', 'Right');
  assert.deepEqual(await titles.evaluateAll((hs) => hs.map((h) => getComputedStyle(h).textAlign)), [
    'end',
    'end',
    'end',
  ]);
  await edit(page, () => page.getByRole('button', { name: 'Add an item' }).click());
  assert.equal(await titles.count(), 4);
  await edit(page, () => page.getByRole('button', { name: 'Remove the item' }).click());
  assert.equal(await titles.count(), 3);
});

test('columns take shares, and stand below one another on the phone', async () => {
  await page.locator('.overview-item', { hasText: 'Notices' }).last().locator('.overview-go').click();
  await settled(page);
  const news = canvas(page).locator('section', { hasText: 'What happened first' });
  const series = news.locator('ul').first();
  const before = await left(series);
  await enter(page, 'Column widths', '6 6');
  await eventually(async () => (await left(series)) > before + 100, true, 'half is more than a third');
  await pick('Arrangement', 'Line-up');
  await eventually(
    async () => Math.abs((await left(series)) - (await left(news.locator('h2')))) > 100,
    true,
    'one row of columns is a line across',
  );
  await page.locator('#stage').focus();
  await undo(page);
  await eventually(async () => (await left(series)) > before + 100, true, 'undo brings the columns back');
  await command(page, '3');
  await settled(page);
  await eventually(
    async () => Math.abs((await left(series)) - (await left(news.locator('h2')))) < 2,
    true,
    'stacked on the phone',
  );
  await command(page, '1');
  await settled(page);
});

test('another layout carries the words over', async () => {
  await page.locator('.overview-item', { hasText: 'Steps' }).locator('.overview-go').click();
  await settled(page);
  const text = () => canvas(page).locator('body').innerText();
  await page.getByRole('button', { name: /^Change layout/ }).click();
  await page.locator('.shelf-item:visible', { hasText: 'Steps down the page' }).hover();
  await eventually(
    async () => /Wait a little/.test(await text()) && !/It takes a minute/.test(await text()),
    true,
    'seen in place before it is taken',
  );
  await page.keyboard.press('Escape');
  await eventually(async () => /It takes a minute/.test(await text()), true, 'left');
  await page.getByRole('button', { name: /^Change layout/ }).click();
  await eventually(() => page.locator('.shelf-item:visible').count(), 2, 'those for steps');
  await edit(page, () => page.locator('.shelf-item:visible', { hasText: 'Steps down the page' }).click());
  assert.match(await text(), /Wait a little/);
  assert.doesNotMatch(await text(), /It takes a minute/, 'stand-in words aren’t carried along');
  await page.locator('#stage').focus();
  await undo(page);
});

test('entries are written in the Tray and on the canvas', async () => {
  await page.locator('.overview-item', { hasText: 'Timetable' }).first().locator('.overview-go').click();
  await settled(page);
  const rows = canvas(page).locator('section', { hasText: 'What happens when' }).locator('ol > li');
  await choose(page, rows.first().locator('p').first());
  await edit(page, async () => {
    await page.locator('#e-0-time').fill('07:55');
    await page.locator('#e-0-time').press('Enter');
  });
  await eventually(() => rows.first().locator('time').textContent(), '07:55', 'the time');
  const title = rows.nth(1).locator('[data-part="1.title"]');
  const b = await title.boundingBox();
  await page.mouse.dblclick(b.x + 10, b.y + 8);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('The bread boat');
  await edit(page, () => page.keyboard.press('Escape'));
  assert.equal(await rows.nth(1).locator('[data-part="1.title"]').textContent(), 'The bread boat');
  await edit(page, () => page.getByRole('button', { name: 'Add one' }).click());
  assert.equal(await rows.count(), 4);
});

test('words are given a look from the bar, by pointer and by keys', async () => {
  await page.locator('.overview-item', { hasText: 'Steps' }).locator('.overview-go').click();
  await settled(page);
  const text = canvas(page)
    .locator('section', { hasText: 'How it goes' })
    .locator('p', { hasText: 'It takes a minute' });
  await choose(page, text);
  await page.keyboard.press('Enter');
  const bar = page.getByRole('toolbar', { name: 'Text formatting' });
  await bar.waitFor();
  assert.deepEqual(await findings(page), []);
  await bar.getByRole('button', { name: 'Underline' }).click();
  await bar.getByRole('button', { name: 'Second accent' }).click();
  await bar.getByRole('button', { name: 'Link', exact: true }).click();
  await page.getByRole('combobox', { name: 'Page, place or address' }).fill('fares');
  assert.deepEqual(await findings(page), []);
  await page.getByRole('option', { name: 'Fares' }).click();
  await edit(page, () => page.keyboard.press('Escape'));
  const run = text.locator('a');
  assert.equal(await run.getAttribute('href'), '/fares');
  assert.equal(await text.locator('[data-colour]').getAttribute('data-colour'), 'second-accent');
  assert.equal(await text.locator('u').count(), 1);
  assert.ok(await bar.isHidden());
});

test('a section is seen in place before it is taken, by keys and by pointer, and can be dragged to a mark', async () => {
  const names = () => page.locator('.overview-name > span:first-child').allTextContents();
  const before = await names();
  await page.locator('.overview-item').first().locator('.overview-go').click();
  await settled(page);
  await page.locator('#stage').focus();
  await command(page, '/');
  await page.locator('[data-purpose="Testimonials"]').click();
  const shown = () => canvas(page).getByText('Put here what they said').count();
  await page.locator('.shelf-item:visible').first().hover();
  await eventually(shown, 1, 'pointed at, it stands on the page');
  await page.getByText('Enter takes it, Esc leaves it').waitFor();
  await page.locator('#shelf-search').focus();
  await page.mouse.move(1200, 300);
  await eventually(shown, 0, 'and is gone when it is left');
  await page.keyboard.press('ArrowDown');
  await eventually(shown, 1, 'arrowed to, too');
  await page.keyboard.press('ArrowRight');
  await eventually(() => canvas(page).getByText('What people say').count(), 1, 'the one beside it');
  await edit(page, () => page.keyboard.press('Enter'));
  assert.equal((await names()).length, before.length + 1);
  await command(page, '/');
  await page.locator('[data-purpose="Call to action"]').click();
  const mark = await page.locator('#overview .insert').first().boundingBox();
  const item = await page.locator('.shelf-item:visible').first().boundingBox();
  await edit(page, () => drag(page, middle(item), middle(mark)));
  assert.equal((await names())[0], 'Call to action', 'dropped on the mark at the top');
});

test('the kind of business chooses stand-in words and pictures', async () => {
  await command(page, '/');
  await page.locator('#shelf-business').click();
  await page.getByRole('option', { name: 'Lodging' }).click();
  await eventually(
    () => page.locator('#shelf-business').getAttribute('aria-label'),
    'Words and pictures for: Lodging',
    'chosen',
  );
  await page.getByRole('button', { name: 'Sections', exact: true }).click();
  await page.locator('[data-purpose="Welcome"]:visible').click();
  await edit(page, () => page.locator('.shelf-item:visible', { hasText: 'Welcome with a card' }).click());
  const section = canvas(page).locator('section', { hasText: 'Nine quiet rooms above the harbour' });
  assert.equal(await section.count(), 1);
  const scene = section.locator('img').first();
  assert.match(await scene.getAttribute('src'), /^\/scenes\//);
  assert.ok(await scene.evaluate((e) => e.complete && e.naturalWidth > 0), 'it is drawn');
});

test('a section is kept on the Shelf, found there, and a favourite stands apart', async () => {
  await page.locator('.overview-item', { hasText: 'Notices' }).last().locator('.overview-go').click();
  await settled(page);
  await more(page, 'Keep on the Shelf');
  const dialog = page.getByRole('dialog', { name: 'Keep on the Shelf' });
  assert.equal(await dialog.getByLabel('Name').inputValue(), 'Notices');
  await dialog.getByLabel('Name').fill('Harbour notices');
  await dialog.getByLabel('Purpose').selectOption('Notices');
  await dialog.getByLabel(/For all my sites/).check();
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Enter');
  await page.getByText('“Harbour notices” is on the Shelf now').waitFor();
  await page.locator('#stage').focus();
  await command(page, '/');
  await page.getByRole('button', { name: 'Kept', exact: true }).click();
  await eventually(
    () => page.locator('.shelf-item:visible strong').allTextContents(),
    ['Harbour notices'],
    'what is kept, drawn',
  );
  await page.locator('[data-purpose="Notices"]:visible').waitFor(); // and found by what it is for
  assert.equal(await page.locator('.shelf-item:visible svg.drawing').count(), 1);
  await page.getByRole('button', { name: 'Blocks', exact: true }).click();
  await page
    .locator('li', { has: page.locator('[data-kind="map"]') })
    .locator('[data-star]')
    .click();
  await eventually(() => page.locator('[data-star="block:map"]').getAttribute('aria-pressed'), 'true', 'a favourite');
  await page.locator('[data-purpose="Favourites"]:visible').click();
  await eventually(() => page.locator('.shelf-item:visible strong').allTextContents(), ['Map'], 'the favourites');
  assert.deepEqual(await findings(page), []);
  await page.getByLabel('Search sections and blocks').fill('own kept');
  await edit(page, () => page.locator('.shelf-item:visible').first().click());
  await settled(page);
});

test('pictures are uploaded together, described, turned, and not deleted unasked', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/library`);
  const folder = tmp();
  const svg = (fill) =>
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200"><rect width="300" height="200" fill="${fill}"/></svg>`;
  fs.writeFileSync(path.join(folder, 'red.svg'), svg('#a33'));
  fs.writeFileSync(path.join(folder, 'blue.svg'), svg('#33a'));
  fs.writeFileSync(path.join(folder, 'broken.png'), 'no picture at all');
  const items = page.locator('.library-item');
  const n = await items.count();
  await page
    .locator('#library-files')
    .setInputFiles(['red.svg', 'broken.png', 'blue.svg'].map((f) => path.join(folder, f)));
  await eventually(() => items.count(), n + 2, 'two of three are there');
  await page.locator('#library-progress .failed', { hasText: 'broken.png' }).waitFor();
  await page.getByRole('button', { name: 'Not used' }).click();
  await eventually(
    () => page.locator('.library-tile:visible').evaluateAll((all) => all.map((t) => t.ariaLabel).slice(0, 2)),
    ['blue.svg', 'red.svg'],
    'those that no page shows',
  );
  await page.getByRole('button', { name: 'All', exact: true }).click();
  const rows = async () => (await page.locator('.library-tile').first().boundingBox()).height;
  const high = await rows();
  await page.getByLabel('Size').fill('220');
  await eventually(rows, 220, 'as large as one likes');
  assert.notEqual(high, 220);
  await page.getByLabel('Search the library').fill('skarva');
  await eventually(() => page.locator('.library-item:visible').count(), 1, 'found by name');
  const skarva = page.locator('.library-item', { has: page.locator('.library-tile[title="skarva.png"]') });
  await skarva.locator('.library-tile').click();
  await skarva.getByLabel('Alternative text').fill('Cliffs in the evening');
  await skarva.getByRole('button', { name: 'Keep' }).click();
  await eventually(() => skarva.getByLabel('Alternative text').inputValue(), 'Cliffs in the evening', 'kept');
  await eventually(
    async () => /1440 × 1080.*Islands/.test(await skarva.locator('.library-facts').innerText()),
    true,
    'its size, and where it is used',
  );
  await skarva.locator('summary').click();
  await skarva.getByRole('button', { name: 'Turn right' }).click();
  await skarva.locator('.library-facts', { hasText: '1080 × 1440' }).waitFor();
  await skarva.locator('summary').click();
  await skarva.getByRole('button', { name: 'Delete' }).click();
  await page.getByText('skarva.png on Home, Islands').waitFor();
  assert.deepEqual(await findings(page), []);
});

test('what a visitor sends with a form arrives', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/ask-for-a-berth/bench`);
  await ready(page);
  await publish(page);
  const href = await page.getByRole('link', { name: /Open it/ }).getAttribute('href');
  const visitor = await newPage(await browser.newContext());
  await visitor.goto(href);
  await visitor.getByLabel('Your name').fill('Somebody');
  await visitor.getByLabel('Where to answer').fill('somebody@example.org');
  await visitor.getByLabel('Day of the sailing').fill('2026-12-01');
  await visitor.getByLabel('Sailing (required)', { exact: true }).selectOption('09:00 Skarva');
  await visitor.getByLabel('Sheep').check();
  await visitor.getByLabel('You may keep this').check();
  await visitor.getByRole('button', { name: 'Ask for the berth' }).click();
  await visitor.getByRole('heading', { name: 'Thank you' }).waitFor();
  assert.deepEqual(await findings(visitor), []);
  await visitor.getByRole('link', { name: 'Back to the page' }).click();
  await visitor.getByRole('heading', { name: 'Ask for a berth', level: 1 }).waitFor();
  assert.deepEqual(visitor.wrong, []);
  await page.goto(`${plot.app}/sites/skerry-line/entries?box=all`);
  assert.deepEqual(await findings(page), []);
  // Unless the machine is busy it was filled in faster than people can, and is set apart.
  const row = page.getByRole('link', { name: /Somebody/ });
  if ((await row.count()) === 0) {
    await page.getByRole('link', { name: /^Spam/ }).click();
    await page.getByRole('checkbox', { name: /^Select Somebody/ }).check();
    await page.getByRole('button', { name: 'Not spam' }).click();
    await page.getByText('1 entry is from people.').waitFor();
    await page.getByRole('link', { name: /^All/ }).click();
  }
  // What is opened is read at once, and stays where it was.
  assert.match((await row.textContent()) ?? '', /New:/);
  await row.click();
  await page.getByRole('heading', { name: 'Somebody' }).waitFor();
  assert.doesNotMatch((await row.textContent()) ?? '', /New:/);
  assert.equal(await row.getAttribute('aria-current'), 'true');
  assert.deepEqual(await findings(page), []);
  // It is answered by mail, deleted, and had back.
  await page.getByText('Answer by mail').click();
  await page.keyboard.type('It is kept for you.');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByText('Dana Holm answered').waitFor();
  await page.getByRole('button', { name: 'Delete' }).last().click();
  await page.getByText('1 entry deleted.').waitFor();
  assert.equal(await row.count(), 0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await row.waitFor();
  // By keys: the arrows go through the list, Enter opens, and Space selects.
  await row.focus();
  await page.keyboard.press('End');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await page.locator('#entry-who').waitFor();
  await page.locator('.inbox-marks input').first().focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Star', exact: true }).first().press('Enter');
  await eventually(() => page.getByRole('link', { name: 'Starred 1' }).count(), 1, 'it is starred');
  // It goes on to the site's address, and is seen as the stand-in for a mail server got it.
  await page.getByRole('link', { name: 'Mail and keeping' }).click();
  await page
    .getByRole('cell', { name: /^Taken by the mail server/ })
    .first()
    .waitFor();
  assert.deepEqual(await findings(page), []);
  await page
    .getByRole('link', { name: /the mail to office@skerry/ })
    .first()
    .click();
  await page.getByText('As the stand-in for a mail server got it').waitFor();
  await page.frameLocator('iframe.mail-page').getByText('somebody@example.org').waitFor();
  assert.match(await page.getByLabel('The mail as plain text').textContent(), /Where to answer: somebody@example\.org/);
  assert.deepEqual(await findings(page), []);
  await page.getByRole('link', { name: 'Back to the mails' }).click();
  await page.getByRole('link', { name: 'Back to the Inbox' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV of all entries' }).click(),
  ]);
  assert.match(fs.readFileSync(await file.path(), 'utf8'), /^Sent,Form,.*Where to answer.*\r\n.*somebody@example\.org/);
  await page.getByRole('link', { name: 'Mail and keeping' }).click();
  await page.getByLabel('What they entered').fill('somebody@example.org');
  await page.getByRole('button', { name: 'Erase', exact: true }).click();
  await page.getByText('1 erased on').waitFor();
  assert.equal(await page.getByText('somebody@example.org').count(), 0);
});

test('a link to a draft is made, opens what it is for, is listed and ended', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/previews`);
  await page.getByLabel('Opens').selectOption({ label: 'Fares' });
  await page.getByLabel('1 day').check();
  await page.getByRole('button', { name: 'Make the link' }).click();
  await page.getByRole('img', { name: 'The link as a QR code' }).waitFor();
  const href = await page.getByRole('region', { name: 'Your link' }).getByRole('link').getAttribute('href');
  assert.ok(href.startsWith(`${plot.draft}/try/`), href);
  assert.deepEqual(await findings(page), []);
  const guest = await newPage(await browser.newContext());
  await guest.goto(href);
  await guest.getByRole('heading', { level: 1 }).first().waitFor();
  await guest.goto(href.replace(/fares\/$/, ''));
  await guest.getByRole('heading', { name: 'This preview is of one page' }).waitFor();
  await page.goto(`${plot.app}/sites/skerry-line/previews`);
  assert.equal(await page.getByText(href).count(), 0, 'it is shown once');
  const links = page.getByRole('region', { name: 'Links that work' });
  await links.locator('form', { hasText: 'Fares' }).getByRole('button', { name: 'End it' }).click();
  await page.waitForLoadState();
  await guest.goto(href);
  await guest.getByRole('heading', { name: 'This preview has ended' }).waitFor();
  assert.deepEqual(guest.wrong, []);
});

test('owners see who did what, and operators what failed', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/audit`);
  const log = page.getByRole('region', { name: 'Audit log' });
  for (const act of ['signed in', 'page published', 'preview link made', 'form entries exported'])
    await log.getByRole('cell', { name: act, exact: true }).first().waitFor();
  assert.deepEqual(await findings(page), []);
  await page.goto(`${plot.app}/operator`);
  await page.getByText('No job has failed.').waitFor();
  assert.deepEqual(await findings(page), []);
});

test('a published menu opens on a phone without a script, and tabs go by arrow keys', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/sailings/bench`);
  await ready(page);
  await publish(page);
  const href = await page.getByRole('link', { name: /Open it/ }).getAttribute('href');
  const still = await browser.newContext({ javaScriptEnabled: false, viewport: { width: 375, height: 700 } });
  const phone = await still.newPage();
  await phone.goto(href);
  assert.equal(await phone.getByRole('navigation', { name: 'Menu' }).getByRole('link', { name: 'Fares' }).count(), 0);
  await phone.getByRole('button', { name: 'Menu' }).press('Enter');
  await phone.getByRole('navigation', { name: 'Menu' }).getByRole('link', { name: 'Fares' }).waitFor();
  await phone.keyboard.press('Escape');
  await eventually(
    () => phone.getByRole('navigation', { name: 'Menu' }).getByRole('link', { name: 'Fares' }).count(),
    0,
    'Escape closes it',
  );
  const visitor = await newPage(await browser.newContext());
  await visitor.goto(href);
  await visitor.getByRole('tab', { name: 'Summer' }).focus();
  await visitor.keyboard.press('ArrowRight');
  assert.equal(await visitor.getByRole('tab', { name: 'Winter' }).getAttribute('aria-selected'), 'true');
  assert.ok(await visitor.getByText('From November to March').isVisible());
  assert.ok(!(await visitor.getByText('From May to September every').isVisible()));
  assert.deepEqual(visitor.wrong, []);
  assert.deepEqual(page.wrong, []);
});
