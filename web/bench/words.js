// Words are changed where they stand: by ProseMirror, in the frame of the page.
import { block, page, zoneAt } from './page.js';
import { say, send } from './edits.js';
import { select } from './select.js';
import { ask, nameOf } from '../controls/link.js';
import { pick as pickColour } from '../controls/colour.js';
import { palette } from '../controls/control.js';
import { hold } from '../shared/hold.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
const bar = document.getElementById('format');
const link = document.getElementById('format-link');
const language = /** @type {HTMLSelectElement} */ (document.getElementById('format-language'));
let writing = null; // what is written in: its block, part, element, and the editor once it is there
let editor = null; // the module that writes, loaded when it is first needed or before

/** Loads what writing needs. */
export async function load() {
  editor ??= await import('../words/writing.js');
  return editor;
}

export const isWriting = () => writing !== null;

/** The element that is written in for a block, or a part of it, or null; and the part that it is. */
function place(id, part) {
  const b = block(id);
  let element = canvas.element(id);
  if (!b || !element) return null;
  if (b.writes) {
    element = [...element.children].find((e) => e.dataset.words && e.getClientRects().length) ?? element; // what is said in this zone
    return { element, part: '' };
  }
  element = element.querySelector(part ? `[data-part="${part}"]` : '[data-part]');
  return element && element.closest('[data-block]').dataset.block === id
    ? { element, part: element.dataset.part }
    : null;
}

/** Whether a press on a block, or a part of it, is on words. */
export const isText = (id, part) => Boolean(block(id)?.writes || (part && place(id, part)));

