// What the controls have in common: each shows a value, and says when another one is tried,
// taken or left. Who listens makes commands of it.

/** What a field sets: its data, kept over its being drawn anew. */
export const binding = (field) => ({ ...field.dataset, id: field.id });

const say = (act, bound, value, more = null) =>
  document.dispatchEvent(new CustomEvent('openplot:control', { detail: { act, bound, value, more } }));

/** Shows a value; more has values of further settings by their names. */
export const attempt = (bound, value, more) => say('try', bound, value, more);
/** Keeps a value. */
export const take = (bound, value, more) => say('take', bound, value, more);
/** Shows again what is kept. */
export const leave = (bound) => say('leave', bound, '');

/** What "same as…" does for a field, or null where there is no such thing. */
export const same = { as: null };

/** Whether a field's value can be another block's. */
export const sharable = (bound) => Boolean(same.as) && bound.op === 'set';

/** Paints what is to be seen as a colour, a gradient or a shadow, and sets words in their own font. */
export function paint(root = document) {
  for (const e of root.querySelectorAll('[data-paint]'))
    e.style.background = e.dataset.paint ? `${e.dataset.paint}` : '';
  for (const e of root.querySelectorAll('[data-shade]')) e.style.boxShadow = e.dataset.shade;
  for (const e of root.querySelectorAll('[data-font]')) e.style.fontFamily = `"${e.dataset.font}"`;
  for (const e of root.querySelectorAll('[data-ink]')) e.style.color = e.dataset.ink;
  for (const e of root.querySelectorAll('[data-radius]')) e.style.borderRadius = `${e.dataset.radius}px`;
  for (const e of root.querySelectorAll('[data-corner]')) e.style.borderTopLeftRadius = `${e.dataset.corner}px`;
  for (const e of root.querySelectorAll('[data-clip]')) e.style.clipPath = e.dataset.clip;
  for (const e of root.querySelectorAll('[data-weight]')) e.style.fontWeight = e.dataset.weight;
  for (const e of root.querySelectorAll('[data-size]')) e.style.fontSize = `${e.dataset.size}px`;
}

/** The house style's colours: name, token and what they look like. */
export const palette = () =>
  [...document.querySelectorAll('#list-colour option')].map((o) => ({
    name: o.value,
    token: o.dataset.token,
    hex: o.textContent,
  }));

/** What a canonical colour looks like: a token, with an opacity behind it or not, or CSS's own notation. */
export function looks(colour) {
  const [, token, alpha] = /^\$([\w-]+)(?:\/([\d.]+)%)?$/.exec(colour) ?? [];
  if (!token) return colour;
  const hex = palette().find((w) => w.token === token)?.hex ?? '#000000';
  return alpha === undefined
    ? hex
    : hex +
        Math.round(Number(alpha) * 2.55)
          .toString(16)
          .padStart(2, '0');
}

/** Says something beside a field for a moment. */
export function note(field, text) {
  const box = field.closest('[data-field]') ?? field.parentElement;
  let e = box.querySelector('.field-say');
  if (!text) {
    e?.remove();
    return;
  }
  if (!e) {
    e = document.createElement('span');
    e.className = 'field-say';
    e.setAttribute('role', 'alert');
    box.append(e);
  }
  e.textContent = text;
}
