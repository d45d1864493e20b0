// Marks over the canvas: what is selected, the grid, guides and measures.
import { block, holderOf, own, page } from './page.js';
import { draw, px, svg, tag } from './draw.js';
import * as canvas from './canvas.js';
import * as grips from './grips.js';

const composes = document.body.dataset.composes === 'yes';
let hovered = '';
let marked = null; // a part of the selection
let landing = null; // { holder, rect, guides, gaps } while a gesture lasts
let trial = null; // { id, name } of what is tried
let inserts = null; // { holder, line } while something is dragged
let bandOf = null; // a rectangle in px of the page's viewport, and the ids it touches
let made = null; // the outlines of what letting go would make
let drawnGuide = null; // the guide that is drawn or moved
let opened = null; // the element that is written in
let line = null; // the section below which something would go, '' for the top
export const options = { grid: true };

export function hover(id) {
  if (id === hovered) return;
  hovered = id;
  redraw();
}

/** Marks a part of the selection, such as the row that is worked on; null marks none. */
export function part(e) {
  marked = e;
  redraw();
}

/** Lets the pointer through to what is written in; null to nothing. */
export function open(e) {
  opened = e;
  redraw();
}

export function land(l) {
  landing = l;
  redraw();
}

/** Marks what would take something in, by its name, with a line where it would go in order; null marks nothing. */
export function insertion(i) {
  inserts = i;
  redraw();
}

/** Draws the band that selects, and what it touches; null draws none. */
export function band(r, ids) {
  bandOf = r && { r, ids };
  redraw();
}

/** Draws what letting go would make of the page; null draws nothing of it. */
export function outcome(o) {
  made = o;
  redraw();
}

/** What is drawn as the outcome, as boxes in px from their sections' corners; for tests. */
export const outcomeNow = () => made;

function drawOutcome() {
  const s = canvas.scaleNow();
  for (const [name, boxes] of [
    ['reflow', made.others],
    ['landing', made.landing],
  ]) {
    for (const b of boxes) {
      const e = canvas.element(b.section);
      if (!e) continue; // it was drawn anew by another answer
      const o = canvas.boxOf(e);
      draw('rect', {
        class: name,
        x: o.x + b.x * s,
        y: o.y + b.y * s,
        width: Math.max(2, b.w * s),
        height: Math.max(2, b.h * s),
      });
    }
  }
}

/** Draws a guide where it is dragged to, in place of where it was; null draws none. */
export function guiding(g) {
  drawnGuide = g;
  redraw();
}

/** Guides of one's own. */
function ownGuides() {
  const s = canvas.scaleNow();
  const o = canvas.toStage(0, -canvas.scrolled());
  const one = (upright, at, hit) => {
    const d = upright ? `M${px(o.x + at * s)} 0V${svg.clientHeight}` : `M0 ${px(o.y + at * s)}H${svg.clientWidth}`;
    draw('path', { class: 'own-guide', d });
    if (!hit) tag(upright ? o.x + at * s + 22 : 46, upright ? 26 : o.y + at * s - 10, at);
    else
      draw('path', { class: 'own-guide-hit', d, 'data-guide': at, 'data-upright': upright }).style.cursor = upright
        ? 'ew-resize'
        : 'ns-resize';
  };
  for (const axis of /** @type {const} */ (['x', 'y'])) {
    const upright = axis === 'x';
    for (const at of page.guides[axis] ?? [])
      if (drawnGuide?.upright !== upright || drawnGuide.was !== at) one(upright, at, true);
  }
  if (drawnGuide && drawnGuide.at !== null) one(drawnGuide.upright, drawnGuide.at, false);
}

/** Marks what is tried, by its name; null marks nothing. */
export function tried(t) {
  trial = t;
}

/** Draws a line below a section, '' for above all, where something would go; null draws none. */
export function between(section) {
  line = section;
  redraw();
}

let due = 0; // the frame in which everything is drawn again

/** Draws everything again, once a frame however often it is asked for. */
export function redraw() {
  due ||= requestAnimationFrame(drawAll);
}

/** All of the overlay but a box, as a path of CSS. */
const around = ({ x, y, w, h }) =>
  `path(evenodd, "M0 0H${svg.clientWidth}V${svg.clientHeight}H0Z M${x} ${y}h${w}v${h}h${-w}Z")`;

