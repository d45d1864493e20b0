// Goes from one large picture of a gallery to the next, by buttons and by arrow keys. Where no
// script runs the buttons aren't there.
for (const button of document.querySelectorAll('[data-shows]')) {
  const from = button.closest('[popover]');
  const to = document.getElementById(button.dataset.shows);
  const way = button.dataset.way;
  button.addEventListener('click', () => {
    from.hidePopover();
    to.showPopover();
    (to.querySelector(`[data-way=${way}]`) ?? to.querySelector('button')).focus();
  });
  from.addEventListener('keydown', (e) => {
    if (e.key !== { back: 'ArrowLeft', on: 'ArrowRight' }[way]) return;
    e.preventDefault();
    button.click();
  });
}
