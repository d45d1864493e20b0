// The page itself, in a frame without scripts: patched here, measured here.
import { doc, element, frame } from './frame.js';
import { orderAt, page } from './page.js';

export { doc, element };

const stage = document.getElementById('stage');
let scale = 1;

/** Resolves when the frame holds the page. */
export const ready = new Promise((resolve) => {
  const there = () => doc()?.body && doc().readyState === 'complete' && doc().URL !== 'about:blank';
  if (there()) resolve();
  else frame.addEventListener('load', () => resolve(), { once: true });
});

const least = 0.1;
const most = 4;
const top = 14; // px of the stage above the page
const side = 22; // px beside it, at least
let width = 0;
let zoom = 0; // the scale that was chosen, 0 for what fits
let panned = 0; // px of the stage that the page is moved sideways, when it is wider

/** Gives the frame a width in px of the page; it is scaled down where it doesn't fit, unless a scale was chosen. */
export function setWidth(px) {
  width = px;
  const order = orderAt(px);
  if (order && order !== page.order && !kept.size) {
    page.order = order;
    arrange(order);
  }
  lay();
}

const fits = () => Math.min(1, (stage.clientWidth - 2 * side) / width);

function lay() {
  scale = zoom || fits();
  const spare = stage.clientWidth - width * scale;
  const beyond = Math.max(2 * side - spare, 0) / 2; // how far it can be moved either way
  panned = Math.min(Math.max(panned, -beyond), beyond);
  frame.style.width = `${width}px`;
  frame.style.height = `${(stage.clientHeight - top) / scale}px`;
  frame.style.transform = `translate(${spare / 2 + panned}px, ${top}px) scale(${scale})`;
  document.getElementById('scale').textContent = `${Math.round(scale * 100)} %`;
  for (const f of listeners) f();
}

const listeners = [];

/** Calls f whenever the page is shown at another scale or another place. */
export function onLay(f) {
  listeners.push(f);
}

/** Shows the page at a scale, 0 for what fits, with a point of the window where it is. */
export function zoomTo(
  to,
  x = stage.getBoundingClientRect().left + stage.clientWidth / 2,
  y = stage.getBoundingClientRect().top + top,
) {
  const at = toPage(x, y);
  zoom = to && Math.min(Math.max(to, least), most);
  if (!zoom) panned = 0;
  lay();
  const now = toPage(x, y);
  frame.contentWindow.scrollBy({ top: at.y - now.y, behavior: 'instant' });
  panned += (now.x - at.x) * scale;
  lay();
}

const stops = [0.1, 0.25, 0.33, 0.5, 0.67, 0.8, 1, 1.25, 1.5, 2, 3, 4];

/** The next scale, in or out, with what is selected where it is. */
export function zoomBy(by) {
  const e = element(page.select);
  const b = e && boxOf(e);
  const s = stage.getBoundingClientRect();
  const inSight = b && b.x < s.width && b.x + b.w > 0 && b.y < s.height && b.y + b.h > 0;
  zoomTo(next(by), ...(inSight ? [s.left + b.x + b.w / 2, s.top + b.y + b.h / 2] : []));
}

const next = (by) =>
  by > 0 ? (stops.find((s) => s > scale + 0.01) ?? most) : (stops.findLast((s) => s < scale - 0.01) ?? least);

/** Shows all of the page at once. */
export const zoomToAll = () => {
  zoomTo(Math.min(fits(), (stage.clientHeight - top - 8) / doc().body.scrollHeight));
  frame.contentWindow.scrollTo(0, 0);
};

export const scaleNow = () => scale;

/** How far down the page is, in px. */
export const down = () => frame.contentWindow.scrollY;
export const downTo = (top) => frame.contentWindow.scrollTo({ top, behavior: 'instant' });

let ground = ''; // the colour that the page lies on
let scrolledTo = 0; // how far down the page was before the first of the tries
const kept = new Map(); // what sections that are tried are otherwise: their element and rules, or null

/** Puts a section's text into the page in place of what it was. */
function put({ id, html, css }) {
  const d = doc();
  let style = d.querySelector(`style[data-css="${id}"]`);
  if (!style) {
    style = d.createElement('style');
    style.dataset.css = id;
    d.head.append(style);
  }
  style.textContent = css;
  const holder = d.createElement('template');
  holder.innerHTML = html;
  const old = element(id);
  if (old) old.replaceWith(holder.content);
  else d.body.append(holder.content);
}

/** Puts sections in order; those that aren't in it are taken away. */
function arrange(order) {
  const d = doc();
  let before = null;
  for (const id of order.toReversed()) {
    const e = element(id);
    if (e && e.nextElementSibling !== before) d.body.insertBefore(e, before);
    before = e ?? before;
  }
  return [...d.body.children].filter((e) => e.dataset.section && !order.includes(e.dataset.section));
}

/** Puts changed sections into the page, and all in order. */
export function apply(state) {
  const hold = anchor();
  restore();
  doc().body.style.background = ground = state.ground;
  for (const section of state.show) put(section);
  for (const e of arrange(page.order)) e.remove();
  hold();
}

/**
 * Keeps what is looked at where it is on the screen over the page being drawn anew: the section of the selection
 * where it is in sight, else the first that is. A block itself may be what moved.
 */
