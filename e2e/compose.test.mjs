// Composes a page as a person would, looks at it at three widths, publishes it,
// and comes back the next day.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { test } from 'node:test';
import { browser, context, openWindow, page, plot } from './opened.mjs';
import { designer, tmp, visit, writer } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  drag,
  edit,
  enter,
  eventually,
  kept,
  middle,
  more,
  near,
  newPage,
  onShelf,
  openBench,
  publish,
  ready,
  settled,
  signIn,
  undo,
} from './person.mjs';

/** The section that the test makes: it stands above Welcome. */
const section = () => canvas(page).locator('[data-section]').nth(1);

test('signs in, sees the sites, and opens Home on the Bench', async () => {
  await signIn(page, plot.app, designer);
  await page.locator('.site-card svg.drawing image').first().waitFor(); // the home page, drawn in the background
  await openBench(page);
  assert.equal(await page.locator('.overview-item').count(), 6);
  assert.deepEqual(await page.locator('.reach-zone').allTextContents(), ['Phone', 'Tablet', 'Desktop']);
  assert.equal(await kept(page), 0);
  assert.match(await canvas(page).locator('h1').textContent(), /Small boats/);
});

test('adds a section at an insertion mark, renames, moves, duplicates, hides and deletes it', async () => {
  await page
    .getByRole('button', { name: /^Insert (before|between|after|the first)/ })
    .nth(2)
    .click();
  await page.getByLabel('Search sections and blocks').fill('empty');
  await eventually(
    () => page.locator('.shelf-item:visible strong').allTextContents(),
    ['Empty section', 'Two columns'],
    'searching narrows the Shelf',
  );
  await edit(page, () => onShelf(page, 'Empty section').click());
  const names = () => page.locator('.overview-name > span:first-child').allTextContents();
  assert.deepEqual((await names()).slice(1, 4), ['Welcome', 'New section', 'Departures']);
  assert.equal(
    await page.locator('.overview-item.selected .overview-name').getByText('New section').count(),
    1,
    'what was added is selected',
  );
  await enter(page, 'Name', 'Crew');
  assert.equal((await names())[2], 'Crew');
  await edit(page, () => page.getByRole('button', { name: 'Later' }).click());
  assert.equal((await names())[3], 'Crew');
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('Control+Shift+ArrowUp'));
  assert.equal((await names())[2], 'Crew');
  await edit(page, () => page.keyboard.press('Control+d'));
  assert.deepEqual((await names()).slice(2, 4), ['Crew', 'Crew 2']);
  const shown = await canvas(page).locator('[data-section]').count();
  await edit(page, () => more(page, 'Hide'));
  assert.equal(
    await canvas(page).locator('[data-section]').count(),
    shown - 1,
    'a hidden section is gone from the canvas',
  );
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('Delete'));
  assert.equal((await names()).includes('Crew 2'), false);
  // By dragging in the Overview: Crew above Welcome.
  const from = middle(await page.locator('.overview-item', { hasText: 'Crew' }).locator('.overview-go').boundingBox());
  const to = await page.locator('.overview-item', { hasText: 'Welcome' }).locator('.overview-go').boundingBox();
  await edit(page, () => drag(page, from, { x: from.x, y: to.y + 4 }));
  assert.deepEqual((await names()).slice(0, 3), ['Top bar', 'Crew', 'Welcome']);
});

test('adds a heading, text, picture and button from the Shelf and by drag', async () => {
  await page.locator('.overview-item', { hasText: 'Crew' }).locator('.overview-go').click();
  await settled(page);
  await command(page, '/');
  await edit(page, () => onShelf(page, 'Heading').click());
  assert.equal(await section().locator('h2').count(), 1);
  await command(page, '/');
  await onShelf(page, 'Text').waitFor();
  const item = middle(await onShelf(page, 'Text').boundingBox());
  const box = await section().boundingBox();
  await edit(page, () => drag(page, item, { x: box.x + box.width * 0.5, y: box.y + box.height - 12 }));
  await command(page, '/');
  await onShelf(page, 'Picture').click();
  const chooser = page.waitForEvent('filechooser');
  await page.locator('#picker').getByText('Upload', { exact: true }).click();
  const file = path.join(tmp(), 'deck.svg');
  fs.writeFileSync(
    file,
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200"><rect width="300" height="200" fill="#2f6b52"/></svg>',
  );
  await edit(page, async () => (await chooser).setFiles(file)); // one that is uploaded is taken
  await command(page, '/');
  await edit(page, () => onShelf(page, 'Button').click());
  for (const [tag, n] of [
    ['h2', 1],
    ['p', 1],
    ['img', 1],
    ['a', 1],
  ])
    assert.equal(await section().locator(tag).count(), n, tag);
});

