// Choosing a picture, or uploading one.
import { site } from './page.js';

const dialog = document.getElementById('picker');
let chosen = null;

/** Opens the pictures and calls f with the id of the one chosen. */
export async function pick(f) {
  chosen = f;
  await window.htmx.ajax('GET', `${site}/media`, { target: '#pictures', swap: 'innerHTML' });
  dialog.showModal();
}

export function start() {
  dialog.addEventListener('click', (e) => {
    const item = e.target.closest('[data-picture]');
    if (!item) return;
    dialog.close();
    chosen?.(item.dataset.picture);
  });
}
