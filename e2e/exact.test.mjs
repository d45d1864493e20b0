// The Bench made exact: edges that are dragged, several resized, the tree, guides and zoom, keys of one's own,
// what lies buried, and what goes wrong in the midst of a drag.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import {
  canvas,
  choose,
  command,
  drag,
  edit,
  eventually,
  kept,
  near,
  newPage,
  openBench,
  ready,
  settled,
  signIn,
  undo,
} from './person.mjs';

const section = () => canvas(page).locator('section', { hasText: 'Next departures' }).first();
const overview = (name) => page.locator('.overview-item', { hasText: name });
const go = async (name) => {
  await overview(name).locator('.overview-go').click();
  await settled(page);
};
/** What the Bench's scripts know of the page. */
const state = () =>
  page.evaluate(async () => {
    const { page: p } = await import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href);
    return { places: p.places, handles: p.handles, guides: p.guides, select: p.select };
  });
const css = (locator, property) =>
  locator.evaluate((e, p) => e.ownerDocument.defaultView.getComputedStyle(e)[p], property);
const scale = () => page.locator('iframe.canvas').evaluate((e) => e.getBoundingClientRect().width / e.clientWidth);

/** The middle of the handle of a setting, once it stands still. */
async function handle(label) {
  for (let was = '', now; ; was = now) {
    const i = (await state()).handles.findIndex((h) => h.label === label);
    assert.ok(i >= 0, `there is a handle for ${label}`);
    const b = await page.locator(`[data-handle="${i}"]`).boundingBox();
    now = JSON.stringify(b);
    if (now === was) return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
    await page.waitForTimeout(80);
  }
}

/** A locator's box, once it stands still. */
async function still(locator) {
  for (let was = '', now; ; was = now) {
    const b = await locator.boundingBox();
    now = JSON.stringify(b);
    if (now === was) return b;
    await page.waitForTimeout(120);
  }
}

/** Drags by so many px of the page, with keys held. */
async function pull(from, dx, dy, keys = []) {
  const s = await scale();
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (const k of keys) await page.keyboard.down(k);
  for (let i = 1; i <= 10; i++) await page.mouse.move(from.x + (dx * s * i) / 10, from.y + (dy * s * i) / 10);
  await page.waitForTimeout(60);
  await page.mouse.up();
  for (const k of keys) await page.keyboard.up(k);
}

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

test('a section’s padding is dragged: to the px with Ctrl, to a step near it, both sides with Alt', async () => {
  await go('Departures');
  const padding = async () => [await css(section(), 'paddingTop'), await css(section(), 'paddingBottom')];
  await edit(page, async () => pull(await handle('Padding top'), 0, -33, ['Control']));
  assert.deepEqual(await padding(), ['63px', '96px']);
  await edit(page, async () => pull(await handle('Padding top'), 0, 31)); // 94, near the step of 96
  assert.equal((await state()).handles.find((h) => h.label === 'Padding top').px, 96);
  assert.equal(
    await page.locator('#tray .spacing input, #tray [data-setting="padding-top"]').first().inputValue(),
    'Vast',
    'the step’s token',
  );
  await edit(page, async () => pull(await handle('Padding top'), 0, -46, ['Control', 'Alt']));
  assert.deepEqual(await padding(), ['50px', '50px']);
  for (let i = 0; i < 3; i++) await undo(page);
  assert.deepEqual(await padding(), ['96px', '96px']);
});

test('columns by their boundary in twelfths, gaps between them, a picture’s ratio', async () => {
  await command(page, '/');
  await page.locator('#shelf-search').fill('two columns');
  await page.locator('[data-filled]').waitFor();
  await page.waitForTimeout(200);
  await edit(page, () => page.keyboard.press('Enter'));
  const columns = canvas(page).locator('section', { hasText: 'On the left' }).first();
  await columns.evaluate((e) => e.scrollIntoView({ block: 'center' }));
  await settled(page);
  const lefts = () =>
    columns.locator('h2').evaluateAll((all) => all.map((h) => h.parentElement.getBoundingClientRect().width));
  await edit(page, async () => pull(await handle('Column widths'), 170, 0)); // nearly two twelfths
  const [a, b] = await lefts();
  const gap = (await state()).handles.find((h) => h.label === 'Column gap').px;
  near(a / b, (8 * ((1080 + gap) / 12) - gap) / (4 * ((1080 + gap) / 12) - gap), 0.01, 'eight and four twelfths');
  await edit(page, async () => {
    const h = await handle('Column gap');
    await pull({ x: h.x, y: h.y + 30 }, 20, 0, ['Control']);
  });
  near((await state()).handles.find((h) => h.label === 'Column gap').px, gap + 20, 1, 'the gap');
  await undo(page);
  await undo(page);
  await undo(page);
});

