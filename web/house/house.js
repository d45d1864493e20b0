// The house style: changes are sent one after another, each against the version that
// the one before it left. A morph leaves what was typed in fields; they show what is kept,
// or what was refused, as the server wrote it, but for what is being typed. The specimen on the right follows each
// change, at the width that is chosen, scaled to fit, and shows what is tried.
import { binding, paint, take } from '../controls/control.js';
import * as colour from '../controls/colour.js';
import * as gradient from '../controls/gradient.js';
import * as number from '../controls/number.js';
import * as options from '../controls/options.js';
import * as shadow from '../controls/shadow.js';
import { load } from '../shared/core.js';
import { tries } from '../shared/tries.js';

const frame = document.getElementById('specimen');
const stage = frame.parentElement;
const shown = document.getElementById('shown');
const zones = [...document.querySelectorAll('.specimen-zones button')];
const base = document.body.dataset.base;
let top = 0; // how far the specimen is scrolled

function address() {
  const { version, trying } = document.getElementById('house').dataset;
  const query = new URLSearchParams({ v: version });
  if (trying) query.set('house', trying);
  return `${shown.value}?${query}`;
}

let last = '';

function show() {
  if (last === address()) return;
  last = address();
  kept = null;
  top = frame.contentWindow.scrollY;
  frame.contentWindow.location.replace(last); // so that going back leaves this screen
}

function fit() {
  const page = shown.selectedIndex > 0;
  const width = Number(zones.find((b) => b.getAttribute('aria-pressed') === 'true').dataset.width);
  const room = stage.parentElement.clientWidth - 48;
  const scale = Math.min(room / width, 1);
  // A specimen is read at its true size; pages are seen whole.
  const at = page ? scale : 1;
  stage.style.width = page ? `${width * scale}px` : '';
  frame.style.width = page ? `${width}px` : '100%';
  frame.style.height = `${stage.clientHeight / at}px`;
  frame.style.transform = at === 1 ? '' : `scale(${at})`;
  document.querySelector('.specimen-zones').hidden = !page;
}

let kept = null; // what the specimen shows otherwise: its rules and its body
let waiting = null; // what is to be put in its place once it is there

/** The specimen's document, or null while another one is on its way. */
function there() {
  const d = frame.contentDocument;
  return d?.head && d.body && d.readyState === 'complete' && frame.contentWindow.location.href !== 'about:blank'
    ? d
    : null;
}

frame.addEventListener('load', () => {
  if (waiting) put(waiting);
});

const line = tries(
  async (values) => {
    const page = /\/pages\/([^/]+)\/canvas$/.exec(shown.value)?.[1] ?? '';
    const r = await fetch(`${base}/tries`, { method: 'POST', body: new URLSearchParams({ ...values, page }) });
    return r.status === 200 ? r.json() : null;
  },
  (answer) => put(new frame.contentWindow.DOMParser().parseFromString(answer.document, 'text/html')),
);

/** Puts a document in place of what the specimen shows, with the same fonts. */
function put(next) {
  const d = there();
  waiting = d ? null : next;
  if (!d) return;
  const y = frame.contentWindow.scrollY;
  kept ??= { styles: [...d.querySelectorAll('head style')], body: d.body };
  for (const s of d.querySelectorAll('head style')) s.remove();
  for (const s of next.querySelectorAll('style')) d.head.append(d.importNode(s, true));
  d.documentElement.replaceChild(d.importNode(next.body, true), d.body);
  frame.contentWindow.scrollTo(0, y);
}

/** Shows again what is kept. */
function leave() {
  line.end();
  waiting = null;
  const d = there();
  if (!kept || !d) return;
  const y = frame.contentWindow.scrollY;
  for (const s of d.querySelectorAll('head style')) s.remove();
  d.head.append(...kept.styles);
  d.documentElement.replaceChild(kept.body, d.body);
  kept = null;
  frame.contentWindow.scrollTo(0, y);
}

document.addEventListener('openplot:control', ({ detail: { act, bound, value } }) => {
  if (!bound.op?.startsWith('house:')) return;
  const house = document.getElementById('house').dataset;
  const values = {
    op: bound.op.slice(6),
    token: bound.token ?? '',
    name: bound.name ?? '',
    value,
    base: house.version,
  };
  if (act === 'try') line.want(values);
  else if (act === 'leave') leave();
  else {
    line.end();
    window.htmx.ajax('POST', `${base}/edits`, { source: document.body, target: '#house', swap: 'outerMorph', values });
  }
});

/** What is pointed at is tried: a house style, a pairing of fonts. */
document.addEventListener('pointerover', (e) => {
  const b = e.target.closest?.('[data-house], [data-pair]');
  if (!b || b.contains(e.relatedTarget) || document.getElementById('house').dataset.trying) return;
  line.want(b.dataset.house ? { house: b.dataset.house } : { op: 'fonts.pair', value: b.dataset.pair });
});
document.addEventListener('pointerout', (e) => {
  const b = e.target.closest?.('[data-house], [data-pair]');
  if (b && !b.contains(e.relatedTarget)) leave();
});

/** What is pressed among choices side by side is kept. */
document.addEventListener('click', (e) => {
  const b = e.target.closest('#house [data-tries]');
  if (b) take(binding(b), b.dataset.value);
});

/** Draws steps as large as they are. */
function draw() {
  paint(document);
  for (const e of document.querySelectorAll('#house .drawn')) {
    const px = Number(document.getElementById(e.closest('label').htmlFor).defaultValue) || 0;
    if (e.classList.contains('drawn-space')) e.style.width = `${Math.min(px, 56)}px`;
    if (e.classList.contains('drawn-line')) e.style.height = `${Math.min(px, 16)}px`;
    if (e.classList.contains('drawn-corner')) e.style.borderTopLeftRadius = `${Math.min(px, 20)}px`;
  }
}

frame.addEventListener('load', () => frame.contentWindow.scrollTo(0, top));
shown.addEventListener('change', () => {
  top = 0;
  fit();
  show();
});
for (const b of zones) {
  b.addEventListener('click', () => {
    for (const other of zones) other.setAttribute('aria-pressed', String(other === b));
    fit();
  });
}
new ResizeObserver(fit).observe(stage.parentElement);
const typed = new Set(); // the fields with something typed that isn't taken yet
document.addEventListener('input', (e) => {
  typed.add(e.target);
});
for (const over of ['change', 'focusout'])
  document.addEventListener(over, (e) => {
    typed.delete(e.target);
  });
document.addEventListener(
  'htmx:before:request',
  ({
    detail: {
      ctx: { request, target },
    },
  }) => {
    if (target?.id === 'house' && request.body?.has?.('base'))
      request.body.set('base', document.getElementById('house').dataset.version);
  },
);
document.addEventListener('htmx:after:swap', (e) => {
  if (e.detail.ctx.target?.id !== 'house') return;
  for (const field of document.querySelectorAll('#house input:not([type=file], [type=hidden])')) {
    if (!typed.has(field)) field.value = field.defaultValue;
  }
  draw();
  show();
});
colour.context.of = () => {
  const of = (token) => document.querySelector(`#list-colour option[data-token="${token}"]`)?.textContent;
  return { ground: of('ground') };
};
for (const part of [number, options, colour, gradient, shadow]) part.start();
fit();
show();
draw();
load();
