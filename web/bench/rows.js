// Lists in the Tray: rows that are opened, dragged and added between; and tables as a grid.
import { own, page } from './page.js';
import { send } from './edits.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';
import { drag } from '../shared/drag.js';

let opened = 0; // the row that is worked on
let of = ''; // and the block that it is of

let pressed = ''; // the row or tab of what was pressed on the canvas

const list = () => document.querySelector('#tray .rows');

/** Shows one row's fields, and which it is on the canvas. */
export function openRow(at) {
  opened = at;
  const rows = list();
  if (!rows) return;
  for (const e of document.querySelectorAll('#tray [data-entry]')) e.hidden = Number(e.dataset.entry) !== at;
  for (const b of rows.querySelectorAll('[data-row-open]')) {
    const on = Number(b.dataset.rowOpen) === at;
    b.setAttribute('aria-expanded', String(on));
    b.parentElement.classList.toggle('open', on);
  }
  overlay.part(canvas.element(page.select)?.querySelector(`[data-part="${at}"], [data-part^="${at}."]`) ?? null);
}

/** Has the Tray show the entry that was pressed on the canvas, or the looks of that part of a form. */
export function press(id, what) {
  const at = Number.parseInt(what, 10);
  pressed = what === 'submit' ? 'tab-kind-button' : Number.isNaN(at) ? '' : `row-${at}`;
  if (!pressed) return;
  if (pressed.startsWith('row-')) [of, opened] = [own(id), at];
  if (id === page.select) drawn();
}

/** Shows in the Tray what was pressed on the canvas, once the Tray stands. */
function bring() {
  const shows = document.getElementById(pressed);
  if (shows?.dataset.tab) shows.click();
  pressed = '';
  if (shows)
    requestAnimationFrame(() => shows.closest('.cluster').scrollIntoView({ block: 'nearest', inline: 'nearest' }));
}

/** Opens the row that was open, after the Tray was drawn anew. */
export function drawn() {
  if (pressed) bring();
  const rows = list();
  if (!rows) {
    overlay.part(null);
    return;
  }
  const node = rows.parentElement.dataset.node;
  if (node !== of) {
    of = node;
    opened = 0;
  }
  openRow(Math.max(0, Math.min(opened, rows.querySelectorAll('[data-row]').length - 1)));
}

function lift(e) {
  const li = e.target.closest?.('#tray [data-row]');
  if (!li || e.button !== 0 || !e.target.closest('.row-name')) return;
  const from = Number(li.dataset.row);
  const all = [...list().querySelectorAll('[data-row]')];
  let to = from;
  drag(e, {
    begin() {
      li.classList.add('dragging');
    },
    move(m) {
      const after = all.filter((r) => m.clientY > r.getBoundingClientRect().top + r.offsetHeight / 2).length;
      to = after > from ? after - 1 : after;
      for (const r of all) r.classList.toggle('drop-before', Number(r.dataset.row) === after);
    },
    drop() {
      if (to !== from) {
        opened = to;
        send({ op: 'entry.shift', node: page.select, at: from, dy: to - from });
      }
    },
    end() {
      li.classList.remove('dragging');
      for (const r of all) r.classList.remove('drop-before');
    },
    scroll: {
      rect: () => list().getBoundingClientRect(),
      by: (_, y) => {
        list().scrollTop += y;
      },
    },
  });
}

/** The cells of the grid as they are kept: a line a row, parted by tabs. */
const text = (table) =>
  [...table.rows]
    .map((r) => [...r.cells].map((c) => c.firstChild.value.replaceAll(/[\t\n]/g, ' ')).join('\t'))
    .join('\n');

function keep(table, value = text(table)) {
  const field = table.closest('.field-box').querySelector('.cells-text');
  if (value === field.value) return;
  field.value = value;
  field.dispatchEvent(new Event('change', { bubbles: true }));
}

