// A version of a page beside the page as it is: at any width, scrolled together, with what
// differs outlined in both.
import { hasAll, wordsOf } from '../shared/find.js';

const states = ['then', 'now'].map((id) => document.getElementById(id)).filter(Boolean);
const changes = [...document.querySelectorAll('.change')];
let width = Number(document.querySelector('.segments [aria-pressed="true"]')?.dataset.width ?? 1280);

/** The element of a section or a block in a frame, or null. */
const found = (frame, node) =>
  frame.contentDocument?.querySelector(`[data-block="${CSS.escape(node)}"], [data-section="${CSS.escape(node)}"]`);

const lines = { added: 'solid', moved: 'dashed', changed: 'solid', words: 'dotted', removed: 'double' };

/** Outlines what differs. */
function mark(frame) {
  changes.forEach((li) => {
    const el = li.dataset.node && found(frame, li.dataset.node);
    if (!el) return;
    el.style.outline = `3px ${lines[li.dataset.kind]} ${getComputedStyle(li).getPropertyValue('--kind')}`;
    el.style.outlineOffset = '-3px';
  });
}

/** Sets the frames to the width, as large as they fit. */
function fit() {
  states.forEach((frame) => {
    const box = frame.parentElement.getBoundingClientRect();
    const scale = Math.min(1, box.width / width);
    frame.style.width = `${width}px`;
    frame.style.height = `${box.height / scale}px`;
    frame.style.transform = `scale(${scale})`;
  });
}

/** Scrolls the other frame to what is seen in one: the same section at the same share of its height. */
function follow(from, to) {
  const top = from.contentWindow.scrollY;
  const at = [...from.contentDocument.querySelectorAll('[data-section]')].find(
    (s) => s.getBoundingClientRect().bottom > 0,
  );
  const there = at && found(to, at.dataset.section);
  if (!there) {
    to.contentWindow.scrollTo(0, top);
    return;
  }
  const a = at.getBoundingClientRect();
  const b = there.getBoundingClientRect();
  to.contentWindow.scrollTo(0, to.contentWindow.scrollY + b.top + (-a.top / a.height) * b.height);
}

let leads = null; // the frame that is scrolled by hand
function begin(frame) {
  mark(frame);
  const doc = frame.contentDocument;
  ['pointerenter', 'wheel', 'touchstart', 'keydown'].forEach((type) =>
    doc.addEventListener(
      type,
      () => {
        leads = frame;
      },
      { passive: true },
    ),
  );
  doc.addEventListener(
    'pointerover',
    () => {
      leads = frame;
    },
    { passive: true },
  );
  frame.contentWindow.addEventListener(
    'scroll',
    () => {
      const other = states.find((f) => f !== frame);
      if (leads === frame && other) follow(frame, other);
    },
    { passive: true },
  );
}

states.forEach((frame) => {
  frame.addEventListener('load', () => begin(frame));
  if (frame.contentDocument?.readyState === 'complete' && frame.contentDocument.body?.children.length) begin(frame);
});

document.querySelector('.segments')?.addEventListener('click', (e) => {
  const button = e.target.closest('[data-width]');
  if (!button) return;
  width = Number(button.dataset.width);
  document
    .querySelectorAll('.segments [data-width]')
    .forEach((b) => b.setAttribute('aria-pressed', String(b === button)));
  fit();
});

document.querySelector('.versions-changes')?.addEventListener('click', (e) => {
  const node = e.target.closest('[data-show]')?.dataset.show;
  if (!node) return;
  leads = null;
  states.forEach((frame) => found(frame, node)?.scrollIntoView({ block: 'center' }));
});

new ResizeObserver(fit).observe(document.querySelector('.versions-frames') ?? document.body);
fit();

// Versions are found by what is said of them, whatever day they are of.
const search = document.getElementById('versions-search');
const days = [...document.querySelectorAll('.versions-day')];
const open = days.map((day) => day.open);
search?.addEventListener('input', () => {
  const words = wordsOf(search.value);
  let any = false;
  days.forEach((day, i) => {
    const rows = [...day.querySelectorAll('li')];
    for (const li of rows) li.hidden = !hasAll(`${day.querySelector('h2').textContent} ${li.textContent}`, words);
    day.hidden = rows.every((li) => li.hidden);
    day.open = words.length > 0 || open[i];
    any ||= !day.hidden;
  });
  document.getElementById('versions-none').hidden = any;
});