test('several are resized in proportion by the frame around them, and put at a given gap', async () => {
  await go('Departures');
  const [heading, text] = [
    section().getByText('Next departures'),
    section().locator('[data-block]', { hasText: 'Boats leave from' }).last(),
  ];
  await choose(page, heading);
  const t = await text.boundingBox();
  await page.keyboard.down('Shift');
  await page.mouse.click(t.x + 30, t.y + 12);
  await page.keyboard.up('Shift');
  await settled(page);
  const ids = await Promise.all([heading, text].map((l) => l.getAttribute('data-block')));
  const places = async () => {
    const s = await state();
    return ids.map(
      (id) =>
        Object.values(s.places)
          .flat()
          .find((b) => b.id === id).zones.desktop,
    );
  };
  const was = await places();
  const right = await page.locator('[data-edges="4"]').boundingBox();
  const s = await scale();
  await edit(page, () =>
    drag(page, { x: right.x + 12, y: right.y + 12 }, { x: right.x + 12 + 2 * 92 * s, y: right.y + 12 }),
  );
  const now = await places();
  const span = (p) => Math.max(...p.map((q) => q[0] + q[1])) - Math.min(...p.map((q) => q[0]));
  assert.equal(span(now), span(was) + 2, 'two columns wider together');
  await edit(page, () => page.getByRole('button', { name: 'Gap down: 2 cells' }).click());
  const gapped = await places();
  assert.equal(gapped[1][2] - gapped[0][2] - gapped[0][3], 2, 'two rows between them');
  assert.deepEqual(await findings(page), []);
  await undo(page);
  await undo(page);
  assert.deepEqual(await places(), was);
});

test('the tree finds, chooses and moves blocks by their names', async () => {
  await page.fill('#overview-search', 'next dep');
  await eventually(() => page.locator('.overview-item:visible').count(), 1, 'one section has it');
  await page.fill('#overview-search', '');
  await overview('Departures').locator('.overview-unfold').click();
  const rows = () => overview('Departures').locator('.tree-name').allTextContents();
  const before = await rows();
  assert.ok(before.length >= 5, before.join());
  await overview('Departures').locator('.tree li').nth(1).click();
  await settled(page);
  assert.equal(await overview('Departures').locator('.tree li').nth(1).getAttribute('aria-selected'), 'true');
  await overview('Departures')
    .locator('.tree li')
    .nth(3)
    .click({ modifiers: ['Shift'] });
  await settled(page);
  assert.equal(await page.locator('.tree [aria-selected="true"]').count(), 3, 'three of them');
  // The welcome's words into this section.
  await overview('Welcome').locator('.overview-unfold').click();
  const [from, to] = [
    await overview('Welcome').locator('.tree li').nth(1).boundingBox(),
    await overview('Departures').locator('.tree li').nth(0).boundingBox(),
  ];
  await edit(page, () => drag(page, { x: from.x + 60, y: from.y + 12 }, { x: to.x + 60, y: to.y + 21 }));
  await eventually(async () => (await rows()).length, before.length + 1, 'one more here');
  await undo(page);
  await eventually(rows, before, 'and back');
});

test('guides of one’s own are drawn from the rulers, and handles stop at them; the page is zoomed and moved', async () => {
  await page.locator('#stage').focus();
  await command(page, 'r');
  await page.locator('#ruler-x:not([hidden])').waitFor();
  const stage = await page.locator('#stage').boundingBox();
  await edit(page, () => drag(page, { x: stage.x + 8, y: stage.y + 200 }, { x: stage.x + 300, y: stage.y + 220 }));
  const [at] = (await state()).guides.x;
  near(at, (300 - (stage.width - 1280 * (await scale())) / 2) / (await scale()), 2, 'where it was let go');
  await page.reload();
  await ready(page);
  await eventually(() => page.locator('#overlay .own-guide').count(), 1, 'kept with the page');
  await page.locator('#stage').focus();
  const was = await scale();
  await command(page, '+');
  await eventually(async () => (await scale()) > was, true, 'larger');
  await command(page, '0');
  near(await scale(), was, 0.001, 'as it fits');
  await page.mouse.move(stage.x + 400, stage.y + 200);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -400);
  await page.keyboard.up('Control');
  await eventually(async () => (await scale()) > was * 1.5, true, 'by the wheel');
  await page.keyboard.down('Space');
  const left = () => page.locator('iframe.canvas').evaluate((e) => e.getBoundingClientRect().left);
  const x = await left();
  await drag(page, { x: stage.x + 500, y: stage.y + 200 }, { x: stage.x + 420, y: stage.y + 200 });
  await page.keyboard.up('Space');
  near(await left(), x - 80, 2, 'moved under the hand');
  await command(page, '0');
  await undo(page);
  await eventually(() => page.locator('#overlay .own-guide').count(), 0, 'the guide is undone');
  await page.locator('#stage').focus();
  await command(page, 'r');
});

