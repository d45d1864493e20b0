// The controls of the Tray, set by pointer and by keys, and what of it is published.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  edit,
  eventually,
  kept,
  newPage,
  openBench,
  option,
  publish,
  settled,
  signIn,
  undo,
} from './person.mjs';

const tray = () => page.locator('#tray');
const heading = () => canvas(page).locator('h2', { hasText: 'Next departures' });
const button = () => canvas(page).getByText('See today’s sailings');
const photo = () => canvas(page).locator('section', { hasText: 'Next departures' }).locator('img').first();
const css = (locator, property) => locator.evaluate((e, p) => getComputedStyle(e)[p], property);
const value = (setting) => page.locator(`#f-${setting}`).inputValue();
const section = (name) => page.locator('.overview-item', { hasText: name }).locator('.overview-go');

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** Drags from the middle of something by so many px. */
async function pull(locator, dx, dy, { keep = true, keys = [] } = {}) {
  await locator.scrollIntoViewIfNeeded();
  const b = await locator.boundingBox();
  const [x, y] = [b.x + b.width / 2, b.y + b.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (const k of keys) await page.keyboard.down(k);
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 3 });
  await page.mouse.move(x + dx, y + dy, { steps: 3 });
  if (!keep) await page.keyboard.press('Escape');
  await page.mouse.up();
  for (const k of keys) await page.keyboard.up(k);
}

/** Brings a section into view by the Overview, and chooses a block in it. */
async function chooseIn(name, block) {
  await section(name).click();
  await settled(page);
  await choose(page, block);
}

test('a number is stepped by keys, scrubbed on its label, worked out, and changed in unit', async () => {
  await chooseIn('Departures', heading());
  await page.locator('#f-font-size').focus();
  await edit(page, () => page.keyboard.press('ArrowUp'));
  await eventually(() => value('font-size'), '35', 'a step');
  await edit(page, () => page.keyboard.press('Shift+ArrowUp'));
  await eventually(() => css(heading(), 'fontSize'), '45px', 'ten steps, on the canvas');
  const n = await kept(page);
  await pull(tray().locator('label[for="f-font-size"]'), 20, 0, { keep: false });
  await eventually(() => css(heading(), 'fontSize'), '45px', 'Escape leaves what was scrubbed');
  assert.equal(await kept(page), n, 'and nothing is kept');
  await edit(page, () => pull(tray().locator('label[for="f-font-size"]'), 11, 0));
  await eventually(() => css(heading(), 'fontSize'), '56px', 'scrubbed');
  await page.locator('#f-font-size').fill('(100-4)/3');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => css(heading(), 'fontSize'), '32px', 'a sum');
  await page.locator('#f-font-size').focus();
  await page.keyboard.press('F4');
  await edit(page, () => page.locator('#panel-number').getByRole('option', { name: 'in rem: 2rem' }).click());
  await eventually(() => value('font-size'), '2rem', 'in another unit');
  await page.locator('#f-font-size').fill('900');
  await page.keyboard.press('Enter');
  await page.locator('#say', { hasText: 'out of range' }).waitFor();
  assert.equal(await value('font-size'), '900', 'nothing that was typed is lost');
});

test('type: font, weight, spacing and case are seen before they are taken', async () => {
  await chooseIn('Departures', heading());
  const was = await css(heading(), 'fontFamily');
  await page.locator('#f-font').click();
  await page.locator('#panel-options').getByRole('option', { name: 'Oswald' }).hover();
  await eventually(async () => (await css(heading(), 'fontFamily')).startsWith('Oswald'), true, 'pointed at');
  await page.keyboard.press('Escape');
  await eventually(() => css(heading(), 'fontFamily'), was, 'left');
  await page.locator('#f-font').press('Enter');
  await page.getByLabel('Search the choices').fill('lora');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(async () => (await css(heading(), 'fontFamily')).startsWith('Lora'), true, 'taken by keys');
  await page.locator('#f-font-weight').fill('450');
  await edit(page, () => page.keyboard.press('Enter'));
  await page.locator('#f-letter-spacing').fill('0.1');
  await edit(page, () => page.keyboard.press('Enter'));
  await edit(page, () => option(page, 'Case', 'Uppercase'));
  await edit(page, () => option(page, 'Align text', 'Center'));
  assert.deepEqual(
    [
      await css(heading(), 'fontWeight'),
      await css(heading(), 'letterSpacing'),
      await css(heading(), 'textTransform'),
      await css(heading(), 'textAlign'),
    ],
    ['450', '3.2px', 'uppercase', 'center'],
  );
  await tray()
    .getByText(/Differs from H2: font, weight, font size, letter spacing, case/)
    .waitFor();
});

