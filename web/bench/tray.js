// The Tray: makes commands of what its controls say, and keeps its place over being drawn anew.
import { block, page, zoneAt } from './page.js';
import { promote, restyle, send, settled } from './edits.js';
import { newTab } from '../controls/link.js';
import { pick } from './picker.js';
import { attempt, leave, onTried, take } from './tries.js';
import { drag } from '../shared/drag.js';
import { hold } from '../shared/hold.js';
import { note, paint, same } from '../controls/control.js';
import { open } from '../controls/panel.js';
import * as colour from '../controls/colour.js';
import * as number from '../controls/number.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';
import * as place from './place.js';
import * as rows from './rows.js';
import { pickBlock } from './select.js';
import { nextIn } from '../shared/list.js';

const work = document.querySelector('.work');
const least = 34;
const most = 420;
const two = 300; // px of height from which clusters stand in two rows
const tabs = new Map(); // the tab that was chosen last, by cluster
let folded = false;
let state = ''; // that the selection is shown in: hover, focus or active
let stated = ''; // the selection that it is about
let about = null; // the field of the last try

/**
 * The command that sets something of the selection; more has values of further settings.
 * @returns {Command}
 */
function command(bound, value, more, op = bound.op) {
  const one = (setting, v) => ({
    op,
    node: page.select,
    zone: zoneAt(page.width).id,
    setting: setting || undefined,
    at: Number(bound.at) || 0,
    value: v,
  });
  if (!more || !Object.keys(more).length) return one(bound.setting, value);
  return { op: 'many', parts: [one(bound.setting, value), ...Object.entries(more).map(([s, v]) => one(s, v))] };
}

/** Plain lines as the HTML of paragraphs. */
function paragraphs(text) {
  return text
    .trim()
    .split('\n')
    .map((line) => {
      const p = document.createElement('p');
      p.textContent = line;
      return p.outerHTML;
    })
    .join('');
}

/** What was written in a field; a link that opens in a new tab goes on to. */
function entered(t) {
  const v = t.value.trim();
  return v && t.dataset.link?.endsWith(newTab) ? v + newTab : v;
}

async function enter(e, value) {
  const answer = await send(command(e.dataset, value));
  const field = document.getElementById(e.id);
  if (answer && field === e && document.querySelector('#say.say-alert p')) field.setAttribute('aria-invalid', 'true'); // refused: what was typed stays
}

/** Asks for the name of a value that becomes the house style's. */
function name({ promote: setting, label, value }) {
  const dialog = document.getElementById('promote');
  document.getElementById('promote-what').textContent = `${label}: ${value}.`;
  const field = document.getElementById('promote-name');
  field.value = '';
  dialog.onclose = () => {
    if (dialog.returnValue === 'take') promote(setting, field.value.trim());
  };
  dialog.returnValue = '';
  dialog.showModal();
}

function control({ detail: { act, bound, value, more } }) {
  if (!bound.op || bound.op.includes(':')) return; // it isn't the selection's
  about = bound.id;
  if (act === 'leave') {
    leave();
    note(document.getElementById(about) ?? work, '');
    return;
  }
  if (act === 'try') attempt(command(bound, value, more));
  else take(command(bound, value, more));
}

function click(e) {
  const t = e.target.closest('#tray [data-op]');
  if (t?.tagName === 'BUTTON' && !t.dataset.opens) {
    if ('pick' in t.dataset) pick((id) => send(command(t.dataset, id)), { sort: t.dataset.pick });
    else take(command(t.dataset, t.dataset.value));
  }
  const add = e.target.closest('#tray [data-adds]');
  if (add) {
    fresh = Number(add.dataset.adds);
    typed();
    typed = hold(); // the words for it may come before it does
    settled().then(() => typed());
  }
  const own = e.target.closest('#tray [data-promote]');
  if (own) name(own.dataset);
  if (e.target.closest('#tray [data-restyle]')) restyle();
  if (e.target.closest('[data-fold]')) {
    folded = !folded;
    fold();
  }
  if (e.target.closest('[data-beside]')) choosePlace();
  const tab = e.target.closest('#tray [data-tab]');
  if (tab) chooseTab(tab);
  const cluster = e.target.closest('[data-cluster]');
  if (cluster) bring(cluster.dataset.cluster);
  const more = e.target.closest('[data-opens="acts"]');
  if (more) acts(more);
  const play = e.target.closest('[data-play]');
  if (play) playOn(JSON.parse(play.dataset.play));
}

