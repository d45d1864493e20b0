// The companion: the page at another width beside the canvas. It mirrors what the canvas shows,
// tries too; pressing a block in it changes the two over, so that it is edited at that width.
import { base, orderAt, page, zoneAt } from './page.js';
import { select } from './select.js';
import { setWidth } from './reach.js';
import * as canvas from './canvas.js';

const aside = document.getElementById('companion');
const frame = aside.querySelector('iframe');
const told = document.getElementById('companion-width');
let width = Number(localStorage.getItem('companion')) || 0;
let watching;
let due = 0;

const there = () => frame.contentDocument;

/** Shows the page there as the canvas has it: only sections that differ are put in. */
function mirror() {
  due = 0;
  const [from, to] = [canvas.doc(), there()];
  if (aside.hidden || !to?.body) return;
  to.body.style.background = from.body.style.background;
  const rules = [...from.head.querySelectorAll('style[data-css]')];
  for (const rule of rules) {
    let mine = to.head.querySelector(`style[data-css="${rule.dataset.css}"]`);
    if (!mine) {
      mine = to.createElement('style');
      mine.dataset.css = rule.dataset.css;
      to.head.append(mine);
    }
    if (mine.textContent !== rule.textContent) mine.textContent = rule.textContent;
  }
  const order = orderAt(width);
  const all = [...from.body.children];
  if (all.every((e) => order.includes(e.dataset.section)))
    all.sort((a, b) => order.indexOf(a.dataset.section) - order.indexOf(b.dataset.section));
  all.forEach((e, i) => {
    const mine = to.body.children[i];
    if (!mine) to.body.append(to.importNode(e, true));
    else if (mine.outerHTML !== e.outerHTML) mine.replaceWith(to.importNode(e, true));
  });
  while (to.body.children.length > from.body.children.length) to.body.lastElementChild.remove();
  follow();
}

const soon = () => {
  due ||= requestAnimationFrame(mirror);
};

/** Scrolls it to what is seen on the canvas: the same section, at the same share of its height. */
function follow() {
  const [from, to] = [canvas.doc(), there()];
  const at = [...from.querySelectorAll('[data-section]')].find((s) => s.getBoundingClientRect().bottom > 0);
  const mine = at && to.querySelector(`[data-section="${CSS.escape(at.dataset.section)}"]`);
  if (!mine) return;
  const [a, b] = [at.getBoundingClientRect(), mine.getBoundingClientRect()];
  frame.contentWindow.scrollTo({
    top: frame.contentWindow.scrollY + b.top + (b.height * -a.top) / (a.height || 1),
    behavior: 'instant',
  });
}

/** Gives it a width in px of the page. */
function lay() {
  const room = aside.querySelector('.companion-frame').getBoundingClientRect();
  const scale = Math.min(1, room.width / width);
  frame.style.width = `${width}px`;
  frame.style.height = `${room.height / scale}px`;
  frame.style.transform = `scale(${scale})`;
  told.textContent = `${width} px, ${zoneAt(width).name}`;
  for (const b of aside.querySelectorAll('[data-companion]'))
    b.setAttribute('aria-pressed', String(Number(b.dataset.companion) === width));
}

function setIts(px) {
  width = px;
  localStorage.setItem('companion', String(px));
  lay();
  soon();
}

/** Changes the two over, with a block selected. */
function change(block) {
  const was = page.width;
  setWidth(width);
  setIts(was);
  if (block) select(block, { show: true });
}

/** Opens or closes it. */
export function toggle() {
  const open = aside.hidden;
  aside.hidden = !open;
  document.body.toggleAttribute('data-companioned', open);
  if (!open) {
    localStorage.removeItem('companion');
    watching?.disconnect();
    return;
  }
  width ||= page.zones.at(-1).typical === page.width ? page.zones[0].typical : page.zones.at(-1).typical;
  frame.addEventListener(
    'load',
    () => {
      const d = there();
      if (d.URL === 'about:blank') return;
      watching = new MutationObserver(soon);
      watching.observe(canvas.doc(), { subtree: true, childList: true, attributes: true, characterData: true });
      setIts(width);
      mirror();
    },
    { once: true },
  );
  frame.src = `${base}/canvas`;
}

/** What lies in the frame at a point of the window; nothing in it is told of events, since no script runs there. */
function at(x, y) {
  const r = frame.getBoundingClientRect();
  const scale = r.width / width;
  return there().elementFromPoint((x - r.left) / scale, (y - r.top) / scale);
}

export function start() {
  const over = aside.querySelector('.companion-over');
  over.addEventListener('click', (e) =>
    change(at(e.clientX, e.clientY)?.closest('[data-block], [data-section]')?.dataset.block),
  );
  over.addEventListener('wheel', (e) => frame.contentWindow.scrollBy({ top: e.deltaY, behavior: 'instant' }), {
    passive: true,
  });
  canvas.onScroll(() => {
    if (!aside.hidden && there()?.body) follow();
  });
  aside.addEventListener('click', (e) => {
    const b = e.target.closest('[data-companion]');
    if (b) setIts(Number(b.dataset.companion));
    if (e.target.closest('#companion-change')) change(page.select);
    if (e.target.closest('#companion-close')) toggle();
  });
  new ResizeObserver(() => {
    if (!aside.hidden) lay();
  }).observe(aside);
  if (width) toggle();
}
