// Shadows: the house style's, drawn, or one's own by the light that casts it.
import { attempt, binding, leave, looks, same, sharable, take } from './control.js';
import { open } from './panel.js';
import { pick } from './colour.js';
import { drag } from '../shared/drag.js';

const panel = document.getElementById('panel-shadow');
const part = (name) => panel.querySelector(`.shadow-${name}`);
let s = { x: 0, y: 6, blur: 20, spread: 0, colour: '#00000024', inner: false };
let bound = null;

function read(raw) {
  const [, x, y, blur, spread, colour, inner] =
    /^(-?[\d.]+)px (-?[\d.]+)px ([\d.]+)px (-?[\d.]+)px (\S+)( inset)?$/.exec(raw) ?? [];
  if (x === undefined) return;
  s = { x: Number(x), y: Number(y), blur: Number(blur), spread: Number(spread), colour, inner: Boolean(inner) };
}

const value = () => `${s.x} ${s.y} ${s.blur} ${s.spread} ${s.colour}${s.inner ? ' inset' : ''}`;
const css = () => `${s.x}px ${s.y}px ${s.blur}px ${s.spread}px ${looks(s.colour)}${s.inner ? ' inset' : ''}`;

function draw() {
  part('box').style.boxShadow = css();
  part('light').style.left = `${50 - s.x}%`;
  part('light').style.top = `${50 - s.y}%`;
  for (const name of ['x', 'y', 'blur', 'spread']) part(name).value = s[name];
  part('colour').style.background = looks(s.colour);
  part('inner').setAttribute('aria-pressed', String(s.inner));
}

function changed(how) {
  draw();
  (how === 'take' ? take : attempt)(bound, value());
}

function show(anchor) {
  const field = document.getElementById(anchor.dataset.for);
  bound = binding(field);
  read(bound.raw ?? '');
  part('title').textContent = field.getAttribute('aria-label');
  part('house').replaceChildren(
    ...[...document.querySelectorAll('#list-shadow option')].map((o) => {
      const b = document.createElement('button');
      b.type = 'button';
      b.dataset.value = o.value;
      b.className = 'shadow-offer';
      b.style.boxShadow = o.dataset.shade;
      b.textContent = o.value;
      b.setAttribute('aria-pressed', String(bound.raw === `$${o.dataset.token}`));
      return b;
    }),
  );
  part('same').hidden = !sharable(bound);
  for (const name of ['house', 'none']) part(name).hidden = bound.op !== 'set'; // a house style's own is what others follow
  open(panel, anchor, () => leave(bound));
  draw();
  panel.querySelector('button').focus();
}

export function start() {
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="shadow"]');
    if (anchor) show(anchor);
  });
  panel.addEventListener('pointerover', (e) => {
    const b = e.target.closest('.shadow-offer');
    if (b) attempt(bound, b.dataset.value);
  });
  panel.addEventListener('pointerout', (e) => {
    if (e.target.closest('.shadow-offer')) leave(bound);
  });
  panel.addEventListener('click', (e) => {
    const b = e.target.closest('.shadow-offer');
    if (b) {
      take(bound, b.dataset.value);
      panel.hidePopover();
    }
    if (e.target.closest('.shadow-same')) {
      panel.hidePopover();
      same.as(bound);
    }
    if (e.target.closest('.shadow-none')) {
      take(bound, 'None');
      panel.hidePopover();
    }
    if (e.target.closest('.shadow-inner')) {
      s.inner = !s.inner;
      changed('take');
    }
    if (e.target.closest('.shadow-colour')) {
      let kept = s.colour;
      pick(part('colour'), 'Shadow colour', looks(kept), {
        setting: '',
        attempt: (v, hex) => {
          s.colour = hex ?? v;
          changed('attempt');
        },
        take: (v, hex) => {
          s.colour = hex ?? v;
          kept = s.colour;
          changed('take');
        },
        leave: () => {
          if (s.colour !== kept) {
            s.colour = kept;
            draw();
            leave(bound);
          }
        },
      });
    }
  });
  part('pad').addEventListener('pointerdown', (e) => {
    const r = part('pad').getBoundingClientRect();
    const before = { ...s };
    const to = (m) => {
      s.x = Math.round(Math.min(Math.max(50 - ((m.clientX - r.left) / r.width) * 100, -50), 50));
      s.y = Math.round(Math.min(Math.max(50 - ((m.clientY - r.top) / r.height) * 100, -50), 50));
    };
    drag(e, {
      slack: 1,
      move(m) {
        to(m);
        changed('attempt');
      },
      drop() {
        changed('take');
      },
      end(dropped) {
        if (!dropped) {
          s = before;
          draw();
          leave(bound);
        }
      },
    });
  });
  part('light').addEventListener('keydown', (e) => {
    const [x, y] = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key] ?? [];
    if (x === undefined) return;
    e.preventDefault();
    s.x += x;
    s.y += y;
    changed('take');
  });
  for (const name of ['x', 'y', 'blur', 'spread']) {
    part(name).addEventListener('change', (e) => {
      const n = parseFloat(e.target.value);
      if (Number.isFinite(n)) s[name] = Math.min(Math.max(n, name === 'blur' ? 0 : -200), 200);
      changed('take');
    });
  }
}
