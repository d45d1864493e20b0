// A menu composed: ordered and nested by dragging or by keys, kept as it is changed.
import { ask } from '../shared/ask.js';
import { drag } from '../shared/drag.js';
import { light, rest as pause, sent, unkept } from '../shared/leaving.js';

const form = /** @type {HTMLFormElement} */ (document.getElementById('menu'));
const list = document.getElementById('menu-rows');
const others = document.getElementById('menu-others');
const blank = /** @type {HTMLTemplateElement} */ (document.getElementById('menu-row'));
const said = document.getElementById('menu-said');
const problem = document.getElementById('menu-problem');
const deep = 32; // px

const rows = () => [...list.children];
const field = (row, name) => row.querySelector(`[name="${name}"]`);
const named = (row) => field(row, 'label').value || field(row, 'label').placeholder || field(row, 'link').value;

/** Draws the menu anew, as it is kept. */
function draw() {
  for (const frame of document.querySelectorAll('.menu-drawing iframe')) frame.src = frame.getAttribute('src');
}

let asked = 0;
/** Keeps the menu: from here on by hand. */
async function keep() {
  const mine = ++asked;
  const held = new FormData(form);
  const body = light(held);
  sent(form);
  let answer;
  try {
    answer = await fetch(form.action, {
      method: 'POST',
      body: body ?? new URLSearchParams(/** @type {any} */ (held)),
      keepalive: Boolean(body),
    });
  } catch {
    if (mine !== asked) return;
    problem.hidden = false;
    problem.textContent = unkept;
    later = setTimeout(keep, pause);
    return;
  }
  if (mine !== asked) return; // another change came after
  const told = new DOMParser().parseFromString(await answer.text(), 'text/html').getElementById('menu-problem');
  problem.hidden = answer.ok;
  problem.textContent = answer.ok ? '' : (told?.textContent ?? 'It couldn’t be kept just now.');
  if (!answer.ok) return;
  said.textContent = 'Kept.';
  draw();
}

let later = 0;
/** Keeps the menu once whoever writes rests. */
function changed(rest = 0) {
  document.getElementById('follows')?.remove();
  const follow = document.getElementById('menu-follow');
  if (follow?.hidden) {
    follow.hidden = false;
    document.getElementById('menu-follows').textContent =
      'This menu is by hand: new pages don’t come into it by themselves.';
  }
  rows().forEach((row, i) => {
    if (i === 0) nest(row, false);
    row.querySelector('.page-grip').setAttribute('aria-label', `Move ${named(row)}`);
  });
  document.querySelector('.menu-none').hidden = rows().length > 0;
  document.querySelector('.menu-all').hidden = others.children.length > 0;
  said.textContent = '';
  clearTimeout(later);
  later = setTimeout(keep, rest);
}

/** Has an item stand under the one above it, or at the top. */
function nest(row, under) {
  row.classList.toggle('under', under);
  field(row, 'level').value = under ? 'under' : 'top';
}

/** An item with those under it. */
function held(row) {
  const out = [row];
  if (row.classList.contains('under')) return out;
  for (let r = row.nextElementSibling; r?.classList.contains('under'); r = r.nextElementSibling) out.push(r);
  return out;
}

const steps = {
  ArrowUp(row) {
    let to = row.previousElementSibling;
    if (!row.classList.contains('under')) while (to?.classList.contains('under')) to = to.previousElementSibling;
    to?.before(...held(row));
  },
  ArrowDown(row) {
    const own = held(row);
    const next = own.at(-1).nextElementSibling;
    if (next) (row.classList.contains('under') ? next : held(next).at(-1)).after(...own);
  },
  ArrowRight(row) {
    if (row.previousElementSibling) held(row).forEach((r) => nest(r, true));
  },
  ArrowLeft: (row) => nest(row, false),
};

list.addEventListener('keydown', (e) => {
  const row = e.target.closest('.menu-row');
  if (!row || !e.altKey || !steps[e.key]) return;
  e.preventDefault();
  const focus = document.activeElement;
  steps[e.key](row);
  focus.focus();
  changed();
});
list.addEventListener('input', () => changed(350));

// A menu of the site's own is called what is written, and asks before it is deleted.
const called = document.getElementById('menu-called');
if (called instanceof HTMLInputElement)
  called.addEventListener('input', () => {
    document.querySelector('.segments [aria-current]').textContent = called.value || 'Menu';
    changed(350);
  });
