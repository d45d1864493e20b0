// Words are changed where they stand: by ProseMirror, in the frame of the page.
import { block, page, zoneAt } from './page.js';
import { say, send } from './edits.js';
import { select } from './select.js';
import { ask, nameOf } from '../controls/link.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
const bar = document.getElementById('format');
const link = document.getElementById('format-link');
let writing = null; // what is written in: its block, part, element, and the editor once it is there
let editor = null; // the module that writes, loaded when it is first needed or before

/** Loads what writing needs. */
export async function load() {
  editor ??= await import('../words/writing.js');
  return editor;
}

export const isWriting = () => writing !== null;

/** Begins to write in a block, or a part of it, with the caret at a point of the window. */
export function writeAt(id, part, x, y) {
  write(id, part, () => {
    if (block(id).standIn) return; // stand-in words are written over as a whole
    const p = canvas.toPage(x, y);
    if (writing.view) editor.caretAt(writing.view, p.x, p.y);
    else caret(p);
  });
}

/** Puts the caret into a plain field at a point of the page. */
function caret(p) {
  const d = canvas.doc();
  const range = d.caretRangeFromPoint?.(p.x, p.y);
  if (!range || !writing.element.contains(range.startContainer)) return;
  d.getSelection().removeAllRanges();
  d.getSelection().addRange(range);
}

/** Begins to write in a block or, where it has no words of its own, in a part of it, with all words selected. */
export function write(id, part = '', then = null) {
  const b = block(id);
  let element = canvas.element(id);
  if (!b || !element) return false;
  if (b.writes)
    element = [...element.children].find((e) => e.dataset.words && e.getClientRects().length) ?? element; // what is said in this zone
  else {
    element = element.querySelector(part ? `[data-part="${part}"]` : '[data-part]');
    if (!element || element.closest('[data-block]').dataset.block !== id) return false;
  }
  if (writing) stop();
  select(id);
  const field = !b.writes && element.dataset.part.includes('.'); // a field has no look of its own
  writing = {
    id,
    part: b.writes ? '' : element.dataset.part,
    element,
    field,
    zone: zoneAt(page.width).id,
    line: b.kind === 'heading' || b.kind === 'button' || field,
    was: element.getAttribute('class'),
    then,
  };
  stage.classList.add('writing');
  if (field) plain();
  else rich(writing);
  return true;
}

/** Writes in a field that is text and nothing else. */
function plain() {
  const w = writing;
  w.before = w.element.textContent;
  w.element.setAttribute('contenteditable', 'plaintext-only');
  w.element.addEventListener('keydown', keys);
  w.element.addEventListener('blur', left);
  w.element.addEventListener('input', overlay.redraw);
  w.element.focus();
  canvas.doc().getSelection().selectAllChildren(w.element);
  w.then?.();
}

/** Writes words that can have a look of their own. */
async function rich(w) {
  await load();
  if (writing !== w) return;
  const on = {
    changed() {
      overlay.redraw();
      show();
    },
    leave() {
      stop();
      stage.focus();
    },
    link: askLink,
    bold: () => isBold(w.element),
    tooLong: (n) =>
      say(
        `That text has ${n.toLocaleString('en')} characters; at most ${editor.mostPasted.toLocaleString('en')} can be pasted at once.`,
      ),
  };
  Object.assign(
    w,
    editor.edit(w.element, on, {
      line: w.line,
      language: canvas.doc().documentElement.lang,
      typographic: typographic(),
    }),
  );
  w.element.addEventListener('blur', left);
  w.view.focus();
  editor.selectAll(w.view);
  w.then?.();
  place();
}

const typographic = () => localStorage.getItem('typographic') === 'yes';

/** Words that are bold already can't be made bold. */
const isBold = (element) => Number(canvas.doc().defaultView.getComputedStyle(element).fontWeight) >= 600;

/** The bar stands over what is written. */
function place() {
  const w = writing;
  bar.hidden = false;
  bar.querySelector('.format-blocks').hidden = !w.view.state.schema.nodes.heading;
  bar.querySelector('[data-format="bold"]').hidden = isBold(w.element);
  show();
  const b = canvas.boxOf(w.element);
  const y =
    b.y > bar.offsetHeight + 10
      ? b.y - bar.offsetHeight - 8
      : Math.min(b.y + b.h + 8, stage.clientHeight - bar.offsetHeight - 4);
  bar.style.left = `${Math.max(4, Math.min(b.x, stage.clientWidth - bar.offsetWidth - 4))}px`;
  bar.style.top = `${y}px`;
}

