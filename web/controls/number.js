// Numbers: stepped by keys, scrubbed on their label, changed in unit, taken from a step.
import { attempt, binding, leave, note, same, sharable, take } from './control.js';
import { open } from './panel.js';
import { drag } from '../shared/drag.js';
import { core } from '../shared/core.js';
import { nextIn } from '../shared/list.js';

/** What a length is measured against: { base, width, height } in px. */
/** @type {{ of: (setting: string) => { base: number, width: number, height: number } }} */
export const against = {
  of: () => ({ base: window.innerWidth, width: window.innerWidth, height: window.innerHeight }),
};

const text = /^\s*(-?\d*\.?\d+)\s*([a-z%°]*)\s*$/i;

/** The number that a field shows, and its unit. */
function now(field) {
  const m = text.exec(field.value) ?? text.exec(field.dataset.now);
  return m ? { n: Number(m[1]), unit: m[2] } : { n: Math.max(0, Number(field.dataset.min)), unit: '' };
}

const rounded = (n) => Number(n.toFixed(4));

/** A value so many steps from another, within the bounds, which are said when they are met. */
function moved(field, { n, unit }, steps) {
  const small = unit === 'rem' || unit === 'em';
  const step = small ? 0.0625 : Number(field.dataset.step);
  let to = rounded(Math.round((n + steps * step) / (step / 10)) * (step / 10));
  const [least, most] = [Number(field.dataset.min), Number(field.dataset.max)];
  note(field, '');
  if (!small && unit !== 'vw' && unit !== 'vh' && !(unit === '%' && most > 200)) {
    if (to < least) {
      to = least;
      note(field, `${least} is the least`);
    }
    if (to > most) {
      to = most;
      note(field, `${most} is the most`);
    }
  }
  return `${to}${unit}`;
}

/** The other sides that go along: the opposite one with Alt, all with Shift. */
function along(field, value, e) {
  if (!('side' in field.dataset) || !(e.altKey || e.shiftKey)) return null;
  const [of, side] = field.dataset.setting.split('-');
  const opposite = { top: 'bottom', bottom: 'top', left: 'right', right: 'left' }[side];
  const sides = e.shiftKey ? ['top', 'right', 'bottom', 'left'] : [side, opposite];
  return Object.fromEntries(
    sides.filter((s) => s !== side && document.getElementById(`f-${of}-${s}`)).map((s) => [`${of}-${s}`, value]),
  );
}

let resting = 0;

function key(e) {
  const field = e.target.closest?.('input[data-number]');
  if (!field) return;
  if (e.key === 'F4') {
    e.preventDefault();
    menu(field);
    return;
  }
  const way = { ArrowUp: 1, ArrowDown: -1 }[e.key];
  if (way) {
    e.preventDefault();
    field.value = moved(field, now(field), way * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1));
    attempt(binding(field), field.value);
    clearTimeout(resting);
    resting = setTimeout(() => {
      if (field.isConnected && field.value !== field.defaultValue) take(binding(field), field.value);
    }, 500);
  } else if (e.key === 'Escape' && field.value !== field.defaultValue) {
    clearTimeout(resting);
    field.value = field.defaultValue;
    note(field, '');
    leave(binding(field));
    e.stopPropagation();
  }
}

/** Follows a drag from a label, or from a side of the boxes. */
function scrub(e) {
  const label = e.target.closest?.('label[data-scrub]');
  const side = e.target.closest?.('.at-side');
  const field = label ? document.getElementById(label.htmlFor) : side?.querySelector('input[data-number]');
  if (!field || e.button !== 0 || e.target.closest('button')) return;
  const from = now(field);
  const before = field.value;
  const which = side ? field.dataset.setting.split('-')[1] : '';
  const way = (m) =>
    ({ top: m.clientY - e.clientY, bottom: e.clientY - m.clientY, right: e.clientX - m.clientX })[which] ??
    m.clientX - e.clientX;
  let value = before;
  drag(e, {
    slack: 4,
    begin: () => {
      field.blur();
      document.body.classList.add('scrubbing');
    },
    move(m) {
      value = moved(field, from, Math.round(way(m)));
      field.value = value;
      attempt(binding(field), value, along(field, value, m));
    },
    drop(m) {
      take(binding(field), value, along(field, value, m));
    },
    end(dropped) {
      document.body.classList.remove('scrubbing');
      if (dropped) return;
      field.value = before;
      note(field, '');
      leave(binding(field));
    },
  });
}

/** Units, the house style's steps drawn to size, and another block's value. */
function menu(field) {
  const { units, steps } = JSON.parse(field.dataset.menu);
  const panel = document.getElementById('panel-number');
  const list = panel.querySelector('ul');
  const bound = binding(field);
  const items = [];
  const item = (value, name, draw) => {
    const li = document.createElement('li');
    li.setAttribute('role', 'option');
    li.tabIndex = -1;
    li.dataset.value = value;
    if (draw !== undefined) {
      const bar = document.createElement('span');
      bar.className = 'step-bar';
      bar.style.width = `${Math.min(draw, 100)}px`;
      li.append(bar);
    }
    const span = document.createElement('span');
    span.textContent = name;
    li.append(span);
    items.push(li);
    return li;
  };
  for (const s of steps ?? []) {
    const li = item(s.value, s.name, s.px);
    const px = document.createElement('span');
    px.className = 'measure';
    px.textContent = s.px;
    li.append(px);
  }
  const { base, width, height } = against.of(field.dataset.setting);
  const shown = text.test(field.value) ? field.value : field.dataset.now;
  for (const u of units?.length > 1 ? units : []) {
    const value = shown ? core()?.convert(shown, u, base, width, height) : '';
    if (value) item(value, `in ${u}: ${value}`);
  }
  if (sharable(bound)) item('', 'Same as…').dataset.same = '';
  list.replaceChildren(...items);
  list.onpointerover = (e) => {
    const v = e.target.closest('li')?.dataset.value;
    if (v) attempt(bound, v);
  };
  list.onpointerleave = () => leave(bound);
  list.onclick = (e) => choose(e.target.closest('li'));
  list.onkeydown = (e) => {
    const to = nextIn(items.length, items.indexOf(document.activeElement), e.key);
    if (to !== undefined) {
      e.preventDefault();
      items[to].focus();
      const v = document.activeElement.dataset?.value;
      if (v) attempt(bound, v);
    }
    if (e.key === 'Enter' || e.key === ' ') {
      e.preventDefault();
      choose(document.activeElement);
    }
  };
  let chosen = false;
  function choose(li) {
    if (!li) return;
    chosen = true;
    panel.hidePopover();
    if ('same' in li.dataset) same.as(bound);
    else take(bound, li.dataset.value);
  }
  open(panel, field, () => {
    if (!chosen) leave(bound);
  });
  items[0]?.focus();
}

export function start() {
  document.addEventListener('keydown', key, true);
  document.addEventListener('pointerdown', scrub);
  document.addEventListener('click', (e) => {
    const more = e.target.closest('[data-opens="number"]');
    if (more) menu(document.getElementById(more.dataset.for));
  });
  document.addEventListener('input', (e) => {
    const slide = e.target.closest?.('input.slide');
    if (!slide) return;
    const field = document.getElementById(slide.dataset.for);
    field.value = slide.value;
    attempt(binding(field), slide.value);
  });
  document.addEventListener('change', (e) => {
    const slide = e.target.closest?.('input.slide');
    if (slide) take(binding(document.getElementById(slide.dataset.for)), slide.value);
  });
}