test('a command gets another key, which no other has; it is kept for the person', async () => {
  await page.locator('#stage').focus();
  await command(page, '?');
  const change = page.locator('[data-command-id="flip"] .key-change');
  await change.click();
  await page.keyboard.press('Control+d');
  await page.getByText('does “Duplicate” already').waitFor();
  await change.click();
  await page.keyboard.press('Control+j');
  await page.getByText('“Flip sides” is done by Ctrl+J').waitFor();
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
  await page.reload();
  await ready(page);
  await go('Departures');
  await page.locator('#stage').focus();
  const x = async () => (await section().getByText('Next departures').boundingBox()).x;
  const was = await x();
  await edit(page, () => page.keyboard.press('Control+j'));
  assert.ok((await x()) > was + 200, 'flipped');
  await undo(page);
});

test('pressing again goes through what lies stacked; a locked block is chosen and not dragged', async () => {
  await go('Departures');
  const times = section().locator('[data-block]').filter({ hasText: '08:10' }).last();
  const b = await times.boundingBox();
  const at = { x: b.x + b.width - 30, y: b.y + 10 };
  const selected = async () => (await page.locator('.trail').textContent()).replace(/\s+/g, ' ');
  await page.mouse.click(at.x, at.y);
  await settled(page);
  const first = await selected();
  await page.waitForTimeout(550);
  await page.mouse.click(at.x, at.y);
  await settled(page);
  assert.notEqual(await selected(), first, 'the one below');
  assert.match(await selected(), /Today/);
  await edit(page, () => page.keyboard.press('Control+Shift+L'));
  const c = await canvas(page)
    .locator(`[data-block="${(await state()).select}"]`)
    .boundingBox();
  const n = await kept(page);
  await drag(page, { x: c.x + 12, y: c.y + 12 }, { x: c.x + 200, y: c.y + 60 });
  await settled(page);
  assert.equal(await kept(page), n, 'it stays where it is');
  await page.keyboard.press('Delete');
  await page.getByText('It is locked').or(page.getByText('it is locked')).first().waitFor();
  await page.keyboard.press('Control+Shift+L');
  await settled(page);
});

test('making room is shown first: Escape leaves it, Enter takes it', async () => {
  await go('Departures');
  const heading = section().getByText('Next departures');
  const text = section().locator('[data-block]', { hasText: 'Boats leave from' }).last();
  await choose(page, heading);
  await edit(page, () => page.keyboard.press('Shift+ArrowDown'));
  await edit(page, () => page.keyboard.press('Shift+ArrowDown'));
  const y = async () => (await text.boundingBox()).y;
  const was = await y();
  const ask = async () => {
    await page.keyboard.press('Control+k');
    await page.keyboard.type('make room');
    await page.keyboard.press('Enter');
    await page.locator('#overlay .trial-text', { hasText: 'Room below' }).waitFor();
    await eventually(async () => (await y()) > was + 10, true, 'shown further down');
  };
  await ask();
  await page.keyboard.press('Escape');
  await eventually(async () => Math.abs((await y()) - was) < 1, true, 'left');
  await ask();
  await edit(page, () => page.keyboard.press('Enter'));
  assert.ok((await y()) > was + 10, 'taken');
  for (let i = 0; i < 3; i++) await undo(page);
});

