// What is selected.
import { block, heldIn, holderOf, page, sectionOf } from './page.js';
import { look } from './edits.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

let asked = 0;
let picking = null;

/** Lets the next press on the canvas pick a block: f(id, 'try' | 'take' | 'leave'); Escape leaves it. */
export function pickBlock(hint, f) {
  const stage = document.getElementById('stage');
  const p = document.createElement('p');
  p.className = 'picking-hint';
  p.textContent = `${hint}, or press Esc.`;
  stage.append(p);
  stage.classList.add('picking');
  stage.focus({ preventScroll: true });
  const end = () => {
    picking = null;
    p.remove();
    stage.classList.remove('picking');
    window.removeEventListener('keydown', escape, true);
  };
  const escape = (e) => {
    if (e.key === 'Escape') {
      e.preventDefault();
      e.stopPropagation();
      end();
      f('', 'leave');
    }
  };
  window.addEventListener('keydown', escape, true);
  picking = (id, how) => {
    if (how === 'take') end();
    f(id, how);
  };
}

/** What a press or a look at a block means while one is being picked, or null. */
export const picks = () => picking;

/** Selects a section or block, and asks for its Tray. */
export function select(id, { show = false, also = [] } = {}) {
  if (show) canvas.show(id);
  const same = also.length === page.also.length && also.every((other, i) => other === page.also[i]);
  if (id === page.select && same) {
    overlay.redraw();
    return Promise.resolve();
  }
  page.select = id;
  page.also = also;
  mark();
  const ask = ++asked;
  return Promise.resolve().then(() => (ask === asked ? look() : null));
}

/** Selects one more block, or one fewer when it was selected; or one more section. */
export function alsoSelect(id) {
  if (!page.select || Boolean(block(id)) !== Boolean(block(page.select))) return select(id);
  const all = [page.select, ...page.also];
  const rest = all.includes(id) ? all.filter((other) => other !== id) : [...all, id];
  return select(rest[0] ?? '', { also: rest.slice(1) });
}

/** Selects several blocks. */
export const selectAll = (ids) => select(ids[0] ?? '', { also: ids.slice(1) });

/** Selects all that stands beside what is selected, or in the section that is. */
export function selectBeside() {
  const holder = block(page.select) ? holderOf(page.select) : sectionOf(page.select);
  const ids = heldIn(holder)
    .map((b) => b.id)
    .filter((id) => canvas.element(id)?.getClientRects().length);
  if (ids.length) selectAll(ids);
}

const listeners = [];

/** Calls f whenever something else is selected. */
export function onSelect(f) {
  listeners.push(f);
}

/** Shows what is selected on the canvas and in the Overview. */
export function mark() {
  overlay.redraw();
  for (const f of listeners) f();
  const section = sectionOf(page.select);
  for (const li of document.querySelectorAll('.overview-item')) {
    const on = li.dataset.section === section;
    li.classList.toggle('selected', on || page.also.includes(li.dataset.section));
    li.querySelector('.overview-go').toggleAttribute('aria-current', on);
  }
}
