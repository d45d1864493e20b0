// A whole site by somebody who never made one: begun, its pages named, arranged and found, its
// footer changed once, published at a domain of its own, and taken back; by pointer and labels.
import assert from 'node:assert/strict';
import http from 'node:http';
import { before, test } from 'node:test';
import { findings } from './axe.mjs';
import { browser, page, plot } from './opened.mjs';
import { designer } from './openplot.mjs';
import {
  agreeing,
  canvas,
  choose,
  drag,
  edit,
  eventually,
  newPage,
  publish,
  ready,
  settled,
  signIn,
  undo,
} from './person.mjs';

const at = (path = '') => `${plot.app}/sites/kelp-and-salt${path}`;
const live = plot.site.replace('skerry-line', 'kelp-and-salt');
const row = (name) =>
  page.locator('.page-card', { has: page.locator('.card-name', { hasText: new RegExp(`^${name}$`) }) });
/** Takes what was entered last, and waits until it is kept or isn't. */
const keep = async () => {
  await page.keyboard.press('Tab');
  await eventually(
    () => page.locator('#page-form [name="set"], #page-form.htmx-request').count(),
    0,
    'all that was entered has been answered',
  );
};
const settings = async (name) => {
  await page.evaluate(() => document.querySelector('.page-panel')?.setAttribute('data-before', '')); // the one that was open, maybe of the same page
  await row(name)
    .getByRole('link', { name: `Settings of ${name}` })
    .click();
  await page.locator('.page-panel:not([data-before]) h2', { hasText: name }).waitFor();
};
const tree = () =>
  page
    .locator('.page-card')
    .evaluateAll((rows) =>
      rows.map(
        (r) =>
          `${'.'.repeat(r.dataset.depth)}${r.querySelector('.card-name').textContent} ${r.querySelector('.page-address').textContent}`,
      ),
    );

let visitor;
before(async () => {
  visitor = await newPage(await browser.newContext());
  await signIn(page, plot.app, designer);
});

/** What visitors get at an address: its status, its text and where it leads. */
const visit = (address, host = new URL(address).host) =>
  new Promise((resolve, reject) => {
    const { port, pathname } = new URL(address);
    http
      .get({ host: '127.0.0.1', port, path: pathname, headers: { host } }, (r) => {
        let text = '';
        r.setEncoding('utf8')
          .on('data', (b) => {
            text += b;
          })
          .on('end', () => resolve({ status: r.statusCode, text, location: r.headers.location, headers: r.headers }));
      })
      .on('error', reject);
  });