/**
 * Goes into what is selected by what its Tray has of it: opens the chooser for its file, or the one of the entry that is
 * meant; goes into a cell of a table. False where it has neither. What holds blocks has a picture only where one was put
 * behind them.
 */
export async function goIn(entry = '', cell = null) {
  const early = hold(); // what is typed before the Tray is about it
  await settled();
  const words = early();
  const all = [...document.querySelectorAll('#tray [data-pick]')].filter(
    (b) => b.querySelector('img') || (block(page.select) && !block(page.select).holds),
  );
  const of = all.find((b) => b.dataset.at === entry) ?? all[0];
  of?.click();
  if (of) return true;
  const [row, column] = [cell?.parentElement.rowIndex ?? 0, cell?.cellIndex ?? 0];
  const field = document.querySelectorAll('#tray .cells tr')[row]?.querySelectorAll('input')[column];
  if (!field) return false;
  const panel = field.closest('[role="tabpanel"]');
  if (panel?.hidden) chooseTab(document.querySelector(`[aria-controls="${panel.id}"]`));
  field.focus();
  field.select();
  if (words) document.execCommand('insertText', false, words);
  return true;
}

/** All commands of the selection, with their keys. */
function acts(anchor) {
  const panel = document.getElementById('panel-acts');
  const list = panel.querySelector('ul');
  list.replaceChildren(document.getElementById('acts-of').content.cloneNode(true));
  const items = [...list.querySelectorAll('button, a')];
  list.onclick = (e) => {
    if (e.target.closest('button')) panel.hidePopover();
  };
  list.onkeydown = (e) => {
    const to = nextIn(items.length, items.indexOf(document.activeElement), e.key);
    if (to === undefined) return;
    e.preventDefault();
    items[to].focus();
  };
  open(panel, anchor);
  items[0]?.focus();
}

function chooseTab(tab) {
  const list = tab.closest('[role="tablist"]');
  for (const t of list.querySelectorAll('[role="tab"]')) {
    const on = t === tab;
    t.setAttribute('aria-selected', String(on));
    t.tabIndex = on ? 0 : -1;
    document.getElementById(t.getAttribute('aria-controls')).hidden = !on;
  }
  tabs.set(tab.closest('.cluster').id, tab.dataset.tab);
  if ('state' in tab.dataset) {
    [state, stated] = [tab.dataset.state === 'default' ? '' : tab.dataset.state, page.select];
    showState();
  }
}

/** Shows the selection in the state that is worked on. */
export function showState() {
  if (stated !== page.select && state) {
    state = '';
    tabs.delete('cluster-states');
  }
  for (const e of canvas.doc().querySelectorAll('[data-state]'))
    if (e.dataset.block !== page.select || !state) e.removeAttribute('data-state');
  if (state) canvas.element(page.select)?.setAttribute('data-state', state);
}

/** Plays the selection's movements on the canvas, unless motion is minded. */
function playOn(moves) {
  const e = canvas.element(page.select);
  if (!e || window.matchMedia('(prefers-reduced-motion: reduce)').matches) return;
  let after = 0;
  for (const m of moves) {
    e.animate(m.frames, {
      duration: m.duration,
      iterations: m.turns,
      delay: after,
      easing: m.frames.length > 2 ? 'ease-in-out' : 'ease-out',
    });
    after += m.duration;
  }
}

/** Brings a cluster into view, and the focus into it. */
function bring(id) {
  const cluster = document.getElementById(`cluster-${id}`);
  if (!cluster) return;
  if (folded) {
    folded = false;
    fold();
  }
  cluster.scrollIntoView({ block: 'nearest', inline: 'start', behavior: 'instant' });
  cluster
    .querySelector('input:not([type="range"]), button:not([tabindex="-1"]), textarea')
    ?.focus({ preventScroll: true });
}

/** Whether there is room for the Tray beside the page that is shown. */
const spare = () => work.clientWidth - 360 - 44 >= page.width;

/** Puts the Tray below the canvas or beside it, and makes it as high as it was left. */
export function stand() {
  const chosen = document.body.dataset.tray;
  const beside = chosen === 'beside' || (!chosen && spare());
  work.classList.toggle('beside', beside);
  document.querySelector('[data-beside]')?.setAttribute('aria-pressed', String(beside));
  const height = Number(localStorage.getItem('tray-height')) || 0;
  if (height) setHeight(height);
  else work.classList.remove('two-rows');
}

async function choosePlace() {
  const where = work.classList.contains('beside') ? 'below' : 'beside';
  document.body.dataset.tray = where;
  stand();
  await fetch('/tray', { method: 'POST', body: new URLSearchParams({ where }) });
}

