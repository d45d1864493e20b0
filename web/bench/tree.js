// The blocks of a section in the Overview, as a tree: found, chosen, renamed and dragged by name.
import { block, heldIn, own, page, sectionOf, selected, zoneAt } from './page.js';
import { onAnswer, send } from './edits.js';
import { alsoSelect, onSelect, select, selectAll } from './select.js';
import { found as said } from './tell.js';
import { goOn, rove } from './overview.js';
import { drag } from '../shared/drag.js';

const icons = document.getElementById('kinds').content;
const composes = document.body.dataset.composes === 'yes';
const unfolded = new Set(); // sections and containers
let words = '';
let rowed = ''; // the row that had the focus last, which is lost when it is drawn anew

const icon = (kind) => icons.querySelector(`[data-kind="${kind}"]`)?.cloneNode(true) ?? '';
const nameOf = (id) => page.names[id] ?? '';
const hiddenHere = (b) => b.hidden?.[zoneAt(page.width).id];
const treeOf = (section) => document.querySelector(`.overview-item[data-section="${section}"] .tree`);

/** The ids of what matches what is looked for, and of what that stands in. */
function found(section) {
  const hits = new Set();
  for (const b of page.places[section] ?? []) {
    if (!nameOf(b.id).toLowerCase().includes(words)) continue;
    for (let at = b; at; at = block(at.holder)) hits.add(at.id);
  }
  return hits;
}

function row(b, level, hits) {
  const li = document.createElement('li');
  const held = heldIn(b.id).filter((one) => !hits || hits.has(one.id));
  const open = held.length > 0 && (Boolean(hits) || unfolded.has(b.id));
  li.setAttribute('role', 'treeitem');
  li.setAttribute('aria-level', level);
  li.setAttribute('aria-selected', String(selected().some((id) => own(id) === b.id)));
  if (held.length) li.setAttribute('aria-expanded', String(open));
  li.dataset.node = b.id;
  li.tabIndex = -1;
  const name = document.createElement('span');
  name.className = 'tree-name';
  const kind = `${icons.querySelector(`[data-kind="${b.kind}"]`)?.dataset.name}: `; // its icon says that
  name.textContent = nameOf(b.id).startsWith(kind) ? nameOf(b.id).slice(kind.length) : nameOf(b.id);
  name.title = nameOf(b.id);
  const line = document.createElement('span');
  line.className = 'tree-row';
  line.style.setProperty('--level', level);
  line.append(held.length ? icon('folded') : '', icon(b.kind), name);
  const say = (kind, text) => {
    const mark = icon(kind);
    mark.title = text;
    const spoken = document.createElement('span');
    spoken.className = 'visually-hidden';
    spoken.textContent = `, ${text.toLowerCase()}`;
    line.append(mark, spoken);
  };
  if (b.locked) say('locked', 'Locked');
  if (hiddenHere(b)) say('hidden', 'Hidden in this zone');
  li.append(line);
  if (open) {
    const ul = document.createElement('ul');
    ul.setAttribute('role', 'group');
    ul.append(...held.map((one) => row(one, level + 1, hits)));
    li.append(ul);
  }
  return li;
}

/** Draws the trees that are unfolded, or have what is looked for. */
function draw() {
  if (document.querySelector('.tree input')) return; // a name is being written
  const had =
    document.activeElement?.closest?.('.tree li')?.dataset.node ??
    (document.activeElement === document.body ? rowed : '');
  for (const item of document.querySelectorAll('.overview-item')) {
    const section = item.dataset.section;
    const hits = words ? found(section) : null;
    const open = hits ? hits.size > 0 : unfolded.has(section);
    item.hidden = Boolean(hits) && !open && !nameOf(section).toLowerCase().includes(words);
    item.querySelector('.overview-unfold')?.setAttribute('aria-expanded', String(open));
    const tree = treeOf(section);
    tree.hidden = !open;
    tree.replaceChildren(
      ...(open
        ? heldIn(section)
            .filter((b) => !hits || hits.has(b.id))
            .map((b) => row(b, 1, hits))
        : []),
    );
  }
  if (had) (rowOf(had) ?? rows()[0])?.focus();
  rove();
}

