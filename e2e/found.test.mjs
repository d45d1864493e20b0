// What is looked for is found the first way that suggests itself: a width typed, rows pasted, sections as places to
// link to, a form's parts by pressing them, and where a block goes chosen from the Shelf.
import assert from 'node:assert/strict';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, command, edit, eventually, kept, middle, openBench, settled, signIn, undo } from './person.mjs';

before(async () => {
  await signIn(page, plot.app, designer);
  await openBench(page);
});

const tray = page.locator('#tray');
const width = () => page.locator('iframe.canvas').evaluate((f) => f.clientWidth);

/** Puts a block in behind the last heading, by its name on the Shelf, with the keys. */
async function put(name) {
  await page.locator('.overview-item', { hasText: 'Winter' }).locator('.overview-go').click();
  await settled(page);
  await command(page, '/');
  await page.locator('#shelf [data-sort="blocks"]').click();
  await page.locator('#shelf-search').fill(name);
  await edit(page, () => page.keyboard.press('Enter'));
  await settled(page);
}

test('a width that is typed is the width that is shown', async () => {
  await page.locator('#showing').click();
  await page.keyboard.type('390');
  await page.keyboard.press('Enter');
  await eventually(width, 390, 'the canvas is as wide');
  await page.locator('#showing').click();
  await page.keyboard.type('99999');
  await page.keyboard.press('Enter');
  await eventually(width, 1920, 'at most what the Reach reaches');
  await page.locator('#showing').click();
  await page.keyboard.type('1280');
  await page.keyboard.press('Enter');
  await eventually(width, 1280, 'and back');
  await page.keyboard.press('2');
  await eventually(width, 800, 'keys are the canvas’s again');
  await page.keyboard.press('1');
  await eventually(width, 1280, 'the first zone');
});

test('entries: Enter makes the next one, and rows that are pasted fill many', async () => {
  await put('Timetable');
  const rows = tray.locator('.rows [data-row]');
  const before = await rows.count();
  const last = tray.locator(`#entry-${before - 1} input[data-op]:visible`);
  await tray.locator(`#row-${before - 1}`).click();
  await last.first().click();
  await edit(page, async () => {
    await last.last().click();
    await page.keyboard.press('Enter');
  });
  await eventually(() => rows.count(), before + 1, 'Enter in the last field adds one');
  await page.keyboard.type('09:15', { delay: 20 });
  await edit(page, () => page.keyboard.press('Tab'));
  await eventually(
    () => canvas(page).locator('[data-part$=".time"]', { hasText: '09:15' }).count(),
    1,
    'and what is typed next is in it',
  );
  await tray.locator('#row-0').click();
  const first = tray.locator('#entry-0 input[data-op]:visible').first();
  await first.click();
  await edit(page, () =>
    first.evaluate((field) => {
      const data = new DataTransfer();
      data.setData('text/plain', '10:00\tOpening\n11:00\tThe boats\n12:00\tSoup\n');
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }),
  );
  for (const [time, title] of [
    ['10:00', 'Opening'],
    ['11:00', 'The boats'],
    ['12:00', 'Soup'],
  ]) {
    await eventually(() => canvas(page).locator('[data-part$=".time"]', { hasText: time }).count(), 1, time);
    await eventually(() => canvas(page).locator('[data-part$=".title"]', { hasText: title }).count(), 1, title);
  }
});

