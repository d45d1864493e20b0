// Colours: the house style's with their tints and shades, or one's own on a plane of
// lightness and chroma, in any notation of CSS.
import { attempt, binding, leave, palette, same, sharable, take } from './control.js';
import { open } from './panel.js';
import { core } from '../shared/core.js';
import { drag } from '../shared/drag.js';

/** What else is known of where a colour goes: { words, ground, used }, each may be missing. */
/** @type {{ of: (setting: string) => any }} */
export const context = { of: () => ({}) };

const panel = document.getElementById('panel-colour');
const part = (name) => panel.querySelector(`.colour-${name}`);
let at = { name: '', l: 0.5, c: 0.1, h: 200, a: 1 };
let to = null; // what is done with a value: { attempt, take, leave, setting }
let hueDrawn = null;
let mostChroma = 0.33; // that the plane shows

const known = (text) => {
  const [, name, alpha] = /^(.*?)(?:\s+(\d+(?:\.\d+)?)%)?$/.exec(text.trim()) ?? [];
  const swatch = palette().find(
    (w) => w.name.toLowerCase() === name?.toLowerCase() || `$${w.token}` === name || text.startsWith(`$${w.token}/`),
  );
  if (!swatch) return null;
  const share = alpha ?? /\/(\d+(?:\.\d+)?)%$/.exec(text)?.[1] ?? 100;
  return { swatch, alpha: Number(share) / 100 };
};

/** Takes over a colour as it is written; false when it is none. */
function read(text) {
  const own = known(text);
  const c = core()?.colour(own ? own.swatch.hex : text);
  if (!c) return false;
  at = { name: own?.swatch.name ?? '', l: c.l, c: c.c, h: c.c < 0.002 ? at.h : c.h, a: own ? own.alpha : c.a };
  return true;
}

const hex = () => core()?.lch(at.l, at.c, at.h, at.a) ?? '#000000';
const value = () => (at.name ? `${at.name}${at.a < 1 ? ` ${Math.round(at.a * 100)}%` : ''}` : hex());

function buttons(into, colours) {
  into.replaceChildren(
    ...colours.map(({ name, hex: shown, value: v }) => {
      const b = document.createElement('button');
      b.type = 'button';
      b.className = 'colour-swatch';
      b.style.background = shown;
      b.dataset.value = v;
      b.title = name;
      b.setAttribute('aria-label', name);
      b.setAttribute('aria-pressed', String(v === value()));
      return b;
    }),
  );
}

/** Draws the panel as the colour is now. */
function draw({ all = true, typed = false } = {}) {
  const opaque = core()?.lch(at.l, at.c, at.h, 1) ?? '#000000';
  if (all) {
    buttons(
      part('house'),
      palette().map((w) => ({ name: w.name, hex: w.hex, value: w.name })),
    );
    buttons(
      part('scale'),
      (core()?.scale(opaque, 11) ?? '')
        .split(' ')
        .filter(Boolean)
        .map((c) => ({ name: c, hex: c, value: c })),
    );
    const { used = [] } = context.of(to.setting);
    part('used').parentElement.hidden = !used.length;
    buttons(
      part('used'),
      used.map((c) => ({ name: c, hex: c, value: c })),
    );
  }
  part('name').textContent = at.name ? `${at.name}, from the house style` : 'Its own';
  const canvas = part('plane').querySelector('canvas');
  if (hueDrawn !== at.h && core()) {
    hueDrawn = at.h;
    mostChroma = core().chroma(at.h);
    const image = new ImageData(canvas.width, canvas.height);
    const bytes = new Uint8Array(image.data.buffer);
    core().plane(bytes, canvas.width, canvas.height, at.h);
    canvas.getContext('2d').putImageData(image, 0, 0);
  }
  const mark = part('mark');
  mark.style.left = `${Math.min(at.c / mostChroma, 1) * 100}%`;
  mark.style.top = `${(1 - at.l) * 100}%`;
  mark.style.background = opaque;
  mark.setAttribute('aria-valuetext', `lightness ${Math.round(at.l * 100)} %, chroma ${at.c.toFixed(3)}`);
  mark.setAttribute('aria-valuenow', Math.round(at.l * 100));
  part('hue').value = Math.round(at.h);
  if (!typed) part('text').value = at.name || hex();
  part('alpha').value = Math.round(at.a * 100);
  const { words, ground, behind } = context.of(to.setting);
  const pair = words ? [words, hex()] : ground ? [hex(), ground] : null;
  part('contrast').hidden = !pair;
  if (pair) {
    const sample = part('sample');
    sample.style.color = pair[0];
    sample.style.background = pair[1];
    part('ratio').textContent =
      `${words ? 'Words on it' : 'On its ground'} ${core()?.contrast(pair[0], pair[1], behind ?? '#ffffff') ?? ''}`;
  }
}

