// Replays three try-outs as somebody new would do them, from the screen alone: what is searched is called by its
// plain name, what looks pressable is pressed, the obvious field is filled. Counts the acts: a press, a drag, a text
// typed, a key that does something. Writes its part of docs/effort.md.
import fs from 'node:fs';
import { launch } from './chromium.mjs';
import { designer, start } from './openplot.mjs';
import { canvas, kept, newPage, ready, settled, signIn } from './person.mjs';

const plot = await start();
const browser = await launch();
const page = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
await page.addLocatorHandler(page.locator('dialog.ask'), (q) => q.locator('[value="yes"]').click()); // where something is broken
page.setDefaultTimeout(8000);
process.on('uncaughtException', async (e) => {
  console.error(e);
  await browser.close();
  await plot.stop();
  process.exit(1);
});

const count = { presses: 0, drags: 0, texts: 0, keys: 0 };
const acts = () => count.presses + count.drags + count.texts + count.keys;
const pace = 25; // ms between letters

async function press(locator) {
  await locator.scrollIntoViewIfNeeded().catch(() => {});
  await locator.click();
  count.presses++;
  await settled(page);
}
async function key(...names) {
  for (const name of names) {
    await page.keyboard.press(name);
    count.keys++;
    await settled(page);
  }
}
async function type(text) {
  await page.keyboard.type(text, { delay: pace });
  count.texts++;
}
async function fill(locator, text) {
  await press(locator);
  await locator.selectText();
  await type(text);
}
/** A press on the canvas, in the midst of what is pressed; twice is two presses. */
async function pressOn(locator, twice = false) {
  await locator.evaluate((e) => e.scrollIntoView({ block: 'center', behavior: 'instant' }));
  await settled(page);
  const b = await locator.boundingBox();
  const [x, y] = [b.x + Math.min(b.width / 2, 40), b.y + Math.min(b.height / 2, 14)];
  if (twice) await page.mouse.dblclick(x, y);
  else await page.mouse.click(x, y);
  count.presses += twice ? 2 : 1;
  await settled(page);
}

/** Words of one's own, as long as those that stand there. */
const own = 'The harbour lights come on at six and the band plays until the last boat has left for the islands. ';
function words(like) {
  const n = Math.max(like.trim().length, 3);
  return own
    .repeat(Math.ceil(n / own.length))
    .slice(0, n)
    .trim();
}

const writing = () =>
  canvas(page)
    .locator('[contenteditable="true"], [contenteditable="plaintext-only"]')
    .first()
    .textContent({ timeout: 300 })
    .catch(() => null);

/** Puts a section in below the last one: the mark, a plain name, the first that is found. Its element is given. */
async function put(name, first = name) {
  await press(page.locator('.insert-add').last());
  await type(name);
  const item = page
    .locator('.shelf-item:visible')
    .filter({ has: page.locator('strong', { hasText: new RegExp(`^${first}$`) }) })
    .first();
  const before = await kept(page);
  await press(item);
  while ((await kept(page)) === before) await page.waitForTimeout(50);
  await settled(page);
  const id = await page.evaluate(() => document.querySelector('.overview-item.selected')?.dataset.section);
  return canvas(page).locator(`[data-section="${id}"]`);
}

/** Writes over all texts of a section: the first is pressed twice, Tab goes to the next one. How many they were. */
async function write(section) {
  const first = section
    .locator('h1, h2, h3, p, [data-part]')
    .filter({ visible: true })
    .filter({ hasText: /\w/ })
    .first();
  if (!(await first.count())) return 0; // an empty section
  await pressOn(first, true);
  let n = 0;
  for (; n < 40; n++) {
    const now = await writing();
    if (now === null) break;
    await type(words(now));
    await key('Tab');
  }
  await settled(page);
  return n;
}

/** Chooses another picture for those of a section: each is pressed twice. */
async function picture(section, most = 6) {
  const all = section.locator('img, [data-part="picture"]').filter({ visible: true });
  const n = Math.min(await all.count(), most);
  for (let i = 0; i < n; i++) {
    await pressOn(all.nth(i), true);
    if (await page.locator('#picker[open]').count())
      await press(page.locator('#picker [data-picture]:visible').nth(i + 1));
  }
  return n;
}

