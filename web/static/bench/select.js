// What is selected.
import { page, sectionOf } from './page.js';
import { look } from './edits.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

let asked = 0;

/** Selects a section or block, and asks for its Tray. */
export function select(id, { show = false } = {}) {
  if (show) canvas.show(id);
  if (id === page.select) { overlay.redraw(); return Promise.resolve(); }
  page.select = id;
  mark();
  const ask = ++asked;
  return Promise.resolve().then(() => (ask === asked ? look() : null));
}

/** Shows what is selected on the canvas and in the Overview. */
export function mark() {
  overlay.redraw();
  const section = sectionOf(page.select);
  for (const li of document.querySelectorAll('.overview-item')) {
    const on = li.dataset.section === section;
    li.classList.toggle('selected', on);
    li.querySelector('.overview-go').toggleAttribute('aria-current', on);
  }
}
