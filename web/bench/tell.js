// What happens is said to those who hear the Bench: what was done and what is selected, the zone, how many were found
// and what is wrong by now. Each once, and what follows quickly in one.
import { page, zoneAt } from './page.js';
import { onAnswer } from './edits.js';

const region = document.getElementById('told');
const rest = 150; // ms: what comes within is said together
let due = 0;
let parts = [];
let selected = ''; // as it was said last
let zone = '';

function say() {
  const text = parts.join(' ');
  parts = [];
  // The same again is said again, for it was done again.
  region.textContent = region.textContent === text ? `${text}\u00a0` : text;
}

/** Says something, once nothing more has come for a moment. About tells what it takes the place of. */
export function tell(text, about = '') {
  if (!text) return;
  if (about) parts = parts.filter((p) => p.about !== about);
  parts.push({ about, toString: () => text });
  clearTimeout(due);
  due = setTimeout(say, rest);
}

const counts = new Map();

/** Says how many were found by words that are searched for, once they rest; not when nobody looks for any more. */
export function found(where, count) {
  clearTimeout(counts.get(where));
  counts.set(
    where,
    setTimeout(() => {
      const n = count();
      if (n !== null) tell(n ? `${n} found` : 'Nothing found', where);
    }, 500),
  );
}

export function start() {
  zone = zoneAt(page.width)?.name ?? '';
  onAnswer((state) => {
    const now = zoneAt(state.width)?.name;
    if (now !== zone) tell(`${now}, ${state.width} px.`, 'zone');
    zone = now;
    if (state.did || state.told !== selected) tell([state.did, state.told].filter(Boolean).join(' '), 'told');
    selected = state.told;
  });
}
