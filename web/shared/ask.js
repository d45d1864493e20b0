// Questions in a dialog of the program's own: what will happen, and the focus on the answer that
// does no harm.

/**
 * Asks, and gives whether the answer was to do it.
 *
 * @param {object} q
 * @param {string} q.title the question
 * @param {string} [q.words] what will happen
 * @param {string[]} [q.list] what it is about, one by one
 * @param {{ name: string, href: string }} [q.look] where that can be looked at first
 * @param {string} q.does what the button that does it is called
 * @returns {Promise<boolean>}
 */
export function ask({ title, words = '', list = [], look, does }) {
  const dialog = document.createElement('dialog');
  dialog.className = 'ask';
  dialog.setAttribute('aria-labelledby', 'ask-title');
  dialog.setAttribute('aria-describedby', 'ask-words');
  const make = (tag, text, more = {}) => Object.assign(document.createElement(tag), { textContent: text, ...more });
  const form = make('form', '', { method: 'dialog' });
  const about = make('div', '', { id: 'ask-words' });
  if (words) about.append(make('p', words));
  if (list.length) {
    const ul = document.createElement('ul');
    ul.append(...list.map((one) => make('li', one)));
    about.append(ul);
  }
  const acts = make('p', '', { className: 'ask-acts' });
  acts.append(
    make('button', 'Cancel', { value: 'no', className: 'btn btn-outline-dark', autofocus: true }),
    make('button', does, { value: 'yes', className: 'btn btn-primary' }),
  );
  if (look) acts.prepend(make('a', look.name, { href: look.href, className: 'ask-look' }));
  form.append(make('h2', title, { id: 'ask-title' }), about, acts);
  dialog.append(form);
  document.body.append(dialog);
  dialog.showModal();
  return new Promise((resolve) => {
    dialog.addEventListener('close', () => {
      dialog.remove();
      resolve(dialog.returnValue === 'yes');
    });
  });
}

/** A question whose last sentence asks. */
export function split(text) {
  const at = text.trim().search(/[^.!?]*\?$/);
  return { title: text.slice(Math.max(at, 0)).trim(), words: text.slice(0, Math.max(at, 0)).trim() };
}

// Whatever is sent after a question (hx-confirm) asks so. What does it is called by data-does, and
// what it is about is listed by data-about.
document.addEventListener('htmx:confirm', (e) => {
  const { ctx, issueRequest, dropRequest } = /** @type {CustomEvent} */ (e).detail;
  if (!ctx.confirm) return;
  e.preventDefault();
  const from = /** @type {HTMLElement} */ (ctx.sourceElement ?? e.target);
  const { does = 'Do it', about, look, lookAt } = from.dataset;
  ask({
    ...split(ctx.confirm),
    list: about ? JSON.parse(about) : [],
    look: look ? { name: look, href: lookAt } : undefined,
    does,
  }).then((yes) => (yes ? issueRequest() : dropRequest()));
});
