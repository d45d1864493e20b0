// The Overview: going to sections, and dragging them to another place.
import { send } from './edits.js';
import { select } from './select.js';

const slack = 5;

export function start() {
  document.addEventListener('click', (e) => {
    const go = e.target.closest('[data-select]');
    if (go) select(go.dataset.select, { show: true });
  });
  document.addEventListener('pointerdown', (e) => {
    const item = e.target.closest('.overview-go')?.closest('.overview-item');
    if (item && e.button === 0) drag(item, e);
  });
}

function drag(item, e) {
  const from = e.clientY;
  let after = null;
  const list = document.querySelector('#overview ol');
  const clear = () => {
    for (const li of list.children) li.classList.remove('drop-after', 'dragging');
    document.getElementById('overview')?.classList.remove('overview-first-drop');
  };
  const move = (m) => {
    if (after === null && Math.abs(m.clientY - from) < slack) return;
    clear();
    item.classList.add('dragging');
    after = '';
    for (const li of list.children) {
      const r = li.getBoundingClientRect();
      if (m.clientY > r.top + r.height / 2) after = li.dataset.section;
    }
    if (after) list.querySelector(`[data-section="${after}"]`).classList.add('drop-after');
    else document.getElementById('overview').classList.add('overview-first-drop');
  };
  const up = () => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('keydown', escape, true);
    clear();
    if (after === null) return;
    item.addEventListener('click', (c) => c.stopPropagation(), { capture: true, once: true });
    if (after !== item.dataset.section) send({ op: 'section.move', node: item.dataset.section, after });
  };
  const escape = (k) => {
    if (k.key !== 'Escape') return;
    k.stopPropagation();
    after = null;
    up();
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', up, { once: true });
  window.addEventListener('keydown', escape, true);
  e.target.closest('.overview-go').addEventListener('dragstart', (d) => d.preventDefault(), { once: true });
}
