// The pointer on the canvas: choosing, moving, resizing, scrolling, going in.
import { block, holderOf, isGrid, own, page, zoneAt } from './page.js';
import { send } from './edits.js';
import { picks, select } from './select.js';
import { drag } from '../shared/drag.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as overlay from './overlay.js';
import { writeAt } from './words.js';

const stage = document.getElementById('stage');
const svg = document.getElementById('overlay');
let busy = false;

export function start() {
  svg.addEventListener('pointerdown', down);
  let looked = '';
  svg.addEventListener('pointermove', (e) => {
    if (busy) return;
    const { block: id } = canvas.hit(e.clientX, e.clientY);
    overlay.hover(id);
    if (picks() && id !== looked) picks()(id, id && id !== page.select ? 'try' : 'leave');
    looked = id;
  });
  svg.addEventListener('pointerleave', () => overlay.hover(''));
  svg.addEventListener('dblclick', (e) => {
    const { block: id, part } = canvas.hit(e.clientX, e.clientY);
    if (id) writeAt(id, part, e.clientX, e.clientY);
  });
  svg.addEventListener('wheel', (e) => { canvas.scrollBy(e.deltaX, e.deltaY); e.preventDefault(); }, { passive: false });
}

/** What is scrolled while something is dragged near the canvas's upper and lower edge. */
export const scrolls = { rect: () => stage.getBoundingClientRect(), by: (_, y) => canvas.scrollBy(0, y) };

function down(e) {
  if (e.button !== 0) return;
  stage.focus({ preventScroll: true });
  const edges = Number(e.target.dataset?.edges ?? 0);
  const found = canvas.hit(e.clientX, e.clientY);
  const id = edges ? page.select : found.block || found.section;
  if (picks()) { picks()(id, id && id !== page.select ? 'take' : 'leave'); return; }
  if (!id) { select(''); return; }
  if (!edges) select(id);
  if (edges) resize(e, id, edges);
  else move(e, id);
}

/** Where an element is in the grid that it is dragged in, in px of the page. */
function within(rect, holder) {
  const o = canvas.gridOrigin(holder);
  return { x: rect.left - o.x, y: rect.top - o.y, w: rect.width, h: rect.height };
}

/** How far the pointer went since the press, in px of the page, what was scrolled meanwhile included. */
function way(e, from) {
  const to = canvas.toPage(e.clientX, e.clientY);
  return [to.x - from.x, to.y + canvas.scrolled() - from.y];
}

const origin = (e) => { const p = canvas.toPage(e.clientX, e.clientY); return { x: p.x, y: p.y + canvas.scrolled() }; };

function resize(e, id, edges) {
  const from = origin(e);
  const holder = holderOf(id);
  let rect;
  let landing = null;
  drag(e, {
    begin() {
      if (!block(id)?.placed || !gesture.loaded()) return false;
      rect = within(canvas.element(id).getBoundingClientRect(), holder);
      gesture.begin(holder, id);
      busy = true;
    },
    move(m) {
      const [x, y] = way(m, from);
      const [left, top, right, bottom] = [1, 2, 4, 8].map((edge, i) => (edges & edge ? [x, y][i % 2] : 0));
      landing = gesture.pull(edges, { x: rect.x + left, y: rect.y + top, w: rect.w - left + right, h: rect.h - top + bottom });
      overlay.land({ holder, ...landing });
    },
    drop: () => send({ op: 'block.place', node: id, zone: zoneAt(page.width).id, place: gesture.placeOf(id, landing.place) }),
    end() {
      busy = false;
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** Drags a block: over its own grid, or into another section or container, where it lands as it is shown. */
function move(e, id) {
  const from = origin(e);
  const home = holderOf(id);
  let element;
  let start;
  let over = null;
  drag(e, {
    begin() {
      if (!block(id)?.placed || !gesture.loaded()) return false;
      element = canvas.element(id);
      start = element.getBoundingClientRect();
      start = { left: start.left, top: start.top + canvas.scrolled(), width: start.width, height: start.height };
      element.setAttribute('data-moving', '');
      gesture.begin(home, id);
      over = { holder: home };
      busy = true;
    },
    move(m) {
      const [x, y] = way(m, from);
      element.style.transform = `translate(${x}px, ${y}px)`;
      const to = under(m, id, home);
      const rect = { left: start.left + x, top: start.top + y - canvas.scrolled(), width: start.width, height: start.height };
      if (!isGrid(to.holder)) { // it goes behind the block pointed at
        over = to;
        overlay.land(null);
        overlay.hover(to.after || to.holder);
        return;
      }
      if (over.holder !== to.holder) gesture.begin(to.holder, to.holder === home ? id : '');
      const r = within(rect, to.holder);
      over = { holder: to.holder, ...(to.holder === home ? gesture.move(r.x, r.y) : gesture.pull(15, r)) };
      overlay.hover('');
      overlay.land(over);
    },
    drop() {
      const zone = zoneAt(page.width).id;
      if (over.holder === home) send({ op: 'block.place', node: id, zone, place: gesture.placeOf(id, over.place) });
      else send({ op: 'block.move', node: id, into: over.holder, zone, ...(over.place ? { place: { ...over.place, layer: 0 } } : { after: over.after || 'first' }) });
    },
    end() {
      busy = false;
      element.removeAttribute('data-moving');
      element.style.transform = '';
      overlay.hover('');
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** The section or container under the pointer, past the block that is dragged; its home where there is none. */
function under(e, id, home) {
  const hit = canvas.hit(e.clientX, e.clientY, id);
  const inside = canvas.element(id)?.contains(canvas.element(hit.block));
  if (!hit.section || inside) return { holder: home };
  const holder = block(hit.block)?.holds ? hit.block : holderOf(hit.block) || hit.section;
  if (own(holder) !== own(home) && !isGrid(holder) && !block(hit.block)) return { holder, after: '' };
  return { holder, after: hit.block === holder ? '' : hit.block };
}
