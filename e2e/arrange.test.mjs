// What is arranged by hand: dragged within lines, columns and Series and from one into
// another, copied by it, several at once.
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
  openBench,
  option,
  settled,
  signIn,
  undo,
} from './person.mjs';

const section = () => canvas(page).locator('section', { hasText: 'Three reasons to come' });
const middle = async (locator, dx = 0, dy = 0) => {
  const b = await locator.boundingBox();
  return { x: b.x + Math.min(b.width / 2, 30) + dx, y: b.y + b.height / 2 + dy };
};

/** Presses, goes to a point in small steps, and does something before letting go. */
async function carry(from, to, before = async () => {}) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= 10; i++)
    await page.mouse.move(from.x + ((to.x - from.x) * i) / 10, from.y + ((to.y - from.y) * i) / 10);
  await before();
  await page.mouse.up();
}

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  await command(page, '/');
  await page.locator('#shelf-search').fill('three features');
  await page.locator('[data-filled]').waitFor();
  await page.waitForTimeout(200);
  await edit(page, () => page.keyboard.press('Enter'));
  await section().waitFor();
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
});

test('within an item of a Series a block goes where the line is, in every item', async () => {
  const first = section().locator('li').first();
  const kinds = (li) =>
    li.evaluate((e) =>
      [...e.querySelectorAll('[data-block]')].filter((b) => !b.querySelector('[data-block]')).map((b) => b.tagName),
    );
  const was = await kinds(first);
  assert.equal(was.indexOf('H3') < was.lastIndexOf('DIV'), true);
  const heading = first.locator('h3');
  const text = first.getByText('Say in a sentence');
  await choose(page, heading);
  await edit(page, async () =>
    carry(await middle(heading), await middle(text, 0, 18), async () => {
      assert.equal(await page.locator('#overlay .inserts').count(), 1, 'a line where it goes');
      assert.equal(await page.locator('#overlay .receives').count(), 1, 'and what takes it in');
    }),
  );
  for (const i of [0, 1, 2])
    await eventually(async () => (await kinds(section().locator('li').nth(i))).at(-1), 'H3', `item ${i}`);
  await undo(page);
  await eventually(() => kinds(first), was, 'undone');
});

test('an item is dragged by anything in it once it is selected, and Alt leaves a copy', async () => {
  const titles = section().locator('h3');
  await choose(page, titles.first());
  await page.keyboard.press('Escape'); // the item
  await settled(page);
  await edit(page, async () => carry(await middle(titles.first()), await middle(titles.last(), 120)));
  await eventually(() => titles.allTextContents(), ['The second', 'The third', 'The first reason'], 'behind the last');
  await undo(page);
  await eventually(() => titles.allTextContents(), ['The first reason', 'The second', 'The third'], 'undone');
  await choose(page, titles.first());
  await page.keyboard.press('Escape');
  await settled(page);
  await page.keyboard.down('Alt');
  await edit(page, async () => carry(await middle(titles.first()), await middle(titles.last(), 120)));
  await page.keyboard.up('Alt');
  await eventually(() => titles.count(), 4, 'one more');
  await undo(page);
});

test('a block goes from a grid into a container and back, and Escape calls it off', async () => {
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  const grid = canvas(page).locator('section', { hasText: 'Next departures' });
  const heading = grid.getByRole('heading', { name: 'Next departures' });
  const target = section().locator('h2');
  const n = await kept(page);
  await choose(page, heading);
  const from = await middle(heading);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 40);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  assert.equal(await kept(page), n, 'nothing came of it');
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  await choose(page, target);
  const words = await target.textContent();
  const b = await grid.boundingBox();
  await edit(page, async () =>
    carry(await middle(target), { x: b.x + b.width / 2, y: Math.max(b.y + b.height - 40, 150) }),
  );
  await eventually(() => grid.getByText(words).count(), 1, 'it is in the grid');
  await undo(page);
  await eventually(() => section().locator('h2').count(), 1, 'and back');
});

const islands = () => canvas(page).locator('section', { hasText: 'each a day out' });
const titles = () => islands().locator('h3');
const boxes = () =>
  titles().evaluateAll((all) =>
    all.map((e) => {
      const r = e.getBoundingClientRect();
      return [Math.round(r.left), Math.round(r.top + e.ownerDocument.defaultView.scrollY)];
    }),
  );

