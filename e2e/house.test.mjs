// Sets the house style as a designer would, and sees the pages follow.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, context, page, plot } from './opened.mjs';
import { designer, tmp, writer } from './openplot.mjs';
import { canvas, eventually, newPage, publish, ready, signIn } from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
});

const specimen = () => page.frameLocator('iframe');
const ratio = (row) =>
  page
    .locator('#contrasts tr')
    .filter({ has: page.getByRole('cell', { name: row, exact: true }) })
    .locator('.measure')
    .textContent();
const field = (label) => page.getByLabel(label, { exact: true });
/** What a choice shows, and choosing another one. */
const opener = (label) => page.getByRole('button', { name: new RegExp(`^${label}: `) });
const set = async (label) => (await opener(label).textContent()).trim();
async function choose(label, offer) {
  await opener(label).click();
  await page.getByRole('option', { name: offer, exact: true }).click();
}
const colourOf = (locator, property = 'backgroundColor') =>
  locator.evaluate((e, p) => getComputedStyle(e)[p], property);

test('opens from the site, and from the Bench', async () => {
  await page.getByRole('link', { name: 'Skerry Line' }).click();
  await page.getByRole('link', { name: 'House style' }).click();
  assert.equal(await page.getByText('Colours by name').count(), 1);
  assert.equal(await page.getByRole('button', { name: 'Undo' }).isDisabled(), true);
});

test('contrasts follow while a colour is typed, and nothing is kept yet', async () => {
  const before = await ratio('Accent on Ground');
  await field('Accent').fill('#e8b33c');
  await eventually(() => ratio('Accent on Ground'), '1.92', 'the ratio of what is typed');
  assert.equal(await page.getByRole('button', { name: 'Undo' }).isDisabled(), true);
  await field('Accent').fill('#1d5f6b');
  await eventually(() => ratio('Accent on Ground'), before, 'back to what it was');
});

test('a colour is kept, the specimen and every page follow, and undo brings it back', async () => {
  const button = () => specimen().getByText('Ask for a berth');
  const was = await colourOf(button());
  await field('Accent').fill('hsl(350 70% 30%)');
  await field('Accent').press('Enter');
  await eventually(() => colourOf(button()), 'rgb(130, 23, 41)', 'the specimen’s button');
  await eventually(() => field('Accent').inputValue(), '#821729', 'as it is kept');
  const bench = await newPage(context);
  await bench.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(bench);
  assert.equal(
    await colourOf(canvas(bench).getByText('18 minutes from the steps'), 'color'),
    'rgb(130, 23, 41)',
    'a page that uses the accent',
  );
  await bench.close();
  await page.getByRole('button', { name: 'Undo' }).click();
  await eventually(() => colourOf(button()), was, 'as before');
});

test('a mistake is told, and stays to be put right', async () => {
  await field('Words').fill('reddish');
  await field('Words').press('Enter');
  await eventually(() => page.locator('.house-say .problem').count(), 1, 'a problem');
  assert.match(await page.locator('.house-say').textContent(), /Words: "reddish" is no colour: write it like #1d5f6b/);
  assert.equal(await field('Words').inputValue(), 'reddish');
  assert.equal(await field('Words').getAttribute('aria-invalid'), 'true');
  await field('Words').fill('#1f2a2c');
  await field('Words').press('Enter');
  await eventually(() => page.locator('.house-say .problem').count(), 0, 'no problem');
});

test('a pairing sets headings and reading, by keys', async () => {
  await page.getByRole('button', { name: /^Signal/ }).focus();
  await page.keyboard.press('Enter');
  await eventually(() => page.getByRole('button', { name: /^Signal/ }).getAttribute('aria-pressed'), 'true', 'chosen');
  await eventually(
    async () => (await colourOf(specimen().locator('h1').first(), 'fontFamily')).startsWith('Oswald'),
    true,
    'the specimen’s heading',
  );
  assert.equal(await set('Headings'), 'Oswald');
});

test('another house style is tried on over a page, and left or taken', async () => {
  const heading = () => specimen().locator('h1').first();
  await page.getByLabel('Seen on').selectOption('Home');
  await eventually(async () => (await heading().textContent()).startsWith('Small boats'), true, 'the page');
  await page.getByRole('button', { name: 'Phone' }).click();
  await eventually(
    () => page.locator('#specimen').evaluate((e) => e.contentWindow.innerWidth),
    375,
    'at the phone’s width',
  );
  await page.getByRole('button', { name: /^Meadow/ }).click();
  await eventually(
    async () => (await colourOf(heading(), 'fontFamily')).includes('DM Serif Display'),
    true,
    'tried on',
  );
  assert.equal(await set('Headings'), 'Oswald');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await eventually(async () => (await colourOf(heading(), 'fontFamily')).startsWith('Oswald'), true, 'left');
  await field('Keep the present one as').fill('Before');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: /^Printshop/ }).click();
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await eventually(() => set('Headings'), 'Source Serif 4', 'taken');
  await page.getByRole('button', { name: /^Before/ }).click();
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await eventually(() => set('Headings'), 'Oswald', 'what was kept, taken');
  await page.getByLabel('Seen on').selectOption('a specimen');
  await eventually(async () => (await heading().textContent()).startsWith('The last boat'), true, 'the specimen');
});

