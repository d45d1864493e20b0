// Words are changed where they stand.
import { block, page } from './page.js';
import { send } from './edits.js';
import { select } from './select.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
let writing = null;

export const isWriting = () => writing !== null;

/** Begins to write in a block, or a part of it, with the caret at a point of the window. */
export function writeAt(id, part, x, y) {
  if (!write(id, part)) return;
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
  element.setAttribute('contenteditable', 'true');
  d.execCommand('defaultParagraphSeparator', false, 'p');
  element.addEventListener('keydown', keys);
  element.addEventListener('paste', paste);
  element.addEventListener('blur', stop);
  element.addEventListener('input', overlay.redraw);
  stage.classList.add('writing');
  element.focus();
  d.getSelection().selectAllChildren(element);
  return true;
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
  for (const [name, f] of [['keydown', keys], ['paste', paste], ['blur', stop], ['input', overlay.redraw]]) w.element.removeEventListener(name, f);
  w.element.removeAttribute('contenteditable');
  stage.classList.remove('writing');
  if (w.element.innerHTML !== w.before) send(command(w));
  if (page.select !== w.id) overlay.redraw();
}