async function zones() {
  await press(page.getByRole('button', { name: 'Phone' }).first());
  const mend = page.getByRole('button', { name: /^Mend what Checks found here/ });
  if (await mend.count()) await press(mend.first());
  await press(page.getByRole('button', { name: 'Desktop' }).first());
}

async function publish() {
  await press(page.getByRole('button', { name: 'Publish', exact: true }));
  await page.getByText(/^Published/).waitFor();
}

async function blank(site, name) {
  await page.goto(`${plot.app}/sites/${site}`);
  await press(page.getByRole('link', { name: 'New page' }));
  await fill(page.getByLabel('Name', { exact: true }), name);
  await press(page.getByRole('button', { name: 'Add the page' }));
  await ready(page);
  await settled(page);
}

const results = [];
async function tryOut(name, aim, f) {
  if (process.env.ONLY) return;
  for (const k of Object.keys(count)) count[k] = 0;
  await f();
  results.push({ name, aim, ...count, acts: acts() });
  console.log(JSON.stringify(results.at(-1)));
}

await signIn(page, plot.app, designer);

await tryOut('An event page of nine sections', 240, async () => {
  await blank('skerry-line', 'Harbour evening');
  for (const [asked, found, pictures] of [
    ['hero', 'Welcome over a picture', 0],
    ['about', 'About, with a picture', 1],
    ['programme', 'Timetable', 0],
    ['people', 'People in a row', 3],
    ['gallery', 'Pictures in columns', 6],
    ['prices', 'Price cards', 0],
    ['questions', 'Questions', 0],
    ['map', 'Map and contact', 0],
    ['sign up', 'Form on a card', 0],
  ]) {
    const section = await put(asked, found);
    const before = acts();
    const n = await write(section);
    if (pictures) await picture(section, pictures);
    console.log(`  ${found}: ${n} texts, ${acts() - before} acts`);
  }
  await zones();
  await publish();
});

/** A page of ready-made sections in one's own words and pictures. */
async function compose(name, sections) {
  await blank('skerry-line', name);
  for (const [asked, found, pictures] of sections) {
    const section = await put(asked, found);
    await write(section);
    if (pictures) await picture(section, pictures);
  }
  await zones();
  await publish();
}

await tryOut('Two photo pages: a home and offers', 290, async () => {
  await compose('Photographs', [
    ['hero', 'Welcome over a picture', 0],
    ['gallery', 'Pictures in rows', 6],
    ['about', 'About, with a picture', 1],
    ['quote', 'One voice', 0],
    ['call', 'Call on one line', 0],
  ]);
  await compose('Offers', [
    ['hero', 'Welcome beside a picture', 1],
    ['prices', 'Price cards', 0],
    ['gallery', 'Pictures in columns', 6],
    ['questions', 'Questions', 0],
    ['form', 'Form on a card', 0],
  ]);
});

await tryOut('A museum’s site of six pages, with columns and a free section', 280, async () => {
  await page.goto(plot.app);
  await press(page.getByRole('link', { name: 'New site' }));
  await fill(page.getByLabel('Name', { exact: true }), 'Museum of small boats');
  await press(page.locator('.tile').nth(2));
  await press(page.locator('.house-choice').nth(3));
  await press(page.getByRole('button', { name: 'Begin the site' }));
  await page.getByRole('link', { name: 'New page' }).waitFor();
  const site = `${plot.app}/sites/museum-of-small-boats`;
  const made = await page.getByRole('link', { name: /^Settings of / }).count();
  for (let i = made; i < 6; i++) {
    await page.goto(site);
    await press(page.getByRole('link', { name: 'New page' }));
    await type(`Room ${i}`); // the name has the focus
    await key('Enter');
    await ready(page);
    const section = await put('hero', 'Welcome with a card');
    await write(section);
  }
  // Each page's first words, and its first picture, are made the museum's own.
  await page.goto(site);
  const benches = await page
    .locator('a[href$="/bench"]')
    .evaluateAll((all) => [...new Set(all.map((a) => a.getAttribute('href')))]);
  for (const bench of benches.slice(0, made)) {
    await page.goto(site);
    await press(page.locator(`a[href="${bench}"]`).first());
    await ready(page);
    await settled(page);
    const first = canvas(page)
      .locator('[data-section]')
      .filter({ has: page.locator('h1, h2') })
      .first();
    await write(first);
    await picture(first, 1);
  }
  // Columns, and a free section in which two blocks are put by hand.
  const columns = await put('two columns', 'Two columns');
  await write(columns);
  await put('empty', 'Empty section');
  for (const name of ['Heading', 'Picture']) {
    await key('/');
    await press(page.locator('#shelf [data-sort="blocks"]'));
    await press(page.locator(`.shelf-item[data-kind="${name.toLowerCase()}"]:visible`).first());
    if (name === 'Picture') await press(page.locator('#picker [data-picture]:visible').first());
  }
  await page.goto(site);
  await press(page.getByRole('link', { name: /^Publish/ }).first());
  await press(page.getByRole('button', { name: 'Publish the ticked pages' }));
  await page.getByText('Published.').waitFor();
});

