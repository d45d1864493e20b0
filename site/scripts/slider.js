// Goes through sliders by buttons. Where no script runs they aren't there; where all that is in a
// slider is seen, they aren't seen.
const still = matchMedia('(prefers-reduced-motion: reduce)');
for (const steps of document.querySelectorAll('[data-steps]')) {
  const list = steps.previousElementSibling;
  const [back, on] = steps.children;
  const tell = () => {
    const room = list.scrollWidth - list.clientWidth;
    const at = Math.abs(list.scrollLeft); // from right to left it is below 0
    steps.style.visibility = room > 1 ? '' : 'hidden';
    back.setAttribute('aria-disabled', String(at < 2));
    on.setAttribute('aria-disabled', String(at > room - 2));
  };
  const go = (way) => {
    const [first, second = first] = list.children;
    const step = second.offsetLeft - first.offsetLeft; // an item and the gap behind it
    list.scrollBy({ left: way * step, behavior: still.matches ? 'instant' : 'smooth' });
  };
  back.addEventListener('click', () => go(-1));
  on.addEventListener('click', () => go(1));
  list.addEventListener('scroll', tell, { passive: true });
  new ResizeObserver(tell).observe(list);
}
