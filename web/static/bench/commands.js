// What the commands of the table (web/bench/commands.go) do, why one can't be done now, the list of
// all of them and the menu of what is selected.
import { block, holderOf, page, sectionOf, site, zoneAt } from './page.js';
import { redo, say, send, undo } from './edits.js';
import { select, selectBeside } from './select.js';
import { setWidth } from './reach.js';
import { write } from './words.js';
import { open } from '../controls/panel.js';
import * as canvas from './canvas.js';
import * as clipboard from './clipboard.js';
import * as overlay from './overlay.js';
import * as shelf from './shelf.js';
import * as tray from './tray.js';

export const table = JSON.parse(document.getElementById('commands').textContent);
const composes = document.body.dataset.composes === 'yes';
const stage = document.getElementById('stage');
const panel = document.getElementById('panel-commands');
const search = panel.querySelector('input');
const list = panel.querySelector('ul');

const zone = () => zoneAt(page.width).id;
const on = (command) => send({ node: page.select, zone: zone(), ...command });
const together = (op, value) => on({ op, value, with: page.also });
const nudge = (dx, dy) => on({ op: 'block.nudge', dx, dy });
const resize = (dx, dy) => on({ op: 'block.resize', dx, dy });

/** Enter writes in a block, or goes to the first block of a container. */
function goIn() {
  if (block(page.select) && write(page.select)) return;
  const first = canvas.element(page.select)?.querySelector('[data-block]');
  if (first) select(first.dataset.block, { show: true });
}

/** Goes through the blocks; false past the last one, from where the key goes on out of the canvas. */
function step(by) {
  const ids = canvas.shownBlocks();
  const at = ids.indexOf(page.select);
  const next = at + by;
  if (next < 0 || next >= ids.length || (by < 0 && at < 0)) return false;
  select(ids[next], { show: true });
  return true;
}

async function pasteFromList() {
  const text = await navigator.clipboard.readText().catch(() => '');
  if (text) clipboard.pasteText(text);
  else say('Press Ctrl+V: this browser doesn’t let the clipboard be read from a list.');
}

const press = (selector) => document.querySelector(selector)?.click();
const go = (path) => location.assign(site + path);

/** What each does, by its id. */
export const does = {
  commands: () => show(table, document.querySelector('.top-page')),
  shelf: () => shelf.open(),
  next: () => step(1), previous: () => step(-1), in: goIn,
  out: () => select(page.also.length ? page.select : holderOf(page.select)),
  beside: selectBeside,
  undo: () => undo(), redo, copy: clipboard.copy, cut: clipboard.cut, paste: pasteFromList, 'copy-look': clipboard.copyLook, 'paste-look': clipboard.pasteLook,
  duplicate: () => on({ op: 'duplicate' }), delete: () => on({ op: 'delete' }), hide: () => on({ op: 'block.hide', hide: true }),
  left: () => nudge(-1, 0), right: () => nudge(1, 0), up: () => nudge(0, -1), down: () => nudge(0, 1),
  wider: () => resize(1, 0), narrower: () => resize(-1, 0), taller: () => resize(0, 1), 'less-tall': () => resize(0, -1),
  earlier: () => send({ op: 'section.shift', node: sectionOf(page.select), dy: -1 }), later: () => send({ op: 'section.shift', node: sectionOf(page.select), dy: 1 }),
  forward: () => on({ op: 'block.layer', dy: 1 }), backward: () => on({ op: 'block.layer', dy: -1 }),
  front: () => together('blocks.order', 'front'), back: () => together('blocks.order', 'back'),
  ...Object.fromEntries(['left', 'center', 'right', 'top', 'middle', 'bottom'].map((how) => [`align-${how}`, () => together('blocks.align', how)])),
  'spread-across': () => together('blocks.spread', 'across'), 'spread-down': () => together('blocks.spread', 'down'),
  'same-width': () => together('blocks.same', 'width'), 'same-height': () => together('blocks.same', 'height'), tidy: () => together('blocks.tidy'),
  ...Object.fromEntries([0, 1, 2].map((i) => [`zone-${i + 1}`, () => page.zones[i] && setWidth(page.zones[i].typical)])),
  marks: () => { overlay.options.grid = !overlay.options.grid; overlay.redraw(); },
  fold: tray.toggleFold,
  house: () => go('/house'), library: () => go('/library'), pages: () => go(''),
  try: () => press('.top-try'), publish: () => press('.top-publish'),
  help: () => document.getElementById('keys').showModal(),
};

/** Why a command can't be done now, or ''. */
export function why(c) {
  if (c.composes && !composes) return 'Your role changes words and pictures only';
  if (c.needs && !page.select) return 'Select something first';
  if (['block', 'cells'].includes(c.needs) && !block(page.select)) return 'Select a block first';
  if (c.needs === 'cells' && !block(page.select).placed) return 'Only in a grid';
  if (c.needs === 'several' && !page.also.length) return 'Select several blocks first';
  return '';
}

