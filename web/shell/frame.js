// The rail: by keys, folded, and as it is now; and the list of sites.
import '../shared/answers.js';
import '../shared/ask.js';
import '../shared/leaving.js';

const root = document.documentElement;

/** Whether keys are for what has the focus. */
const writing = (/** @type {Element | null} */ e) =>
  e instanceof HTMLElement && (e.isContentEditable || e.matches('input, select, textarea, iframe'));

// "g" and then a place's letter leads there, within two seconds.
let going = 0;
document.addEventListener('keydown', (e) => {
  if (e.ctrlKey || e.metaKey || e.altKey || writing(document.activeElement)) return;
  if (e.key === 'g') {
    going = Date.now();
    return;
  }
  const to =
    Date.now() - going < 2000 && /^[a-z]$/.test(e.key) && document.querySelector(`#rail [data-key="${e.key}"]`);
  going = 0;
  if (to instanceof HTMLElement) {
    e.preventDefault();
    to.click();
  }
});

const year = 365 * 24 * 3600;
document.addEventListener('click', (e) => {
  const fold = e.target instanceof Element ? e.target.closest('.rail-fold') : null;
  if (!fold) return;
  const folded = root.classList.toggle('folded');
  fold.setAttribute('aria-pressed', String(folded));
  document.cookie = `rail=${folded ? 'folded' : 'open'}; path=/; max-age=${year}; samesite=lax`;
});

/** Shows the rail as it is now, unless somebody is in it. */
async function refresh() {
  const rail = document.getElementById('rail');
  if (!rail || rail.contains(document.activeElement) || rail.matches(':popover-open') || document.hidden) return;
  const here = rail.querySelector('[aria-current]');
  const base = rail.dataset.rail ?? '';
  const place = here instanceof HTMLAnchorElement ? here.pathname.slice(base.length - 'rail'.length) : 'elsewhere';
  const answer = await fetch(`${base}?here=${encodeURIComponent(place)}`);
  if (!answer.ok || rail.contains(document.activeElement)) return;
  const now = document.createElement('template');
  now.innerHTML = await answer.text();
  const fresh = now.content.querySelector('#rail');
  if (fresh) rail.replaceWith(fresh);
}
setInterval(() => {
  if (document.querySelector('#rail[data-busy]')) refresh().catch(() => {});
}, 2000);
setInterval(() => refresh().catch(() => {}), 15_000); // what visitors send comes at any time
document.addEventListener('rail:stale', () => refresh().catch(() => {}));
document.addEventListener('visibilitychange', () => refresh().catch(() => {}));

const find = document.getElementById('my-site');
if (find instanceof HTMLInputElement) {
  const list = find.closest('.my-sites');
  const rows = [...(list?.querySelectorAll('li') ?? [])];
  const none = list?.querySelector('p[hidden]');
  const shown = () => rows.filter((row) => !row.hidden).map((row) => row.querySelector('a'));
  find.addEventListener('input', () => {
    const words = find.value.toLowerCase().split(/\s+/);
    for (const row of rows) row.hidden = !words.every((w) => row.textContent?.toLowerCase().includes(w));
    if (none instanceof HTMLElement) none.hidden = shown().length > 0;
  });
  find.addEventListener('keydown', (e) => {
    if (e.key === 'Enter') shown()[0]?.click();
    if (e.key === 'ArrowDown') shown()[0]?.focus();
  });
  list?.addEventListener('toggle', (e) => {
    if (/** @type {ToggleEvent} */ (e).newState === 'open') find.focus();
  });
}