/** What the words that are looked for match themselves: rows, and sections. */
const hits = () =>
  [...document.querySelectorAll('#overview .overview-go, #overview .tree:not([hidden]) li')].filter((e) => {
    const id = e.dataset.node ?? e.dataset.select;
    return e.getClientRects().length && nameOf(id).toLowerCase().includes(words);
  });

const rowOf = (id) => document.querySelector(`.tree li[data-node="${id}"]`);
const rows = () => [...document.querySelectorAll('.tree:not([hidden]) li')];

/** Unfolds what a block stands in, where its section is unfolded. */
function reveal() {
  if (unfolded.has(sectionOf(page.select))) {
    for (let at = block(block(page.select)?.holder); at; at = block(at.holder)) unfolded.add(at.id);
  }
  draw();
  rowOf(own(page.select))?.scrollIntoView({ block: 'nearest' });
}

function fold(id, open) {
  if (open) unfolded.add(id);
  else unfolded.delete(id);
  draw();
}

/** Chooses a row: alone, with Ctrl one more, with Shift all from what is selected to it. */
function choose(li, e) {
  const id = li.dataset.node;
  li.focus();
  if (e.ctrlKey || e.metaKey) {
    alsoSelect(id);
    return;
  }
  const [from, to] = [rows().indexOf(rowOf(own(page.select))), rows().indexOf(li)];
  if (e.shiftKey && from >= 0) {
    const ids = rows()
      .slice(Math.min(from, to), Math.max(from, to) + 1)
      .map((one) => one.dataset.node);
    selectAll(from > to ? ids.reverse() : ids);
    return;
  }
  select(id, { show: true });
}

function rename(li) {
  const name = li.querySelector('.tree-name');
  const field = document.createElement('input');
  field.value = nameOf(li.dataset.node);
  field.maxLength = 80;
  field.setAttribute('aria-label', 'Name');
  let over = false;
  const end = (keep) => {
    if (over) return;
    over = true;
    field.replaceWith(name);
    if (keep && field.value.trim() !== nameOf(li.dataset.node))
      send({ op: 'rename', node: li.dataset.node, value: field.value.trim() });
    li.focus();
  };
  field.addEventListener('keydown', (e) => {
    e.stopPropagation();
    if (e.key === 'Enter') end(true);
    if (e.key === 'Escape') end(false);
  });
  field.addEventListener('blur', () => end(true));
  name.replaceWith(field);
  field.select();
}

function keys(e) {
  const li = e.target.closest?.('.tree li');
  if (!li || e.target.tagName === 'INPUT') return;
  const all = rows();
  const at = all.indexOf(li);
  const id = li.dataset.node;
  const open = li.getAttribute('aria-expanded');
  let to = null;
  if (e.altKey && ['ArrowUp', 'ArrowDown'].includes(e.key)) shift(li, e.key === 'ArrowUp' ? -1 : 1);
  else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
    const by = e.key === 'ArrowDown' ? 1 : -1;
    to = all[at + by];
    if (to?.closest('.tree') !== li.closest('.tree')) {
      to = null;
      goOn(li, by); // past its rows, to the mark or the section
    }
  } else if (e.key === 'Home') to = all[0];
  else if (e.key === 'End') to = all.at(-1);
  else if (e.key === 'ArrowRight') {
    if (open === 'false') fold(id, true);
    else if (open) to = all[at + 1];
  } else if (e.key === 'ArrowLeft') {
    if (open === 'true') fold(id, false);
    else to = li.parentElement.closest('li[data-node]');
    if (!to && open !== 'true') li.closest('.overview-item').querySelector('.overview-go').focus();
  } else if (e.key === 'F2' && composes) rename(li);
  else if (e.key === 'Enter') document.getElementById('stage').focus();
  else return;
  e.preventDefault();
  e.stopPropagation();
  if (to) choose(to, e.shiftKey ? { shiftKey: true } : {});
}