document.getElementById('menu-drop')?.addEventListener('submit', async (e) => {
  e.preventDefault();
  const words = 'Menu blocks that show it show nothing then.';
  if (await ask({ title: 'Delete this menu?', words, does: 'Delete' }))
    /** @type {HTMLFormElement} */ (e.target).submit();
});
list.addEventListener('keydown', (e) => {
  if (e.key === 'Enter' && e.target.matches('input')) {
    e.preventDefault();
    changed();
  }
});
list.addEventListener('click', (e) => {
  const row = e.target.closest('.menu-row');
  const look = e.target.closest('.menu-look');
  if (look) {
    const on = look.getAttribute('aria-pressed') !== 'true';
    look.setAttribute('aria-pressed', String(on));
    field(row, look.dataset.set).value = on ? look.dataset.on : '';
    changed();
  } else if (e.target.closest('.menu-out')) {
    const next = row.nextElementSibling ?? row.previousElementSibling;
    const usual = field(row, 'label').placeholder;
    if (field(row, 'page').value) offer(field(row, 'link').value, usual);
    row.remove();
    changed();
    (next?.querySelector('.page-grip') ?? document.getElementById('menu-link')).focus();
  }
});

/** Offers a page that isn't in the menu. */
function offer(address, usual) {
  const li = document.createElement('li');
  const button = document.createElement('button');
  button.type = 'button';
  Object.assign(button.dataset, { address, usual });
  const at = document.createElement('span');
  at.className = 'measure';
  at.textContent = address;
  button.append(usual, at);
  li.append(button);
  others.append(li);
}

/** Puts an item at the end, and gives it. */
function add(address, usual, page) {
  const row = /** @type {HTMLElement} */ (blank.content.firstElementChild.cloneNode(true));
  field(row, 'link').value = address;
  field(row, 'label').placeholder = usual;
  field(row, 'page').value = page ? 'yes' : '';
  field(row, 'link').readOnly = page;
  list.append(row);
  return row;
}

others.addEventListener('click', (e) => {
  const button = e.target.closest('button');
  if (!button) return;
  const row = add(button.dataset.address, button.dataset.usual, true);
  button.parentElement.remove();
  changed();
  field(row, 'label').focus();
});
document.getElementById('menu-link').addEventListener('click', () => {
  const row = add('https://', 'What the link is called', false);
  document.querySelector('.menu-none').hidden = true;
  field(row, 'label').focus(); // kept once something is written
});
document.getElementById('menu-heading').addEventListener('click', () => {
  const row = add('', 'A heading over those under it', false);
  document.querySelector('.menu-none').hidden = true;
  field(row, 'label').focus();
});

list.addEventListener('pointerdown', (e) => {
  const row = e.target.closest('.page-grip')?.closest('.menu-row');
  if (!row || e.button !== 0) return;
  let mark = null;
  let at = null;
  drag(e, {
    begin() {
      mark = document.createElement('div');
      mark.className = 'menu-drop';
      list.append(mark);
      held(row).forEach((r) => r.classList.add('dragged'));
    },
    move(m) {
      const own = held(row);
      const left = rows().filter((r) => r !== mark && !own.includes(r));
      const above = left.filter((r) => m.clientY > r.getBoundingClientRect().top + r.offsetHeight / 2).at(-1) ?? null;
      const box = list.getBoundingClientRect();
      const next = above ? left[left.indexOf(above) + 1] : left[0];
      at = {
        above,
        under: above !== null && (m.clientX - box.left > deep + 14 || Boolean(next?.classList.contains('under'))),
      };
      mark.style.top = `${(above ? above.getBoundingClientRect().bottom : box.top) - box.top - 1}px`;
      mark.style.left = at.under ? `${deep}px` : '0';
    },
    drop() {
      if (!at) return;
      const own = held(row);
      if (at.above) at.above.after(...own);
      else list.prepend(...own);
      own.forEach((r, i) => nest(r, at.under || (i > 0 && r.classList.contains('under'))));
      changed();
    },
    end() {
      mark?.remove();
      held(row).forEach((r) => r.classList.remove('dragged'));
    },
    scroll: {
      rect: () => new DOMRect(0, 0, window.innerWidth, window.innerHeight),
      by: (x, y) => window.scrollBy(0, y),
    },
  });
});
