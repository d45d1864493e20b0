// Pictures dropped on the canvas and pasted: where they go, how far they are, and what fails.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, choose, command, edit, eventually, kept, openBench, settled, signIn, undo } from './person.mjs';
import { measuring } from './samples.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

/** Drops files at a point, as the browser tells of it; each is a name with a colour, or with text that is no picture. */
const drop = (point, names, type = 'drop') =>
  page.evaluate(
    async ({ point: { x, y }, names: list, type: t }) => {
      const data = new DataTransfer();
      for (const name of list) {
        if (name.endsWith('.txt')) {
          data.items.add(new File(['words'], name, { type: 'text/plain' }));
          continue;
        }
        if (name.startsWith('broken')) {
          data.items.add(new File(['no picture at all'], name, { type: 'image/png' }));
          continue;
        }
        const c = new OffscreenCanvas(320, 200);
        const g = c.getContext('2d');
        g.fillStyle = `hsl(${(name.length * 40) % 360} 60% 40%)`;
        g.fillRect(0, 0, 320, 200);
        g.fillStyle = '#fff';
        g.fillText(name, 20, 30);
        data.items.add(new File([await c.convertToBlob({ type: 'image/png' })], name, { type: 'image/png' }));
      }
      if (t === 'paste') {
        document
          .getElementById('stage')
          .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
        return;
      }
      const at = { dataTransfer: data, clientX: x, clientY: y, bubbles: true, cancelable: true };
      const target = document.elementFromPoint(x, y);
      target.dispatchEvent(new DragEvent('dragover', at));
      target.dispatchEvent(new DragEvent('drop', at));
    },
    { point, names, type },
  );

const go = async (name) => {
  await page.locator('.overview-item', { hasText: name }).first().locator('.overview-go').click();
  await settled(page);
};
const at = async (locator, dx = 0.5, dy = 0.5) => {
  const b = await locator.boundingBox();
  return { x: b.x + b.width * dx, y: b.y + b.height * dy };
};

test('dropped on a picture it takes its place', async () => {
  await go('Departures');
  const img = canvas(page).locator('section', { hasText: 'Next departures' }).locator('img').first();
  const was = await img.getAttribute('src');
  await edit(page, async () => drop(await at(img), ['quay.png']));
  await eventually(async () => (await img.getAttribute('src')) !== was, true, 'the new one');
  await undo(page);
});

test('dropped on a section it becomes a block or the background, as is chosen', async () => {
  const section = canvas(page).locator('section', { hasText: 'Next departures' });
  const blocks = await section.locator('img').count();
  await drop(await at(section, 0.05, 0.5), ['rope.png']);
  await page.getByRole('button', { name: 'A picture block' }).waitFor();
  assert.deepEqual(await findings(page), []);
  await edit(page, () => page.getByRole('button', { name: 'A picture block' }).click());
  await eventually(() => section.locator('img').count(), blocks + 1, 'a block');
  await drop(await at(section, 0.05, 0.5), ['sea-ground.png']);
  await edit(page, () => page.getByRole('button', { name: 'The section’s background' }).click());
  await eventually(
    () => section.evaluate((e) => getComputedStyle(e).backgroundImage.includes('url(')),
    true,
    'the background',
  );
  await drop(await at(section, 0.05, 0.5), ['unwanted.png']);
  const before = await kept(page);
  await page.getByRole('button', { name: 'A picture block' }).waitFor();
  await page.keyboard.press('Escape');
  await settled(page);
  assert.equal(await kept(page), before, 'called off');
  await undo(page);
  await undo(page);
});

test('dropped between two sections they stand in a new one; on a gallery they fill it', async () => {
  await go('Departures');
  const section = canvas(page).locator('section', { hasText: 'Next departures' });
  const n = await page.locator('.overview-item').count();
  const r = await section.boundingBox();
  await edit(page, () => drop({ x: r.x + 300, y: r.y + 4 }, ['one.png']));
  await eventually(() => page.locator('.overview-item').count(), n + 1, 'a section more');
  await undo(page);
  await go('Contact');
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('pictures in columns');
  await edit(page, () => page.locator('.shelf-item:visible').first().click());
  await settled(page);
  const gallery = canvas(page).locator('section', { hasText: 'From our album' }).locator('ul');
  await choose(page, gallery.locator('img').first());
  const stood = await gallery.locator('img[src^="/scenes/"]:visible').count();
  assert.ok(stood > 0);
  const six = ['a.png', 'bb.png', 'ccc.png', 'dddd.png', 'eeeee.png', 'ffffff.png'];
  await edit(page, async () => drop(await at(gallery.locator('img').first()), six), 6);
  await eventually(() => gallery.locator('img:not([src^="/scenes/"]):visible').count(), 6, 'six of one’s own');
  assert.equal(await gallery.locator('img:visible').count(), Math.max(stood, 6), 'stand-ins went first');
});