function drawAll() {
  due = 0;
  svg.replaceChildren();
  svg.style.clipPath = opened?.isConnected ? around(canvas.boxOf(opened)) : '';
  const id = page.select;
  ownGuides();
  const holder = landing?.holder ?? holderOf(id);
  if (holder && options.grid && (block(id) || landing)) crosses(holder);
  if (hovered && hovered !== id) outline(hovered, 'hover');
  if (made) drawOutcome();
  if (landing) drawLanding();
  if (inserts) drawInsertion();
  if (bandOf) {
    const s = canvas.scaleNow();
    const o = canvas.toStage(bandOf.r.x, bandOf.r.y);
    draw('rect', {
      class: 'band',
      x: px(o.x),
      y: px(o.y),
      width: Math.round(bandOf.r.w * s),
      height: Math.round(bandOf.r.h * s),
    });
    for (const touched of bandOf.ids) outline(touched, 'also');
  }
  if (composes) for (const section of page.order) empty(section);
  if (marked?.isConnected && shown(marked) && !landing) {
    const b = canvas.boxOf(marked);
    draw('rect', {
      class: 'hover',
      x: px(b.x) - 2,
      y: px(b.y) - 2,
      width: Math.round(b.w) + 4,
      height: Math.round(b.h) + 4,
    });
  }
  if (trial) drawTrial();
  if (line !== null) drawLine();
  const e = canvas.element(id);
  if (e && shown(e) && page.also.length && !landing && !trial && !inserts && !bandOf) {
    all();
    return;
  }
  if (e && shown(e) && !landing && !trial && !inserts) {
    const b = canvas.boxOf(e);
    selection(b, block(id), grips.pulling());
    if (!bandOf) grips.marks(b);
  }
}

/** The box around some blocks, in px of the stage. */
export function frameOf(ids) {
  const bs = ids
    .map(canvas.element)
    .filter((e) => e && shown(e))
    .map(canvas.boxOf);
  const [x, y] = [Math.min(...bs.map((b) => b.x)), Math.min(...bs.map((b) => b.y))];
  return { x, y, w: Math.max(...bs.map((b) => b.x + b.w)) - x, h: Math.max(...bs.map((b) => b.y + b.h)) - y };
}

/** What is selected when it is several: each outlined, and a frame around them that resizes them when they stand in one grid. */
function all() {
  const ids = [page.select, ...page.also];
  for (const id of ids) outline(id, 'also');
  const placed = ids.every((id) => block(id)?.placed && holderOf(id) === holderOf(page.select));
  if (!block(page.select)) return; // sections need no frame
  selection(frameOf(ids), { placed, locked: ids.some((id) => block(id)?.locked) }, false);
}

/** Whether an element has a box; what is hidden on this width hasn't. */
const shown = (e) => e.getClientRects().length > 0;

/** Says in a section without blocks what can be done there. */
function empty(section) {
  if (page.places[section]?.length) return;
  const e = canvas.element(section);
  if (!e || !shown(e)) return;
  const b = canvas.boxOf(e);
  if (b.h < 20 || b.y > svg.clientHeight || b.y + b.h < 0) return;
  const words = 'Empty section. Press / for the Shelf, or drag a block here';
  const w = words.length * 6.4 + 24;
  draw('rect', {
    class: 'empty',
    x: px(b.x + (b.w - w) / 2),
    y: px(b.y + b.h / 2 - 13),
    width: Math.round(w),
    height: 26,
    rx: 3,
  });
  draw('text', { class: 'empty-text', x: b.x + b.w / 2, y: b.y + b.h / 2 + 4 }, words);
}

/** What would take something in, and the line where it would go. */
function drawInsertion() {
  const e = canvas.element(inserts.holder);
  if (!e || !shown(e)) return;
  const b = canvas.boxOf(e);
  draw('rect', {
    class: 'receives',
    x: px(b.x),
    y: px(b.y),
    width: Math.max(0, Math.round(b.w) - 1),
    height: Math.max(0, Math.round(b.h) - 1),
  });
  const words = page.names[own(inserts.holder)] ?? '';
  if (words) tag(b.x + words.length * 3.5 + 6, Math.max(b.y - 9, 9), words);
  if (!inserts.line) return;
  const o = canvas.toStage(inserts.line.x, inserts.line.y);
  const s = canvas.scaleNow();
  draw('path', { class: 'inserts', d: `M${px(o.x)} ${px(o.y)}l${inserts.line.w * s} ${inserts.line.h * s}` });
}

