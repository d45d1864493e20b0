// Marks on the edges of the selection that can be dragged (handles.js drags them).
import { page } from './page.js';
import { draw, px, tag } from './draw.js';
import * as canvas from './canvas.js';

let redraw = () => {}; // draws the overlay again
let pull = null; // the handle that is dragged: its index, by how many px, and what is said of it
let pointed = -1; // the handle that is pointed at
let handlesOf = ''; // what the handles are of: another selection's aren't there yet

/** Tells what draws the overlay again when marks on it are others. */
export function drawnBy(f) {
  redraw = f;
}

/** Marks a handle that is dragged; null marks none. */
export function pulled(p) {
  pull = p;
  redraw();
}

/** Marks the handle that is pointed at, by its index; -1 marks none. */
export function point(index) {
  if (index === pointed) return;
  pointed = index;
  redraw();
}

/** Whether one is dragged. */
export const pulling = () => pull !== null;

/** Tells what the handles that came are of. */
export function handled(id) {
  handlesOf = id;
}

/** Draws what of the selection, which has a box, can be dragged, and words on the one that is. */
export function marks(b) {
  if (handlesOf !== page.select) return;
  const s = canvas.scaleNow();
  page.handles.forEach((h, i) => {
    if (pull && pull.index !== i) return;
    if (h.setting.startsWith('padding') && (b.w < 80 || b.h < (h.across ? 80 : 64))) return; // there is no room for it
    const gap = h.setting.endsWith('gap');
    const [wider, shift] = pull
      ? gap
        ? [pull.by, 0]
        : [0, ['padding-bottom', 'pull'].includes(h.setting) ? 0 : h.sign * pull.by]
      : [0, 0];
    const [x, y] = [b.x + (h.x + (h.across ? shift : 0)) * s, b.y + (h.y + (h.across ? 0 : shift)) * s];
    const [w, height] = [(h.w + (h.across ? wider : 0)) * s, (h.h + (h.across ? 0 : wider)) * s];
    if (pull || pointed === i) {
      if (gap) draw('rect', { class: 'gap', x, y, width: Math.max(w, 1), height: Math.max(height, 1) });
      else draw('path', { class: 'pulled', d: `M${px(x)} ${px(y)}l${w} ${height}` });
    }
    const along = h.across ? 0.5 : h.at;
    const [cx, cy] = [x + w * along, y + height * (h.across ? h.at : gap ? 0.5 : 0)];
    if (!pull && gap) strip(i, x, y, w, height, h.across);
    else if (!pull) {
      const quiet = h.setting.startsWith('padding') && h.px < 4 && pointed !== i; // it shows when it is pointed at
      grip(i, cx, cy + (h.setting === 'overhang' ? 9 : 0), h.across, h.setting === 'shares', quiet);
    }
    if (pull) tag(cx, cy - 14, `${h.label} ${pull.text}`);
    else if (pointed === i) tag(cx, cy - 16, h.only ? h.label : `${h.label} ${Math.round(h.px)}`);
  });
}

/** All of a gap to drag by. */
function strip(index, x, y, w, h, across) {
  const thin = Math.max(8 - (across ? w : h), 0) / 2;
  const hit = draw('rect', {
    class: 'handle',
    x: x - (across ? thin : 0),
    y: y - (across ? 0 : thin),
    width: w + (across ? 2 * thin : 0),
    height: h + (across ? 0 : 2 * thin),
    'data-handle': index,
  });
  hit.style.cursor = across ? 'ew-resize' : 'ns-resize';
}

/** A bar to drag by, with room around it to hit. */
function grip(index, x, y, across, long, quiet) {
  const [w, h] = across ? [5, long ? 28 : 16] : [16, 5];
  if (!quiet) draw('rect', { class: 'grip', x: px(x - w / 2), y: px(y - h / 2), width: w, height: h, rx: 2.5 });
  const hit = draw('rect', { class: 'handle', x: x - 12, y: y - 12, width: 24, height: 24, 'data-handle': index });
  hit.style.cursor = across ? (long ? 'col-resize' : 'ew-resize') : 'ns-resize';
}

/** What a section is dragged by, at its left edge. */
export function edgeMark(x, y) {
  draw('rect', { class: 'grip', x: x - 4.5, y: y - 12, width: 9, height: 24, rx: 2.5 });
  draw('path', {
    class: 'edge-mark',
    d: `M${x - 1.5} ${y - 6}v0M${x + 1.5} ${y - 6}v0M${x - 1.5} ${y}v0M${x + 1.5} ${y}v0M${x - 1.5} ${y + 6}v0M${x + 1.5} ${y + 6}v0`,
  });
  draw('rect', {
    class: 'handle',
    x: x - 12,
    y: y - 12,
    width: 24,
    height: 24,
    'data-lifts': page.select,
  }).style.cursor = 'grab';
}
