// What is typed arrives, whatever was pressed before and after: into every kind of text, by every way in, right
// after every way out. With OPENPLOT_MEASURE=1 three hundred times, at a hand's speed.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, choose, edit, eventually, kept, openBench, ready, settled, signIn, undo } from './person.mjs';
import { measuring, random } from './samples.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** Whole numbers below n, in the same order every time. */
function picks(seed) {
  const next = random(seed);
  return (n) => Math.floor(next() * n);
}

/** The texts on the page: a selector each. */
const texts = () =>
  canvas(page)
    .locator('body')
    .evaluate((body) =>
      [...body.querySelectorAll('[data-block]')].flatMap((e) => {
        if (e.querySelector('[data-block]') || !e.getClientRects().length) return [];
        const own = `[data-block="${e.dataset.block}"]`;
        const parts = [...e.querySelectorAll('[data-part]')].filter(
          (p) => p.getClientRects().length && p.textContent.trim() && !p.querySelector('[data-part]'),
        );
        if (parts.length) return parts.slice(0, 2).map((p) => `${own} [data-part="${p.dataset.part}"]`);
        return /^(H[1-6]|P|DIV|UL|OL|A)$/.test(e.tagName) &&
          e.textContent.trim() &&
          !e.querySelector('img, svg, input, table')
          ? [own]
          : [];
      }),
    );

const said = (selector) =>
  canvas(page)
    .locator(selector)
    .first()
    .evaluate((e) => e.textContent.replaceAll(/\s+/g, ' ').trim());

/** Scrolls a text into the middle of the canvas, and gives a point on its words. */
async function at(selector) {
  const e = canvas(page).locator(selector).first();
  await e.evaluate((el) => el.scrollIntoView({ block: 'center', behavior: 'instant' }));
  await page.waitForTimeout(30); // the bar over what is written follows
  const b = await e.boundingBox();
  const stage = await page.locator('#stage').boundingBox();
  return {
    x: b.x + Math.min(b.width / 2, 30),
    y: Math.min(Math.max(b.y + Math.min(b.height / 2, 12), stage.y + 40), b.y + b.height - 4),
  };
}

test('every text takes all that is typed, by every way in, right after every way out', async () => {
  const all = (await texts()).slice(0, 40);
  assert.ok(all.length >= 12, `${all.length} texts`);
  const pick = picks(25);
  const last = new Map(); // what each says by now
  const lost = [];
  let tried = 0;
  let writing = false;
  for (let n = 0; n < (measuring ? 300 : 24); n++) {
    const to = all[pick(all.length)];
    const { x, y } = await at(to);
    const way = writing ? ['click', 'double'][pick(2)] : ['double', 'enter'][pick(2)];
    const under = await page.evaluate(([px, py]) => document.elementFromPoint(px, py)?.closest('svg')?.id, [x, y]);
    if (under !== 'overlay') continue; // the bar of the words lies over it, or it is out of sight
    tried++;
    if (way === 'click') await page.mouse.click(x, y);
    if (way === 'double') await page.mouse.dblclick(x, y, { delay: 20 });
    if (way === 'enter') {
      await page.mouse.click(x, y);
      await page.keyboard.press('Enter');
    }
    const word = `zq${n}k`;
    await page.keyboard.type(word, { delay: measuring ? 45 : 15 });
    const now = await said(to);
    if (!now.includes(word)) lost.push(`${n}, ${way} into ${to}: ${now}`);
    last.set(to, now);
    const out = ['stay', 'stay', 'escape', 'ground', 'field'][pick(5)];
    if (out === 'escape') await page.keyboard.press('Escape');
    if (out === 'ground') await page.mouse.click(3 + (await page.locator('#stage').boundingBox()).x, 400);
    if (out === 'field') {
      const f = page.locator('#tray-body input[type="text"]:visible, #tray-body input:not([type]):visible').first();
      if (await f.count()) await f.click();
    }
    writing = out === 'stay';
  }
  await page.keyboard.press('Escape');
  await settled(page);
  assert.deepEqual(lost, []);
  const edits = await kept(page);
  await page.reload();
  await ready(page);
  for (const [selector, words] of last)
    if ((await said(selector)) !== words) lost.push(`${selector} is kept as ${await said(selector)}, not ${words}`);
  assert.deepEqual(lost, [], 'and it is kept');
  assert.ok(edits > tried / 2, `${edits} edits of ${tried}`);
  assert.ok(tried > 16, `${tried} tried`);
});

