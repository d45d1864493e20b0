/** Rows of one height: each as wide as it is at that height, and a little more to fill the row. What has no size of its own is a square. */
export function lay(items, height) {
  for (const li of items) {
    const ratio = Number(li.dataset.width) / Number(li.dataset.height) || 1;
    li.style.height = `${height}px`;
    li.style.flex = `${ratio} 0 ${Math.round(ratio * height)}px`;
    li.style.maxWidth = `${Math.round(ratio * height * 1.5)}px`;
  }
}
