// Where a link leads: a page of the site, a place on one, a file of the library, an address, mail or a
// telephone. What opens in a new tab ends with newTab, as core/doc.JoinLink writes it.
import { binding, leave, take } from './control.js';
import { open } from './panel.js';
import { nextIn } from '../shared/list.js';

const panel = document.getElementById('panel-link');
const search = panel?.querySelector('.link-search');
const list = panel?.querySelector('#link-offers');
const subject = panel?.querySelector('.link-subject');
const tab = panel?.querySelector('.link-tab');
export const newTab = ' _blank';
let on = null; // what is called: take(href)
let pages = []; // of the site
let offers = []; // what is shown
let at = 0; // the one that Enter takes
let present = null; // what the link is, until something else is entered

/** The sections of the page that is worked on, where there is one: of() gives their ids, names, anchors and words, make(id, anchor) gives one an anchor. */
export const places = {
  /** @type {() => { id: string, name: string, anchor: string, words: string }[]} */
  of: () => [],
  /** @type {(id: string, anchor: string) => void} */
  make() {},
};

/** An anchor for what has a name: small letters, digits and hyphens, as core/doc takes them. */
const anchorFor = (name) =>
  name
    .normalize('NFD')
    .toLowerCase()
    .replaceAll(/\p{M}/gu, '')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 40) || 'place';

/** The sections of this page that are called so, or say so. */
function placesCalled(words) {
  if (!words) return [];
  const all = places.of();
  const free = (anchor) => {
    for (let n = 1; ; n++) {
      const one = n > 1 ? `${anchor}-${n}` : anchor;
      if (!all.some((p) => p.anchor === one)) return one;
    }
  };
  return all
    .filter((p) => `${p.name} ${p.words}`.toLowerCase().includes(words))
    .map((p) => ({
      name: p.name,
      href: `#${p.anchor || free(anchorFor(p.name))}`,
      kind: 'Place',
      makes: p.anchor ? '' : p.id,
    }));
}

const fetched = async (query) => {
  const r = await fetch(`${document.body.dataset.site}/links${query}`);
  return r.ok ? r.json() : [];
};

