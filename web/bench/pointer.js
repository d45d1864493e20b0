// The pointer on the canvas: choosing, moving, resizing, scrolling, going in.
import * as rows from './rows.js';
import { block, holderOf, isGrid, own, page, selected, zoneAt } from './page.js';
import { send } from './edits.js';
import { alsoSelect, picks, select, selectAll } from './select.js';
import { drag } from '../shared/drag.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as grips from './grips.js';
import * as outcome from './outcome.js';
import * as overlay from './overlay.js';
import * as rulers from './rulers.js';
import { pull } from './handles.js';
import { goIn } from './tray.js';
import { isText, isWriting, stop as stopWriting, writeAt } from './words.js';

const stage = document.getElementById('stage');
const svg = document.getElementById('overlay');
const doubled = 500; // ms within which a second press makes a double one
let busy = false;
let last = { x: 0, y: 0, time: 0 }; // press

export function start() {
  fingers();
  svg.addEventListener('pointerdown', down);
  let looked = '';
  svg.addEventListener('pointermove', (e) => {
    if (busy) return;
    grips.point(Number(e.target.dataset?.handle ?? -1));
    const { block: id } = canvas.hit(e.clientX, e.clientY);
    overlay.hover(id);
    if (picks() && id !== looked) picks()(id, id && id !== page.select ? 'try' : 'leave');
    looked = id;
  });
  svg.addEventListener('pointerleave', () => overlay.hover(''));
  svg.addEventListener('dblclick', (e) => {
    // a slower hand, or a slower machine, than "doubled" has
    const { block: id, section, part, entry, cell } = canvas.hit(e.clientX, e.clientY);
    if (isText(id, part)) writeAt(id, part, e.clientX, e.clientY);
    else if ((id || section) === page.select && !picks()) goIn(entry, cell);
  });
  svg.addEventListener(
    'wheel',
    (e) => {
      e.preventDefault();
      if (e.ctrlKey || e.metaKey) canvas.zoomTo(canvas.scaleNow() * Math.exp(-e.deltaY / 300), e.clientX, e.clientY);
      else canvas.scrollBy(e.shiftKey ? e.deltaY : e.deltaX, e.shiftKey ? 0 : e.deltaY);
    },
    { passive: false },
  );
  svg.addEventListener('auxclick', (e) => e.preventDefault());
  // The space bar lets the page be moved by its ground.
  stage.addEventListener('keydown', (e) => {
    if (e.key === ' ' && !e.repeat) {
      space = true;
      stage.classList.add('panning');
    }
    if (e.key === ' ') e.preventDefault();
  });
  window.addEventListener('keyup', (e) => {
    if (e.key === ' ') {
      space = false;
      stage.classList.remove('panning');
    }
  });
  document.addEventListener('click', (e) => {
    const by = e.target.closest?.('[data-zoom]')?.dataset.zoom;
    if (by !== undefined) Number(by) ? canvas.zoomBy(Number(by)) : canvas.zoomTo(0);
  });
}

let space = false;
const touches = new Map(); // fingers on the canvas: where each was last

/** Two fingers move the page, and what one of them began is called off. */
function fingers() {
  svg.addEventListener(
    'pointerdown',
    (e) => {
      if (e.pointerType !== 'touch') return;
      touches.set(e.pointerId, { x: e.clientX, y: e.clientY });
      if (touches.size !== 2) return;
      e.stopImmediatePropagation();
      window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    },
    true,
  );
  window.addEventListener(
    'pointermove',
    (e) => {
      const was = touches.get(e.pointerId);
      if (!was) return;
      touches.set(e.pointerId, { x: e.clientX, y: e.clientY });
      if (touches.size === 2) {
        // each of them brings it half of its way
        e.stopImmediatePropagation();
        canvas.scrollBy((was.x - e.clientX) / 2, (was.y - e.clientY) / 2);
      }
    },
    true,
  );
  for (const name of ['pointerup', 'pointercancel'])
    window.addEventListener(name, (e) => touches.delete(e.pointerId), true);
}

