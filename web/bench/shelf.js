// The Shelf: inserts at the mark, or where something is dropped.
import { block, holderOf, isGrid, own, page, sectionOf, site, zoneAt } from './page.js';
import { send } from './edits.js';
import { attempt, leave, take } from './tries.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as outcome from './outcome.js';
import * as overlay from './overlay.js';
import { paint } from '../controls/control.js';
import { drag } from '../shared/drag.js';
import { pick } from './picker.js';
import { found } from './tell.js';
import { placeBehind, scrolls } from './pointer.js';
import { wordsOf } from '../shared/find.js';

const shelf = document.getElementById('shelf');
const search = document.getElementById('shelf-search');
let layout = ''; // section that another layout is chosen for, or ''
let after = null; // section that a new one goes behind, '' for the top, null for none pointed at
let into = ''; // section or container that a block goes into
let behind = ''; // block that it goes behind there
let spots = []; // where a block can go, from the selection outwards
let sort = 'sections';
const purposes = {}; // the one that is chosen, by sort
let stale = false; // what lies on it may be another by now
let filling = null; // what it is filled by

/** What lies there to be taken, in the order in which it is seen. */
const items = () =>
  [...shelf.querySelectorAll('.shelf-item')]
    .filter((i) => i.offsetParent)
    .map((i) => [i, i.getBoundingClientRect()])
    .sort(([, a], [, b]) => a.y - b.y || a.x - b.x)
    .map(([i]) => i);

/** Opens the Shelf to choose another layout for a section, from those that are for the same. */
export function openLayouts(section, purpose) {
  open(section);
  layout = section;
  sort = 'sections';
  purposes.sections = purpose || 'All';
  document.getElementById('shelf-mark').textContent =
    `Another layout for “${page.names[section]}”, with its own words and pictures.`;
  shelf.classList.add('layouts');
  for (const m of document.querySelectorAll('.insert.here')) m.classList.remove('here');
  show();
  filling.then(() => {
    if (shelf.open) items()[0]?.focus({ focusVisible: true });
  });
}

/** Where a block can go when something is selected: into it, behind it, behind what it stands in, at the section's end. */
function around(id) {
  const name = (node) => page.names[own(node)];
  const all = [];
  if (block(id)?.holds) all.push({ into: id, behind: '', words: `into ${name(id)}` });
  for (let at = id; block(at); at = holderOf(at)) {
    if (block(holderOf(at))?.kind !== 'series')
      all.push({ into: holderOf(at), behind: at, words: `after ${name(at)}` });
  }
  if (sectionOf(id)) all.push({ into: sectionOf(id), behind: '', words: `at the end of ${name(sectionOf(id))}` });
  return all;
}

/** Has blocks go to one of these places. */
function aim(spot) {
  ({ into, behind } = spot ?? { into: after, behind: '' });
}

/** Says where what is taken goes, with the other places to choose from, and draws it. */
function told() {
  const line = document.getElementById('shelf-mark');
  const name = page.names[after];
  const first = search.value.trim() && items()[0]; // that Enter takes
  if (!into || (first ? first.dataset.preset : sort === 'sections')) {
    line.textContent = name ? `Sections go below “${name}”.` : 'Goes at the top of the page.';
    overlay.insertion(null);
    overlay.between(after ?? '');
    return;
  }
  const choice = spots.length > 1 ? spots : [{ into, behind, words: `into ${page.names[own(into)]}` }];
  line.replaceChildren('Blocks go ');
  for (const spot of choice) {
    const b = document.createElement(choice.length > 1 ? 'button' : 'span');
    b.textContent = spot.words;
    if (b instanceof HTMLButtonElement) {
      b.type = 'button';
      b.className = 'plain';
      b.setAttribute('aria-pressed', String(spot.into === into && spot.behind === behind));
      b.onclick = () => {
        aim(spot);
        told();
        search.focus();
      };
    }
    line.append(b, ' ');
  }
  if (choice.length > 1) {
    const keys = document.createElement('kbd');
    keys.textContent = 'Alt ← →';
    line.append(keys);
  }
  overlay.between(null);
  canvas.show(behind || into);
  overlay.insertion(placeBehind(into, behind));
}

/** Goes to the place before or after the one where blocks go now. */
function other(by) {
  const at = spots.findIndex((s) => s.into === into && s.behind === behind);
  aim(spots[Math.min(Math.max(at + by, 0), spots.length - 1)]);
  told();
}

