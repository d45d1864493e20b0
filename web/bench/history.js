// The last edits, to go back to before one of them.
import { base } from './page.js';
import { undo } from './edits.js';
import { open } from '../controls/panel.js';

const panel = document.getElementById('panel-recent');
const list = panel.querySelector('ul');
let at = 0;

const items = () => [...list.querySelectorAll('[data-steps]')];

/** Marks what would be undone: the edit that is pointed at, and all after it. */
function mark(to) {
  at = to;
  items().forEach((li, i) => li.setAttribute('aria-selected', String(i <= at)));
  items()[at]?.scrollIntoView({ block: 'nearest' });
}

function take(i) {
  if (!items()[i]) return;
  panel.hidePopover();
  undo(i + 1);
}

export function start() {
  document.addEventListener('click', async (e) => {
    const button = e.target.closest('#history-open');
    if (!button) return;
    const r = await fetch(`${base}/recent`);
    if (!r.ok) return;
    list.innerHTML = await r.text();
    open(panel, button);
    mark(0);
    list.focus();
  });
  list.addEventListener('pointermove', (e) => {
    const li = e.target.closest('[data-steps]');
    if (li) mark(Number(li.dataset.steps));
  });
  list.addEventListener('click', (e) => {
    const li = e.target.closest('[data-steps]');
    if (li) take(Number(li.dataset.steps));
  });
  panel.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (by) {
      e.preventDefault();
      mark(Math.min(Math.max(at + by, 0), items().length - 1));
    }
    if (e.key === 'Enter') {
      e.preventDefault();
      take(at);
    }
  });
}
