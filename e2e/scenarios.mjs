// What designers arrange by hand, each on a page of its own: how it is done on the Bench, with what it
// takes counted, and what visitors must see of it at 1280, 800 and 375 px.
import assert from 'node:assert/strict';
import { drag, eventually, near, publish as press, ready, settled } from './person.mjs';
import { hand } from './hand.mjs';

export const widths = [1280, 800, 375];

/** The edges of the content at a width, in px: 1080 in the middle, or the gutters. */
const inner = { 1280: [100, 1180], 800: [32, 768], 375: [20, 355] };

const box = (e) => {
  const r = e.getBoundingClientRect();
  return { x: r.x, y: r.y + window.scrollY, w: r.width, h: r.height };
};
const boxes = (locator) =>
  locator.evaluateAll((all, f) => all.map((e) => new Function(`return (${f})`)()(e)), String(box));
const point = async (locator, x, y) => {
  const b = await locator.boundingBox();
  return { x: b.x + (x < 0 ? b.width + x : x), y: b.y + (y < 0 ? b.height + y : y) };
};
const overview = (h, n) => h.page.locator('.overview-go').nth(n);
const inSight = (locator) => locator.evaluate((e) => e.scrollIntoView({ block: 'center' }));
const handle = async (h, label) => {
  const i = await h.page.evaluate(async (l) => {
    const { page } = await import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href);
    return page.handles.findIndex((one) => one.label === l);
  }, label);
  assert.ok(i >= 0, `there is a handle for ${label}`);
  for (let was = '', now; ; was = now) {
    // until it stands still
    const b = await h.page.locator(`[data-handle="${i}"]`).boundingBox();
    now = JSON.stringify(b);
    if (now === was) return { x: b.x + 12, y: b.y + 12 };
    await h.page.waitForTimeout(80);
  }
};
const scale = (h) => h.page.locator('iframe.canvas').evaluate((e) => e.getBoundingClientRect().width / e.clientWidth);

