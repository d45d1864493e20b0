// The Shelf: inserts at the mark, or where something is dropped.
import { block, goesInto, holderOf, isGrid, own, page, sectionOf, site, zoneAt } from './page.js';
import { send } from './edits.js';
import { attempt, leave } from './tries.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as overlay from './overlay.js';
import { drag } from '../shared/drag.js';
import { pick } from './picker.js';
import { scrolls } from './pointer.js';

const shelf = document.getElementById('shelf');
let after = null; // section that a new one goes behind, '' for the top, null for none pointed at
let into = ''; // section or container that a block goes into
let behind = ''; // block that it goes behind there

/** Opens the Shelf at an insertion mark. */
export function open(mark = null) {
  after = mark ?? sectionOf(page.select) ?? null;
  if (after === '') after = mark === '' ? '' : page.order.at(-1) ?? '';
  into = mark === null && goesInto(page.select) ? goesInto(page.select) : after;
  behind = block(page.select) && into !== page.select ? page.select : '';
  for (const m of document.querySelectorAll('.insert')) m.classList.toggle('here', m.firstElementChild.dataset.after === after);
  const name = page.names[after];
  document.getElementById('shelf-mark').textContent = name ? `Sections go below “${name}”, blocks into ${into === after ? 'it' : `“${page.names[own(into)]}”`}.` : 'Goes at the top of the page.';
  const search = document.getElementById('shelf-search');
  search.value = '';
  search.dispatchEvent(new Event('input'));
  shelf.show();
  search.focus();
}

export function close() {
  shelf.close();
  for (const m of document.querySelectorAll('.insert.here')) m.classList.remove('here');
  document.getElementById('stage').focus({ preventScroll: true });
}

export const isOpen = () => shelf.open;

function add(item) {
  if (item.dataset.preset) {
    send({ op: 'section.add', after, preset: item.dataset.preset });
  } else {
    const holder = into || page.order[0];
    insert(item.dataset.kind, holder, { after: behind || undefined });
  }
  close();
}

/** Shows on the canvas what lies on the Shelf, where it would go. */
function look(item) {
  if (item.dataset.preset) { attempt({ op: 'section.add', after, preset: item.dataset.preset }, { go: true }); return; }
  const holder = into || page.order[0];
  if (holder && item.dataset.kind !== 'picture') attempt({ op: 'block.add', node: holder, kind: item.dataset.kind, zone: zoneAt(page.width).id, after: behind || undefined }, { go: true });
}

/** Inserts a block into a section or container; on an empty page, into a section made with it. */
function insert(kind, holder, where) {
  const put = (value) => {
    const block = { op: 'block.add', node: holder || '@1', kind, zone: zoneAt(page.width).id, value, ...where };
    send(holder ? block : { op: 'many', parts: [{ op: 'section.add', after: '', preset: 'empty' }, block] });
  };
  if (kind === 'picture') pick(put);
  else put();
}

function lift(item, e) {
  let over = null;
  drag(e, {
    slack: 5,
    begin() {
      leave();
      if (!gesture.loaded()) return false;
      shelf.classList.add('dragging');
    },
    move(m) {
      const hit = canvas.hit(m.clientX, m.clientY);
      const holder = block(hit.block)?.holds ? hit.block : holderOf(hit.block) || hit.section;
      if (!holder) { over = null; overlay.land(null); return; }
      if (!isGrid(holder)) { // it goes behind the block pointed at
        over = { holder, after: hit.block };
        overlay.land(null);
        overlay.hover(hit.block === holder ? holder : hit.block || holder);
        return;
      }
      if (over?.holder !== holder) gesture.begin(holder, '');
      const p = canvas.toPage(m.clientX, m.clientY);
      const o = canvas.gridOrigin(holder);
      over = { holder, ...gesture.at(p.x - o.x, p.y - o.y, Number(item.dataset.span), Number(item.dataset.rows) || 1) };
      overlay.land(over);
    },
    drop() {
      if (!over) return;
      close();
      insert(item.dataset.kind, over.holder, over.place ? { place: { ...over.place, layer: 0 } } : { after: over.after });
    },
    end() {
      shelf.classList.remove('dragging');
      overlay.hover('');
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** Changes what lies on the Shelf, and shows it anew with the search that was on. */
async function refresh(what, values) {
  const search = document.getElementById('shelf-search');
  await window.htmx.ajax('POST', `${site}/shelf/${what}`, { source: document.body, target: '#shelf-items', swap: 'outerHTML', values });
  search.dispatchEvent(new Event('input'));
  search.focus();
}

export function start() {
  shelf.addEventListener('pointerdown', (e) => {
    const item = e.target.closest('[data-kind]');
    if (item && e.button === 0) lift(item, e);
  });
  let waiting = 0;
  let pointed = null;
  const point = (item) => { // what is pointed at is tried, not what happens to lie below a pointer at rest
    if (item === pointed) return;
    if (pointed) leave();
    pointed = item;
    clearTimeout(waiting);
    if (item) waiting = setTimeout(() => { if (shelf.open && !shelf.classList.contains('dragging')) look(item); }, 90);
  };
  shelf.addEventListener('pointermove', (e) => { if (e.movementX || e.movementY) point(e.target.closest('.shelf-item')); });
  shelf.addEventListener('pointerleave', () => point(null));
  shelf.addEventListener('focusin', (e) => { if (e.target.matches('.shelf-item:focus-visible')) point(e.target); });
  shelf.addEventListener('focusout', () => point(null));
  shelf.addEventListener('click', (e) => {
    const item = e.target.closest('.shelf-item');
    if (item) add(item);
    const star = e.target.closest('[data-star]');
    if (star) refresh('favourite', { item: star.dataset.star, on: star.getAttribute('aria-pressed') !== 'true' });
    const drop = e.target.closest('[data-drop]');
    if (drop) refresh('drop', { id: drop.dataset.drop });
    if (e.target.closest('[data-close-shelf]')) close();
  });
  shelf.addEventListener('keydown', (e) => {
    if (e.key === 'Escape') { close(); e.stopPropagation(); }
    if (e.key === 'Enter' && e.target.id === 'shelf-search') {
      const first = [...shelf.querySelectorAll('.shelf-item')].find((i) => i.offsetParent);
      if (first) add(first);
    }
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const items = [...shelf.querySelectorAll('.shelf-item')].filter((i) => i.offsetParent);
      const at = items.indexOf(document.activeElement) + (e.key === 'ArrowDown' ? 1 : -1);
      (items[at] ?? document.getElementById('shelf-search')).focus();
      e.preventDefault();
      e.stopPropagation();
    }
  });
  document.addEventListener('click', (e) => {
    const mark = e.target.closest('.insert-add');
    if (mark) open(mark.dataset.after);
  });
}
