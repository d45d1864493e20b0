// Asks core, as WebAssembly, where things would land.
import { core } from '../shared/core.js';
import { block, page, sectionOf, selected, zoneAt } from './page.js';
import * as canvas from './canvas.js';

export { load } from '../shared/core.js';

export const loaded = () => core() !== null;

const answer = new Float64Array(256);
const bytes = new Uint8Array(answer.buffer);
const raw = (numbers) => new Uint8Array(Float64Array.from(numbers).buffer);

/** Begins a gesture in the grid of a section or container, of a block or, with '', of something new; cells are what is dragged covers when it is more than the block. */
export function begin(holder, id, cells) {
  const g = page.grids[holder];
  const zone = zoneAt(page.width).id;
  const grid = [g.columns.length, ...g.columns, g.rows.length, ...g.rows, g.columnGap, g.rowGap, g.rowHeight];
  const own = cells ?? (id ? block(id).zones[zone].slice(0, 4) : [1, 1, 1, 1]);
  core().begin(raw(grid), raw(own), raw(others(holder, id)), raw(area(g)));
}

/** The boxes that a block can line up with in a grid, from where that begins: 4 numbers each. */
function others(holder, id) {
  const o = canvas.gridOrigin(holder);
  const moved = new Set([id, ...(selected().includes(id) ? selected() : [])].map(canvas.element).filter(Boolean));
  const around = canvas.element(holder);
  return [...canvas.element(sectionOf(holder)).querySelectorAll('[data-block]')]
    .filter((e) => e !== around && !e.contains(around) && ![...moved].some((one) => one.contains(e) || e.contains(one)))
    .map((e) => e.getBoundingClientRect())
    .filter((r) => r.width > 0)
    .flatMap((r) => [r.left - o.x, r.top - o.y, r.width, r.height])
    .concat(
      (page.guides.x ?? []).flatMap((x) => [x - o.x, -o.y - canvas.scrolled(), 0, endless]),
      (page.guides.y ?? []).flatMap((y) => [-o.x, y - o.y - canvas.scrolled(), endless, 0]),
    );
}

const endless = 1e5; // px that a guide is long

const sum = (ns, gap) => ns.reduce((a, n) => a + n, 0) + gap * Math.max(ns.length - 1, 0);
const area = (g) => [0, 0, sum(g.columns, g.columnGap), sum(g.rows, g.rowGap)];

function landing() {
  const [column, span, row, rows, x, y, w, h, n, m] = answer;
  const guides = [];
  const gaps = [];
  for (let i = 0; i < n; i++) {
    const [vertical, at, from, to] = answer.subarray(10 + 4 * i);
    guides.push({ vertical: vertical === 1, at, from, to });
  }
  for (let i = 0; i < m; i++) {
    const [across, at, from, to, equal] = answer.subarray(10 + 4 * n + 5 * i);
    gaps.push({ across: across === 1, at, from, to, equal: equal === 1 });
  }
  return { place: { column, span, row, rows }, rect: { x, y, w, h }, guides, gaps };
}

export function move(x, y) {
  core().move(bytes, x, y);
  return landing();
}
export function pull(edges, r) {
  core().pull(bytes, edges, r.x, r.y, r.w, r.h);
  return landing();
}
export function at(x, y, span, rows) {
  core().at(bytes, x, y, span, rows);
  return landing();
}

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
