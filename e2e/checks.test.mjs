// What breaks where: marks on the Reach, the Checks screen, repairs, and the zones themselves.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import {
  agreeing,
  canvas,
  choose,
  command,
  edit,
  eventually,
  middle,
  openBench,
  ready,
  settled,
  signIn,
} from './person.mjs';

const count = () => page.locator('#checks-count').textContent();
const checked = () =>
  eventually(
    () =>
      page.evaluate(async () => {
        const { page: p } = await import(
          new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href
        );
        return document.body.dataset.checked === String(p.seq);
      }),
    true,
    'the page is checked as it is now',
  );
const words = () => canvas(page).getByText('Boats leave from the north steps');
const checks = `${plot.app}/sites/skerry-line/pages/home/checks`;

async function setSize(px) {
  await page.locator('.overview-go', { hasText: 'Departures' }).click();
  await settled(page);
  await choose(page, words());
  const size = page.locator('#tray').getByLabel('Font size', { exact: true }).first();
  await size.fill(px);
  await edit(page, () => size.press('Enter'));
}

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** What Chromium loads of the published Home at a width, once all of it was seen: bytes by what it is. */
async function loaded(width) {
  const live = await page
    .context()
    .browser()
    .newContext({ viewport: { width, height: 800 }, deviceScaleFactor: 1 });
  const p = await live.newPage();
  const asked = [];
  p.on('request', (r) => asked.push(r));
  await p.goto(`${plot.site}/`);
  await p.evaluate(async () => {
    for (let y = 0; y < document.body.scrollHeight; y += 400) {
      scrollTo(0, y);
      await new Promise((f) => {
        setTimeout(f, 60);
      });
    }
  });
  await p.waitForFunction(() => [...document.images].every((i) => i.complete || !i.checkVisibility()));
  await p.waitForLoadState('networkidle');
  const by = { text: 0, fonts: 0, pictures: 0 };
  for (const r of asked) {
    const { responseBodySize } = await r.sizes();
    const path = new URL(r.url()).pathname;
    if (path.includes('/fonts/')) by.fonts += responseBodySize;
    else if (path.includes('/media/')) by.pictures += responseBodySize;
    else if (r.resourceType() === 'document') by.text += responseBodySize;
  }
  await live.close();
  return by;
}

test('what visitors load is what Chromium loads', async () => {
  await page.goto(checks);
  const told = await page.locator('.weights [data-bytes]').evaluateAll((all) =>
    all.map((e) =>
      Object.fromEntries(
        e.dataset.bytes
          .split(';')
          .filter(Boolean)
          .map((p) => p.split('='))
          .map(([k, v]) => [k, Number(v)]),
      ),
    ),
  );
  for (const [i, width] of [375, 800, 1280].entries()) {
    const by = await loaded(width);
    assert.equal(told[i].pictures, by.pictures, `pictures at ${width}`);
    assert.equal(told[i].fonts, by.fonts, `fonts at ${width}`);
    assert.ok(
      Math.abs(told[i].HTML + told[i].CSS - by.text) < 0.15 * by.text,
      `text at ${width}: ${told[i].HTML + told[i].CSS} and ${by.text}`,
    ); // packed otherwise
  }
});

test('an edit is marked under the Reach, and a key goes there', async () => {
  await openBench(page);
  await checked();
  assert.equal(await count(), '0', 'nothing is wrong with the demo');
  assert.equal(await page.locator('#reach-marks rect.mark-broken').count(), 0);
  await setSize('10px');
  await eventually(count, '1', 'the small words are counted');
  assert.equal(await page.locator('#reach-marks rect.mark-doubtful').count(), 1);
  await page.locator('#stage').focus();
  await page.keyboard.press('Escape');
  await command(page, ']');
  await page
    .locator('#say')
    .getByText(/is set in 10 px/)
    .waitFor();
  await eventually(() => page.locator('#showing').textContent(), '320 px', 'the canvas is at the worst width');
  await page
    .locator('.tray-trail, .trail')
    .getByText(/Boats leave/)
    .first()
    .waitFor();
});

const sizeShown = () => words().evaluate((e) => getComputedStyle(e).fontSize);

test('what would mend it is tried on the canvas', async () => {
  const elsewhere = () => page.locator('#elsewhere-desktop svg').evaluate((e) => e.outerHTML);
  const before = await elsewhere();
  await page.getByRole('button', { name: 'Try: Set in 12 px' }).click();
  await eventually(sizeShown, '12px', 'it is shown');
  await eventually(async () => (await elsewhere()) !== before, true, 'in the other zones too, drawn small');
  await page.keyboard.press('Escape');
  await eventually(sizeShown, '10px', 'and left');
  assert.equal(await elsewhere(), before);
  assert.equal(await count(), '1');
});

test('the screen shows it over its widths, with a repair that is taken', async () => {
  await page.goto(checks);
  await page.getByRole('heading', { name: /What breaks on Home/ }).waitFor();
  assert.deepEqual(await findings(page), []);
  assert.equal(await page.locator('.finding').count(), 1);
  assert.equal(await page.locator('.chart-bar').count(), 1);
  assert.equal(await page.locator('.repair .drawing').count(), 2, 'as it is and as it would be');
  await page.getByRole('link', { name: 'Try it on the canvas' }).click();
  await ready(page);
  await eventually(sizeShown, '12px', 'it is shown there');
  await page.keyboard.press('Escape');
  await eventually(sizeShown, '10px', 'and left');
  await page.goto(checks);
  await page.getByRole('button', { name: 'Set in 12 px' }).click();
  await page.getByText('Mended.').waitFor();
  assert.equal(await page.locator('.finding').count(), 0);
  await page.getByRole('heading', { name: 'Nothing is wrong' }).waitFor();
});