test('a colour is taken from the palette, from the plane, and as it is written; contrast is told', async () => {
  await tray().locator('[data-opens="colour"][data-for="f-color"]').click();
  const panel = page.locator('#panel-colour');
  await panel.getByRole('button', { name: 'Second accent', exact: true }).hover();
  await eventually(() => css(heading(), 'color'), 'rgb(170, 77, 38)', 'pointed at');
  await edit(page, () => panel.getByRole('button', { name: 'Second accent', exact: true }).click());
  await eventually(() => value('color'), 'Second accent', 'its name');
  await panel.getByText(/On its ground \d/).waitFor();
  const plane = await panel.locator('.colour-plane').boundingBox();
  await edit(page, async () => {
    await page.mouse.move(plane.x + 20, plane.y + 70);
    await page.mouse.down();
    await page.mouse.move(plane.x + 60, plane.y + 60, { steps: 4 });
    await page.mouse.up();
  });
  assert.match(await value('color'), /^#[0-9a-f]{6}$/);
  await panel.getByRole('slider', { name: 'Lightness and chroma' }).focus();
  const before = await value('color');
  await edit(page, () => page.keyboard.press('ArrowUp'));
  assert.notEqual(await value('color'), before, 'lighter by a key');
  await panel.getByLabel('Colour in any CSS notation').fill('oklch(45% 0.07 210)');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => css(heading(), 'color'), 'rgb(23, 96, 107)', 'in another notation');
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
});

test('padding is dragged in the drawing: one side, with Alt both, with Shift all', async () => {
  await edit(page, () => pull(tray().locator('.at-padding-top'), 0, 12));
  await eventually(() => value('padding-top'), '12', 'down');
  await edit(page, () => pull(tray().locator('.at-padding-left'), 9, 0, { keys: ['Alt'] }));
  await eventually(() => Promise.all([value('padding-left'), value('padding-right')]), ['9', '9'], 'both sides');
  await edit(page, () => pull(tray().locator('.at-padding-bottom'), 0, -16, { keys: ['Shift'] }));
  await eventually(
    () => Promise.all(['top', 'right', 'bottom', 'left'].map((s) => value(`padding-${s}`))),
    ['16', '16', '16', '16'],
    'all sides',
  );
});

test('the block is dragged over the grid in small, and by keys', async () => {
  const own = tray().locator('.grid-own');
  const grid = await tray().locator('#place-grid').boundingBox();
  await edit(page, () => pull(own, (grid.width / 12) * 2, 0));
  await eventually(() => page.locator('#f-place-columns').inputValue(), '3 – 6', 'two columns on');
  await page.locator('#stage').focus();
  await edit(page, () => page.keyboard.press('ArrowLeft'));
  await edit(page, () => page.keyboard.press('ArrowLeft'));
  await eventually(() => page.locator('#f-place-columns').inputValue(), '1 – 4', 'and back by keys');
});

test('a button has looks of its own when it is pointed at, seen on the canvas', async () => {
  await chooseIn('Welcome', button());
  await page.locator('#tray [data-cluster="states"]').click();
  await page.getByRole('tab', { name: 'Hover' }).click();
  await page.locator('#f-hover-background').fill('#ffffff');
  await edit(page, () => page.keyboard.press('Enter'));
  await page.locator('#f-hover-color').fill('Deep');
  await edit(page, () => page.keyboard.press('Enter'));
  await page.locator('#f-hover-lift').fill('4');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => css(button(), 'backgroundColor'), 'rgb(255, 255, 255)', 'shown in that state');
  await page.getByRole('tab', { name: 'Default' }).click();
  await eventually(() => css(button(), 'backgroundColor'), 'rgb(170, 77, 38)', 'and by itself');
});

