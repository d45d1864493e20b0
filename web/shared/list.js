// Lists that are gone through by keys, as a menu or a listbox is (WAI-ARIA Authoring Practices).

/** Which of so many comes next by a key when one is at an index, -1 for none; round at the ends. Undefined when the key does nothing. */
export function nextIn(count, at, key) {
  const to = { ArrowDown: at + 1, ArrowUp: at < 0 ? count - 1 : at - 1, Home: 0, End: count - 1 }[key];
  return to === undefined || count === 0 ? undefined : (to + count) % count;
}