/** What is tried, with what to do about it. */
function drawTrial() {
  const e = canvas.element(trial.id);
  if (!e || !shown(e)) return;
  const b = canvas.boxOf(e);
  const text = `${trial.name}: Enter takes it, Esc leaves it`;
  const y = Math.max(b.y, 0);
  draw('rect', {
    class: 'trial',
    x: px(b.x),
    y: px(b.y),
    width: Math.max(0, Math.round(b.w) - 1),
    height: Math.max(0, Math.round(b.h) - 1),
  });
  const tag = draw('rect', { class: 'trial-tag', y: px(y), height: 22 });
  const words = draw('text', { class: 'trial-text', y: y + 15 }, text);
  const w = words.getComputedTextLength() + 20;
  const x = Math.min(b.x + b.w, svg.clientWidth) - w;
  tag.setAttribute('x', px(x));
  tag.setAttribute('width', Math.round(w));
  words.setAttribute('x', x + 10);
}

function drawLine() {
  const e = canvas.element(line || page.order[0]);
  if (!e || !shown(e)) return;
  const b = canvas.boxOf(e);
  const y = px(line ? b.y + b.h : b.y);
  draw('path', { class: 'between', d: `M${px(b.x)} ${y}H${px(b.x + b.w)}` });
}

function outline(id, name) {
  const e = canvas.element(id);
  if (!e || !shown(e)) return;
  const b = canvas.boxOf(e);
  draw('rect', {
    class: name,
    x: px(b.x),
    y: px(b.y),
    width: Math.max(0, Math.round(b.w) - 1),
    height: Math.max(0, Math.round(b.h) - 1),
  });
}

/** Corner marks and edge ticks, as on a survey plot. */
function selection(b, block, pulling) {
  const [l, t, r, m] = [px(b.x), px(b.y), px(b.x + b.w) - 1, px(b.y + b.h) - 1];
  draw('rect', { class: 'edge', x: l, y: t, width: Math.max(0, r - l), height: Math.max(0, m - t) });
  const c = Math.max(5, Math.min(14, b.w / 3, b.h / 3));
  const o = block ? 2 : -2; // blocks are marked outside, sections inside
  draw('path', {
    class: 'corner',
    d: `M${l - o} ${t - o + c}V${t - o}H${l - o + c} M${r + o - c} ${t - o}H${r + o}V${t - o + c} M${r + o} ${m + o - c}V${m + o}H${r + o - c} M${l - o + c} ${m + o}H${l - o}V${m + o - c}`,
  });
  if (!block) {
    if (!pulling && b.h > 40) grips.edgeMark(l, Math.max(t, 0) + 28);
    return;
  }
  const [cx, cy] = [(l + r) / 2, (t + m) / 2];
  draw('path', {
    class: 'corner',
    d: `M${cx - 7} ${t - o}H${cx + 7} M${cx - 7} ${m + o}H${cx + 7} M${l - o} ${cy - 7}V${cy + 7} M${r + o} ${cy - 7}V${cy + 7}`,
  });
  if (block.locked) lock(r, t);
  if (!block.placed || block.locked || pulling) return; // only in a grid are there edges to pull
  const points = { 3: [l, t], 2: [cx, t], 6: [r, t], 4: [r, cy], 12: [r, m], 8: [cx, m], 9: [l, m], 1: [l, cy] };
  const cursors = {
    3: 'nwse-resize',
    12: 'nwse-resize',
    6: 'nesw-resize',
    9: 'nesw-resize',
    2: 'ns-resize',
    8: 'ns-resize',
    4: 'ew-resize',
    1: 'ew-resize',
  };
  for (const [edges, [x, y]] of Object.entries(points)) {
    const e = draw('rect', { class: 'handle', x: x - 12, y: y - 12, width: 24, height: 24, 'data-edges': edges });
    e.style.cursor = cursors[edges];
  }
}