test('a shadow is the light’s that is dragged, or the house style’s', async () => {
  await page.locator('#tray [data-cluster="surface"]').click();
  await tray().locator('[data-opens="shadow"][data-for="f-box-shadow"]').click();
  const panel = page.locator('#panel-shadow');
  await panel.getByRole('button', { name: 'Card' }).hover();
  await eventually(async () => (await css(button(), 'boxShadow')).includes('0px 6px 20px'), true, 'pointed at');
  await edit(page, () => pull(panel.locator('.shadow-light'), 10, 4));
  await eventually(async () => /px -?\d+px 20px/.test(await css(button(), 'boxShadow')), true, 'dragged');
  await panel.getByLabel('Blur').fill('30');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(async () => (await css(button(), 'boxShadow')).includes('30px'), true, 'typed');
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
});

test('a gradient: kind, angle, stops by pointer and by keys, over a picture too', async () => {
  await section('Departures').click();
  await settled(page);
  await page.getByRole('tab', { name: 'Gradient' }).click();
  await tray().locator('[data-opens="gradient"][data-for="f-gradient"]').click();
  const panel = page.locator('#panel-gradient');
  const ground = () => canvas(page).locator('section', { hasText: 'Next departures' });
  await edit(page, () => panel.getByRole('button', { name: 'Conic' }).click());
  await eventually(async () => (await css(ground(), 'backgroundImage')).startsWith('conic-gradient'), true, 'a kind');
  await edit(page, () => panel.getByRole('button', { name: 'Linear', exact: true }).click());
  const bar = await panel.locator('.gradient-bar').boundingBox();
  await edit(page, () => page.mouse.click(bar.x + bar.width / 2, bar.y + 8));
  await eventually(() => panel.locator('.gradient-stop').count(), 3, 'a stop is added');
  await edit(page, () => pull(panel.locator('.gradient-stop.chosen'), -bar.width / 4, 0));
  await eventually(async () => /2[45](\.\d)?%/.test(await css(ground(), 'backgroundImage')), true, 'and dragged');
  await panel.locator('.gradient-stop.chosen').focus();
  await edit(page, () => page.keyboard.press('Delete'));
  await eventually(() => panel.locator('.gradient-stop').count(), 2, 'and removed by key');
  await panel.getByLabel('Angle in degrees').fill('90');
  await edit(page, () => page.keyboard.press('Tab'));
  await edit(page, () => panel.getByRole('button', { name: 'linear 90deg #ffffff 45%, #ffffff00 45%' }).click());
  await eventually(
    async () =>
      (await css(ground(), 'backgroundImage')).startsWith(
        'linear-gradient(90deg, rgb(255, 255, 255) 45%, rgba(255, 255, 255, 0) 45%)',
      ),
    true,
    'a ready one with a hard edge',
  );
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
});

test('min height by a button, content width by number, a section’s own', async () => {
  await page.locator('#tray [data-cluster="size"]').click();
  const seventyFive = tray().getByRole('button', { name: '75 % of the viewport' });
  await seventyFive.hover();
  await eventually(
    () =>
      canvas(page)
        .locator('section', { hasText: 'Next departures' })
        .evaluate((e) => e.style.length + e.getBoundingClientRect().height >= 600),
    true,
    'pointed at',
  );
  await edit(page, () => seventyFive.click());
  await page.locator('#f-content').fill('900');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => value('min-height'), '75vh', 'kept');
});

test('a picture: focal point, mask, filters and rotation', async () => {
  await chooseIn('Departures', photo());
  const mark = tray().getByRole('slider', { name: 'Focal point' });
  const box = await tray().locator('.focal').boundingBox();
  await edit(page, () => page.mouse.click(box.x + box.width * 0.25, box.y + box.height * 0.75));
  await eventually(() => css(photo(), 'objectPosition'), '25% 75%', 'by pointer');
  await mark.focus();
  await edit(page, () => page.keyboard.press('Shift+ArrowRight'));
  await eventually(() => css(photo(), 'objectPosition'), '35% 75%', 'by key');
  await edit(page, () => option(page, 'Mask', 'Arch'));
  await page.locator('#tray [data-cluster="filters"]').click();
  await page.locator('#f-grayscale').fill('60');
  await edit(page, () => page.keyboard.press('Enter'));
  await edit(page, () => option(page, 'Mirror', 'Horizontally'));
  await page.locator('#f-rotate').fill('-4');
  await edit(page, () => page.keyboard.press('Enter'));
  assert.deepEqual(
    [await css(photo(), 'filter'), await css(photo(), 'scale'), await css(photo().locator('..'), 'rotate')],
    ['grayscale(0.6)', '-1 1', '-4deg'],
  );
});