/** The columns and rows that the Tray says the selection takes. */
async function cells() {
  const of = async (label) => {
    const f = page.locator('#tray').getByLabel(label, { exact: true });
    const v = (await f.inputValue()) || (await f.getAttribute('placeholder'));
    const [a, b = a] = v.split(' – ');
    return [Number(a), Number(b)];
  };
  return { columns: await of('Columns'), rows: await of('Rows') };
}

test('moves and resizes by pointer, snapping to the grid, and by keys', async () => {
  const text = section().locator('p').locator('..');
  await choose(page, text);
  await enter(page, 'Columns', '1 – 5');
  await enter(page, 'Rows', '4 – 7');
  const at = await text.boundingBox();
  await edit(page, () => drag(page, { x: at.x + 30, y: at.y + 10 }, { x: at.x + 30 + 3 * 78 + 20, y: at.y + 10 + 9 }));
  let now = await cells();
  assert.deepEqual(now.columns, [4, 8], 'dragged three columns to the right, give or take');
  assert.deepEqual(now.rows, [4, 7], 'a few px down snap back to the row');
  const box = await text.boundingBox();
  await edit(page, () =>
    drag(
      page,
      { x: box.x + box.width, y: box.y + box.height / 2 },
      { x: box.x + box.width + 80, y: box.y + box.height / 2 },
    ),
  );
  now = await cells();
  assert.deepEqual(now.columns, [4, 9], 'pulled one column wider');
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('ArrowLeft'));
  await edit(page, () => page.keyboard.press('ArrowDown'));
  await edit(page, () => page.keyboard.press('Shift+ArrowLeft'));
  await edit(page, () => page.keyboard.press('Shift+ArrowDown'));
  now = await cells();
  assert.deepEqual(now, { columns: [3, 7], rows: [5, 9] });
  // Escape takes a drag back.
  const before = await kept(page);
  const b = await text.boundingBox();
  await page.mouse.move(b.x + 30, b.y + 10);
  await page.mouse.down();
  await page.mouse.move(b.x + 200, b.y + 40, { steps: 4 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await settled(page);
  assert.equal(await kept(page), before);
});

test('changes words in place on the canvas', async () => {
  const heading = section().locator('h2');
  await choose(page, heading);
  const b = await heading.boundingBox();
  await page.mouse.dblclick(b.x + 20, b.y + 10);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Who sails with you');
  await edit(page, () => page.keyboard.press('Escape'));
  assert.equal(await canvas(page).locator('h2', { hasText: 'Who sails with you' }).count(), 1);
  // By keys alone: Enter goes in, Escape goes out.
  await choose(page, canvas(page).locator('section', { hasText: 'Who sails with you' }).locator('p'));
  await page.keyboard.press('Enter');
  await page.keyboard.type('Two skippers, a cook ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('and a dog');
  await edit(page, () => page.keyboard.press('Escape'));
  assert.match(
    await canvas(page).locator('p', { hasText: 'Two skippers' }).innerHTML(),
    /<strong[^>]*>and a dog<\/strong>/,
  );
});

const crew = () => canvas(page).locator('section', { hasText: 'Who sails with you' });

test('overlaps two blocks, changes which is on top, duplicates and deletes', async () => {
  await choose(page, crew().locator('img'));
  await enter(page, 'Columns', '6 – 12');
  await enter(page, 'Rows', '1 – 9');
  await choose(page, crew().locator('p'));
  await enter(page, 'Columns', '5 – 9');
  await enter(page, 'Rows', '6 – 9');
  const top = async () =>
    page.evaluate(() => {
      const d = document.querySelector('iframe.canvas').contentDocument;
      const t = [...d.querySelectorAll('p')]
        .find((p) => p.textContent.includes('Two skippers'))
        .getBoundingClientRect();
      const i = [...d.querySelectorAll('section')]
        .find((s) => s.textContent.includes('Who sails'))
        .querySelector('img')
        .getBoundingClientRect();
      const [x, y] = [(Math.max(t.left, i.left) + Math.min(t.right, i.right)) / 2, t.top + 5];
      return d.elementFromPoint(x, y).closest('[data-block]').querySelector('img') ? 'picture' : 'text';
    });
  assert.match(await page.locator('.trail-note').textContent(), /on top of|under/);
  if ((await top()) === 'picture') await edit(page, () => more(page, 'Bring forward'));
  assert.equal(await top(), 'text');
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('Control+PageDown'));
  assert.equal(await top(), 'picture');
  await edit(page, () => page.keyboard.press('Control+PageUp'));
  assert.equal(await top(), 'text');
  await edit(page, () => page.keyboard.press('Control+d'));
  assert.equal(await crew().locator('p').count(), 2);
  await edit(page, () => page.keyboard.press('Delete'));
  assert.equal(await crew().locator('p').count(), 1);
});

test('sets values per zone: set here, follows, and back', async () => {
  await choose(page, crew().locator('p'));
  await enter(page, 'Font size', '(40-2)/2');
  await enter(page, 'Fill', 'Quiet ground');
  await enter(page, 'Padding top', '24');
  await enter(page, 'Corner radius', 'Card');
  await enter(page, 'Text colour', '#112233');
  const text = crew().locator('p').locator('..');
  const style = (name) => text.evaluate((e, n) => getComputedStyle(e)[n], name);
  assert.equal(await style('fontSize'), '19px');
  assert.equal(await style('backgroundColor'), 'rgb(246, 241, 232)');
  assert.equal(await style('color'), 'rgb(17, 34, 51)');
  assert.equal(await style('borderTopLeftRadius'), '8px');
  await page.locator('#stage').focus();
  await command(page, '3');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'phone');
  const field = page.locator('#tray').getByLabel('Font size', { exact: true });
  assert.equal(await field.inputValue(), '');
  assert.equal(await field.getAttribute('placeholder'), '19');
  assert.equal(
    await page.locator('.field.follows', { has: page.getByLabel('Font size', { exact: true }) }).count(),
    1,
    'the field shows that it follows',
  );
  await enter(page, 'Font size', '15');
  assert.equal(await style('fontSize'), '15px');
  assert.equal(
    await page.locator('.field.here', { has: page.getByLabel('Font size', { exact: true }) }).count(),
    1,
    'and now that it is set here',
  );
  await page.locator('#stage').focus();
  await command(page, '1');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'desktop');
  assert.equal(await style('fontSize'), '19px', 'set on the phone, the desktop is untouched');
  await enter(page, 'Font size', '21');
  await page.locator('#stage').focus();
  await command(page, '3');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'phone');
  assert.equal(await style('fontSize'), '15px', 'the phone keeps its own');
  await edit(page, () => page.getByRole('button', { name: 'Reset Font size to Desktop' }).click());
  assert.equal(await style('fontSize'), '21px', 'and follows again');
  // A wrong value says what would be right, and stays in the field.
  const top = page.locator('#tray').getByLabel('Padding top', { exact: true });
  await top.fill('lots');
  await top.press('Enter');
  await page.getByText(/Padding top can’t be|Padding top can't be/).waitFor();
  assert.equal(await top.inputValue(), 'lots');
  await top.fill('');
  await page.keyboard.press('Escape');
});