test('a section is found as a place to link to, and gets its anchor', async () => {
  await put('Button');
  await settled(page);
  await tray.locator('[data-opens="link"]').first().click();
  await page.locator('#panel-link .link-search').fill('three islands');
  const offer = page.locator('#link-offers [role="option"]', { hasText: /islands/i }).first();
  await offer.waitFor();
  assert.match(await offer.textContent(), /#[a-z]/, 'with the anchor it will have');
  const n = await kept(page);
  await page.keyboard.press('Enter');
  await eventually(async () => (await kept(page)) > n, true, 'it is kept');
  await eventually(
    () =>
      canvas(page)
        .locator('body')
        .evaluate((body) =>
          [...body.querySelectorAll('a[href^="#"]')].some((a) => body.querySelector(`[id="${a.hash.slice(1)}"]`)),
        ),
    true,
    'the button leads to a place that is there',
  );
});

test('a form: a field that is pressed has its entry shown, its button its looks', async () => {
  await put('Form');
  const form = canvas(page).locator('form[data-block]').last();
  await form.evaluate((f) => f.scrollIntoView({ block: 'center', behavior: 'instant' }));
  const press = async (locator) => {
    const p = middle(await locator.boundingBox());
    await page.mouse.click(p.x, p.y);
    await settled(page);
  };
  await press(form.locator('textarea'));
  await eventually(() => tray.locator('[data-entry="2"]').isVisible(), true, 'the third field’s entry');
  await press(form.locator('input[type="email"]'));
  await eventually(() => tray.locator('[data-entry="1"]').isVisible(), true, 'the second’s');
  await press(form.locator('button[type="submit"]'));
  const looks = tray.locator('#tab-kind-button');
  await eventually(() => looks.getAttribute('aria-selected'), 'true', 'the button’s looks');
  const corners = tray.locator('#panel-kind-button [data-setting="button-radius"]').first();
  await edit(page, async () => {
    await corners.fill('24');
    await page.keyboard.press('Enter');
  });
  await eventually(
    () => form.locator('button[type="submit"]').evaluate((b) => getComputedStyle(b).borderTopLeftRadius),
    '24px',
    'its corners',
  );
  assert.notEqual(await form.locator('textarea').evaluate((b) => getComputedStyle(b).borderTopLeftRadius), '24px');
  await edit(page, () =>
    tray
      .locator('#tab-kind-label')
      .click()
      .then(() =>
        tray
          .locator('#panel-kind-label [data-setting="label-size"]')
          .first()
          .fill('20')
          .then(() => page.keyboard.press('Enter')),
      ),
  );
  await eventually(
    () =>
      form
        .locator('label')
        .first()
        .evaluate((l) => getComputedStyle(l).fontSize),
    '20px',
    'the size of its labels',
  );
});

test('a block goes into what is selected, after it, or after what holds it, as is chosen by keys', async () => {
  await put('Card');
  await command(page, '/');
  const mark = page.locator('#shelf-mark');
  await page.keyboard.press('Alt+ArrowRight');
  await eventually(
    async () => (await mark.locator('[aria-pressed="true"]').textContent()).startsWith('after'),
    true,
    'after it',
  );
  assert.equal(await page.locator('#overlay .receives').count(), 1, 'and drawn');
  await page.keyboard.type('divider');
  const was = await canvas(page).locator('hr').count();
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => canvas(page).locator('hr').count(), was + 1, 'it is there');
  assert.equal(await canvas(page).locator('li hr, article hr').count(), 0, 'and not in the card');
  await undo(page);
});

test('words have a size, a spacing and any colour of their own', async () => {
  await put('Heading');
  await page.keyboard.press('Enter');
  await page.locator('#format').waitFor();
  const was = await kept(page); // the words are kept whenever they are left
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Low tide');
  await page.keyboard.press('Shift+Control+ArrowLeft');
  const before = await canvas(page).locator('[data-size]').count();
  for (let i = 0; i < 3; i++) await page.locator('[data-set="size"][data-by="10"]').click();
  await page.locator('[data-set="tracking"][data-by="2"]').click();
  assert.equal(await page.locator('#format-size').textContent(), '130 %');
  await page.locator('#format-language').selectOption('de');
  await page.locator('#format-colour').click();
  const text = page.locator('#panel-colour .colour-text');
  await text.fill('#aa3311');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await eventually(() => kept(page), was + 1, 'the words are kept, in one edit');
  assert.equal(await canvas(page).locator('[data-size="130"]').count(), before + 1);
  const word = canvas(page).locator('[data-colour="#aa3311"]');
  assert.equal(await word.textContent(), 'tide');
  assert.equal(await word.evaluate((e) => e.closest('[lang]').lang), 'de', 'a language of their own (WCAG 2.2, 3.1.2)');
  assert.equal(await word.evaluate((e) => getComputedStyle(e).color), 'rgb(170, 51, 17)');
  const [around, own] = await word.evaluate((e) => [
    parseFloat(getComputedStyle(e.closest('[data-block]')).fontSize),
    parseFloat(getComputedStyle(e).fontSize),
  ]);
  assert.ok(Math.abs(own / around - 1.3) < 0.01, `${own} of ${around}`);
});

test('bold words stay bold on the canvas once they are kept', async () => {
  await put('Text');
  await page.keyboard.press('Enter');
  await page.locator('#format').waitFor();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('The boat leaves at ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('eight');
  await page.keyboard.press('Control+i');
  await page.keyboard.type(' sharp');
  await edit(page, () => page.keyboard.press('Escape'));
  const look = (word) =>
    canvas(page)
      .locator('strong', { hasText: word })
      .last()
      .evaluate((e) => {
        const own = getComputedStyle(e.querySelector('em') ?? e);
        return [Number(own.fontWeight) >= 600, own.fontStyle];
      });
  assert.deepEqual(await look('eight'), [true, 'normal']);
  assert.deepEqual(await look('sharp'), [true, 'italic']);
});

test('a word of the Bench’s own is drawn beside its name', async () => {
  const name = tray.locator('[data-means="Overhang"]');
  await name.scrollIntoViewIfNeeded();
  await name.hover();
  await page.locator('#means figure[data-word="Overhang"]').waitFor();
  await page.keyboard.press('Escape');
  await eventually(() => page.locator('#means').isVisible(), false, 'and put away by Escape');
});

test('a drag that ends where it began is no edit', async () => {
  await settled(page);
  const n = await kept(page);
  const heading = canvas(page).locator('h1, h2').first();
  await heading.evaluate((e) => e.scrollIntoView({ block: 'center', behavior: 'instant' }));
  const from = middle(await heading.boundingBox());
  await page.mouse.click(from.x, from.y);
  await settled(page);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 90, from.y + 60, { steps: 6 });
  await page.mouse.move(from.x, from.y, { steps: 6 });
  await page.mouse.up();
  await settled(page);
  assert.equal(await kept(page), n);
});

