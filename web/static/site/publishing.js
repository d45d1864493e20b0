// Publishing asks first where something is broken on a ticked page; it forbids nothing.
document.querySelector('.publish-list')?.addEventListener('submit', (e) => {
  if (e.submitter?.id !== 'publish-now') return;
  const broken = [...e.target.querySelectorAll('.publish-row')].filter((row) => row.querySelector('input[name="id"]:checked') && row.querySelector('.checks-broken'));
  const names = broken.map((row) => row.querySelector('.publish-name strong').textContent);
  if (names.length && !window.confirm(`Something is broken on ${names.join(', ')}. Publish all the same?`)) e.preventDefault();
});
