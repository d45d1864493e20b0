// The keys of the Bench.
import { block, holderOf, page, sectionOf, zoneAt } from './page.js';
import { redo, send, undo } from './edits.js';
import { select, selectBeside } from './select.js';
import { setWidth } from './reach.js';
import { isWriting, write } from './words.js';
import * as canvas from './canvas.js';
import * as clipboard from './clipboard.js';
import * as overlay from './overlay.js';
import * as shelf from './shelf.js';
import * as tray from './tray.js';

const stage = document.getElementById('stage');
const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

const typing = (t) => t.closest?.('input, textarea, select, [contenteditable], dialog');

export function start() {
  document.addEventListener('keydown', (e) => {
    if (e.defaultPrevented || isWriting()) return;
    const control = e.ctrlKey || e.metaKey;
    if (control && e.key.toLowerCase() === 'z' && !typing(e.target)) return act(e, e.shiftKey ? redo : undo);
    if (typing(e.target)) return;
    if (control) return controlled(e);
    plain(e);
  });
}

function act(e, f) {
  e.preventDefault();
  f();
}

function controlled(e) {
  const id = page.select;
  const zone = zoneAt(page.width).id;
  if (e.key.toLowerCase() === 'a') return act(e, selectBeside);
  if (!id) return;
  const k = e.key.toLowerCase();
  const marked = Boolean(String(getSelection())); // text of the application's own is copied as such
  if (e.shiftKey && k === 'c') return act(e, clipboard.copyLook);
  if (e.shiftKey && k === 'v') return act(e, clipboard.pasteLook);
  if (k === 'c' && !marked) return act(e, clipboard.copy);
  if (k === 'x' && !marked) return act(e, clipboard.cut);
  if (e.key.toLowerCase() === 'd') act(e, () => send({ op: 'duplicate', node: id }));
  else if (e.shiftKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) act(e, () => send({ op: 'section.shift', node: sectionOf(id), dy: e.key === 'ArrowUp' ? -1 : 1 }));
  else if (e.key === 'PageUp' && block(id)) act(e, () => send({ op: 'block.layer', node: id, zone, dy: 1 }));
  else if (e.key === 'PageDown' && block(id)) act(e, () => send({ op: 'block.layer', node: id, zone, dy: -1 }));
}

function plain(e) {
  const id = page.select;
  const zone = zoneAt(page.width).id;
  const onStage = e.target === stage || e.target === document.body;
  const onSelected = onStage || e.target.closest?.('.overview-go');
  if (e.key === '/') return act(e, () => shelf.open());
  if (e.key === 't') return act(e, tray.toggleFold);
  if (e.key === '?') return act(e, () => document.getElementById('keys').showModal());
  if (e.key === '#') return act(e, () => { overlay.options.grid = !overlay.options.grid; overlay.redraw(); });
  if (/^[1-9]$/.test(e.key) && page.zones[e.key - 1]) return act(e, () => setWidth(page.zones[e.key - 1].typical));
  if (onSelected && (e.key === 'Delete' || e.key === 'Backspace') && id) return act(e, () => send({ op: 'delete', node: id }));
  if (!onStage) return;
  if (e.key === 'Tab' && e.target === stage) return tab(e);
  if (e.key === 'Escape' && id) return act(e, () => select(page.also.length ? id : holderOf(id)));
  if (e.key === 'Enter' && id) return act(e, () => goIn(id));
  if (arrows[e.key] && block(id)) {
    const [dx, dy] = arrows[e.key];
    act(e, () => send({ op: e.shiftKey ? 'block.resize' : 'block.nudge', node: id, zone, dx, dy }));
  }
}

/** Enter writes in a block, or goes to the first block of a container. */
function goIn(id) {
  if (block(id) && write(id)) return;
  const first = canvas.element(id)?.querySelector('[data-block]');
  if (first) select(first.dataset.block, { show: true });
}

/** Tab goes through the blocks and, past the last one, on out of the canvas. */
function tab(e) {
  const ids = canvas.shownBlocks();
  const at = ids.indexOf(page.select);
  const next = e.shiftKey ? at - 1 : at + 1;
  if (next < 0 || next >= ids.length || (e.shiftKey && at < 0)) return;
  act(e, () => select(ids[next], { show: true }));
}
