// Choosing a file of the library, one that ships, or uploading one.
import { upload } from '../shared/uploads.js';
import { lay } from '../shared/wall.js';
import { site } from './page.js';
import { hasAll, wordsOf } from '../shared/find.js';

const dialog = document.getElementById('picker');
const search = document.getElementById('picker-search');
const file = document.getElementById('picker-file');
const progress = document.getElementById('picker-uploads');
const tileHeight = 132; // px: large enough to tell pictures apart
const takes = {
  picture: 'image/jpeg,image/png,image/webp,image/avif,image/gif,image/svg+xml',
  video: 'video/webm,video/mp4',
  audio: 'audio/mpeg,audio/mp4,audio/ogg,audio/wav,audio/flac,audio/aac',
};
const named = { picture: 'a picture', video: 'a video', audio: 'a recording' };
let chosen = null;
let sort = 'picture';

/** Opens the library's files of a sort, and calls f with the id of the one chosen. */
export async function pick(f, { sort: of = 'picture' } = {}) {
  chosen = f;
  sort = of;
  document.getElementById('picker-title').textContent = `Choose ${named[sort]}`;
  search.value = '';
  file.accept = takes[sort];
  if (dialog.dataset.sort !== sort) document.getElementById('pictures').replaceChildren(); // what lies there stays until what is there now has come
  dialog.dataset.sort = sort;
  dialog.showModal();
  search.focus();
  await list();
  narrow();
}

async function list() {
  await window.htmx.ajax('GET', `${site}/media?sort=${sort}`, { target: '#pictures', swap: 'innerHTML' });
  lay(dialog.querySelectorAll('.picker-wall li'), tileHeight);
}

function take(id) {
  dialog.close();
  chosen?.(id);
}

function narrow() {
  const words = wordsOf(search.value);
  for (const li of dialog.querySelectorAll('.picker-wall li')) li.hidden = !hasAll(li.dataset.find, words);
  const none = dialog.querySelector('.picker-none');
  if (none) none.hidden = Boolean(dialog.querySelector('.picker-wall li:not([hidden])'));
}

/** Takes the one file that is uploaded; of several, the first is pointed out. */
async function add(files) {
  const arrived = (await Promise.all([...files].map((f) => upload(f, progress, `${site}/media`)))).filter(
    (m) => m?.sort === sort,
  );
  if (!dialog.open) return;
  if (arrived.length === 1 && files.length === 1) {
    take(arrived[0].id);
    return;
  }
  await list();
  narrow();
  dialog.querySelector(`[data-picture="${arrived[0]?.id}"]`)?.focus();
}

export function start() {
  search.addEventListener('input', narrow);
  file.addEventListener('change', () => {
    const files = [...file.files];
    file.value = '';
    add(files);
  });
  dialog.addEventListener('dragover', (e) => {
    if (e.dataTransfer.types.includes('Files')) e.preventDefault();
  });
  dialog.addEventListener('drop', (e) => {
    e.preventDefault();
    e.stopPropagation();
    add([...e.dataTransfer.files]);
  });
  dialog.addEventListener('keydown', (e) => {
    // arrows go along the walls
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
    const tiles = [...dialog.querySelectorAll('.picker-wall li:not([hidden]) button')];
    const at = tiles.indexOf(document.activeElement);
    if (!step || (at < 0 && !(document.activeElement === search && e.key === 'ArrowDown'))) return;
    e.preventDefault();
    (tiles[at + step] ?? (step < 0 ? search : tiles.at(-1)))?.focus();
  });
  dialog.addEventListener('click', (e) => {
    const stock = e.target.closest('[data-stock]');
    if (stock) take(`stock:${stock.dataset.stock}`); // the command brings it into the site's library
    const item = e.target.closest('[data-picture]');
    if (item) take(item.dataset.picture);
  });
}
