// The library of a site: uploading many, with progress, selecting, pointing and cropping.
import { drag } from '../shared/drag.js';
import { upload } from '../shared/uploads.js';
import { lay as layWall } from '../shared/wall.js';

const main = document.querySelector('[data-upload]');
const list = document.getElementById('library');
const progress = document.getElementById('library-progress');

/** Takes files, each shown on the wall as it arrives. */
function take(files) {
  for (const file of files) {
    upload(file, progress, main.dataset.upload).then((m) => {
      if (!m) return;
      list.insertAdjacentHTML('afterbegin', m.html);
      window.htmx.process(list.firstElementChild);
      lay();
      choose(list.firstElementChild);
    });
  }
}

document.getElementById('library-files').addEventListener('change', (e) => {
  take([...e.target.files]);
  e.target.value = '';
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
  take([...e.dataTransfer.files]);
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
  return {
    getBoundingClientRect: () => ({ left, top, width, height }),
    left: left - box.left,
    top: top - box.top,
    width,
    height,
  };
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
  for (const side of ['left', 'top', 'right', 'bottom'])
    box.style[side] = `${Number.parseFloat(form.elements[side].value) || 0}%`;
}

const lay = () => layWall(list.children, Number(size.value));

const known = new Set([...list.children].map((li) => li.id)); // those that aren't new
let chosen = ''; // the id of the one that is shown beside the wall

/** Shows beside the wall what is known of one, or what can be done with the several that are selected. */
function show() {
  const several = selected();
  for (const li of list.children) {
    const one = several.length < 2 && li.id === chosen;
    li.querySelector('.library-tile').setAttribute('aria-pressed', String(one || several.includes(li)));
    li.querySelector('.library-side').hidden = !one;
    if (one) open(li);
  }
  list.classList.toggle('selecting', several.length > 0);
  many.hidden = several.length < 2;
  many.querySelector('.many-count').textContent = `${several.length} selected`;
  many.querySelector('.many-drawn').replaceChildren(
    ...several
      .slice(0, 12)
      .map((li) => li.querySelector('.library-tile > :is(img, video)')?.cloneNode() ?? '')
      .filter(Boolean),
  );
  drawAll();
}

function choose(li) {
  if (!li) return;
  chosen = li.id;
  known.add(li.id);
  for (const box of list.querySelectorAll('.tile-check')) box.checked = false;
  show();
}

const many = document.getElementById('library-many');
const selected = () => [...list.children].filter((li) => li.querySelector('.tile-check').checked);

/** Selects one more, or all as far as it. */
function select(li, { on = true, range = false, further = false } = {}) {
  const seen = [...list.children].filter((e) => e.offsetParent);
  const from = seen.findIndex((e) => e.id === chosen);
  const to = seen.indexOf(li);
  if (further && selected().length === 0 && from >= 0 && on) seen[from].querySelector('.tile-check').checked = true; // the one beside the wall is the first
  for (const e of range && from >= 0 ? seen.slice(Math.min(from, to), Math.max(from, to) + 1) : [li])
    e.querySelector('.tile-check').checked = on;
  if (!range) chosen = li.id;
  show();
}

/** Fetches what is known of one and can be done with it, when that isn't there yet. */
async function open(li) {
  const side = li.querySelector('.library-side');
  const at = side.dataset.side;
  if (!at) {
    places(li);
    return;
  }
  delete side.dataset.side;
  const r = await fetch(at);
  side.innerHTML = r.ok ? await r.text() : 'It couldn’t be read. Load the page again.';
  window.htmx.process(side);
  saySmall(li);
  places(li);
  drawAll();
}

/** Says of one that is shown larger than it is how large. */
function saySmall(li) {
  const says = li.querySelector('.library-small');
  if (!says || !li.dataset.wants) return;
  says.hidden = false;
  says.textContent = `Shown up to ${li.dataset.wants} px wide, and has ${li.dataset.width}: it looks soft there.`;
}

/** Fetches the drawings of where one is used. */
async function places(li) {
  const section = li.querySelector('[data-places]');
  if (!section) return;
  const at = section.dataset.places;
  delete section.dataset.places;
  const r = await fetch(at);
  section.querySelector('.library-drawn').innerHTML = r.ok ? await r.text() : 'It couldn’t be drawn.';
}

const post = (what, ids, more = {}) => {
  const body = new URLSearchParams(more);
  for (const id of ids) body.append('id', id);
  return fetch(`${main.dataset.upload}/${what}`, { method: 'POST', body });
};

const ask = document.getElementById('library-ask');
const gone = document.getElementById('library-gone');
let deleted = []; // what can be had back

async function remove(items, sure = false) {
  const ids = items.map((li) => li.dataset.id);
  const r = await post('delete', ids, sure ? { sure: 'yes' } : {});
  ask.hidden = r.status !== 409;
  if (r.status === 409) {
    ask.querySelector('p').textContent = await r.text();
    ask.querySelector('.btn-danger').onclick = () => remove(items, true);
    ask.querySelector('.btn-danger').focus();
    return;
  }
  gone.hidden = false;
  gone.querySelector('span').textContent = r.ok
    ? items.length === 1
      ? `${items[0].querySelector('.library-tile').title} is deleted.`
      : `${items.length} are deleted.`
    : 'They couldn’t be deleted.';
  gone.querySelector('button').hidden = !r.ok;
  if (!r.ok) return;
  const next = items.at(-1).nextElementSibling ?? items[0].previousElementSibling;
  deleted = items.map((li) => ({ li, before: li.nextElementSibling }));
  for (const li of items) li.remove();
  choose(next?.isConnected ? next : list.firstElementChild);
  lay();
}

async function restore() {
  const r = await post(
    'restore',
    deleted.map(({ li }) => li.dataset.id),
  );
  if (!r.ok) return;
  gone.hidden = true;
  for (const { li, before } of deleted.toReversed()) {
    if (before?.isConnected) list.insertBefore(li, before);
    else list.append(li);
    li.querySelector('.tile-check').checked = false;
  }
  lay();
  choose(deleted[0].li);
  deleted[0].li.querySelector('.library-tile').focus();
}

ask.querySelector('[data-leave]').addEventListener('click', () => {
  ask.hidden = true;
});
gone.querySelector('button').addEventListener('click', restore);
document.getElementById('many-delete').addEventListener('click', () => remove(selected()));
document.getElementById('many-none').addEventListener('click', () => choose(document.getElementById(chosen)));
document.getElementById('many-folder').addEventListener('submit', async (e) => {
  e.preventDefault();
  const name = document.getElementById('many-folder-name').value.trim();
  const items = selected();
  const r = await post(
    'folder',
    items.map((li) => li.dataset.id),
    { folder: name },
  );
  gone.hidden = false;
  gone.querySelector('button').hidden = true;
  gone.querySelector('span').textContent = r.ok
    ? name
      ? `${items.length} put into ${name}.`
      : `${items.length} taken out of their folders.`
    : await r.text();
  if (!r.ok) return;
  for (const li of items) {
    li.dataset.folder = name;
    const field = li.querySelector('[name="folder"]');
    if (field) field.value = name;
  }
  narrow();
});

const size = document.getElementById('library-size');
size.value = localStorage.getItem('library-size') ?? '150';
size.addEventListener('input', () => {
  localStorage.setItem('library-size', size.value);
  lay();
});
for (const b of document.querySelectorAll('[data-view]')) {
  b.addEventListener('click', () => {
    for (const other of document.querySelectorAll('[data-view]'))
      other.setAttribute('aria-pressed', String(other === b));
    narrow();
  });
}
const folder = document.getElementById('library-folder');
folder?.addEventListener('change', narrow);

/** Leaves out what the view or the folder doesn't have. */
function narrow() {
  const view = document.querySelector('[data-view][aria-pressed="true"]').dataset.view;
  for (const li of list.children) {
    const has = !view || li.dataset.sort === view || view in li.dataset;
    li.classList.toggle('left-out', !has || Boolean(folder?.value && li.dataset.folder !== folder.value));
  }
}

/** Marks the pictures that have fewer px than they are shown in. */
async function markSmall() {
  const r = await fetch(`${main.dataset.upload}/wants`);
  if (!r.ok) return;
  for (const [id, px] of Object.entries(await r.json())) {
    const li = document.getElementById(`medium-${id}`);
    if (!li) continue;
    li.dataset.small = 'yes';
    li.dataset.wants = px;
    saySmall(li);
  }
  narrow();
}
list.addEventListener('click', (e) => {
  const tile = e.target.closest('.library-tile');
  const li = e.target.closest('.library-item');
  if (e.target.closest('[data-delete]')) remove([li]);
  else if (e.target.matches('.tile-check')) select(li, { on: e.target.checked, range: e.shiftKey });
  else if (tile && (e.ctrlKey || e.metaKey))
    select(li, { on: !li.querySelector('.tile-check').checked, further: true });
  else if (tile && e.shiftKey) select(li, { range: true });
  else if (tile) choose(li);
});
list.addEventListener('keydown', (e) => {
  // arrows go along the wall
  const tile = e.target.closest('.library-tile');
  if (tile && e.key === 'Delete') remove(selected().length ? selected() : [tile.parentElement]);
  const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
  if (!tile || !step) return;
  const tiles = [...list.querySelectorAll('.library-tile')].filter((t) => t.offsetParent);
  const to = tiles[tiles.indexOf(tile) + step];
  if (!to) return;
  e.preventDefault();
  to.focus();
  if (e.shiftKey) select(to.parentElement, { range: true });
  else choose(to.parentElement);
});

const frames = (root) => root.querySelectorAll?.('.focal') ?? [];
const drawAll = () => {
  for (const f of frames(document)) markFocal(f);
};
list.addEventListener(
  'load',
  (e) => {
    const f = e.target.closest('.focal');
    if (f) markFocal(f);
  },
  true,
);
new ResizeObserver(drawAll).observe(list);
list.addEventListener(
  'toggle',
  (e) => {
    if (e.target.open) e.target.scrollIntoView({ block: 'nearest' }); // what is opened is seen
  },
  true,
);
document.addEventListener('htmx:after:swap', () => {
  // one that is new is shown, and otherwise the one that was
  lay();
  const fresh = [...list.children].find((li) => !known.has(li.id));
  choose(fresh ?? document.getElementById(chosen) ?? list.firstElementChild);
});
lay();
choose(list.firstElementChild);
markSmall();
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
  const fields = focal
    ? [document.getElementById(focal.dataset.focal)]
    : ['left', 'top', 'right', 'bottom'].map((side) => crop.closest('form').elements[side]);
  const before = fields.map((f) => f.value);
  const show = () => {
    if (focal) markFocal(focal);
    else markCrop(crop.closest('form'));
  };
  const point = (m) => {
    fields[0].value = at(m, picture(focal))
      .map((v) => `${v}%`)
      .join(' ');
    show();
  };
  let done = false;
  if (focal) point(e); // a press alone points at it
  drag(e, {
    slack: 1,
    move(m) {
      if (focal) {
        point(m);
        return;
      }
      const to = at(m, crop);
      const [x, y] = [0, 1].map((i) => [Math.min(from[i], to[i]), Math.max(from[i], to[i])]);
      if (x[1] - x[0] < 5 || y[1] - y[0] < 5) return; // next to nothing
      [x[0], y[0], 100 - x[1], 100 - y[1]].forEach((v, i) => {
        fields[i].value = v;
      });
      show();
    },
    drop: () => {
      done = true;
    },
    end: () =>
      setTimeout(() => {
        if (done) return;
        fields.forEach((f, i) => {
          f.value = before[i];
        }); // Escape
        show();
      }),
  });
});
