// Where the person is: the focus, what is half typed and the caret in it stay over parts of the Bench being
// drawn anew, and single keys are commands only where no words are expected.

const panes = '#tray, #overview, #history';
let was = null;
let inTray = false; // whether the Tray had the focus last

document.addEventListener('focusin', (e) => {
  inTray = Boolean(e.target.closest('#tray'));
});

/** Whether a key without Ctrl, pressed on an element, is meant for the page: what has lost the focus is where it was. */
export const forPage = (e) => (e === document.body ? !inTray : Boolean(e.closest?.('#stage, #overview, #reach')));

/** What a control is known by over being drawn anew: its id, the section or block that it is for, or what it says. */
const known = (e) =>
  e.id ||
  ['select', 'after', 'keep'].map((what) => e.dataset[what] && `${what} ${e.dataset[what]}`).find(Boolean) ||
  e.getAttribute('aria-label') ||
  e.textContent.trim();

/** Whether what is in a field isn't kept yet. */
const typed = (e) =>
  e.matches('input:not([type]), input[type="text"], input[type="search"], textarea') && e.value !== e.defaultValue;

/** Remembers where the focus is, before a pane is drawn anew. */
export function remember() {
  const at = document.activeElement;
  const pane = at?.closest(panes);
  if (was && !was.at.isConnected) return; // drawn anew already, by another part of the same answer
  was = pane && {
    at,
    more: '', // what was typed since it is gone
    pane: pane.id,
    name: known(at),
    box: at.closest('[data-field]')?.dataset.field,
    cluster: at.closest('.cluster')?.id,
  };
}

/** Goes back there, unless the person has gone elsewhere meanwhile. */
export function restore() {
  if (!was || was.at.isConnected) return;
  const w = was;
  was = null;
  if (document.activeElement !== document.body) return;
  const pane = document.getElementById(w.pane);
  if (!pane) return;
  const all = [...pane.querySelectorAll('a[href], button, input, select, textarea, [tabindex]')];
  const seen = (e) => e.getClientRects().length > 0;
  const near = (selector) =>
    pane.querySelector(selector)?.querySelector('input:not([type="range"]), button:not([tabindex="-1"]), textarea');
  const to =
    all.find((e) => known(e) === w.name && seen(e)) ??
    (w.box && near(`[data-field="${w.box}"]`)) ??
    (w.cluster && near(`#${w.cluster}`)) ??
    pane.querySelector('.overview-item.selected .overview-go');
  to?.focus({ preventScroll: true });
  if (!to || known(to) !== w.name) return;
  if (typed(w.at)) {
    to.select();
    document.execCommand('insertText', false, w.at.value); // as typed, so that it is kept when the field is left
  }
  if (typeof w.at.selectionStart === 'number') to.setSelectionRange?.(w.at.selectionStart, w.at.selectionEnd);
  if (w.more) document.execCommand('insertText', false, w.more);
}

// What is pressed beside the canvas and asks for nothing more leaves the keys with it.
document.addEventListener('click', (e) => {
  if (e.detail && e.target.closest?.('[data-do], [data-zoom], [data-fold], [data-beside]'))
    document.getElementById('stage').focus({ preventScroll: true });
});

let down = null; // the control that is being pressed, and where it is

/** A control that is drawn anew while it is pressed is pressed all the same. */
export function start() {
  window.addEventListener(
    'keydown',
    (e) => {
      if (!was || was.at.isConnected || e.target !== document.body || e.key.length > 1 || e.ctrlKey || e.metaKey)
        return;
      was.more += e.key;
      e.preventDefault();
      e.stopImmediatePropagation();
    },
    true,
  );
  document.addEventListener(
    'pointerdown',
    (e) => {
      const at = e.target.closest?.('#tray button, #overview button, #history button');
      down = at && { at, pane: at.closest(panes).id, name: known(at) };
    },
    true,
  );
  document.addEventListener(
    'pointerup',
    (e) => {
      const was = down;
      down = null;
      if (!was || was.at.isConnected) return;
      const now = document.elementFromPoint(e.clientX, e.clientY)?.closest('button');
      if (now?.closest(panes)?.id === was.pane && known(now) === was.name) now.click();
    },
    true,
  );
}