test('a site is begun: named, for a business, in a house style, with pages', async () => {
  await page.getByRole('link', { name: 'New site' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Kelp & Salt');
  await eventually(
    () => page.locator('#site-slug').getAttribute('placeholder'),
    'kelp-and-salt',
    'the address follows the name',
  );
  const drawn = () => page.locator('#sheet .planned .card-drawing').first().innerHTML();
  await page.getByLabel('Food and drink').check();
  await eventually(
    async () => (await page.locator('.planned-name').allTextContents()).join(),
    'Home,Menu,About,Find us',
    'the pages of a restaurant',
  );
  const plain = await drawn();
  await page.getByLabel('Lodging').check(); // one upon the other: the second isn't dropped for the first
  await page.getByLabel('Food and drink').check();
  await page.getByLabel('Meadow').check();
  await settled(page);
  assert.notEqual(await drawn(), plain, 'the house style is tried on');
  await eventually(
    async () => (await page.locator('.planned-name').allTextContents()).join(),
    'Home,Menu,About,Find us',
    'over the pages of the business chosen last',
  );
  assert.deepEqual(await findings(page), []);
  await page.getByRole('button', { name: 'Begin the site' }).click();
  await page.getByRole('button', { name: 'Kelp & Salt' }).waitFor();
  assert.deepEqual(await tree(), ['Home /', 'Menu /menu', 'About /about', 'Find us /find-us']);
  assert.equal(await page.locator('.first-step').count(), 3, 'the first steps are shown');
  assert.equal(await page.locator('.first-step.done').count(), 0, 'and none of them is done by itself');
  assert.equal((await visit(`${live}/`)).status, 404, 'nothing is published yet');
});

test('a fifth page is added under another, and pages are moved by keys and by dragging', async () => {
  await page.getByRole('link', { name: 'New page' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Cellar');
  await page.locator('#page-parent').selectOption({ label: 'Under Menu' });
  await page.getByLabel(/Blank page/).check();
  await page.getByRole('button', { name: 'Add the page' }).click();
  await ready(page);
  await page.goto(at());
  await page.getByRole('link', { name: 'List' }).click();
  assert.deepEqual(await tree(), ['Home /', 'Menu /menu', '.Cellar /menu/cellar', 'About /about', 'Find us /find-us']);
  await page.locator('.page-grip[aria-label="Move Find us"]').focus();
  /** Moves a page, and waits until the list that the server answers with is there. */
  const moves = async (act) => {
    await page.evaluate(() => {
      window.swapped = false;
      document.addEventListener(
        'htmx:after:swap',
        () => {
          window.swapped = true;
        },
        { once: true },
      );
    });
    await act();
    await page.waitForFunction(() => window.swapped);
  };
  await moves(() => page.keyboard.press('Alt+ArrowUp'));
  await eventually(async () => (await tree()).at(-1), 'About /about', 'Find us went before About');
  await eventually(
    () => page.evaluate(() => document.activeElement.getAttribute('aria-label')),
    'Move Find us',
    'the grip keeps the focus',
  );
  await moves(() => page.keyboard.press('Alt+ArrowDown'));
  await eventually(async () => (await tree()).at(-1), 'Find us /find-us', 'and back');
  await eventually(
    () => page.locator('.page-rows[hx-get]').count(),
    0,
    'all of it is drawn, so that nothing moves meanwhile',
  );
  const [grip, target] = [
    await page.locator('.page-grip[aria-label="Move About"]').boundingBox(),
    await row('Cellar').boundingBox(),
  ];
  await page.mouse.move(grip.x + 8, grip.y + 10);
  await page.mouse.down();
  await page.mouse.move(grip.x + 20, grip.y - 10, { steps: 4 });
  await page.mouse.move(target.x + 20 + 28, target.y + target.height - 8, { steps: 6 });
  await page.locator('.page-drop').waitFor();
  await page.mouse.up();
  await eventually(
    tree,
    ['Home /', 'Menu /menu', '.Cellar /menu/cellar', '.About /menu/about', 'Find us /find-us'],
    'About stands under Menu',
  );
});

test('what is entered of a page is kept as it is changed, whoever else changes it', async () => {
  const title = page.locator('#set-title');
  const again = async () => {
    await page.goto(at());
    await settings('Cellar');
  };
  await again();
  const next = [
    () => page.getByRole('link', { name: 'Menus' }).first().click(),
    () => settings('About'),
    () => page.reload(),
  ];
  for (const leave of next) {
    await title.fill(`Cellar ${next.indexOf(leave)}`);
    await leave();
    await again();
    await eventually(
      async () => {
        if ((await title.inputValue()) !== `Cellar ${next.indexOf(leave)}`) await again();
        return title.inputValue();
      },
      `Cellar ${next.indexOf(leave)}`,
      `left by ${leave}`,
    );
  }
  // What is changed while an answer is on its way has an answer of its own.
  await page.route('**/pages/settings', (r) => setTimeout(() => r.continue(), 500));
  await page.getByLabel('In the footer’s menu').check();
  await page.waitForTimeout(300);
  await page.locator('#set-segment').fill('wine & more');
  await page.keyboard.press('Tab');
  await page.locator('#page-said.problem', { hasText: /such as wine-and-more/ }).waitFor();
  await page.unroute('**/pages/settings');
  await page.locator('#set-segment').fill('cellar');
  await page.getByLabel('In the footer’s menu').uncheck();
  await keep();
  // Somebody else changes the description meanwhile, and the net is away for a while.
  const other = await page.context().newPage();
  await other.goto(page.url());
  await other.getByRole('link', { name: 'Settings of Cellar' }).click();
  await other.locator('#set-description').fill('Wines of the islands.');
  await other.locator('#set-description').press('Tab');
  await other.getByText('Kept.').waitFor();
  await other.close();
  await page.context().setOffline(true);
  await title.fill('The cellar');
  await title.press('Tab');
  await page.getByText(/It is tried again/).waitFor();
  await page.context().setOffline(false);
  page.wrong = page.wrong.filter((w) => !/ERR_INTERNET_DISCONNECTED|Failed to fetch/.test(w));
  await page.getByText('Kept.').waitFor();
  await again();
  assert.equal(await title.inputValue(), 'The cellar');
  assert.equal(
    await page.locator('#set-description').inputValue(),
    'Wines of the islands.',
    'and what they wrote stands',
  );
});

test('the home page links to a page, and the link follows when that gets another address', async () => {
  await page.goto(at('/pages/home/bench'));
  await ready(page);
  const button = canvas(page).getByRole('link', { name: 'See the menu' }).first();
  await choose(page, button);
  await page.locator('#tray').getByLabel('Link', { exact: true }).first().fill('/menu');
  await edit(page, () => page.keyboard.press('Enter'));
  await page.goto(at());
  await settings('Menu');
  await page.locator('#set-segment').fill('Speisekarte täglich');
  await keep();
  await page
    .getByRole('alert')
    .getByText(/such as speisekarte-taglich/)
    .waitFor();
  assert.equal(
    await page.locator('#set-segment').inputValue(),
    'Speisekarte täglich',
    'nothing that was entered is lost',
  );
  await page.locator('#set-segment').fill('card');
  await page.locator('#set-menu-name').fill('Our card');
  await page.getByLabel('In the footer’s menu').check();
  await page
    .locator('#set-title')
    .fill('What we cook today, from the harbour and the gardens above it, changed every morning at six');
  await eventually(() => page.locator('.found-fit .over').count(), 1, 'the title is longer than results show');
  assert.match(await page.locator('.found-title').first().textContent(), / …$/);
  await page.locator('#set-title').fill('What we cook today');
  await page.locator('#set-description').fill('A short menu that follows the season.');
  await eventually(
    () => page.locator('.found-words').textContent(),
    'A short menu that follows the season.',
    'the description is seen in the result',
  );
  assert.deepEqual(await findings(page), []);
  await keep();
  await page.getByText('Kept.').waitFor();
  assert.deepEqual(await tree(), [
    'Home /',
    'Menu /card',
    '.Cellar /card/cellar',
    '.About /card/about',
    'Find us /find-us',
  ]);
  await page.goto(at('/pages/home/bench'));
  await ready(page);
  assert.equal(await button.getAttribute('href'), '/card');
});

test('the footer is one for all pages', async () => {
  const footer = canvas(page).locator('footer');
  await footer.scrollIntoViewIfNeeded();
  await choose(page, footer.locator('p').first());
  await page.locator('.trail-shared', { hasText: 'on 5 pages' }).waitFor();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Open when the flag is up.');
  await edit(page, () => page.keyboard.press('Escape'));
  await page.getByText('Changed on 4 other pages too.').waitFor();
  for (const other of ['card', 'card.cellar', 'card.about', 'find-us']) {
    await page.goto(at(`/pages/${other}/bench`));
    await ready(page);
    await canvas(page).locator('footer').getByText('Open when the flag is up.').waitFor({ state: 'attached' });
  }
  await undo(page); // it is the person’s own last edit, wherever it was made
  await page.goto(at('/pages/home/bench'));
  await ready(page);
  assert.equal(
    await canvas(page).locator('footer').getByText('Open when the flag is up.').count(),
    0,
    'taken back on one page, it is on all',
  );
});

test('a section is made the site’s footer, and who comes back to the Bench is where they were', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/pages/home/bench`);
  await ready(page);
  await page.locator('.overview-go').last().click();
  await settled(page);
  const down = await canvas(page)
    .locator('html')
    .evaluate((e) => e.ownerDocument.defaultView.scrollY);
  await page.getByRole('button', { name: 'More…' }).click();
  await page.getByRole('menuitem', { name: 'Make it the site’s footer…' }).click();
  await page.getByRole('heading', { name: 'Make “Contact” the site’s footer' }).waitFor();
  assert.deepEqual(await findings(page), []);
  await page.goBack();
  await ready(page);
  await page.locator('.trail', { hasText: 'Contact' }).waitFor();
  assert.ok(down > 500);
  await eventually(
    () =>
      canvas(page)
        .locator('html')
        .evaluate((e) => e.ownerDocument.defaultView.scrollY),
    down,
    'as far down as before',
  );
  await page.goForward();
  await page.getByLabel('Sailings').uncheck();
  await page.getByRole('button', { name: 'Put it on the ticked pages' }).click();
  await ready(page);
  await page.locator('.trail-shared', { hasText: 'on 7 pages' }).waitFor();
  await undo(page);
  await page.locator('.trail-shared', { hasText: 'on 2 pages' }).waitFor();
});

/** Waits until what was changed is kept. */
const settledSettings = async () => {
  await page.waitForTimeout(300); // what is changed goes out after 200 ms
  await eventually(() => page.locator('#settings.htmx-request').count(), 0, 'nothing is under way');
};

test('icon, hours, and a picture for shared links', async () => {
  await page.goto(at('/settings'));
  await page.locator('[name="icon-letter"]').fill('K');
  await page.getByRole('radio', { name: 'Deep', exact: true }).check();
  await page.locator('.share-choice img').first().waitFor();
  await page.locator('.share-choice input').nth(1).check();
  await page.getByLabel('Monday').fill('seven to ten');
  await page.keyboard.press('Tab');
  await page
    .getByRole('alert')
    .getByText(/Monday can't be “?"?seven to ten/)
    .waitFor();
  await page.getByLabel('Monday').fill('9–12, 13:30–17:00');
  await page.keyboard.press('Tab');
  await page.getByText('Kept.').waitFor();
  await eventually(() => page.locator('.week-bar rect').count(), 2, 'the day’s hours are drawn');
  await page.locator('.look-bookmark svg').waitFor();

  // Hours are dragged along a day, and what was drawn is kept.
  const hourAt = async (hour) => {
    const bar = await page.locator('#bar-Sunday').boundingBox();
    return { x: Math.round(bar.x + (bar.width * hour) / 24), y: bar.y + 12 }; // a press is at whole pixels
  };
  await page.evaluate(() => document.fonts.ready);
  await drag(page, await hourAt(10), await hourAt(16));
  await eventually(() => page.getByLabel('Sunday').inputValue(), '10:00–16:00', 'what was dragged');
  await drag(page, await hourAt(16), await hourAt(14));
  await eventually(() => page.getByLabel('Sunday').inputValue(), '10:00–14:00', 'by its end');
  await drag(page, await hourAt(12), await hourAt(13));
  await eventually(() => page.getByLabel('Sunday').inputValue(), '11:00–15:00', 'moved');

  // An icon is chosen from drawings, and seen where others show it.
  const was = await page.locator('.look-tab .look-icon').innerHTML();
  await page.locator('#icon-choose').click();
  await page.getByRole('searchbox', { name: 'Search icons' }).fill('tsunami');
  await page.keyboard.press('Enter');
  await eventually(
    async () => (await page.locator('.look-tab .look-icon').innerHTML()) !== was,
    true,
    'the icon in a tab',
  );
  await page.getByLabel('Time zone').selectOption({ label: 'Vienna' });
  await settledSettings();
  await page.reload();
  assert.equal(await page.getByLabel('Monday').inputValue(), '9:00–12:00, 13:30–17:00');
  assert.equal(await page.getByLabel('Sunday').inputValue(), '11:00–15:00');
  assert.equal(await page.getByLabel('Time zone').inputValue(), 'Europe/Vienna');
  assert.equal(await page.locator('[name="icon-name"]').inputValue(), 'tsunami');
  assert.deepEqual(await findings(page), []);
});

test('all of it is published at once, with what search engines and links need', async () => {
  await page.goto(at('/publish'));
  assert.equal(await page.locator('.publish-row').count(), 5);
  assert.deepEqual(await findings(page), []);
  await agreeing(page, () => page.getByRole('button', { name: 'Publish the ticked pages' }).click());
  await page.getByText('Published.').waitFor();
  await visitor.goto(`${live}/`);
  const menu = visitor.getByRole('navigation').first();
  assert.equal(
    (await menu.getByText('Our card').count()) > 0,
    true,
    'the menu has the name that it is called in menus',
  );
  const home = (await visit(`${live}/`)).text;
  for (const want of [
    `<link rel="canonical" href="${live}/">`,
    'property="og:image"',
    'LocalBusiness',
    '"opens":"13:30"',
    'favicon.ico',
    'site.webmanifest',
  ])
    assert.ok(home.includes(want), want);
  const map = await visit(`${live}/sitemap.xml`);
  assert.match(map.text, /<loc>[^<]+\/card\/about\/<\/loc>/);
  assert.match((await visit(`${live}/robots.txt`)).text, /Sitemap: /);
  const icon = await visit(`${live}/favicon.ico`);
  assert.equal(icon.status, 200);
  assert.equal(icon.headers['content-type'], 'image/vnd.microsoft.icon');
  const missing = await visit(`${live}/nowhere`);
  assert.equal(missing.status, 404);
  assert.match(missing.text, /This page isn’t here/);
  const form = await visit(`${live}/find-us/`);
  assert.match(form.text, /action="\/_forms\/kelp-and-salt\//);
  await visitor.goto(`${live}/find-us/`);
  assert.equal(await visitor.locator('form').count(), 1);
  assert.deepEqual(visitor.wrong, []);
});

test('a page that moves leaves its address leading to it', async () => {
  await page.goto(at());
  await settings('About');
  await page.locator('#set-parent').selectOption({ label: 'At the top' });
  await page.locator('#set-segment').fill('who-we-are');
  await keep();
  await page.getByText('Kept.').waitFor();
  assert.equal((await visit(`${live}/card/about/`)).status, 200, 'visitors see it where it was until it is published');
  await page.goto(at('/publish'));
  await agreeing(page, () => page.getByRole('button', { name: 'Publish the ticked pages' }).click());
  await page.getByText('Published.').waitFor();
  const old = await visit(`${live}/card/about/`);
  assert.equal(old.status, 301);
  assert.equal(old.location, '/who-we-are/');
  await page.goto(at('/settings'));
  await page
    .getByRole('row', { name: /\/card\/about/ })
    .getByText('/who-we-are')
    .waitFor();
});

test('one section comes back from an earlier version', async () => {
  await page.goto(at('/pages/home/versions'));
  await page.getByLabel('Name for the page as it is now').fill('As it opened');
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.locator('.version', { hasText: 'As it opened' }).waitFor();
  await page.goto(at('/pages/home/bench'));
  await ready(page);
  const heading = canvas(page).getByRole('heading', { level: 1 });
  const was = await heading.textContent();
  await choose(page, heading);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Closed until further notice');
  await edit(page, () => page.keyboard.press('Escape'));
  await page.goto(at('/pages/home/versions'));
  await page.locator('.version', { hasText: 'As it opened' }).click();
  const change = page.locator('.change', { hasText: 'Heading' });
  await change.getByText('says something else').waitFor();
  await eventually(
    () =>
      page
        .frameLocator('#now')
        .getByRole('heading', { level: 1 })
        .evaluate((e) => e.style.outlineStyle),
    'dotted',
    'it is marked now',
  );
  assert.equal(await page.frameLocator('#then').getByRole('heading', { level: 1 }).textContent(), was);
  assert.deepEqual(await findings(page), []);
  await change.getByRole('button', { name: /^Take back/ }).click();
  await page.getByText('Taken back.').waitFor();
  assert.equal(await page.frameLocator('#now').getByRole('heading', { level: 1 }).textContent(), was);
});

test('a publication is gone back from in one press', async () => {
  const words = async () => (await visit(`${live}/`)).text.replace(/<style>.*<\/style>/s, '').replace(/<[^>]*>/g, ' ');
  const before = await words();
  await page.goto(at('/pages/home/bench'));
  await ready(page);
  await choose(page, canvas(page).getByRole('heading', { level: 1 }));
  await edit(page, async () => {
    await page.keyboard.press('Enter');
    await page.keyboard.press('Control+a');
    await page.keyboard.type('A slip that everybody saw');
    await page.keyboard.press('Escape');
  });
  await publish(page);
  await page.getByRole('link', { name: /Open it/ }).waitFor();
  assert.match((await visit(`${live}/`)).text, /A slip that everybody saw/);
  await page.goto(at('/publish'));
  await page.getByRole('button', { name: 'Go back to publication 2' }).click();
  await page.getByText('Visitors see that publication again.').waitFor();
  assert.equal(await words(), before);
  await page.getByRole('checkbox').first().waitFor(); // and the page here is as it was written
});

test('the site is shown at a domain of its own', async () => {
  await page.goto(at('/settings'));
  await page.locator('#domain-host').fill('https://WWW.Kelp.example/');
  await page.locator('#domains').getByRole('button', { name: 'Add' }).click();
  await page.getByText(/Not shown yet:\s+CNAME TXT missing/).waitFor();
  const there = `www.kelp.example:${new URL(live).port}`;
  assert.equal((await visit(`http://127.0.0.1:${new URL(live).port}/`, there)).status, 404);
  await page.getByRole('button', { name: 'Set it here: CNAME' }).click();
  await page.getByText(/Not shown yet:\s+TXT missing/).waitFor();
  await page.getByRole('button', { name: 'Set it here: TXT' }).click();
  await page.getByText(/Shown at http:\/\/www.kelp.example/).waitFor();
  await eventually(
    async () => (await visit(`http://127.0.0.1:${new URL(live).port}/card/`, there)).status,
    200,
    'the site is at its domain',
  );
});

test('pages are left out of the menu, withdrawn, deleted and had back together', async () => {
  await page.goto(at());
  await row('Cellar').getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Hide from menu' }).click();
  await row('Cellar').getByText('Not in the menu').waitFor();
  await row('Cellar').getByRole('checkbox').check();
  await page.locator('#several').getByRole('button', { name: 'Delete' }).click();
  const asked = page.getByRole('dialog', { name: 'Delete the page?' });
  await asked.getByText('Visitors see it').waitFor();
  await asked.getByRole('button', { name: 'Delete' }).click();
  await page.getByText(/Deleted. It can be had back/).waitFor();
  assert.equal((await visit(`${live}/card/cellar/`)).status, 404);
  await page.getByText('Deleted pages').click();
  await page.getByRole('button', { name: 'Restore' }).click();
  await row('Cellar').getByText('Not published').waitFor();
});

test('a page with a password is opened by it alone', async () => {
  await settings('Cellar');
  await page.getByText('Who may find and see it').click();
  await page.getByLabel('Visitors need a password').check();
  await page.locator('#set-password').fill('oyster');
  await keep();
  await page.getByText('Kept.').waitFor();
  await page.goto(at('/publish'));
  await agreeing(page, () => page.getByRole('button', { name: 'Publish the ticked pages' }).click());
  await page.getByText('Published.').waitFor();
  await visitor.goto(`${live}/card/cellar/`);
  await visitor.getByLabel('Password').fill('mussel');
  await visitor.getByRole('button', { name: 'Open the page' }).click();
  await visitor.getByRole('alert').getByText('That isn’t the password of this page.').waitFor();
  await visitor.getByLabel('Password').fill('oyster');
  await visitor.getByRole('button', { name: 'Open the page' }).click();
  await visitor.getByRole('heading', { name: 'This page has a password' }).waitFor({ state: 'detached' });
  assert.equal(
    (await visit(`${live}/card/cellar/`)).text.includes('This page has a password'),
    true,
    'others still need it',
  );
  assert.equal(
    (await visit(`${live}/sitemap.xml`)).text.includes('cellar'),
    false,
    'and search engines don’t hear of it',
  );
});

test('a site is archived, copied, deleted by its name, and had back', async () => {
  await page.goto(`${plot.app}/new`);
  await page.getByLabel('Name', { exact: true }).fill('Kelp & Salt, winter');
  await page.getByLabel('A copy of Kelp & Salt').check();
  await page.getByRole('button', { name: 'Begin the site' }).click();
  await page.getByRole('button', { name: 'Kelp & Salt, winter' }).waitFor({ timeout: 90_000 }); // its pictures are copied
  assert.deepEqual(await tree(), [
    'Home /',
    'Menu /card',
    '.Cellar /card/cellar',
    'Find us /find-us',
    'About /who-we-are',
  ]);
  await page.getByRole('link', { name: 'Settings', exact: true }).click();
  await page.getByLabel(/Write its name/).fill('Kelp');
  await page.getByRole('button', { name: 'Delete the site' }).click();
  await page
    .getByRole('alert')
    .getByText(/write it to delete the site/)
    .waitFor();
  await page.getByLabel(/Write its name/).fill('Kelp & Salt, winter');
  await page.getByRole('button', { name: 'Delete the site' }).click();
  await page.getByText(/Deleted. It can be had back/).waitFor();
  await page.getByText('Deleted sites').click();
  await page.getByRole('button', { name: 'Restore' }).click();
  await page.getByRole('button', { name: 'Kelp & Salt, winter' }).waitFor();
  await page.getByRole('link', { name: 'Settings', exact: true }).click();
  await page.getByRole('button', { name: 'Archive' }).click();
  await page.getByText(/Archived: visitors find nothing of it/).waitFor();
  assert.equal(await page.locator('.site-card', { hasText: 'winter' }).count(), 0);
  await page.getByLabel('Find a site').pressSequentially('kelp');
  await eventually(() => page.locator('.site-card').count(), 1, 'found by its name');
  assert.deepEqual(await findings(page), []);
  assert.deepEqual(page.wrong, []);
});

test('the rail leads by keys, folds and stays folded, and is a menu where there is no room', async () => {
  await page.goto(at());
  const rail = page.getByRole('navigation', { name: 'Kelp' });
  assert.equal(
    await rail
      .locator('[aria-current]')
      .textContent()
      .then((t) => t.trim().split(/\s/)[0]),
    'Pages',
  );
  await page.keyboard.press('g');
  await page.keyboard.press('m');
  await page.getByRole('heading', { name: 'Menus', level: 1 }).waitFor();
  await page.getByRole('button', { name: 'Fold' }).click();
  const width = () => rail.evaluate((r) => r.getBoundingClientRect().width);
  assert.ok((await width()) < 60, 'folded');
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  await page.getByRole('heading', { name: /settings/i, level: 1 }).waitFor();
  assert.ok((await width()) < 60, 'it stays folded');
  assert.deepEqual(await findings(page), []);
  // Letters that are written are written, and kept wherever one goes next at once.
  const name = page.getByLabel('Name', { exact: true });
  const was = await name.inputValue();
  const next = [
    () => rail.getByRole('link', { name: 'Menus' }).click(),
    () => page.goto(at('/versions')),
    () => page.reload(),
    () => page.goBack(),
  ];
  for (const leave of next) {
    const other = `${was} ${next.indexOf(leave)}gp`;
    await page.goto(at('/settings'));
    await name.fill('');
    await name.pressSequentially(other);
    assert.equal(await name.inputValue(), other);
    await leave();
    await page.goto(at('/settings'));
    await eventually(
      async () => {
        if ((await name.inputValue()) !== other) await page.goto(at('/settings')); // it may have been asked for before
        return name.inputValue();
      },
      other,
      `left by ${leave}`,
    );
  }
  await name.fill(was);
  await name.press('Tab');
  await page.getByText('Kept').first().waitFor();
  await page.getByRole('button', { name: 'Fold' }).click();
  await page.setViewportSize({ width: 375, height: 800 });
  await page.goto(at('/library'));
  assert.equal(await rail.count(), 0, 'it is folded away');
  await page.getByRole('button', { name: 'Menu' }).click();
  await rail.getByRole('link', { name: /^Checks/ }).click();
  await page.getByRole('heading', { name: /^What breaks/ }).waitFor();
  assert.deepEqual(await findings(page), []);
  assert.ok((await page.evaluate(() => document.documentElement.scrollWidth)) <= 375, 'nothing goes beyond the window');
  await page.setViewportSize({ width: 1280, height: 800 });
});

test('the site’s name leads to one’s other sites, and the Bench to the same places', async () => {
  await page.goto(at('/menus'));
  await page.locator('.site-name').click();
  await page.getByLabel('Find a site').pressSequentially('skerry');
  await page.keyboard.press('Enter');
  await page.waitForURL(/sites\/skerry-line$/);
  await page.getByRole('link', { name: 'Home', exact: true }).click();
  await ready(page);
  await page.getByRole('button', { name: 'The site’s places' }).click();
  await page.getByRole('navigation', { name: 'Skerry Line' }).getByRole('link', { name: 'House style' }).click();
  await page
    .getByRole('heading', { name: 'House style', level: 2 })
    .or(page.getByRole('heading', { name: 'House style' }))
    .first()
    .waitFor();
});

test('a menu is composed as it looks: ordered, nested, called, linked and put back', async () => {
  await page.goto(at('/menus'));
  const items = () =>
    page.locator('.menu-row').evaluateAll((rows) =>
      rows.map((r) => {
        const label = r.querySelector('[name=label]');
        return `${r.classList.contains('under') ? '.' : ''}${label.value || label.placeholder}`;
      }),
    );
  const drawn = () =>
    page
      .frameLocator('.menu-drawing.wide iframe')
      .locator('nav li:not(:has(button))')
      .evaluateAll((lis) => lis.map((li) => li.textContent.trim().replace(/\s+/g, ' ')));
  const kept = () => page.locator('#menu-said', { hasText: 'Kept' }).waitFor();
  const was = await items();
  assert.ok(was.length >= 4, `${was}`);
  await page.getByRole('button', { name: `Move ${was[0]}` }).focus();
  await page.keyboard.press('Alt+ArrowDown');
  await kept();
  assert.equal((await items())[1], was[0], 'the first is second');
  assert.equal(
    await page.evaluate(() => document.activeElement.getAttribute('aria-label')),
    `Move ${was[0]}`,
    'the focus stays on it',
  );
  const named = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: `Move ${was[0]}` }) });
  await named.getByLabel('Label').fill('Begin here');
  await kept();
  await eventually(async () => (await drawn()).includes('Begin here'), true, 'the drawing says it');
  await page.getByRole('button', { name: 'Add a link' }).click();
  await page.keyboard.type('Charts');
  await page.locator('.menu-row').last().getByLabel('Link').fill('https://example.org/charts');
  await kept();
  await page.locator('.menu-row').last().getByTitle('Opens in a new tab').click();
  await kept();
  await page.keyboard.press('Alt+ArrowRight');
  await kept();
  assert.equal((await items()).at(-1), '.Charts');
  await page.locator('.menu-row').last().getByLabel('Link').fill('javascript:1');
  await page.locator('#menu-problem:not([hidden])').waitFor();
  await page.locator('.menu-row').last().getByLabel('Link').fill('https://example.org/charts');
  await kept();
  // By dragging: the last to the front.
  const grip = await page.locator('.menu-row .page-grip').last().boundingBox();
  const first = await page.locator('.menu-row').first().boundingBox();
  await page.mouse.move(grip.x + 6, grip.y + 8);
  await page.mouse.down();
  for (let i = 1; i <= 6; i++) await page.mouse.move(grip.x + 6 - i, grip.y + ((first.y - 4 - grip.y) * i) / 6);
  await page.mouse.up();
  await kept();
  assert.equal((await items())[0], 'Charts');
  const out = await page.locator('#menu-others li').count();
  await page.getByRole('button', { name: 'Take out of the menu' }).nth(1).click();
  await kept();
  assert.equal(await page.locator('#menu-others li').count(), out + 1, 'what was taken out is offered');
  assert.deepEqual(await findings(page), []);
  await page.reload();
  assert.equal((await items())[0], 'Charts', 'all of it was kept');
  await page.getByRole('button', { name: 'Follow the pages again' }).click();
  await page.getByText(/This menu follows the pages/).waitFor();
  assert.deepEqual((await items()).slice(0, was.length), was);
  assert.deepEqual(page.wrong, []);
});

