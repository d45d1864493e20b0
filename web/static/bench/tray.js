// The Tray: sends what is entered as commands.
import { page, zoneAt } from './page.js';
import { promote, send } from './edits.js';
import { pick } from './picker.js';

let folded = false;

function command(e, value, op = e.dataset.op) {
  if (op === 'section.redesign') return { op, node: page.select, preset: value };
  return { op, node: page.select, zone: zoneAt(page.width).id, setting: e.dataset.setting || undefined, at: Number(e.dataset.at) || 0, value };
}

/** Plain lines as the HTML of paragraphs. */
function paragraphs(text) {
  return text.trim().split('\n').map((line) => {
    const p = document.createElement('p');
    p.textContent = line;
    return p.outerHTML;
  }).join('');
}

async function enter(e, value) {
  const state = await send(command(e, value));
  const field = document.getElementById(e.id);
  if (state && field === e && document.querySelector('#say.say-alert p')) field.setAttribute('aria-invalid', 'true'); // refused: what was typed stays
}

/** Asks for the name of a value that becomes the house style's. */
function name({ promote: setting, label, value }) {
  const dialog = document.getElementById('promote');
  document.getElementById('promote-what').textContent = `${label}: ${value}.`;
  const field = document.getElementById('promote-name');
  field.value = '';
  dialog.onclose = () => { if (dialog.returnValue === 'take') promote(setting, field.value.trim()); };
  dialog.returnValue = '';
  dialog.showModal();
}

export function start() {
  document.addEventListener('wheel', wheel, { passive: false });
  document.addEventListener('change', (e) => {
    const t = e.target;
    if (!t.closest('#tray') || !t.dataset.op) return;
    enter(t, 'words' in t.dataset ? paragraphs(t.value) : t.value.trim());
  });
  document.addEventListener('click', (e) => {
    const t = e.target.closest('#tray [data-op]');
    if (t?.tagName === 'BUTTON') {
      if ('pick' in t.dataset) pick((id) => send(command(t, id)), { video: t.dataset.pick === 'video' });
      else send(command(t, t.dataset.value));
    }
    const add = e.target.closest('#tray [data-adds]');
    if (add) fresh = Number(add.dataset.adds);
    const own = e.target.closest('#tray [data-promote]');
    if (own) name(own.dataset);
    if (e.target.closest('[data-fold]')) {
      folded = !folded;
      fold();
    }
  });
  document.addEventListener('keydown', (e) => {
    const t = e.target;
    if (!t.closest?.('#tray')) return;
    if (e.key === 'Escape' && 'defaultValue' in t && t.value !== t.defaultValue) { t.value = t.defaultValue; e.stopPropagation(); }
    if (e.key === 'Enter' && t.tagName === 'INPUT') t.blur();
  });
}

/** An ordinary wheel over the Tray moves it sideways, unless it moves a cluster that is higher than the Tray. */
function wheel(e) {
  const body = e.target.closest?.('#tray-body');
  if (!body || e.deltaX || e.ctrlKey || e.shiftKey) return;
  const cluster = e.target.closest('.cluster, textarea');
  if (cluster && cluster.scrollHeight > cluster.clientHeight + 1) return;
  body.scrollLeft += e.deltaY;
  e.preventDefault();
}

/** Keeps the Tray folded over its being drawn anew. */
export function fold() {
  const tray = document.getElementById('tray');
  tray.classList.toggle('folded', folded);
  tray.querySelector('[data-fold]')?.setAttribute('aria-expanded', String(!folded));
}

let was = null; // what had the focus, how far the Tray was scrolled, and what it was about
let fresh = null; // the entry that is being added, to be written next

/** What a control of the Tray is known by over its being drawn anew: its id, or what it says. */
const known = (e) => e.id || e.getAttribute('aria-label') || e.textContent.trim();

/** Remembers where the focus is before the Tray is drawn anew, and goes back there. */
export function remember() {
  const a = document.activeElement;
  const tray = document.getElementById('tray');
  if (was && was.tray !== tray) return; // drawn anew already, by another part of the same answer
  was = { tray, control: a?.closest('#tray-body, .tray-acts') ? known(a) : '', scroll: document.getElementById('tray-body')?.scrollLeft ?? 0, kind: tray?.dataset.kind };
}

export function restore() {
  fold();
  const tray = document.getElementById('tray');
  const body = document.getElementById('tray-body');
  if (!body || !was) return;
  body.scrollLeft = tray.dataset.kind === was.kind ? was.scroll : 0; // another kind begins at its beginning
  const before = was;
  was = null;
  if (document.activeElement !== document.body && fresh === null) return;
  const controls = [...tray.querySelectorAll('button, input, select, textarea')];
  const entry = fresh !== null ? controls.find((e) => e.id.startsWith(`e-${fresh}-`)) : null;
  fresh = null;
  (entry ?? (before.control ? controls.find((e) => known(e) === before.control) : null))?.focus({ preventScroll: !entry });
}
