// Every command of the table, done by its name from the list of commands: it says what came of it, or why it can't be
// done, or it leads to a dialog or a screen that has a name; and whatever can be pressed then has a name too, as the
// accessibility tree has it. Some commands in each run; with OPENPLOT_MEASURE=1 all.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { openBench, ready, settled, signIn } from './person.mjs';
import { measuring, random } from './samples.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

const bench = () => `${plot.app}/sites/skerry-line/pages/home/bench`;

/** What is to be selected before a command, by what it needs: a section of Home, and how often Tab is pressed in it. */
const first = {
  '': ['Winter', 1],
  any: ['Winter', 1],
  block: ['Winter', 1],
  cells: ['Winter', 1],
  several: ['Winter', 2],
  container: ['Winter', 2],
  series: ['Winter', 1], // which is none, and says so
};

/** Selects what a command needs, by keys. */
async function selectFor(needs) {
  const [section, tabs] = first[needs];
  await page.locator('.overview-item', { hasText: section }).locator('.overview-go').click();
  await settled(page);
  await page.locator('#stage').focus();
  for (let i = 0; i < tabs; i++) await page.keyboard.press('Tab');
  if (needs === 'several') await page.keyboard.press('Control+a');
  await settled(page);
}

/** What can be seen and heard of the Bench. */
const state = () =>
  page.evaluate(() => ({
    said: ['told', 'say']
      .map((id) => document.getElementById(id)?.textContent.trim())
      .join(' ')
      .trim(),
    open: [...document.querySelectorAll('dialog[open], [popover]:popover-open')]
      .map((e) => {
        const by = document.getElementById(e.getAttribute('aria-labelledby') ?? '');
        return e.getAttribute('aria-label') ?? by?.textContent ?? e.querySelector('h1, h2, h3')?.textContent ?? '?';
      })
      .filter((name) => name !== 'Commands'), // the list itself
    at: location.pathname,
  }));

/** Controls without a name, in the accessibility tree. */
async function nameless() {
  const tree = await page.locator('body').ariaSnapshot();
  return tree
    .split('\n')
    .filter((line) => /^\s*- (button|link|textbox|combobox|checkbox|radio|slider|option)( \[.*\])?:?$/.test(line));
}

test('every command says what came of it, opens what has a name, or leads on', async (t) => {
  const table = await page.evaluate(() => JSON.parse(document.getElementById('commands').textContent));
  assert.ok(table.length > 60, `${table.length} commands`);
  const next = random(new Date().getDate());
  const some = table.filter((c) => c.id !== 'commands' && (measuring || next() < 0.15));
  const silent = [];
  for (const c of some) {
    await page.goto(bench());
    await ready(page);
    await selectFor(c.needs ?? '');
    await page.waitForTimeout(400); // what was selected is said by then
    await page.evaluate(() => ['told', 'say'].forEach((id) => (document.getElementById(id).textContent = '')));
    const tab = page
      .context()
      .waitForEvent('page', { timeout: 3000 })
      .catch(() => null);
    await page.keyboard.press('Control+k');
    await page.keyboard.type(c.name, { delay: 8 });
    await page.locator('#panel-commands [role="option"]').first().waitFor();
    const chosen = await page.locator('#panel-commands [role="option"]').locator('span').first().textContent();
    assert.equal(chosen, c.name, 'it is found by its name');
    await page.keyboard.press('Enter');
    const heard = async () => {
      const now = await state().catch(() => null); // between two screens
      if (!now) return null;
      const moved = await page.evaluate(() => !document.activeElement.matches('body, #stage, #panel-commands *'));
      return now.said || now.open.length || now.at !== new URL(bench()).pathname || moved ? now : null;
    };
    let now = null;
    for (let i = 0; i < 30 && !now; i++) {
      await page.waitForTimeout(100);
      now = await heard();
      if (!now && c.id === 'try' && (await tab)) now = { said: 'a tab', open: [] };
    }
    await page.keyboard.press('Escape');
    if (!now) silent.push(c.id);
    else if (now.open.includes('?')) silent.push(`${c.id}: opens what has no name`);
    else {
      t.diagnostic(`${c.id}: ${(now.said || now.open.join(', ') || now.at).slice(0, 110)}`);
      const bare = await nameless();
      if (bare.length) silent.push(`${c.id}: ${bare.slice(0, 3).join(' ')}`);
    }
    if (now?.at === new URL(bench()).pathname) await page.keyboard.press('Control+z');
    await settled(page).catch(() => {});
  }
  assert.deepEqual(silent, []);
});
