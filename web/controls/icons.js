// The icons that ship, drawn: searched by word, those used last first; pointing shows one on the page.
import { attempt, binding, leave, take } from './control.js';
import { open } from './panel.js';
import { hasAll, wordsOf } from '../shared/find.js';

const panel = document.getElementById('panel-icons');
const search = panel?.querySelector('input');
const grid = panel?.querySelector('.icons-all');
const recent = panel?.querySelector('.icons-recent');
const most = 16; // of those used last
let bound = null;
let asked = null; // for the icons, once

/** The icons, drawn: an Enter that comes before them waits for them. */
const icons = () =>
  (asked ??= fetch('/icons').then(async (answer) => {
    grid.innerHTML = await answer.text();
  }));

const used = () => JSON.parse(localStorage.getItem('icons') ?? '[]');

function show() {
  const words = wordsOf(search.value);
  for (const b of grid.children) b.hidden = !hasAll(b.dataset.icon, words);
  const last = used()
    .map((name) => grid.querySelector(`[data-icon="${CSS.escape(name)}"]`)?.cloneNode(true))
    .filter(Boolean);
  for (const b of last) b.hidden = false;
  recent.replaceChildren(...last);
  for (const e of [recent, recent.previousElementSibling]) e.hidden = !last.length || words.length > 0;
  for (const b of panel.querySelectorAll('[data-icon]'))
    b.setAttribute('aria-pressed', String(b.dataset.icon === bound.value));
}

function ask(anchor) {
  const field = document.getElementById(anchor.dataset.for);
  bound = { ...binding(field), value: field.value };
  let taken = false;
  search.value = '';
  panel.onclick = (e) => {
    const b = e.target.closest('[data-icon]');
    if (!b) return;
    taken = true;
    localStorage.setItem(
      'icons',
      JSON.stringify([b.dataset.icon, ...used().filter((n) => n !== b.dataset.icon)].slice(0, most)),
    );
    panel.hidePopover();
    take(bound, b.dataset.icon);
  };
  open(panel, anchor, () => {
    if (!taken) leave(bound);
  });
  search.focus();
  icons().then(show);
}

export function start() {
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="icons"]');
    if (anchor) ask(anchor);
  });
  search.addEventListener('input', show);
  let pointed = null;
  const point = (b) => {
    if (b !== pointed) {
      pointed = b;
      if (b) attempt(bound, b.dataset.icon);
      else leave(bound);
    }
  };
  panel.addEventListener('pointermove', (e) => point(e.target.closest('[data-icon]')));
  panel.addEventListener('pointerleave', () => point(null));
  panel.addEventListener('focusin', (e) => {
    if (e.target.matches('[data-icon]:focus-visible')) point(e.target);
  });
  panel.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 10, ArrowUp: -10 }[e.key];
    const all = [...panel.querySelectorAll('[data-icon]:not([hidden])')].filter((b) => b.offsetParent);
    const i = all.indexOf(document.activeElement);
    if (e.key === 'Enter' && e.target === search)
      icons().then(() => {
        show();
        grid.querySelector(':scope > :not([hidden])')?.click();
      });
    if (!step || (i < 0 && e.key !== 'ArrowDown')) return;
    e.preventDefault();
    (i < 0 ? all[0] : (all[i + step] ?? (step < 0 ? search : null)))?.focus({ focusVisible: true });
  });
}
