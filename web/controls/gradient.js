// Gradients: a bar with stops to drag, an angle on a dial, and ready ones of the palette.
import { attempt, binding, leave, looks, palette, same, sharable, take } from './control.js';
import { open } from './panel.js';
import { pick } from './colour.js';
import { drag } from '../shared/drag.js';

const panel = document.getElementById('panel-gradient');
const part = (name) => panel.querySelector(`.gradient-${name}`);
let g = { kind: 'linear', angle: 180, stops: [] };
let chosen = 0;
let bound = null;
let thumb = '';

/** A colour as a person takes it, as a gradient has it. */
function written(v) {
  const [, name, alpha] = /^(.*?)(?:\s+([\d.]+)%)?$/.exec(v) ?? [];
  const w = palette().find((s) => s.name === name);
  if (!w) return v;
  return alpha === undefined ? `$${w.token}` : `$${w.token}/${alpha}%`;
}

function read(raw) {
  const [, kind, angle, rest] = /^(linear|radial|conic)(?: (-?[\d.]+)deg)? (.*)$/.exec(raw) ?? [];
  if (!kind) {
    const [a, b] = palette()
      .filter((w) => ['deep', 'accent'].includes(w.token))
      .map((w) => w.token);
    g = {
      kind: 'linear',
      angle: 180,
      stops: [
        { colour: `$${a ?? 'words'}`, at: 0 },
        { colour: `$${b ?? 'accent'}`, at: 100 },
      ],
    };
    return;
  }
  g = {
    kind,
    angle: Number(angle ?? 0),
    stops: rest.split(',').map((s) => {
      const [c, p] = s.trim().split(' ');
      return { colour: c, at: parseFloat(p) };
    }),
  };
}

const sorted = () => [...g.stops].sort((a, b) => a.at - b.at);
const value = () =>
  `${g.kind}${g.kind === 'radial' ? '' : ` ${Math.round(g.angle)}deg`} ${sorted()
    .map((s) => `${s.colour} ${Number(s.at.toFixed(1))}%`)
    .join(', ')}`;
const css = (kind = g.kind, angle = g.angle) => {
  const head = { linear: `${angle}deg, `, radial: '', conic: `from ${angle}deg, ` }[kind];
  return `${kind}-gradient(${head}${sorted()
    .map((s) => `${looks(s.colour)} ${s.at}%`)
    .join(', ')})`;
};

function draw() {
  part('view').style.background = thumb
    ? `url("${thumb}") center / cover`
    : 'repeating-conic-gradient(#d8d2c4 0 25%, #faf8f3 0 50%) 0 0 / 12px 12px';
  part('over').style.background = css();
  part('over').style.opacity = bound.share || 1;
  part('bar').style.background =
    `${css('linear', 90)}, repeating-conic-gradient(#d8d2c4 0 25%, #faf8f3 0 50%) 0 0 / 12px 12px`;
  for (const b of panel.querySelectorAll('[data-kind]'))
    b.setAttribute('aria-pressed', String(b.dataset.kind === g.kind));
  const stops = part('stops');
  while (stops.children.length > g.stops.length) stops.lastElementChild.remove();
  g.stops.forEach((s, i) => {
    let b = stops.children[i];
    if (!b) {
      b = document.createElement('button');
      b.type = 'button';
      b.className = 'gradient-stop';
      b.setAttribute('role', 'slider');
      b.setAttribute('aria-valuemin', 0);
      b.setAttribute('aria-valuemax', 100);
      stops.append(b);
    }
    b.dataset.at = i;
    b.style.left = `${s.at}%`;
    b.style.setProperty('--stop', looks(s.colour));
    b.setAttribute('aria-valuenow', Math.round(s.at));
    b.setAttribute('aria-label', `Stop ${i + 1}, ${s.colour}`);
    b.classList.toggle('chosen', i === chosen);
  });
  const s = g.stops[chosen];
  part('place').value = Number(s.at.toFixed(1));
  part('colour').style.background = looks(s.colour);
  part('remove').disabled = g.stops.length <= 2;
  part('angle').value = Math.round(g.angle);
  part('turn').hidden = g.kind === 'radial';
  part('dial').style.rotate = `${g.angle}deg`;
  part('dial').setAttribute('aria-valuenow', Math.round(g.angle));
}

function changed(how) {
  draw();
  if (how === 'take') take(bound, value());
  else attempt(bound, value());
}

/** Ready ones: each accent over what is dark and light. */
function ready() {
  const tokens = palette()
    .map((w) => w.token)
    .filter((t) => t !== 'line');
  const pairs = [
    ['deep', 'accent'],
    ['accent', 'ground'],
    ['second-accent', 'accent'],
    ['quiet-ground', 'ground'],
    ['words', 'deep'],
  ].filter(([a, b]) => tokens.includes(a) && tokens.includes(b));
  const all = pairs.map(([a, b]) => `linear 135deg $${a} 0%, $${b} 100%`);
  if (tokens.includes('words')) all.push('linear 0deg $words/80% 0%, $words/0% 70%');
  all.push('linear 90deg #ffffff 45%, #ffffff00 45%');
  part('ready').replaceChildren(
    ...all.map((v) => {
      const was = g;
      read(v);
      const b = document.createElement('button');
      b.type = 'button';
      b.dataset.value = v;
      b.style.background = `${css()}, repeating-conic-gradient(#d8d2c4 0 25%, #faf8f3 0 50%) 0 0 / 8px 8px`;
      b.setAttribute('aria-label', v);
      b.title = v;
      g = was;
      return b;
    }),
  );
}

