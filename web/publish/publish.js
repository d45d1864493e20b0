// Publishing, now or later, asks first where something is broken on a ticked page; it forbids
// nothing.
import { ask } from '../shared/ask.js';

const mostDrawn = 4; // pages whose faults are drawn in the question

const form = document.querySelector('.publish-list');
const something = (name) => `${name}: something is broken`;
const short = (all) => (all.length > 6 ? [...all.slice(0, 5), `and ${all.length - 5} more`] : all);
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
  const [broken, unchecked] = [
    names('.checks-broken'),
    names('.row-checks[hx-get], .publish-untold:not(:has(.row-checks))'),
  ];
  if (!broken.length && !unchecked.length) return;
  e.preventDefault();
  const { submitter } = /** @type {SubmitEvent} */ (e);
  const does = submitter?.id === 'publish-now' ? 'Publish' : 'Plan it';
  agreed = await ask({
    title: `${does} all the same?`,
    words: broken.length ? 'Visitors will see what is broken there:' : 'Nobody has looked at all widths yet:',
    list: broken.slice(0, mostDrawn).map(something),
    besides: [...broken.slice(mostDrawn).map(something), ...short(unchecked.map((name) => `${name}: not checked yet`))],
    drawn: ticked
      .flatMap((row) => /** @type {HTMLAnchorElement?} */ (row.querySelector('.checks-broken')) ?? [])
      .slice(0, mostDrawn)
      .map((a) => `${a.href}/broken`),
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
document.addEventListener('htmx:after:swap', () => form && tell()); // rows that came into sight
form?.addEventListener('click', (e) => {
  const along = /** @type {Element} */ (e.target).closest('[data-along]');
  if (!(along instanceof HTMLElement)) return;
  const ticks = box(along.dataset.along);
  ticks.checked = true;
  tell();
  ticks.focus();
});
if (form) tell();