/** Begins to write in a block, or a part of it, with the caret at a point of the window. */
export function writeAt(id, part, x, y) {
  write(id, part, () => {
    if (block(id).standIn || block(id).standIns?.includes(part)) return; // stand-in words are written over as a whole
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
  const at = place(id, part);
  if (!at) return false;
  if (writing?.element === at.element) {
    then?.();
    return true;
  }
  if (writing) stop();
  select(id);
  const { element } = at;
  const field = at.part.includes('.'); // a field has no look of its own
  writing = {
    id,
    part: at.part,
    element,
    field,
    zone: zoneAt(page.width).id,
    line: b.kind === 'heading' || b.kind === 'button' || field,
    was: element.getAttribute('class'),
    then,
  };
  unfold(element);
  overlay.open(element);
  if (field) plain();
  else rich(writing);
  return true;
}

/** Opens on the canvas what an element is folded in, so that it is seen what is written. */
function unfold(element) {
  for (let at = element.closest('details'); at; at = at.parentElement.closest('details')) at.open = true;
}

/** What is pressed and typed in a summary neither folds nor unfolds while it is written in. */
const still = (e) => {
  if (e.type === 'click' || e.key === ' ') e.preventDefault();
};

/** Writes in a field that is text and nothing else. */
function plain() {
  const w = writing;
  w.before = w.element.textContent;
  w.element.setAttribute('contenteditable', 'plaintext-only');
  w.element.addEventListener('keydown', keys);
  if (w.element.closest('summary')) for (const of of ['click', 'keyup']) w.element.addEventListener(of, still);
  w.element.addEventListener('blur', left);
  w.element.addEventListener('input', overlay.redraw);
  w.element.focus();
  canvas.doc().getSelection().selectAllChildren(w.element);
  w.then?.();
}

/** Writes words that can have a look of their own. */
async function rich(w) {
  const held = editor ? () => '' : hold();
  await load();
  const early = held();
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
    next,
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
  if (early) editor.type(w.view, early);
  lay();
}

const typographic = () => localStorage.getItem('typographic') === 'yes';

/** Words that are bold already can't be made bold. */
const isBold = (element) => Number(canvas.doc().defaultView.getComputedStyle(element).fontWeight) >= 600;

/** The bar stands over what is written. */
function lay() {
  const w = writing;
  bar.hidden = false;
  swatches();
  bar.querySelector('.format-blocks').hidden = !w.view.state.schema.nodes.heading;
  bar.querySelector('[data-format="bold"]').hidden = isBold(w.element);
  show();
  follow();
}

/** The bar goes where the words go, and isn't there while they are out of sight. */
function follow() {
  const w = writing;
  if (!w?.view) return;
  const b = canvas.boxOf(w.element);
  bar.hidden = b.y + b.h < 0 || b.y > stage.clientHeight;
  if (bar.hidden) return;
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
  document.getElementById('format-size').textContent = `${editor.setAt(view, 'size', 100)} %`;
  document.getElementById('format-tracking').textContent = `${editor.setAt(view, 'tracking', 0) / 100} em`;
  language.value = editor.languageAt(view);
  language.classList.toggle('set', Boolean(language.value));
  const href = editor.linkAt(view);
  link.setAttribute('aria-pressed', String(Boolean(href)));
  link.title = href ? `Leads to ${nameOf(href) || href} (Ctrl+K)` : 'Link (Ctrl+K)';
}

/** Listens to the bar. */
export function start() {
  bar.addEventListener('pointerdown', (e) => {
    if (e.target !== language) e.preventDefault(); // the words keep the focus
  });
  language.addEventListener('change', () => {
    if (!writing?.view) return;
    editor.act(writing.view, 'language', { tag: language.value });
    show();
    overlay.redraw();
  });
  bar.addEventListener('click', (e) => {
    const b = e.target.closest('button');
    if (!b || !writing?.view) return;
    if (b.dataset.format) editor.act(writing.view, b.dataset.format);
    if (b.dataset.colour) editor.act(writing.view, 'colour', { token: b.dataset.colour, value: b.dataset.value });
    if (b.dataset.set) editor.act(writing.view, b.dataset.set, { by: Number(b.dataset.by) });
    if (b.id === 'format-colour') anyColour();
    if ('typographic' in b.dataset) {
      localStorage.setItem('typographic', typographic() ? '' : 'yes');
      again();
    }
    show();
    overlay.redraw();
  });
  link.addEventListener('click', askLink);
  canvas.onScroll(follow);
  canvas.onLay(follow);
  bar.addEventListener('focusout', left);
  bar.addEventListener('keydown', (e) => {
    if (e.key !== 'Escape' || document.querySelector('.panel:popover-open')) return;
    e.stopPropagation();
    stop();
    stage.focus({ preventScroll: true });
  });
}

/** Has the bar offer the house style's colours as they are now. */
function swatches() {
  const last = document.getElementById('format-colour');
  last.parentElement.replaceChildren(
    ...palette().map(({ name, token, hex }) => {
      const b = document.createElement('button');
      b.type = 'button';
      b.className = 'plain';
      b.title = name;
      b.setAttribute('aria-label', name);
      Object.assign(b.dataset, { colour: token, value: hex });
      b.style.setProperty('--swatch', hex);
      return b;
    }),
    last,
  );
}

/** Asks for any colour, and shows it on the words as it is chosen. */
function anyColour() {
  const w = writing;
  const panel = document.getElementById('panel-colour');
  let kept = w.view.state;
  const set = (name, hex) => {
    const value = hex.slice(0, 7).toLowerCase();
    w.view.updateState(kept);
    editor.act(w.view, 'colour', { token: palette().find((c) => c.name === name)?.token ?? value, value }, false);
    canvas.doc().getSelection().removeAllRanges(); // so that the colour is seen; the words know what is selected
  };
  pickColour(document.getElementById('format-colour'), 'Colour of these words', '', {
    setting: '',
    attempt: set,
    take(name, hex) {
      set(name, hex);
      kept = w.view.state;
    },
    leave() {
      if (writing !== w) return;
      w.view.updateState(kept);
      if (!panel.matches(':popover-open')) w.view.focus();
    },
  });
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
    if (
      !bar.contains(at) &&
      !inWords &&
      !document.querySelector('#panel-link:popover-open, #panel-colour:popover-open')
    )
      stop();
  });
}

