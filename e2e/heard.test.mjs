// What happens is said, for those who hear the Bench, and everything is come to by keys: the live regions are read
// after each act, and whole tasks are done by names and keys alone.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, eventually, forgetSaid, listen, openBench, said, settled, signIn } from './person.mjs';
import { measuring, random } from './samples.mjs';

before(async () => {
  await listen(page);
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** What is said after something is done, once it matches. */
async function hears(want, act, what = String(want)) {
  await forgetSaid(page);
  await act();
  await eventually(async () => (await said(page)).some((one) => want.test(one)) || (await said(page)), true, what);
  await settled(page);
}
const keys =
  (...names) =>
  async () => {
    for (const name of names) await page.keyboard.press(name);
  };

test('the Overview is one stop of Tab, and arrows go on from there', async () => {
  const focused = () =>
    page.evaluate(
      () => document.activeElement.getAttribute('aria-label') ?? document.activeElement.innerText.split('\n')[0],
    );
  assert.equal(
    await page.locator('#overview :is(.overview-go, .insert-add, .overview-unfold)[tabindex="0"]').count(),
    1,
  );
  await page.locator('#overview-search').focus();
  await page.keyboard.press('Tab');
  assert.equal(await focused(), 'Insert before Top bar');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  assert.equal(await focused(), 'Insert between Top bar and Welcome');
  await page.keyboard.press('ArrowDown');
  await hears(/^Section Welcome, 2 of 6, 3 blocks/, keys('Enter'));
  await page.keyboard.press('ArrowRight'); // its blocks
  await page.keyboard.press('ArrowRight');
  await page.waitForFunction(() => document.activeElement.matches('.tree li'));
  await hears(/^Text|^Heading|^Button/, keys('ArrowDown'));
  await page.keyboard.press('ArrowLeft');
  await page.waitForFunction(() => document.activeElement.matches('.overview-go'));
  await page.keyboard.press('Tab');
  assert.ok(await page.evaluate(() => !document.activeElement.closest('#overview')), 'Tab leaves it');
});

test('a block is found by its name, and Enter goes to it', async () => {
  await page.locator('#overview-search').focus();
  await hears(/^\d+ found/, () => page.keyboard.type('winter', { delay: 30 }));
  await hears(/Winter/, keys('Enter'));
  assert.ok(await page.evaluate(() => Boolean(document.activeElement.closest('#overview'))), 'the focus is there');
  await page.locator('#overview-search').fill('');
  await settled(page);
});

test('each thing that is done is said, with what came of it', async () => {
  await page.locator('.overview-item', { hasText: 'Winter' }).locator('.overview-go').click();
  await settled(page);
  await page.locator('#stage').focus();
  await hears(/^[A-Z].*, in Winter weekend, \d of \d, columns \d+ to \d+, rows? /, keys('Tab'));
  await hears(/^\d+ found/, async () => {
    await page.keyboard.press('/');
    await page.locator('#shelf [data-sort="blocks"]').click();
    await page.locator('#shelf-search').fill('divider');
  });
  await hears(/^Add divider\. Divider.*, in Winter weekend/, keys('Enter'));
  await hears(/^Duplicate: Divider.*, columns/, keys('Control+d'));
  await hears(/^Move: Divider.*columns 1 to 12, row \d+/, keys('ArrowDown'), 'the row that it is in now');
  await hears(/^Undone: /, keys('Control+z'));
  await hears(/^Redone: /, keys('Control+Shift+z'));
  await hears(/^Delete: Divider/, keys('Delete'));
  await hears(/^Tablet, 800 px/, keys('2'));
  await hears(/^Desktop, 1280 px/, keys('1'));
  await hears(/^\d selected: /, keys('Control+a'));
  await page.keyboard.press('Escape');
});

test('a value that is refused is a problem that is said at once', async () => {
  await page.locator('.overview-item', { hasText: 'Welcome' }).locator('.overview-go').click();
  await settled(page);
  const field = page.locator('#tray').getByLabel('Padding top', { exact: true });
  await field.fill('12 elephants');
  await page.keyboard.press('Enter');
  const problem = page.locator('#say[role="alert"], .field-say[role="alert"]').first();
  await problem.waitFor();
  assert.ok((await problem.textContent()).trim().length > 8, 'in words');
  await page.keyboard.press('Escape');
});

// What is changed in the Tray by keys keeps the focus there: whatever comes next is meant for the Tray too. Some kinds
// of blocks in each run; with OPENPLOT_MEASURE=1 all.
test('after a value is taken by keys, arrows, Tab, a letter and a digit change nothing but the Tray', async () => {
  const kinds = await page.evaluate(() =>
    [...document.getElementById('kinds').content.querySelectorAll('[data-kind][data-name]')].map((e) => e.dataset.kind),
  );
  assert.ok(kinds.length > 30, `${kinds.length} kinds`);
  const next = random(26);
  const some = measuring ? kinds : ['picture', 'card', kinds[Math.floor(next() * kinds.length)]];
  const outside = () =>
    page.evaluate(() => ({
      width: document.getElementById('showing').textContent,
      sections: document.querySelectorAll('.overview-item').length,
      folded: document.getElementById('tray').classList.contains('folded'),
      shelf: document.getElementById('shelf').open,
      dialogs: document.querySelectorAll('dialog[open]').length,
      blocks: document.querySelector('iframe.canvas').contentDocument.querySelectorAll('[data-block]').length,
    }));
  const wrong = [];
  for (const kind of some) {
    await page.locator('.overview-item', { hasText: 'Winter' }).locator('.overview-go').click();
    await settled(page);
    await page.locator('#stage').focus();
    await page.keyboard.press('/');
    await page.locator('#shelf [data-sort="blocks"]').click();
    const item = page.locator(`.shelf-item[data-kind="${kind}"]:visible`).first();
    if (kind === 'picture' || !(await item.count())) {
      await page.keyboard.press('Escape');
      const picture = canvas(page).locator('[data-block] img').first();
      await picture.evaluate((e) => e.scrollIntoView({ block: 'center' }));
      const b = await picture.boundingBox();
      await page.mouse.click(b.x + 30, b.y + 30);
    } else await item.click();
    await settled(page);
    const controls = await page
      .locator('#tray :is(input, button, textarea)[id]:not([type="hidden"])')
      .evaluateAll((all) =>
        all
          .filter((e) => e.getClientRects().length && (e.matches('input, textarea') || 'op' in e.dataset))
          .map((e) => e.id),
      );
    for (const id of measuring ? controls : controls.filter((_, i) => i % 3 === 0)) {
      const control = page.locator(`[id="${id}"]`);
      if (!(await control.count())) continue; // what it was of is set otherwise by now
      await control.focus();
      const before = await outside();
      const [tag, number] = await control.evaluate((e) => [e.tagName, 'number' in e.dataset]);
      if (tag === 'BUTTON') continue; // a list that opens has its own keys
      await page.keyboard.press(number ? 'ArrowUp' : 'End');
      if (number) await page.keyboard.press('Enter');
      await settled(page);
      for (const key of ['ArrowUp', 'Tab', 'd', '2']) await page.keyboard.press(key);
      await settled(page);
      const after = await outside();
      if (JSON.stringify(after) !== JSON.stringify(before))
        wrong.push(`${kind} ${id}: ${JSON.stringify(before)} ${JSON.stringify(after)}`);
    }
  }
  assert.deepEqual(wrong, []);
});
