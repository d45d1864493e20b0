// What is shown while something is dragged is what dropping does: random drags over the demo's home page, the
// outline compared with the block's box after the answer. OPENPLOT_DRAGS says how many (bin/drags: a thousand).
// Speed is measured and reported here (docs/performance.md), never asserted.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import { before, test } from 'node:test';
import zlib from 'node:zlib';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { edit, middle, newPage, onShelf, openBench, ready, settled, signIn, undo } from './person.mjs';
import { measuring, random, samples } from './samples.mjs';

const drags = Number(process.env.OPENPLOT_DRAGS ?? 6);
const median = (ms) => [...ms].sort((a, b) => a - b)[Math.floor(ms.length / 2)];
const p95 = (ms) => [...ms].sort((a, b) => a - b)[Math.floor(ms.length * 0.95)];

/** What a script of the Bench offers. */
const module = (name) => `import(new URL('${name}', document.querySelector('script[src$="bench.js"]').src).href)`;

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** Scrolls somewhere, and gives the ids and boxes in the window of the blocks that can be pressed there. */
const pressable = (share) =>
  page.evaluate(
    ({ share, canvas, page: model }) =>
      Promise.all([new Function(`return ${canvas}`)(), new Function(`return ${model}`)()]).then(([c, m]) => {
        const w = c.doc().defaultView;
        w.scrollTo({ top: share * (c.doc().body.scrollHeight - w.innerHeight), behavior: 'instant' });
        const stage = document.getElementById('stage').getBoundingClientRect();
        const o = document.querySelector('iframe.canvas').getBoundingClientRect();
        const s = c.scaleNow();
        return c
          .shownBlocks()
          .map((id) => {
            const r = c.element(id).getBoundingClientRect();
            const x = o.left + (r.left + Math.min(r.width / 2, 20)) * s;
            const y = o.top + (r.top + Math.min(r.height / 2, 10)) * s;
            return {
              id,
              x,
              y,
              on:
                c.hit(x, y).block === id &&
                !m.block(id).locked &&
                x > stage.left + 8 &&
                x < stage.right - 8 &&
                y > stage.top + 50 &&
                y < stage.bottom - 60,
            };
          })
          .filter((b) => b.on);
      }),
    { share, canvas: module('canvas.js'), page: module('page.js') },
  );

test(`${drags} random drags end where their outline was`, async (t) => {
  const r = random(12);
  let shown = 0;
  let refused = 0;
  let worst = 0;
  for (let i = 0; i < drags; i++) {
    await page.keyboard.press('Escape');
    const blocks = await pressable(r());
    if (!blocks.length) continue;
    const b = blocks[Math.floor(r() * blocks.length)];
    const stage = await page.locator('#stage').boundingBox();
    const to = { x: stage.x + 40 + r() * (stage.width - 80), y: stage.y + 50 + r() * (stage.height - 110) };
    await page.mouse.move(b.x, b.y);
    await page.mouse.down();
    for (let k = 1; k <= 5; k++) await page.mouse.move(b.x + ((to.x - b.x) * k) / 5, b.y + ((to.y - b.y) * k) / 5);
    const outline = await page.evaluate(async (source) => {
      const overlay = await new Function(`return ${source}`)();
      for (let n = 0; n < 40 && !overlay.outcomeNow(); n++)
        await new Promise((f) => {
          setTimeout(f, 15);
        });
      return overlay.outcomeNow()?.landing[0] ?? null;
    }, module('overlay.js'));
    const answered = page.waitForResponse((a) => a.url().endsWith('/edits'), { timeout: 1500 }).catch(() => null);
    await page.mouse.up();
    const answer = await answered;
    await settled(page);
    if (!answer || answer.status() !== 200 || !outline) {
      refused++;
      continue;
    }
    const now = await page.evaluate(
      async ({ id, section, source }) => {
        const c = await new Function(`return ${source}`)();
        const [r, o] = [c.element(id), c.element(section)].map((e) => e?.getBoundingClientRect());
        return r && o && { x: r.left - o.left, y: r.top - o.top, w: r.width, h: r.height };
      },
      { ...outline, source: module('canvas.js') },
    );
    assert.ok(now, `drag ${i}: the block is there`);
    const off = Math.max(...['x', 'y', 'w', 'h'].map((k) => Math.abs(now[k] - outline[k])));
    worst = Math.max(worst, off);
    shown++;
    assert.ok(
      off <= 1,
      `drag ${i} of ${outline.id}: the outline was ${JSON.stringify(outline)}, the block is ${JSON.stringify(now)}`,
    );
  }
  t.diagnostic(
    `${shown} of ${drags} drags ended where their outline was, ${worst.toFixed(2)} px off at most; ${refused} changed nothing`,
  );
  assert.ok(shown >= drags / 2, 'most drags did something');
});

