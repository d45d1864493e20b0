// Copying, cutting and pasting: blocks and sections as text (docs/clipboard.md), looks, and what
// comes from elsewhere.
import { base, page, sectionOf, selected, zoneAt } from './page.js';
import { say, send } from './edits.js';
import { isWriting } from './words.js';
import * as canvas from './canvas.js';

const head = 'Open Plot blocks';
const most = 900_000; // characters of blocks that are pasted at once

const asked = (more = {}) =>
  `${base}/copy?${new URLSearchParams({ width: String(page.width), select: page.select, also: page.also.join(','), ...more })}`;

async function text(url) {
  const r = await fetch(url);
  if (r.ok) return r.text();
  say(r.status === 422 ? await r.text() : 'It couldn’t be copied: Open Plot can’t be reached.');
  throw new Error(`copying: ${r.status}`);
}

const kept = { a: ['href'], img: ['src', 'alt'], td: ['colspan', 'rowspan'], th: ['colspan', 'rowspan'] };

/** What is selected as HTML for other programs: its elements without classes, and with whole addresses. */
function html() {
  const out = document.createElement('div');
  for (const id of selected()) {
    const e = canvas.element(id)?.cloneNode(true);
    if (!e) continue;
    for (const of of [e, ...e.querySelectorAll('*')]) {
      if (of.matches('svg, script, style, [hidden]')) {
        of.remove();
        continue;
      }
      const whole = { href: of.href, src: of.currentSrc || of.src };
      for (const a of [...of.attributes]) if (!kept[of.localName]?.includes(a.name)) of.removeAttribute(a.name);
      for (const name of ['href', 'src']) if (of.hasAttribute(name)) of.setAttribute(name, whole[name]);
    }
    out.append(e);
  }
  return out.innerHTML;
}

/** Copies what is selected to the system's clipboard. */
export async function copy() {
  if (!page.select) return false;
  const blob = text(asked()).then((t) => new Blob([t], { type: 'text/plain' }));
  try {
    // the text is on its way while the browser still knows that a key was pressed
    await navigator.clipboard.write([
      new ClipboardItem({ 'text/plain': blob, 'text/html': new Blob([html()], { type: 'text/html' }) }),
    ]);
    return true;
  } catch {
    return false;
  }
}

/** Copies what is selected, and deletes it. */
export async function cut() {
  const of = page.select;
  if ((await copy()) && of === page.select) send({ op: 'delete', node: of });
}

/** Copies the look of what is selected; it is kept for all pages of this browser. */
export async function copyLook() {
  if (!page.select) return;
  localStorage.setItem('look', await text(asked({ of: 'look' })).catch(() => ''));
}

/** Gives all that is selected the look that was copied. */
export function pasteLook() {
  const look = localStorage.getItem('look');
  if (!look) {
    say('No look is copied yet: select a block and press Ctrl+Shift+C.');
    return;
  }
  const zone = zoneAt(page.width).id;
  /** @type {Command[]} */
  const parts = selected().map((node) => ({ op: 'look', node, zone, value: look }));
  if (parts.length) send(parts.length === 1 ? parts[0] : { op: 'many', parts });
}

const escaped = (t) => t.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/** What plain text or HTML from elsewhere becomes: a link a button, rows of cells a table, the rest a text. */
function fromElsewhere(text, html) {
  const plain = text.trim();
  const zone = zoneAt(page.width).id;
  const node = sectionOf(page.select) || page.end || page.order.at(-1);
  if (!node || !plain) return;
  const block = (kind, ...more) =>
    send({ op: 'many', parts: [{ op: 'block.add', node, kind, zone }, ...more.map((m) => ({ node: '@1', ...m }))] });
  if (/^https?:\/\/\S+$/.test(plain)) block('button', { op: 'block.content', setting: 'link', value: plain });
  else if (/\t/.test(plain) && plain.includes('\n'))
    block('table', { op: 'block.content', setting: 'cells', value: plain });
  else
    block('text', {
      op: 'block.write',
      value:
        html ||
        plain
          .split(/\n+/)
          .map((l) => `<p>${escaped(l)}</p>`)
          .join(''),
    });
}

/** Pastes text that was read from the clipboard. */
export function pasteText(plain) {
  if (!plain.startsWith(head)) {
    fromElsewhere(plain, '');
    return;
  }
  if (plain.length > most) {
    say(
      `That is ${plain.length.toLocaleString('en')} characters of blocks; at most ${most.toLocaleString('en')} can be pasted at once.`,
    );
    return;
  }
  const node = page.select || page.end || page.order.at(-1);
  if (node)
    withFiles(plain).then((value) => {
      if (value) send({ op: 'paste', node, value });
    });
}

const bring = (text, more) =>
  fetch(`${base}/bring`, { method: 'POST', body: new URLSearchParams({ text, ...more }) })
    .then((r) => (r.ok || r.status === 422 ? r.json() : null))
    .catch(() => null);

/** Blocks from another site of one's own with their pictures, when they are wanted along; '' when that can't be. */
async function withFiles(text) {
  const found = await bring(text, {});
  if (!found?.count || !(await wanted(found))) return text;
  const brought = await bring(text, { take: 'yes' });
  if (brought?.text) return brought.text;
  say(brought?.problem ?? 'The pictures couldn’t be brought along: Open Plot can’t be reached.');
  return '';
}

/** Asks whether the files of the other site are to come along. */
function wanted({ count, names }) {
  const dialog = document.getElementById('bring');
  document.getElementById('bring-what').textContent =
    count === 1 ? names[0] : `${count} files: ${names.slice(0, 4).join(', ')}${count > 4 ? ' and more' : ''}`;
  dialog.returnValue = '';
  dialog.showModal();
  return new Promise((resolve) => {
    dialog.onclose = () => resolve(dialog.returnValue === 'take');
  });
}

function paste(e) {
  if (isWriting() || e.target.matches?.('input, textarea, select') || document.querySelector('dialog[open]')) return;
  const plain = e.clipboardData.getData('text/plain');
  if (e.clipboardData.files.length || !plain) return;
  e.preventDefault();
  if (plain.startsWith(head)) pasteText(plain);
  else fromElsewhere(plain, e.clipboardData.getData('text/html'));
}

export function start() {
  document.addEventListener('paste', paste);
}
