// Copies the page's address, and says so. Where no script runs the button isn't there.
for (const item of document.querySelectorAll('[data-copy]')) {
  const [button, status] = item.children;
  button.addEventListener('click', async () => {
    await navigator.clipboard.writeText(location.href.split('#')[0]);
    status.style.display = 'inline';
    status.textContent = 'Copied';
    setTimeout(() => { status.textContent = ''; }, 3000);
  });
}
