// The screen of a site's settings: what chooses something chooses that it is one, icons are chosen from
// drawings, and hours are dragged along a day. What is changed is kept by htmx, as the form says.
import { open } from '../controls/panel.js';
import { hasAll, wordsOf } from '../shared/find.js';

const form = /** @type {HTMLFormElement} */ (document.getElementById('settings'));
const changed = (field) => field.dispatchEvent(new Event('change', { bubbles: true }));

/** Chooses what the icon is from. */
function from(value) {
  form.querySelector(`[name="icon-from"][value="${value}"]`).checked = true;
}
form.addEventListener('input', (e) => {
  const { name } = /** @type {HTMLInputElement} */ (e.target);
  const of = { 'icon-letter': 'letter', 'icon-picture': 'picture' }[name];
  if (of) from(of);
});

// The icon.
const panel = document.getElementById('panel-icons');
const search = panel.querySelector('input');
const grid = panel.querySelector('.icons-all');
const choose = document.getElementById('icon-choose');
for (const e of panel.querySelectorAll('.icons-recent, .icons-title')) e.hidden = true;

let asked = null; // for the icons, once

/** The icons, drawn: an Enter that comes before them waits for them. */
const icons = () =>
  (asked ??= fetch('/icons').then(async (answer) => {
    grid.innerHTML = await answer.text();
  }));
choose.addEventListener('click', () => {
  search.value = '';
  open(panel, choose);
  search.focus();
  icons().then(shown);
});
function shown() {
  const words = wordsOf(search.value);
  for (const b of grid.children) b.hidden = !hasAll(b.dataset.icon, words);
}
search.addEventListener('input', shown);
search.addEventListener('keydown', (e) => {
  if (e.key !== 'Enter') return;
  e.preventDefault();
  icons().then(() => {
    shown();
    grid.querySelector(':scope > :not([hidden])')?.click();
  });
});
grid.addEventListener('click', (e) => {
  const icon = e.target.closest('[data-icon]');
  if (!icon) return;
  const field = form.elements['icon-name'];
  field.value = icon.dataset.icon;
  choose.querySelector('.icon-now').innerHTML = icon.innerHTML;
  from('icon');
  panel.hidePopover();
  choose.focus();
  changed(field);
});

// Opening hours: spans of a day in minutes, dragged in steps. What they come to is written into the
// day's field, which is what is kept.
const day = 24 * 60;
const step = 15;
const least = 30; // minutes that a span is long
const near = 10; // px from an end that it is taken by

const spansOf = (bar) =>
  [...bar.querySelectorAll('rect')].map((r) => {
    const start = Number(r.getAttribute('x'));
    return [start, start + Number(r.getAttribute('width'))];
  });
const clock = (m) => `${Math.floor(m / 60)}:${String(m % 60).padStart(2, '0')}`;

let dragged = null; // the bar that is

/** Draws what was kept of a day, unless something else was entered since: an answer is about what was sent. */
document.addEventListener('htmx:after:swap', () => {
  for (const kept of document.querySelectorAll('#bars-kept svg')) {
    const bar = document.getElementById(`bar-${kept.dataset.day}`);
    const entered = document.getElementById(`open-${kept.dataset.day}`).value;
    if (bar === dragged || entered !== kept.dataset.entered) continue;
    for (const r of bar.querySelectorAll('rect')) r.remove();
    bar.append(...kept.children);
  }
  document.getElementById('bars-kept').replaceChildren();
});

/** Draws spans, those that touch as one, and writes them. */
function draw(bar, spans) {
  const all = spans.filter(([a, b]) => b > a).toSorted((a, b) => a[0] - b[0]);
  const joined = [];
  for (const [a, b] of all) {
    const last = joined.at(-1);
    if (last && a <= last[1]) last[1] = Math.max(last[1], b);
    else joined.push([a, b]);
  }
  for (const r of bar.querySelectorAll('rect')) r.remove();
  for (const [a, b] of joined) {
    const r = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    for (const [k, v] of Object.entries({ x: a, y: 5, width: b - a, height: 14 })) r.setAttribute(k, String(v));
    bar.append(r);
  }
  document.getElementById(`open-${bar.dataset.day}`).value = joined
    .map(([a, b]) => `${clock(a)}–${clock(Math.min(b, day - 1))}`)
    .join(', ');
}

form.addEventListener('pointerdown', (e) => {
  const bar = e.target.closest?.('.week-bar');
  if (!bar || e.button !== 0) return;
  e.preventDefault();
  const box = bar.getBoundingClientRect();
  const at = (x) => Math.round(((x - box.left) / box.width) * (day / step)) * step;
  const exact = ((e.clientX - box.left) / box.width) * day;
  const reach = (near / box.width) * day;
  const spans = spansOf(bar);
  const i = spans.findIndex(([a, b]) => exact >= a - reach && exact <= b + reach);
  const others = spans.filter((_, k) => k !== i);
  const [a, b] = spans[i] ?? [at(e.clientX), at(e.clientX)];
  const begun = at(e.clientX);
  const end = i < 0 || Math.abs(exact - b) <= reach ? 1 : Math.abs(exact - a) <= reach ? -1 : 0;
  const was = bar.innerHTML;
  dragged = bar;
  bar.setPointerCapture(e.pointerId);
  const moved = (x) => {
    const by = Math.max(0, Math.min(day, at(x)));
    if (i < 0) return [Math.min(a, by), Math.max(a, by)];
    if (end > 0) return [a, Math.max(a, by)];
    if (end < 0) return [Math.min(b, by), b];
    const length = b - a;
    const start = Math.max(0, Math.min(day - length, a + by - begun));
    return [start, start + length];
  };
  const move = (ev) => draw(bar, [...others, moved(ev.clientX)]);
  const done = (ev) => {
    bar.removeEventListener('pointermove', move);
    dragged = null;
    if (ev.type === 'pointercancel') bar.innerHTML = was;
    else {
      const span = moved(ev.clientX);
      draw(bar, span[1] - span[0] < least ? others : [...others, span]); // shorter than that is none
    }
    changed(document.getElementById(`open-${bar.dataset.day}`));
  };
  bar.addEventListener('pointermove', move);
  bar.addEventListener('pointerup', done, { once: true });
  bar.addEventListener('pointercancel', done, { once: true });
});
