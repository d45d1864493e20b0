// Words of the Bench's own are explained by a drawing, beside the name that is pointed at or whose control has the focus.
const tip = document.getElementById('means');
const rest = 350; // ms
let due = 0;
let from = null; // the name that is explained

function show(name) {
  const word = name.dataset.means;
  for (const f of tip.children) f.hidden = f.dataset.word !== word;
  tip.showPopover();
  const r = name.getBoundingClientRect();
  const [w, h] = [tip.offsetWidth, tip.offsetHeight];
  tip.style.left = `${Math.min(r.left, window.innerWidth - w - 8)}px`;
  tip.style.top = `${r.top - h - 6 > 4 ? r.top - h - 6 : r.bottom + 6}px`;
}

function about(name) {
  if (name === from) return;
  clearTimeout(due);
  from = name;
  if (tip.matches(':popover-open')) tip.hidePopover();
  if (name) due = setTimeout(() => name.isConnected && show(name), rest);
}

const named = (e) => (e.target instanceof Element ? e.target.closest('[data-means]') : null);

export function start() {
  document.addEventListener('pointerover', (e) => {
    if (!tip.contains(e.target)) about(named(e));
  });
  document.addEventListener('focusin', (e) => {
    const field = e.target.matches(':focus-visible') ? e.target.closest('.field') : null;
    about(field?.querySelector('[data-means]') ?? null);
  });
  document.addEventListener('keydown', (e) => {
    if (e.key === 'Escape') about(null); // it can be put away where it is in the way (WCAG 2.2, 1.4.13)
  });
}
