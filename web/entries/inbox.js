// The Inbox: what is opened stays marked in the list, which keys go through, and several are selected at once.
import { nextIn } from '../shared/list.js';

/** The rows' links, as they are now. */
const links = () => /** @type {HTMLAnchorElement[]} */ ([...document.querySelectorAll('.inbox-open')]);

/** The boxes that select rows. */
const ticks = () => /** @type {HTMLInputElement[]} */ ([...document.querySelectorAll('.inbox-marks input')]);

let last = -1; // the row that was ticked last

document.addEventListener('click', (e) => {
  if (!(e.target instanceof Element) || e.ctrlKey || e.metaKey) return;
  const link = /** @type {HTMLAnchorElement | null} */ (e.target.closest('.inbox-open'));
  if (link) {
    for (const other of links()) other.removeAttribute('aria-current');
    link.setAttribute('aria-current', 'true');
    const row = link.closest('.inbox-row');
    row?.classList.remove('inbox-unread');
    row?.querySelector('.inbox-who > .visually-hidden')?.remove();
    history.replaceState(null, '', link.href);
    for (const look of document.querySelectorAll('#inbox-list > [name="look"]'))
      /** @type {HTMLInputElement} */ (look).value = link.search.slice(1);
    return;
  }
  const tick = /** @type {HTMLInputElement | null} */ (e.target.closest('.inbox-marks input'));
  if (!tick) return;
  const all = ticks();
  const at = all.indexOf(tick);
  if (e.shiftKey && last >= 0)
    for (const one of all.slice(Math.min(at, last), Math.max(at, last) + 1)) one.checked = tick.checked;
  last = at;
  sayAll();
});

/** Shows on the box that selects all whether all are, or some. */
function sayAll() {
  const all = document.getElementById('inbox-all');
  if (!(all instanceof HTMLInputElement)) return;
  const n = ticks().filter((one) => one.checked).length;
  all.checked = n > 0 && n === ticks().length;
  all.indeterminate = n > 0 && !all.checked;
}

document.addEventListener('change', (e) => {
  if (!(e.target instanceof HTMLInputElement) || e.target.id !== 'inbox-all') return;
  for (const one of ticks()) one.checked = e.target.checked;
});

document.addEventListener('keydown', (e) => {
  if (!(e.target instanceof HTMLElement) || !e.target.matches('.inbox-open')) return;
  const all = links();
  const to = nextIn(all.length, all.indexOf(/** @type {HTMLAnchorElement} */ (e.target)), e.key);
  if (to === undefined) return;
  e.preventDefault();
  all[to].focus();
});

document.addEventListener('htmx:after:swap', () => {
  last = -1;
  sayAll();
  // Whoever took something away goes on where the list does.
  if (document.activeElement === document.body)
    (links().find((link) => link.ariaCurrent) ?? links()[0])?.focus({ preventScroll: true });
  document.dispatchEvent(new Event('rail:stale'));
});

// Where the list is above the entry one is led to what one chose, and who answers writes at once.
let chosen = false;
document.addEventListener('htmx:before:request', (e) => {
  chosen = e.target instanceof Element && e.target.matches('.inbox-open');
});
document.addEventListener('htmx:after:swap', () => {
  const entry = document.getElementById('entry');
  if (chosen && entry && entry.getBoundingClientRect().top > innerHeight * 0.7) entry.scrollIntoView();
  chosen = false;
});
document.addEventListener(
  'toggle',
  (e) => {
    if (e.target instanceof HTMLDetailsElement && e.target.open && e.target.matches('.entry-answer'))
      e.target.querySelector('textarea')?.focus();
  },
  true,
);