// So it is with what comes from the Shelf, whose rows grow with it, and with all that makes way for it.
test('what is dragged from the Shelf lands where its outline was, and so does what makes way', async (t) => {
  let made = 0;
  let worst = 0;
  for (const [name, address, share] of [
    ['Heading', 'home', 0.3],
    ['Accordion', 'home', 0.45],
    ['Quote', 'fares', 0.1],
    ['Person', 'crew', 0.4],
    ['Table', 'notices', 0.3],
  ]) {
    await page.goto(`${plot.app}/sites/skerry-line/pages/${address}/bench`);
    await ready(page);
    await page.keyboard.press('Escape');
    await page.locator('#stage').focus();
    await page.keyboard.press('/');
    await page.locator('#shelf input[type="search"]').fill(name);
    const from = middle(await onShelf(page, name).boundingBox());
    const blocks = await pressable(share);
    const to = blocks[Math.floor(blocks.length / 2)];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    for (let k = 1; k <= 6; k++)
      await page.mouse.move(from.x + ((to.x - from.x) * k) / 6, from.y + ((to.y - from.y) * k) / 6);
    const outlines = await page.evaluate(async (source) => {
      const overlay = await new Function(`return ${source}`)();
      for (let n = 0; n < 200 && !overlay.outcomeNow(); n++)
        await new Promise((f) => {
          setTimeout(f, 15);
        });
      return overlay.outcomeNow();
    }, module('overlay.js'));
    assert.ok(outlines?.landing.length, `${name}: where it would stand is drawn`);
    await edit(page, () => page.mouse.up());
    const boxes = await page.evaluate(
      async ({ section, source, model }) => {
        const [c, m] = await Promise.all([new Function(`return ${source}`)(), new Function(`return ${model}`)()]);
        const o = c.element(section).getBoundingClientRect();
        const box = (r) => ({ x: r.left - o.left, y: r.top - o.top, w: r.width, h: r.height });
        return {
          landed: box(
            c
              .element(c.shownBlocks().find((id) => id.split('~')[0] === m.page.select.split('~')[0]))
              .getBoundingClientRect(),
          ),
          all: c.shownBlocks().map((id) => box(c.element(id).getBoundingClientRect())),
        };
      },
      { section: outlines.landing[0].section, source: module('canvas.js'), model: module('page.js') },
    );
    const off = (a, b) => Math.max(...['x', 'y', 'w', 'h'].map((k) => Math.abs(a[k] - b[k])));
    const least = Math.min(...outlines.landing.map((l) => off(boxes.landed, l)));
    worst = Math.max(worst, least);
    assert.ok(least <= 1, `${name}: ${JSON.stringify([outlines.landing, boxes.landed])}`);
    for (const other of outlines.others.filter((o) => o.section === outlines.landing[0].section)) {
      made++;
      assert.ok(
        boxes.all.some((b) => off(b, other) <= 1),
        `${name}: nothing came to ${JSON.stringify(other)}`,
      );
    }
    await undo(page);
  }
  assert.ok(made > 0, 'something made way');
  t.diagnostic(`${made} others made way as drawn; ${worst.toFixed(2)} px off at most`);
});

// Measured, and only so (bin/measure).
const measured = { skip: !process.env.OPENPLOT_MEASURE };