test('pasted it goes beside what is selected', async () => {
  await go('Departures');
  const img = canvas(page).locator('section', { hasText: 'Next departures' }).locator('img').first();
  await choose(page, img);
  const was = await img.getAttribute('src');
  await edit(page, () => drop({ x: 0, y: 0 }, ['pasted.png'], 'paste'));
  await eventually(async () => (await img.getAttribute('src')) !== was, true, 'it takes the picture’s place');
});

test('what is broken is told, what arrives stays, and a lost connection can be tried again', async () => {
  const img = canvas(page).locator('section', { hasText: 'Next departures' }).locator('img').first();
  await edit(page, async () => drop(await at(img), ['broken.png', 'whole.png']));
  const failed = page.locator('#uploads li.failed');
  await eventually(() => failed.count(), 1, 'one failed');
  assert.match(await failed.textContent(), /broken\.png/);
  assert.deepEqual(await findings(page), []);
  await failed.getByRole('button', { name: 'Dismiss' }).click();
  await eventually(() => page.locator('#uploads').isHidden(), true, 'nothing is on its way');
  await page.route('**/media', (route) => route.abort(), { times: 1 });
  await drop(await at(img), ['later.png']);
  await page.getByText('The connection was lost.').waitFor();
  await edit(page, () => page.locator('#uploads').getByRole('button', { name: 'Try again' }).click());
  await eventually(() => page.locator('#uploads').isHidden(), true, 'it arrived');
  await drop(await at(img), ['notes.txt']);
  await page.getByText('Only pictures, videos and audio can be dropped here').waitFor();
});

// With OPENPLOT_MEASURE=1 two hundred.
test('many at once, some broken, the connection lost in the midst: what arrived stays, the rest is tried again', async () => {
  const many = measuring ? 200 : 40;
  const broken = many / 20;
  await page.goto(`${plot.app}/sites/skerry-line/library`);
  const before = await page.locator('.library-item').count();
  let sent = 0;
  await page.route('**/library', (route) =>
    route.request().method() === 'POST' && (sent += 1) > 10 && sent <= 25
      ? route.abort('connectionreset')
      : route.continue(),
  );
  await page.evaluate(async (many) => {
    const data = new DataTransfer();
    for (let i = 0; i < many; i++) {
      const name = `many-${String(i).padStart(3, '0')}.svg`;
      const whole = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0h9v${i % 9}z"/></svg>`;
      data.items.add(
        new File([i % 20 === 7 ? new Uint8Array([0, 1, 2, 3]) : whole], i % 20 === 7 ? `broken-${i}.png` : name, {
          type: 'image/svg+xml',
        }),
      );
    }
    for (const type of ['dragover', 'drop'])
      document
        .querySelector('main')
        .dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));
  }, many);
  const rows = page.locator('#library-progress li:not(.uploads-all)');
  await eventually(
    () => page.locator('#library-progress li:not(.failed, .uploads-all)').count(),
    0,
    'all sent',
    180_000,
  );
  const failed = await rows.count();
  assert.equal(await page.locator('.library-item').count(), before + many - failed, 'what arrived is there');
  const lost = await rows.filter({ hasText: 'The connection was lost.' }).count();
  assert.equal(lost, 15);
  assert.ok(failed > lost && failed <= lost + broken, `${failed} failed`);
  await page.getByText(`${failed} didn’t arrive.`).waitFor();
  assert.deepEqual(await findings(page), []);
  await page.getByRole('button', { name: 'Try them again' }).click();
  await eventually(
    async () => [await rows.count(), await page.locator('#library-progress li.failed').count()],
    [broken, broken],
    'all but the broken ones arrived',
    120_000,
  );
  assert.equal(await page.locator('.library-item').count(), before + many - broken);
  await page.getByRole('button', { name: 'Dismiss them' }).click();
  await eventually(() => page.locator('#library-progress').isVisible(), false, 'and those are let go');
  await page.unroute('**/library');
  page.wrong.splice(0, page.wrong.length, ...page.wrong.filter((w) => !/ERR_CONNECTION_RESET/.test(w)));
});
