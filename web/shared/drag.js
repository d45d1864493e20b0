// One way of dragging, for everything that is dragged: a press that wanders further than
// the slack begins it, letting go ends it, Escape or the browser takes it back. While it
// lasts the pointer is captured, and near the edges of what scrolls that is scrolled.

const edge = 36; // px from an edge of what scrolls within which it is scrolled
const speed = 14; // px a frame at the edge itself

/** How far to scroll along one axis for a pointer at p between the ends a and b. */
function push(p, a, b) {
  if (p < a + edge) return -speed * Math.min((a + edge - p) / edge, 1);
  if (p > b - edge) return speed * Math.min((p - b + edge) / edge, 1);
  return 0;
}

/** Keeps the click that ends a drag from being one; the next one is taken as it comes. */
function noClick() {
  const stop = (c) => {
    c.preventDefault();
    c.stopImmediatePropagation();
  };
  window.addEventListener('click', stop, { capture: true, once: true });
  setTimeout(() => window.removeEventListener('click', stop, { capture: true }));
}

/**
 * Follows a press, which the pointerdown event tells of.
 *
 * @param {PointerEvent} down
 * @param {object} on
 * @param {number} [on.slack] px that a press may wander before it is a drag
 * @param {(e: PointerEvent) => boolean | void} [on.begin] called once it is a drag; false leaves it
 * @param {(e: PointerEvent) => void} on.move called for each move of it, the first included
 * @param {(e: PointerEvent) => void} on.drop called when it is let go
 * @param {(dropped: boolean) => void} [on.end] called when it is over, before drop and also without one
 * @param {(e: PointerEvent) => void} [on.tap] called when it was no drag but a press
 * @param {{ rect: () => DOMRect, by: (x: number, y: number) => void }} [on.scroll] what is scrolled near its edges
 */
export function drag(down, { slack = 4, begin, move, drop, end, tap, scroll }) {
  const target = down.target;
  let moving = false;
  let last = down;
  let frame = 0;

  function auto() {
    const r = scroll.rect();
    const [x, y] = [push(last.clientX, r.left, r.right), push(last.clientY, r.top, r.bottom)];
    if (x || y) {
      scroll.by(x, y);
      move(last);
    }
    frame = requestAnimationFrame(auto);
  }

  function moved(e) {
    if (e.pointerId !== down.pointerId) return;
    last = e;
    if (!moving) {
      if (Math.hypot(e.clientX - down.clientX, e.clientY - down.clientY) < slack) return;
      if (begin?.(e) === false) {
        over();
        return;
      }
      moving = true;
      if (target.isConnected) target.setPointerCapture?.(down.pointerId); // what was pressed may be drawn anew by now
      if (scroll) frame = requestAnimationFrame(auto);
    }
    move(e);
  }

  function over(dropped = false) {
    cancelAnimationFrame(frame);
    window.removeEventListener('pointermove', moved);
    window.removeEventListener('pointerup', up);
    window.removeEventListener('pointercancel', cancel);
    window.removeEventListener('keydown', escape, true);
    window.removeEventListener('dragstart', native, true);
    if (target.hasPointerCapture?.(down.pointerId)) target.releasePointerCapture(down.pointerId);
    if (moving) end?.(dropped);
    const was = moving;
    moving = false;
    return was;
  }

  function up(e) {
    if (e.pointerId !== down.pointerId) return;
    if (!over(true)) {
      tap?.(e);
      return;
    }
    noClick();
    drop(e);
  }

  function cancel(e) {
    if (e.pointerId === down.pointerId) over();
  }

  function escape(k) {
    if (k.key !== 'Escape' || !moving) return;
    k.preventDefault();
    k.stopPropagation();
    over();
    window.addEventListener('pointerup', noClick, { capture: true, once: true });
  }

  function native(d) {
    d.preventDefault();
  } // the browser's own dragging of pictures and links

  window.addEventListener('pointermove', moved);
  window.addEventListener('pointerup', up);
  window.addEventListener('pointercancel', cancel);
  window.addEventListener('keydown', escape, true);
  window.addEventListener('dragstart', native, true);
}
