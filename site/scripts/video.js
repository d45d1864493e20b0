// Silent videos play while they are in sight, unless motion isn't wanted, and a button
// stops them (WCAG 2.2, 2.2.2). A player elsewhere is embedded when its link is pressed.
const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
for (const video of document.querySelectorAll('video[loop]')) {
  // In a block the button is beside the video; behind a section it is the section's own.
  const button = video.parentElement.querySelector('button[hidden]') ?? video.parentElement.parentElement.querySelector(':scope > button[hidden]');
  if (!button) continue;
  let stopped = still;
  let seen = false;
  const run = () => {
    if (seen && !stopped) video.play().catch(() => {}); else video.pause();
    button.textContent = stopped ? 'Play' : 'Pause';
    button.setAttribute('aria-label', stopped ? 'Play the moving picture' : 'Pause the moving picture');
  };
  video.muted = true;
  button.hidden = false;
  button.addEventListener('click', () => { stopped = !stopped; run(); });
  new IntersectionObserver(([entry]) => { seen = entry.isIntersecting; run(); }).observe(video);
  run();
}
for (const link of document.querySelectorAll('a[type="text/html"]')) {
  link.addEventListener('click', (e) => {
    e.preventDefault();
    const frame = document.createElement('iframe');
    const { width, height } = link.getBoundingClientRect();
    frame.title = link.getAttribute('aria-label').replace(/^Play: /, '');
    frame.allow = 'autoplay; fullscreen; picture-in-picture';
    frame.sandbox = 'allow-scripts allow-same-origin allow-popups allow-presentation';
    frame.referrerPolicy = 'strict-origin-when-cross-origin';
    Object.assign(frame.style, { display: 'block', border: '0', width: '100%', height: 'auto', aspectRatio: `${width} / ${height}` });
    frame.src = link.href;
    link.replaceWith(frame);
    frame.focus();
  });
}