/** What is pasted from a spreadsheet goes into the cells from this one on. */
function paste(e) {
  const input = e.target.closest?.('[data-cell]');
  const pasted = e.clipboardData?.getData('text/plain') ?? '';
  if (!input || !/[\t\n]/.test(pasted.trim())) return;
  e.preventDefault();
  const table = input.closest('table');
  const rows = text(table)
    .split('\n')
    .map((r) => r.split('\t'));
  const [y, x] = [input.closest('tr').rowIndex, input.closest('td').cellIndex];
  pasted
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .forEach((line, i) => {
      const row = (rows[y + i] ??= rows[0].map(() => ''));
      line.split('\t').forEach((cell, k) => {
        row[x + k] = cell;
      });
    });
  const widest = Math.max(...rows.map((r) => r.length));
  keep(table, rows.map((r) => Array.from({ length: widest }, (_, i) => r[i] ?? '').join('\t')).join('\n'));
}

/** Rows that are pasted into a field of an entry fill the entries from this one on, and make those that are missing. */
function pasteRows(e) {
  const field = e.target.closest?.('#tray [data-entry] input[data-op]');
  const pasted = (e.clipboardData?.getData('text/plain') ?? '').replaceAll('\r', '').trim();
  if (!field || !/[\t\n]/.test(pasted)) return;
  e.preventDefault();
  const entry = field.closest('[data-entry]');
  const fields = [...entry.querySelectorAll('input[data-op]')].filter((f) => f.getClientRects().length);
  const from = fields.indexOf(field);
  const first = Number(entry.dataset.entry);
  const count = list().querySelectorAll('[data-row]').length;
  const parts = pasted.split('\n').flatMap((line, i) => {
    const at = first + i;
    const set = line
      .split('\t')
      .slice(0, fields.length - from)
      .map((value, k) => {
        const { op, setting } = fields[from + k].dataset;
        return { op, node: page.select, at, setting, value: value.trim() };
      });
    return at < count ? set : [{ op: 'entry.add', node: page.select, at }, ...set];
  });
  send({ op: 'many', parts });
}

function reshape(b) {
  const table = b.closest('.field-box').querySelector('table');
  const rows = text(table)
    .split('\n')
    .map((r) => r.split('\t'));
  if (b.dataset.cells === 'row') rows.push(rows[0].map(() => ''));
  if (b.dataset.cells === 'column') for (const r of rows) r.push('');
  if (b.dataset.cells === 'drop-row' && rows.length > 1) rows.pop();
  if (b.dataset.cells === 'drop-column' && rows[0].length > 1) for (const r of rows) r.pop();
  keep(table, rows.map((r) => r.join('\t')).join('\n'));
}

export function start() {
  document.addEventListener('pointerdown', lift);
  document.addEventListener(
    'click',
    (e) => {
      const open = e.target.closest('[data-row-open]');
      if (open) openRow(Number(open.dataset.rowOpen));
      const act = e.target.closest('[id^="e-"][id$="-earlier"], [id^="e-"][id$="-later"]');
      if (act) opened += act.id.endsWith('earlier') ? -1 : 1;
      const cells = e.target.closest('[data-cells]');
      if (cells) reshape(cells);
    },
    true,
  );
  document.addEventListener('change', (e) => {
    if (e.target.matches('[data-cell]')) keep(e.target.closest('table'));
  });
  document.addEventListener('paste', paste);
  document.addEventListener('paste', pasteRows);
  document.addEventListener(
    'keydown',
    (e) => {
      const row = e.target.closest?.('[data-row-open]');
      const way = { ArrowUp: -1, ArrowDown: 1 }[e.key];
      if (!row || !way) return;
      e.preventDefault();
      e.stopPropagation();
      const at = Number(row.dataset.rowOpen);
      if (e.ctrlKey && e.shiftKey) {
        opened = Math.max(0, at + way);
        send({ op: 'entry.shift', node: page.select, at, dy: way });
      } else {
        const next = document.getElementById(`row-${at + way}`);
        if (next) {
          next.focus();
          openRow(at + way);
        }
      }
    },
    true,
  );
}