test('text styles: a size per zone, fluid, case, and all by a scale', async () => {
  const display = () => specimen().locator('h1').first();
  await page.getByLabel('Display, size on Desktop').fill('40+24');
  await page.getByLabel('Display, size on Desktop').press('Enter');
  await eventually(() => page.getByLabel('Display, size on Desktop').inputValue(), '64', 'a sum is worked out');
  const fluid = page.getByRole('button', { name: 'Display, fluid' });
  for (const now of ['false', 'true']) {
    await fluid.click();
    await eventually(() => fluid.getAttribute('aria-pressed'), now, 'fluid, which it was to begin with');
  }
  const width = await page.locator('iframe').evaluate((f) => f.contentWindow.innerWidth);
  await eventually(
    async () => Math.round(parseFloat(await colourOf(display(), 'fontSize')) * 100),
    Math.round((38 + ((width - 375) * (64 - 38)) / (1280 - 375)) * 100),
    'by the two-point form at the specimen’s width',
  );
  await page.getByRole('group', { name: 'Label, case' }).getByRole('button', { name: 'AA', exact: true }).click();
  await eventually(() => colourOf(specimen().getByText('Label · 08:10'), 'textTransform'), 'uppercase', 'the label');
  await page.getByLabel('H1, size on Phone').fill('a lot');
  await page.getByLabel('H1, size on Phone').press('Enter');
  await eventually(() => page.getByText("H1 size can't be").count(), 1, 'a problem that names it');
  await page.getByLabel('Type scale').fill('18 1.2');
  await page.getByRole('button', { name: 'Set sizes' }).click();
  await eventually(() => page.getByLabel('Body, size on Desktop').inputValue(), '18', 'scaled');
  assert.equal(await page.getByLabel('Lead, size on Desktop').inputValue(), '21.5');
});

test('changes made faster than they are answered are all kept, and what is typed meanwhile stays', async () => {
  const size = (zone) => page.getByLabel(`H2, size on ${zone}`);
  await page.route('**/house/edits', async (route) => {
    await new Promise((r) => setTimeout(r, 400));
    await route.continue();
  });
  for (const [zone, px] of [
    ['Desktop', '41'],
    ['Tablet', '35'],
    ['Phone', '29'],
  ]) {
    await size(zone).fill(px);
    await size(zone).press('Enter');
  }
  await page.getByLabel('H3, size on Desktop').fill('27');
  await eventually(() => size('Phone').getAttribute('value'), '29', 'the last is answered');
  await page.unroute('**/house/edits');
  assert.deepEqual(await Promise.all(['Desktop', 'Tablet', 'Phone'].map((zone) => size(zone).getAttribute('value'))), [
    '41',
    '35',
    '29',
  ]);
  assert.equal(await page.locator('.house-say .problem').count(), 0);
  assert.equal(await page.getByLabel('H3, size on Desktop').inputValue(), '27');
  await page.getByLabel('H3, size on Desktop').press('Enter');
  await eventually(() => page.getByLabel('H3, size on Desktop').getAttribute('value'), '27', 'kept as well');
});

