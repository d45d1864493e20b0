// What is otherwise in a narrower zone: its order, its words, and where things stand.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { agreeing, canvas, choose, edit, eventually, newPage, openBench, settled, signIn } from './person.mjs';

const names = () => page.locator('.overview-item .overview-name > span:first-child').allTextContents();
const sections = () =>
  canvas(page)
    .locator('body > [data-section]')
    .evaluateAll((all) => all.map((e) => e.getBoundingClientRect().top));
const rises = (list) => list.every((y, i) => !i || y >= list[i - 1]);
const zone = async (key) => {
  await page.locator('#stage').focus();
  await page.keyboard.press(key);
  await settled(page);
};

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

test('a section comes later on phones, and only there', async () => {
  await zone('3');
  const usual = await names();
  await page.locator('.overview-go', { hasText: 'Departures' }).click();
  await settled(page);
  await edit(page, () => page.locator('#order-later').click());
  await page.getByText('On Phone only.').waitFor();
  assert.deepEqual(await findings(page), []);
  const phone = [...usual];
  [phone[2], phone[3]] = [phone[3], phone[2]];
  assert.deepEqual(await names(), phone);
  assert.ok(rises(await sections()), 'the canvas has them in that order');
  await zone('1');
  await eventually(async () => (await names()).join(), usual.join(), 'on desktops it is as it was');
  await zone('3');
  await eventually(async () => (await names()).join(), phone.join(), 'and on phones as it was put');
});

test('it is seen so in what is published, and the document is in the wider order', async () => {
  const [at] = await Promise.all([page.waitForEvent('popup'), page.locator('.top-try').click()]);
  await at.waitForLoadState();
  await at.setViewportSize({ width: 375, height: 800 });
  const tops = await at.locator('main > section').evaluateAll((all) => all.map((e) => e.getBoundingClientRect().top));
  assert.ok(tops[1] > tops[2], 'the second of the document is seen after the third');
  await at.setViewportSize({ width: 1280, height: 800 });
  assert.ok(
    rises(await at.locator('main > section').evaluateAll((all) => all.map((e) => e.getBoundingClientRect().top))),
  );
  await at.close();
});

test('a heading says something shorter on phones', async () => {
  await zone('3');
  const title = canvas(page).getByText('Small boats, three');
  await title.scrollIntoViewIfNeeded();
  await choose(page, title);
  await edit(page, () => page.locator('#words-own').click());
  await page.locator('#stage').focus();
  await page.keyboard.press('Enter');
  await canvas(page).locator('.ProseMirror').waitFor();
  await page.keyboard.type('Sail today');
  await edit(page, () => page.keyboard.press('Escape'));
  const shown = () =>
    canvas(page)
      .locator('h1')
      .first()
      .evaluate((e) => e.innerText);
  await eventually(shown, 'Sail today', 'on phones');
  assert.deepEqual(await findings(page), []);
  await zone('1');
  await eventually(async () => (await shown()).startsWith('Small boats, three'), true, 'on desktops as before');
  const tree = await canvas(page).locator('h1').first().ariaSnapshot();
  assert.ok(!tree.includes('Sail today'), 'what isn’t seen isn’t announced');
});

test('a section is arranged again by the rule', async () => {
  await zone('3');
  const lead = canvas(page).getByText('Foot passengers, bicycles');
  await choose(page, lead);
  const row = () => page.locator('#tray').getByLabel('Rows', { exact: true }).inputValue();
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('ArrowDown'));
  await edit(page, () => page.keyboard.press('ArrowDown'));
  assert.notEqual(await row(), '');
  await eventually(
    () => page.locator('#checks-open').getAttribute('data-grave'),
    'broken',
    'it lies over the button now',
  );
  await page.locator('.top-publish').click(); // asks first, and doesn't then
  const question = page.getByRole('dialog', { name: 'Publish it all the same?' });
  await question.getByText(/broken on this page/).waitFor();
  assert.ok((await question.getByRole('listitem').count()) > 0, 'what is broken is named');
  assert.equal(await page.evaluate(() => document.activeElement.textContent), 'Cancel', 'the focus is on no harm');
  await question.locator('.broken-drawings .drawing').first().waitFor();
  await question
    .getByRole('link', { name: /^(Try it on the canvas|See it at \d+ px)$/ })
    .first()
    .waitFor();
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
  await eventually(() => question.count(), 0, 'Escape is no');
  const publish = await newPage(page.context());
  await publish.goto(`${plot.app}/sites/skerry-line/publish`);
  await publish.locator('.checks-broken').first().waitFor();
  await publish.getByText('Later instead').click();
  await publish.getByLabel('Publish them on').fill(`${new Date().getFullYear() + 1}-01-01T08:00`);
  for (const [does, name] of [
    ['Plan it', 'Plan it'],
    ['Publish the ticked pages', 'Publish'],
  ]) {
    await publish.getByRole('button', { name: does }).click();
    const asked = publish.getByRole('dialog', { name: `${name} all the same?` });
    await asked.getByRole('heading', { name: 'Home' }).waitFor();
    assert.ok((await asked.locator('.broken-drawings .drawing').count()) > 0, 'what is broken is drawn');
    await asked.getByRole('button', { name: 'Cancel' }).click();
    await eventually(() => asked.count(), 0, 'asked before both');
  }
  assert.equal(await publish.getByRole('heading', { name: 'Planned' }).count(), 0, 'nothing is planned');
  await publish.close();
  await page.keyboard.press('Control+K');
  await page.keyboard.type('arrange the section');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(400); // it is tried
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(row, '', 'it follows the rule again');
});

test('all pages of the site are checked in the background, the worst first', async () => {
  await page.goto(`${plot.app}/sites/skerry-line`);
  await page.getByRole('link', { name: /^Checks/ }).click();
  await page.getByRole('heading', { name: 'What breaks on Skerry Line' }).waitFor();
  await page.getByText(/of 8 pages\s+are sound/).waitFor();
  assert.equal(await page.locator('#site-checks tbody tr').count(), 8);
  assert.equal(await page.getByText('not checked yet').count(), 0);
  assert.deepEqual(await findings(page), []);
});

test('the widths of visits lie under the Reach where the site counts them', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/settings`);
  await page.getByRole('button', { name: 'Count visits' }).click();
  await page.getByRole('button', { name: /^Stop/ }).waitFor();
  assert.deepEqual(await findings(page), []);
  await page.goto(`${plot.app}/sites/skerry-line/publish`);
  await agreeing(page, () => page.locator('#publish-now').click());
  await page.waitForLoadState();
  const visit = async (width, more = {}) => {
    const live = await page
      .context()
      .browser()
      .newContext({ viewport: { width, height: 700 } });
    const p = await live.newPage();
    await p.addInitScript((set) => {
      for (const [name, value] of Object.entries(set)) Object.defineProperty(navigator, name, { value });
    }, more);
    const told = more.globalPrivacyControl ? null : p.waitForResponse((r) => r.url().endsWith('/_visits'));
    await p.goto(`${plot.site}/`);
    if (told) assert.equal((await told).status(), 204);
    await live.close();
  };
  for (const width of [375, 390, 1280]) await visit(width);
  await visit(800, { globalPrivacyControl: true }); // who asks not to be followed isn't counted
  await openBench(page);
  await eventually(() => page.locator('#reach-visits rect').count(), 2, 'two steps of widths');
  const heights = await page
    .locator('#reach-visits rect')
    .evaluateAll((all) => all.map((r) => Number(r.getAttribute('height'))));
  assert.equal(heights[0], 24);
  assert.equal(heights[1], 12);
});