test('places by rule on narrower zones, and never over a hand-made placement', async () => {
  await page.locator('#stage').focus();
  await command(page, '3');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'phone');
  await choose(page, crew().locator('h2'));
  const boxes = await crew().evaluate((s) =>
    ['h2', 'img', 'p', 'a'].map((t) => {
      const e = s.querySelector(t);
      const r = (e.closest('[data-block]') ?? e).getBoundingClientRect();
      return [t, r.top, r.left, r.width];
    }),
  );
  const of = Object.fromEntries(boxes.map(([t, top, left, width]) => [t, { top, left, width }]));
  near(of.h2.left, 20, 1, 'the heading begins at the gutter');
  near(of.h2.width, 335, 1, 'the heading is in full width');
  for (const [t, , left, width] of boxes) assert.ok(left >= 19 && left + width <= 356, `${t} is within the gutters`);
  assert.ok(
    of.p.left < of.img.left + of.img.width && of.img.left < of.p.left + of.p.width,
    'the words still lie over the picture’s edge',
  );
  const byTop = boxes.toSorted((a, b) => a[1] - b[1]).map(([t]) => t);
  assert.equal(byTop[0], 'h2', 'the heading, first on the desktop, is first on the phone');
  await choose(page, crew().locator('h2'));
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('Shift+ArrowLeft')); // by hand now: 3 columns
  assert.deepEqual((await cells()).columns, [1, 3]);
  await command(page, '1');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'desktop');
  await edit(page, () => page.keyboard.press('ArrowDown'));
  await command(page, '3');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'phone');
  assert.deepEqual((await cells()).columns, [1, 3], 'an edit on the desktop leaves the placement by hand alone');
  await command(page, '1');
  await page.waitForFunction(() => document.querySelector('#tray')?.dataset.zone === 'desktop');
});