test('somebody is invited, joins with an account of their own, gets another role and is taken off', async () => {
  await page.goto(`${plot.app}/sites/skerry-line/people`);
  await page.getByLabel('Email').fill('tove@skerry.example');
  await page.getByRole('radio', { name: /writer/ }).check();
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = await page.locator('.made-link a').getAttribute('href');
  const theirs = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
  await theirs.goto(link);
  assert.deepEqual(await findings(theirs), []);
  await theirs.getByLabel('Your name').fill('Tove Ask');
  await theirs.getByLabel('A password').fill('three small islands');
  await theirs.getByRole('button', { name: 'Join' }).click();
  await theirs.getByRole('heading', { level: 1 }).waitFor();
  assert.match(theirs.url(), /\/sites\/skerry-line$/);
  await page.reload();
  await page.getByLabel('Role of Tove Ask').selectOption('designer');
  await page.getByRole('status').getByText('Kept').waitFor();
  await theirs.goto(`${plot.app}/sites/skerry-line/publish`);
  await theirs.getByRole('heading', { level: 1, name: 'Publish' }).waitFor(); // which writers don't see
  await page.getByRole('button', { name: 'Take Tove Ask off the site' }).click();
  const dialog = page.getByRole('dialog');
  assert.equal(await page.evaluate(() => document.activeElement.textContent), 'Cancel', 'the harmless answer');
  await dialog.getByRole('button', { name: 'Take off' }).click();
  await page.getByText('They don’t belong to the site any more').waitFor();
  await theirs.reload();
  await theirs.getByText('There is nothing here').waitFor();
  assert.deepEqual(page.wrong, []);
  await theirs.context().close();
});

