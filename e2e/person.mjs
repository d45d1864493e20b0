// What a person does on the screens, by pointer, keys and labels.
import assert from 'node:assert/strict';

/** Opens a page of the browser that notes what must never happen. */
export async function newPage(context) {
  const page = await context.newPage();
  page.setDefaultTimeout(30_000); // long, for machines that are busy with copies of pictures
  page.wrong = [];
  page.on('pageerror', (e) => page.wrong.push(`error: ${e.message}`));
  page.on('console', (m) => {
    if (m.type() === 'error' && !/status of 4\d\d/.test(m.text())) page.wrong.push(`console: ${m.text()}`);
  });
  return page;
}

export async function signIn(page, app, who) {
  await page.goto(app);
  await page.getByLabel('Email').fill(who.email);
  await page.getByLabel('Password').fill(who.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Sites' }).waitFor();
}

/** Opens the Bench with the demo's home page, from the list of sites or from anywhere on the site. */
export async function openBench(page) {
  await page
    .getByRole('link', { name: /^Skerry Line|^Pages/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Home', exact: true }).click();
  await ready(page);
}

export const ready = (page) => page.locator('body[data-ready]').waitFor({ state: 'attached' });

export const canvas = (page) => page.frameLocator('iframe.canvas');

/** The number of edits kept, as the top bar says it. */
export const kept = async (page) => Number(await page.locator('#history .measure').textContent());

/** Does something and waits until one more edit is kept. */
export async function edit(page, f, n = 1) {
  const before = await kept(page);
  await f();
  await page.waitForFunction(
    (want) => Number(document.querySelector('#history .measure').textContent) >= want,
    before + n,
  );
}

/** Takes an edit back by key and waits until one fewer is kept. */
export async function undo(page) {
  const before = await kept(page);
  await page.keyboard.press('Control+z');
  await page.waitForFunction((was) => Number(document.querySelector('#history .measure').textContent) < was, before);
}

/** Drags from one point to another as a hand does. */
export async function drag(page, from, to) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++)
    await page.mouse.move(from.x + ((to.x - from.x) * i) / 8, from.y + ((to.y - from.y) * i) / 8);
  await page.mouse.up();
}

export const middle = (b) => ({ x: b.x + b.width / 2, y: b.y + b.height / 2 });

/** Clicks a block on the canvas; the overlay takes the pointer, so it goes by position. */
export async function choose(page, locator) {
  await settled(page);
  const b = await locator.boundingBox();
  assert.ok(b, 'the block is on the canvas');
  await page.mouse.click(b.x + Math.min(b.width / 2, 40), b.y + Math.min(b.height / 2, 14));
  await settled(page);
}

/** Waits until the Tray shows what is selected. */
export async function settled(page) {
  await page.waitForTimeout(60);
  await page.waitForFunction(() => !document.querySelector('.htmx-request, body[data-asking]'));
  await page.waitForTimeout(20);
}

export async function enter(page, label, value) {
  const f = page.locator('#tray').getByLabel(label, { exact: true });
  if ((await f.inputValue()) === value) return;
  await edit(page, async () => {
    await f.fill(value);
    await f.press('Enter');
  });
}

/** Waits until f gives what is wanted. */
export async function eventually(f, want, what, ms = 20_000) {
  let got;
  for (let i = 0; i < ms / 50; i++) {
    got = await f().catch((e) => `${e}`); // what is read may just be on its way to another page
    if (JSON.stringify(got) === JSON.stringify(want)) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  assert.deepEqual(got, want, what);
}

export const near = (a, b, by, what) => assert.ok(Math.abs(a - b) <= by, `${what}: ${a}, not within ${by} of ${b}`);

/** A thing on the Shelf by its name; what was used lately lies there twice. */
export const onShelf = (page, name) =>
  page
    .locator('.shelf-item:visible')
    .filter({ has: page.locator('strong', { hasText: new RegExp(`^${name}$`) }) })
    .first();

/** Presses a key that is a command, once the Tray is left for the canvas. */
export async function command(page, key) {
  if (await page.evaluate(() => document.activeElement.closest('#tray') !== null)) await page.keyboard.press('Escape');
  await page.keyboard.press(key);
}

/** Does one of the commands under More… in the Tray's head. */
export async function more(page, name) {
  await page.locator('#tray-more').click();
  await page.getByRole('menuitem', { name }).click();
}

/** Chooses one of a field's choices in the Tray, side by side or in a list. */
export async function option(page, label, name) {
  const tray = page.locator('#tray');
  const opens = tray.locator(`button[data-opens="options"][aria-label^="${label}: "]`);
  await opens
    .or(tray.getByRole('group', { name: label, exact: true }))
    .first()
    .waitFor(); // the Tray may just be on its way
  if (await opens.count()) {
    await opens.first().click();
    await page.locator('#panel-options').getByRole('option', { name, exact: true }).click();
  } else {
    await tray.getByRole('group', { name: label, exact: true }).getByRole('button', { name, exact: true }).click();
  }
}

/** Does something, and agrees when it is asked first. */
export async function agreeing(page, act) {
  await act();
  await page.waitForTimeout(120); // it asks when the press was heard
  const yes = page.locator('dialog.ask [value="yes"]');
  if (await yes.isVisible()) await yes.click();
}

/** Publishes the page that is on the Bench, whatever is broken on it. */
export const publish = (page) =>
  agreeing(page, () => page.getByRole('button', { name: 'Publish', exact: true }).click());

/** Keeps all that is said on a page's screens, in its order: what is said next doesn't take its place. */
export const listen = (page) =>
  page.addInitScript(() => {
    window.said = [];
    new MutationObserver(() => {
      const now = document.getElementById('told')?.textContent;
      if (now && window.said.at(-1) !== now) window.said.push(now);
    }).observe(document, { subtree: true, childList: true, characterData: true });
  });

/** What was said since it was forgotten, oldest first. */
export const said = (page) => page.evaluate(() => window.said);

export const forgetSaid = (page) =>
  page.evaluate(() => {
    window.said = [];
    document.getElementById('told').textContent = '';
  });
