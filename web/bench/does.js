// What the commands of the table (web/model/commands.go) do.
import { block, holderOf, page, sectionOf, selected, site, zoneAt } from './page.js';
import { redo, say, send, undo } from './edits.js';
import { select, selectBeside } from './select.js';
import { setWidth } from './reach.js';
import { ask } from './tries.js';
import { write } from './words.js';
import { table } from './commands.js';
import { tell } from './tell.js';
import { show as list } from './menu.js';
import * as canvas from './canvas.js';
import * as checks from './checks.js';
import * as clipboard from './clipboard.js';
import * as companion from './companion.js';
import * as overlay from './overlay.js';
import * as rulers from './rulers.js';
import * as shelf from './shelf.js';
import * as tray from './tray.js';
import * as zones from './zones.js';

const zone = () => zoneAt(page.width).id;
const aside = (command) => ({ node: page.select, zone: zone(), ...command });
const on = (command) => send(aside(command));
const all = (op, more) => send({ op: 'many', parts: selected().map((node) => ({ op, node, ...more })) });
const together = (op, value) => on({ op, value, with: page.also });
const nudge = (dx, dy) => on({ op: 'block.nudge', dx, dy });
const resize = (dx, dy) => on({ op: 'block.resize', dx, dy });

/** What is called by its name, as it is said; several are counted. */
const names = () =>
  page.also.length ? `${selected().length} blocks` : (page.names[page.select] ?? 'what is selected');

/** What changes how large the page is shown, which is said. */
const zoomed = (f) => () => {
  f();
  tell(`Zoom ${Math.round(canvas.scaleNow() * 100)} %.`, 'zoom');
};

/** Shows a zone at its typical width; that is said also where it is shown already. */
function goToZone(i) {
  const to = page.zones[i];
  if (!to) return;
  setWidth(to.typical);
  tell(`${to.name}, ${to.typical} px.`, 'zone');
}

/** Enter writes in a block, goes to the first block of a container, chooses a picture, or goes to a table's cells. */
async function goIn() {
  if (block(page.select) && write(page.select)) return;
  const first = canvas.element(page.select)?.querySelector('[data-block]');
  if (first) select(first.dataset.block, { show: true });
  else if (!block(page.select) || !(await tray.goIn()))
    say('There are no words in it to write, no picture to choose, and no block to go to.');
}

