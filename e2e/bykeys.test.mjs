// Ten tasks from signing in to publishing, done by somebody who has keys and what a screen reader is told, and nothing
// else: controls are come to by Tab and arrows, known by role and name, and what happened is known by what is said.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { eventually, forgetSaid, listen, ready, said, settled } from './person.mjs';

let pressed = 0; // keys besides typed words
const tasks = []; // their names, with how many were pressed before

const begin = (name) => tasks.push({ name, before: pressed });

async function key(...names) {
  for (const name of names) {
    await page.keyboard.press(name);
    pressed++;
  }
}
const type = (text) => page.keyboard.type(text, { delay: 12 });

/** Goes on by a key until what has the focus is of a role and name, as the accessibility tree has them. */
async function goTo(role, name, by = 'Tab', most = 45) {
  const wanted = page.getByRole(role, { name });
  for (let i = 0; i < most; i++) {
    const there = await wanted.evaluateAll((all) => all.includes(document.activeElement));
    if (there) return;
    await key(by);
  }
  assert.fail(`${role} ${name} isn't come to by ${by}`);
}

async function hears(want) {
  await eventually(
    async () => (await said(page)).some((one) => want.test(one)) || (await said(page)),
    true,
    String(want),
  );
  await settled(page);
}
const forget = () => forgetSaid(page);
/** Does a command by its name. */
async function command(name) {
  await forget();
  await key('Control+k');
  await type(name);
  await page.locator('#panel-commands [role="option"]').first().waitFor();
  await key('Enter');
}

before(() => listen(page));

test('from signing in to publishing by keys and what is said alone', async () => {
  // 1. Sign in: the first field has the focus.
  begin('Sign in');
  await page.goto(plot.app);
  await page.locator('input[name="email"]:focus').waitFor(); // which browsers give as they first draw the page
  await type(designer.email);
  await key('Tab');
  await type(designer.password);
  await key('Enter');
  await page.getByRole('heading', { name: 'Sites' }).waitFor();

  // 2. Go to the site, and to a new page.
  begin('Go to the site, and to a new page');
  await goTo('link', 'Skerry Line');
  await key('Enter');
  await page.getByRole('link', { name: 'New page' }).waitFor();
  await goTo('link', 'New page');
  await key('Enter');

  // 3. Name it, which has the focus; Enter makes it.
  begin('Name the page');
  await page.getByLabel('Name', { exact: true }).waitFor();
  await type('Harbour evening');
  await key('Enter');
  await ready(page);
  await settled(page);

  // 4. A first section, found by its plain name.
  begin('A first section, found by its plain name');
  await command('insert from');
  await type('welcome in the middle');
  await page.locator('.shelf-item:visible').first().waitFor();
  await key('Enter');
  await hears(/^Add a section/);

  // 5. Its words: Tab to the first, Enter writes, Tab goes on to the next, Escape ends it.
  begin('Its words');
  await forget();
  await key('Tab');
  await hears(/, in /);
  await key('Enter');
  await page.locator('#format').waitFor();
  await type('Music when the boats are in');
  await key('Tab');
  await settled(page);
  await type('From six until the last boat leaves.');
  await key('Escape');
  await settled(page);

  // 6. A second section, and a block into it.
  begin('A second section, and a block into it');
  await command('insert from');
  await type('timetable');
  await page.locator('.shelf-item:visible').first().waitFor();
  await key('Enter');
  await hears(/Timetable/);

  // 7. It goes up, and back down again by undo.
  begin('The section goes up, and back by undo');
  await command('section earlier');
  await hears(/^(Move|Order).*2 of 4/);
  await forget();
  await key('Control+z');
  await hears(/^Undone: /);

  // 8. A duplicate, which is deleted.
  begin('A duplicate, which is deleted');
  await command('duplicate');
  await hears(/^Duplicate/);
  await forget();
  await key('Delete');
  await hears(/^Delete/);

  // 9. A value of the section by its label in the Tray: its padding.
  begin('The padding of the section, by its label in the Tray');
  await forget();
  await key('F6');
  await goTo('textbox', 'Padding top', 'Tab', 60);
  await key('Control+a');
  await type('120');
  await key('Enter');
  await hears(/padding top/i);
  await key('Escape');

  // 10. The phone, where what Checks found is told; and publishing.
  begin('Look at the phone and at what Checks found, and publish');
  await forget();
  await key('3');
  await hears(/^Phone, 375 px|Phone/);
  await command('publish');
  await page.getByText(/^Published/).waitFor();

  console.log(`# ${pressed} keys besides typed words`);
  if (process.env.OPENPLOT_EFFORT) write();
  assert.ok(pressed <= 260, `${pressed} keys`);
});

/** Its part of docs/effort.md, which bin/effort writes before. */
function write() {
  const file = new URL('../docs/effort.md', import.meta.url);
  const mark = '\n## By keys and ear alone\n';
  const [rest] = fs.readFileSync(file, 'utf8').split(mark);
  const lines = tasks.map((t, i) => `| ${t.name} | ${(tasks[i + 1]?.before ?? pressed) - t.before} |`);
  fs.writeFileSync(
    file,
    `${rest.trimEnd()}
${mark}
Ten tasks by somebody who has keys and what is said, and nothing else (\`e2e/bykeys.test.mjs\`): how many keys each takes besides
typed words. At most 260 are to be pressed.

| task | keys |
|---|---|
${lines.join('\n')}
| **all** | ${pressed} |
`,
  );
}
