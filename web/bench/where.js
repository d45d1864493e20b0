// Where one was on the page, kept while the window is open: whoever comes back from another screen finds
// the same block, width and place.
import { page } from './page.js';
import * as canvas from './canvas.js';
import { setWidth } from './reach.js';
import { select } from './select.js';

const key = `where ${location.pathname}`;

/** Whether this page was come to from another screen, and not by an address that says what it is about. */
function comesBack() {
  const [how] = performance.getEntriesByType('navigation');
  if (/** @type {PerformanceNavigationTiming} */ (how).type === 'back_forward') return true;
  const from = document.referrer && new URL(document.referrer);
  return from && from.origin === location.origin && from.pathname !== location.pathname && !location.search;
}

export function start() {
  window.addEventListener('pagehide', () => {
    const at = { select: page.select, width: page.width, down: canvas.down() };
    sessionStorage.setItem(key, JSON.stringify(at));
  });
  const was = comesBack() && JSON.parse(sessionStorage.getItem(key) ?? 'null');
  if (!was) return;
  if (was.width !== page.width) setWidth(was.width);
  if (was.select && canvas.element(was.select)) select(was.select);
  canvas.downTo(was.down);
}
