// How soon the Bench can be used, and how soon the canvas follows what is tried. Speed is
// measured and reported here (docs/performance.md), never asserted: only that it happens.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { slowLine } from './line.mjs';
import { browser, context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { newPage, openBench, ready, settled, signIn } from './person.mjs';
import { samples } from './samples.mjs';

const blocks = 60;
const median = (ms) => [...ms].sort((a, b) => a - b)[Math.floor(ms.length / 2)];
const p95 = (ms) => [...ms].sort((a, b) => a - b)[Math.floor(ms.length * 0.95)];

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

for (const [name, line] of [
  ['loopback', null],
  ['50 ms, 20 Mbit/s', [50, 20e6]],
]) {
  test(`the Bench is usable: first and second opening, ${name}`, async (t) => {
    const over = line && (await slowLine(...line));
    const window = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      storageState: await context.storageState(),
      ...(over && { proxy: { server: over.server } }),
    });
    t.after(async () => {
      await window.close();
      await over?.close();
    });
    const p = await newPage(window);
    await p.addInitScript(() => {
      new MutationObserver((_, o) => {
        if (document.body?.dataset.usable !== undefined) {
          window.usable = performance.now();
          o.disconnect();
        }
      }).observe(document, { subtree: true, childList: true, attributes: true });
    });
    const session = await window.newCDPSession(p);
    const first = [];
    const again = [];
    const n = samples(5);
    for (let i = 0; i < n; i++) {
      await session.send('Network.clearBrowserCache');
      for (const times of [first, again]) {
        await p.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
        await ready(p);
        times.push(await p.evaluate(() => window.usable));
        if (i === n - 1 && times === first) await p.waitForLoadState('networkidle'); // the editor comes when the Bench is idle
      }
    }
    const asked = await p.evaluate(
      () =>
        performance.getEntriesByType('resource').filter((r) => r.name.includes('/static/') && r.transferSize > 0)
          .length,
    );
    t.diagnostic(
      `${name}: usable after ${Math.round(median(first))} ms the first time, ${Math.round(median(again))} ms the second (medians of ${n}); ${asked} static files asked for the second time`,
    );
    assert.equal(asked, 0, 'static files are kept without asking again');
  });
}

test('the canvas follows what is tried on a section of 60 blocks', async (t) => {
  const parts = [{ op: 'section.add', after: '', preset: 'empty' }];
  for (let i = 0; i < blocks; i++)
    parts.push({ op: 'block.add', node: '@1', kind: ['text', 'heading', 'button'][i % 3], zone: 'desktop' });
  const made = await page.evaluate(
    async (command) => {
      const { seq } = (await import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href))
        .page;
      const r = await fetch(`${document.body.dataset.base}/edits`, {
        method: 'POST',
        body: new URLSearchParams({ command: JSON.stringify({ ...command, base: seq }), width: 1280 }),
      });
      return r.status;
    },
    { op: 'many', parts },
  );
  assert.equal(made, 200);
  await page.reload();
  await ready(page);
  await page.locator('.overview-item', { hasText: 'New section' }).locator('.overview-go').click();
  await settled(page);
  assert.equal(
    await page
      .frameLocator('iframe.canvas')
      .locator('section', { hasText: 'A heading for this part' })
      .locator('[data-block]')
      .count(),
    blocks,
  );
  const { times } = await page.evaluate(async (n) => {
    const body = document.querySelector('iframe.canvas').contentDocument.body;
    const field = document.getElementById('f-min-height');
    const got = [];
    for (let i = 0; i < n; i++) {
      const shown = new Promise((resolve) => {
        new MutationObserver((_, o) => {
          o.disconnect();
          resolve(performance.now());
        }).observe(body, { childList: true });
      });
      const start = performance.now();
      field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true, cancelable: true }));
      got.push((await shown) - start);
      await new Promise((r) => {
        setTimeout(r, 5);
      });
    }
    return { times: got };
  }, samples(60));
  t.diagnostic(
    `${blocks} blocks: from input to the canvas ${median(times).toFixed(1)} ms (median of ${times.length}), 95th percentile ${p95(times).toFixed(1)} ms`,
  );
  assert.equal(times.length, samples(60));
});

test('marks follow an edit on Home', async (t) => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await page.waitForFunction(() => document.body.dataset.checked);
  await page.locator('.overview-go', { hasText: 'Departures' }).click();
  await settled(page);
  const times = [];
  for (let i = 0; i < samples(30); i++) {
    times.push(
      await page.evaluate(
        async (dy) => {
          const state = (await import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href))
            .page;
          const { seq } = state;
          const marked = new Promise((resolve) => {
            const o = new MutationObserver(() => {
              if (Number(document.body.dataset.checked) > seq) {
                o.disconnect();
                resolve(performance.now());
              }
            });
            o.observe(document.body, { attributes: true, attributeFilter: ['data-checked'] });
          });
          performance.clearResourceTimings();
          const gap = document.getElementById('f-row-gap') ?? document.getElementById('f-padding-top');
          gap.dispatchEvent(
            new KeyboardEvent('keydown', { key: dy > 0 ? 'ArrowUp' : 'ArrowDown', bubbles: true, cancelable: true }),
          );
          gap.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
          const end = await marked;
          return end - performance.getEntriesByType('resource').find((r) => r.name.includes('/edits')).startTime; // when it was sent: keys wait for the next one
        },
        i % 2 ? -1 : 1,
      ),
    );
    await settled(page);
  }
  t.diagnostic(
    `Home: from an edit to its marks ${median(times).toFixed(1)} ms (median of ${times.length}), 95th percentile ${p95(times).toFixed(1)} ms`,
  );
  assert.equal(times.length, samples(30));
});