test('dragging in a section of 60 blocks, and 200 moved at once', measured, async (t) => {
  const fill = async (n, node) =>
    page.evaluate(
      async ({ n, node, source }) => {
        const { send } = await new Function(`return ${source}`)();
        const parts = Array.from({ length: n }, (_, i) => ({
          op: 'block.add',
          node,
          kind: ['text', 'heading', 'button'][i % 3],
          zone: 'desktop',
          place: { column: 1 + (i % 4) * 3, span: 3, row: 1 + Math.floor(i / 4) * 4, rows: 3, layer: 0 },
        }));
        for (let k = 0; k < n; k += 100) await send({ op: 'many', parts: parts.slice(k, k + 100) });
      },
      { n, node, source: module('edits.js') },
    );
  const section = async (n) => {
    await page.goto(`${plot.app}/sites/skerry-line/pages/winter-weekend/bench`);
    await ready(page);
    const node = await page.evaluate(async (source) => {
      const { send } = await new Function(`return ${source}`)();
      return (await send({ op: 'section.add', after: '', preset: 'empty' })).select;
    }, module('edits.js'));
    await fill(n, node);
    await page.keyboard.press('Escape');
    await page
      .frameLocator('iframe.canvas')
      .locator('body')
      .evaluate((e) => e.ownerDocument.defaultView.scrollTo(0, 0));
    await settled(page);
    return node;
  };
  await section(60);
  const first = await page
    .frameLocator('iframe.canvas')
    .locator('[data-section]')
    .first()
    .locator('[data-block]')
    .nth(1)
    .boundingBox();
  await page.mouse.click(first.x + 20, first.y + 8);
  await settled(page);
  await page.evaluate(() => {
    window.works = []; // ms of a move's handlers and of what they draw in the next frame, layout included
    const svg = document.getElementById('overlay');
    const [add, raf] = [window.addEventListener.bind(window), window.requestAnimationFrame.bind(window)];
    add(
      'pointermove',
      (e) => {
        e.start = performance.now();
      },
      true,
    );
    window.addEventListener = (name, f, o) => {
      add(name, f, o);
      if (name === 'pointermove')
        add('pointermove', (e) => {
          svg.getBoundingClientRect();
          window.works.push(performance.now() - e.start);
        });
    };
    window.requestAnimationFrame = (f) =>
      raf((now) => {
        const start = performance.now();
        f(now);
        svg.getBoundingClientRect();
        if (window.works.length) window.works[window.works.length - 1] += performance.now() - start;
      });
  });
  await page.mouse.move(first.x + 20, first.y + 8);
  await page.mouse.down();
  for (let i = 1; i <= samples(240); i++)
    await page.mouse.move(first.x + 20 + (i % 120) * 5, first.y + 8 + (i % 80) * 4);
  const works = (await page.evaluate(() => window.works)).slice(5);
  const drops = [];
  const drop = async () => {
    // let go, and how long it takes until the canvas shows it
    await page.evaluate(() => {
      window.shown = new Promise((resolve) => {
        const body = document.querySelector('iframe.canvas').contentDocument.body;
        setTimeout(() => resolve(0), 1500); // it came back to where it was
        window.addEventListener(
          'pointerup',
          () => {
            const start = performance.now();
            new MutationObserver((_, o) => {
              o.disconnect();
              resolve(performance.now() - start);
            }).observe(body, { childList: true });
          },
          { capture: true, once: true },
        );
      });
    });
    await page.mouse.up();
    drops.push(await page.evaluate(() => window.shown));
    await settled(page);
  };
  await drop();
  for (let i = 0; i < samples(10); i++) {
    const b = await page
      .frameLocator('iframe.canvas')
      .locator('[data-section]')
      .first()
      .locator('[data-block]')
      .nth(3)
      .boundingBox();
    await page.mouse.move(b.x + 20, b.y + 8);
    await page.mouse.down();
    await page.mouse.move(b.x + 60, b.y + 8);
    await page.mouse.move(b.x + (i % 2 ? 120 : 130), b.y + 8 + 40 * (i % 3));
    await drop();
  }
  const told = drops.filter(Boolean);
  t.diagnostic(
    `60 blocks: work for a move of the pointer ${median(works).toFixed(1)} ms (median of ${works.length}), 95th percentile ${p95(works).toFixed(1)} ms; from drop to canvas ${median(told).toFixed(0)} ms (median of ${told.length})`,
  );
  assert.ok(works.length > samples(240) / 2 && told.length > 0);

  const node = await section(200);
  const took = await page.evaluate(
    async ({ node, n, sources }) => {
      const [{ send }, { page: model }] = await Promise.all(sources.map((s) => new Function(`return ${s}`)()));
      const [first, ...rest] = model.places[node].map((b) => b.id);
      const times = [];
      const body = document.querySelector('iframe.canvas').contentDocument.body;
      for (let i = 0; i < n; i++) {
        performance.clearResourceTimings();
        const start = performance.now();
        let shown = 0;
        new MutationObserver((_, o) => {
          o.disconnect();
          shown = performance.now() - start;
        }).observe(body, { childList: true });
        await send({ op: 'blocks.nudge', node: first, with: rest, zone: 'desktop', dx: 0, dy: i % 2 ? -1 : 1 });
        times.push([
          performance.getEntriesByType('resource').find((e) => e.name.endsWith('/edits')).responseEnd - start,
          shown,
        ]);
      }
      return times;
    },
    { node, n: samples(10), sources: [module('edits.js'), module('page.js')] },
  );
  t.diagnostic(
    `200 blocks moved at once: answered after ${median(took.map(([a]) => a)).toFixed(0)} ms, on the canvas after ${median(took.map(([, s]) => s)).toFixed(0)} ms (medians of ${took.length})`,
  );
  assert.equal(took.length, samples(10));
});

test('the WebAssembly: its size, and when it can be used', async (t) => {
  const file = fs.readFileSync(new URL('../web/wasm/gestures.wasm', import.meta.url));
  const quality = measuring ? 11 : 5; // the best takes eight seconds
  const packed = zlib.brotliCompressSync(file, { params: { [zlib.constants.BROTLI_PARAM_QUALITY]: quality } });
  const times = [];
  for (let i = 0; i < samples(5); i++) {
    const p = await newPage(context);
    await p.addInitScript(() =>
      window.addEventListener('openplot:gestures', () => {
        window.usable = performance.now();
      }),
    );
    await p.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
    await ready(p);
    times.push(await p.evaluate(() => window.usable));
    await p.close();
  }
  t.diagnostic(
    `WebAssembly: ${Math.round(file.length / 1000)} kB, ${Math.round(packed.length / 1000)} kB with Brotli at quality ${quality}; usable ${Math.round(median(times))} ms after the address (median of ${times.length})`,
  );
  assert.ok(packed.length < 800_000, `${packed.length} bytes with Brotli`);
});

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