// Every ready-made section, from its name to words and pictures of one's own: what is pressed over the section chosen,
// the words, and the pictures and what each becomes.
await blank('skerry-line', 'Every section');
await page.keyboard.press('/');
await page.locator('#shelf [data-sort="sections"]').click();
const sections = await page
  .locator('#shelf [data-sort-of="sections"] .shelf-item strong')
  .evaluateAll((all) => [...new Set(all.map((e) => e.textContent))]);
const over = [];
for (const name of sections.filter((n) => new RegExp(process.env.ONLY ?? '').test(n))) {
  for (const k of Object.keys(count)) count[k] = 0;
  const section = await put(name);
  const texts = await write(section);
  const worded = count.presses;
  const pictures = await picture(section, 30);
  const chosen = 1 + 2 * pictures;
  over.push({ name, texts, pictures, words: worded - 1, all: count.presses - chosen });
  console.log(JSON.stringify(over.at(-1)));
  await page.locator('.overview-item.selected').first().click();
  await page.keyboard.press('Delete');
  await settled(page);
}

await browser.close();
await plot.stop();

// Its parts of docs/effort.md, after what bin/effort writes before.
const file = new URL('../docs/effort.md', import.meta.url);
const marks = ['\n## As somebody new\n', '\n## Every ready-made section\n', '\n## By keys and ear alone\n'];
let text = fs.readFileSync(file, 'utf8');
const part = (i) => (text.includes(marks[i]) ? text.split(marks[i])[1].split('\n## ')[0] : '');
const most = (all, of) => Math.max(0, ...all.map(of));
const parts = [
  results.length
    ? `
The same, from the screen alone (\`e2e/newcomer.mjs\`): sections are searched by a plain name, the first words pressed twice and Tab goes to the
next ones, pictures are pressed twice and chosen. An act is a press, a drag, a text typed, or a key that does something. The museum’s pages have the words and the picture of their first
section made its own, the others’ words stay as they come.

| try-out | acts | at most | presses | texts | keys |
|---|---|---|---|---|---|
${results.map((r) => `| ${r.name} | ${r.acts} | ${r.aim} | ${r.presses} | ${r.texts} | ${r.keys} |`).join('\n')}
`
    : part(0),
  `
From its plain name to words and pictures of one’s own: what is pressed besides the section that is chosen, each picture and what it
becomes. The second press on a picture can be Enter instead.

| sections | words | pictures | presses over, words alone | presses over, pictures too |
|---|---|---|---|---|
${[...new Set(over.map((o) => o.pictures))]
  .sort((m, n) => m - n)
  .map((n) => over.filter((o) => o.pictures === n))
  .map((all) => {
    const texts = all.map((o) => o.texts);
    const range =
      Math.min(...texts) === most(texts, Number) ? texts[0] : `${Math.min(...texts)} to ${Math.max(...texts)}`;
    return `| ${all.length} | ${range} | ${all[0].pictures} | ${most(all, (o) => o.words)} | ${most(all, (o) => o.all)} |`;
  })
  .join('\n')}
`,
  part(2),
];
text = text.split(marks[0])[0].trimEnd() + parts.map((p, i) => (p ? `\n${marks[i]}${p.trimEnd()}` : '')).join('');
fs.writeFileSync(file, `${text}\n`);
console.log(results);