test('colours by name are added, used and guarded', async () => {
  await page.locator('#add-name').fill('Buoy red');
  await page.locator('#add-value').fill('#c22f2f');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await eventually(() => page.getByLabel('Buoy red', { exact: true }).count(), 1, 'the new colour');
  await page.getByRole('button', { name: 'Remove Deep', exact: true }).click();
  await eventually(() => page.locator('.house-say .problem').count(), 1, 'refused');
  assert.match(await page.locator('.house-say').textContent(), /stands on 8 pages/);
  await page.getByRole('button', { name: 'Remove Buoy red' }).click();
  await eventually(() => page.getByLabel('Buoy red', { exact: true }).count(), 0, 'gone');
});

test('a shadow is cast by the light that is dragged, and seen where it is used before it is kept', async () => {
  const shown = () =>
    specimen()
      .locator('body')
      .evaluate((b) =>
        [...b.querySelectorAll('*')]
          .map((e) => getComputedStyle(e).boxShadow)
          .filter((s) => s !== 'none')
          .join('; '),
      );
  const was = await shown();
  await page.getByRole('button', { name: 'Edit Card' }).click();
  const light = await page.getByRole('slider', { name: 'Light' }).boundingBox();
  await page.mouse.move(light.x + light.width / 2, light.y + light.height / 2);
  await page.mouse.down();
  await page.mouse.move(light.x - 20, light.y - 20, { steps: 4 });
  await eventually(async () => (await shown()) !== was, true, 'tried on the specimen');
  assert.equal(await page.locator('#sh-card').inputValue(), '0px 6px 20px 0px #00000024', 'and not kept');
  await page.mouse.up();
  await eventually(
    async () => /^[1-9]\d*px [1-9]\d*px 20px 0px /.test(await page.locator('#sh-card').inputValue()),
    true,
    'kept',
  );
  const kept = await page.locator('#sh-card').inputValue();
  await page.keyboard.press('Escape');
  await page.locator('#sh-card').fill('a little');
  await page.locator('#sh-card').press('Enter');
  await eventually(
    () => page.getByText('write x, y, blur and spread in px and a colour').count(),
    1,
    'a problem that says what would be right',
  );
  await page.locator('#sh-card').fill(kept);
  await page.locator('#sh-card').press('Enter');
  await eventually(() => page.locator('.house-say .problem').count(), 0, 'no problem');
});

test('what a choice offers is shown as what it does, and tried', async () => {
  const ground = () =>
    specimen()
      .locator('body')
      .evaluate((e) => getComputedStyle(e).backgroundColor);
  const was = await ground();
  await opener('Page background').click();
  await page.getByRole('option', { name: 'Deep', exact: true }).hover();
  await eventually(async () => (await ground()) !== was, true, 'tried on');
  await page.keyboard.press('Escape');
  await eventually(ground, was, 'left');
  await choose('Look', 'Filled');
  await eventually(() => set('Look'), 'Filled', 'kept');
});

test('a palette is suggested from a picture, and taken', async () => {
  await page.getByRole('button', { name: 'From langey.png' }).click();
  await eventually(() => page.locator('.suggested li').count(), 7, 'a colour for each role');
  const accent = await page
    .locator('.suggested li', { hasText: /^Accent/ })
    .locator('.measure')
    .textContent();
  assert.notEqual(await field('Accent').inputValue(), accent);
  await page.getByRole('button', { name: 'Take this palette' }).click();
  await eventually(() => field('Accent').inputValue(), accent, 'taken');
  for (const words of ['Words', 'Quiet words', 'Accent', 'Second accent']) {
    for (const ground of ['Ground', 'Quiet ground'])
      assert.ok(Number(await ratio(`${words} on ${ground}`)) >= 4.5, `${words} on ${ground}`);
  }
  await page.getByRole('button', { name: 'Undo' }).click();
  await eventually(async () => (await field('Accent').inputValue()) !== accent, true, 'as before');
});

test('is carried as a file', async () => {
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a file' }).click();
  const file = `${tmp()}/skerry.house.json`;
  await (await saved).saveAs(file);
  const house = JSON.parse(fs.readFileSync(file));
  assert.equal(house.format, 'open-plot-house-style');
  house.house.palette.find((w) => w.token === 'accent').value = '#334455';
  fs.writeFileSync(file, JSON.stringify(house));
  const take = async (name) => {
    await page.getByLabel('A house style’s file').setInputFiles(name);
    await page.getByRole('button', { name: 'Take it here' }).click();
  };
  await take(file);
  await eventually(() => field('Accent').inputValue(), '#334455', 'taken');
  const bad = `${tmp()}/bad.json`;
  fs.writeFileSync(bad, '{"format":"poem"}');
  await take(bad);
  await eventually(() => page.getByText("File isn't a house style of version 1").count(), 1, 'refused, and why');
  await page.getByRole('button', { name: 'Undo' }).click();
  await eventually(async () => (await field('Accent').inputValue()) !== '#334455', true, 'as before');
});

