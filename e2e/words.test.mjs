// Words are written on the page, typed, pasted and given a look; what the editor holds and
// what the server reads is the same.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { context, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import { canvas, choose, command, edit, eventually, openBench, settled, signIn, undo } from './person.mjs';

const root = new URL('..', import.meta.url).pathname;
const oracle = (args, input) =>
  execFileSync('.build/oracle', args, { cwd: root, input, maxBuffer: 1 << 28, encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l));
const plain = (html) => html.replaceAll(/ class="[^"]*"/g, '');
let id; // of the text that is written in
const text = () => canvas(page).locator(`[data-block="${id}"]`);

before(async () => {
  await signIn(page, plot.app, designer);
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openBench(page);
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  id = await canvas(page)
    .getByText('Boats leave from the north steps')
    .evaluate((e) => e.closest('[data-block]').dataset.block);
});

/** Begins to write in the text, with all of it selected. */
async function begin() {
  await page.locator('.overview-item', { hasText: 'Departures' }).locator('.overview-go').click();
  await settled(page);
  await choose(page, text());
  await page.keyboard.press('Enter');
  await page.getByRole('toolbar', { name: 'Text formatting' }).waitFor();
}

/** Pastes into what is written, as the browser would. */
const paste = (data) =>
  text().evaluate((e, d) => {
    const t = new DataTransfer();
    for (const [type, value] of Object.entries(d)) t.setData(type, value);
    e.dispatchEvent(new ClipboardEvent('paste', { clipboardData: t, bubbles: true, cancelable: true }));
  }, data);

const done = () => edit(page, () => page.keyboard.press('Escape'));

test('Markdown becomes what it says as it is typed', async () => {
  await begin();
  await page.keyboard.type('# What to bring');
  await page.keyboard.press('Enter');
  await page.keyboard.type('A **warm** coat, *good* boots, `two` gloves, ~~no~~ umbrella and [the fares](/fares).');
  await page.keyboard.press('Enter');
  await page.keyboard.type('- one');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await page.keyboard.type('within one');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.type('two');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.keyboard.type('> said');
  await done();
  assert.equal(
    plain(await text().innerHTML()),
    '<h2>What to bring</h2><p>A <strong>warm</strong> coat, <em>good</em> boots, <code>two</code> gloves, <s>no</s> umbrella and <a href="/fares">the fares</a>.</p>' +
      '<ul><li><p>one</p><ul><li>within one</li></ul></li><li>two</li></ul><blockquote><p>said</p></blockquote>',
  );
  await undo(page);
  await eventually(async () => (await text().textContent()).startsWith('Boats leave'), true, 'it was one edit');
});

test('keys, the bar and undo within the words, step by step', async () => {
  await begin();
  await page.keyboard.type('Plain words');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+i');
  await page.keyboard.press('Control+u');
  const bar = page.getByRole('toolbar', { name: 'Text formatting' });
  assert.equal(
    await bar.getByRole('button', { name: 'Italic' }).getAttribute('aria-pressed'),
    'true',
    'the bar shows what the words are',
  );
  assert.deepEqual(await findings(page), []);
  await page.keyboard.press('Control+z');
  await eventually(() => text().locator('u').count(), 0, 'underline taken back');
  assert.equal(await text().locator('em').count(), 1, 'and italics not');
  await bar.getByRole('button', { name: 'Heading 3' }).click();
  await bar.getByRole('button', { name: 'Superscript' }).click();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('https://example.org/boats');
  await page.keyboard.press('Enter');
  await done();
  assert.equal(
    plain(await text().innerHTML()),
    '<h3><sup><a href="https://example.org/boats"><em>Plain words</em></a></sup></h3>',
  );
  await undo(page);
});

test('a link leads to a page, a place on one, mail or a telephone, and is told by name', async () => {
  const button = canvas(page).getByText('See today’s sailings');
  await page.locator('.overview-item', { hasText: 'Welcome' }).first().locator('.overview-go').click();
  await settled(page);
  await choose(page, button);
  const tray = page.locator('#tray');
  const ask = async (entry) => {
    await tray.getByRole('button', { name: /^Choose where Link leads/ }).click();
    await page.getByRole('combobox', { name: 'Page, place or address' }).fill(entry);
  };
  await ask('fare');
  await edit(page, () => page.keyboard.press('Enter'));
  assert.equal(await tray.locator('.link-leads').first().textContent(), 'Fares');
  await ask('boat@skerry.example');
  await page.getByLabel('Subject').fill('A berth, please');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(
    () => button.getAttribute('href'),
    'mailto:boat@skerry.example?subject=A%20berth%2C%20please',
    'mail with a subject',
  );
  await ask('+46 555 01 42');
  await edit(page, () => page.keyboard.press('Enter'));
  await eventually(() => button.getAttribute('href'), 'tel:+465550142', 'a telephone');
  await ask('/winter-sale');
  await edit(page, () => page.keyboard.press('Enter'));
  assert.equal(await tray.locator('.link-leads.broken').textContent(), 'No such page', 'what isn’t there is told');
  await undo(page);
  await undo(page);
  await undo(page);
  await undo(page);
});