export const scenarios = [
  {
    name: 'A picture and text half and half; the section duplicated, and flipped',
    how: 'two columns, one emptied and a picture put in it, Duplicate, Flip sides',
    async run(h) {
      await h.insert('two columns');
      await h.pressOn(h.canvas.getByText('On the right'));
      await h.keys('Escape', 'Delete');
      await h.picture(1);
      await h.keys('Escape', 'Control+d');
      await h.command('flip');
    },
    async shows(p, width) {
      const [a, b] = [
        p
          .locator('section')
          .filter({ has: p.locator('img') })
          .nth(0),
        p
          .locator('section')
          .filter({ has: p.locator('img') })
          .nth(1),
      ];
      const of = async (s) => [(await boxes(s.locator('h2').locator('..')))[0], (await boxes(s.locator('img')))[0]];
      const [[text, picture], [text2, picture2]] = [await of(a), await of(b)];
      const [left, right] = inner[width];
      if (width === 375) {
        for (const one of [text, picture, text2, picture2]) {
          near(one.x, left, 1, 'full width');
          near(one.x + one.w, right, 1, 'full width');
        }
        return;
      }
      near(text.x, left, 1, 'the text on the left');
      near(picture.x + picture.w, right, 1, 'the picture on the right');
      near(text.w, picture.w, 1, 'half and half');
      near(picture2.x, left, 1, 'flipped: the picture on the left');
      near(text2.x + text2.w, right, 1, 'flipped: the text on the right');
    },
  },
  {
    name: 'A title above a slider of six cards designed once',
    how: 'a heading and a Series from the Shelf, an item duplicated three times, Slider of its Layout',
    async run(h) {
      await h.block('heading');
      await h.block('series');
      await h.pressOn(h.canvas.getByText('The third', { exact: true }));
      await h.keys('Escape', 'Control+d', 'Control+d', 'Control+d', 'Escape');
      await h.press(h.tray.getByRole('group', { name: 'Layout' }).getByRole('button', { name: 'Slider' }));
    },
    async shows(p, width) {
      const list = p.locator('ul').filter({ hasText: 'The third' });
      const items = await boxes(list.locator('> li'));
      assert.equal(items.length, 6);
      for (const i of items) {
        near(i.w, items[0].w, 0.5, 'as wide as the first');
        near(i.y, items[0].y, 0.5, 'on one line');
      }
      const l = (await boxes(list))[0];
      const shown = items.filter((i) => i.x < l.x + l.w - 1);
      const last = shown.at(-1);
      assert.ok(last.x + last.w > l.x + l.w + 10, `a part of the next one shows at ${width}`);
      assert.equal(await list.evaluate((e) => e.offsetHeight - e.clientHeight), 0, 'no scrollbar');
      assert.ok(await list.evaluate((e) => e.scrollWidth > e.clientWidth), 'it slides');
      assert.ok(await p.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), 'the page doesn’t');
    },
  },
  {
    name: 'Two cards of equal width in line with the row of three below them, without a number',
    how: 'a card pulled to half of the grid and duplicated, the third pulled to a third and duplicated twice',
    async run(h) {
      await h.block('card');
      await aCardOf(h, 1, 6);
      await h.keys('Control+d', 'Control+d'); // beside it, then below that
      await aCardOf(h, 1, 4);
      await h.keys('Control+d', 'Control+d');
    },
    async shows(p, width) {
      const all = await boxes(p.locator('article'));
      assert.equal(all.length, 5);
      const [left, right] = inner[width];
      if (width !== 1280) {
        // where there is room for two they stay beside each other
        const beside = width === 800 ? all.slice(0, 2) : [];
        if (beside.length) {
          near(beside[0].y, beside[1].y, 1, 'two beside each other');
          near(beside[0].w, beside[1].w, 1, 'alike');
          near(beside[1].x + beside[1].w, right, 1, 'to the edge');
        }
        for (const b of all.slice(beside.length)) {
          near(b.x, left, 1, 'full width');
          near(b.x + b.w, right, 1, 'full width');
        }
        return;
      }
      const [two, three] = [
        all.filter((b) => Math.abs(b.y - all[0].y) < 1),
        all.filter((b) => Math.abs(b.y - all[0].y) >= 1),
      ];
      assert.deepEqual([two.length, three.length], [2, 3], 'two above three');
      for (const row of [two, three]) {
        row.sort((a, b) => a.x - b.x);
        near(row[0].x, left, 0.5, 'the left edge');
        near(row.at(-1).x + row.at(-1).w, right, 0.5, 'the right edge');
        for (const b of row) {
          near(b.w, row[0].w, 0.5, 'equal widths');
          near(b.y, row[0].y, 0.5, 'level');
        }
        near(row[1].x - row[0].x - row[0].w, 24, 0.5, 'the gap');
      }
    },
  },
  {
    name: 'A heading over a picture and a shape over both, layers changed three times, all moved into the next section',
    how: 'three blocks dragged over one another, keys for the layers, a band around them, one drag',
    async run(h) {
      await h.insert('empty section');
      await h.press(overview(h, 0));
      await h.picture(1);
      await h.block('heading');
      await h.block('shape');
      const img = h.canvas
        .locator('[data-block]')
        .filter({ has: h.canvas.locator('img') })
        .last();
      const heading = h.canvas.locator('h2[data-block]');
      const shape = h.canvas
        .locator('[data-block]')
        .filter({ has: h.canvas.locator('svg') })
        .last();
      await inSight(img);
      await h.pressOn(heading);
      let from = await point(heading, 30, 12);
      await h.drag(from, { x: from.x + 60, y: (await point(img, 0, 60)).y });
      await h.pressOn(shape);
      from = await point(shape, 20, 20);
      await h.drag(from, { x: (await point(heading, 120, 0)).x, y: (await point(heading, 0, 20)).y });
      await h.keys('Control+PageDown', 'Control+PageDown', 'Control+PageUp');
      await h.pressOn(img, { shift: true, x: 8, y: 8 });
      await h.pressOn(heading, { shift: true, x: 8, y: 8 });
      const target = h.canvas.locator('section').nth(1);
      await target.evaluate((e) => e.scrollIntoView({ block: 'end' }));
      await h.pause();
      from = await point(img, 8, 8);
      const to = await point(target, 0, 30);
      await h.drag(from, { x: from.x, y: to.y });
    },
    async shows(p, width) {
      const [img] = await boxes(p.locator('img'));
      const [heading] = await boxes(p.locator('h2'));
      const holders = await p
        .locator('section')
        .evaluateAll((all) => all.map((s) => s.querySelectorAll('img, h2, svg').length));
      assert.deepEqual(holders.filter(Boolean).length, 1, 'all in one section');
      if (width === 1280)
        assert.ok(
          heading.y >= img.y && heading.y + heading.h <= img.y + img.h && heading.x < img.x + img.w,
          'the heading lies over the picture still',
        );
      const on = await p.locator('h2').evaluate((e) => {
        const r = e.getBoundingClientRect();
        e.scrollIntoView({ block: 'center' });
        const s = e.getBoundingClientRect();
        return e.contains(document.elementFromPoint(s.x + 4, s.y + s.height / 2)) || r.width === 0;
      });
      assert.ok(on, 'the heading is seen');
    },
  },
  {
    name: 'A section pulled up over the one before it with a divider between, as high as that one',
    how: 'a shape for the divider, a drag of its edge, “Same as…” of Min height',
    async run(h) {
      await h.insert('call in the middle');
      await h.press(overview(h, 1));
      await h.enter('#f-min-height', '420');
      await h.insert('welcome in the middle');
      const bottom = h.canvas.locator('section').last();
      await h.press(h.page.locator('#tray [data-cluster="dividers"]'));
      await h.press(h.tray.locator('#f-edge-top'));
      await h.press(h.page.locator('#panel-options').getByRole('option').nth(1));
      await bottom.evaluate(
        (e) => window.scrollTo(0, e.offsetTop - 200) || e.ownerDocument.defaultView.scrollTo(0, e.offsetTop - 200),
      );
      await h.pause();
      const at = await handle(h, 'Overlap above');
      await h.drag(at, { x: at.x, y: at.y - 60 * (await scale(h)) });
      await h.press(h.page.locator('#tray [data-cluster="size"]'));
      await h.press(h.tray.locator('#f-min-height'));
      await h.keys('F4');
      await h.press(h.page.locator('#panel-number').getByRole('option', { name: /Same as/ }));
      await h.pressOn(h.canvas.locator('section').nth(-2), { x: 4, y: 4 });
    },
    async shows(p, width) {
      const [upper, lower] = (await boxes(p.locator('section'))).slice(-2);
      assert.ok(lower.y < upper.y + upper.h - 20, `it lies over the one before at ${width}`);
      const least = await p
        .locator('section')
        .evaluateAll((all) => all.slice(-2).map((s) => getComputedStyle(s).minHeight));
      assert.equal(least[0], least[1], 'as high as that one');
      assert.equal(
        (await p.locator('section').last().locator('> svg, > div > svg, > [aria-hidden]').count()) > 0,
        true,
        'a divider',
      );
    },
  },
  {
    name: 'A row of three columns turned into two, nothing lost',
    how: 'two columns and one more, thirds, then halves; undone and redone',
    async run(h) {
      await h.insert('two columns');
      await h.pressOn(h.canvas.getByText('On the right'));
      await h.keys('Escape', 'Control+d', 'Escape');
      await h.press(h.tray.getByRole('button', { name: 'Choices of Column widths' }));
      await h.press(h.page.locator('#panel-options').getByRole('option', { name: '4 4 4', exact: true }));
      await h.press(h.tray.getByRole('button', { name: 'Choices of Column widths' }));
      await h.press(h.page.locator('#panel-options').getByRole('option', { name: '6 6', exact: true }));
      await h.keys('Control+z');
      await h.keys('Control+Shift+z');
    },
    async shows(p, width) {
      const s = p.locator('section').filter({ hasText: 'On the left' });
      assert.equal(await s.locator('h2').count(), 3, 'nothing is lost');
      const all = await boxes(s.locator('h2'));
      const [left] = inner[width];
      near(all[0].x, left, 1, 'the first at the left');
      if (width === 375) near(all[1].x, left, 1, 'below one another');
      else {
        near(all[1].y, all[0].y, 1, 'two beside one another');
        near(all[2].x, left, 1, 'the third below them');
        assert.ok(all[2].y > all[0].y + 20);
      }
    },
  },
  {
    name: 'A photo that hangs out into the next section by 120 px, in all zones',
    how: 'its lower handle dragged',
    async run(h) {
      await h.picture(1);
      await h.insert('call in the middle');
      const img = h.canvas.locator('section').first().locator('img');
      await h.pressOn(img);
      await img.evaluate((e) => {
        const w = e.ownerDocument.defaultView;
        w.scrollTo(0, w.scrollY + e.getBoundingClientRect().bottom - 300);
      });
      await h.pause();
      const at = await handle(h, 'Overhang below');
      const s = await scale(h);
      await h.page.mouse.move(at.x, at.y);
      await h.page.mouse.down();
      await h.page.keyboard.down('Control'); // to the px, past the steps
      for (let i = 1; i <= 12; i++) await h.page.mouse.move(at.x, at.y + i * 10 * s);
      await h.page.mouse.up();
      await h.page.keyboard.up('Control');
      h.counted.drags++;
      h.counted.keys++;
      await h.pause();
    },
    async shows(p, width) {
      const [img] = await boxes(p.locator('img'));
      const [one, next] = await boxes(p.locator('section'));
      near(img.y + img.h - one.y - one.h, 120, 1.5, `it hangs out at ${width}`);
      near(next.y, one.y + one.h, 0.5, 'the next section begins where the first one ends');
      const over = await p.locator('img').evaluate((e) => {
        e.scrollIntoView({ block: 'end' });
        const r = e.getBoundingClientRect();
        return document.elementFromPoint(r.x + 3, r.bottom - 3) === e;
      });
      assert.ok(over, 'it is seen over the next one’s ground');
    },
  },
  {
    name: 'Eight loose blocks made tidy: left edges, gaps, headings alike',
    how: 'Ctrl+A, Tidy, Same width; the look of a heading, then All of this kind like this one',
    async before(h) {
      // as somebody left them
      const node = await h.page.locator('.overview-item').first().getAttribute('data-section');
      const zone = 'desktop';
      const parts = [
        [1, 4, 1],
        [2, 5, 3],
        [1, 3, 7],
        [2, 6, 9],
        [1, 5, 12],
        [2, 4, 14],
        [1, 6, 18],
        [2, 3, 20],
      ].flatMap(([column, span, row], i) => [
        {
          op: 'block.add',
          node,
          kind: i % 2 ? 'text' : 'heading',
          zone,
          place: { column, span, row, rows: i % 2 ? 3 : 2, layer: 0 },
        },
      ]);
      await h.page.evaluate(
        async (command) => {
          const { send } = await import(
            new URL('edits.js', document.querySelector('script[src$="bench.js"]').src).href
          );
          await send(command);
        },
        { op: 'many', parts },
      );
      await h.pause();
    },
    async run(h) {
      await h.pressOn(h.canvas.locator('h2').first());
      await h.enter('#f-font-weight', '300');
      await h.command('all of this kind');
      await h.keys('Control+a');
      await h.command('tidy');
      await h.command('same width');
    },
    async shows(p, width) {
      const s = p.locator('section').filter({ has: p.locator('h2') });
      const all = (
        await s.evaluate((e) =>
          [...e.querySelectorAll('h2, p')].map((b) => {
            const r = b.getBoundingClientRect();
            return { x: r.x, y: r.y, w: r.width, h: r.height };
          }),
        )
      ).sort((a, b) => a.y - b.y);
      assert.equal(all.length, 8);
      for (const b of all) near(b.x, inner[width][0], 1, `left edges at ${width}`);
      if (width === 1280) for (const b of all) near(b.w, all[0].w, 1, 'same width');
      const weights = await p.locator('h2').evaluateAll((hs) => hs.map((h) => getComputedStyle(h).fontWeight));
      assert.deepEqual(weights, ['300', '300', '300', '300'], 'headings alike');
    },
  },
  {
    name: 'A row of four cards, built as one and pasted three times, made a Series',
    how: 'columns, a card, Ctrl+C and Ctrl+V, then Series of it and its copies',
    async run(h) {
      await h.press(h.tray.getByRole('group', { name: 'Arrangement' }).getByRole('button', { name: 'Columns' }));
      await h.block('card');
      await h.page.locator('#stage').focus();
      await h.keys('Control+c', 'Control+v');
      await eventually(() => h.canvas.locator('article').count(), 2, 'pasted once');
      await h.keys('Control+v');
      await eventually(() => h.canvas.locator('article').count(), 3, 'pasted twice');
      await h.keys('Control+v');
      await eventually(() => h.canvas.locator('article').count(), 4, 'pasted three times');
      await h.command('series of');
      await h.page.waitForTimeout(300);
      await h.keys('Enter');
      await eventually(() => h.canvas.locator('ul > li > article').count(), 4, 'a Series of four');
    },
    async shows(p, width) {
      const items = await boxes(p.locator('ul > li').filter({ has: p.locator('article') }));
      assert.equal(items.length, 4);
      for (const i of items) near(i.w, items[0].w, 0.5, 'equal widths');
      const [left, right] = inner[width];
      const per = { 1280: 4, 800: 2, 375: 1 }[width];
      near(items[0].x, left, 1, 'the left edge');
      near(items[per - 1].x + items[per - 1].w, right, 1, `${per} in a row at ${width}`);
    },
  },
];