/** Moves the page under the pointer: with the space bar, or the middle button. */
function pan(e) {
  let [x, y] = [e.clientX, e.clientY];
  drag(e, {
    slack: 0,
    begin() {
      busy = true;
      stage.classList.add('panning');
    },
    move(m) {
      canvas.scrollBy(x - m.clientX, y - m.clientY);
      [x, y] = [m.clientX, m.clientY];
    },
    drop() {},
    end() {
      busy = false;
      stage.classList.toggle('panning', space);
    },
  });
}

/** What is scrolled while something is dragged near the canvas's upper and lower edge. */
export const scrolls = { rect: () => stage.getBoundingClientRect(), by: (_, y) => canvas.scrollBy(0, y) };

function down(e) {
  if (e.button === 1 || (space && e.button === 0)) {
    e.preventDefault();
    pan(e);
    return;
  }
  if (e.button !== 0) return;
  const wrote = isWriting();
  stopWriting();
  stage.focus({ preventScroll: true });
  const here = Math.hypot(e.clientX - last.x, e.clientY - last.y) < 4;
  const soon = e.timeStamp - last.time <= doubled;
  const found = canvas.hit(e.clientX, e.clientY);
  last = { x: e.clientX, y: e.clientY, time: e.timeStamp };
  // Pressed twice, words are written in, whatever handle the first press drew there; so is the text that is
  // pressed by somebody who writes.
  const write = () => writeAt(found.block, found.part, e.clientX, e.clientY);
  const tap = (wrote || (here && soon)) && !picks() && isText(found.block, found.part) ? write : undefined;
  if (rulers.press(e)) return;
  if (e.target.dataset?.handle && gesture.loaded()) {
    pull(
      e,
      Number(e.target.dataset.handle),
      (on) => {
        busy = on;
      },
      tap,
    );
    return;
  }
  if (e.target.dataset?.lifts) {
    lift(e, e.target.dataset.lifts);
    return;
  }
  const edges = Number(e.target.dataset?.edges ?? 0);
  const id = edges ? page.select : found.block || found.section;
  if (picks()) {
    picks()(id, id && id !== page.select ? 'take' : 'leave');
    return;
  }
  if (!id) {
    select('');
    return;
  }
  if (found.block) rows.press(found.block, found.entry || found.part);
  if (edges) {
    (page.also.length ? resizeAll : resize)(e, id, edges, tap);
    return;
  }
  // Blocks with blocks, sections with sections.
  const more = block(page.select) ? found.block : page.select && found.section;
  if (e.shiftKey && more) {
    alsoSelect(more);
    return;
  }
  if (tap) {
    if (wrote) select(id);
    move(e, page.select && canvas.element(page.select)?.contains(canvas.element(id)) ? page.select : id, tap);
    return;
  }
  if (!found.block) {
    select(id);
    band(e, id);
    return;
  }
  if (page.also.length && [page.select, ...page.also].includes(id)) {
    move(e, id, () => select(id));
    return;
  }
  // A press where the last one was goes on to what lies stacked that.
  const stacked = canvas.stack(e.clientX, e.clientY);
  if (here && !soon && stacked.length > 1 && stacked.includes(page.select)) {
    move(e, page.select, () => select(stacked[(stacked.indexOf(page.select) + 1) % stacked.length]));
    return;
  }
  // What is selected is dragged by anything in it; a press alone chooses what is pressed.
  const inside = block(page.select) && id !== page.select && canvas.element(page.select)?.contains(canvas.element(id));
  if (inside) {
    move(e, page.select, () => select(id));
    return;
  }
  const item = itemAround(id);
  if (item && item !== id && !canvas.element(item).contains(canvas.element(page.select))) {
    select(id);
    move(e, item);
    return;
  }
  select(id);
  move(e, id);
}

/** What a Series shows as the item that a block is in, or ''. */
function itemAround(id) {
  for (let at = id; at && block(at); at = holderOf(at)) if (isItem(at)) return at;
  return '';
}

