// Words are changed where they stand.
import { block, page } from './page.js';
import { send } from './edits.js';
import { select } from './select.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

const stage = document.getElementById('stage');
let writing = null;

export const isWriting = () => writing !== null;

/** Begins to write in a block, with the caret at a point of the window. */
export function writeAt(id, x, y) {
  if (!write(id) || x === undefined) return;
  const d = canvas.doc();
  const p = canvas.toPage(x, y);
  const range = d.caretRangeFromPoint?.(p.x, p.y);
  if (range && writing.element.contains(range.startContainer)) {
    d.getSelection().removeAllRanges();
    d.getSelection().addRange(range);
  }
}

/** Begins to write in a block, with all of its words selected. */
export function write(id) {
  const b = block(id);
  const element = canvas.element(id);
  if (!b || !element || b.kind === 'picture' || b.kind === 'divider') return false;
  if (writing) stop();
  select(id);
  const d = canvas.doc();
  writing = { id, kind: b.kind, element, before: element.innerHTML };
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

function keys(e) {
  e.stopPropagation();
  if (e.key === 'Escape') {
    e.preventDefault();
    stop();
    stage.focus();
  } else if (e.key === 'Enter' && (writing.kind === 'heading' || writing.kind === 'button')) {
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
  if (w.element.innerHTML !== w.before) send({ op: 'block.write', node: w.id, value: w.element.innerHTML });
  if (page.select !== w.id) overlay.redraw();
}