test('the same as another block, by pressing it', async () => {
  await chooseIn('Departures', canvas(page).getByText('Boats leave from the north steps').locator('..'));
  await page.locator('#f-padding-top').focus();
  await page.keyboard.press('F4');
  await page.locator('#panel-number').getByRole('option', { name: 'Same as…' }).click();
  await page.getByText('Press the block whose padding top').waitFor();
  const b = await heading().boundingBox();
  await edit(page, () => page.mouse.click(b.x + 20, b.y + b.height / 2));
  await eventually(() => value('padding-top'), '16', 'the heading’s');
  await tray().locator('[data-opens="colour"][data-for="f-color"]').click();
  await page.locator('#panel-colour').getByRole('button', { name: 'Same as…' }).click();
  await edit(page, () => page.mouse.click(b.x + 20, b.y + b.height / 2));
  await eventually(() => value('color'), '#17606b', 'and its colour');
});

test('what was set is published, at three widths', async () => {
  await publish(page);
  await page.getByRole('link', { name: /Open it/ }).waitFor();
  const p = await newPage(context);
  await p.goto(`${plot.site}/`);
  const of = (selector, text, property, pseudo) =>
    p
      .locator(selector, { hasText: text })
      .first()
      .evaluate((e, [k, s]) => getComputedStyle(e, s)[k], [property, pseudo]);
  for (const width of [1280, 800, 375]) {
    await p.setViewportSize({ width, height: 800 });
    assert.match(await of('h2', 'Next departures', 'fontFamily'), /^Lora/);
    for (const [property, want] of [
      ['fontWeight', '450'],
      ['textTransform', 'uppercase'],
      ['paddingTop', '16px'],
      ['color', 'rgb(23, 96, 107)'],
      ['letterSpacing', '3.2px'],
    ]) {
      assert.equal(await of('h2', 'Next departures', property), want, `${property} at ${width}`);
    }
    const img = p.locator('section', { hasText: 'Next departures' }).locator('img').first();
    assert.equal(await img.evaluate((e) => getComputedStyle(e).filter), 'grayscale(0.6)', `the picture at ${width}`);
    const ground = p.locator('section', { hasText: 'Next departures' }).first();
    assert.match(
      await ground.evaluate((e) => getComputedStyle(e).backgroundImage),
      /^linear-gradient\(90deg, rgb\(255, 255, 255\) 45%, rgba\(255, 255, 255, 0\) 45%\)/,
    );
    assert.ok(
      (await ground.evaluate((e) => e.getBoundingClientRect().height)) >= 600,
      `three quarters of the viewport at ${width}`,
    );
  }
  await p.setViewportSize({ width: 1280, height: 800 });
  const b = p.getByText('See today’s sailings');
  await b.hover();
  await eventually(
    () => b.evaluate((e) => [getComputedStyle(e).backgroundColor, getComputedStyle(e).translate]),
    ['rgb(255, 255, 255)', '0px -4px'],
    'pointed at',
  );
  assert.deepEqual(p.wrong, []);
  await p.close();
});

