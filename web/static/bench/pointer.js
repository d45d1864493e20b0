// The pointer on the canvas: choosing, moving, resizing, scrolling, going in.
import { block, holderOf, page, zoneAt } from './page.js';
import { send } from './edits.js';
import { select } from './select.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as overlay from './overlay.js';
import { writeAt } from './words.js';

const stage = document.getElementById('stage');
const svg = document.getElementById('overlay');
const slack = 4; // px a press may wander before it is a drag
let press = null;

export function start() {
  svg.addEventListener('pointerdown', down);
  svg.addEventListener('pointermove', (e) => { if (!press) overlay.hover(canvas.hit(e.clientX, e.clientY).block); });
  svg.addEventListener('pointerleave', () => overlay.hover(''));
  svg.addEventListener('dblclick', (e) => {
    const { block: id, part } = canvas.hit(e.clientX, e.clientY);
    if (id) writeAt(id, part, e.clientX, e.clientY);
  });
  svg.addEventListener('wheel', (e) => { canvas.scrollBy(e.deltaX, e.deltaY); e.preventDefault(); }, { passive: false });
}

function down(e) {
  if (e.button !== 0) return;
  stage.focus({ preventScroll: true });
  const edges = Number(e.target.dataset?.edges ?? 0);
  const found = canvas.hit(e.clientX, e.clientY);
  const id = edges ? page.select : found.block || found.section;
  if (!id) { select(''); return; }
  press = { id, edges, x: e.clientX, y: e.clientY, moving: false, landing: null };
  if (!edges) select(id);
  svg.setPointerCapture(e.pointerId);
  svg.addEventListener('pointermove', drag);
  svg.addEventListener('pointerup', up, { once: true });
  svg.addEventListener('pointercancel', cancel, { once: true });
  window.addEventListener('keydown', escape, true);
}

function drag(e) {
  if (!press) return;
  const [dx, dy] = [e.clientX - press.x, e.clientY - press.y];
  if (!press.moving) {
    if (Math.hypot(dx, dy) < slack || !block(press.id)?.placed || !gesture.loaded()) return;
    press.moving = true;
    press.holder = holderOf(press.id);
    press.element = canvas.element(press.id);
    const r = press.element.getBoundingClientRect();
    const o = canvas.gridOrigin(press.holder);
    press.rect = { x: r.left - o.x, y: r.top - o.y, w: r.width, h: r.height };
    press.element.setAttribute('data-moving', '');
    gesture.begin(press.holder, press.id);
  }
  const s = canvas.scaleNow();
  const [x, y] = [dx / s, dy / s];
  const r = press.rect;
  let landing;
  if (press.edges) {
    const left = press.edges & 1 ? x : 0;
    const top = press.edges & 2 ? y : 0;
    const right = press.edges & 4 ? x : 0;
    const bottom = press.edges & 8 ? y : 0;
    landing = gesture.pull(press.edges, { x: r.x + left, y: r.y + top, w: r.w - left + right, h: r.h - top + bottom });
  } else {
    landing = gesture.move(r.x + x, r.y + y);
    press.element.style.transform = `translate(${x}px, ${y}px)`;
  }
  press.landing = landing;
  overlay.land({ holder: press.holder, ...landing });
}

function end() {
  svg.removeEventListener('pointermove', drag);
  window.removeEventListener('keydown', escape, true);
  press?.element?.removeAttribute('data-moving');
  if (press?.element) press.element.style.transform = '';
  const was = press;
  press = null;
  overlay.land(null);
  return was;
}

function cancel() { end(); }

function escape(e) {
  if (e.key !== 'Escape' || !press?.moving) return;
  e.preventDefault();
  e.stopPropagation();
  end();
}

function up() {
  const was = end();
  if (!was?.landing) return;
  const place = gesture.placeOf(was.id, was.landing.place);
  send({ op: 'block.place', node: was.id, zone: zoneAt(page.width).id, place });
}