/**
 * The command that keeps what was written: words of a block, words of an entry, or a field of one.
 * @returns {Command}
 */
function command(w, value) {
  if (!w.part) return { op: 'block.write', node: w.id, zone: w.zone, value };
  const [at, setting] = w.part.split('.');
  if (!setting) return { op: 'entry.write', node: w.id, at: Number(at), value };
  return at === ''
    ? { op: 'block.content', node: w.id, setting, value: value.trim() }
    : { op: 'entry.set', node: w.id, at: Number(at), setting, value: value.trim() };
}

/** Ends writing, and begins in the next text of what the block stands in, or the one before; past the last one, nowhere. */
function next(by) {
  const w = writing;
  const around = w.element.closest('[data-section]');
  const all = [...around.querySelectorAll('[data-block], [data-part]')]
    .filter((e) => e.getClientRects().length && !e.querySelector('[data-block]'))
    .map((e) => ({ id: e.closest('[data-block]').dataset.block, part: e.dataset.part ?? '' }))
    .filter(({ id, part }) => (block(id)?.writes ? !part : part && place(id, part)));
  const to = all[all.findIndex(({ id, part }) => id === w.id && part === w.part) + by];
  stop();
  if (!to || !write(to.id, to.part)) stage.focus({ preventScroll: true });
}

/**
 * Keeps what is written over its section being put anew: what is to be called once it is. The same element goes
 * where its like stands then, with the caret in it.
 */
export function keep() {
  const w = writing;
  if (!w) return () => {};
  const s = canvas.doc().getSelection();
  const caret = w.field &&
    w.element.contains(s.anchorNode) && [s.anchorNode, s.anchorOffset, s.focusNode, s.focusOffset];
  return () => {
    if (writing !== w || w.element.isConnected) return;
    const like = place(w.id, w.part)?.element;
    if (!like) {
      const said = w.element.textContent;
      close(w);
      if (said.trim()) say(`What you were writing in isn’t on this page any more. Your words were: “${said}”`);
      return;
    }
    w.was = like.getAttribute('class');
    like.replaceWith(w.element);
    unfold(w.element);
    overlay.open(w.element);
    if (w.view) w.view.focus();
    else w.element.focus({ preventScroll: true });
    if (caret) s.setBaseAndExtent(...caret);
  };
}

/** Keys of a field of one line. */
function keys(e) {
  e.stopPropagation();
  if (e.key === 'Tab') {
    e.preventDefault();
    next(e.shiftKey ? -1 : 1);
    return;
  }
  if (e.key !== 'Escape' && e.key !== 'Enter') return;
  e.preventDefault();
  stop();
  stage.focus();
}

/** Ends writing and keeps the words. */
export function stop() {
  if (!writing) return;
  const w = writing;
  const now = w.field ? w.element.textContent : w.view ? w.html() : w.before;
  close(w);
  if (now !== w.before) send(command(w, now));
  if (page.select !== w.id) overlay.redraw();
}

/** The words are what they are on the page again. */
function close(w) {
  writing = null;
  const { element } = w;
  element.removeEventListener('blur', left);
  if (w.field) {
    element.removeEventListener('keydown', keys);
    element.removeEventListener('input', overlay.redraw);
    element.removeAttribute('contenteditable');
  } else if (w.view) {
    const shown = element.innerHTML; // it is taken away with the editor
    w.view.destroy();
    element.innerHTML = shown;
    for (const of of ['click', 'keyup']) element.removeEventListener(of, still);
    for (const name of ['contenteditable', 'translate', 'spellcheck']) element.removeAttribute(name);
    if (w.was) element.setAttribute('class', w.was);
    else element.removeAttribute('class');
  }
  bar.hidden = true;
  overlay.open(null);
}