/** Goes through the blocks; false past the last one, from where the key goes on out of the canvas. */
function step(by) {
  const ids = canvas.shownBlocks();
  let at = ids.indexOf(page.select);
  if (at < 0 && page.select) {
    // a section: from before its first block on
    const inside = ids.findIndex((id) => sectionOf(id) === page.select);
    at = inside < 0 ? at : inside - (by > 0 ? 1 : 0);
  }
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
const everywhere = (role) =>
  location.assign(location.pathname.replace(/bench$/, `everywhere/${sectionOf(page.select)}?role=${role}`));

const paneOf = (e) => ['#overview', '#stage', '#tray'].findIndex((of) => e?.closest?.(of));
let lastPane = -1; // that had the focus, which a field of the Tray gives up when its value is taken
document.addEventListener('focusin', (e) => {
  lastPane = paneOf(e.target);
});

/** Goes to the next pane, or the one before: the Overview, the canvas, the Tray. */
function pane(by) {
  const panes = [
    ['#overview', '.overview-item.selected .overview-go', '.overview-go'],
    ['#stage'],
    ['#tray', '.tray-body :is(input:not([type="hidden"]), button:not([tabindex="-1"]), textarea)', 'button'],
  ];
  const at = document.activeElement === document.body ? lastPane : paneOf(document.activeElement);
  const [of, ...wanted] = panes[(at + by + (at < 0 && by < 0 ? 1 : 0) + panes.length) % panes.length];
  const all = document.querySelector(of);
  if (of === '#tray' && all.querySelector('.tray-body')?.offsetHeight < 40) tray.toggleFold();
  const seen = (one) => [...all.querySelectorAll(one)].find((e) => e.getClientRects().length);
  (wanted.length ? wanted.map(seen).find(Boolean) : all)?.focus();
}

/** What each does, by its id. */
export const does = {
  commands: () => list(table, document.querySelector('.top-page')),
  shelf: () => shelf.open(),
  next: () => step(1),
  previous: () => step(-1),
  in: goIn,
  out: () => select(page.also.length ? page.select : holderOf(page.select)),
  beside: selectBeside,
  'next-pane': () => pane(1),
  'previous-pane': () => pane(-1),
  undo: () => undo(),
  redo,
  copy: () => clipboard.copy().then((done) => done && tell(`Copied: ${names()}.`, 'copy')),
  cut: clipboard.cut,
  paste: pasteFromList,
  'copy-look': () => clipboard.copyLook().then(() => tell(`The look of ${names()} is copied.`, 'copy')),
  'paste-look': clipboard.pasteLook,
  group: () => together('blocks.group', ''),
  line: () => together('blocks.group', 'line-up'),
  ungroup: () => on({ op: 'block.ungroup' }),
  series: () => ask(aside({ op: 'blocks.series', with: page.also }), 'A Series'),
  loose: () => on({ op: 'block.loose' }),
  flip: () => on({ op: 'flip' }),
  alike: () => on({ op: 'block.alike' }),
  room: () => ask(aside({ op: 'block.room' }), 'Room below'),
  lock: () => all('block.lock', { hide: !selected().every((id) => block(id)?.locked) }),
  // The card that a Series repeats has no copy beside it: there is another item.
  duplicate: () => on({ op: block(page.select)?.design ? 'item.add' : 'duplicate' }),
  delete: () => on({ op: 'delete' }),
  hide: () => on({ op: 'block.hide', hide: true }),
  left: () => nudge(-1, 0),
  right: () => nudge(1, 0),
  up: () => nudge(0, -1),
  down: () => nudge(0, 1),
  wider: () => resize(1, 0),
  narrower: () => resize(-1, 0),
  taller: () => resize(0, 1),
  'less-tall': () => resize(0, -1),
  share: () => send({ op: 'section.share', node: sectionOf(page.select) }),
  'site-bar': () => everywhere('header'),
  'site-footer': () => everywhere('footer'),
  own: () => send({ op: 'section.own', node: sectionOf(page.select) }),
  earlier: () => send({ op: 'order', node: sectionOf(page.select), zone: zone(), dy: -1 }),
  later: () => send({ op: 'order', node: sectionOf(page.select), zone: zone(), dy: 1 }),
  sooner: () => on({ op: 'order', dy: -1 }),
  after: () => on({ op: 'order', dy: 1 }),
  forward: () => on({ op: 'block.layer', dy: 1 }),
  backward: () => on({ op: 'block.layer', dy: -1 }),
  front: () => together('blocks.order', 'front'),
  back: () => together('blocks.order', 'back'),
  ...Object.fromEntries(
    ['left', 'center', 'right', 'top', 'middle', 'bottom'].map((how) => [
      `align-${how}`,
      () => together('blocks.align', how),
    ]),
  ),
  'spread-across': () => together('blocks.spread', 'across'),
  'spread-down': () => together('blocks.spread', 'down'),
  'same-width': () => together('blocks.same', 'width'),
  'same-height': () => together('blocks.same', 'height'),
  tidy: () => together('blocks.tidy'),
  ...Object.fromEntries([0, 1, 2].map((i) => [`zone-${i + 1}`, () => goToZone(i)])),
  'zoom-in': zoomed(() => canvas.zoomBy(1)),
  'zoom-out': zoomed(() => canvas.zoomBy(-1)),
  'zoom-fit': zoomed(() => canvas.zoomTo(0)),
  'zoom-full': zoomed(() => canvas.zoomTo(1)),
  'zoom-page': zoomed(canvas.zoomToAll),
  rulers: () => {
    rulers.toggle();
    tell(`The rulers are ${rulers.shown() ? 'shown' : 'hidden'}.`, 'rulers');
  },
  guide: rulers.ask,
  marks: () => {
    overlay.options.grid = !overlay.options.grid;
    overlay.redraw();
    tell(`The marks of the grid are ${overlay.options.grid ? 'shown' : 'hidden'}.`, 'marks');
  },
  fold: () => {
    tray.toggleFold();
    tell(`The Tray is ${document.getElementById('tray').classList.contains('folded') ? 'folded' : 'open'}.`, 'fold');
  },
  again: () =>
    ask({ op: 'zone.follow', setting: 'places', node: sectionOf(page.select), zone: zone() }, 'Arranged by the rule'),
  'next-finding': () => checks.step(1),
  'previous-finding': () => checks.step(-1),
  mend: checks.mendAll,
  checks: () => press('#checks-open'),
  zones: zones.open,
  companion: () => {
    companion.toggle();
    tell(
      `The page ${document.body.hasAttribute('data-companioned') ? 'stands at a second width too' : 'stands alone'}.`,
      'companion',
    );
  },
  film: checks.play,
  house: () => go('/house'),
  library: () => go('/library'),
  pages: () => go(''),
  versions: () => location.assign(location.pathname.replace(/bench$/, 'versions')),
  try: () => press('.top-try'),
  publish: () => press('.top-publish'),
  help: () => document.getElementById('keys').showModal(),
};