/** Does a command; false when the key that asked for it is the browser's after all. */
export function run(c) {
  const reason = why(c);
  if (reason) { say(`${c.name}: ${reason[0].toLowerCase()}${reason.slice(1)}.`); return true; }
  if (c.id !== 'commands') localStorage.setItem('commands', JSON.stringify([c.id, ...used().filter((id) => id !== c.id)].slice(0, 8)));
  return does[c.id]() !== false;
}

const used = () => JSON.parse(localStorage.getItem('commands') ?? '[]');

/** Does what a key of the table does; false when it is none of them. */
export function key(e) {
  const name = e.key.length === 1 && e.key !== '#' && e.key !== '?' && e.key !== '/' ? e.key.toLowerCase() : e.key;
  const shift = e.shiftKey && !['#', '?', '/'].includes(e.key);
  const pressed = `${e.ctrlKey || e.metaKey ? 'ctrl+' : ''}${shift ? 'shift+' : ''}${name}`.toLowerCase();
  const c = table.find((one) => one.keys?.some((k) => k.toLowerCase() === pressed));
  if (!c || c.id === 'paste') return false; // the browser's own event brings what is pasted
  const onStage = e.target === stage || e.target === document.body;
  if (c.onCanvas && !onStage) return false;
  if (['copy', 'cut'].includes(c.id) && String(getSelection())) return false; // text of the application's own
  if (c.id === 'delete' && !onStage && !e.target.closest?.('.overview-go')) return false;
  if (why(c) && !e.ctrlKey && !e.metaKey && (composes || !c.composes || !page.select)) return false;
  return run(c);
}

let offered = []; // the commands that the panel has, those that match first
let at = 0;

const spoken = { ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓', Escape: 'Esc' };
const written = (keys) => keys?.[0].split('+').map((k) => spoken[k] ?? k).join('+') ?? '';

function draw(all) {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean);
  const rank = (c) => { const i = used().indexOf(c.id); return (why(c) ? 100 : 0) + (words.length || i < 0 ? 50 : i); };
  const begins = (c, w) => `${c.name} ${c.find ?? ''}`.toLowerCase().split(/[\s:,]+/).some((own) => own.startsWith(w));
  offered = all.filter((c) => words.every((w) => begins(c, w)))
    .map((c, i) => [c, i]).sort(([a, i], [b, k]) => rank(a) - rank(b) || Number(!a.name.toLowerCase().startsWith(words[0] ?? '')) - Number(!b.name.toLowerCase().startsWith(words[0] ?? '')) || i - k).map(([c]) => c);
  at = Math.min(at, Math.max(offered.length - 1, 0));
  list.replaceChildren(...offered.map((c, i) => {
    const li = document.createElement('li');
    li.id = `command-${c.id}`;
    li.setAttribute('role', 'option');
    li.setAttribute('aria-selected', String(i === at));
    const reason = why(c);
    if (reason) li.setAttribute('aria-disabled', 'true');
    const name = document.createElement('span');
    name.textContent = c.name;
    const beside = document.createElement(reason ? 'small' : 'kbd');
    beside.textContent = reason || written(c.keys);
    li.append(name, ...(beside.textContent ? [beside] : []));
    return li;
  }));
  search.setAttribute('aria-activedescendant', offered[at] ? `command-${offered[at].id}` : '');
  list.children[at]?.scrollIntoView({ block: 'nearest' });
}

function take(c) {
  if (!c || why(c)) return;
  panel.hidePopover();
  stage.focus({ preventScroll: true });
  run(c);
}

let all = table; // that the panel is about

/** Shows commands to search in, beside an element or at a point. */
function show(some, anchor) {
  all = some;
  search.value = '';
  at = 0;
  open(panel, anchor);
  draw(all);
  search.focus();
}

/** The menu of what is selected, at a point. */
function menu(x, y) {
  show(table.filter((c) => c.menu && !why(c)), { getBoundingClientRect: () => new DOMRect(x, y, 0, 0), tagName: '', isConnected: false });
}

export function start() {
  search.addEventListener('input', () => { at = 0; draw(all); });
  panel.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (by) { e.preventDefault(); at = (at + by + offered.length) % Math.max(offered.length, 1); draw(all); }
    if (e.key === 'Enter') { e.preventDefault(); take(offered[at]); }
  });
  list.addEventListener('click', (e) => { const li = e.target.closest('li'); if (li) take(offered[[...list.children].indexOf(li)]); });
  stage.addEventListener('contextmenu', (e) => {
    e.preventDefault();
    if (e.button !== 2 || e.clientX === 0) { // by the menu key: at what is selected
      const r = canvas.element(page.select) && canvas.boxOf(canvas.element(page.select));
      const s = stage.getBoundingClientRect();
      menu(s.left + (r?.x ?? 40) + 20, s.top + Math.max(r?.y ?? 40, 10) + 20);
      return;
    }
    const { block: id, section } = canvas.hit(e.clientX, e.clientY);
    const chosen = id || section;
    if (chosen && ![page.select, ...page.also].includes(chosen)) select(chosen);
    menu(e.clientX, e.clientY);
  });
}
