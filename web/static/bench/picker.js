// Choosing a picture, or uploading one.
import { site } from './page.js';

const dialog = document.getElementById('picker');
let chosen = null;

/** Opens the pictures, or the videos, and calls f with the id of the one chosen. */
export async function pick(f, { video = false } = {}) {
  chosen = f;
  document.getElementById('picker-title').textContent = video ? 'Choose a video' : 'Choose a picture';
  await window.htmx.ajax('GET', `${site}/media${video ? '?video=yes' : ''}`, { target: '#pictures', swap: 'innerHTML' });
  dialog.showModal();
}

export function start() {
  dialog.addEventListener('click', async (e) => {
    const stock = e.target.closest('[data-stock]');
    if (stock) { // taken into the site's library first
      stock.disabled = true;
      const answer = await fetch(`${site}/library/stock`, { method: 'POST', body: new URLSearchParams({ id: stock.dataset.stock, for: 'bench' }) });
      stock.disabled = false;
      if (!answer.ok) return;
      dialog.close();
      chosen?.(await answer.text());
      return;
    }
    const item = e.target.closest('[data-picture]');
    if (!item) return;
    dialog.close();
    chosen?.(item.dataset.picture);
  });
}
