// Questions in a dialog of the program's own: what will happen, and the focus on the answer that
// does no harm.

/**
 * Asks, and gives whether the answer was to do it.
 *
 * @param {object} q
 * @param {string} q.title the question
 * @param {string} [q.words] what will happen
 * @param {string[]} [q.list] what it is about, one by one
 * @param {string[]} [q.besides] what else it is about, that nothing draws
 * @param {string[]} [q.drawn] addresses of drawings of it, which take the list's place as they come
 * @param {string} [q.shown] drawings of it, as a part of a screen
 * @param {{ name: string, href: string }} [q.look] where that can be looked at first
 * @param {string} q.does what the button that does it is called
 * @returns {Promise<boolean>}
 */
export function ask({ title, words = '', list = [], besides = [], drawn = [], shown = '', look, does }) {
  const dialog = document.createElement('dialog');
  dialog.className = 'ask';
  dialog.setAttribute('aria-labelledby', 'ask-title');
  dialog.setAttribute('aria-describedby', 'ask-words');
  const make = (tag, text, more = {}) => Object.assign(document.createElement(tag), { textContent: text, ...more });
  const form = make('form', '', { method: 'dialog' });
  const about = make('div', '', { id: 'ask-words' });
  if (words) about.append(make('p', words));
  const listed = (all) => {
    const ul = document.createElement('ul');
    ul.append(...all.map((one) => make('li', one)));
    return ul;
  };
  const sheet =
    drawn.length || shown
      ? make('div', '', { className: 'ask-drawn', tabIndex: 0, role: 'group', ariaLabel: 'Drawn' })
      : about;
  if (list.length) sheet.append(listed(list));
  if (shown) sheet.innerHTML = shown;
  if (besides.length) sheet.append(listed(besides));
  const acts = make('p', '', { className: 'ask-acts' });
  acts.append(
    make('button', 'Cancel', { value: 'no', className: 'btn btn-outline-dark', autofocus: true }),
    make('button', does, { value: 'yes', className: 'btn btn-primary' }),
  );
  if (look) acts.prepend(make('a', look.name, { href: look.href, className: 'ask-look' }));
  form.append(make('h2', title, { id: 'ask-title' }), about, ...(sheet === about ? [] : [sheet]), acts);
  dialog.append(form);
  document.body.append(dialog);
  dialog.showModal();
  if (drawn.length) draw(sheet, drawn);
  return new Promise((resolve) => {
    dialog.addEventListener('close', () => {
      dialog.remove();
      resolve(dialog.returnValue === 'yes');
    });
  });
}

/** Puts drawings into a sheet of one size, so that no answer moves away meanwhile. */
async function draw(sheet, addresses) {
  try {
    const parts = await Promise.all(
      addresses.map(async (at) => {
        const r = await fetch(at, { headers: { 'HX-Request': 'true' } });
        return r.ok ? r.text() : '';
      }),
    );
    if (!parts.every(Boolean)) return;
    const held = document.createElement('template');
    held.innerHTML = parts.join('');
    sheet.firstElementChild.replaceWith(held.content);
  } catch {
    // what is listed stays
  }
}

/** A question whose last sentence asks. */
export function split(text) {
  const at = text.trim().search(/[^.!?]*\?$/);
  return { title: text.slice(Math.max(at, 0)).trim(), words: text.slice(0, Math.max(at, 0)).trim() };
}

// Whatever is sent after a question (hx-confirm) asks so. What does it is called by data-does, and
// what it is about is listed by data-about, and drawn at data-drawn.
document.addEventListener('htmx:confirm', (e) => {
  const { ctx, issueRequest, dropRequest } = /** @type {CustomEvent} */ (e).detail;
  if (!ctx.confirm) return;
  e.preventDefault();
  const from = /** @type {HTMLElement} */ (ctx.sourceElement ?? e.target);
  const { does = 'Do it', about, drawn, look, lookAt } = from.dataset;
  ask({
    ...split(ctx.confirm),
    list: about ? JSON.parse(about) : [],
    drawn: drawn ? [drawn] : [],
    look: look ? { name: look, href: lookAt } : undefined,
    does,
  }).then((yes) => (yes ? issueRequest() : dropRequest()));
});
