// Asks core, as WebAssembly, where things would land.
import { core } from '../shared/core.js';
import { block, heldIn, page, zoneAt } from './page.js';

export { load } from '../shared/core.js';

export const loaded = () => core() !== null;

const answer = new Float64Array(256);
const bytes = new Uint8Array(answer.buffer);
const raw = (numbers) => new Uint8Array(Float64Array.from(numbers).buffer);

/** Begins a gesture in the grid of a section or container, of a block or, with '', of something new. */
export function begin(holder, id) {
  const g = page.grids[holder];
  const zone = zoneAt(page.width).id;
  const grid = [g.columns.length, ...g.columns, g.rows.length, ...g.rows, g.columnGap, g.rowGap, g.rowHeight];
  const own = id ? block(id).zones[zone].slice(0, 4) : [1, 1, 1, 1];
  const others = heldIn(holder).filter((b) => b !== block(id) && !b.hidden?.[zone]).flatMap((b) => b.zones[zone].slice(0, 4));
  core().begin(raw(grid), raw(own), raw(others));
}

function landing() {
  const [column, span, row, rows, x, y, w, h, n] = answer;
  const guides = [];
  for (let i = 0; i < n; i++) {
    const [vertical, at, from, to] = answer.subarray(9 + 4 * i);
    guides.push({ vertical: vertical === 1, at, from, to });
  }
  return { place: { column, span, row, rows }, rect: { x, y, w, h }, guides };
}

export function move(x, y) { core().move(bytes, x, y); return landing(); }
export function pull(edges, r) { core().pull(bytes, edges, r.x, r.y, r.w, r.h); return landing(); }
export function at(x, y, span, rows) { core().at(bytes, x, y, span, rows); return landing(); }

/** Where something would go among the boxes of blocks in order: before the one with that index, and the line to draw. */
export function gap(boxes, across, area, x, y) {
  const four = (r) => [r.x, r.y, r.w, r.h];
  core().gap(bytes, raw(boxes.flatMap(four)), across, raw(four(area)), x, y);
  return { index: answer[0], line: { x: answer[1], y: answer[2], w: answer[3], h: answer[4] } };
}

/** What a measure becomes that is dragged to px, and the index of the step that it takes or -1. */
export function snap(px, steps, near, only) {
  core().snap(bytes, px, raw(steps), near, only);
  return { px: answer[0], step: answer[1] };
}

/** The place of a block, its layer too, as a command has it. */
export function placeOf(id, cells) {
  const layer = id ? block(id).zones[zoneAt(page.width).id][4] : 0;
  return { ...cells, layer };
}
