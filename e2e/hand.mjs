// A hand on the Bench that counts what it does: presses, drags and keys.
import { drag, settled } from './person.mjs';

export function hand(page) {
  const counted = { presses: 0, drags: 0, keys: 0 };
  const pause = () => settled(page);
  const h = {
    page,
    counted,
    pause,
    tray: page.locator('#tray'),
    canvas: page.frameLocator('iframe.canvas'),
    reset() {
      Object.assign(counted, { presses: 0, drags: 0, keys: 0 });
    },

    async press(locator, at) {
      await locator.scrollIntoViewIfNeeded().catch(() => {}); // it may just be drawn anew
      await locator.click(at ? { position: at } : {});
      counted.presses++;
      await pause();
    },

    /** A press on the canvas, where the marks lie over the page. */
    async pressOn(locator, { shift = false, x = 40, y = 14, button = 'left' } = {}) {
      await locator.evaluate((e) => e.scrollIntoView({ block: 'center' }));
      await pause();
      const b = await locator.boundingBox();
      if (shift) await page.keyboard.down('Shift');
      await page.mouse.click(b.x + Math.min(b.width / 2, x), b.y + Math.min(b.height / 2, y), { button });
      if (shift) await page.keyboard.up('Shift');
      counted.presses++;
      await pause();
    },

    async keys(...names) {
      for (const k of names) {
        if (k.length === 1 && (await page.evaluate(() => document.activeElement.closest('#tray') !== null))) {
          await page.keyboard.press('Escape'); // the Tray is left for the canvas
          counted.keys++;
        }
        await page.keyboard.press(k);
        await pause();
      }
      counted.keys += names.length;
    },

    async type(text) {
      await page.keyboard.type(text);
      counted.keys += text.length;
    },

    /** Writes a value over what a field has. */
    async enter(id, text) {
      await h.press(page.locator(id), { x: 8, y: 10 });
      await page.locator(id).selectText();
      await h.type(text);
      await h.keys('Enter');
    },

    /** Drags from one point to another, in px of the window. */
    async drag(from, to) {
      await drag(page, from, to);
      counted.drags++;
      await pause();
    },

    /** Inserts what is found on the Shelf by some words: the first of it. */
    async insert(words) {
      await page.locator('#stage').focus();
      await h.keys('/');
      await h.type(words);
      await page.locator('[data-filled]').waitFor();
      await page.waitForTimeout(200);
      await h.keys('Enter');
      await page.locator('#stage').focus();
    },

    /** Inserts a kind of block that is found by some words. */
    async block(words, kind = words) {
      await page.locator('#stage').focus();
      await h.keys('/');
      await h.type(words);
      await page.locator('[data-filled]').waitFor();
      await page.waitForTimeout(200);
      await h.press(page.locator(`.shelf-item[data-kind="${kind}"]:visible`).first());
      await page.locator('#stage').focus();
    },

    /** Inserts a picture: from the Shelf, then which one. */
    async picture(n = 0) {
      await page.locator('#stage').focus();
      await h.keys('/');
      await h.type('picture');
      await page.locator('[data-filled]').waitFor();
      await page.waitForTimeout(200);
      await h.press(page.locator('.shelf-item[data-kind="picture"]:visible').first());
      await h.press(page.locator('#picker [data-picture]').nth(n));
      await page.locator('#stage').focus();
    },

    /** What is selected, on the canvas. */
    async selected() {
      const id = await page.evaluate(() =>
        import(new URL('page.js', document.querySelector('script[src$="bench.js"]').src).href).then(
          (m) => m.page.select,
        ),
      );
      return h.canvas.locator(`[data-block="${id}"]`);
    },

    /** Does a command of the list that is found by some words. */
    async command(words) {
      await page.locator('#stage').focus();
      await h.keys('Control+k');
      await h.type(words);
      await h.keys('Enter');
    },
  };
  return h;
}
