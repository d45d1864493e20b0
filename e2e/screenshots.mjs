// Takes a picture of each main view, from the demo data, for docs/screenshots.
import { launch } from './chromium.mjs';
import { designer, start } from './openplot.mjs';
import { canvas, choose, command, newPage, openBench, publish, ready, settled, signIn } from './person.mjs';

const to = new URL('../docs/screenshots/', import.meta.url).pathname;
const plot = await start();
const browser = await launch();
const page = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
const shot = async (name) => {
  await page.waitForTimeout(400);
  await page.screenshot({ path: `${to}${name}.png` });
};
await page.goto(`${plot.app}/sign-in`);
await signIn(page, plot.app, designer);
const drawn = () =>
  page.waitForFunction(() => [...document.querySelectorAll('.card-drawing')].every((d) => d.querySelector('svg')));
await drawn();
await shot('sites');
await page.getByRole('link', { name: 'Skerry Line' }).click();
await drawn();
await page.getByRole('link', { name: 'Settings of Islands' }).click();
await page.locator('#page-form').waitFor();
await shot('pages');
await page.goto(`${plot.app}/new`);
await page.getByLabel('Name', { exact: true }).fill('Kelp & Salt');
await page.getByLabel('Food and drink').check();
await page.getByLabel('Meadow').check();
await page.waitForTimeout(1500);
await shot('new-site');
await page.goto(`${plot.app}/sites/skerry-line`);
await page.getByRole('link', { name: /^Library/ }).click();
await shot('library');
await page.goBack();
await page.getByRole('link', { name: 'House style' }).click();
await page.getByRole('button', { name: 'From langey.png' }).click();
await page.locator('.suggested').waitFor();
await page.evaluate(() => document.querySelector('.house-settings').scrollTo(0, 0));
await shot('house-style');
await page.getByLabel('Seen on').selectOption('Home');
await page.getByRole('button', { name: /^Meadow/ }).click();
await page.getByRole('button', { name: 'Take it', exact: true }).waitFor();
await page.waitForTimeout(800);
await shot('house-try');
await page.goto(plot.app);
await openBench(page);
await page.locator('.overview-go', { hasText: 'Departures' }).click();
await settled(page);
await choose(page, canvas(page).locator('img').first());
await shot('bench-desktop');
await choose(page, canvas(page).locator('h3', { hasText: 'Today from' }));
await shot('tray-heading');
{
  // several selected
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  const titles = canvas(page).locator('section', { hasText: 'each a day out' }).locator('h3');
  await choose(page, titles.first());
  for (const i of [1, 2]) {
    const b = await titles.nth(i).boundingBox();
    await page.keyboard.down('Shift');
    await page.mouse.click(b.x + 20, b.y + 10);
    await page.keyboard.up('Shift');
    await settled(page);
  }
  await page.locator('.trail', { hasText: '3 blocks' }).waitFor();
  // dragged, with the tree of blocks unfolded
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-unfold').click();
  await settled(page);
  const text = canvas(page).locator('[data-block]').filter({ hasText: 'Boats leave from' }).last();
  await choose(page, text);
  const b = await text.boundingBox();
  await page.mouse.move(b.x + 60, b.y + 15);
  await page.mouse.down();
  for (let i = 1; i <= 20; i++) await page.mouse.move(b.x + 60 + i * 1.5, b.y + 15 + i * 6);
  await page.waitForTimeout(400);
  await shot('bench-dragging');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-unfold').click();
  await page.locator('.overview-go', { hasText: 'Welcome' }).click();
  await settled(page);
}
await page.locator('#stage').focus();
await command(page, '3');
await page.waitForTimeout(600);
await page.locator('.overview-go', { hasText: 'Departures' }).click();
await settled(page);
await choose(page, canvas(page).locator('h3', { hasText: 'Today from' }));
await shot('bench-phone');
await command(page, '1');
await page.waitForTimeout(500);
await command(page, '/');
await page.getByLabel('Search sections and blocks').fill('');
await page.locator('[data-sort="sections"]').click();
await page.locator('[data-purpose="Welcome"]').click();
await page.locator('.shelf-item:visible').last().hover();
await page.waitForTimeout(700);
await shot('shelf');
await page.keyboard.press('Escape');
await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
await settled(page);
await choose(page, canvas(page).getByText('Boats leave from the north steps'));
await page.keyboard.press('Enter');
await page.getByRole('toolbar', { name: 'Text formatting' }).waitFor();
await page.waitForTimeout(300);
await shot('writing');
await page.keyboard.press('Escape');
{
  // a page with faults, at some widths
  const home = `${plot.app}/sites/skerry-line/pages/home`;
  await page.goto(`${home}/bench`);
  await ready(page);
  const change = async (where, zone, setting, value) => {
    const node = await canvas(page)
      .getByText(where)
      .first()
      .evaluate((e) => e.closest('[data-block]').dataset.block);
    await page.evaluate(
      async (command) => {
        const { seq } = (await import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href))
          .page;
        await fetch(`${document.body.dataset.base}/edits`, {
          method: 'POST',
          body: new URLSearchParams({ command: JSON.stringify({ ...command, base: seq }), width: 1280 }),
        });
      },
      { op: 'set', node, zone, setting, value },
    );
    await page.reload();
    await ready(page);
  };
  await change('18 minutes from the steps', 'phone', 'font-size', '11px');
  await change('Cliffs, sea birds', 'desktop', 'color', '#a9b3b1');
  await change('50 minutes from the steps', 'tablet', 'font-size', '10px');
  await page.goto(`${home}/checks`);
  await shot('checks');
}
{
  // a page that changed since it was published, beside what it was
  const fares = `${plot.app}/sites/skerry-line/pages/fares`;
  await page.goto(`${fares}/versions`);
  await page.getByLabel('Name for the page as it is now').fill('Before the new prices');
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.goto(`${fares}/bench`);
  await ready(page);
  await page.locator('.overview-go', { hasText: 'All fares' }).click();
  await settled(page);
  await page.keyboard.press('Control+Shift+ArrowUp');
  await settled(page);
  await choose(page, canvas(page).locator('h1'));
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('What it costs');
  await page.keyboard.press('Escape');
  await settled(page);
  await page.goto(`${fares}/versions`);
  await page.locator('.version', { hasText: 'Before the new prices' }).click();
  await page.waitForTimeout(2000);
  await shot('versions');
  await page.goto(`${plot.app}/sites/skerry-line/publish`);
  await page.waitForFunction(() => !document.querySelector('.row-checks [hx-get], .row-checks[hx-get]'));
  await shot('publish');
}
// All pages of the demo as published, side by side in one picture a width.
await page.goto(`${plot.app}/sites/skerry-line`);
const benches = await page.locator('.page-go').evaluateAll((as) => as.map((a) => a.href));
const published = [];
for (const bench of benches) {
  await page.goto(bench);
  await ready(page);
  if (bench.includes('/crew/')) {
    await page.locator('.overview-go', { hasText: 'People' }).click();
    await settled(page);
    await choose(page, canvas(page).locator('h3', { hasText: 'Bo' }));
    await shot('bench-series');
  }
  await publish(page);
  published.push(await page.getByRole('link', { name: /Open it/ }).getAttribute('href'));
}
const live = await newPage(page.context());
for (const width of [1280, 375]) {
  await live.setViewportSize({ width, height: 800 });
  const pictures = [];
  for (const href of published) {
    await live.goto(href);
    await live.evaluate(async () => {
      for (const i of document.images) {
        i.loading = 'eager';
        await i.decode().catch(() => {});
      }
    });
    await live.waitForTimeout(300);
    pictures.push((await live.screenshot({ fullPage: true, type: 'jpeg', quality: 85 })).toString('base64'));
  }
  const each = { 1280: 420, 375: 240 }[width];
  await live.goto('about:blank');
  await live.setViewportSize({ width: 4 * (each + 16) + 16, height: 800 });
  await live.setContent(
    `<body style="margin:0;padding:16px;background:#cfc9b8;display:grid;grid-template-columns:repeat(4,1fr);gap:16px;align-items:start">${pictures.map((b) => `<img style="width:${each}px" src="data:image/jpeg;base64,${b}">`).join('')}`,
  );
  await live.waitForTimeout(400);
  await live.screenshot({ path: `${to}published-${width}.png`, fullPage: true });
}
// What three visitors sent, the second of them open.
await live.setViewportSize({ width: 1280, height: 800 });
for (const [name, mail, words] of [
  [
    'Ida Berg',
    'ida@berg.example',
    'Two bicycles to Langey, one with a trailer. Is there room, or should we take the later boat?',
  ],
  ['Nils Aas', 'nils@aas.example', 'Is the 17:05 running in the storm?'],
  ['Tove Ek', 'tove@ek.example', 'Thank you, we found the hat.'],
]) {
  await live.goto(`${plot.site}/ask-for-a-berth/`);
  await live.getByLabel('Your name').fill(name);
  await live.getByLabel('Where to answer').fill(mail);
  await live.getByLabel('Day of the sailing').fill('2026-12-05');
  await live.getByLabel('Sailing (required)', { exact: true }).selectOption({ index: 2 });
  await live.getByLabel('Something else').check();
  await live.getByLabel('What else we should know').fill(words);
  await live.getByLabel('You may keep this').check();
  await live.waitForTimeout(2200); // as long as a person takes at least
  await live.getByRole('button', { name: 'Ask for the berth' }).click();
  await live.getByRole('heading', { name: 'Thank you' }).waitFor();
}
await page.goto(`${plot.app}/sites/skerry-line/entries`);
await page.locator('.inbox-open').nth(1).click();
await page.getByText('taken by the mail server').waitFor();
await shot('inbox');
await browser.close();
await plot.stop();