test('an icon is chosen from drawings, and seen on the page when it is pointed at', async () => {
  await page.locator('#stage').focus();
  await command(page, '/');
  await page.getByLabel('Search sections and blocks').fill('icon');
  await edit(page, () =>
    page.locator('.shelf-item:visible', { has: page.locator('strong', { hasText: /^Icon$/ }) }).click(),
  );
  await settled(page);
  await page.locator('#tray').getByRole('button', { name: 'Choose Icon' }).click();
  await page.getByLabel('Search icons').fill('lifebuoy'.slice(0, 4));
  const one = page.locator('.icons-all [data-icon]:visible').first();
  const drawing = await one.locator('path').first().getAttribute('d');
  await one.hover();
  const shown = () =>
    canvas(page)
      .locator('svg path')
      .evaluateAll((all, d) => all.filter((p) => p.getAttribute('d') === d).length, drawing);
  await eventually(shown, 1, 'tried on the page');
  assert.deepEqual(await findings(page), []);
  await edit(page, () => one.click());
  await eventually(shown, 1, 'and kept');
  await undo(page);
  await undo(page);
});

test('typographic quotes are offered, and off to begin with', async () => {
  await begin();
  await page.keyboard.type('He said "now" -- and');
  assert.match(await text().textContent(), /"now" -- and/);
  await page.getByRole('button', { name: 'Typographic quotes and dashes' }).click();
  await page.waitForTimeout(300);
  await begin();
  await page.keyboard.type('He said "now" - it’s');
  await eventually(() => text().textContent(), 'He said “now” – it’s', 'quotes and dashes of the site’s language');
  await page.getByRole('button', { name: 'Typographic quotes and dashes' }).click();
  await page.waitForTimeout(300);
  await page.keyboard.press('Escape');
  await settled(page);
});

test('what is pasted from word processors keeps its structure, and none of their styling', async () => {
  for (const file of ['word', 'online', 'office']) {
    await begin();
    await paste({
      'text/html': fs.readFileSync(`${root}e2e/clipboard/${file}.html`, 'utf8'),
      'text/plain': 'Before you come',
    });
    await done();
    assert.equal(
      plain(await text().innerHTML()).replaceAll('\u00a0', ' '),
      '<h2>Before you come</h2><p>Bring <strong>warm</strong> things and <em>good</em> boots.</p>' +
        '<ul><li><p>A coat</p><ul><li>with a hood</li></ul></li><li>Gloves</li></ul>',
      file,
    );
    await undo(page);
  }
  await begin();
  await paste({ 'text/plain': '## From a note\n\n1. first\n2. **second**\n' });
  await done();
  assert.equal(
    plain(await text().innerHTML()),
    '<h2>From a note</h2><ol><li>first</li><li><strong>second</strong></li></ol>',
    'Markdown is read',
  );
  await undo(page);
});

test('hostile and endless text', async () => {
  await begin();
  // core/edit/testdata/README.md says where the cases are from.
  const corpus = Object.values(JSON.parse(fs.readFileSync(`${root}core/edit/testdata/hostile.json`, 'utf8'))).flat();
  assert.ok(corpus.length >= 100);
  let alerts = 0;
  page.on('dialog', (d) => {
    alerts++;
    d.dismiss();
  });
  for (const html of corpus) {
    await page.keyboard.press('Control+a');
    await paste({ 'text/html': html, 'text/plain': 'x' });
    const odd = await text().evaluate((e) =>
      [...e.querySelectorAll('*')]
        .filter(
          (n) =>
            !/^(P|H2|H3|H4|UL|OL|LI|BLOCKQUOTE|STRONG|EM|U|S|SMALL|SUP|CODE|SPAN|BR|A|IMG)$/.test(n.tagName) ||
            (n.tagName === 'IMG' && !n.className.startsWith('ProseMirror')) ||
            [...n.attributes].some((a) => /^on|^src(doc|set)?$|^style$|^action$/.test(a.name)),
        )
        .map((n) => n.outerHTML),
    );
    assert.deepEqual(odd, [], html);
    assert.deepEqual(page.wrong, [], html);
  }
  assert.equal(alerts, 0);
  await paste({ 'text/plain': 'a'.repeat(5_000_000) });
  await page.getByText('That text has 5,000,000 characters; at most 200,000 can be pasted at once.').waitFor();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Back to boats.');
  await done();
  assert.equal(await text().textContent(), 'Back to boats.');
  await undo(page);
});

