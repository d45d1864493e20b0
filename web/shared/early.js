// What is entered before the scripts of a screen are there is told them once they are: this one is read before the
// screen is drawn. What is pressed isn't pressed again, since whoever sees nothing happen does it themselves.
(() => {
  /** @type {Map<Element, Set<string>>} by field, in the order in which they were entered, what was heard of it */
  const early = new Map();
  const types = ['input', 'change'];
  const hear = (/** @type {Event} */ e) => {
    const field = /** @type {Element} */ (e.target);
    if (!e.isTrusted) return;
    if (!early.has(field)) early.set(field, new Set());
    early.get(field).add(e.type);
  };
  for (const type of types) document.addEventListener(type, hear, true);
  document.addEventListener('DOMContentLoaded', () =>
    // htmx begins in a task of its own, after the scripts
    setTimeout(() => {
      for (const type of types) document.removeEventListener(type, hear, true);
      for (const [field, heard] of early)
        for (const type of heard) field.dispatchEvent(new Event(type, { bubbles: true }));
    }),
  );
})();