test('what has no words on the canvas is gone into by two presses or Enter: a table’s cells, a picture', async () => {
  const cells = canvas(page).locator('td:visible');
  const cell = cells.nth(1);
  const was = await cell.textContent();
  const point = async (e) => {
    await e.evaluate((el) => el.scrollIntoView({ block: 'center', behavior: 'instant' }));
    const b = await e.boundingBox();
    return [b.x + Math.min(b.width / 2, 20), b.y + b.height / 2];
  };
  await page.keyboard.press('Escape');
  await page.mouse.dblclick(...(await point(cell)), { delay: 20 });
  await page.keyboard.type('06:15', { delay: 20 });
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => cell.textContent(), '06:15', 'the cell says what was typed');
  await page.keyboard.press('Escape');
  await undo(page);
  await eventually(() => cell.textContent(), was, 'and what it said before');

  const picture = canvas(page).locator('[data-block]:has(> img), img[data-block]').filter({ visible: true }).first();
  for (const way of ['two presses', 'Enter']) {
    const at = await point(picture);
    if (way === 'Enter') {
      await page.mouse.click(...at);
      await page.keyboard.press('Enter');
    } else await page.mouse.dblclick(...at, { delay: 20 });
    await page.locator('#picker[open]').waitFor();
    await page.keyboard.press('Escape');
    await eventually(() => page.locator('#picker[open]').count(), 0, 'Escape leaves it as it was');
  }
});

test('letters are commands on the canvas alone: after each kind of redraw they go where words belong, or nowhere', async () => {
  const sentence = 'was2or3,[then]/Grid?'; // without spaces, which press a button that has the focus
  const state = () =>
    page.evaluate(() => [
      document.getElementById('showing').textContent,
      document.getElementById('shelf').open,
      document.querySelector('.tray').className,
      document.querySelector('.work').className,
      document.querySelectorAll('dialog[open], :popover-open:not(.means)').length,
      document.querySelectorAll('#rulers:not([hidden]), .companion:not([hidden])').length,
    ]);
  const tray = page.locator('#tray');
  await choose(page, canvas(page).locator('h1'));
  const begun = await state();
  // After a value was set, a step pressed, a choice made, and something put back.
  for (const act of [
    async () => {
      const f = tray.locator('input[data-number]:visible').first();
      await f.focus();
      await page.keyboard.press('ArrowUp');
      await page.keyboard.press('Enter');
    },
    () => tray.locator('.segments button:visible').first().click(),
    () => tray.locator('[data-op="follow"]:visible').first().click(),
  ]) {
    await act();
    await page.keyboard.type(sentence, { delay: 25 });
    await settled(page);
    assert.deepEqual(await state(), begun);
    await page.keyboard.press('Escape');
  }
});

test('what is added to a list takes the words that come right after', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/notices/bench`);
  await ready(page);
  await page.locator('.overview-go').last().click();
  await settled(page);
  await page.locator('.top-page').focus();
  await page.locator('#stage').focus();
  await page.keyboard.press('/');
  await page.keyboard.type('timetable');
  await page.locator('.shelf-item[data-kind="timetable"]:visible').first().click();
  await page.locator('#entry-add').waitFor();
  await settled(page);
  await page.locator('#entry-add').click();
  await page.keyboard.type('22:40 and 2 more', { delay: 20 });
  const count = await page.locator('#tray [data-row]').count();
  await eventually(
    () => page.evaluate(() => document.activeElement.value),
    '22:40 and 2 more',
    'all of it is in the first field of what was added',
  );
  await page.keyboard.press('Tab');
  await page.keyboard.type('Seals', { delay: 20 });
  await settled(page);
  await eventually(() => page.evaluate(() => document.activeElement.value), 'Seals', 'Tab goes to the next field');
  assert.equal(await page.locator('#tray [data-row]').count(), count);
  assert.deepEqual(
    page.wrong.filter((w) => !w.includes('Blocked script execution')), // which runs in a frame without scripts are told as
    [],
  );
});

test('what is selected is there: commands and undos by keys are never refused for it', async () => {
  // Answers and frames come late, so that keys are pressed meanwhile, also where the machine is quick.
  await page.addInitScript(() => {
    const soon = window.requestAnimationFrame.bind(window);
    window.requestAnimationFrame = (f) => soon(() => setTimeout(() => f(performance.now()), window.lateFrames ?? 0));
  });
  await page.goto(`${plot.app}/sites/skerry-line/pages/fares/bench`);
  await ready(page);
  await page.evaluate(() => {
    window.lateFrames = 90;
  });
  const pick = picks(7);
  const late = picks(9);
  await page.route(/\/(edits|undo|redo|parts)(\?|$)/, async (route) => {
    await new Promise((r) => {
      setTimeout(r, late(220));
    });
    await route.continue();
  });
  await choose(page, canvas(page).locator('h1'));
  const keys = ['Control+d', 'Control+z', 'Delete', 'Control+Shift+Z', 'ArrowRight', 'Tab', 'Escape', 'Control+d'];
  const refused = [];
  for (let n = 0; n < (measuring ? 2000 : 60); n++) {
    await page.keyboard.press(keys[pick(keys.length)]);
    if (pick(4) === 0) await settled(page);
    const told = await page.locator('#say').textContent();
    if (/any more|isn.t on this page|[bs][0-9a-v]{13}/.test(told)) refused.push(told);
  }
  await settled(page);
  await page.unrouteAll({ behavior: 'wait' });
  assert.deepEqual([...new Set(refused)], []);
});