/** What an entry that is no page can be, as it is written. */
function readings(entry) {
  const v = entry.trim();
  if (!v) return [];
  if (v.startsWith('file:')) return [{ name: 'A file that isn’t there any more', href: v, kind: 'File' }];
  if (/^(https?:|mailto:|tel:|[/#])/.test(v))
    return [
      { name: v, href: v, kind: v.startsWith('#') ? 'Place on this page' : v.startsWith('/') ? 'Page' : 'Address' },
    ];
  if (/^[^@\s]+@[^@\s]+\.[^@\s]+$/.test(v)) return [{ name: v, href: `mailto:${v}`, kind: 'Mail' }];
  if (/^\+?[\d\s()/-]{5,}$/.test(v))
    return [{ name: v, href: `tel:${v.replaceAll(/[^\d+]/g, '')}`, kind: 'Telephone' }];
  if (/^[\w-]+(\.[\w-]+)+([/?#].*)?$/.test(v)) return [{ name: v, href: `https://${v}`, kind: 'Address' }];
  return [];
}

/** The name of what an address of the site leads to, or ''. */
export const nameOf = (href) => pages.find((p) => p.href === href.replace(newTab, ''))?.name ?? '';

function show() {
  const words = present === null ? search.value.toLowerCase().trim() : ''; // to begin with all are offered
  const matching = pages
    .filter((p) => p.name.toLowerCase().includes(words) || p.href.includes(words))
    .map((p) => ({ ...p, kind: p.file ? 'File' : p.place ? 'Place' : 'Page' }));
  matching.push(...placesCalled(words).filter((p) => !matching.some((m) => m.href === p.href)));
  offers = [...matching, ...readings(search.value).filter((r) => !matching.some((m) => m.href === r.href))];
  if (readings(search.value).length && !matching.some((m) => m.href === search.value.trim())) offers.reverse();
  at = Math.min(at, Math.max(offers.length - 1, 0));
  list.replaceChildren(
    ...offers.map((o, i) => {
      const li = document.createElement('li');
      li.id = `link-offer-${i}`;
      li.setAttribute('role', 'option');
      li.setAttribute('aria-selected', String(i === at));
      const name = document.createElement('span');
      name.textContent = o.name;
      const kind = document.createElement('span');
      kind.className = 'link-kind measure';
      kind.textContent = o.file ? `${o.file} file` : o.kind === 'Page' || o.kind === 'Place' ? o.href : o.kind;
      li.append(name, kind);
      return li;
    }),
  );
  search.setAttribute('aria-activedescendant', offers.length ? `link-offer-${at}` : '');
  list.children[at]?.scrollIntoView({ block: 'nearest' });
  subject.hidden = !offers[at]?.href.startsWith('mailto:');
  tab.hidden = /^(mailto|tel):/.test(offers[at]?.href ?? '');
}

/** Shows the places on the page that is pointed at, below it. */
async function unfold() {
  const page = offers[at];
  if (!page || page.place || page.kind !== 'Page') return;
  const places = await fetched(`?page=${encodeURIComponent(page.href)}`);
  const i = pages.findIndex((p) => p.href === page.href);
  pages = [
    ...pages.slice(0, i + 1),
    ...places.map((p) => ({ ...p, place: true })).filter((p) => !pages.some((q) => q.href === p.href)),
    ...pages.slice(i + 1),
  ];
  show();
}

function choose(i) {
  const o = offers[i];
  if (!o) return;
  const about = subject.querySelector('input').value.trim();
  const href =
    o.href.startsWith('mailto:') && about && !o.href.includes('?')
      ? `${o.href}?subject=${encodeURIComponent(about)}`
      : o.href;
  const call = on;
  if (o.makes) places.make(o.makes, o.href.slice(1));
  panel.hidePopover();
  call.take(tab.hidden || !tab.firstElementChild.checked ? href : href + newTab);
}

/** Opens the panel beside an element, with what the link is now. */
export async function ask(anchor, now, call) {
  on = call;
  at = 0;
  tab.firstElementChild.checked = now.endsWith(newTab);
  now = now.replace(newTab, '');
  present = now;
  search.value =
    pages.find((p) => p.file && p.href === now)?.name ?? now.replace(/^mailto:([^?]*).*/, '$1').replace(/^tel:/, '');
  subject.querySelector('input').value = /subject=([^&]*)/.exec(now)
    ? decodeURIComponent(/subject=([^&]*)/.exec(now)[1])
    : '';
  panel.querySelector('.link-none').hidden = !now;
  open(panel, anchor, () => call.closed?.());
  search.focus();
  search.select();
  if (!pages.length) pages = await fetched('');
  show();
  at = Math.max(
    offers.findIndex((o) => o.href === now),
    0,
  );
  show();
}

export function start() {
  search.addEventListener('input', () => {
    at = 0;
    present = null;
    show();
  });
  panel.addEventListener('keydown', (e) => {
    e.stopPropagation();
    const to = e.key.startsWith('Arrow') ? nextIn(offers.length, at, e.key) : undefined; // Home and End move the caret
    if (to !== undefined) {
      e.preventDefault();
      at = to;
      show();
    } else if (e.key === 'ArrowRight' && e.target === search && search.selectionStart === search.value.length) {
      unfold();
    } else if (e.key === 'Enter') {
      e.preventDefault();
      choose(at);
    }
  });
  tab.addEventListener('change', () => {
    if (present) choose(at);
  }); // of a link that is there already
  list.addEventListener('click', (e) => {
    const li = e.target.closest('li');
    if (li) choose([...list.children].indexOf(li));
  });
  panel.querySelector('.link-none').addEventListener('click', () => {
    const call = on;
    panel.hidePopover();
    call.take('');
  });
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="link"]');
    if (!anchor) return;
    const field = document.getElementById(anchor.dataset.for);
    const bound = binding(field);
    ask(anchor, field.dataset.link, { take: (href) => take(bound, href), closed: () => leave(bound) });
  });
}
