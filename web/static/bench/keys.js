// The keys of the Bench: those of the table of commands, and digits for further zones.
import { page } from './page.js';
import { setWidth } from './reach.js';
import { isWriting } from './words.js';
import * as commands from './commands.js';

const typing = (t) => t.closest?.('input, textarea, select, [contenteditable], dialog');

export function start() {
  document.addEventListener('keydown', (e) => {
    if (e.defaultPrevented || isWriting() || e.altKey) return;
    if (typing(e.target)) return;
    if (commands.key(e)) { e.preventDefault(); return; }
    const further = /^[4-9]$/.test(e.key) && !e.ctrlKey && !e.metaKey && page.zones[e.key - 1];
    if (further) { e.preventDefault(); setWidth(further.typical); }
  });
}
