// Copies what a link is beside to the clipboard: a button with data-copies.
document.addEventListener('click', async (e) => {
  const button = e.target instanceof Element ? e.target.closest('[data-copies]') : null;
  if (!(button instanceof HTMLElement)) return;
  await navigator.clipboard.writeText(button.dataset.copies ?? '');
  button.textContent = 'Copied';
});