/** A column of the grid and its gap, in px of the page. */
const column = (1080 - 11 * 24) / 12 + 24;

/** Drags the selected card to a column and pulls its right edge until it is so many wide. */
async function aCardOf(h, from, span) {
  const card = await h.selected();
  await inSight(card);
  await h.pause();
  const s = await scale(h);
  let [b] = await boxes(card);
  const to = 100 + (from - 1) * column;
  if (Math.abs(b.x - to) > 2) {
    const at = await point(card, 30, 30);
    await h.drag(at, { x: at.x + (to - b.x) * s, y: at.y });
    [b] = await boxes(card);
  }
  const by = span * column - 24 - b.w;
  if (Math.abs(by) > 2) {
    const grip = await h.page.locator('[data-edges="4"]').boundingBox();
    await h.drag({ x: grip.x + 12, y: grip.y + 12 }, { x: grip.x + 12 + by * s, y: grip.y + 12 });
  }
  return card;
}

/** Makes a page of the demo's site and opens it; what that takes isn't counted. */
export async function blank(page, plot, name) {
  await page.goto(`${plot.app}/sites/skerry-line`);
  await page.getByRole('link', { name: 'New page' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.locator('.ready-pages label', { hasText: 'Blank page' }).click();
  await page.getByLabel(/With the top bar/).uncheck();
  await page.getByRole('button', { name: 'Add the page' }).click();
  await ready(page);
  await page.locator('.overview-go').first().click();
  await settled(page);
}

/** Carries a scenario out on a page of its own, and gives what it took and the page's address. */
export async function carryOut(page, plot, s, i) {
  const name = `By hand ${i + 1}`;
  await blank(page, plot, name);
  const h = hand(page);
  await s.before?.(h);
  h.reset();
  await s.run(h);
  return { ...h.counted, slug: name.toLowerCase().replaceAll(' ', '-') };
}

/** Publishes the page that is open. */
export async function publish(page) {
  await press(page);
  const link = page.getByRole('link', { name: /Open it/ });
  await link.waitFor();
  return link.getAttribute('href');
}

export { drag };