function anchor() {
  const h = frame.clientHeight;
  const inSight = (e) => {
    const r = e.getBoundingClientRect();
    return r.height > 0 && r.bottom > 0 && r.top < h;
  };
  const chosen = element(page.select)?.closest('[data-section]');
  const on = chosen && inSight(chosen) ? chosen : [...doc().querySelectorAll('[data-section]')].find(inSight);
  if (!on) return () => {};
  const id = on.dataset.section;
  const top = on.getBoundingClientRect().top;
  return () => {
    const now = element(id);
    if (!now) return;
    const by = now.getBoundingClientRect().top - top;
    if (Math.abs(by) > 1) frame.contentWindow.scrollBy({ top: by, behavior: 'instant' });
  };
}

/** Shows sections as a try has them, until restore. What is tried already isn't shown as it was in between. */
export function tryOn(answer) {
  if (!kept.size) scrolledTo = scrolled();
  doc().body.style.background = answer.ground;
  const again = answer.show.map((s) => s.id);
  if ([...kept.keys()].some((id) => !again.includes(id))) restore();
  for (const section of answer.show) {
    const e = element(section.id);
    if (!kept.has(section.id))
      kept.set(section.id, e ? { e, css: doc().querySelector(`style[data-css="${section.id}"]`).textContent } : null);
    put(section);
  }
  for (const e of arrange(answer.order)) {
    kept.set(e.dataset.section, { e, css: doc().querySelector(`style[data-css="${e.dataset.section}"]`).textContent });
    e.remove();
  }
}

/** Shows again what is kept; false when nothing else was shown. */
export function restore() {
  doc().body.style.background = ground;
  if (!kept.size) return false;
  for (const [id, was] of kept) {
    const now = element(id);
    if (!was) {
      now?.remove();
      doc().querySelector(`style[data-css="${id}"]`)?.remove();
      continue;
    }
    if (now) now.replaceWith(was.e);
    else doc().body.append(was.e);
    doc().querySelector(`style[data-css="${id}"]`).textContent = was.css;
  }
  kept.clear();
  arrange(page.order);
  frame.contentWindow.scrollTo({ top: scrolledTo, behavior: 'instant' });
  return true;
}

const origin = () => frame.getBoundingClientRect();

/** An element's box in px of the stage; of a bar that takes no room, that of what it holds. */
export function boxOf(e) {
  let r = e.getBoundingClientRect();
  if ('section' in e.dataset && r.height < e.scrollHeight)
    r = { left: r.left, top: r.top, width: r.width, height: e.scrollHeight };
  const o = origin();
  const s = stage.getBoundingClientRect();
  return {
    x: o.left - s.left + r.left * scale,
    y: o.top - s.top + r.top * scale,
    w: r.width * scale,
    h: r.height * scale,
  };
}

/** A point of the window in px of the page's viewport. */
export function toPage(x, y) {
  const o = origin();
  return { x: (x - o.left) / scale, y: (y - o.top) / scale };
}

/** A point of the page's viewport in px of the stage. */
export function toStage(x, y) {
  const o = origin();
  const s = stage.getBoundingClientRect();
  return { x: o.left - s.left + x * scale, y: o.top - s.top + y * scale };
}

/** How far the page is scrolled down, in px. */
export const scrolled = () => frame.contentWindow.scrollY;

/** The section and block at a point of the window, past a block that is being dragged. */
export function hit(x, y, past = '') {
  const p = toPage(x, y);
  const skipped = past ? element(past) : null;
  const e = doc()
    .elementsFromPoint(p.x, p.y)
    .find((found) => !skipped?.contains(found));
  return {
    block: e?.closest('[data-block]')?.dataset.block ?? '',
    section: e?.closest('[data-section]')?.dataset.section ?? '',
    part: e?.closest('[data-part], [data-block]')?.dataset.part ?? '',
    entry: e?.closest('[data-entry], [data-block]')?.dataset.entry ?? '',
    cell: /** @type {HTMLTableCellElement | null} */ (e?.closest('td, th') ?? null),
  };
}

/** The ids of the blocks that lie on one another at a point of the window, the uppermost first; what one of them stands in isn't meant. */
export function stack(x, y) {
  const p = toPage(x, y);
  const all = [
    ...new Set(
      doc()
        .elementsFromPoint(p.x, p.y)
        .map((e) => e.closest('[data-block]'))
        .filter(Boolean),
    ),
  ];
  return all.filter((e) => !all.some((other) => other !== e && e.contains(other))).map((e) => e.dataset.block);
}

/** The ids of the blocks that are shown, as they are read. */
export function shownBlocks() {
  return [...doc().querySelectorAll('[data-block]')]
    .filter((e) => e.getClientRects().length)
    .map((e) => e.dataset.block);
}

/** Where the grid of a section or container begins, in px of the page's viewport. */
export function gridOrigin(holder) {
  const r = element(holder).getBoundingClientRect();
  const g = page.grids[holder];
  return { x: r.left + g.x, y: r.top + g.y };
}

/** Scrolls by px of the stage: down within the page, sideways where it is wider than its stage. */
export function scrollBy(x, y) {
  frame.contentWindow.scrollBy({ top: y / scale, behavior: 'instant' });
  if (!x) return;
  panned -= x;
  lay();
}

/** Scrolls until an element is in sight. */
export function show(id) {
  const e = element(id);
  if (!e) return;
  const r = e.getBoundingClientRect();
  const h = frame.clientHeight;
  if (r.top < 0 || r.bottom > h) {
    frame.contentWindow.scrollBy({
      top: r.height > h || r.top < 0 ? r.top - 24 : r.bottom - h + 24,
      behavior: 'instant',
    });
  }
}

export const onScroll = (f) => frame.contentWindow.addEventListener('scroll', f, { passive: true });