/** Opens the Shelf at an insertion mark. */
export function open(mark = null) {
  layout = '';
  shelf.classList.remove('layouts');
  after = mark ?? sectionOf(page.select) ?? null;
  if (after === '') after = mark === '' ? '' : page.end;
  spots = mark === null ? around(page.select) : [];
  aim(spots[0]);
  for (const m of document.querySelectorAll('.insert'))
    m.classList.toggle('here', m.firstElementChild.dataset.after === after);
  search.value = '';
  sort = mark === null && (block(page.select) || (after && !page.places[after]?.length)) ? 'blocks' : 'sections'; // an empty section wants blocks
  shelf.show();
  show();
  search.focus();
  if (!filling) fill();
}

export function close() {
  shelf.close();
  leave();
  overlay.insertion(null);
  overlay.between(null);
  if (stale)
    setTimeout(() => {
      if (!shelf.open) fill();
    }, 500); // never under somebody's hand
  for (const m of document.querySelectorAll('.insert.here')) m.classList.remove('here');
  document.getElementById('stage').focus({ preventScroll: true });
}

export const isOpen = () => shelf.open;

/** Fetches what lies on the Shelf. It isn't swapped by htmx, which would move the focus. */
function fill() {
  stale = false;
  filling = fetch(`${site}/shelf`)
    .then(async (r) => {
      if (!r.ok) throw new Error(`${r.status}`);
      const text = await r.text();
      document.getElementById('shelf-items').outerHTML = text;
    })
    .catch(() => {
      filling = null;
      document.getElementById('shelf-items').textContent =
        'The Shelf can’t be reached just now. Close it and open it again.';
    });
}

/** How well an item answers a search: -1 by its whole name, 0 by its beginning, 1 by its name, 2 by another word, 3 not. */
function rank(li, words) {
  const name = li.querySelector('strong').textContent.toLowerCase();
  if (name === words.join(' ')) return -1;
  if (!words.every((w) => li.dataset.find.toLowerCase().includes(w))) return 3;
  if (name.startsWith(words.join(' '))) return 0;
  return words.every((w) => name.includes(w)) ? 1 : 2;
}

/** Shows what is searched for, the best answer first, or else what is for the chosen purpose. */
function show() {
  const words = wordsOf(search.value);
  let some = false;
  for (const part of shelf.querySelectorAll('[data-sort-of]')) {
    const here = part.dataset.sortOf;
    const purpose = purposes[here] ?? 'All';
    let best = 3;
    for (const li of part.querySelectorAll('li')) {
      const by = words.length ? rank(li, words) : 0;
      li.hidden = words.length
        ? by === 3
        : !(
            purpose === 'All' ||
            li.dataset.in === purpose ||
            (purpose === 'Recent' && 'recent' in li.dataset) ||
            (purpose === 'Favourites' && 'favourite' in li.dataset)
          );
      li.style.order = words.length ? by : (purpose === 'Recent' && li.dataset.recent) || '';
      if (!li.hidden) best = Math.min(best, by);
    }
    part.hidden = words.length ? best === 3 || (layout && here === 'blocks') : here !== sort;
    part.style.order = words.length ? best * 2 + (here === sort ? 0 : 1) : '';
    if (!part.hidden) some ||= best < 3;
    for (const b of part.querySelectorAll('[data-purpose]'))
      b.setAttribute('aria-pressed', String(b.dataset.purpose === purpose));
  }
  for (const b of shelf.querySelectorAll('[data-sort]'))
    b.setAttribute('aria-pressed', String(b.dataset.sort === sort));
  shelf.classList.toggle('searching', words.length > 0);
  if (shelf.open && !layout) told();
  if (words.length) found('shelf', () => (shelf.open ? items().length : null));
  const none = shelf.querySelector('.shelf-none');
  if (!none) return;
  none.hidden = some;
  if (!some) none.firstElementChild.replaceChildren(...near(words));
}

/** What is called most alike to what was searched for, to be searched for instead. */
function near(words) {
  const names = [...new Set([...shelf.querySelectorAll('.shelf-item strong')].map((e) => e.textContent))];
  const pairs = (s) => new Set([...s.toLowerCase()].slice(1).map((c, i) => s.toLowerCase()[i] + c));
  const asked = pairs(words.join(' '));
  const alike = (name) => {
    const own = pairs(name);
    return (2 * [...own].filter((p) => asked.has(p)).length) / (own.size + asked.size);
  };
  return names
    .map((name) => [alike(name), name])
    .sort(([a], [b]) => b - a)
    .slice(0, 3)
    .map(([, name]) => {
      const b = document.createElement('button');
      b.type = 'button';
      b.className = 'plain';
      b.dataset.search = name;
      b.textContent = name;
      return b;
    });
}

