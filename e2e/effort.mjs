// Replays everyday tasks as a designer does them and counts the presses, drags and keys that
// they take; what comes of each is looked at on the canvas. Writes docs/effort.md.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { launch } from './chromium.mjs';
import { designer, start } from './openplot.mjs';
import { hand } from './hand.mjs';
import { canvas, drag, eventually, newPage, openBench, ready, signIn } from './person.mjs';
import { carryOut, scenarios } from './scenarios.mjs';

const plot = await start();
const browser = await launch();
const page = await newPage(
  await browser.newContext({
    viewport: { width: 1280, height: 800 },
    permissions: ['clipboard-read', 'clipboard-write'],
  }),
);
await page.addLocatorHandler(page.locator('dialog.ask'), (q) => q.locator('[value="yes"]').click()); // where something is broken
page.setDefaultTimeout(6000);
process.on('uncaughtException', async (e) => {
  console.error(e);
  await browser.close();
  await plot.stop();
  process.exit(1);
});
await signIn(page, plot.app, designer);
await openBench(page);

const h = hand(page);
const { press, pressOn, keys, type, enter, tray: ofTray, pause, counted } = h;
const tray = () => ofTray;

const tasks = [];
async function task(name, how, f) {
  h.reset();
  await f();
  tasks.push({ name, how, ...counted });
}

const css = (locator, property) => locator.evaluate((e, p) => getComputedStyle(e)[p], property);
const ground = (text) => canvas(page).locator('section', { hasText: text }).first();

