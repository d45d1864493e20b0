// Drawing on the overlay: SVG in px of the stage.
export const svg = document.getElementById('overlay');
const NS = 'http://www.w3.org/2000/svg';

/** Adds an element to the overlay. */
export function draw(name, attrs, text) {
  const e = document.createElementNS(NS, name);
  for (const [k, v] of Object.entries(attrs)) e.setAttribute(k, v);
  if (text !== undefined) e.textContent = text;
  svg.append(e);
  return e;
}

/** Where a line of one px is sharp. */
export const px = (v) => Math.round(v) + 0.5;

/** Words in a small box around a point. */
export function tag(x, y, text, strong = false) {
  const w = String(text).length * 7 + 12;
  draw('rect', { class: strong ? 'tag strong' : 'tag', x: px(x - w / 2), y: px(y - 8), width: w, height: 16 });
  draw('text', { class: strong ? 'tag-text strong' : 'tag-text', x, y: y + 4 }, text);
}