test('the Tray folds, grows to two rows, stands beside the canvas, and keeps to where it was put', async () => {
  await page.locator('#stage').focus();
  await command(page, 't');
  await eventually(() => tray().evaluate((e) => e.offsetHeight < 50), true, 'folded');
  await command(page, 't');
  await pull(page.locator('#tray-edge'), 0, -140);
  await eventually(() => page.locator('.work.two-rows').count(), 1, 'two rows');
  await page.locator('#tray-edge').focus();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  await eventually(() => page.locator('.work.two-rows').count(), 0, 'one row, by keys');
  await page.keyboard.press('PageUp');
  await page.locator('[data-beside]').click();
  await eventually(() => tray().evaluate((e) => e.offsetWidth), 360, 'beside');
  assert.equal(
    await page.locator('iframe.canvas').evaluate((e) => e.contentWindow.innerWidth),
    1280,
    'the page has the width of the Reach',
  );
  assert.deepEqual(await findings(page), []);
  await page.setViewportSize({ width: 1920, height: 1080 });
  assert.deepEqual(await findings(page), []);
  await chooseIn('Departures', heading());
  for (const opens of [
    '[data-opens="colour"][data-for="f-color"]',
    '#f-font',
    '[data-opens="shadow"][data-for="f-box-shadow"]',
    '#tray-more',
  ]) {
    await tray().locator(opens).first().click();
    await page.locator('.panel:popover-open').waitFor();
    assert.deepEqual(await findings(page), [], opens);
    await page.keyboard.press('Escape');
  }
  await page.locator('#f-padding-top').focus();
  await page.keyboard.press('F4');
  assert.deepEqual(await findings(page), [], 'units and steps');
  await page.keyboard.press('Escape');
  await page.reload();
  await page.locator('body[data-ready]').waitFor({ state: 'attached' });
  await eventually(() => tray().evaluate((e) => e.offsetWidth), 360, 'kept for the person');
  await page.locator('[data-beside]').click();
  await page.setViewportSize({ width: 1280, height: 800 });
  await eventually(() => tray().evaluate((e) => e.offsetWidth > 1000), true, 'below');
  assert.deepEqual(page.wrong, []);
});

test('a try whose answer comes after its block was deleted shows nothing', async () => {
  await chooseIn('Departures', heading());
  let answer;
  const held = new Promise((resolve) => {
    answer = resolve;
  });
  await page.route(
    '**/tries',
    async (route) => {
      const r = await route.fetch();
      await held;
      await route.fulfill({ response: r });
    },
    { times: 1 },
  );
  await page.locator('#f-letter-spacing').focus();
  const asked = page.waitForRequest('**/tries');
  await page.keyboard.press('ArrowUp');
  await asked;
  await page.evaluate(() => document.activeElement.blur());
  await edit(page, () => page.keyboard.press('Delete'));
  const gone = await canvas(page)
    .locator('body')
    .evaluate((b) => b.textContent.includes('Next departures'));
  answer();
  await page.waitForTimeout(300);
  assert.equal(gone, false);
  assert.equal(await heading().count(), 0, 'it stays deleted');
  await undo(page);
  await eventually(() => heading().count(), 1, 'and comes back by undo');
});

test('rows of a list are dragged, opened, duplicated and shown on the canvas; a table takes what is pasted', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/ask-for-a-berth/bench`);
  await page.locator('body[data-ready]').waitFor({ state: 'attached' });
  await choose(page, canvas(page).locator('form'));
  const names = () => tray().locator('.row-name span').allTextContents();
  const before = await names();
  const row = await tray().locator('#row-0').boundingBox();
  await edit(page, () => pull(tray().locator('#row-0'), 0, row.height * 2 + 6));
  await eventually(names, [before[1], before[2], before[0], ...before.slice(3)], 'dragged');
  await page.locator('#row-2').focus();
  await edit(page, () => page.keyboard.press('Control+Shift+ArrowUp'));
  await eventually(names, [before[1], before[0], ...before.slice(2)], 'moved by keys');
  await edit(page, () =>
    tray()
      .getByRole('button', { name: /^Duplicate \d/ })
      .click(),
  );
  await eventually(async () => (await names()).length, before.length + 1, 'duplicated');
  await page.goto(`${plot.app}/sites/skerry-line/pages/fares/bench`);
  await page.locator('body[data-ready]').waitFor({ state: 'attached' });
  await chooseIn('All fares', canvas(page).locator('table'));
  const cell = tray().getByLabel('Row 1, column 1');
  await cell.focus();
  await edit(page, () =>
    cell.evaluate((e) => {
      const data = new DataTransfer();
      data.setData('text/plain', '1.11\t2.22\n3.33\t4.44\n');
      e.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }),
  );
  await eventually(
    () =>
      canvas(page)
        .locator('tbody tr, tr')
        .nth(2)
        .locator('td')
        .nth(1)
        .textContent()
        .then((t) => t.endsWith('4.44')),
    true,
    'in its cells',
  );
});