await task(
  'A section’s ground becomes a picture with a gradient over it, three quarters of the viewport high',
  'Overview, Picture and Overlay of Surface, a ready gradient, 75 of Size',
  async () => {
    await press(page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go'));
    await press(page.getByRole('tab', { name: 'Picture' }));
    await press(page.locator('#f-picture'));
    await press(page.locator('#picker [data-picture]').first());
    await press(page.getByRole('tab', { name: 'Overlay' }));
    await press(tray().locator('[data-opens="gradient"][data-for="f-filter-gradient"]'));
    await press(page.locator('#panel-gradient .gradient-ready button').first());
    await keys('Escape');
    await press(page.locator('#tray [data-cluster="size"]'));
    await press(tray().getByRole('button', { name: '75 % of the viewport' }));
    const s = ground('Next departures');
    await eventually(
      async () => /linear-gradient.*url|image-set/.test(await css(s, 'backgroundImage')),
      true,
      'a picture with a gradient',
    );
  },
);

await task(
  'One of three titles is styled, the others get the same',
  'weight, spacing and case of one, then “Make it the style’s”',
  async () => {
    await pressOn(canvas(page).getByRole('heading', { name: 'Inner Holm', level: 3 }));
    await enter('#f-font-weight', '300');
    await enter('#f-letter-spacing', '0.12');
    await press(tray().getByRole('group', { name: 'Case' }).getByRole('button', { name: 'Uppercase' }));
    await press(tray().getByRole('button', { name: 'Make it the style’s' }));
    for (const name of ['Inner Holm', 'Skarva', 'Langey']) {
      await eventually(
        () => css(canvas(page).getByRole('heading', { name, level: 3 }).first(), 'fontWeight'),
        '300',
        name,
      );
    }
  },
);

await task(
  'A see-through button with a hairline that turns white when it is pointed at',
  'None, a border and its colour, then Hover of States',
  async () => {
    const b = canvas(page).getByText('See today’s sailings');
    await pressOn(b);
    await enter('#f-background', 'none');
    await enter('#f-border-width', '1');
    await enter('#f-border-color', 'white'.replace('white', '#fff'));
    await press(page.locator('#tray [data-cluster="states"]'));
    await press(page.getByRole('tab', { name: 'Hover' }));
    await enter('#f-hover-background', '#fff');
    await enter('#f-hover-color', 'Deep');
    await eventually(() => css(b, 'backgroundColor'), 'rgb(255, 255, 255)', 'white when pointed at');
  },
);

await task(
  'Three cards, the middle one 40 px lower',
  'an empty section in columns, a card duplicated twice, one field of the middle one',
  async () => {
    await page.locator('#stage').focus();
    await keys('/');
    await type('empty section');
    await keys('Enter');
    await press(tray().getByRole('group', { name: 'Arrangement' }).getByRole('button', { name: 'Columns' }));
    await page.locator('#stage').focus();
    await keys('/');
    await type('card');
    await page.waitForTimeout(200);
    await press(page.locator('.shelf-item:visible', { has: page.locator('strong', { hasText: /^Card$/ }) }).first());
    await page.locator('#stage').focus();
    await keys('Control+d');
    await keys('Control+d');
    const cards = canvas(page).locator('article');
    await eventually(() => cards.count(), 3, 'three cards');
    const middle = cards.nth(1);
    await middle.evaluate((e) => e.scrollIntoView({ block: 'center' }));
    await pause();
    const box = await middle.boundingBox();
    await page.mouse.click(box.x + 6, Math.min(box.y + 40, 560)); // its edge, where nothing stands
    counted.presses++;
    await pause();
    await enter('#f-margin-top', '40');
    const tops = await cards.evaluateAll((all) => all.map((e) => e.getBoundingClientRect().top));
    assert.ok(Math.abs(tops[1] - tops[0] - 40) < 0.6 && Math.abs(tops[2] - tops[0]) < 0.6, `${tops}`);
  },
);

await task(
  'A hard white-to-clear gradient at 45 % over a picture',
  'Overlay of the section’s Surface, a ready gradient, full opacity',
  async () => {
    await press(page.locator('.overview-item', { hasText: 'Welcome' }).locator('.overview-go'));
    await press(page.getByRole('tab', { name: 'Overlay' }));
    await press(tray().locator('[data-opens="gradient"][data-for="f-filter-gradient"]'));
    await press(page.locator('#panel-gradient .gradient-ready button').last());
    await keys('Escape');
    await enter('#f-filter-opacity', '100');
    await eventually(
      async () =>
        (await css(ground('Small boats'), 'backgroundImage')).startsWith(
          'linear-gradient(90deg, rgb(255, 255, 255) 45%, rgba(255, 255, 255, 0) 45%)',
        ),
      true,
      'a hard edge',
    );
  },
);

await task(
  'A page of eight ready-made sections, one of them moved',
  'a blank page; the Shelf by its key, words that find a section, Enter; a drag in the Overview',
  async () => {
    await page.goto(`${plot.app}/sites/skerry-line`);
    await press(page.getByRole('link', { name: 'New page' }));
    await press(page.getByLabel('Name', { exact: true }));
    await type('Regatta');
    await press(page.locator('.ready-pages label', { hasText: 'Blank page' }));
    await press(page.getByLabel(/With the top bar/));
    await press(page.getByRole('button', { name: 'Add the page' }));
    await ready(page);
    for (const words of [
      'see-through',
      'welcome over',
      'three features',
      'about, with a',
      'band of',
      'three voices',
      'call in',
      'footer in',
    ]) {
      await keys('/');
      await type(words);
      await page.locator('[data-filled]').waitFor();
      await page.waitForTimeout(150);
      await keys('Enter');
      await page.locator('#stage').focus();
    }
    const names = () => page.locator('.overview-name > span:first-child').allTextContents();
    await eventually(async () => (await names()).length, 9, 'eight and the empty one');
    const [from, to] = [
      await page.locator('.overview-item', { hasText: 'Figures' }).boundingBox(),
      await page.locator('.overview-item', { hasText: 'Features' }).boundingBox(),
    ];
    await drag(page, { x: from.x + 60, y: from.y + 12 }, { x: to.x + 60, y: to.y + 4 });
    counted.drags++;
    await eventually(
      async () => (await names()).indexOf('Figures') < (await names()).indexOf('Features'),
      true,
      'moved',
    );
  },
);

await task('Three of its titles in one’s own words', 'each pressed, Enter, Ctrl+A, written over, Escape', async () => {
  const headings = canvas(page).locator('section :is(h1, h2)');
  for (const [i, text] of ['The regatta', 'Three races in one day', 'What it takes'].entries()) {
    await pressOn(headings.nth(i));
    await keys('Enter', 'Control+a');
    await type(text);
    await keys('Escape');
    await eventually(() => headings.nth(i).textContent(), text, text);
  }
});

await task(
  'Six pictures from files in a gallery',
  'a gallery from the Shelf, the files dropped on it together',
  async () => {
    await page.locator('#stage').focus();
    await keys('/');
    await type('pictures in columns');
    await page.waitForTimeout(150);
    await keys('Enter');
    const gallery = canvas(page).locator('section', { hasText: 'From our album' }).locator('ul');
    const b = await gallery.locator('img').first().boundingBox();
    await page.evaluate(
      async ({ x, y }) => {
        const data = new DataTransfer();
        for (let i = 0; i < 6; i++) {
          const c = new OffscreenCanvas(300, 200);
          c.getContext('2d').fillRect(0, 0, 40 * i, 200);
          data.items.add(new File([await c.convertToBlob()], `${i}.png`, { type: 'image/png' }));
        }
        const at = { dataTransfer: data, clientX: x, clientY: y, bubbles: true, cancelable: true };
        for (const name of ['dragover', 'drop'])
          document.getElementById('overlay').dispatchEvent(new DragEvent(name, at));
      },
      { x: b.x + 30, y: b.y + 30 },
    );
    counted.drags++;
    await eventually(() => gallery.locator('img:not([src^="/scenes/"]):visible').count(), 6, 'six of one’s own');
  },
);

await task('Five page links in a menu', 'the menu, its own list, then Add one and a page, five times', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/regatta/bench`);
  await ready(page);
  await page.locator('#stage').focus();
  await keys('/');
  await type('menu');
  await page.locator('[data-filled]').waitFor();
  await press(page.locator('.shelf-item[data-kind="menu"]:visible').first());
  const menu = canvas(page).locator('nav').last();
  await press(tray().locator('button[data-opens="options"][aria-label^="Source: "]'));
  await press(page.locator('#panel-options').getByRole('option', { name: 'Its own list', exact: true }));
  for (const name of ['Sailings', 'Fares', 'Islands', 'Crew', 'Notices']) {
    await press(page.locator('#entry-add'));
    await press(page.locator('#link-offers').getByText(name, { exact: true }));
    await eventually(async () => (await menu.locator('a').allTextContents()).at(-1), name, name);
  }
});

await task(
  'A card’s picture swapped for an icon in green',
  'the picture deleted, an icon from the Shelf in its place, its drawing and its colour',
  async () => {
    await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
    await ready(page);
    await press(page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go'));
    const section = canvas(page).locator('section', { hasText: 'each a day out' });
    const was = await section.locator('img').count();
    await pressOn(section.locator('img').first());
    await keys('Delete');
    await page.locator('#stage').focus();
    await keys('/');
    await type('icon');
    await page.locator('[data-filled]').waitFor();
    await press(page.locator('.shelf-item[data-kind="icon"]:visible').first());
    await press(tray().locator('[data-opens="icons"]').first());
    await type('tree');
    await press(page.locator('#panel-icons [data-icon="tree"]').first());
    await press(tray().locator('[data-opens="colour"][data-for="f-color"]'));
    await press(page.locator('#panel-colour .colour-house button').nth(4));
    await keys('Escape');
    await eventually(() => section.locator('img').count(), was - 1, 'one picture fewer');
    await eventually(() => section.locator('svg').count(), 1, 'and an icon');
  },
);

await task(
  'A form of three fields with labels of one’s own',
  'a form from the Shelf, the Label of each of its fields',
  async () => {
    await page.locator('#stage').focus();
    await keys('/');
    await type('form');
    await page.locator('[data-filled]').waitFor();
    await press(page.locator('.shelf-item[data-kind="form"]:visible').first());
    for (const [i, label] of ['Boat', 'Your mail', 'What you carry'].entries()) {
      await press(page.locator(`#row-${i}`));
      await enter(`#e-${i}-label`, label);
    }
    await eventually(
      async () =>
        (await canvas(page).locator('form label').allTextContents())
          .slice(0, 3)
          .map((l) => l.replace(/ \(.*/, '').trim()),
      ['Boat', 'Your mail', 'What you carry'],
      'the labels',
    );
  },
);

