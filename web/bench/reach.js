// The Reach: the rule of widths and its handle.
import { page, zoneAt } from './page.js';
import { look } from './edits.js';
import { drag } from '../shared/drag.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';
import { stand } from './tray.js';

const reach = () => document.getElementById('reach');
const range = () => ({ least: Number(reach().dataset.least), most: Number(reach().dataset.most) });
const inset = 18;

/** Puts labels, zones and the handle where they belong. */
export function lay() {
  const { least, most } = range();
  const share = (px) => `${((px - least) / (most - least)) * 100}%`;
  for (const label of reach().querySelectorAll('[data-at]')) {
    label.style.left = share(label.dataset.at);
    label.classList.toggle('reach-last', Number(label.dataset.at) === most);
  }
  const zones = [...reach().querySelectorAll('.reach-zone')];
  zones.forEach((z, i) => {
    const from = Math.max(Number(z.dataset.min), least);
    const to = i + 1 < zones.length ? Number(zones[i + 1].dataset.min) : most;
    z.style.left = share(from);
    z.style.width = `${((to - from) / (most - least)) * 100}%`;
  });
  place();
}

function place() {
  const { least, most } = range();
  const handle = document.getElementById('reach-handle');
  const zone = zoneAt(page.width);
  const wide = reach().clientWidth - 2 * inset;
  handle.style.left = `${inset + ((page.width - least) / (most - least)) * wide}px`;
  handle.setAttribute('aria-valuenow', page.width);
  handle.setAttribute('aria-valuetext', `${page.width} px, ${zone.name}`);
  document.getElementById('showing').textContent = `${page.width} px`;
  for (const z of reach().querySelectorAll('.reach-zone')) {
    z.classList.toggle('current', z.dataset.zone === zone.id);
    z.toggleAttribute('aria-current', z.dataset.zone === zone.id);
  }
}

let waiting = 0;

/** Shows the page at a width; what is drawn for it follows when it comes to rest. */
export function setWidth(width, { rest = true } = {}) {
  const { least, most } = range();
  page.width = Math.round(Math.min(most, Math.max(least, width)));
  canvas.setWidth(page.width);
  place();
  overlay.redraw();
  clearTimeout(waiting);
  if (!rest) return;
  const url = new URL(window.location.href);
  url.searchParams.set('width', String(page.width));
  window.history.replaceState(null, '', url);
  stand();
  waiting = setTimeout(() => look({ overview: true }), 60);
}

/** A width is typed where it is read. */
function typed() {
  const shown = document.getElementById('showing');
  const field = document.getElementById('showing-typed');
  const end = () => {
    field.hidden = true;
    shown.hidden = false;
  };
  shown.addEventListener('click', () => {
    shown.hidden = true;
    field.hidden = false;
    field.value = String(page.width);
    field.focus();
    field.select();
  });
  field.addEventListener('blur', () => {
    if (!field.hidden && Number.parseInt(field.value, 10)) setWidth(Number.parseInt(field.value, 10));
    end();
  });
  field.addEventListener('keydown', (e) => {
    e.stopPropagation();
    if (e.key !== 'Enter' && e.key !== 'Escape') return;
    e.preventDefault();
    if (e.key === 'Escape') field.value = '';
    field.blur();
    document.getElementById('stage').focus({ preventScroll: true });
  });
}

export function start() {
  typed();
  document.addEventListener('pointerdown', (e) => {
    const handle = e.target.closest('#reach-handle');
    if (!handle) return;
    e.preventDefault();
    handle.focus();
    const { least, most } = range();
    const r = reach().getBoundingClientRect();
    const to = (x) => least + ((x - r.left - inset) / (r.width - 2 * inset)) * (most - least);
    const off = e.clientX - (r.left + inset + ((page.width - least) / (most - least)) * (r.width - 2 * inset));
    const before = page.width;
    let last = before;
    drag(e, {
      slack: 0,
      move(m) {
        last = to(m.clientX - off);
        setWidth(last, { rest: false });
      },
      drop: () => setWidth(last),
      end: () => {
        if (last !== before) setWidth(before, { rest: false });
      },
    });
  });
  document.addEventListener('keydown', (e) => {
    if (e.target.id !== 'reach-handle') return;
    const step = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -40, PageUp: 40 }[e.key];
    const { least, most } = range();
    if (step) setWidth(page.width + step * (e.shiftKey ? 10 : 1));
    else if (e.key === 'Home') setWidth(least);
    else if (e.key === 'End') setWidth(most);
    else return;
    e.preventDefault();
    e.stopPropagation();
  });
  document.addEventListener('click', (e) => {
    const b = e.target.closest('button[data-width]');
    if (b) setWidth(Number(b.dataset.width));
  });
  new ResizeObserver(() => {
    canvas.setWidth(page.width);
    lay();
    overlay.redraw();
  }).observe(document.getElementById('stage'));
}