/** The bar shows what the words at the caret are. */
function show() {
  const view = writing?.view;
  if (!view) return; // it isn't there yet
  const as = editor.around(view);
  for (const b of bar.querySelectorAll('[data-format]')) {
    const what = b.dataset.format;
    b.setAttribute('aria-pressed', String(what in view.state.schema.marks ? editor.has(view, what) : what === as));
  }
  bar.querySelector('[data-typographic]').setAttribute('aria-pressed', String(typographic()));
  const href = editor.linkAt(view);
  link.setAttribute('aria-pressed', String(Boolean(href)));
  link.title = href ? `Leads to ${nameOf(href) || href} (Ctrl+K)` : 'Link (Ctrl+K)';
}

/** Listens to the bar. */
export function start() {
  bar.addEventListener('pointerdown', (e) => e.preventDefault()); // the words keep the focus
  bar.addEventListener('click', (e) => {
    const b = e.target.closest('button');
    if (!b || !writing?.view) return;
    if (b.dataset.format) editor.act(writing.view, b.dataset.format);
    if (b.dataset.colour) editor.act(writing.view, 'colour', { token: b.dataset.colour, value: b.dataset.value });
    if ('typographic' in b.dataset) {
      localStorage.setItem('typographic', typographic() ? '' : 'yes');
      again();
    }
    show();
    overlay.redraw();
  });
  link.addEventListener('click', askLink);
  bar.addEventListener('focusout', left);
}

/** Asks where the words lead. */
function askLink() {
  const w = writing;
  if (!w?.view) return;
  ask(link, editor.linkAt(w.view), {
    take(href) {
      editor.act(w.view, 'link', { href });
      show();
    },
    closed() {
      if (writing === w) w.view.focus();
    },
  });
}

/** Begins again with what is written, as it is to be written from now on. */
function again() {
  const w = writing;
  const { id, part } = w;
  stop();
  write(id, part);
}

/** Leaving the words for the bar doesn't end writing. */
function left() {
  setTimeout(() => {
    const at = document.activeElement;
    const inWords = at?.matches('iframe.canvas') && canvas.doc().activeElement === writing?.element;
    if (!bar.contains(at) && !inWords && !document.querySelector('#panel-link:popover-open')) stop();
  });
}

/** The command that keeps what was written: words of a block, words of an entry, or a field of one. */
function command(w, value) {
  if (!w.part) return { op: 'block.write', node: w.id, zone: w.zone, value };
  const [at, setting] = w.part.split('.');
  if (!setting) return { op: 'entry.write', node: w.id, at: Number(at), value };
  return at === ''
    ? { op: 'block.content', node: w.id, setting, value: value.trim() }
    : { op: 'entry.set', node: w.id, at: Number(at), setting, value: value.trim() };
}

/** Keys of a field of one line. */
function keys(e) {
  e.stopPropagation();
  if (e.key !== 'Escape' && e.key !== 'Enter') return;
  e.preventDefault();
  stop();
  stage.focus();
}

/** Ends writing and keeps the words. */
export function stop() {
  if (!writing) return;
  const w = writing;
  writing = null;
  const { element } = w;
  const now = w.field ? element.textContent : w.view ? w.html() : w.before;
  element.removeEventListener('blur', left);
  if (w.field) {
    element.removeEventListener('keydown', keys);
    element.removeEventListener('input', overlay.redraw);
    element.removeAttribute('contenteditable');
  } else if (w.view) {
    const shown = element.innerHTML; // it is taken away with the editor
    w.view.destroy();
    element.innerHTML = shown;
    for (const name of ['contenteditable', 'translate', 'spellcheck']) element.removeAttribute(name);
    if (w.was) element.setAttribute('class', w.was);
    else element.removeAttribute('class');
  }
  bar.hidden = true;
  stage.classList.remove('writing');
  if (now !== w.before) send(command(w, now));
  if (page.select !== w.id) overlay.redraw();
}
