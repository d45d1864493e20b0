// Open Plot running with the demo, a browser, and a page of it at 1280 × 800, for a
// file of tests: whoever imports this has them before the first test and is rid of them
// after the last. node --test runs every file in a process of its own.
import { after } from 'node:test';
import { launch } from './chromium.mjs';
import { start } from './openplot.mjs';
import { newPage } from './person.mjs';

export const plot = await start();
export const browser = await launch();
export let context, page;
await openWindow();

/** Opens a window in which nobody is signed in; another one is closed first. */
export async function openWindow() {
  await context?.close();
  context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  page = await newPage(context);
}

after(async () => {
  await browser.close();
  await plot.stop();
});
