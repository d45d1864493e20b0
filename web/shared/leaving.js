// What was entered in a form that keeps it as it is changed (data-keeps) arrives also when the
// screen is left at once: by a link, by a key, or with the window.

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
  const form = e.target instanceof Element && e.target.closest('form[data-keeps]');
  if (form) entered.add(form);
});
document.addEventListener('htmx:config:request', (e) => {
  const { request, sourceElement } = /** @type {CustomEvent} */ (e).detail.ctx;
  sent(sourceElement);
  if (request.method === 'POST' && light(request.body)) request.keepalive = true;
});
window.addEventListener('pagehide', () => {
  for (const form of entered) {
    const body = light(new FormData(form));
    if (body) fetch(form.action, { method: 'POST', body, headers: { 'HX-Request': 'true' }, keepalive: true });
  }
  entered.clear();
});