let published;
test('tries the page and publishes it', async () => {
  const [preview] = await Promise.all([
    context.waitForEvent('page'),
    page.getByRole('button', { name: 'Try it' }).click(),
  ]);
  await preview.waitForLoadState();
  assert.ok(preview.url().startsWith(plot.draft), 'the preview is on the second origin');
  assert.equal(await preview.getByRole('heading', { name: 'Who sails with you' }).count(), 1);
  await preview.close();
  await publish(page);
  const link = page.getByRole('link', { name: /Open it/ });
  await link.waitFor();
  published = await link.getAttribute('href');
  assert.equal(published, `${plot.site}/`);
});

test('the published page stands where it was put at 1280, 800 and 375 px', async () => {
  const p = await newPage(context);
  await p.goto(published);
  const at = async (width) => {
    await p.setViewportSize({ width, height: 800 });
    await p.evaluate(() => document.fonts.ready);
    return p.evaluate(() => {
      const s = [...document.querySelectorAll('section')].find((e) => e.textContent.includes('Who sails'));
      const box = (e) => {
        const r = e.getBoundingClientRect();
        const o = s.getBoundingClientRect();
        return { x: r.x, y: r.y - o.y, w: r.width, h: r.height };
      };
      return {
        wide: document.documentElement.scrollWidth,
        heading: box(s.querySelector('h2')),
        picture: box(s.querySelector('img')),
        text: box(s.querySelector('p')),
        button: box(s.querySelector('a')),
      };
    });
  };
  const column = (1080 - 11 * 24) / 12;
  const left = (n) => 100 + (n - 1) * (column + 24); // of 1280: (1280 - 1160) / 2 + 40
  const wide = await at(1280);
  near(wide.picture.x, left(6), 1, 'the picture begins at column 6');
  near(wide.picture.w, 7 * column + 6 * 24, 1, 'the picture is seven columns wide');
  near(wide.text.x, left(5), 1, 'the text begins at column 5');
  near(wide.text.w, 5 * column + 4 * 24, 1, 'the text is five columns wide');
  assert.ok(
    wide.text.y < wide.picture.y + wide.picture.h && wide.text.x + wide.text.w > wide.picture.x,
    'the text overlaps the picture',
  );
  assert.equal(wide.wide, 1280);
  const mid = await at(800);
  near(mid.heading.x, 32, 1, 'the heading begins at the gutter at 800');
  for (const [name, b] of Object.entries(mid))
    if (name !== 'wide' && name !== 'button')
      assert.ok(b.x >= 31 && b.x + b.w <= 769, `${name} is within the gutters at 800`);
  const over = (b, what) =>
    assert.ok(
      b.text.y < b.picture.y + b.picture.h &&
        b.picture.y < b.text.y + b.text.h &&
        b.text.x < b.picture.x + b.picture.w &&
        b.picture.x < b.text.x + b.text.w,
      `the text overlaps the picture at ${what}`,
    );
  over(mid, 800);
  const phone = await at(375);
  near(phone.heading.w, 3 * ((335 - 3 * 24) / 4) + 2 * 24, 1, 'the heading has the three columns given by hand');
  over(phone, 375);
  assert.equal(phone.wide, 375, 'nothing scrolls sideways');
  assert.deepEqual(p.wrong, []);
  await p.close();
});

