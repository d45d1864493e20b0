// Forms: how long one took to fill in, in milliseconds, which tells people from programs, and a number made up, so
// that what is sent twice is kept once; what the address of the page says for hidden values; fields that are there when
// another has a value; steps.
const began = performance.now();
const all = (of, what) => [...of.querySelectorAll(what)];
for (const took of all(document, 'form input[name="_took"]')) {
  const form = took.form;
  const { _once: once } = form.elements;
  if (once) once.value = Math.random().toString(36).slice(2) + Date.now().toString(36);
  form.addEventListener('submit', () => { took.value = String(Math.round(performance.now() - began)); });
  const asked = new URLSearchParams(location.search);
  for (const f of all(form, '[data-parameter]')) f.value = asked.get(f.dataset.parameter) ?? f.value;
  const show = () => {
    for (const row of all(form, '[data-when]')) {
      const given = new FormData(form).getAll(row.dataset.when).filter(Boolean);
      row.hidden = !('is' in row.dataset ? given.includes(row.dataset.is) : given.length);
      for (const f of all(row, 'input,select,textarea')) {
        f.disabled = row.hidden;
        f.required ||= 'required' in f.dataset;
      }
    }
  };
  for (const note of all(form, '[data-only]')) note.hidden = true;
  if (form.querySelector('[data-when]')) {
    form.addEventListener('input', show);
    show();
  }
  const bar = form.querySelector('[data-stepping]');
  if (!bar) continue;
  const steps = all(form, '[data-step]');
  const end = form.querySelector('[data-end]');
  let at = 0;
  const go = (to, lead) => {
    at = to;
    steps.forEach((s, i) => { s.hidden = i !== at; });
    end.hidden = at < steps.length - 1;
    bar.hidden = false;
    bar.querySelector('[data-go="previous"]').hidden = at === 0;
    bar.querySelector('[data-go="next"]').hidden = at === steps.length - 1;
    bar.querySelector('[data-far]').textContent = `${at + 1} / ${steps.length}`;
    if (lead) steps[at].querySelector('[tabindex="-1"],input,select,textarea')?.focus();
  };
  bar.addEventListener('click', (e) => {
    const way = e.target.closest('[data-go]')?.dataset.go;
    if (!way) return;
    const bad = way === 'next' && all(steps[at], 'input,select,textarea').find((f) => !f.checkValidity());
    if (bad) bad.reportValidity();
    else go(at + (way === 'next' ? 1 : -1), true);
  });
  form.addEventListener('keydown', (e) => {
    if (e.key !== 'Enter' || !e.target.matches('input') || at === steps.length - 1) return;
    e.preventDefault();
    bar.querySelector('[data-go="next"]').click();
  });
  go(Math.max(steps.findIndex((s) => s.querySelector('[aria-invalid]')), 0), false);
}