test('what is meant to be so is kept quiet until it changes', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await setSize('11px');
  await page.goto(checks);
  await page.getByText('It’s meant to').click();
  await page.getByLabel('Why').fill('Small print is small here');
  await page.getByRole('button', { name: 'Keep it quiet' }).click();
  await page.getByText('“Small print is small here”').waitFor();
  assert.equal(await page.locator('.finding:not(.finding-silent)').count(), 0);
  assert.deepEqual(await findings(page), []);
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await eventually(count, '0', 'it isn’t counted');
  await setSize('10px');
  await eventually(count, '1', 'it is another block now');
});

test('findings are read as a table, filtered, and saved as files', async () => {
  await page.goto(checks);
  await page.getByRole('link', { name: 'As a table' }).click();
  await page.getByRole('row', { name: /is set in 10 px/ }).waitFor();
  assert.deepEqual(await findings(page), []);
  await page.getByRole('link', { name: /^Layout/ }).click();
  await page.getByText('0 of 1 findings').waitFor();
  for (const [name, want] of [
    ['CSV', 'doubtful,reading,small-words'],
    ['JSON', '"rule": "small-words"'],
    ['SARIF', '"ruleId": "small-words"'],
  ]) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name, exact: true }).click(),
    ]);
    assert.ok(fs.readFileSync(await file.path(), 'utf8').includes(want), name);
  }
});

test('a companion shows the page at another width, follows edits, and is changed over', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await page.locator('#stage').focus();
  await command(page, 'c');
  const beside = page.frameLocator('#companion iframe');
  await beside.getByText('Boats leave from the north steps').waitFor();
  assert.equal(await page.locator('#companion-width').textContent(), '375 px, Phone');
  assert.deepEqual(await findings(page), []);
  const size = () => beside.getByText('Boats leave from the north steps').evaluate((e) => getComputedStyle(e).fontSize);
  await setSize('19px');
  await eventually(size, '19px', 'it follows the edit');
  const there = middle(await beside.getByRole('heading', { name: 'Next departures' }).boundingBox());
  await page.mouse.click(there.x, there.y);
  await eventually(() => page.locator('#showing').textContent(), '375 px', 'it is edited at that width');
  assert.match(await page.locator('#companion-width').textContent(), /^1280 px/);
  await page.getByRole('button', { name: 'Close the companion' }).click();
});

test('what is set for phones is listed by section, and put back', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench?width=375`);
  await ready(page);
  await setSize('15px');
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Zones');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'List what is set for Phone on this page' }).click();
  const row = page.getByRole('row', { name: /Boats leave.*Font size 15px/ });
  await row.waitFor();
  assert.deepEqual(await findings(page), []);
  await edit(page, () => row.getByRole('button', { name: /^Put back/ }).click());
  await row.waitFor({ state: 'detached' });
  await edit(page, () => page.getByRole('button', { name: 'Put all back' }).click());
  await page.locator('.zone-here').getByText('Nothing: all of it follows').waitFor();
  await page.keyboard.press('Escape');
});

test('zones are moved by dragging and typing, added, and removed', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  const zones = () =>
    page.locator('.reach-zone').evaluateAll((zs) => zs.map((z) => `${z.textContent} ${z.dataset.min}`));
  const anew = async (act) => {
    await page.evaluate(() => {
      delete document.body.dataset.ready;
      window.before = true;
    });
    await act();
    await page.waitForFunction(() => !window.before && document.body?.dataset.ready !== undefined);
  };
  const edge = await page.locator('.reach-edge[data-zone="tablet"]').boundingBox();
  const rule = await page.locator('.reach-edges').boundingBox();
  await anew(async () => {
    await page.mouse.move(edge.x + edge.width / 2, edge.y + 10);
    await page.mouse.down();
    await page.mouse.move(rule.x + rule.width * (380 / 1600), edge.y + 10, { steps: 6 });
    await page.locator('.reach-edge output', { hasText: /^(699|700|701) px$/ }).waitFor();
    await page.mouse.up();
  });
  assert.match((await zones())[1], /^Tablet (699|700|701)$/);
  const list = async () => {
    await page.locator('#stage').focus();
    await page.keyboard.press('Control+k');
    await page.keyboard.type('Zones');
    await page.keyboard.press('Enter');
    await page.locator('#zones .zone-row').first().waitFor();
  };
  await list();
  assert.deepEqual(await findings(page), []);
  await page.getByLabel('from', { exact: true }).nth(1).fill('100');
  await page.getByRole('button', { name: 'Set where Tablet begins' }).click();
  await page
    .locator('#zones')
    .getByRole('alert')
    .getByText(/can't begin at 100 px/)
    .waitFor();
  await page.locator('#split-at').fill('1500');
  await page.getByLabel('Wider part').fill('Wide');
  await page.getByLabel('Narrower part').fill('Desktop');
  await anew(() => page.getByRole('button', { name: 'Add', exact: true }).click());
  assert.deepEqual(
    (await zones()).map((z) => z.split(' ')[0]),
    ['Phone', 'Tablet', 'Desktop', 'Wide'],
  );
  await list();
  await anew(() =>
    page
      .locator('#zones li', { has: page.locator('input[value="Desktop"]') })
      .getByRole('button', { name: /^Remove/ })
      .click(),
  );
  assert.equal((await zones()).length, 3);
  await list();
  await anew(() =>
    agreeing(page, () => page.getByRole('button', { name: 'Back to the zones as they were before' }).click()),
  );
  assert.equal((await zones()).length, 4);
});

test('nothing went wrong meanwhile', () =>
  assert.deepEqual(
    page.wrong.filter((w) => !w.includes('422')),
    [],
  ));