/** What a section on the Shelf does when it is taken. */
const command = (item) =>
  layout
    ? { op: 'section.redesign', node: layout, preset: item.dataset.preset }
    : { op: 'section.add', after, preset: item.dataset.preset };

function add(item) {
  stale = true; // it is one of those used last now
  if (item.dataset.preset) {
    take(command(item));
  } else {
    const holder = into || page.order[0];
    insert(item.dataset.kind, holder, { after: behind || undefined });
  }
  close();
}

/** Shows on the canvas what lies on the Shelf, where it would go. */
function look(item) {
  const name = item.querySelector('strong').textContent;
  if (item.dataset.preset) {
    attempt(command(item), { go: true, name });
    return;
  }
  const holder = into || page.order[0];
  if (holder && item.dataset.kind !== 'picture')
    attempt(putting(item.dataset.kind, holder, { after: behind || undefined }), { go: true, name });
}

/** What puts a block into a section or container. */
const putting = (kind, holder, where, value) => ({
  op: 'block.add',
  node: holder || '@1',
  kind,
  zone: zoneAt(page.width).id,
  value,
  ...where,
});

/** Inserts a block into a section or container; on an empty page, into a section made with it. */
function insert(kind, holder, where) {
  const put = (value) => {
    const block = putting(kind, holder, where, value);
    send(holder ? block : { op: 'many', parts: [{ op: 'section.add', after: '', preset: 'empty' }, block] });
  };
  if (kind === 'picture') pick(put);
  else put();
}

/** Carries a section to a mark of the Overview, or between two sections on the canvas. */
function liftSection(item, e) {
  let to = null;
  const marks = [...document.querySelectorAll('#overview .insert')];
  const clear = () => {
    for (const m of marks) m.classList.remove('here');
    overlay.between(null);
  };
  drag(e, {
    slack: 5,
    begin() {
      leave();
      shelf.classList.add('dragging');
    },
    move(m) {
      clear();
      to = null;
      const side = document.querySelector('#overview').getBoundingClientRect();
      if (m.clientX < side.right) {
        to = marks.toSorted(
          (a, b) =>
            Math.abs(a.getBoundingClientRect().y - m.clientY) - Math.abs(b.getBoundingClientRect().y - m.clientY),
        )[0]?.firstElementChild.dataset.after;
      } else {
        const { section } = canvas.hit(m.clientX, m.clientY);
        if (!section) return;
        const r = canvas.element(section).getBoundingClientRect();
        const lower = canvas.toPage(m.clientX, m.clientY).y > r.top + r.height / 2;
        to = lower ? section : (page.order[page.order.indexOf(section) - 1] ?? '');
      }
      if (to === undefined || to === null) return;
      marks.find((mark) => mark.firstElementChild.dataset.after === to)?.classList.add('here');
      overlay.between(to);
    },
    drop() {
      if (to === null || to === undefined) return;
      after = to;
      add(item);
    },
    end() {
      shelf.classList.remove('dragging');
      clear();
    },
    scroll: scrolls,
  });
}