/** Gives what is selected a size of type. */
const sized = (v) =>
  edit(page, async () => {
    await page.locator('#f-font-size').fill(v);
    await page.locator('#f-font-size').press('Enter');
  });

/** Selects all three titles, by Shift and presses. */
async function three() {
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  await choose(page, titles().first());
  await page.keyboard.down('Shift');
  for (const i of [1, 2]) {
    const at = await middle(titles().nth(i));
    await page.mouse.click(at.x, at.y);
  }
  await page.keyboard.up('Shift');
  await page.locator('.trail', { hasText: '3 blocks' }).waitFor();
}

test('several are set, moved and aligned in one edit each, and one undo takes it back', async () => {
  await three();
  assert.deepEqual(await findings(page), []);
  await choose(page, titles().first());
  await sized('30px');
  await three();
  await eventually(() => page.locator('#f-font-size').getAttribute('placeholder'), 'mixed', 'where they differ');
  await undo(page);
  await three();
  const n = await kept(page);
  await edit(page, () => option(page, 'Align text', 'Center'));
  assert.deepEqual(await titles().evaluateAll((all) => all.map((e) => getComputedStyle(e).textAlign)), [
    'center',
    'center',
    'center',
  ]);
  assert.equal(await kept(page), n + 1, 'one edit');
  await undo(page);
  const was = await boxes();
  await three();
  await edit(page, () => page.keyboard.press('ArrowDown'));
  const down = await boxes();
  assert.ok(
    down.every(([x, y], i) => x === was[i][0] && y > was[i][1] && y - was[i][1] === down[0][1] - was[0][1]),
    `${down}`,
  );
  await undo(page);
  await three();
  const at = await middle(titles().first());
  await edit(page, async () => carry(at, { x: at.x, y: at.y - 110 }));
  const up = await boxes();
  assert.ok(
    up.every(([x, y], i) => x === was[i][0] && y < was[i][1]) && new Set(up.map(([, y]) => y)).size === 1,
    `dragged together: ${up}`,
  );
  await undo(page);
  await three();
  await edit(page, () => page.getByRole('button', { name: 'Align to each other: Left' }).click());
  assert.equal(new Set((await boxes()).map(([x]) => x)).size, 1, 'one left edge');
  await edit(page, () => page.getByRole('button', { name: 'Align to the section: Top' }).click()); // they stay selected
  await undo(page);
  await undo(page);
  assert.deepEqual(await boxes(), was);
});

test('a band over the ground and Ctrl+A select, mixed values say so, and Delete takes all', async () => {
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  const b = await islands().boundingBox();
  const [first, last] = [await titles().first().boundingBox(), await titles().last().boundingBox()];
  await carry({ x: b.x + 30, y: first.y - 6 }, { x: last.x + last.width - 4, y: first.y + first.height / 2 });
  await page.locator('.trail', { hasText: '3 blocks' }).waitFor();
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+a');
  await page.locator('.trail', { hasText: '13 blocks' }).waitFor();
  await edit(page, () => page.keyboard.press('Delete'));
  await eventually(() => islands().count(), 0, 'all gone');
  await undo(page);
  await eventually(() => titles().count(), 3, 'all back');
});