test('a value of a block’s own becomes the house style’s, and follows it', async () => {
  const bench = await newPage(context);
  await bench.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(bench);
  await canvas(bench).getByText('Next departures').click();
  await eventually(() => bench.locator('#f-color').count(), 1, 'its Tray');
  await bench.locator('#f-color').fill('#5b2a86');
  await bench.keyboard.press('Enter');
  await bench.getByRole('button', { name: 'Add Text colour to the house style' }).click();
  await bench.locator('#promote-name').fill('Plum');
  await bench.keyboard.press('Enter');
  await eventually(() => bench.locator('#f-color').inputValue(), 'Plum', 'the name in its place');
  assert.equal(await bench.getByRole('button', { name: 'Add Text colour to the house style' }).count(), 0);
  await bench.getByRole('link', { name: 'House style' }).click();
  await bench.getByLabel('Plum', { exact: true }).fill('#0a6e31');
  await bench.keyboard.press('Enter');
  await eventually(
    () => colourOf(bench.frameLocator('#specimen').getByText('Next departures'), 'color'),
    'rgb(10, 110, 49)',
    'the page follows',
  );
  await bench.getByRole('link', { name: 'Back to the Bench' }).click();
  await ready(bench);
  await bench.close();
});

test('a font of one’s own is uploaded, set, laid out as the browser does, and published in part', async () => {
  await page.reload(); // the house style was changed on another page
  await page.locator('#own-file').setInputFiles('/usr/share/fonts/truetype/liberation/LiberationSerif-Bold.ttf');
  await page.getByLabel('Fallback').selectOption('serif');
  await page.getByRole('button', { name: 'Add the font' }).click();
  await eventually(() => page.locator('.own-fonts strong').textContent(), 'Liberation Serif', 'its name');
  await choose('Headings', 'Liberation Serif');
  await eventually(
    async () =>
      (await colourOf(specimen().locator('h1').first(), 'fontFamily')).startsWith('"Liberation Serif", serif'),
    true,
    'the specimen',
  );
  const bench = await newPage(context);
  await bench.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(bench);
  // No promise ends in the canvas, since no script runs in it.
  const look = () =>
    canvas(bench)
      .locator('h1')
      .evaluate((e) => [
        [...e.ownerDocument.fonts].find((f) => f.family.includes('Liberation')).status,
        e.getBoundingClientRect().width,
        e.getBoundingClientRect().height,
        e.closest('section').getBoundingClientRect().height,
      ]);
  await eventually(async () => (await look())[0], 'loaded', 'the font in the canvas');
  const drawn = await look();
  // Core's height of the section stands in the Overview.
  const said = await bench.locator('.overview-item').filter({ hasText: 'Welcome' }).locator('.measure').textContent();
  assert.ok(Math.abs(Number(said) - drawn[3]) <= 1, `core says ${said}, the browser ${drawn[3]}`);
  await publish(bench);
  await bench.getByRole('link', { name: /Open it/ }).waitFor();
  const live = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await live.goto(`${plot.site}/`);
  const seen = await live.locator('h1').evaluate(async (e) => {
    await document.fonts.ready;
    return [
      [...document.fonts].find((f) => f.family.includes('Liberation')).status,
      e.getBoundingClientRect().width,
      e.getBoundingClientRect().height,
    ];
  });
  assert.deepEqual(seen, drawn.slice(0, 3), 'the subset is as wide as the whole');
  await live.close();
  await bench.close();
});

test('passes axe, and is for designers only', async () => {
  assert.deepEqual(await findings(page), []);
  assert.deepEqual(page.wrong, []);
  const other = await browser.newContext();
  const theirs = await newPage(other);
  await signIn(theirs, plot.app, writer);
  const answer = await theirs.goto(`${plot.app}/sites/skerry-line/house`);
  assert.equal(answer.status(), 403);
  await other.close();
});