test('the published page is plain, and valid', async () => {
  const html = await visit(published);
  assert.equal((html.match(/<style>/g) ?? []).length, 1);
  assert.equal(html.includes('rel="stylesheet"'), false, 'nothing has to be fetched before the page is drawn');
  assert.match(
    html.match(/<script[^>]*>/g).join(),
    /^<script type="application\/ld\+json">$/,
    'no script, only what the page is about',
  );
  for (const never of [
    'data-section',
    'data-block',
    'data-part',
    'data-entry',
    'contenteditable',
    'class="btn',
    'style=',
  ])
    assert.equal(html.includes(never), false, never);
  for (const want of [
    '<h1',
    '<p>',
    '<a ',
    '<header',
    '<main>',
    '<footer',
    'srcset=',
    'loading="lazy"',
    'alt="',
    'width="',
    'height="',
  ])
    assert.equal(html.includes(want), true, want);
  const dir = tmp();
  for (const slug of ['', 'winter-weekend/']) {
    if (slug) {
      // publish the other page too
      const p = await newPage(context);
      await p.goto(`${plot.app}/sites/skerry-line/pages/winter-weekend/bench`);
      await ready(p);
      await publish(p);
      await p.getByRole('link', { name: /Open it/ }).waitFor();
      await p.close();
    }
    const text = await visit(published + slug);
    fs.writeFileSync(path.join(dir, `${slug.replace('/', '') || 'home'}.html`), text);
  }
  const jar = new URL('node_modules/vnu-jar/build/dist/vnu.jar', import.meta.url).pathname;
  const files = fs.readdirSync(dir).map((f) => path.join(dir, f));
  execFileSync('java', ['-jar', jar, '--errors-only', '--also-check-css', ...files], { stdio: 'pipe' }); // throws with the messages
});

test('somebody else’s edit at the same time is told, and the work goes on', async () => {
  const other = await newPage(context);
  await other.goto(page.url());
  await ready(other);
  await choose(page, crew().locator('h2'));
  await choose(other, canvas(other).locator('section', { hasText: 'Who sails' }).locator('h2'));
  await edit(page, () => page.keyboard.press('ArrowRight'));
  await other.keyboard.press('ArrowDown');
  await other.getByText(/at the same time/).waitFor();
  const n = await kept(other);
  assert.equal(n, await kept(page), 'the fresh state came with the answer');
  await edit(other, () => other.keyboard.press('ArrowDown'));
  assert.deepEqual(other.wrong, []);
  await other.close();
});

test('comes back the next day and undoes what was done', async () => {
  assert.deepEqual(page.wrong, []);
  await openWindow();
  await signIn(page, plot.app, designer);
  await openBench(page);
  const h2 = canvas(page).locator('h2', { hasText: 'Who sails with you' });
  assert.equal(await h2.count(), 1);
  await page.locator('#stage').focus();
  const undoes = page.getByRole('button', { name: 'Undo' });
  for (let i = 0; i < 80 && (await undoes.isEnabled()); i++) await undo(page);
  assert.equal(await page.locator('.overview-item').count(), 6, 'all is as it was at the beginning');
  assert.equal(await page.locator('.overview-item', { hasText: 'Crew' }).count(), 0);
  assert.equal(await canvas(page).locator('h2', { hasText: 'Who sails' }).count(), 0);
  await edit(page, () => page.keyboard.press('Control+Shift+z'));
  assert.equal(await page.locator('.overview-item').count(), 7);
  assert.deepEqual(page.wrong, []);
});

test('a writer can change words, and nothing else', async () => {
  const c = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const w = await newPage(c);
  await signIn(w, plot.app, writer);
  await openBench(w);
  assert.equal(await w.getByRole('button', { name: 'Publish', exact: true }).count(), 0);
  assert.equal(await w.getByRole('button', { name: /^Insert (before|between|after|the first)/ }).count(), 0);
  await choose(w, canvas(w).locator('h1'));
  assert.equal(await w.locator('#tray').getByLabel('Columns').count(), 0);
  await w.keyboard.press('Enter');
  await w.keyboard.type('Small boats and big weather.');
  await edit(w, () => w.keyboard.press('Escape'));
  await w.keyboard.press('ArrowRight');
  await w.getByText(/your role changes words and pictures only/).waitFor();
  await w.getByRole('button', { name: 'Ask to publish' }).click();
  await w.getByText(/^Asked/).waitFor();
  const list = await newPage(page.context());
  await list.goto(`${plot.app}/sites/skerry-line`);
  await list.getByText(/asks to publish it/).waitFor();
  await list.close();
  await c.close();
});