for (const [i, s] of scenarios.entries())
  tasks.push({ name: s.name, how: s.how, ...(await carryOut(page, plot, s, i)) });

// A site is made, arranged and published.
await page.goto(plot.app);
await task(
  'A site of four pages for a restaurant, from nothing to published',
  'New site, its name, its business, a house style; then Publish, and all of it at once',
  async () => {
    await press(page.getByRole('link', { name: 'New site' }));
    await press(page.getByLabel('Name', { exact: true }));
    await type('Kelp and salt');
    await press(page.locator('.tile', { hasText: 'Food and drink' }));
    await press(page.locator('.house-choice', { hasText: 'Meadow' }));
    await press(page.getByRole('button', { name: 'Begin the site' }));
    await press(page.getByRole('link', { name: /^Publish/ }).first());
    await press(page.getByRole('button', { name: 'Publish the ticked pages' }));
    await page.getByText('Published.').waitFor();
  },
);
const site = `${plot.app}/sites/kelp-and-salt`;
await page.goto(site);
await task('A page gets another address, and what leads to it follows', 'Settings, the address, Enter', async () => {
  await press(page.getByRole('link', { name: 'Settings of Menu' }));
  await press(page.locator('#set-segment'));
  await keys('Control+a');
  await type('card');
  await keys('Enter');
  await page.getByText('Kept.').waitFor();
});
await page.goto(`${site}/pages/home/bench`);
await ready(page);
await canvas(page).locator('footer').scrollIntoViewIfNeeded();
await task(
  'The footer of four pages says something else',
  'its words pressed twice and written over: it is one section, shared',
  async () => {
    await pressOn(canvas(page).locator('footer p').first());
    await keys('Enter', 'Control+a');
    await type('Open when the flag is up.');
    await keys('Escape');
    await page.getByText('Changed on 3 other pages too.').waitFor();
  },
);
await page.goto(`${site}/publish`);
await task('All of that published, and taken back in one press', 'Publish the ticked pages; Go back', async () => {
  await press(page.getByRole('button', { name: 'Publish the ticked pages' }));
  await press(page.getByRole('button', { name: 'Go back to publication 1' }));
  await page.getByText('Visitors see that publication again.').waitFor();
});

