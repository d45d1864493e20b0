// Sets the Bench up.
import '../shared/answers.js';
import '../shared/ask.js';
import { page, read, take } from './page.js';
import { keep, onAnswer, onState, redo, send, undo } from './edits.js';
import * as canvas from './canvas.js';
import * as checks from './checks.js';
import * as clipboard from './clipboard.js';
import * as commands from './commands.js';
import * as companion from './companion.js';
import { does } from './does.js';
import * as focus from './focus.js';
import * as drops from './drops.js';
import * as gesture from './gesture.js';
import * as grips from './grips.js';
import * as history from './history.js';
import * as keys from './keys.js';
import * as means from './means.js';
import * as menu from './menu.js';
import * as overlay from './overlay.js';
import * as overview from './overview.js';
import * as picker from './picker.js';
import * as pointer from './pointer.js';
import * as reach from './reach.js';
import * as rulers from './rulers.js';
import { mark } from './select.js';
import * as shelf from './shelf.js';
import * as tell from './tell.js';
import * as tray from './tray.js';
import * as tree from './tree.js';
import * as where from './where.js';
import * as words from './words.js';
import * as zones from './zones.js';
import * as colour from '../controls/colour.js';
import * as gradient from '../controls/gradient.js';
import * as icons from '../controls/icons.js';
import * as link from '../controls/link.js';
import * as number from '../controls/number.js';
import * as options from '../controls/options.js';
import * as shadow from '../controls/shadow.js';

commands.provide(does);
grips.drawnBy(overlay.redraw);

const state = read();
take(state);
page.width = state.width;
page.select = state.select;

/** Asks under which name and for what a section is kept on the Shelf. */
function askToKeep(section) {
  const dialog = document.getElementById('keep');
  const [name, purpose, all] = ['keep-name', 'keep-purpose', 'keep-all'].map((id) => document.getElementById(id));
  const item = document.querySelector(`.overview-item[data-section="${section}"]`);
  name.value = item?.querySelector('.overview-name > span').textContent ?? '';
  all.checked = false;
  document
    .getElementById('keep-drawing')
    .replaceChildren(item?.querySelector('.overview-drawing').cloneNode(true) ?? '');
  dialog.onclose = () => {
    if (dialog.returnValue === 'take') keep(section, { name: name.value, purpose: purpose.value, all: all.checked });
  };
  dialog.returnValue = '';
  dialog.showModal();
  name.select();
}

document.addEventListener('click', (e) => {
  const c = e.target.closest('[data-command]');
  if (c) send(JSON.parse(c.dataset.command));
  const k = e.target.closest('[data-keep]');
  if (k) askToKeep(k.dataset.keep);
  const d = e.target.closest('[data-do]');
  if (d) (d.dataset.do === 'undo' ? undo : redo)();
  if (e.target.closest('[data-dismiss]')) document.getElementById('say').replaceChildren();
  if (e.target.closest('#keys-open')) document.getElementById('keys').showModal();
});
document.addEventListener('htmx:before:swap', () => {
  tray.remember();
  focus.remember();
});
document.addEventListener('htmx:after:swap', () => {
  tray.restore();
  focus.restore();
});

onState((answer) => {
  if (answer.chosen) page.select = answer.select;
  page.also = answer.chosen ? [] : page.also.filter((id) => canvas.element(id)); // some may be gone
  grips.handled(answer.select);
  const again = words.keep();
  if (answer.show.length || answer.order) canvas.apply(answer);
  again();
  overlay.redraw();
});
onAnswer((answer) => {
  mark();
  tray.restore();
  tray.showState();
  if (answer.chosen) canvas.show(page.select);
});

link.places.of = () =>
  page.order.map((id) => {
    const e = canvas.element(id);
    return { id, name: page.names[id] ?? '', anchor: e?.id ?? '', words: e?.textContent ?? '' };
  });
link.places.make = (id, anchor) => send({ op: 'section.anchor', node: id, value: anchor });

gesture.load(); // while the page comes
await canvas.ready;
tray.stand();
canvas.setWidth(page.width);
canvas.onScroll(overlay.redraw);
canvas.onLay(overlay.redraw);
for (const part of [
  reach,
  rulers,
  pointer,
  keys,
  number,
  options,
  colour,
  gradient,
  shadow,
  link,
  icons,
  tray,
  overview,
  tree,
  shelf,
  tell,
  picker,
  drops,
  focus,
  clipboard,
  means,
  menu,
  history,
  words,
  checks,
  zones,
  companion,
])
  part.start();
reach.lay();
if (page.select) canvas.show(page.select); // as a link asked for
where.start();
grips.handled(page.select);
mark();
document.body.dataset.usable = '';
await Promise.all([gesture.load(), canvas.doc().fonts.ready]);
overlay.redraw();
document.body.dataset.ready = '';
(window.requestIdleCallback ?? setTimeout)(() => words.load()); // before it is needed, and in nobody's way
