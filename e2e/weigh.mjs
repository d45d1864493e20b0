// Publishes the demo's pages and prints what a visitor loads of each, in bytes as
// sent, and how far its layout shifts (Layout Instability API): the table in
// docs/performance.md.
import { launch } from './chromium.mjs';
import { designer, start } from './openplot.mjs';
import { newPage, publish, ready, signIn } from './person.mjs';

const plot = await start();
const browser = await launch();
const page = await newPage(await browser.newContext({ viewport: { width: 1280, height: 800 } }));
await signIn(page, plot.app, designer);
await page.getByRole('link', { name: 'Skerry Line' }).click();
const benches = await page.locator('.page-go').evaluateAll((as) => as.map((a) => a.href));
const pages = [];
for (const bench of benches) {
  await page.goto(bench);
  await ready(page);
  await publish(page);
  pages.push(await page.getByRole('link', { name: /Open it/ }).getAttribute('href'));
}
console.log('| page | width | HTML + CSS | script | fonts | pictures | shift |\n|---|---|---|---|---|---|---|');
for (const [i, href] of pages.entries()) {
  for (const width of i === 0 ? [375, 800, 1280] : [1280]) {
    const context = await browser.newContext({ viewport: { width, height: 800 } });
    const visitor = await context.newPage();
    const cdp = await context.newCDPSession(visitor);
    await cdp.send('Network.enable');
    const kinds = {};
    const sums = {};
    cdp.on('Network.responseReceived', (e) => {
      kinds[e.requestId] = e.type;
    });
    cdp.on('Network.loadingFinished', (e) => {
      sums[kinds[e.requestId]] = (sums[kinds[e.requestId]] ?? 0) + e.encodedDataLength;
    });
    await visitor.addInitScript(() => {
      window.shift = 0;
      new PerformanceObserver((l) => {
        for (const e of l.getEntries()) if (!e.hadRecentInput) window.shift += e.value;
      }).observe({ type: 'layout-shift', buffered: true });
    });
    await visitor.goto(href, { waitUntil: 'networkidle' });
    const shift = await visitor.evaluate(() => window.shift);
    const n = (k) => (sums[k] ?? 0).toLocaleString('en');
    console.log(
      `| ${new URL(href).pathname.split('/').at(-2) || 'home'} | ${width} px | ${((sums.Document ?? 0) + (sums.Stylesheet ?? 0)).toLocaleString('en')} | ${n('Script')} | ${n('Font')} | ${n('Image')} | ${shift.toFixed(3)} |`,
    );
    await context.close();
  }
}
await browser.close();
await plot.stop();
