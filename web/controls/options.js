// Choices: side by side, or as a list; what is pointed at is tried.
import { attempt, binding, leave, paint, same, sharable, take } from './control.js';
import { open } from './panel.js';
import { nextIn } from '../shared/list.js';

function list(anchor) {
  const field = anchor.dataset.for ? document.getElementById(anchor.dataset.for) : anchor;
  const bound = binding(field);
  const from = anchor.parentElement.querySelector('template.options-of');
  const panel = document.getElementById('panel-options');
  const search = panel.querySelector('input');
  const ul = panel.querySelector('ul');
  ul.replaceChildren(from.content.cloneNode(true));
  ul.setAttribute('aria-label', anchor.getAttribute('aria-label'));
  search.parentElement.hidden = !('find' in from.dataset);
  search.value = '';
  if (sharable(bound)) {
    const li = document.createElement('li');
    li.setAttribute('role', 'option');
    li.dataset.same = '';
    li.textContent = 'Same as…';
    ul.append(li);
  }
  const items = [...ul.children];
  for (const li of items) {
    li.tabIndex = -1;
    for (const kind of ['ratio', 'shares']) if (li.dataset[kind]) li.prepend(draw(kind, li.dataset[kind]));
  }
  paint(ul);
  const shown = () => items.filter((li) => !li.hidden);
  search.oninput = () => {
    for (const li of items) li.hidden = !li.textContent.toLowerCase().includes(search.value.toLowerCase());
  };
  let chosen = false;
  const choose = (li) => {
    if (!li) return;
    chosen = true;
    panel.hidePopover();
    if ('same' in li.dataset) same.as(bound);
    else take(bound, li.dataset.value);
  };
  ul.onpointerover = (e) => {
    const li = e.target.closest('li');
    if ('value' in (li?.dataset ?? {})) attempt(bound, li.dataset.value);
  };
  ul.onpointerleave = () => leave(bound);
  ul.onclick = (e) => choose(e.target.closest('li'));
  panel.onkeydown = (e) => {
    const all = shown();
    const at = all.indexOf(document.activeElement);
    const to = nextIn(all.length, at, e.key);
    if (to !== undefined && (e.target !== search || e.key.startsWith('Arrow'))) {
      e.preventDefault();
      const li = all[to];
      li.focus();
      if ('value' in (li?.dataset ?? {})) attempt(bound, li.dataset.value);
    } else if (e.key === 'Enter' || (e.key === ' ' && e.target !== search)) {
      e.preventDefault();
      choose(at < 0 ? all[0] : all[at]);
    } else if (e.key.length === 1 && e.target !== search && search.parentElement.hidden) {
      const li = all.find((l) => l.textContent.trim().toLowerCase().startsWith(e.key.toLowerCase()));
      li?.focus();
    }
  };
  open(panel, anchor, () => {
    if (!chosen) leave(bound);
  });
  if ('find' in from.dataset) search.focus();
  else (items.find((li) => li.getAttribute('aria-selected') === 'true') ?? items[0])?.focus();
}

/** A shape for an aspect ratio, or bars for widths in twelfths. */
function draw(kind, value) {
  const e = document.createElement('span');
  e.className = `draw-${kind}`;
  if (kind === 'ratio') {
    const [w, h] = value.split(':').map(Number);
    if (!h) {
      e.classList.add('draw-own');
      return e;
    }
    e.style.aspectRatio = `${w} / ${h}`;
    return e;
  }
  for (const n of value === 'equal' ? [4, 4, 4] : value.split(' ').map(Number)) {
    const bar = document.createElement('span');
    bar.style.flexGrow = n;
    e.append(bar);
  }
  return e;
}

export function start() {
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="options"]');
    if (anchor) list(anchor);
  });
  document.addEventListener('keydown', (e) => {
    const anchor = e.target.closest?.('button.opens');
    if (anchor && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
      e.preventDefault();
      list(anchor);
    }
  });
  document.addEventListener('pointerover', (e) => {
    const b = e.target.closest?.('[data-tries]');
    if (b && !b.contains(e.relatedTarget) && b.getAttribute('aria-pressed') !== 'true')
      attempt(binding(b), b.dataset.value);
  });
  document.addEventListener('pointerout', (e) => {
    const b = e.target.closest?.('[data-tries]');
    if (b && !b.contains(e.relatedTarget)) leave(binding(b));
  });
}
