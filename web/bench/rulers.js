// Rulers along the canvas in px of the page, and guides of one's own that are drawn from them.
import { page, zoneAt } from './page.js';
import { send } from './edits.js';
import { drag } from '../shared/drag.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
const [x, y] = ['ruler-x', 'ruler-y'].map((id) => document.getElementById(id));
export const shown = () => localStorage.getItem('rulers') === 'on';
const composes = document.body.dataset.composes === 'yes';

/** Between two figures of a ruler, in px of the page: so far that they can be read. */
const step = () => [10, 50, 100, 200, 500, 1000, 2000].find((s) => s * canvas.scaleNow() >= 46) ?? 5000;

function draw() {
  for (const [ruler, upright] of [
    [x, false],
    [y, true],
  ]) {
    ruler.toggleAttribute('hidden', !shown());
    if (!shown()) continue;
    const s = canvas.scaleNow();
    const o = canvas.toStage(0, -canvas.scrolled());
    const [from, length] = upright ? [o.y - 14, stage.clientHeight - 14] : [o.x, stage.clientWidth];
    const between = step();
    let d = '';
    const words = [];
    for (let px = Math.max(0, Math.floor(-from / s / between) * between); from + px * s < length; px += between / 5) {
      if (!upright && px > page.width) break;
      const at = Math.round(from + px * s) + 0.5;
      const whole = Math.abs(px / between - Math.round(px / between)) < 1e-6;
      const long = whole ? 14 : 4;
      d += upright ? `M18 ${at}h-${long}` : `M${at} 14v-${long}`;
      if (!whole) continue;
      const t = document.createElementNS('http://www.w3.org/2000/svg', 'text');
      t.textContent = String(Math.round(px));
      if (upright) t.setAttribute('transform', `translate(8 ${at + 2}) rotate(90)`);
      else {
        t.setAttribute('x', String(at + 3));
        t.setAttribute('y', '9');
      }
      words.push(t);
    }
    const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    path.setAttribute('d', d);
    ruler.replaceChildren(path, ...words);
  }
}

/** Shows the rulers, or hides them. */
export function toggle() {
  localStorage.setItem('rulers', shown() ? 'off' : 'on');
  draw();
  overlay.redraw();
}

const place = (m, upright) => {
  const p = canvas.toPage(m.clientX, m.clientY);
  return Math.round(upright ? p.x : p.y + canvas.scrolled());
};
const set = (upright, value, after) =>
  send({
    op: 'page.guide',
    zone: zoneAt(page.width).id,
    setting: upright ? 'x' : 'y',
    value: value === null ? '' : String(value),
    ...(after !== null && { after: String(after) }),
  });

/** Drags a new guide from a ruler, or one that is there; let go outside the page it goes away. */
function pull(e, upright, was) {
  let at = was;
  drag(e, {
    slack: 2,
    move(m) {
      at = place(m, upright);
      if (at < 0 || (upright && at > page.width)) at = null;
      overlay.guiding({ upright, at, was });
    },
    drop() {
      if (at !== was) set(upright, at, was);
    },
    end: () => overlay.guiding(null),
  });
}

export function start() {
  for (const [ruler, upright] of [
    [x, false],
    [y, true],
  ])
    ruler.addEventListener('pointerdown', (e) => {
      if (e.button === 0 && composes) pull(e, upright, null);
    });
  canvas.onLay(draw);
  canvas.onScroll(draw);
  draw();
}

/** Drags the guide that was pressed; false when none was. */
export function press(e) {
  const at = e.target.dataset?.guide;
  if (at === undefined || !composes) return false;
  pull(e, e.target.dataset.upright === 'true', Number(at));
  return true;
}

/** Asks for a guide in px, for those who don't drag. */
export function ask() {
  const dialog = document.getElementById('guide');
  const [upright, at] = [document.getElementById('guide-upright'), document.getElementById('guide-at')];
  const list = document.getElementById('guide-list');
  list.replaceChildren(
    .../** @type {const} */ (['x', 'y']).flatMap((axis) =>
      (page.guides[axis] ?? []).map((px) => {
        const up = axis === 'x';
        const b = document.createElement('button');
        b.type = 'button';
        b.className = 'btn btn-sm btn-outline-dark';
        b.textContent = `Remove ${px} px ${up ? 'from the left' : 'from the top'}`;
        b.addEventListener('click', () => {
          dialog.close('');
          set(up, null, px);
        });
        return b;
      }),
    ),
  );
  at.value = '';
  dialog.onclose = () => {
    if (dialog.returnValue === 'take' && at.value) set(upright.value === 'x', Number(at.value), null);
  };
  dialog.returnValue = '';
  dialog.showModal();
}
