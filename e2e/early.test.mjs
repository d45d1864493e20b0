// What is entered while the scripts of a screen are still on their way.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { eventually, signIn } from './person.mjs';

const held = 2000; // ms until a script is there

before(async () => {
  await signIn(page, plot.app, designer);
});

/** Opens an address whose deferred scripts come late, and enters something before they do. */
async function early(address, enter) {
  let late = false;
  const hold = async (route) => {
    if (!route.request().url().includes('/shared/early.js')) {
      await new Promise((r) => setTimeout(r, held));
      late = true;
    }
    await route.continue();
  };
  await page.route('**/*.js', hold);
  await page.goto(address, { waitUntil: 'commit' });
  await enter();
  if (late) throw new Error('the scripts were there before all was entered');
  await page.waitForLoadState();
  await page.unroute('**/*.js', hold);
}

test('a new site is tried on by what was entered before the scripts were there', async () => {
  await early(`${plot.app}/new`, async () => {
    await page.getByLabel('Name', { exact: true }).pressSequentially('Kelp & Salt');
    await page.getByLabel('Food and drink').check();
  });
  await eventually(
    () => page.locator('#site-slug').getAttribute('placeholder'),
    'kelp-and-salt',
    'the address follows the name',
  );
  await eventually(
    async () => (await page.locator('.planned-name').allTextContents()).join(),
    'Home,Menu,About,Find us',
    'the pages of a restaurant',
  );
});

test('what keeps itself keeps also what was entered before the scripts were there', async () => {
  const settings = `${plot.app}/sites/skerry-line/settings`;
  const kept = page.waitForResponse((r) => r.request().method() === 'POST');
  await early(settings, async () => {
    await page.getByLabel('Name', { exact: true }).fill('Early Ferries');
    await page.keyboard.press('Tab');
  });
  await kept;
  await page.goto(settings);
  await eventually(() => page.getByLabel('Name', { exact: true }).inputValue(), 'Early Ferries', 'the name is kept');
});

test('what was pressed before the scripts were there is done once they are, and once', async () => {
  await early(`${plot.app}/sites/skerry-line/library`, async () => {
    await page.getByText('Pictures that ship with Open Plot').click();
    const taken = page.getByRole('button', { name: /^Discs/ });
    await taken.click();
    await taken.click(); // as who sees nothing happen does
    await page.getByRole('button', { name: 'Fold' }).click();
  });
  const discs = page.locator('.library-item').filter({ has: page.locator('input[name=name][value="Discs"]') });
  await discs.first().waitFor();
  assert.equal(await discs.count(), 1);
  await eventually(
    () => page.getByRole('button', { name: 'Fold' }).getAttribute('aria-pressed'),
    'true',
    'the rail is folded',
  );
});
