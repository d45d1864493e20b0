// The pictures of a site: uploading many, with progress, pointing and cropping.
import { drag } from '../shared/drag.js';

const main = document.querySelector('[data-upload]');
const list = document.getElementById('library');
const progress = document.getElementById('library-progress');

/** Sends one file and resolves when it is there or refused. */
function send(file) {
  const line = document.createElement('li');
  const name = document.createElement('span');
  const bar = document.createElement('progress');
  name.textContent = file.name;
  bar.max = 1;
  bar.value = 0;
  bar.setAttribute('aria-label', `Uploading ${file.name}`);
  line.append(name, bar);
  progress.append(line);
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', main.dataset.upload);
    request.upload.addEventListener('progress', (e) => { if (e.lengthComputable) bar.value = e.loaded / e.total; });
    request.addEventListener('load', () => {
      if (request.status === 200) {
        list.insertAdjacentHTML('afterbegin', request.responseText);
        window.htmx.process(list.firstElementChild);
        lay();
        choose(list.firstElementChild);
        line.remove();
      } else {
        bar.remove();
        name.textContent = request.responseText || `${file.name} could not be kept.`;
        line.classList.add('problem');
      }
      resolve();
    });
    request.addEventListener('error', () => {
      bar.remove();
      name.textContent = `${file.name} did not arrive. Try it again in a moment.`;
      line.classList.add('problem');
      resolve();
    });
    const form = new FormData();
    form.append('file', file);
    request.send(form);
  });
}

async function upload(files) {
  progress.replaceChildren();
  for (const file of files) await send(file);
}

document.getElementById('library-files').addEventListener('change', (e) => {
  upload([...e.target.files]).then(() => { e.target.value = ''; });
});
main.addEventListener('dragover', (e) => {
  if (!e.dataTransfer.types.includes('Files')) return;
  e.preventDefault();
  main.classList.add('dropping');
});
main.addEventListener('dragleave', () => main.classList.remove('dropping'));
main.addEventListener('drop', (e) => {
  e.preventDefault();
  main.classList.remove('dropping');
  upload([...e.dataTransfer.files]);
});

/** Where in an element a pointer is, in per cent from the left and the top. */
function at(e, within) {
  const r = within.getBoundingClientRect();
  const part = (v) => Math.round(Math.min(Math.max(v, 0), 1) * 100);
  return [part((e.clientX - r.left) / r.width), part((e.clientY - r.top) / r.height)];
}

/** The picture itself in its frame, which it may not fill. */
function picture(frame) {
  const img = frame.querySelector('img');
  const box = img.getBoundingClientRect();
  const ratio = img.naturalWidth / img.naturalHeight || 1;
  const width = Math.min(box.width, box.height * ratio);
  const height = width / ratio;
  const left = box.left + (box.width - width) / 2;
  const top = box.top + (box.height - height) / 2;
  return { getBoundingClientRect: () => ({ left, top, width, height }), left: left - box.left, top: top - box.top, width, height };
}

function markFocal(frame) {
  const [x, y] = (document.getElementById(frame.dataset.focal).value.match(/[\d.]+/g) ?? [50, 50]).map(Number);
  const p = picture(frame);
  const mark = frame.querySelector('.focal-mark');
  mark.style.left = `${p.left + (p.width * x) / 100}px`;
  mark.style.top = `${p.top + (p.height * y) / 100}px`;
}

function markCrop(form) {
  const box = form.querySelector('.crop-box');
  for (const side of ['left', 'top', 'right', 'bottom']) box.style[side] = `${Number.parseFloat(form.elements[side].value) || 0}%`;
}

/** Rows of one height: each picture as wide as it is at that height, and a little more to fill the row. */
function lay() {
  const height = Number(size.value);
  for (const li of list.children) {
    const ratio = Number(li.dataset.width) / Number(li.dataset.height) || 1.5;
    li.style.height = `${height}px`;
    li.style.flex = `${ratio} 0 ${Math.round(ratio * height)}px`;
    li.style.maxWidth = `${Math.round(ratio * height * 1.5)}px`;
  }
}