test('several sites are archived when that was asked about, and brought back', async () => {
  await page.goto(plot.app);
  await page.getByLabel('Tick Kelp & Salt', { exact: true }).check();
  await page.getByRole('button', { name: 'Archive the ticked' }).click();
  const dialog = page.getByRole('dialog');
  assert.equal(await page.evaluate(() => document.activeElement.textContent), 'Cancel', 'the harmless answer');
  await page.keyboard.press('Escape');
  assert.equal(await page.locator('#site-kelp-and-salt').count(), 1, 'still there');
  await page.getByRole('button', { name: 'Archive the ticked' }).click();
  await dialog.getByRole('button', { name: 'Archive', exact: true }).click();
  await page.getByText('Done.').waitFor();
  assert.equal(await page.locator('#site-kelp-and-salt').count(), 0);
  await page.goto(`${plot.app}/?archived=1`);
  await page.getByLabel('Tick Kelp & Salt', { exact: true }).check();
  await page.getByRole('button', { name: 'Bring the ticked back' }).click();
  await page.getByText('Done.').waitFor();
  await page.goto(plot.app);
  await page.locator('#site-kelp-and-salt').waitFor();
});

test('a page that visitors don’t have yet is published along with what leads to it', async () => {
  const of = (path) => `${plot.app}/sites/skerry-line${path}`;
  await page.goto(of(''));
  await page.getByRole('link', { name: 'New page' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Low water');
  await page.keyboard.press('Enter');
  await ready(page);
  await page.goto(of('/pages/home/bench'));
  await ready(page);
  await choose(page, canvas(page).getByRole('link', { name: /^See today/ }));
  await page.locator('#tray').getByLabel('Link', { exact: true }).first().fill('/low-water');
  await edit(page, () => page.keyboard.press('Enter'));
  await page.goto(of('/publish'));
  const row = (name) => page.locator('.publish-row').filter({ has: page.locator('.publish-name', { hasText: name }) });
  const told = row('Home').getByText(/^Leads to Low water/);
  assert.ok(await told.isHidden(), 'both are ticked');
  await row('Low water').getByRole('checkbox').uncheck();
  await told.waitFor();
  await row('Home').getByRole('button', { name: 'Publish it along' }).click();
  assert.ok(await row('Low water').getByRole('checkbox').isChecked());
  await told.waitFor({ state: 'hidden' });
  assert.deepEqual(page.wrong, []);
});

test('what is ticked and focused stays so while a list draws itself anew', async () => {
  for (const [at, list, only, tick] of [
    ['/', 'cards-sites', '/?q=&from=0&only=1', 'Tick Kelp & Salt'],
    ['/sites/skerry-line?as=list', 'page-rows', '/sites/skerry-line/pages?from=0&only=1', 'Tick Fares'],
  ]) {
    await page.goto(`${plot.app}${at}`);
    // As while drawings are still to be made.
    await page.evaluate(
      ([l, get]) => {
        const ul = document.querySelector(`.${l}`);
        ul.setAttribute('hx-get', get);
        ul.setAttribute('hx-trigger', 'every 600ms');
        ul.setAttribute('hx-swap', 'outerMorph');
        window.htmx.process(ul, true);
      },
      [list, only],
    );
    await page.getByLabel(tick, { exact: true }).focus();
    await page.keyboard.press('Space');
    await page.waitForFunction((l) => !document.querySelector(l).hasAttribute('hx-get'), `.${list}`);
    const on = await page.evaluate(() => [document.activeElement.ariaLabel, document.activeElement.checked]);
    assert.deepEqual(on, [tick, true], at);
  }
  assert.deepEqual(page.wrong, []);
});

test('every screen of a site fits a phone and a desktop, without findings of axe', async () => {
  const of = (path) => `${plot.app}/sites/skerry-line${path}`;
  const own = [
    '',
    '?as=list',
    '?as=wall',
    '/library',
    '/entries',
    '/entries/keeping',
    '/visits',
    '/checks',
    '/house',
    '/menus',
    '/people',
    '/settings',
    '/versions',
  ];
  const more = ['/previews', '/audit', '/publish', '/pages/home/checks', '/pages/home/versions'];
  for (const width of [1280, 375]) {
    await page.setViewportSize({ width, height: 800 });
    for (const address of [
      ...own.map(of),
      ...more.map(of),
      plot.app,
      `${plot.app}/new`,
      `${plot.app}/handbook/checks`,
    ]) {
      await page.goto(address);
      await page.waitForLoadState('networkidle');
      const off = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
      assert.ok(off <= 0, `${address} at ${width} px goes ${off} px beyond the window`);
      // None is squeezed, wherever it is scrolled to; the distance between small ones is axe’s to measure.
      const small = await page.evaluate(
        (least) =>
          [
            ...document.querySelectorAll(
              'input:not([type="hidden"], [type="checkbox"], [type="radio"]), select, textarea, button',
            ),
          ]
            .filter((e) => {
              const b = e.getBoundingClientRect();
              return (
                b.width > 1 &&
                b.height > 1 &&
                (b.width < least || b.height < least) &&
                getComputedStyle(e).opacity !== '0'
              );
            })
            .map((e) => `${e.id || e.className || e.name}: ${e.offsetWidth} × ${e.offsetHeight}`),
        18,
      );
      assert.deepEqual(small, [], `${address} at ${width} px`);
      const found = await findings(page);
      // What is half below an edge that is scrolled past isn't small.
      assert.deepEqual(
        found.filter((f) => !f.startsWith('target-size')),
        [],
        `${address} at ${width} px`,
      );
    }
  }
  await page.setViewportSize({ width: 1280, height: 800 });
});