/** Drags a section by the mark at its edge, to between two others. */
function lift(e, section) {
  const rest = page.order.filter((id) => id !== section);
  let after = null;
  drag(e, {
    begin: () => {
      busy = true;
      canvas.element(section).setAttribute('data-moving', '');
    },
    move(m) {
      const { y } = canvas.toPage(m.clientX, m.clientY);
      after =
        rest.findLast((id) => {
          const r = canvas.element(id).getBoundingClientRect();
          return y > r.top + r.height / 2;
        }) ?? '';
      overlay.between(after);
    },
    drop() {
      if (after !== (page.order[page.order.indexOf(section) - 1] ?? ''))
        send({ op: 'order', node: section, zone: zoneAt(page.width).id, after });
    },
    end() {
      busy = false;
      canvas.element(section)?.removeAttribute('data-moving');
      overlay.between(null);
    },
    scroll: scrolls,
  });
}

/** Draws a band over a section's ground; what it touches is selected. */
function band(e, section) {
  const from = origin(e);
  let ids = [];
  drag(e, {
    begin: () => {
      busy = true;
    },
    move(m) {
      const to = origin(m);
      const r = {
        x: Math.min(from.x, to.x),
        y: Math.min(from.y, to.y) - canvas.scrolled(),
        w: Math.abs(to.x - from.x),
        h: Math.abs(to.y - from.y),
      };
      ids = inOrder(section, '')
        .filter((b) => b.x < r.x + r.w && r.x < b.x + b.w && b.y < r.y + r.h && r.y < b.y + b.h)
        .map((b) => b.id);
      overlay.band(r, ids);
    },
    drop: () => {
      if (ids.length) selectAll(ids);
    },
    end() {
      busy = false;
      overlay.band(null, []);
    },
    scroll: scrolls,
  });
}

/** Where an element is in the grid that it is dragged in, in px of the page. */
function within(rect, holder) {
  const o = canvas.gridOrigin(holder);
  return { x: rect.left - o.x, y: rect.top - o.y, w: rect.width, h: rect.height };
}

/** How far the pointer went since the press, in px of the page, what was scrolled meanwhile included. */
function way(e, from) {
  const to = canvas.toPage(e.clientX, e.clientY);
  return [to.x - from.x, to.y + canvas.scrolled() - from.y];
}

const origin = (e) => {
  const p = canvas.toPage(e.clientX, e.clientY);
  return { x: p.x, y: p.y + canvas.scrolled() };
};