/** A closed lock at a corner. */
function lock(x, y) {
  draw('rect', { class: 'tag', x: px(x - 20), y: px(y - 10), width: 20, height: 20 });
  draw('path', { class: 'lock', d: `M${x - 14} ${y + 0.5}v-3a4 4 0 0 1 8 0v3M${x - 15.5} ${y + 0.5}h11v7h-11z` });
}

let crossed = { key: '' }; // the crosses that were drawn last

/** Small crosses where the tracks' edges meet, in the grid that is worked on. */
function crosses(holder) {
  const g = page.grids[holder];
  const e = canvas.element(holder);
  if (!g || !e) return;
  const box = canvas.boxOf(e);
  const s = canvas.scaleNow();
  if (Math.max(...g.columns) * s < 14) return; // they would hide what they are on
  const key = [box.x, box.y, s, landing !== null, svg.clientHeight, JSON.stringify(g)].join();
  if (key === crossed.key) {
    svg.append(crossed.path);
    return;
  }
  const xs = [];
  let x = g.x;
  for (const w of g.columns) {
    xs.push(x, x + w);
    x += w + g.columnGap;
  }
  const ys = [];
  let y = g.y;
  const rows = landing ? [...g.rows, ...Array(4).fill(g.rowHeight)] : g.rows;
  for (const h of rows) {
    ys.push(y);
    y += h + g.rowGap;
  }
  ys.push(y - g.rowGap);
  let d = '';
  for (const gy of ys) {
    const sy = px(box.y + gy * s);
    if (sy < 0 || sy > svg.clientHeight) continue;
    for (const gx of xs) {
      const sx = px(box.x + gx * s);
      d += `M${sx - 2.5} ${sy}h5M${sx} ${sy - 2.5}v5`;
    }
  }
  crossed = { key, path: draw('path', { class: 'cross', d }) };
}

function drawLanding() {
  const e = canvas.element(landing.holder);
  const g = page.grids[landing.holder];
  if (!e || !g) return;
  const box = canvas.boxOf(e);
  const s = canvas.scaleNow();
  const [ox, oy] = [box.x + g.x * s, box.y + g.y * s];
  const r = landing.rect;
  if (!made)
    draw('rect', {
      class: 'landing',
      x: ox + r.x * s,
      y: oy + r.y * s,
      width: Math.max(2, r.w * s),
      height: Math.max(2, r.h * s),
    });
  for (const u of landing.guides) {
    const at = u.at * s;
    draw('path', {
      class: 'guide',
      d: u.vertical
        ? `M${px(ox + at)} ${oy + u.from * s - 8}V${oy + u.to * s + 8}`
        : `M${ox + u.from * s - 8} ${px(oy + at)}H${ox + u.to * s + 8}`,
    });
  }
  for (const m of landing.gaps) gapMark(m, ox, oy, s);
  tag(ox + (r.x + r.w / 2) * s, oy + (r.y + r.h) * s + 14, `${Math.round(r.w)} × ${Math.round(r.h)}`);
}

/** The room to the next box, with its size; where it is as large as another, both are marked. */
function gapMark(m, ox, oy, s) {
  const [from, to, at] = m.across
    ? [ox + m.from * s, ox + m.to * s, oy + m.at * s]
    : [oy + m.from * s, oy + m.to * s, ox + m.at * s];
  const name = m.equal ? 'gap-mark equal' : 'gap-mark';
  draw('path', {
    class: name,
    d: m.across
      ? `M${px(from)} ${px(at)}H${px(to)}M${px(from)} ${px(at) - 4}v8M${px(to)} ${px(at) - 4}v8`
      : `M${px(at)} ${px(from)}V${px(to)}M${px(at) - 4} ${px(from)}h8M${px(at) - 4} ${px(to)}h8`,
  });
  const [x, y] = m.across ? [(from + to) / 2, at] : [at, (from + to) / 2];
  if (to - from > 18) tag(x, y, Math.round(m.to - m.from), m.equal);
  else tag(m.across ? x : x + 22, m.across ? y - 14 : y, Math.round(m.to - m.from), m.equal);
}
