// The list of all commands, and the menu of what is selected.
import { page } from './page.js';
import { select } from './select.js';
import { run, table, used, why } from './commands.js';
import { written } from './keys.js';
import { found } from './tell.js';
import { open } from '../controls/panel.js';
import * as canvas from './canvas.js';
import { wordsOf } from '../shared/find.js';
import { nextIn } from '../shared/list.js';

const stage = document.getElementById('stage');
const panel = document.getElementById('panel-commands');
const search = panel.querySelector('input');
const list = panel.querySelector('ul');

let offered = []; // the commands that the panel has, those that match first, and parts of the handbook
let at = 0;
let handbook = []; // its parts, once they were asked for
const mostParts = 6; // of the handbook, below the commands

const apart = /[:,.;]+/g; // what stands between words beside spaces

/** Whether words in a text begin with all of some. */
const begins = (text, words) => {
  const own = text.toLowerCase().replaceAll(apart, ' ').split(/\s+/);
  return words.every((w) => own.some((o) => o.startsWith(w)));
};

/** Parts of the handbook with every word, those with them in the heading first. */
function partsWith(words) {
  if (!words.length) return [];
  return handbook
    .filter((p) => begins(`${p.title} ${p.text}`, words))
    .toSorted((a, b) => Number(begins(b.title, words)) - Number(begins(a.title, words)))
    .slice(0, mostParts)
    .map((p) => ({ id: `part-${handbook.indexOf(p)}`, name: p.title, beside: 'Handbook', address: p.address }));
}

function draw(all) {
  const words = wordsOf(search.value.replaceAll(apart, ' '));
  const typed = words.join(' ');
  const rank = (c) => {
    if (typed && wordsOf(c.name.replaceAll(apart, ' ')).join(' ') === typed) return -1; // also where it can't be done: the list says why
    const i = used().indexOf(c.id);
    return (why(c) ? 100 : 0) + (words.length || i < 0 ? 50 : i);
  };
  offered = all
    .filter((c) => begins(`${c.name} ${c.find ?? ''}`, words))
    .map((c, i) => [c, i])
    .sort(
      ([a, i], [b, k]) =>
        rank(a) - rank(b) ||
        Number(!a.name.toLowerCase().startsWith(words[0] ?? '')) -
          Number(!b.name.toLowerCase().startsWith(words[0] ?? '')) ||
        i - k,
    )
    .map(([c]) => c);
  if (all === table) offered.push(...partsWith(words));
  at = Math.min(at, Math.max(offered.length - 1, 0));
  list.replaceChildren(
    ...offered.map((c, i) => {
      const li = document.createElement('li');
      li.id = `command-${c.id}`;
      li.setAttribute('role', 'option');
      li.setAttribute('aria-selected', String(i === at));
      const reason = c.address ? c.beside : why(c);
      if (reason && !c.address) li.setAttribute('aria-disabled', 'true');
      const name = document.createElement('span');
      name.textContent = c.name;
      const beside = document.createElement(reason ? 'small' : 'kbd');
      beside.textContent = reason || written(c);
      li.append(name, ...(beside.textContent ? [beside] : []));
      return li;
    }),
  );
  if (!offered.length) {
    const li = document.createElement('li');
    li.setAttribute('role', 'option');
    li.setAttribute('aria-disabled', 'true');
    li.textContent = `No command is called “${search.value}”, and the handbook doesn’t have it.`;
    list.append(li);
  }
  if (search.value) found('commands', () => (panel.matches(':popover-open') ? offered.length : null));
  search.setAttribute('aria-activedescendant', offered[at] ? `command-${offered[at].id}` : '');
  list.children[at]?.scrollIntoView({ block: 'nearest' });
}

function take(c) {
  if (!c) return;
  if (!c.address && why(c)) {
    run(c); // which says why it can't be done
    return;
  }
  panel.hidePopover();
  stage.focus({ preventScroll: true });
  if (c.address) window.open(c.address, '_blank', 'noopener');
  else run(c);
}

let all = []; // that the panel is about

/** Shows commands to search in, beside an element or at a point. */
export function show(some, anchor) {
  all = some;
  search.value = '';
  at = 0;
  open(panel, anchor);
  draw(all);
  search.focus();
  if (some === table && !handbook.length)
    fetch('/handbook/parts')
      .then((answer) => (answer.ok ? answer.json() : []))
      .then((parts) => {
        handbook = parts;
        if (panel.matches(':popover-open') && search.value) draw(all);
      })
      .catch(() => {}); // the commands are there without it
}

let pressed = false; // the button that asks for the menu is down

/** What is done most comes first in the menu, the rest as the table has it. */
const foremost = ['duplicate', 'delete', 'copy', 'paste', 'cut', 'hide', 'lock', 'copy-look', 'paste-look'];
const place = (c) => (foremost.includes(c.id) ? foremost.indexOf(c.id) : foremost.length);

/** The menu of what is selected, at a point: once the button is up, which some browsers take for a press outside of it. */
function menu(x, y) {
  if (pressed) {
    window.addEventListener('pointerup', () => setTimeout(() => menu(x, y)), { once: true });
    return;
  }
  show(
    table.filter((c) => c.menu && !why(c)).toSorted((a, b) => place(a) - place(b)),
    { getBoundingClientRect: () => new DOMRect(x, y, 0, 0), tagName: '', isConnected: false },
  );
}

export function start() {
  search.addEventListener('input', () => {
    at = 0;
    draw(all);
  });
  panel.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const to = e.key.startsWith('Arrow') ? nextIn(offered.length, at, e.key) : undefined; // Home and End move the caret
    if (to !== undefined) {
      e.preventDefault();
      at = to;
      draw(all);
    }
    if (e.key === 'Enter') {
      e.preventDefault();
      take(offered[at]);
    }
  });
  list.addEventListener('click', (e) => {
    const li = e.target.closest('li');
    if (li) take(offered[[...list.children].indexOf(li)]);
  });
  window.addEventListener(
    'pointerdown',
    (e) => {
      pressed = e.button === 2;
    },
    true,
  );
  window.addEventListener(
    'pointerup',
    () => {
      pressed = false;
    },
    true,
  );
  stage.addEventListener('contextmenu', (e) => {
    e.preventDefault();
    if (e.button !== 2 || e.clientX === 0) {
      // by the menu key: at what is selected
      const r = canvas.element(page.select) && canvas.boxOf(canvas.element(page.select));
      const s = stage.getBoundingClientRect();
      menu(s.left + (r?.x ?? 40) + 20, s.top + Math.max(r?.y ?? 40, 10) + 20);
      return;
    }
    const { block: id, section } = canvas.hit(e.clientX, e.clientY);
    const chosen = id || section;
    if (chosen && ![page.select, ...page.also].includes(chosen)) select(chosen);
    menu(e.clientX, e.clientY);
  });
}