function show(anchor) {
  const field = document.getElementById(anchor.dataset.for);
  bound = binding(field);
  thumb = bound.thumb ?? '';
  read(bound.raw ?? '');
  chosen = 0;
  part('title').textContent = field.getAttribute('aria-label');
  part('same').hidden = !sharable(bound);
  ready();
  open(panel, anchor, () => leave(bound));
  draw();
  if (!bound.raw) attempt(bound, value());
  panel.querySelector('[data-kind][aria-pressed="true"]').focus();
}

function slide(e, b) {
  const bar = part('bar').getBoundingClientRect();
  const i = Number(b.dataset.at);
  const before = g.stops[i].at;
  chosen = i;
  draw();
  drag(e, {
    slack: 2,
    move(m) {
      g.stops[i].at = Math.min(Math.max(((m.clientX - bar.left) / bar.width) * 100, 0), 100);
      changed('attempt');
    },
    drop() {
      changed('take');
    },
    end(dropped) {
      if (!dropped) {
        g.stops[i].at = before;
        draw();
        leave(bound);
      }
    },
  });
}

function turn(e) {
  const r = part('turn').querySelector('.gradient-face').getBoundingClientRect();
  const to = (m) => {
    g.angle =
      Math.round(
        (Math.atan2(m.clientY - (r.top + r.height / 2), m.clientX - (r.left + r.width / 2)) * 180) / Math.PI + 450,
      ) % 360;
    if (!m.altKey) g.angle = Math.round(g.angle / 5) * 5;
  };
  const before = g.angle;
  drag(e, {
    slack: 0,
    move(m) {
      to(m);
      changed('attempt');
    },
    drop() {
      changed('take');
    },
    end(dropped) {
      if (!dropped) {
        g.angle = before;
        draw();
        leave(bound);
      }
    },
  });
}

export function start() {
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="gradient"]');
    if (anchor) show(anchor);
  });
  panel.addEventListener('pointerdown', (e) => {
    const stop = e.target.closest('.gradient-stop');
    if (stop) {
      e.preventDefault();
      stop.focus();
      slide(e, stop);
    }
    if (e.target.closest('.gradient-face')) turn(e);
  });
  panel.addEventListener('click', (e) => {
    const kind = e.target.closest('[data-kind]');
    if (kind) {
      g.kind = kind.dataset.kind;
      changed('take');
    }
    if (e.target.closest('.gradient-ready')) {
      const v = e.target.closest('[data-value]')?.dataset.value;
      if (v) {
        read(v);
        chosen = 0;
        changed('take');
      }
    }
    if (e.target === part('bar')) {
      // a stop where it was pressed
      const bar = part('bar').getBoundingClientRect();
      const at = ((e.clientX - bar.left) / bar.width) * 100;
      const near = [...g.stops].sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at))[0];
      if (g.stops.length < 12) {
        g.stops.push({ colour: near.colour, at });
        chosen = g.stops.length - 1;
        changed('take');
      }
    }
    if (e.target.closest('.gradient-remove') && g.stops.length > 2) {
      g.stops.splice(chosen, 1);
      chosen = 0;
      changed('take');
    }
    if (e.target.closest('.gradient-same')) {
      panel.hidePopover();
      same.as(bound);
    }
    if (e.target.closest('.gradient-none')) {
      take(bound, '');
      panel.hidePopover();
    }
    if (e.target.closest('.gradient-colour')) {
      const stop = g.stops[chosen];
      const was = stop.colour;
      pick(part('colour'), `Stop ${chosen + 1}`, looks(was), {
        setting: '',
        attempt: (v) => {
          stop.colour = written(v);
          changed('attempt');
        },
        take: (v) => {
          stop.colour = written(v);
          kept = stop.colour;
          changed('take');
        },
        leave: () => {
          if (stop.colour !== kept) {
            stop.colour = kept;
            draw();
            leave(bound);
          }
        },
      });
      let kept = was;
    }
  });
  panel.addEventListener('pointerover', (e) => {
    const v = e.target.closest('.gradient-ready [data-value]')?.dataset.value;
    if (v) attempt(bound, v);
  });
  panel.addEventListener('pointerout', (e) => {
    if (e.target.closest('.gradient-ready [data-value]')) leave(bound);
  });
  panel.addEventListener('keydown', (e) => {
    const stop = e.target.closest('.gradient-stop');
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[e.key];
    if (stop) {
      chosen = Number(stop.dataset.at);
      if (way) {
        e.preventDefault();
        g.stops[chosen].at = Math.min(Math.max(g.stops[chosen].at + way * (e.shiftKey ? 10 : 1), 0), 100);
        changed('take');
      }
      if (e.key === 'Enter' || e.key === ' ') {
        e.preventDefault();
        draw();
        part('colour').click();
      }
      if ((e.key === 'Delete' || e.key === 'Backspace') && g.stops.length > 2) {
        e.preventDefault();
        g.stops.splice(chosen, 1);
        chosen = 0;
        changed('take');
        part('stops').firstElementChild.focus();
      }
    } else if (e.target.closest('.gradient-dial') && way) {
      e.preventDefault();
      g.angle = (g.angle + way * (e.shiftKey ? 15 : 1) + 360) % 360;
      changed('take');
    }
  });
  part('stops').addEventListener('focusin', (e) => {
    const s = e.target.closest('.gradient-stop');
    if (s) {
      chosen = Number(s.dataset.at);
      draw();
    }
  });
  const number = (name, set) =>
    part(name).addEventListener('change', (e) => {
      const n = parseFloat(e.target.value);
      if (Number.isFinite(n)) set(n);
      changed('take');
    });
  number('place', (n) => {
    g.stops[chosen].at = Math.min(Math.max(n, 0), 100);
  });
  number('angle', (n) => {
    g.angle = Math.min(Math.max(n, -360), 360);
  });
}
