// Drawings in the Tray that are dragged on: the grid in small, and a picture's focal point.
import { page, zoneAt } from './page.js';
import { attempt as tryCommand, leave as leaveCommand, take as takeCommand } from './tries.js';
import { attempt, binding, leave, take } from '../controls/control.js';
import { drag } from '../shared/drag.js';

const clamp = (n, a, b) => Math.min(Math.max(n, a), b);

function dragGrid(e) {
  const svg = e.target.closest?.('#place-grid');
  if (!svg || e.button !== 0) return;
  const own = svg.querySelector('.grid-own');
  if (e.target !== own) return;
  const [columns, rows] = [Number(svg.dataset.columns), Number(svg.dataset.rows)];
  const from = JSON.parse(svg.dataset.place);
  const r = svg.getBoundingClientRect();
  const [w, h] = [r.width / columns, r.height / rows];
  const box = own.getBoundingClientRect();
  const [right, bottom] = [
    box.right - e.clientX < Math.min(7, box.width / 3),
    box.bottom - e.clientY < Math.min(7, box.height / 3),
  ]; // its edges resize it
  let to = from;
  const command = () => ({ op: 'block.place', node: page.select, zone: zoneAt(page.width).id, place: to });
  const show = (p) => {
    own.setAttribute('x', p.column);
    own.setAttribute('y', p.row);
    own.setAttribute('width', p.span);
    own.setAttribute('height', p.rows);
  };
  drag(e, {
    slack: 2,
    move(m) {
      const [dx, dy] = [Math.round((m.clientX - e.clientX) / w), Math.round((m.clientY - e.clientY) / h)];
      const next =
        right || bottom
          ? {
              ...from,
              span: right ? clamp(from.span + dx, 1, columns - from.column + 1) : from.span,
              rows: bottom ? Math.max(1, from.rows + dy) : from.rows,
            }
          : { ...from, column: clamp(from.column + dx, 1, columns - from.span + 1), row: Math.max(1, from.row + dy) };
      if (JSON.stringify(next) === JSON.stringify(to)) return;
      to = next;
      show(to);
      tryCommand(command());
    },
    drop() {
      takeCommand(command());
    },
    end(dropped) {
      if (!dropped) {
        show(from);
        leaveCommand();
      }
    },
  });
}

/** A focal point as "30% 70%". */
function dragFocal(e) {
  const box = e.target.closest?.('.focal');
  if (!box || e.button !== 0) return;
  e.preventDefault();
  const mark = box.querySelector('.focal-mark');
  const bound = binding(mark);
  const r = box.getBoundingClientRect();
  const before = mark.dataset.value;
  const at = (m) =>
    `${Math.round(clamp(((m.clientX - r.left) / r.width) * 100, 0, 100))}% ${Math.round(clamp(((m.clientY - r.top) / r.height) * 100, 0, 100))}%`;
  const show = (v) => {
    mark.dataset.value = v;
    drawn();
  };
  mark.focus();
  let moved = false;
  const up = (m) => {
    if (!moved) {
      show(at(m));
      take(bound, at(m));
    }
  };
  window.addEventListener('pointerup', up, { once: true });
  drag(e, {
    slack: 2,
    begin() {
      moved = true;
    },
    move(m) {
      show(at(m));
      attempt(bound, at(m));
    },
    drop(m) {
      take(bound, at(m));
    },
    end(dropped) {
      if (!dropped) {
        show(before);
        leave(bound);
      }
    },
  });
}

function keys(e) {
  const mark = e.target.closest?.('.focal-mark');
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
  if (!mark || !by) return;
  e.preventDefault();
  e.stopPropagation();
  const [x, y] = mark.dataset.value.split(' ').map(parseFloat);
  const step = e.shiftKey ? 10 : 1;
  take(binding(mark), `${clamp(x + by[0] * step, 0, 100)}% ${clamp(y + by[1] * step, 0, 100)}%`);
}

/** Puts focal points and crops where they belong. */
export function drawn() {
  for (const mark of document.querySelectorAll('#tray .focal-mark')) {
    const [x, y] = mark.dataset.value.split(' ');
    mark.style.left = x;
    mark.style.top = y;
    for (const img of mark.closest('.cluster').querySelectorAll('.crop-of'))
      img.style.objectPosition = mark.dataset.value;
  }
  for (const img of document.querySelectorAll('#tray .crop-of')) img.style.aspectRatio = img.dataset.ratio;
}

export function start() {
  document.addEventListener('pointerdown', dragGrid);
  document.addEventListener('pointerdown', dragFocal);
  document.addEventListener('keydown', keys, true);
}