test('several sections are set together, and one undo takes it back', async () => {
  const item = (name) => page.locator('.overview-item', { hasText: name }).locator('.overview-go');
  await item('Departures').click();
  await settled(page);
  await item('Three isla').click({ modifiers: ['Shift'] });
  await settled(page);
  await tray.getByText('2 sections').waitFor();
  const ground = (name) =>
    canvas(page)
      .locator('section, header, footer, div[data-section]')
      .filter({ hasText: name })
      .last()
      .evaluate((e) => getComputedStyle(e.closest('[data-section]')).paddingTop);
  const before = [await ground('Departures'), await ground('Three islands')];
  await edit(page, async () => {
    await tray.getByLabel('Padding top', { exact: true }).fill('77');
    await page.keyboard.press('Enter');
  });
  await eventually(() => ground('Departures'), '77px', 'one of them');
  await eventually(() => ground('Three islands'), '77px', 'and the other');
  await undo(page);
  assert.deepEqual([await ground('Departures'), await ground('Three islands')], before, 'as one edit');
});

test('Tab goes on writing through a section, also through answers that are folded', async () => {
  await command(page, '/');
  await page.locator('#shelf [data-sort="sections"]').click();
  await page.locator('#shelf-search').fill('questions');
  await edit(page, () =>
    page
      .locator('.shelf-item:visible')
      .filter({ has: page.locator('strong', { hasText: /^Questions$/ }) })
      .first()
      .click(),
  );
  await settled(page);
  const id = await page.locator('.overview-item.selected').getAttribute('data-section');
  const section = canvas(page).locator(`[data-section="${id}"]`);
  const heading = section.locator('h2').first();
  await heading.evaluate((e) => e.scrollIntoView({ block: 'center', behavior: 'instant' }));
  await settled(page);
  const { x, y } = middle(await heading.boundingBox());
  await page.mouse.dblclick(x, y);
  const writing = () => canvas(page).locator('[contenteditable]').count();
  await eventually(writing, 1, 'the heading is written in');
  const said = [];
  for (let i = 0; i < 12 && (await writing()); i++) {
    said.push(`Own words ${i}.`);
    await page.keyboard.type(said.at(-1));
    await page.keyboard.press('Tab');
    await settled(page);
  }
  assert.equal(said.length, 9, 'a heading, a text, a button, three questions and their answers');
  const all = await section.evaluate((e) => e.textContent.replaceAll(/\s+/g, ' '));
  for (const words of said) assert.ok(all.includes(words), `${words} in ${all}`);
});

test('the handbook is found from the list of commands, and from beside what it is about', async () => {
  await page.keyboard.press('Escape');
  await page.locator('#stage').focus();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('focal poi');
  await page.getByRole('option', { name: 'Focal point and shape Handbook' }).waitFor();
  const opened = page.context().waitForEvent('page');
  await page.keyboard.press('Enter');
  const chapter = await opened;
  await chapter.waitForLoadState();
  assert.match(chapter.url(), /\/handbook\/pictures#focal-point-and-shape$/);
  assert.deepEqual(await findings(chapter), []);
  await chapter.getByRole('searchbox').fill('overhang');
  await chapter.keyboard.press('Enter');
  await chapter.getByRole('link', { name: 'Moving and resizing' }).waitFor();
  await chapter.close();
  await page.locator('.overview-item', { hasText: 'Winter' }).locator('.overview-go').click();
  await settled(page);
  assert.equal(
    await tray.locator('.cluster:not(.cluster-elsewhere, .cluster-hint) h2').count(),
    await tray.locator('.cluster-help').count(),
  );
  // Whatever gets the focus, the Bench itself stays where it is.
  await tray.locator('.cluster-help').last().focus();
  assert.equal(await page.locator('.side').evaluate((e) => e.getBoundingClientRect().x), 0);
  assert.equal(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth), 0);
  assert.match(
    await tray.locator('#cluster-spacing .cluster-help').getAttribute('href'),
    /^\/handbook\/placing#spacing$/,
  );
});
