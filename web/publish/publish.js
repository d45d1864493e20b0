// Publishing, now or later, asks first where something is broken on a ticked page; it forbids
// nothing.
import { ask } from '../shared/ask.js';

const form = document.querySelector('.publish-list');
let agreed = false;
form?.addEventListener('submit', async (e) => {
  if (agreed) {
    agreed = false;
    return;
  }
  const ticked = [...form.querySelectorAll('.publish-row')].filter((row) =>
    row.querySelector('input[name="id"]:checked'),
  );
  const names = (selector) =>
    ticked
      .filter((row) => row.querySelector(selector))
      .map((row) => row.querySelector('.publish-name strong').textContent);
  const [broken, unchecked] = [names('.checks-broken'), names('.row-checks[hx-get]')];
  if (!broken.length && !unchecked.length) return;
  e.preventDefault();
  const { submitter } = /** @type {SubmitEvent} */ (e);
  const does = submitter?.id === 'publish-now' ? 'Publish' : 'Plan it';
  agreed = await ask({
    title: `${does} all the same?`,
    words: broken.length ? 'Visitors will see what is broken there:' : 'Nobody has looked at all widths yet:',
    list: [
      ...broken.map((name) => `${name}: something is broken`),
      ...unchecked.map((name) => `${name}: not checked yet`),
    ],
    does,
  });
  if (agreed) /** @type {HTMLFormElement} */ (form).requestSubmit(submitter);
});

// What a page leads to and visitors don't have is said as long as it isn't ticked too.
const box = (id) => form.querySelector(`input[name="id"][value="${CSS.escape(id)}"]`);
const tell = () => {
  for (const p of form.querySelectorAll('.publish-leads')) {
    const of = p.closest('.publish-row').querySelector('input[name="id"]');
    p.hidden = !of.checked || Boolean(box(p.dataset.needs)?.checked);
  }
};
form?.addEventListener('change', tell);
form?.addEventListener('click', (e) => {
  const along = /** @type {Element} */ (e.target).closest('[data-along]');
  if (!(along instanceof HTMLElement)) return;
  const ticks = box(along.dataset.along);
  ticks.checked = true;
  tell();
  ticks.focus();
});
if (form) tell();