function setHeight(px) {
  const h = Math.round(Math.min(Math.max(px, least), most));
  work.style.setProperty('--tray-height', `${h}px`);
  work.classList.toggle('two-rows', h > two);
  folded = h <= least + 10;
  const edge = document.getElementById('tray-edge');
  edge?.setAttribute('aria-valuenow', h);
  localStorage.setItem('tray-height', String(h));
  fold();
}

function edge(e) {
  if (!e.target.closest?.('#tray-edge') || work.classList.contains('beside')) return;
  e.preventDefault();
  const from = document.getElementById('tray').offsetHeight;
  let to = from;
  drag(e, {
    slack: 1,
    move(m) {
      to = from + e.clientY - m.clientY;
      setHeight(to);
    },
    drop() {},
    end() {},
  });
}

function keys(e) {
  const t = e.target;
  if (!t.closest?.('#tray')) return;
  if (t.id === 'tray-edge') {
    const by = { ArrowUp: 20, ArrowDown: -20, PageUp: 100, PageDown: -100 }[e.key];
    if (by) {
      e.preventDefault();
      e.stopPropagation();
      setHeight(document.getElementById('tray').offsetHeight + by);
    }
    return;
  }
  if (e.key === 'Escape' && !document.querySelector(':popover-open')) {
    e.stopPropagation();
    if ('defaultValue' in t && t.value !== t.defaultValue) {
      t.value = t.defaultValue;
      leave();
    } else document.getElementById('stage').focus({ preventScroll: true });
  }
  if (e.key === 'Enter' && t.tagName === 'INPUT') {
    if (t.value !== t.defaultValue) t.dispatchEvent(new Event('change', { bubbles: true }));
    else t.select();
    another(t);
  }
  if (t.matches('input, textarea')) return;
  if (/^[1-9]$/.test(e.key) && !e.ctrlKey && !e.altKey && !e.metaKey) {
    const cluster = document.querySelectorAll('#tray [data-cluster]')[e.key - 1];
    if (cluster) {
      e.preventDefault();
      bring(cluster.dataset.cluster);
    }
  }
  const tab = t.closest('[role="tab"]');
  const way = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
  if (tab && way) {
    e.preventDefault();
    const all = [...tab.parentElement.children];
    const next = all[(all.indexOf(tab) + way + all.length) % all.length];
    chooseTab(next);
    next.focus();
  }
}