test('blocks, sections and looks are copied, cut and pasted; other text becomes what it is', async () => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  const read = () => page.evaluate(() => navigator.clipboard.readText());
  await choose(page, titles().first());
  await page.keyboard.press('Control+c');
  await eventually(async () => (await read()).startsWith('Open Plot blocks, format 1\n{'), true, 'copied');
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  await edit(page, () => page.keyboard.press('Control+v'));
  await eventually(() => section().getByText('Inner Holm').count(), 1, 'pasted into the section');
  await edit(page, () => page.keyboard.press('Control+x'));
  await eventually(() => section().getByText('Inner Holm').count(), 0, 'cut');
  await undo(page);
  await undo(page);
  const sections = await page.locator('.overview-item').count();
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  await page.keyboard.press('Control+c');
  await eventually(async () => (await read()).includes('"sections"'), true, 'a section');
  await edit(page, () => page.keyboard.press('Control+v'));
  await eventually(() => page.locator('.overview-item').count(), sections + 1, 'pasted behind it');
  await undo(page);
  // Looks, of one to several.
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  await choose(page, titles().first());
  await sized('30px');
  await page.keyboard.press('Escape');
  await page.locator('#stage').focus();
  await choose(page, titles().first());
  await page.keyboard.press('Control+Shift+c');
  await eventually(() => page.evaluate(() => localStorage.getItem('look')?.includes('30px')), true, 'copied');
  await choose(page, titles().nth(1));
  await page.keyboard.down('Shift');
  const at = await middle(titles().nth(2));
  await page.mouse.click(at.x, at.y);
  await page.keyboard.up('Shift');
  await page.locator('.trail', { hasText: '2 blocks' }).waitFor();
  await edit(page, () => page.keyboard.press('Control+Shift+v'));
  await eventually(
    () => titles().evaluateAll((all) => all.map((e) => getComputedStyle(e).fontSize)),
    ['30px', '30px', '30px'],
    'all alike',
  );
  await undo(page);
  await undo(page);
  // From elsewhere.
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  for (const [text, selector] of [
    ['https://skerry.example/plan', 'a[href="https://skerry.example/plan"]'],
    ['stop\tat\nSkarva\t8:10', 'table'],
    ['The boat is late.', ':text("The boat is late.")'],
  ]) {
    await page.evaluate((t) => navigator.clipboard.writeText(t), text);
    await edit(page, () => page.keyboard.press('Control+v'));
    await eventually(() => section().locator(selector).count(), 1, text);
    await undo(page);
    await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
    await settled(page);
  }
  await page.evaluate(() => navigator.clipboard.writeText('Open Plot blocks, format 1\n{"blocks":[{"id'));
  await page.keyboard.press('Control+v');
  await page
    .getByText('has blocks that can’t be read')
    .or(page.getByText("has blocks that can't be read"))
    .first()
    .waitFor();
});

test('all commands are found by name and by what they are for, with their keys, or why not', async () => {
  const missing = await page.evaluate(async () => {
    const [{ table }, { does }] = await Promise.all(
      ['commands.js', 'does.js'].map(
        (name) => import(new URL(name, document.querySelector('script[src$="bench.js"]').src).href),
      ),
    );
    return [
      ...table.map((c) => c.id).filter((id) => !does[id]),
      ...Object.keys(does).filter((id) => !table.some((c) => c.id === id)),
    ];
  });
  assert.deepEqual(missing, [], 'the table and what is done are one');
  await page.locator('.overview-item', { hasText: 'Three islands' }).locator('.overview-go').click();
  await settled(page);
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('align');
  assert.match(await page.locator('#command-align-left').textContent(), /Select a block first/);
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Escape');
  await choose(page, titles().last());
  const at = await middle(titles().first());
  await page.mouse.click(at.x, at.y, { button: 'right' });
  await page.locator('.trail', { hasText: 'Inner Holm' }).waitFor();
  await page.keyboard.type('again'); // Duplicate, by another word
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => titles().count(), 4, 'duplicated');
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+k');
  assert.equal(
    await page.locator('#command-offers li').first().locator('span').textContent(),
    'Duplicate',
    'what was used last comes first',
  );
  await page.keyboard.press('Escape');
  await undo(page);
  await eventually(() => titles().count(), 3, 'undone');
});

test('the last edits are listed, and gone back to before one of them', async () => {
  await page.locator('.overview-item', { hasText: 'Features' }).locator('.overview-go').click();
  await settled(page);
  const n = await kept(page);
  const name = () => page.locator('.overview-item.selected .overview-name > span').first().textContent();
  for (const words of ['One', 'Two', 'Three']) {
    await edit(page, async () => {
      await page.locator('#f-name').fill(words);
      await page.locator('#f-name').press('Enter');
    });
  }
  await page.getByRole('button', { name: 'Undo: rename' }).waitFor();
  await page.getByRole('button', { name: 'Go back further' }).click();
  await page.locator('#panel-recent [data-steps="2"]').waitFor();
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await eventually(() => kept(page), n + 1, 'two of three');
  await eventually(name, 'One', 'as it was before them');
  await undo(page);
});

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