function resize(e, id, edges, tap) {
  const from = origin(e);
  const holder = holderOf(id);
  let rect;
  let landing = null;
  /** @returns {Command} */
  const command = () => ({
    op: 'block.place',
    node: id,
    zone: zoneAt(page.width).id,
    place: gesture.placeOf(id, landing.place),
  });
  drag(e, {
    begin() {
      if (!block(id)?.placed || !gesture.loaded()) return false;
      rect = within(canvas.element(id).getBoundingClientRect(), holder);
      gesture.begin(holder, id);
      busy = true;
    },
    move(m) {
      const [x, y] = way(m, from);
      const [left, top, right, bottom] = [1, 2, 4, 8].map((edge, i) => (edges & edge ? [x, y][i % 2] : 0));
      landing = gesture.pull(edges, {
        x: rect.x + left,
        y: rect.y + top,
        w: rect.w - left + right,
        h: rect.h - top + bottom,
      });
      overlay.land({ holder, ...landing });
      outcome.ask(command());
    },
    tap,
    drop: () => send(command()),
    end() {
      busy = false;
      outcome.end();
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** The cells that all that is selected covers, in the zone that is shown. */
function around() {
  const all = selected().map((id) => block(id).zones[zoneAt(page.width).id]);
  const [left, top] = [Math.min(...all.map((p) => p[0])), Math.min(...all.map((p) => p[2]))];
  return [left, Math.max(...all.map((p) => p[0] + p[1])) - left, top, Math.max(...all.map((p) => p[2] + p[3])) - top];
}

/** Resizes all that is selected in proportion, by the frame around it. */
function resizeAll(e, id, edges, tap) {
  const from = origin(e);
  const holder = holderOf(id);
  const frame = overlay.frameOf(selected());
  let landing = null;
  /** @returns {Command} */
  const command = () => ({
    op: 'blocks.scale',
    node: page.select,
    with: page.also,
    zone: zoneAt(page.width).id,
    place: { ...landing.place, layer: 0 },
  });
  drag(e, {
    begin() {
      if (!gesture.loaded()) return false;
      gesture.begin(holder, id, around());
      busy = true;
    },
    move(m) {
      const [x, y] = way(m, from);
      const o = canvas.gridOrigin(holder);
      const s = canvas.scaleNow();
      const zero = canvas.toStage(0, 0);
      const r = { x: (frame.x - zero.x) / s - o.x, y: (frame.y - zero.y) / s - o.y, w: frame.w / s, h: frame.h / s };
      const [left, top, right, bottom] = [1, 2, 4, 8].map((edge, i) => (edges & edge ? [x, y][i % 2] : 0));
      landing = gesture.pull(edges, { x: r.x + left, y: r.y + top, w: r.w - left + right, h: r.h - top + bottom });
      overlay.land({ holder, ...landing });
      outcome.ask(command());
    },
    tap,
    drop: () => send(command()),
    end() {
      busy = false;
      outcome.end();
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/** The blocks that stand in order in a holder, but for one: their ids and boxes in px of the page's viewport. */
function inOrder(holder, past) {
  const around = canvas.element(holder);
  const ids = [...around.querySelectorAll('[data-block]')].filter(
    (e) =>
      e.dataset.block !== past &&
      e.getClientRects().length &&
      e.parentElement.closest('[data-block], [data-section]') === around,
  );
  return ids.map((e) => {
    const r = e.getBoundingClientRect();
    return { id: e.dataset.block, x: r.left, y: r.top, w: r.width, h: r.height };
  });
}

/** Where a point is among the blocks of a holder that stand in order: behind which one, and the line to draw. */
function among(holder, past, m) {
  const p = canvas.toPage(m.clientX, m.clientY);
  const r = canvas.element(holder).getBoundingClientRect();
  const boxes = inOrder(holder, past);
  const g = gesture.gap(
    boxes,
    Boolean(page.across[own(holder)]),
    { x: r.left, y: r.top, w: r.width, h: r.height },
    p.x,
    p.y,
  );
  return { holder, after: boxes[g.index - 1]?.id ?? 'first', line: g.line, index: g.index };
}

/** Where something would go behind a block of a holder, or at its end: what overlay.insertion draws. */
export function placeBehind(holder, behind) {
  const boxes = isGrid(holder) ? [] : inOrder(holder, '');
  const last = boxes.find((b) => b.id === behind) ?? boxes.at(-1);
  if (!last || !gesture.loaded()) return { holder };
  const r = canvas.element(holder).getBoundingClientRect();
  const within = { x: r.left, y: r.top, w: r.width, h: r.height };
  const across = Boolean(page.across[own(holder)]);
  return { holder, line: gesture.gap(boxes, across, within, last.x + last.w - 1, last.y + last.h - 1).line };
}

/** Whether a block is what a Series shows an item of, so that dragging it moves the item. */
const isItem = (id) => Boolean(block(id)?.design);

/** Drags a block: within what it stands in, or into another section or container, where it lands as it is shown. */
function move(e, id, tap) {
  const from = origin(e);
  const home = holderOf(id);
  let element;
  let all;
  let start;
  let over = null;
  drag(e, {
    begin() {
      if (
        !block(id) ||
        !gesture.loaded() ||
        (selected().includes(id) && selected().some((one) => block(one)?.locked)) ||
        block(id).locked
      )
        return false;
      element = canvas.element(id);
      all = (page.also.length ? [page.select, ...page.also] : [id]).map(canvas.element).filter(Boolean);
      start = element.getBoundingClientRect();
      start = { left: start.left, top: start.top + canvas.scrolled(), width: start.width, height: start.height };
      for (const moved of all) moved.setAttribute('data-moving', '');
      if (isGrid(home)) gesture.begin(home, id);
      over = { holder: home };
      busy = true;
    },
    move(m) {
      const [x, y] = way(m, from);
      for (const moved of all) moved.style.transform = `translate(${x}px, ${y}px)`;
      const to = isItem(id) ? home : under(m, id, home);
      if (!isGrid(to)) {
        over = among(to, id, m);
        overlay.land(null);
        overlay.insertion(over);
        outcome.ask(putting(id, home, over, m.altKey));
        return;
      }
      if (over.holder !== to) gesture.begin(to, to === home ? id : '');
      const r = within(
        { left: start.left + x, top: start.top + y - canvas.scrolled(), width: start.width, height: start.height },
        to,
      );
      over = { holder: to, ...(to === home ? gesture.move(r.x, r.y) : gesture.pull(15, r)) };
      overlay.insertion(to === home ? null : { holder: to });
      overlay.land(over);
      outcome.ask(putting(id, home, over, m.altKey));
    },
    tap,
    drop(m) {
      const command = putting(id, home, over, m.altKey);
      if (command) send(command);
    },
    end() {
      busy = false;
      outcome.end();
      for (const moved of all) {
        moved.removeAttribute('data-moving');
        moved.style.transform = '';
      }
      overlay.insertion(null);
      overlay.land(null);
    },
    scroll: scrolls,
  });
}

/**
 * The command that puts a block, or with copy another like it, where it is let go; null when nothing is to be done.
 * @returns {Command | null}
 */
function putting(id, home, over, copy) {
  const zone = zoneAt(page.width).id;
  if (isItem(id)) {
    if (over.index === undefined) return null;
    return copy ? { op: 'item.add', node: id } : { op: 'item.move', node: id, at: over.index };
  }
  if (page.also.length) return puttingAll(id, home, over, zone);
  const node = copy ? '@1' : id;
  /** @type {Command} */
  const to =
    over.place && over.holder === home
      ? { op: 'block.place', node, zone, place: gesture.placeOf(id, over.place) }
      : {
          op: 'block.move',
          node,
          into: over.holder,
          zone,
          ...(over.place ? { place: { ...over.place, layer: 0 } } : { after: over.after }),
        };
  return copy ? { op: 'many', parts: [{ op: 'duplicate', node: id }, to] } : to;
}

/**
 * The command that puts all that is selected where one of them is let go: as they stand to one another in a grid, else
 * one behind the other.
 * @returns {Command}
 */
function puttingAll(id, home, over, zone) {
  const rest = selected().filter((other) => other !== id);
  if (over.place && over.holder === home) {
    const [column, , row] = block(id).zones[zone];
    return { op: 'blocks.nudge', node: id, with: rest, zone, dx: over.place.column - column, dy: over.place.row - row };
  }
  return {
    op: 'blocks.move',
    node: id,
    with: rest,
    into: over.holder,
    zone,
    ...(over.place ? { place: { ...over.place, layer: 0 } } : { after: over.after }),
  };
}

/** The section or container under the pointer, past the block that is dragged; its home where there is none. */
function under(e, id, home) {
  const hit = canvas.hit(e.clientX, e.clientY, id);
  if (!hit.section || canvas.element(id)?.contains(canvas.element(hit.block))) return home;
  const on = block(hit.block);
  // At its edges a container is passed by, so that something can go beside it.
  if (on?.holds && on.kind !== 'series' && !atEdge(hit.block, e)) return hit.block;
  const holder = holderOf(hit.block) || hit.section;
  return block(holder)?.kind === 'series' ? holderOf(holder) || hit.section : holder;
}

const rim = 8; // px of the page at the edge of a container, above and below or beside what is in it

function atEdge(id, e) {
  const r = canvas.element(id).getBoundingClientRect();
  const p = canvas.toPage(e.clientX, e.clientY);
  const near = Math.min(rim, r.height / 4, r.width / 4);
  return p.x - r.left < near || r.right - p.x < near || p.y - r.top < near || r.bottom - p.y < near;
}
