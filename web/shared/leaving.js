// What was entered in a form that keeps it as it is changed (data-keeps) arrives also when the
// screen is left at once: by a link, by a key, or with the window. Where others may change the
// same meanwhile (data-set), the form says which of its fields were: the rest stays as it is.

// Bytes of a request that outlives its page: all that are on their way together may have 64 KiB (Fetch §4.6,
// in-flight keepalive bytes), and one that has more is refused.
const most = 15_000;

/** What a form holds, or null when that is too much to outlive the page, or a file. */
export function light(/** @type {FormData | URLSearchParams} */ body) {
  const all = [...body];
  if (all.some(([, v]) => typeof v !== 'string')) return null;
  const text = new URLSearchParams(/** @type {any} */ (all));
  return text.toString().length < most ? text : null;
}

const entered = new Set(); // forms with what isn't sent yet

/** What a form holds is on its way. */
export const sent = (form) => entered.delete(form);

document.addEventListener('input', (e) => {
  const field = /** @type {HTMLInputElement} */ (e.target);
  const form = field.closest('form[data-keeps]');
  if (!(form instanceof HTMLFormElement)) return;
  entered.add(form);
  if ('set' in form.dataset && field.name) names(form, field.name);
});

/** The fields that were entered go along as "set". */
function names(form, name) {
  if ([...form.querySelectorAll('[name="set"]')].some((f) => f.value === name)) return;
  const field = document.createElement('input');
  Object.assign(field, { type: 'hidden', name: 'set', value: name });
  form.append(field);
}
const last = new WeakMap(); // by form, the names that were sent last

function taken(form) {
  const all = [...form.querySelectorAll('[name="set"]')];
  last.set(
    form,
    all.map((f) => f.value),
  );
  for (const f of all) f.remove();
}

/** What is said where something couldn't be kept for want of an answer, and after how many ms it is tried again. */
export const unkept = 'It couldn’t be kept just now. It is tried again in a moment.';
export const rest = 3000;

// No answer came: it is tried again until one does.
document.addEventListener('htmx:error', (e) => {
  const { ctx } = /** @type {CustomEvent} */ (e).detail;
  const form = ctx?.sourceElement;
  if (ctx?.response || !form?.matches?.('form[data-keeps]')) return;
  for (const name of last.get(form) ?? []) names(form, name);
  entered.add(form);
  const said = document.querySelector(form.getAttribute('hx-target'));
  said?.replaceChildren(unkept);
  said?.classList.add('problem');
  setTimeout(() => form.isConnected && entered.has(form) && form.dispatchEvent(new Event('change')), rest);
});

document.addEventListener('htmx:config:request', (e) => {
  const { request, sourceElement } = /** @type {CustomEvent} */ (e).detail.ctx;
  sent(sourceElement);
  if ('set' in sourceElement.dataset) taken(sourceElement);
  if (request.method === 'POST' && light(request.body)) request.keepalive = true;
});
window.addEventListener('pagehide', () => {
  for (const form of entered) {
    const body = light(new FormData(form));
    if (body) fetch(form.action, { method: 'POST', body, headers: { 'HX-Request': 'true' }, keepalive: true });
  }
  entered.clear();
});
