// Publishing, now or later, asks first where something is broken on a ticked page; it forbids
// nothing.
document.querySelector('.publish-list')?.addEventListener('submit', (e) => {
  const ticked = [...e.target.querySelectorAll('.publish-row')].filter((row) =>
    row.querySelector('input[name="id"]:checked'),
  );
  const names = (selector) =>
    ticked
      .filter((row) => row.querySelector(selector))
      .map((row) => row.querySelector('.publish-name strong').textContent)
      .join(', ');
  const [broken, unchecked] = [names('.checks-broken'), names('.row-checks[hx-get]')];
  const says = [broken && `Something is broken on ${broken}.`, unchecked && `${unchecked}: not checked yet.`]
    .filter(Boolean)
    .join(' ');
  const does = e.submitter?.id === 'publish-now' ? 'Publish' : 'Plan it';
  if (says && !window.confirm(`${says} ${does} all the same?`)) e.preventDefault();
});