test('a thousand random texts are the same to the editor and to the server, both ways', async () => {
  const made = oracle(['-words', '500']);
  const through = await page.evaluate(
    async (list) => {
      const writing = await import(
        new URL('../words/writing.js', document.querySelector('script[src$="bench.js"]').src).href
      );
      return list.map((html) => {
        const e = document.createElement('div');
        e.innerHTML = html.replaceAll(/ (?:style|class)="[^"]*"/g, '');
        return writing.html(writing.read(writing.schemaOf(e, false), e));
      });
    },
    made.map((m) => m.html),
  );
  const back = oracle(['-back'], through.map((t) => JSON.stringify(t)).join('\n'));
  made.forEach((m, i) => assert.deepEqual(back[i].words, m.words, `from the server and back: ${m.html}`));

  const written = await page.evaluate(async (n) => {
    const writing = await import(
      new URL('../words/writing.js', document.querySelector('script[src$="bench.js"]').src).href
    );
    const schema = writing.schemaOf(document.createElement('div'), false);
    let seed = 7;
    const random = (k) => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return Math.floor((seed / 2147483648) * k);
    };
    const { nodes: N, marks: M } = schema;
    const inline = () =>
      Array.from({ length: 1 + random(4) }, () => {
        const marks = Object.values(M)
          .filter(() => random(6) === 0)
          .map((m) => m.create({ link: { href: '/fares' }, colour: { token: 'accent' } }[m.name]));
        return schema.text(
          ['boats', 'a coat', 'Größe', '08:10', 'ten minutes', '“now”'][random(6)] +
            String.fromCharCode(97 + random(26)),
          marks,
        );
      });
    const paragraph = () => N.paragraph.create(null, inline());
    const item = (deep) => N.item.create(null, [paragraph(), ...(deep && random(3) === 0 ? [list(false)] : [])]);
    const list = (deep) =>
      [N.bullets, N.numbers][random(2)].create(
        null,
        Array.from({ length: 1 + random(3) }, () => item(deep)),
      );
    const any = () =>
      [
        paragraph,
        paragraph,
        () => N.heading.create({ level: 2 + random(3) }, inline()),
        () => N.quote.create(null, [paragraph(), paragraph()]),
        () => list(true),
      ][random(5)]();
    return Array.from({ length: n }, () => {
      const blocks = [];
      for (let i = 1 + random(5); i > 0; i--) {
        // lists and quotes of one kind in a row are one
        const b = any();
        if (!blocks.length || b.type !== blocks.at(-1).type || b.type === N.paragraph || b.type === N.heading)
          blocks.push(b);
      }
      return writing.html(N.doc.create(null, blocks));
    });
  }, 500);
  const read = oracle(['-back'], written.map((t) => JSON.stringify(t)).join('\n'));
  const again = await page.evaluate(
    async (list) => {
      const writing = await import(
        new URL('../words/writing.js', document.querySelector('script[src$="bench.js"]').src).href
      );
      return list.map((html) => {
        const e = document.createElement('div');
        e.innerHTML = html.replaceAll(/ (?:style|class)="[^"]*"/g, '');
        return writing.html(writing.read(writing.schemaOf(e, false), e));
      });
    },
    read.map((r) => r.html),
  );
  // Marks come in another order where the server writes them; what they hold is compared.
  const runs = (html) => oracle(['-back'], html.map((t) => JSON.stringify(t)).join('\n')).map((r) => r.words);
  const [first, second] = [read.map((r) => r.words), runs(again)];
  written.forEach((w, i) => assert.deepEqual(second[i], first[i], `written, read, shown and read again: ${w}`));
  const said = (html) =>
    html
      .replaceAll(/<\/(?:p|li|h\d)>/g, '\n')
      .replaceAll(/<[^>]+>/g, '')
      .replaceAll(/\n+/g, '\n')
      .trim();
  written.forEach((w, i) => {
    assert.equal(
      first[i].map((p) => (p ?? []).map((r) => r.text).join('')).join('\n'),
      said(w).replaceAll('&amp;', '&'),
      'nothing that was said is lost',
    );
    assert.deepEqual(
      first[i].map((p) => p[0].as ?? p[0].item ?? ''),
      blocksOf(w),
      'nor what it is',
    );
  });
});

/** What each paragraph of written HTML is, as the server names it. */
function blocksOf(html) {
  const out = [];
  const open = [];
  for (const [, close, tag] of html.matchAll(/<(\/?)(p|h\d|ul|ol|li|blockquote)\b[^>]*>/g)) {
    if (close) {
      open.pop();
      continue;
    }
    if (tag === 'p')
      out.push(
        open.at(-1) === 'li' ? { ul: 'disc', ol: 'decimal' }[open.at(-2)] : open.at(-1) === 'blockquote' ? 'quote' : '',
      );
    if (/^h\d$/.test(tag)) out.push(tag);
    open.push(tag);
  }
  return out;
}

test('nothing went wrong meanwhile', () =>
  assert.deepEqual(
    page.wrong.map((w) => w.slice(0, 200)),
    [],
  ));
