// What is entered and pressed before the scripts of a screen are there is done once they are: this one is read before
// the screen is drawn, keeps what they would have heard, and says it to them then, in order and each once. Links, and
// what opens by itself, work as ever.
(() => {
  /** @type {{ to: Element, type: string, by?: HTMLElement | null }[]} */
  const early = [];
  const keep = (/** @type {(typeof early)[number]} */ heard) => {
    if (!early.some(({ to, type }) => to === heard.to && type === heard.type)) early.push(heard);
  };
  const entered = (/** @type {Event} */ e) => {
    if (e.isTrusted) keep({ to: /** @type {Element} */ (e.target), type: e.type });
  };
  const sent = (/** @type {SubmitEvent} */ e) => {
    const form = /** @type {HTMLFormElement} */ (e.target);
    if (!e.isTrusted || !form.matches('[hx-post], [hx-get], :not([action])')) return; // the browser sends it
    e.preventDefault();
    e.stopImmediatePropagation();
    keep({ to: form, type: e.type, by: e.submitter });
  };
  const pressed = (/** @type {Event} */ e) => {
    const button = /** @type {Element} */ (e.target).closest?.('button[type="button"], [hx-post]:not(form), a[hx-get]');
    if (!e.isTrusted || !button || button.matches('[popovertarget], input, select, textarea')) return;
    e.preventDefault();
    e.stopImmediatePropagation();
    keep({ to: button, type: e.type });
  };
  /** @type {[string, (e: any) => void][]} */
  const hears = [
    ['input', entered],
    ['change', entered],
    ['submit', sent],
    ['click', pressed],
  ];
  for (const [type, hear] of hears) document.addEventListener(type, hear, true);
  document.addEventListener('DOMContentLoaded', () =>
    // htmx begins in a task of its own, after the scripts
    setTimeout(() => {
      for (const [type, hear] of hears) document.removeEventListener(type, hear, true);
      for (const { to, type, by } of early) {
        if (!to.isConnected) continue;
        if (type === 'click') /** @type {HTMLElement} */ (to).click();
        else if (type === 'submit') /** @type {HTMLFormElement} */ (to).requestSubmit(by?.isConnected ? by : null);
        else to.dispatchEvent(new Event(type, { bubbles: true }));
      }
    }),
  );
})();
