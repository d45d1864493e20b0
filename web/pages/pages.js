// The screen of a site's pages: ticking several, and moving a page in the tree by dragging its
// grip or by keys. Where a page may stand is the server's to say.
import { ask } from '../shared/ask.js';
import { drag } from '../shared/drag.js';

const list = () => document.getElementById('page-list');
const several = document.getElementById('several');
const bar = document.querySelector('.pages-several');

/** Shows what can be done to the ticked pages, while some are. */
function tick() {
  if (!bar) return;
  const n = several.querySelectorAll('[name="id"]:checked').length;
  bar.hidden = n === 0;
  document.getElementById('ticked').textContent = n === 1 ? '1 page' : `${n} pages`;
}

/** Moves a page on the server, and shows the tree as it is then. */
function move(row, values) {
  const { pathname } = new URL(several.action);
  const to = pathname.replace(/several$/, `${row.dataset.slug}/move`);
  window.htmx.ajax('POST', to, { target: '#page-list', swap: 'outerHTML', values });
}

const steps = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' };

// With Shift all between the one that was ticked before and this one become as this one.
let last = null;
several?.addEventListener('click', (e) => {
  const box = e.target.closest('[name="id"]');
  if (!box) return;
  const boxes = [...several.querySelectorAll('[name="id"]')];
  if (e.shiftKey && boxes.includes(last)) {
    const [from, to] = [boxes.indexOf(last), boxes.indexOf(box)].sort((a, b) => a - b);
    for (const b of boxes.slice(from, to + 1)) b.checked = box.checked;
  }
  last = box;
  tick();
});
several?.addEventListener('change', tick);
document.getElementById('tick-all')?.addEventListener('click', () => {
  const boxes = [...several.querySelectorAll('[name="id"]')];
  const all = boxes.some((b) => !b.checked);
  for (const b of boxes) b.checked = all;
  tick();
});

// How large the drawings are, as it was chosen here last.
const size = document.getElementById('pages-size');
const sized = () => document.querySelector('.pages-list')?.style.setProperty('--card', `${size.value}px`);
if (size) {
  size.value = localStorage.getItem('pages-size') ?? size.value;
  sized();
  size.addEventListener('input', () => {
    sized();
    localStorage.setItem('pages-size', size.value);
  });
}

several?.addEventListener('keydown', (e) => {
  const row = e.target.closest('.page-card');
  if (!row || !e.altKey || !steps[e.key]) return;
  e.preventDefault();
  move(row, { to: steps[e.key] });
});

// A deletion that takes along more than was named, or what visitors have, is asked about, with what goes drawn.
let agreed = false;
document.addEventListener('submit', async (e) => {
  const { submitter } = /** @type {SubmitEvent} */ (e);
  if (!(submitter instanceof HTMLButtonElement) || submitter.name !== 'act' || submitter.value !== 'delete') return;
  if (agreed) {
    agreed = false;
    return;
  }
  e.preventDefault();
  const form = /** @type {HTMLFormElement} */ (e.target);
  const ids = new URLSearchParams(new FormData(form).getAll('id').map((id) => ['id', String(id)]));
  const at = `${new URL(form.action).pathname.replace(/pages\/several$/, 'going')}?${ids}`;
  const answer = await fetch(at).catch(() => null);
  const going = answer?.status === 200 ? await answer.text() : ''; // where that isn't known it is asked all the same
  agreed =
    answer?.status === 204 ||
    (await ask({
      title: ids.size === 1 ? 'Delete the page?' : `Delete the ${ids.size} pages?`,
      words: 'What stands under a page goes with it. All of it can be had back for 30 days.',
      shown: going,
      does: 'Delete',
    }));
  if (agreed) form.requestSubmit(submitter);
});

let ticked = []; // pages, while their rows are drawn anew
document.addEventListener('htmx:before:swap', () => {
  ticked = [...(several?.querySelectorAll('[name="id"]:checked') ?? [])].map((c) => c.value);
});
document.addEventListener('htmx:after:swap', () => {
  several?.querySelectorAll('[name="id"]').forEach((c) => {
    c.checked ||= ticked.includes(c.value);
  });
  tick();
  const { focus } = list()?.dataset ?? {};
  if (focus) {
    delete list().dataset.focus;
    document.getElementById(`grip-${focus}`)?.focus();
  }
  document.querySelectorAll('.page-settings[aria-current]').forEach((a) => a.removeAttribute('aria-current'));
  const shown = document.querySelector('#page-form')?.action;
  document
    .querySelectorAll('.page-card')
    .forEach((row) => row.classList.toggle('chosen', Boolean(shown?.endsWith(`/pages/${row.dataset.slug}/settings`))));
});

/** Where a row would land for a pointer: beside which row, and how deep. */
function target(rows, row, e) {
  const depth = Number(row.dataset.depth);
  const own = new Set([row]);
  for (let r = row.nextElementSibling; r && Number(r.dataset.depth) > depth; r = r.nextElementSibling) own.add(r);
  const others = rows.filter((r) => !own.has(r));
  let above = null;
  for (const r of others) {
    const box = r.getBoundingClientRect();
    if (e.clientY > box.top + box.height / 2) above = r;
  }
  const most = above ? Number(above.dataset.depth) + 1 : 0;
  const next = above ? others[others.indexOf(above) + 1] : others[0];
  const least = next ? Number(next.dataset.depth) : 0;
  const left = rows[0].getBoundingClientRect().left;
  const wanted = Math.round((e.clientX - left - 20) / 28);
  return { above, depth: Math.min(Math.max(wanted, least), most) };
}

/** The page to stand under and the one to stand behind, for a place below a row at a depth. */
function place(rows, { above, depth }) {
  if (!above) return { parent: '', after: '' };
  let at = above;
  if (Number(at.dataset.depth) < depth) return { parent: at.dataset.page, after: '' };
  while (Number(at.dataset.depth) > depth) at = at.previousElementSibling;
  let up = at;
  while (up && Number(up.dataset.depth) >= depth) up = up.previousElementSibling;
  return { parent: up?.dataset.page ?? '', after: at.dataset.page };
}

several?.addEventListener('pointerdown', (e) => {
  const grip = e.target.closest('.page-grip');
  if (!grip || e.button !== 0) return;
  const row = grip.closest('.page-card');
  const rows = [...document.querySelectorAll('.page-card')];
  let mark = null;
  let at = null;
  drag(e, {
    begin() {
      mark = document.createElement('div');
      mark.className = 'page-drop';
      list().append(mark);
      row.classList.add('dragged');
    },
    move(m) {
      at = target(rows, row, m);
      const box = list().getBoundingClientRect();
      const y = at.above ? at.above.getBoundingClientRect().bottom : rows[0].getBoundingClientRect().top;
      mark.style.top = `${y - box.top}px`;
      mark.style.left = `${8 + at.depth * 28}px`;
    },
    drop() {
      if (at) move(row, place(rows, at));
    },
    end() {
      mark?.remove();
      row.classList.remove('dragged');
    },
    scroll: {
      rect: () => new DOMRect(0, 0, window.innerWidth, window.innerHeight),
      by: (x, y) => window.scrollBy(0, y),
    },
  });
});

tick();
