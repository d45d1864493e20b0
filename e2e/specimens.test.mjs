// Every kind of block and every ready-made section, as they would be published
// (cmd/oracle -write), and the demo's pages: by axe-core 4.14 at three widths, and by
// the Nu HTML checker (vnu-jar).
import assert from 'node:assert/strict';
import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { after, before, test } from 'node:test';
import { findings, findingsAtWidth } from './axe.mjs';
import { browser, context, page, plot } from './opened.mjs';
import { designer, tmp } from './openplot.mjs';
import { newPage, publish, ready, signIn } from './person.mjs';
import { measuring } from './samples.mjs';

const root = new URL('..', import.meta.url).pathname;
const widths = [1280, 800, 375];

let dir;
before(async () => {
  dir = tmp();
  execFileSync('.build/oracle', ['-write', dir], { cwd: root });
});
after(() => {
  fs.rmSync(dir, { recursive: true, force: true });
});

/** What the Nu checker finds wrong with files. */
function invalid(files) {
  const jar = path.join(root, 'e2e/node_modules/vnu-jar/build/dist/vnu.jar');
  const out = spawnSync('java', ['-jar', jar, '--errors-only', '--format', 'json', ...files], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  return JSON.parse(out.stderr).messages.map((m) => `${path.basename(m.url)}:${m.lastLine} ${m.message}`);
}

test('every kind and every ready-made section is valid HTML', () => {
  const files = fs.readdirSync(dir).filter((f) => /^(kind|surface|section)-.*\.html$/.test(f));
  assert.ok(files.length > 75, `${files.length} specimens`);
  assert.deepEqual(invalid(files.map((f) => path.join(dir, f))), []);
});

// Each at one of the widths, the next one at another: bin/measure has all of them at all.
test('every kind and every ready-made section passes axe', async () => {
  const sheet = await newPage(await browser.newContext());
  const wrong = [];
  const files = fs.readdirSync(dir).filter((f) => /^(kind|surface|section)-.*\.html$/.test(f));
  for (const width of widths) {
    await sheet.setViewportSize({ width, height: 800 });
    for (const file of files.filter((_, i) => measuring || widths[i % widths.length] === width)) {
      await sheet.goto(`file://${path.join(dir, file)}`);
      for (const f of await findings(sheet)) wrong.push(`${file} at ${width}: ${f}`);
    }
  }
  assert.deepEqual(wrong, []);
});

/** Opens what opens on a page, one after the other, and gives what axe says of each. */
async function findingsOpened(sheet, findings) {
  const some = await sheet.evaluate(() => {
    const shut = document.querySelectorAll('details:not([open]), [role=tabpanel][hidden]');
    for (const e of shut) {
      if (e.localName === 'details') {
        e.removeAttribute('name'); // several of one name are never open at once
        e.open = true;
      } else e.removeAttribute('hidden');
    }
    return shut.length > 0;
  });
  const wrong = some ? await findings(sheet) : [];
  const popovers = await sheet.locator('[popover]').count();
  for (let i = 0; i < popovers; i++) {
    const over = sheet.locator('[popover]').nth(i);
    await over.evaluate((e) => e.showPopover());
    for (const f of await findings(sheet)) wrong.push(`popover ${i}: ${f}`);
    await over.evaluate((e) => e.hidePopover());
  }
  return wrong;
}

test('what opens passes axe opened: menus, answers, large pictures, panels', async () => {
  const sheet = await newPage(await browser.newContext());
  const wrong = [];
  const files = fs
    .readdirSync(dir)
    .filter((f) => /^(kind|surface|section)-.*\.html$/.test(f))
    .filter((f) => / popover=|<details|role="tabpanel"/.test(fs.readFileSync(path.join(dir, f), 'utf8')));
  assert.ok(files.length > 8, `${files.length} that open`);
  for (const width of [1280, 375]) {
    await sheet.setViewportSize({ width, height: 800 });
    for (const file of files) {
      await sheet.goto(`file://${path.join(dir, file)}`);
      for (const f of await findingsOpened(sheet, width === 1280 ? findings : findingsAtWidth))
        wrong.push(`${file} at ${width}: ${f}`);
    }
  }
  assert.deepEqual([...new Set(wrong)], []);
});

test('paper shows all that opens, and nothing to press; lines say what fills said to who chooses colours', async () => {
  const sheet = await newPage(await browser.newContext());
  const open = (name) => sheet.goto(`file://${path.join(dir, name)}`);
  await sheet.emulateMedia({ media: 'print' });
  await open('kind-tabs.html');
  assert.equal(await sheet.locator('[role=tabpanel]:visible').count(), 3);
  assert.equal(await sheet.locator('button:visible').count(), 0);
  await open('kind-accordion.html');
  const answers = sheet.locator('details > :not(summary)');
  assert.ok((await answers.count()) > 1);
  assert.deepEqual(
    await answers.evaluateAll((all) => all.map((e) => e.checkVisibility({ contentVisibilityAuto: true }))),
    Array(await answers.count()).fill(true),
  );
  await open('section-bar.html');
  assert.equal(await sheet.locator('nav:visible').count(), 0);
  await sheet.emulateMedia({ media: 'screen', forcedColors: 'active' });
  const outlined = (e) => getComputedStyle(e).outlineStyle;
  await open('kind-button.html');
  assert.equal(await sheet.locator('[data-button]').first().evaluate(outlined), 'solid');
  await open('kind-tabs.html');
  const widths = await sheet
    .locator('[role=tab]')
    .evaluateAll((tabs) => tabs.map((t) => getComputedStyle(t).outlineWidth));
  assert.deepEqual(widths, ['2px', '1px', '1px'], 'the chosen tab stands out');
});

test('a picture that goes more slowly ends with its section, and stands still for who minds motion', async () => {
  const sheet = await newPage(await browser.newContext({ viewport: { width: 1280, height: 500 } }));
  for (const reducedMotion of ['no-preference', 'reduce']) {
    await sheet.emulateMedia({ reducedMotion });
    await sheet.goto(`file://${path.join(dir, 'surface-picture-that-goes-more-slowly.html')}`);
    const seen = await sheet.evaluate(() => {
      const end = Math.max(...[...document.querySelectorAll('section')].map((s) => s.getBoundingClientRect().bottom));
      const img = document.querySelector('[data-drift]');
      return {
        blank: document.documentElement.scrollHeight - Math.max(end, innerHeight),
        higher: img.offsetHeight / img.parentElement.offsetHeight,
      };
    });
    assert.ok(seen.blank < 1, `${seen.blank} px of nothing at the end, ${reducedMotion}`);
    if (reducedMotion === 'reduce') assert.equal(seen.higher, 1);
    else assert.ok(seen.higher > 1.1, `${seen.higher} times as high as its section`);
  }
});

/** Opens a specimen with a script of published pages. */
async function opened(file, script, viewport) {
  const sheet = await newPage(await browser.newContext({ viewport, reducedMotion: 'reduce' }));
  await sheet.goto(`file://${path.join(dir, file)}`);
  await sheet.addScriptTag({ path: path.join(root, `site/scripts/${script}.js`) });
  return sheet;
}

test('a slider is gone through by its buttons, which say where it ends', async () => {
  const sheet = await opened('section-gallery-slider.html', 'slider', { width: 375, height: 800 });
  const back = sheet.getByRole('button', { name: 'Previous: A walk through' });
  const on = sheet.getByRole('button', { name: 'Next: A walk through' });
  const list = sheet.getByRole('list', { name: 'A walk through' });
  const at = () => list.evaluate((l) => Math.round(l.scrollLeft));
  const ends = async () => [await back.getAttribute('aria-disabled'), await on.getAttribute('aria-disabled')];
  assert.deepEqual([await at(), ...(await ends())], [0, 'true', 'false']);
  const box = await list.boundingBox();
  assert.deepEqual([box.x, box.width], [0, 375], 'it goes from edge to edge of the window');
  const seen = [];
  for (let i = 0; i < 3; i++) {
    await on.click();
    await sheet.waitForTimeout(50);
    seen.push(await at());
  }
  assert.ok(seen[0] > 200 && seen[1] > seen[0] + 200 && seen[2] > seen[1], `it stood at ${seen}`);
  assert.deepEqual(await ends(), ['false', 'true']);
  await back.focus();
  await sheet.keyboard.press('Enter');
  await sheet.waitForTimeout(50);
  assert.ok((await at()) < seen[2], 'it goes back by keys');
  await sheet.close();
});

test('a large picture has its name, leads to the next by button and arrow key, and Escape goes back to its own', async () => {
  const sheet = await opened('kind-gallery.html', 'gallery', { width: 1280, height: 800 });
  const small = sheet.getByRole('button', { name: /^Show large/ });
  await small.first().click();
  const large = sheet.getByRole('dialog');
  const first = await large.getAttribute('aria-label');
  assert.ok(first, 'it has a name');
  assert.equal(await large.getByRole('button', { name: 'Previous picture' }).count(), 0, 'nothing is before the first');
  await large.getByRole('button', { name: 'Next picture' }).click();
  const second = await large.getAttribute('id');
  await sheet.keyboard.press('ArrowRight');
  assert.notEqual(await large.getAttribute('id'), second);
  await sheet.keyboard.press('ArrowLeft');
  assert.equal(await large.getAttribute('id'), second);
  assert.equal(await large.count(), 1, 'one is open at a time');
  await sheet.keyboard.press('Escape');
  assert.equal(await large.count(), 0);
  await small.first().click();
  await large.getByRole('button', { name: 'Close' }).click({ position: { x: 640, y: 400 } });
  assert.equal(await large.count(), 0, 'pressing the picture closes it');
  await sheet.close();
});

test('all of the demo is published valid, passes axe, and throws nothing', async () => {
  await signIn(page, plot.app, designer);
  await page.getByRole('link', { name: 'Skerry Line' }).click();
  await page.locator('.page-go').first().waitFor();
  const benches = await page.locator('.page-go').evaluateAll((as) => as.map((a) => a.href));
  assert.equal(benches.length, 8, 'all pages that the demo names');
  for (const bench of benches) {
    await page.goto(bench);
    await ready(page);
    await publish(page);
    await page.getByRole('link', { name: /Open it/ }).waitFor();
  }
  const [folder] = fs
    .readdirSync(path.join(plot.data, 'published'), { withFileTypes: true })
    .filter((e) => e.isDirectory())
    .map((e) => path.join(plot.data, 'published', e.name));
  const shown = JSON.parse(fs.readFileSync(path.join(folder, 'release.json')));
  assert.equal(Object.keys(shown.pages).length, 8);
  assert.deepEqual(
    invalid([...Object.values(shown.pages), shown.missing].map((e) => path.join(folder, 'contents', e.file))),
    [],
  );
  const live = await newPage(context);
  const wrong = [];
  for (const f of [...Object.keys(shown.pages), 'nowhere']) {
    await live.goto(`${plot.site}/${f}`);
    for (const width of widths) {
      await live.setViewportSize({ width, height: 800 });
      for (const x of await (width === widths[0] ? findings : findingsAtWidth)(live))
        wrong.push(`${f} at ${width}: ${x}`);
      const over = await live.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      if (over > 0) wrong.push(`${f} at ${width} is ${over} px too wide`);
    }
  }
  assert.deepEqual(wrong, []);
  assert.deepEqual(
    live.wrong.filter((w) => !w.includes('404')),
    [],
  );
});
