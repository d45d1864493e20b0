// Edges of the selection that are dragged: padding, gaps, columns, a section's foot and so on.
// Where they are, and what they land on, core says.
import { page, zoneAt } from './page.js';
import { attempt, leave, take } from './tries.js';
import { drag } from '../shared/drag.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as grips from './grips.js';

const near = 5; // px of the screen from a step within which it is taken

/**
 * The command that a value makes, and on both sides when they are dragged together.
 * @returns {Command}
 */
function command(h, value, both) {
  /** @returns {Command} */
  const set = (setting) => ({ op: 'set', node: page.select, zone: zoneAt(page.width).id, setting, value });
  return both && h.both ? { op: 'many', parts: [set(h.setting), set(h.both)] } : set(h.setting);
}

/** Where a handle's edge lies on guides of one's own, as steps. */
function onGuides(h) {
  if (h.only || ['padding-bottom', 'pull'].includes(h.setting)) return []; // what they move is elsewhere
  const r = canvas.element(page.select).getBoundingClientRect();
  const now = h.across ? r.left + h.x : r.top + canvas.scrolled() + h.y;
  return ((h.across ? page.guides.x : page.guides.y) ?? [])
    .map((at) => Math.round(h.px + h.sign * (at - now)))
    .filter((px) => px >= h.min && px <= h.max)
    .map((px) => ({ px, name: 'guide', value: `${h.before ?? ''}${px}${h.after}` }));
}

/** Drags a handle of the selection; tap is called when it was a press alone. */
export function pull(e, index, busy, tap) {
  const h = page.handles[index];
  const from = canvas.toPage(e.clientX, e.clientY);
  let to = { px: h.px, value: '', name: '' };
  let both = false;
  const steps = [...(h.steps ?? []), ...onGuides(h)];
  drag(e, {
    slack: 2,
    tap,
    begin() {
      busy(true);
    },
    move(m) {
      const p = canvas.toPage(m.clientX, m.clientY);
      const wanted = h.px + h.sign * (h.across ? p.x - from.x : p.y - from.y);
      const free = m.ctrlKey || m.metaKey;
      const { px, step } = gesture.snap(
        Math.min(Math.max(wanted, h.min), h.max),
        free ? [] : steps.map((s) => s.px),
        near / canvas.scaleNow(),
        !free && Boolean(h.only),
      );
      const landed = steps[step];
      const value = landed?.value ?? `${h.before ?? ''}${px}${h.after}`;
      if ((h.only && !landed) || (value === to.value && both === m.altKey)) return;
      both = m.altKey;
      to = { px, value, name: landed?.name ?? '' };
      grips.pulled({
        index,
        by: px - h.px,
        text: h.only ? landed.name : `${Math.round(px)}${to.name ? ` · ${to.name}` : ''}`,
      });
      attempt(command(h, value, both));
    },
    drop() {
      if (to.value) take(command(h, to.value, both));
    },
    end(dropped) {
      busy(false);
      grips.pulled(null);
      if (!dropped) leave();
    },
  });
}
