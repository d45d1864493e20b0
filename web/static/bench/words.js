// Words are changed where they stand.
import { block, page } from './page.js';
import { send } from './edits.js';
import { select } from './select.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
const bar = document.getElementById('format');
const link = document.getElementById('format-link');
let writing = null;

export const isWriting = () => writing !== null;

/** Begins to write in a block, or a part of it, with the caret at a point of the window. */
export function writeAt(id, part, x, y) {
  if (!write(id, part) || block(id).standIn) return; // stand-in words are written over as a whole
  const d = canvas.doc();
  const p = canvas.toPage(x, y);
  const range = d.caretRangeFromPoint?.(p.x, p.y);
  if (range && writing.element.contains(range.startContainer)) {
    d.getSelection().removeAllRanges();
    d.getSelection().addRange(range);
  }
}

/** Begins to write in a block or, where it has no words of its own, in a part of it, with all words selected. */
export function write(id, part = '') {
  const b = block(id);
  let element = canvas.element(id);
  if (!b || !element) return false;
  if (!b.writes) {
    element = element.querySelector(part ? `[data-part="${part}"]` : '[data-part]');
    if (!element || element.closest('[data-block]').dataset.block !== id) return false;
  }
  if (writing) stop();
  select(id);
  const d = canvas.doc();
  writing = { id, part: b.writes ? '' : element.dataset.part, line: b.kind === 'heading' || b.kind === 'button', element, before: element.innerHTML };
  element.setAttribute('contenteditable', writing.part.includes('.') ? 'plaintext-only' : 'true'); // a field has no look of its own
  d.execCommand('defaultParagraphSeparator', false, 'p');
  element.addEventListener('keydown', keys);
  element.addEventListener('paste', paste);
  element.addEventListener('blur', left);
  element.addEventListener('input', overlay.redraw);
  stage.classList.add('writing');
  element.focus();
  d.getSelection().selectAllChildren(element);
  showBar();
  return true;
}

/** Words that are bold already can't be made bold. */
const isBold = (element) => Number(canvas.doc().defaultView.getComputedStyle(element).fontWeight) >= 600;

/** The bar stands over what is written, where words can have a look of their own. */
function showBar() {
  const w = writing;
  bar.hidden = w.part.includes('.');
  if (bar.hidden) return;
  bar.querySelector('.format-lists').hidden = w.line;
  bar.querySelector('[data-format="bold"]').hidden = isBold(w.element);
  const b = canvas.boxOf(w.element);
  const y = b.y > bar.offsetHeight + 10 ? b.y - bar.offsetHeight - 8 : Math.min(b.y + b.h + 8, stage.clientHeight - bar.offsetHeight - 4);
  bar.style.left = `${Math.max(4, Math.min(b.x, stage.clientWidth - bar.offsetWidth - 4))}px`;
  bar.style.top = `${y}px`;
}

/** Puts what is selected into an element, unless it reaches over paragraphs. */
function wrap(tag, attributes = {}) {
  const selection = canvas.doc().getSelection();
  if (!selection.rangeCount || selection.isCollapsed) return;
  const e = canvas.doc().createElement(tag);
  for (const [k, v] of Object.entries(attributes)) e.setAttribute(k, v);
  const range = selection.getRangeAt(0);
  const paragraph = (n) => (n.nodeType === 1 ? n : n.parentElement).closest('p, li, h1, h2, h3, h4, h5, h6');
  if (paragraph(range.startContainer) !== paragraph(range.endContainer)) return;
  e.append(range.extractContents());
  range.insertNode(e);
  selection.selectAllChildren(e);
}

/** Listens to the bar. */
export function start() {
  bar.addEventListener('pointerdown', (e) => { if (e.target !== link) e.preventDefault(); }); // the words keep the focus
  bar.addEventListener('click', (e) => {
    const b = e.target.closest('button');
    if (!b || !writing) return;
    if (b.dataset.format) canvas.doc().execCommand(b.dataset.format);
    if (b.dataset.wrap) wrap(b.dataset.wrap);
    if (b.dataset.colour) wrap('span', { 'data-colour': b.dataset.colour, style: `color:${b.dataset.value}` });
    back();
    overlay.redraw();
  });
  link.addEventListener('keydown', (e) => {
    e.stopPropagation();
    if (e.key === 'Enter' && writing) {
      back();
      canvas.doc().execCommand(link.value.trim() ? 'createLink' : 'unlink', false, link.value.trim());
      link.value = '';
    }
    if (e.key === 'Escape') back();
  });
  bar.addEventListener('focusout', left);
}

/** Leaving the words for the bar doesn't end writing. */
function left() {
  setTimeout(() => {
    const at = document.activeElement;
    const inWords = at?.matches('iframe.canvas') && canvas.doc().activeElement === writing?.element;
    if (!bar.contains(at) && !inWords) stop();
  });
}

/** Goes from the bar back to the words. */
function back() {
  canvas.doc().defaultView.focus();
  writing?.element.focus();
}

/** The command that keeps what was written: words of a block, words of an entry, or a field of one. */
function command(w) {
  if (!w.part) return { op: 'block.write', node: w.id, value: w.element.innerHTML };
  const [at, setting] = w.part.split('.');
  if (!setting) return { op: 'entry.write', node: w.id, at: Number(at), value: w.element.innerHTML };
  const value = w.element.textContent.trim();
  return at === '' ? { op: 'block.content', node: w.id, setting, value } : { op: 'entry.set', node: w.id, at: Number(at), setting, value };
}

function keys(e) {
  e.stopPropagation();
  if (e.key === 'Escape') {
    e.preventDefault();
    stop();
    stage.focus();
  } else if (e.key === 'Enter' && writing.part.includes('.')) { // a field of one line
    e.preventDefault();
    stop();
    stage.focus();
  } else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'b' && isBold(writing.element)) {
    e.preventDefault();
  } else if (e.key === 'Enter' && writing.line) {
    e.preventDefault();
    canvas.doc().execCommand('insertLineBreak');
  }
}

function paste(e) {
  e.preventDefault();
  canvas.doc().execCommand('insertText', false, e.clipboardData.getData('text/plain'));
}

/** Ends writing and keeps the words. */
export function stop() {
  if (!writing) return;
  const w = writing;
  writing = null;
  for (const [name, f] of [['keydown', keys], ['paste', paste], ['blur', left], ['input', overlay.redraw]]) w.element.removeEventListener(name, f);
  w.element.removeAttribute('contenteditable');
  bar.hidden = true;
  stage.classList.remove('writing');
  if (w.element.innerHTML !== w.before) send(command(w));
  if (page.select !== w.id) overlay.redraw();
}
