// What designers arrange by hand (scenarios.mjs), each on a page of its own that is published then, and
// looked at where visitors do.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { newPage, signIn } from './person.mjs';
import { measuring } from './samples.mjs';
import { carryOut, publish, scenarios, widths } from './scenarios.mjs';

before(async () => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await signIn(page, plot.app, designer);
});

// With OPENPLOT_MEASURE=1 (bin/measure) all nine; otherwise three that reach furthest: layers and another
// section, a section over another by a height, and many blocks at once.
const chosen = /A heading over a picture|A section pulled up|Eight loose blocks/;
for (const [i, s] of scenarios.entries()) {
  if (!measuring && !chosen.test(s.name)) continue;
  test(s.name, async (t) => {
    const { presses, drags, keys } = await carryOut(page, plot, s, i);
    t.diagnostic(`${presses} presses, ${drags} drags, ${keys} keys`);
    const visitor = await newPage(context);
    t.after(() => visitor.close());
    await visitor.goto(await publish(page));
    for (const width of widths) {
      await visitor.setViewportSize({ width, height: 800 });
      await visitor.evaluate(() => document.fonts.ready);
      await s.shows(visitor, width);
    }
  });
}

test('nothing went wrong meanwhile', () => assert.deepEqual(page.wrong, []));