/** Opens the panel beside an element. */
export function pick(anchor, title, colour, on) {
  to = on;
  if (!read(colour || '#888888')) read('#888888');
  part('title').textContent = title;
  part('none').hidden = !on.none;
  part('same').hidden = !on.bound || !sharable(on.bound);
  hueDrawn = null;
  open(panel, anchor, () => on.leave());
  draw();
  part('text').focus();
}

function changed(how) {
  draw({ all: how === 'take' });
  to[how](value(), hex());
}

function onPlane(e) {
  const box = part('plane').getBoundingClientRect();
  at.name = '';
  at.c = Math.min(Math.max((e.clientX - box.left) / box.width, 0), 1) * mostChroma;
  at.l = 1 - Math.min(Math.max((e.clientY - box.top) / box.height, 0), 1);
}

export function start() {
  document.addEventListener('click', (e) => {
    const anchor = e.target.closest('[data-opens="colour"]');
    if (!anchor) return;
    const field = document.getElementById(anchor.dataset.for);
    const bound = binding(field);
    const house = bound.op.startsWith('house:');
    pick(anchor, field.getAttribute('aria-label'), bound.raw || bound.paintNow || field.value, {
      setting: bound.setting ?? '',
      none: !house,
      bound,
      // The palette's own colours can't be named after one another.
      attempt: (v, own) => attempt(bound, house ? own : v),
      take: (v, own) => take(bound, house ? own : v),
      leave: () => leave(bound),
    });
  });
  panel.addEventListener('click', (e) => {
    const swatch = e.target.closest('.colour-swatch');
    if (swatch && read(swatch.dataset.value)) changed('take');
    if (e.target.closest('.colour-none')) {
      to.take('');
      panel.hidePopover();
    }
    if (e.target.closest('.colour-same')) {
      panel.hidePopover();
      same.as(to.bound);
    }
    if (e.target.closest('.colour-drop')) {
      new window.EyeDropper().open().then(
        ({ sRGBHex }) => {
          if (read(sRGBHex)) changed('take');
        },
        () => {},
      );
    }
  });
  panel.addEventListener('pointerover', (e) => {
    const swatch = e.target.closest('.colour-swatch');
    if (swatch)
      to.attempt(
        swatch.dataset.value,
        swatch.dataset.value.startsWith('#')
          ? swatch.dataset.value
          : palette().find((w) => w.name === swatch.dataset.value)?.hex,
      );
  });
  panel.addEventListener('pointerout', (e) => {
    if (e.target.closest('.colour-swatch')) to.leave();
  });
  part('plane').addEventListener('pointerdown', (e) => {
    const before = { ...at };
    e.preventDefault();
    part('mark').focus();
    onPlane(e);
    changed('attempt');
    const up = (m) => {
      window.removeEventListener('pointerup', up);
      if (!moved) {
        onPlane(m);
        changed('take');
      }
    };
    let moved = false;
    window.addEventListener('pointerup', up);
    drag(e, {
      slack: 2,
      begin() {
        moved = true;
      },
      move(m) {
        onPlane(m);
        changed('attempt');
      },
      drop(m) {
        onPlane(m);
        changed('take');
      },
      end(dropped) {
        if (!dropped) {
          at = before;
          draw();
          to.leave();
        }
      },
    });
  });
  part('mark').addEventListener('keydown', (e) => {
    const by = e.shiftKey ? 10 : 1;
    const [c, l] =
      { ArrowLeft: [-0.005, 0], ArrowRight: [0.005, 0], ArrowUp: [0, 0.01], ArrowDown: [0, -0.01] }[e.key] ?? [];
    if (c === undefined) return;
    e.preventDefault();
    at.name = '';
    at.c = Math.min(Math.max(at.c + c * by, 0), mostChroma);
    at.l = Math.min(Math.max(at.l + l * by, 0), 1);
    changed('take');
  });
  part('hue').addEventListener('input', (e) => {
    at.h = Number(e.target.value);
    at.name = '';
    if (at.c < 0.02) at.c = 0.1;
    changed('attempt');
  });
  part('hue').addEventListener('change', () => changed('take'));
  part('text').addEventListener('input', (e) => {
    if (read(e.target.value)) {
      draw({ typed: true });
      to.attempt(value(), hex());
    }
  });
  part('text').addEventListener('keydown', (e) => {
    if (e.key !== 'Enter') return;
    e.preventDefault();
    if (read(e.target.value)) changed('take');
    else to.take(e.target.value.trim()); // it is said what is wrong with it
  });
  part('alpha').addEventListener('change', (e) => {
    const n = parseFloat(e.target.value);
    if (Number.isFinite(n)) at.a = Math.min(Math.max(n, 0), 100) / 100;
    changed('take');
  });
  part('drop').hidden = !('EyeDropper' in window);
}