const known = new Set([...list.children].map((li) => li.id)); // those that aren't new
let chosen = ''; // the id of the one that is shown beside the wall

/** Shows beside the wall what is known of one. */
function choose(li) {
  if (!li) return;
  chosen = li.id;
  known.add(li.id);
  for (const other of list.children) {
    other.querySelector('.library-tile').setAttribute('aria-pressed', String(other === li));
    other.querySelector('.library-side').hidden = other !== li;
  }
  drawAll();
}

const size = document.getElementById('library-size');
size.value = localStorage.getItem('library-size') ?? '150';
size.addEventListener('input', () => { localStorage.setItem('library-size', size.value); lay(); });
for (const b of document.querySelectorAll('[data-view]')) {
  b.addEventListener('click', () => {
    for (const other of document.querySelectorAll('[data-view]')) other.setAttribute('aria-pressed', String(other === b));
    list.className = b.dataset.view ? `library only-${b.dataset.view}` : 'library';
  });
}
list.addEventListener('click', (e) => { const tile = e.target.closest('.library-tile'); if (tile) choose(tile.parentElement); });
list.addEventListener('keydown', (e) => { // arrows go along the wall
  const tile = e.target.closest('.library-tile');
  const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
  if (!tile || !step) return;
  const tiles = [...list.querySelectorAll('.library-tile')].filter((t) => t.offsetParent);
  const to = tiles[tiles.indexOf(tile) + step];
  if (!to) return;
  e.preventDefault();
  to.focus();
  choose(to.parentElement);
});

const frames = (root) => root.querySelectorAll?.('.focal') ?? [];
const drawAll = () => { for (const f of frames(document)) markFocal(f); };
list.addEventListener('load', (e) => { const f = e.target.closest('.focal'); if (f) markFocal(f); }, true);
new ResizeObserver(drawAll).observe(list);
document.addEventListener('htmx:after:swap', () => { // one that is new is shown, and otherwise the one that was
  lay();
  const fresh = [...list.children].find((li) => !known.has(li.id));
  choose(fresh ?? document.getElementById(chosen) ?? list.firstElementChild);
});
lay();
choose(list.firstElementChild);
list.addEventListener('input', (e) => {
  const item = e.target.closest('.library-item');
  if (e.target.name === 'focal') markFocal(item.querySelector('.focal'));
  const crop = e.target.closest('.library-crop');
  if (crop) markCrop(crop);
});
list.addEventListener('pointerdown', (e) => {
  const focal = e.target.closest('.focal');
  const crop = e.target.closest('.cropper');
  const frame = focal ?? crop;
  if (!frame) return;
  e.preventDefault();
  const from = at(e, crop ?? picture(focal));
  const fields = focal ? [document.getElementById(focal.dataset.focal)] : ['left', 'top', 'right', 'bottom'].map((side) => crop.closest('form').elements[side]);
  const before = fields.map((f) => f.value);
  const show = () => { if (focal) markFocal(focal); else markCrop(crop.closest('form')); };
  const point = (m) => {
    fields[0].value = at(m, picture(focal)).map((v) => `${v}%`).join(' ');
    show();
  };
  let done = false;
  if (focal) point(e); // a press alone points at it
  drag(e, {
    slack: 1,
    move(m) {
      if (focal) { point(m); return; }
      const to = at(m, crop);
      const [x, y] = [0, 1].map((i) => [Math.min(from[i], to[i]), Math.max(from[i], to[i])]);
      if (x[1] - x[0] < 5 || y[1] - y[0] < 5) return; // next to nothing
      [x[0], y[0], 100 - x[1], 100 - y[1]].forEach((v, i) => { fields[i].value = v; });
      show();
    },
    drop: () => { done = true; },
    end: () => setTimeout(() => {
      if (done) return;
      fields.forEach((f, i) => { f.value = before[i]; }); // Escape
      show();
    }),
  });
});
