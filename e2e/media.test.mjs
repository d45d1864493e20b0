// Pictures and videos as a designer uses them: those that ship, the point kept in sight,
// cropping by pointer, copies made in the background, and videos on a published page.
import assert from 'node:assert/strict';
import fs from 'node:fs';
import path from 'node:path';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, eventually, newPage, option, publish, ready, signIn } from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
});

const card = (name) => page.locator('.library-item').filter({ has: page.locator(`input[name=name][value="${name}"]`) });

test('a picture that ships is taken, and its copies are made while one looks on', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/library`);
  await page.getByText('Pictures that ship with Open Plot').click();
  await page.getByRole('button', { name: /^Discs/ }).click();
  await card('Discs').waitFor();
  assert.match(await card('Discs').locator('.library-copies').textContent(), /copy \d of 8/);
  await eventually(
    async () => /copies, in\s+(AVIF and )?WebP/.test(await card('Discs').locator('.library-copies').textContent()),
    true,
    'all made',
    300_000,
  );
});

test('the point kept in sight is set by clicking, and by writing', async () => {
  const box = await card('Discs').locator('.focal img').boundingBox();
  await page.mouse.click(box.x + box.width * 0.25, box.y + box.height / 2);
  assert.match(await card('Discs').locator('[name=focal]').inputValue(), /^25% 50%$/);
  await card('Discs').locator('[name=focal]').fill('10% 80%');
  await Promise.all([
    page.waitForResponse((r) => r.request().method() === 'POST'),
    card('Discs').getByRole('button', { name: 'Keep' }).click(),
  ]);
  await page.reload();
  assert.equal(await card('Discs').locator('[name=focal]').inputValue(), '10% 80%');
});

test('what stays of a picture is drawn on it', async () => {
  await card('Discs').getByText('Turn, crop, replace, delete').click();
  await eventually(
    () =>
      card('Discs')
        .locator('.cropper')
        .evaluate((c) => c.getBoundingClientRect().bottom <= innerHeight),
    true,
    'what is opened is seen',
  );
  const box = await card('Discs').locator('.cropper').boundingBox();
  await page.mouse.move(box.x + box.width * 0.25, box.y + box.height * 0.2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.75, box.y + box.height * 0.9, { steps: 5 });
  await page.mouse.up();
  const cut = {};
  for (const side of ['left', 'right', 'top', 'bottom'])
    cut[side] = await card('Discs').locator(`[name=${side}]`).inputValue();
  assert.deepEqual(cut, { left: '25', right: '25', top: '20', bottom: '10' });
  await card('Discs').getByRole('button', { name: 'Crop' }).click();
  await eventually(
    () => card('Discs').locator('.library-facts .measure').textContent(),
    '800 × 700',
    'half as wide, seven tenths as high',
  );
});

test('the library passes axe', async () => assert.deepEqual(await findings(page), []));

test('a picture on the Bench is one that ships', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/islands/bench`);
  await ready(page);
  await canvas(page).locator('img').first().click();
  await page.locator('#f-c-picture').click();
  await page.getByRole('button', { name: 'Dunes' }).click();
  await eventually(
    () =>
      page
        .locator('#f-c-picture .picture-name')
        .textContent()
        .then((t) => t.trim().startsWith('Dunes')),
    true,
    'taken and shown',
  );
  assert.match(await canvas(page).locator('img').first().getAttribute('alt'), /painted houses|Dunes/);
});

test('a silent video plays where motion is wanted and can be stopped; a player waits to be asked', async () => {
  const clip = fs.readdirSync(path.join(plot.data, 'media')).find((f) => f.endsWith('.webm'));
  await page.goto(`${plot.app}/sites/skerry-line/library`);
  await page.locator('#library-files').setInputFiles({
    name: 'again.webm',
    mimeType: 'video/webm',
    buffer: fs.readFileSync(path.join(plot.data, 'media', clip)),
  });
  await card('again.webm').locator('.library-side video').waitFor();
  await page.goto(`${plot.app}/sites/skerry-line/pages/islands/bench`);
  await ready(page);
  await canvas(page).locator('video').scrollIntoViewIfNeeded();
  await canvas(page).locator('video').click();
  await option(page, 'Playback', 'Silently, in a loop');
  await eventually(() => canvas(page).locator('video').getAttribute('loop'), '', 'silent');
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await eventually(() => canvas(page).locator('video').count(), 2, 'a second one');
  await page.getByRole('button', { name: 'Remove the video' }).click();
  await page.locator('#f-c-player').fill('https://player.example/crossing');
  await page.keyboard.press('Enter');
  await eventually(() => canvas(page).locator('a[type="text/html"]').count(), 1, 'a player');
  await publish(page);
  await page.getByRole('link', { name: /Open it/ }).waitFor();

  const live = await newPage(context);
  const asked = [];
  live.on('request', (r) => asked.push(r.url()));
  await live.goto(`${plot.site}/islands/`);
  const film = live.locator('video');
  await film.scrollIntoViewIfNeeded();
  await eventually(() => film.evaluate((v) => v.currentTime > 0.2 && !v.paused), true, 'it plays');
  await live.getByRole('button', { name: 'Pause the moving picture' }).click();
  await eventually(() => film.evaluate((v) => v.paused), true, 'it stops');
  assert.deepEqual(await findings(live), []);
  assert.deepEqual(
    asked.filter((u) => !u.startsWith(plot.site)),
    [],
    'nobody else is asked',
  );
  await live.getByRole('link', { name: 'Play: The ferry crosses the sound, in four seconds' }).click();
  await eventually(() => live.locator('iframe').getAttribute('src'), 'https://player.example/crossing', 'embedded');
  assert.ok(asked.some((u) => u.startsWith('https://player.example/')));

  const calm = await newPage(await browser.newContext({ reducedMotion: 'reduce' }));
  await calm.goto(`${plot.site}/islands/`);
  await calm.locator('video').scrollIntoViewIfNeeded();
  await calm.getByRole('button', { name: 'Play the moving picture' }).waitFor();
  assert.equal(await calm.locator('video').evaluate((v) => v.paused), true);
});
