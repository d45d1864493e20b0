// Panels that open beside what they are for, one over another at most.

const gap = 6;

/** Opens a panel beside an element, or what has a rectangle as one has; closed is called once it is closed, however that came. */
export function open(panel, anchor, closed) {
  if (panel.matches(':popover-open')) panel.hidePopover();
  const from = anchor.getBoundingClientRect();
  panel.showPopover(anchor instanceof Element ? { source: anchor } : {});
  place(panel, from);
  const grown = new ResizeObserver(() => place(panel, from)); // once it is drawn, it may be larger
  grown.observe(panel);
  const button = anchor.tagName === 'BUTTON';
  if (button) anchor.setAttribute('aria-expanded', 'true');
  endings.set(panel, () => {
    grown.disconnect();
    if (button) anchor.setAttribute('aria-expanded', 'false');
    closed?.();
    const back = anchor.isConnected ? anchor : document.getElementById(anchor.id || '-');
    if (back && (document.activeElement === document.body || panel.contains(document.activeElement)))
      back.focus({ preventScroll: true });
  });
  panel.ontoggle = (e) => {
    if (e.newState === 'closed') end(panel);
  };
  panel.addEventListener('keydown', escape);
}

/** What comes once a panel is closed. */
const endings = new WeakMap();

function end(panel) {
  const ending = endings.get(panel);
  endings.delete(panel);
  ending?.();
}

/** Escape closes a panel and is done with it before the next key comes; the browser tells of it later. */
function escape(e) {
  if (e.key !== 'Escape' || e.defaultPrevented) return;
  e.preventDefault();
  e.stopPropagation();
  e.currentTarget.hidePopover();
  end(e.currentTarget);
}

/** Beside the anchor: below it where there is room, or above it, and always in the window. */
function place(panel, from) {
  const [w, h] = [panel.offsetWidth, panel.offsetHeight];
  const below = window.innerHeight - from.bottom;
  const y = below >= h + 2 * gap || below > from.top ? from.bottom + gap : from.top - h - gap;
  panel.style.left = `${Math.round(Math.max(gap, Math.min(from.left, window.innerWidth - w - gap)))}px`;
  panel.style.top = `${Math.round(Math.max(gap, Math.min(y, window.innerHeight - h - gap)))}px`;
}