const into = (id, holder, after) =>
  send({ op: 'block.move', node: id, into: holder, after: after || 'first', zone: zoneAt(page.width).id });

/** Puts a block one place earlier or later in what it stands in. */
function shift(li, by) {
  const b = block(li.dataset.node);
  const beside = heldIn(b.holder).map((one) => one.id);
  const to = beside.indexOf(b.id) + by;
  if (composes && to >= 0 && to < beside.length) into(b.id, b.holder, by > 0 ? beside[to] : beside[to - 1]);
}

/** Where a row that is dragged would go: before, behind or in the row under the pointer. */
function target(e, id) {
  const li = document.elementFromPoint(e.clientX, e.clientY)?.closest('.tree li');
  if (!li || rowOf(id).contains(li)) return null;
  const r = li.querySelector('.tree-row').getBoundingClientRect();
  const part = (e.clientY - r.top) / r.height;
  const b = block(li.dataset.node);
  if (b.holds && b.kind !== 'series' && part > 0.25 && part < 0.75)
    return { li, how: 'in', holder: b.id, after: heldIn(b.id).at(-1)?.id };
  const beside = heldIn(b.holder)
    .map((one) => one.id)
    .filter((one) => one !== id);
  const at = beside.indexOf(b.id);
  return part < 0.5
    ? { li, how: 'before', holder: b.holder, after: beside[at - 1] }
    : { li, how: 'behind', holder: b.holder, after: b.id };
}

function lift(e) {
  const li = e.target.closest?.('.tree li');
  if (!li || e.button !== 0 || e.target.tagName === 'INPUT') return;
  const id = li.dataset.node;
  const clear = () => document.querySelectorAll('.tree [data-drop]').forEach((one) => one.removeAttribute('data-drop'));
  let to = null;
  drag(e, {
    begin: () => composes && !block(id)?.design,
    move(m) {
      clear();
      to = target(m, id);
      if (to) to.li.dataset.drop = to.how;
    },
    drop() {
      if (to) into(id, to.holder, to.after);
    },
    end: clear,
    tap(m) {
      if (m.target.closest('[data-kind="folded"]')) fold(id, li.getAttribute('aria-expanded') !== 'true');
      else choose(li, m);
    },
    scroll: {
      rect: () => document.getElementById('overview').getBoundingClientRect(),
      by: (x, y) => document.getElementById('overview').scrollBy(0, y),
    },
  });
}

export function start() {
  document.addEventListener('focusin', (e) => {
    rowed = e.target.closest('.tree li')?.dataset.node ?? '';
  });
  document.addEventListener('pointerdown', lift);
  document.addEventListener('keydown', keys);
  document.addEventListener('dblclick', (e) => {
    const li = e.target.closest('.tree li');
    if (li && composes) rename(li);
  });
  document.addEventListener('click', (e) => {
    const b = e.target.closest('.overview-unfold');
    if (b) fold(b.closest('.overview-item').dataset.section, b.getAttribute('aria-expanded') !== 'true');
  });
  document.addEventListener('input', (e) => {
    if (e.target.id !== 'overview-search') return;
    words = e.target.value.trim().toLowerCase();
    draw();
    if (words) said('tree', () => (words ? hits().length : null));
  });
  document.addEventListener('keydown', (e) => {
    if (e.target.id !== 'overview-search' || !['Enter', 'ArrowDown'].includes(e.key)) return;
    e.preventDefault();
    const to = words ? hits()[0] : document.querySelector('#overview .overview-go');
    if (!to) return;
    if (e.key === 'Enter') to.matches('li') ? choose(to, {}) : to.click();
    to.focus();
  });
  onAnswer(() => {
    const field = document.getElementById('overview-search');
    if (field.value.trim().toLowerCase() !== words) field.value = words; // it was drawn anew
    draw();
  });
  onSelect(reveal);
}