/** The words that stand on the selection, the ground it stands on, and the page's own colours. */
function seen(setting) {
  const e = canvas.element(page.select);
  if (!e) return {};
  const view = canvas.doc().defaultView;
  const rgb = (c) => {
    const m = c.match(/[\d.]+/g)?.map(Number);
    return m
      ? `#${m
          .slice(0, 3)
          .map((n) => Math.round(n).toString(16).padStart(2, '0'))
          .join('')}${
          m.length > 3 && m[3] < 1
            ? Math.round(m[3] * 255)
                .toString(16)
                .padStart(2, '0')
            : ''
        }`
      : '';
  };
  const ground = (from) => {
    for (let at = from; at; at = at.parentElement) {
      const c = rgb(view.getComputedStyle(at).backgroundColor);
      if (c && !c.endsWith('00') && c.length === 7) return c;
    }
    return '#ffffff';
  };
  const worded =
    [...e.querySelectorAll('*')].find((x) => [...x.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim())) ??
    e;
  const house = new Set([...document.querySelectorAll('#list-colour option')].map((o) => o.textContent.toLowerCase()));
  const used = [
    ...new Set(
      [...canvas.doc().querySelectorAll('style[data-css]')].flatMap(
        (s) => s.textContent.match(/#[0-9a-f]{6}\b/g) ?? [],
      ),
    ),
  ]
    .filter((c) => !house.has(c))
    .slice(0, 14);
  const of = { used };
  if (/(^|-)(background|fill)$/.test(setting))
    return { ...of, words: rgb(view.getComputedStyle(worded).color), behind: ground(e.parentElement) };
  if (/(^|-)color$/.test(setting) && !setting.includes('border')) return { ...of, ground: ground(e) };
  return of;
}

export function start() {
  document.addEventListener('wheel', wheel, { passive: false });
  document.addEventListener('change', (e) => {
    const t = e.target;
    if (!t.closest('#tray') || !t.dataset.op || t.value === t.dataset.sent) return;
    t.dataset.sent = t.value; // Enter keeps it, and leaving the field after that changes nothing
    enter(t, 'words' in t.dataset ? paragraphs(t.value) : entered(t));
  });
  document.addEventListener('openplot:control', control);
  document.addEventListener('click', click);
  document.addEventListener('pointerdown', edge);
  document.addEventListener('keydown', keys);
  onTried((problem) => {
    const f = document.getElementById(about ?? '-');
    if (f) note(f, problem);
    showState();
  });
  colour.context.of = seen;
  number.against.of = () => {
    const around = canvas.element(page.select)?.parentElement;
    return { base: around?.getBoundingClientRect().width ?? page.width, width: page.width, height: 800 };
  };
  same.as = (bound) =>
    pickBlock(`Press the block whose ${bound.setting.replaceAll('-', ' ')} it should have`, (from, how) => {
      const command = {
        op: 'same',
        node: page.select,
        zone: zoneAt(page.width).id,
        setting: bound.setting,
        after: from,
      };
      if (how === 'try') attempt(command);
      else if (how === 'take') take(command);
      else leave();
    });
  place.start();
  rows.start();
  new ResizeObserver(stand).observe(document.body);
  drawn();
}

/** Shows what stands in the Tray as what it is, after it was drawn. */
function drawn() {
  const tray = document.getElementById('tray');
  paint(tray);
  for (const list of tray.querySelectorAll('[role="tablist"]')) {
    const all = [...list.children];
    const id = list.closest('.cluster').id;
    const set = all
      .filter((t) => t.querySelector('.set-dot') && !('state' in t.dataset) && t.dataset.tab !== 'filter')
      .at(-1);
    const tab = all.find((t) => t.dataset.tab === tabs.get(id)) ?? set ?? all[0];
    const kept = tabs.get(id);
    if (tab !== all[0] || 'state' in tab.dataset) chooseTab(tab);
    else for (const t of all) t.tabIndex = t === tab ? 0 : -1;
    if (kept === undefined) tabs.delete(id);
  }
  place.drawn();
  rows.drawn();
}

/** An ordinary wheel over the Tray moves it sideways, unless it moves a cluster that is higher than the Tray. */
function wheel(e) {
  const body = e.target.closest?.('#tray-body');
  if (!body || work.classList.contains('beside') || e.deltaX || e.ctrlKey || e.shiftKey) return;
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

export function toggleFold() {
  folded = !folded;
  fold();
}

let was = null; // how far the Tray was scrolled, and what it was about
let fresh = null; // the entry that is being added, to be written next
let typed = () => ''; // what is typed for it meanwhile

/** Enter in the last field of the last entry adds one. */
function another(field) {
  const entry = field.closest('[data-entry]');
  if (!entry) return;
  const fields = [...entry.querySelectorAll('input:not([type="hidden"])')].filter((f) => f.getClientRects().length);
  const last = [...document.querySelectorAll('#tray [data-entry]')].at(-1);
  if (entry === last && fields.at(-1) === field) document.getElementById('entry-add')?.click();
}

/** Remembers how the Tray stands before it is drawn anew, and stands it so again. */
export function remember() {
  const tray = document.getElementById('tray');
  if (was && was.tray !== tray) return; // drawn anew already, by another part of the same answer
  const body = document.getElementById('tray-body');
  was = {
    tray,
    scroll: body?.scrollLeft ?? 0,
    down: body?.scrollTop ?? 0,
    kind: tray?.dataset.kind,
  };
}

export function restore() {
  fold();
  const tray = document.getElementById('tray');
  const body = document.getElementById('tray-body');
  if (!body || !was || was.tray === tray) return;
  document.querySelector('[data-beside]')?.setAttribute('aria-pressed', String(work.classList.contains('beside')));
  drawn();
  const alike = tray.dataset.kind === was.kind;
  body.scrollLeft = alike ? was.scroll : 0; // another kind begins at its beginning
  body.scrollTop = alike ? was.down : 0;
  was = null;
  overlay.redraw();
  if (fresh === null) return;
  const entry = [...tray.querySelectorAll('input, select, textarea')].find((e) => e.id.startsWith(`e-${fresh}-`));
  if (!entry) return; // it isn't there yet
  rows.openRow(fresh);
  // What gets its name from where it leads is asked for that first.
  const leads = entry.value === '' ? document.querySelector(`#entry-${fresh} [data-opens="link"]`) : null;
  fresh = null;
  const words = typed();
  typed = () => '';
  entry.focus();
  entry.select?.();
  if (words) document.execCommand('insertText', false, words);
  else leads?.click();
}