test('in the midst of a drag: another tab’s edit, a block that is gone, a server that is away', async () => {
  await go('Departures');
  const text = section().locator('[data-block]', { hasText: 'Boats leave from' }).last();
  const id = await text.getAttribute('data-block');
  const other = await newPage(context);
  await other.goto(page.url());
  await ready(other);
  await page.bringToFront(); // what is behind another tab is drawn once a second
  const elsewhere = (command) =>
    other.evaluate(async (c) => {
      const { send } = await import(new URL('edits.js', document.querySelector('script[src$="bench.js"]').src).href);
      await send(c);
    }, command);
  const carry = async (midst) => {
    const b = await text.boundingBox();
    await page.mouse.move(b.x + 40, b.y + 14);
    await page.mouse.down();
    for (let i = 1; i <= 6; i++) await page.mouse.move(b.x + 40 + i * 6, b.y + 14 + i * 12);
    await midst();
    await page.mouse.move(b.x + 84, b.y + 120);
    await page.mouse.up();
    await settled(page);
  };
  await choose(page, text);

  // The connection is lost: it is said, what was selected stays, and it is tried again when that is asked for.
  const before = (await text.boundingBox()).y;
  await carry(() => context.setOffline(true));
  await page.getByText('can’t be reached').waitFor();
  near((await text.boundingBox()).y, before, 1, 'it is where it was');
  assert.ok((await page.locator('.trail').textContent()).includes('Boats leave'), 'and selected still');
  await context.setOffline(false);
  await edit(page, () => page.getByRole('button', { name: 'Try again' }).click());
  assert.ok((await text.boundingBox()).y > before + 20, 'moved now');
  await undo(page);

  await other.reload();
  await ready(other);
  await page.bringToFront(); // what is behind another tab is drawn once a second
  await carry(() => elsewhere({ op: 'block.write', node: id, value: '<p>Boats leave from elsewhere.</p>' }));
  await page.getByText('Somebody changed this at the same time').waitFor();
  await eventually(() => text.textContent().then((t) => t.trim()), 'Boats leave from elsewhere.', 'as it stands now');

  await other.reload();
  await ready(other);
  await page.bringToFront(); // what is behind another tab is drawn once a second
  await choose(page, text);
  await carry(() => elsewhere({ op: 'delete', node: id }));
  await page
    .getByText(/Somebody changed this|isn't on this page|isn’t on this page/)
    .first()
    .waitFor();
  await eventually(() => text.count(), 0, 'it is gone here too');
  await other.close();
});

test('two fingers move the page, and drag nothing; a section is dragged by the mark at its edge', async () => {
  const scrolled = () =>
    canvas(page)
      .locator('body')
      .evaluate((e) => e.ownerDocument.defaultView.scrollY);
  await go('Departures');
  const n = await kept(page);
  const was = await scrolled();
  await page.evaluate(async () => {
    const svg = document.getElementById('overlay');
    const r = svg.getBoundingClientRect();
    const touch = (name, pointerId, x, y) =>
      svg.dispatchEvent(
        new PointerEvent(name, {
          pointerId,
          pointerType: 'touch',
          isPrimary: pointerId === 21,
          button: name === 'pointermove' ? -1 : 0,
          clientX: r.left + x,
          clientY: r.top + y,
          bubbles: true,
          cancelable: true,
        }),
      );
    touch('pointerdown', 21, 300, 300);
    touch('pointerdown', 22, 420, 310);
    for (let i = 1; i <= 10; i++) {
      touch('pointermove', 21, 300, 300 - 12 * i);
      touch('pointermove', 22, 420, 310 - 12 * i);
      await new Promise((f) => {
        requestAnimationFrame(f);
      });
    }
    touch('pointerup', 21, 300, 180);
    touch('pointerup', 22, 420, 190);
  });
  near(((await scrolled()) - was) * (await scale()), 120, 3, 'as far as the fingers went');
  assert.equal(await kept(page), n, 'nothing else happened');
  await go('Three islands');
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('whole page');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(150);
  const next = await still(
    canvas(page).locator(`[data-section="${await overview('Winter weekend').getAttribute('data-section')}"]`),
  );
  const mark = await still(page.locator('[data-lifts]'));
  await edit(page, () =>
    drag(page, { x: mark.x + 12, y: mark.y + 12 }, { x: mark.x + 16, y: next.y + next.height * 0.7 }),
  );
  await eventually(
    async () =>
      (await page.locator('.overview-name > span:first-child').allTextContents())
        .join()
        .includes('Winter weekend,Three islands'),
    true,
    'behind the next one',
  );
  await undo(page);
  await command(page, '0');
});

test('nothing went wrong meanwhile', () =>
  assert.deepEqual(
    page.wrong.filter((w) => !/ERR_INTERNET_DISCONNECTED/.test(w)),
    [],
  ));
