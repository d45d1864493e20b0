// The keys of the Bench: those of the table of commands, which everybody can change for themselves, and
// digits for further zones.
import { page } from './page.js';
import { setWidth } from './reach.js';
import { forPage } from './focus.js';
import { isWriting } from './words.js';
import * as commands from './commands.js';

const typing = (t) => t.closest?.('input, textarea, select, [contenteditable], dialog');

/** The key of a command as people read it, '' for none. */
export const written = (command) => command.caps?.[0]?.join('+') ?? '';

const say = (message, alert = false) => {
  const p = document.getElementById('keys-say');
  p.textContent = message;
  p.classList.toggle('problem', alert);
};

/** Asks for the key of a command: the next one that is pressed. */
function ask(row) {
  const id = row.dataset.commandId;
  const name = row.querySelector('dd').textContent.trim();
  for (const other of document.querySelectorAll('.keys .asking')) other.classList.remove('asking');
  row.classList.add('asking');
  say(`Press the new key of “${name}”. Backspace takes its key away, Delete gives it its usual one, Esc leaves it.`);
  const end = () => {
    window.removeEventListener('keydown', pressed, true);
    row.classList.remove('asking');
  };
  async function pressed(e) {
    if (['Shift', 'Control', 'Alt', 'Meta'].includes(e.key)) return;
    e.preventDefault();
    e.stopPropagation();
    end();
    if (e.key === 'Escape') {
      say(`“${name}” keeps its key.`);
      return;
    }
    const body = new URLSearchParams({
      id,
      key: ['Backspace', 'Delete'].includes(e.key) ? '' : commands.keyName(e),
      ...(e.key === 'Delete' && { usual: 'yes' }),
    });
    const r = await fetch('/keys', { method: 'POST', body }).catch(() => null);
    if (!r) {
      say('Open Plot can’t be reached. The key is as it was.', true);
      return;
    }
    const answer = await r.json();
    if (answer.problem) {
      say(answer.problem, true);
      return;
    }
    commands.take(answer);
    const caps = answer.find((c) => c.id === id).caps ?? [];
    row.querySelector('dt').replaceChildren(
      ...caps.flatMap((of, i) => [
        ...(i ? [', '] : []),
        ...of.flatMap((cap, n) => {
          const kbd = document.createElement('kbd');
          kbd.textContent = cap;
          return n ? ['+', kbd] : [kbd];
        }),
      ]),
    );
    say(caps.length ? `“${name}” is done by ${caps.map((of) => of.join('+')).join(', ')}.` : `“${name}” has no key.`);
  }
  window.addEventListener('keydown', pressed, true);
  document.getElementById('keys').addEventListener('close', end, { once: true });
}

export function start() {
  document.addEventListener('click', (e) => {
    const change = e.target.closest?.('.key-change');
    if (change) ask(change.closest('[data-command-id]'));
  });
  document.addEventListener('keydown', (e) => {
    if (e.defaultPrevented || isWriting() || e.altKey) return;
    // What is open is closed first, and the Tray is left for the canvas.
    if (e.key === 'Escape' && (document.querySelector(':popover-open') || e.target.closest?.('#tray'))) return;
    const name = commands.keyName(e);
    const field = /** @type {HTMLInputElement} */ (e.target);
    const kept = field.matches?.('#tray input, #tray textarea') && field.value === field.defaultValue;
    const everywhere =
      /^F\d/.test(e.key) || name === 'Ctrl+K' || (kept && ['Ctrl+Z', 'Ctrl+Y', 'Ctrl+Shift+Z'].includes(name));
    if (typing(e.target) && (!everywhere || e.target.closest('dialog'))) return;
    if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !forPage(e.target)) return; // words may be meant
    if (commands.key(e)) {
      e.preventDefault();
      return;
    }
    const further = /^[4-9]$/.test(e.key) && !e.ctrlKey && !e.metaKey && page.zones[Number(e.key) - 1];
    if (further) {
      e.preventDefault();
      setWidth(further.typical);
    }
  });
}
