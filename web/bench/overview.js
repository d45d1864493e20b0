// The Overview: going to sections, and dragging them to another place.
import { page, zoneAt } from './page.js';
import { onAnswer, send } from './edits.js';
import { alsoSelect, onSelect, select } from './select.js';
import { drag } from '../shared/drag.js';

// The Overview is one stop of Tab; arrows go on from there, through sections, the marks between them and what is
// unfolded (the rows of a tree have keys of their own, in tree.js).
const stops = () =>
  [
    ...document.querySelectorAll('#overview .insert-add, #overview .overview-go, #overview .tree:not([hidden]) li'),
  ].filter((e) => e.getClientRects().length);

/** Has Tab come to one of the Overview's stops alone: where the focus is, else the selected section. */
export function rove(on = null) {
  const all = [...document.querySelectorAll('#overview :is(.insert-add, .overview-go, .overview-unfold, .tree li)')];
  const focused = all.includes(document.activeElement) ? document.activeElement : null;
  const stop = on ?? focused ?? document.querySelector('#overview .overview-go[aria-current]') ?? all[0];
  for (const e of all) e.tabIndex = e === stop ? 0 : -1;
}

/** Goes from a stop to the next one or the one before. */
export function goOn(from, by) {
  const all = stops();
  const to = all[all.indexOf(from) + by];
  if (!to) return;
  rove(to);
  to.focus();
}

function keys(e) {
  const at = e.target.closest?.('#overview .insert-add, #overview .overview-go');
  if (!at || e.ctrlKey || e.altKey || e.metaKey || e.shiftKey) return;
  const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
  const unfold = at.parentElement.querySelector('.overview-unfold');
  const open = unfold?.getAttribute('aria-expanded') === 'true';
  if (by) goOn(at, by);
  else if (e.key === 'Home') goOn(stops()[1], -1);
  else if (e.key === 'End') goOn(stops().at(-2), 1);
  else if (unfold && ((e.key === 'ArrowRight' && !open) || (e.key === 'ArrowLeft' && open))) unfold.click();
  else if (e.key === 'ArrowRight' && open) goOn(at, 1);
  else return;
  e.preventDefault();
  e.stopPropagation();
}

export function start() {
  document.addEventListener('keydown', keys, true);
  document.addEventListener('focusin', (e) => {
    if (e.target.matches('#overview :is(.insert-add, .overview-go, .tree li)')) rove(e.target);
  });
  onAnswer(() => rove());
  onSelect(() => rove());
  rove();
  document.addEventListener('click', (e) => {
    const go = e.target.closest('[data-select]');
    if (go && (e.shiftKey || e.ctrlKey || e.metaKey) && go.closest('.overview-item')) alsoSelect(go.dataset.select);
    else if (go) select(go.dataset.select, { show: true });
  });
  document.addEventListener('pointerdown', (e) => {
    const item = e.target.closest('.overview-go')?.closest('.overview-item');
    if (item && e.button === 0) lift(item, e);
  });
}

function lift(item, e) {
  let after = null;
  const list = document.querySelector('#overview ol');
  const clear = () => {
    for (const li of list.children) li.classList.remove('drop-after', 'dragging');
    document.getElementById('overview')?.classList.remove('overview-first-drop');
  };
  drag(e, {
    slack: 5,
    move(m) {
      clear();
      item.classList.add('dragging');
      after = '';
      for (const li of list.children) {
        const r = li.getBoundingClientRect();
        if (m.clientY > r.top + r.height / 2) after = li.dataset.section;
      }
      if (after) list.querySelector(`[data-section="${after}"]`).classList.add('drop-after');
      else document.getElementById('overview').classList.add('overview-first-drop');
    },
    drop: () => {
      if (after !== item.dataset.section)
        send({ op: 'order', node: item.dataset.section, zone: zoneAt(page.width).id, after });
    },
    end: clear,
    scroll: {
      rect: () => document.getElementById('overview').getBoundingClientRect(),
      by: (x, y) => document.getElementById('overview').scrollBy(0, y),
    },
  });
}
