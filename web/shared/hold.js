// What is typed for a field that isn't there yet.

/** Keeps what is typed from now on; the function that it gives ends that, and gives the text. */
export function hold() {
  let text = '';
  const key = (e) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === 'Backspace') text = text.slice(0, -1);
    else if (e.key.length === 1) text += e.key;
    else return;
    e.preventDefault();
    e.stopImmediatePropagation();
  };
  window.addEventListener('keydown', key, true);
  return () => {
    window.removeEventListener('keydown', key, true);
    return text;
  };
}