function lift(item, e) {
  let over = null;
  const where = () => (over.place ? { place: { ...over.place, layer: 0 } } : { after: over.after });
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
      if (!holder) {
        over = null;
        overlay.land(null);
        outcome.ask(null);
        return;
      }
      if (!isGrid(holder)) {
        // it goes behind the block pointed at
        over = { holder, after: hit.block };
        overlay.land(null);
        overlay.hover(hit.block === holder ? holder : hit.block || holder);
        outcome.ask(putting(item.dataset.kind, holder, where()));
        return;
      }
      if (over?.holder !== holder) gesture.begin(holder, '');
      const p = canvas.toPage(m.clientX, m.clientY);
      const o = canvas.gridOrigin(holder);
      over = { holder, ...gesture.at(p.x - o.x, p.y - o.y, Number(item.dataset.span), Number(item.dataset.rows) || 1) };
      overlay.land(over);
      outcome.ask(putting(item.dataset.kind, holder, where()));
    },
    drop() {
      if (!over) return;
      close();
      insert(item.dataset.kind, over.holder, where());
    },
    end() {
      outcome.end();
      shelf.classList.remove('dragging');
      overlay.hover('');
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** Changes what lies on the Shelf, and shows it anew. */
async function refresh(what, values) {
  await window.htmx.ajax('POST', `${site}/shelf/${what}`, {
    source: document.body,
    target: '#shelf-items',
    swap: 'outerHTML',
    values,
  });
}

/** The item beside, above or below another one, as they are seen. */
function beside(from, key) {
  const all = items();
  const r = from.getBoundingClientRect();
  const off = (i) => {
    const b = i.getBoundingClientRect();
    return [b.x + b.width / 2 - r.x - r.width / 2, b.y + b.height / 2 - r.y - r.height / 2];
  };
  /** @type {(off: number[]) => number} */
  const ahead = { ArrowRight: ([x]) => x, ArrowLeft: ([x]) => -x, ArrowDown: ([, y]) => y, ArrowUp: ([, y]) => -y }[
    key
  ];
  /** @type {(off: number[]) => number} */
  const aside = key === 'ArrowRight' || key === 'ArrowLeft' ? ([, y]) => Math.abs(y) : ([x]) => Math.abs(x);
  return all
    .filter((i) => ahead(off(i)) > 8)
    .toSorted((a, b) => ahead(off(a)) + 3 * aside(off(a)) - ahead(off(b)) - 3 * aside(off(b)))[0];
}

export function start() {
  new MutationObserver(() => {
    if (shelf.querySelector('[data-filled]')) {
      show();
      paint(shelf);
    }
  }).observe(shelf, { childList: true });
  search.addEventListener('input', show);
  shelf.addEventListener('pointerdown', (e) => {
    if (e.button !== 0) return;
    const item = e.target.closest('.shelf-item');
    if (item && !layout) (item.dataset.kind ? lift : liftSection)(item, e);
  });
  let waiting = 0;
  let pointed = null;
  const point = (item) => {
    // what is pointed at is tried, not what happens to lie below a pointer at rest
    if (item === pointed) return;
    if (pointed) leave();
    pointed = item;
    clearTimeout(waiting);
    if (item)
      waiting = setTimeout(() => {
        if (shelf.open && !shelf.classList.contains('dragging')) look(item);
      }, 90);
  };
  shelf.addEventListener('pointermove', (e) => {
    if (e.movementX || e.movementY) point(e.target.closest('.shelf-item'));
  });
  shelf.addEventListener('pointerleave', () => point(null));
  shelf.addEventListener('focusin', (e) => {
    if (e.target.matches('.shelf-item:focus-visible')) point(e.target);
  });
  shelf.addEventListener('focusout', () => point(null));
  shelf.addEventListener('click', (e) => {
    const on = (selector) => e.target.closest(selector);
    if (on('.shelf-item')) add(on('.shelf-item'));
    else if (on('[data-sort]')) {
      sort = on('[data-sort]').dataset.sort;
      show();
    } else if (on('[data-search]')) {
      search.value = on('[data-search]').dataset.search;
      show();
      search.focus();
    } else if (on('[data-purpose]')) {
      purposes[sort] = on('[data-purpose]').dataset.purpose;
      show();
    } else if (on('[data-star]'))
      refresh('favourite', {
        item: on('[data-star]').dataset.star,
        on: on('[data-star]').getAttribute('aria-pressed') !== 'true',
      });
    else if (on('[data-drop]')) refresh('drop', { id: on('[data-drop]').dataset.drop });
    else if (on('[data-close-shelf]')) close();
  });
  document.addEventListener('openplot:control', ({ detail: { act, bound, value } }) => {
    if (bound.op === 'shelf:business' && act === 'take') refresh('business', { value });
  });
  shelf.addEventListener('keydown', (e) => {
    if (e.key === 'Escape') {
      close();
      e.stopPropagation();
    }
    if (e.altKey && (e.key === 'ArrowLeft' || e.key === 'ArrowRight') && !layout && spots.length > 1) {
      if (sort === 'sections' && !search.value) sort = 'blocks';
      show();
      other(e.key === 'ArrowLeft' ? -1 : 1);
      e.preventDefault();
      return;
    }
    if (e.key === 'Enter' && e.target === search)
      filling?.then(() => {
        show();
        if (items()[0]) add(items()[0]);
      });
    if (!e.key.startsWith('Arrow') || e.target.matches('.segments *, .opens, .shelf-purposes *')) return;
    const item = e.target.closest('.shelf-item');
    if (!item && e.key !== 'ArrowDown') return; // in the field they move the caret
    const to = item ? (beside(item, e.key) ?? (e.key === 'ArrowUp' ? search : null)) : items()[0];
    to?.focus({ focusVisible: true });
    e.preventDefault();
    e.stopPropagation();
  });
  document.addEventListener('click', (e) => {
    const layouts = e.target.closest('[data-layouts]');
    if (layouts) openLayouts(page.select, layouts.dataset.layouts);
    const mark = e.target.closest('.insert-add');
    if (mark) open(mark.dataset.after);
  });
}
