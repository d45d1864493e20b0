// Counts down to a time; without this the figures aren't there. Seconds aren't told to those
// who mind what moves.
const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
for (const figures of document.querySelectorAll('[role="timer"][data-scripted]')) {
  const [when] = figures.parentElement.querySelectorAll('time');
  const over = figures.parentElement.querySelector('p[hidden]');
  const end = Date.parse(when.dateTime);
  const values = [...figures.children].map((cell) => cell.firstElementChild);
  if (still) figures.lastElementChild.style.visibility = 'hidden';
  const tell = () => {
    const left = Math.floor((end - Date.now()) / 1000);
    if (left <= 0) {
      clearInterval(ticks);
      figures.style.display = 'none';
      over.hidden = false;
      return;
    }
    const parts = [Math.floor(left / 86400), Math.floor(left / 3600) % 24, Math.floor(left / 60) % 60, left % 60];
    parts.forEach((n, i) => { if (values[i].textContent !== String(n)) values[i].textContent = n; });
  };
  const ticks = setInterval(tell, 1000);
  tell();
}