// The site around the Bench, as somebody does it who knows none of its keys.
const rail = (name) => press(page.getByRole('link', { name: new RegExp(`^${name}`) }).first());
await page.goto(plot.app);
await task(
  'A site of four pages with a sub-menu and a link elsewhere, its footer changed once, a share picture, published',
  'New site; Menus, one item under another by Alt and an arrow, Add a link; the footer on the Bench; Settings of a page; Publish',
  async () => {
    await press(page.getByRole('link', { name: 'New site' }));
    await type('The Lantern');
    await press(page.locator('.tile', { hasText: 'Food and drink' }));
    await press(page.getByRole('button', { name: 'Begin the site' }));
    await rail('Menus');
    await press(page.getByRole('button', { name: 'Move About' }));
    await keys('Alt+ArrowRight');
    await press(page.getByRole('button', { name: 'Add a link' }));
    const link = page.locator('.menu-row').last();
    await press(link.getByLabel('Label'));
    await type('Tables');
    await press(link.getByLabel('Link'));
    await type('https://example.org');
    await keys('Tab');
    await page.locator('#menu-said', { hasText: 'Kept' }).waitFor();
    await rail('Pages');
    await press(page.locator('.page-go', { hasText: 'Home' }));
    await ready(page);
    await pressOn(canvas(page).locator('footer p').first());
    await keys('Enter', 'Control+a');
    await type('Open at five.');
    await keys('Escape');
    await page.getByText('Changed on 3 other pages too.').waitFor();
    await press(page.getByRole('link', { name: 'The Lantern' }));
    await press(page.getByRole('link', { name: 'Settings of About' }));
    await press(page.getByText('Picture for shared links'));
    await press(page.locator('.share-choice input').nth(1));
    await page.getByText('Kept.').waitFor();
    await rail('Publish');
    await press(page.getByRole('button', { name: 'Publish the ticked pages' }));
    await page.getByText('Published.').waitFor();
  },
);
await task(
  'The site taken offline, and brought back',
  'Publish, Take it offline for a while, Bring it back',
  async () => {
    await rail('Publish');
    await press(page.getByText('Take it offline for a while'));
    await press(page.getByRole('button', { name: 'Take the site offline' }));
    await press(page.getByRole('button', { name: 'Bring it back online' }));
    await page.getByText('The site is online again.').waitFor();
  },
);
await task(
  'A news page like the former one, and a slider of pages on Home, both published',
  'New page as one of the site’s own; a page list from the Shelf and its Layout; Publish',
  async () => {
    await rail('Pages');
    await press(page.getByRole('link', { name: 'New page' }));
    await type('May');
    await press(page.getByText('Or as one of the site’s own pages'));
    await press(page.locator('.ready-own label', { hasText: 'About' }));
    await press(page.getByRole('button', { name: 'Add the page' }));
    await ready(page);
    await press(page.locator('.top-page'));
    await press(page.locator('.top-menu').getByRole('link', { name: 'Home' }));
    await ready(page);
    await keys('/');
    await type('page list');
    await page.locator('[data-filled]').waitFor();
    await press(page.locator('.shelf-item[data-kind="page-list"]:visible').first());
    await press(tray().getByRole('button', { name: 'Slider', exact: true }).first());
    await eventually(
      () => canvas(page).locator('ul[tabindex="0"]', { hasText: 'May' }).locator('li').count(),
      4,
      'four other pages in a slider',
    );
    await press(page.getByRole('link', { name: 'The Lantern' }));
    await rail('Publish');
    await press(page.getByRole('button', { name: 'Publish the ticked pages' }));
    await page.getByText('Published.').waitFor();
  },
);
await task(
  'A contact form from the Shelf to the first mail that it brings',
  'a form from the Shelf, Publish; a visitor fills it in and sends it; Inbox, See it',
  async () => {
    await page.goto(`${plot.app}/sites/skerry-line/pages/fares/bench`);
    await ready(page);
    await keys('/');
    await type('form on a card');
    await page.locator('[data-filled]').waitFor();
    await keys('Enter');
    await eventually(() => canvas(page).locator('form').count(), 1, 'a form is on the page');
    await press(page.getByRole('button', { name: 'Publish', exact: true }));
    const visitor = await newPage(await browser.newContext());
    await visitor.goto(await page.getByRole('link', { name: /Open it/ }).getAttribute('href'));
    const fields = visitor.locator('form :is(input, textarea):not([type="hidden"]):visible');
    for (const field of await fields.all())
      await field.fill((await field.getAttribute('type')) === 'email' ? 'ida@berg.example' : 'Two bicycles');
    await visitor.waitForTimeout(2500); // as long as a person takes at least
    await visitor.locator('form button').click();
    counted.presses++;
    await visitor.getByRole('heading', { name: 'Thank you' }).waitFor();
    await page.goto(`${plot.app}/sites/skerry-line/entries/keeping`);
    counted.presses += 2; // Inbox in the rail, then “Mail and keeping”
    await press(page.getByRole('link', { name: /the mail to office@skerry/ }).first());
    await page.frameLocator('iframe.mail-page').getByText('ida@berg.example').waitFor();
  },
);

await browser.close();
await plot.stop();

const lines = tasks.map((t) => `| ${t.name} | ${t.how} | ${t.presses} | ${t.drags} | ${t.keys} |`);
fs.writeFileSync(
  new URL('../docs/effort.md', import.meta.url),
  `# What everyday tasks take

\`bin/effort\` replays them on the demo as a designer does them, looks at what comes of each on the canvas, and counts. A press is a
click or a tap, a key one stroke, those that write a value included; scrolling isn't counted.

| task | how | presses | drags | keys |
|---|---|---|---|---|
${lines.join('\n')}
`,
);
console.log(lines.join('\n'));
