// The Overview: going to sections, and dragging them to another place.
import { page, zoneAt } from './page.js';
import { send } from './edits.js';
import { alsoSelect, select } from './select.js';
import { drag } from '../shared/drag.js';

export function start() {
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
