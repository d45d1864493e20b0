// Pictures from anywhere: dropped on the canvas, or pasted.
import { block, goesInto, isGrid, page, sectionOf, site, zoneAt } from './page.js';
import { say, send } from './edits.js';
import { isWriting } from './words.js';
import { open } from '../controls/panel.js';
import * as canvas from './canvas.js';
import * as gesture from './gesture.js';
import * as overlay from './overlay.js';
import { upload } from '../shared/uploads.js';

const stage = document.getElementById('stage');
const panel = document.getElementById('panel-drop');
const uploads = document.getElementById('uploads');
const near = 14; // px from a section's end within which something goes between two

/** What lies under the pointer that a picture could go to. */
function under(e) {
  const { block: id, section } = canvas.hit(e.clientX, e.clientY);
  if (!section) return null;
  const r = canvas.element(section).getBoundingClientRect();
  const y = canvas.toPage(e.clientX, e.clientY).y;
  if (r.bottom - y < near) return { between: section };
  if (y - r.top < near) return { between: page.order[page.order.indexOf(section) - 1] ?? '' };
  if (['picture', 'gallery'].includes(block(id)?.kind)) return { id, kind: block(id).kind };
  return { section, holder: block(id)?.holds ? id : goesInto(id) || section, behind: id, x: e.clientX, y: e.clientY };
}

const files = (data) => [...data.files].filter((f) => /^(image|video|audio)\//.test(f.type));
const carries = (e) => [...e.dataTransfer.types].includes('Files');

function mark(to) {
  overlay.between(to && 'between' in to ? to.between : null);
  overlay.hover(to?.id ?? to?.holder ?? '');
}

/**
 * The command that puts a medium into a section or container, where it was let go.
 * @returns {Command}
 */
function add(to, m) {
  /** @type {Command} */
  const command = { op: 'block.add', node: to.holder, kind: m.sort, zone: zoneAt(page.width).id, value: m.id };
  if (!isGrid(to.holder) || !gesture.loaded())
    return { ...command, after: to.behind && to.behind !== to.holder ? to.behind : undefined };
  gesture.begin(to.holder, '');
  const p = canvas.toPage(to.x, to.y);
  const o = canvas.gridOrigin(to.holder);
  return { ...command, place: { ...gesture.at(p.x - o.x, p.y - o.y, 6, 8).place, layer: 0 } };
}

/** Asks whether pictures become blocks or the section's background. */
function choice(to) {
  return new Promise((resolve) => {
    let chosen = '';
    panel.onclick = (e) => {
      chosen = e.target.closest('[data-drop]')?.dataset.drop ?? '';
      if (chosen) panel.hidePopover();
    };
    open(panel, { getBoundingClientRect: () => new DOMRect(to.x, to.y, 0, 0), tagName: '', isConnected: false }, () =>
      resolve(chosen),
    );
    panel.querySelector('button').focus();
  });
}

/** Takes files to where they were dropped. */
async function take(to, all) {
  const as = 'section' in to ? await choice(to) : 'block';
  if (!as) return;
  let first = true;
  const put = async (m) => {
    // each as it arrives: one that fails keeps none of the others waiting
    const [zone, lead] = [zoneAt(page.width).id, first];
    first = false;
    /** @returns {Command} */
    const added = (node) => ({ op: 'block.add', node, kind: m.sort, zone, value: m.id });
    if ('between' in to) {
      await send(
        lead
          ? { op: 'many', parts: [{ op: 'section.add', after: to.between, preset: 'empty' }, added('@1')] }
          : added(sectionOf(page.select)),
      );
    } else if (to.id && m.sort !== 'picture') {
      say(`${m.name} is in the library: only pictures go there.`);
    } else if (to.kind === 'gallery') {
      await send({ op: 'entry.fill', node: to.id, setting: 'picture', value: m.id });
    } else if (!to.id && as === 'block') {
      await send(add(to, m));
    } else if (!lead) {
      say(`${m.name} is in the library.`);
    } else if (to.id) {
      await send({ op: 'block.content', node: to.id, setting: 'picture', value: m.id });
    } else if (m.sort === 'audio') {
      say(`${m.name} is in the library: it can’t be a background.`);
    } else {
      await send({ op: m.sort === 'video' ? 'section.video' : 'section.picture', node: to.section, value: m.id });
    }
  };
  for (const file of all) upload(file, uploads, `${site}/media`).then((m) => m && put(m));
}

export function start() {
  stage.addEventListener('dragover', (e) => {
    if (!carries(e)) return;
    e.preventDefault();
    e.dataTransfer.dropEffect = 'copy';
    mark(under(e));
  });
  stage.addEventListener('dragleave', (e) => {
    if (!stage.contains(e.relatedTarget)) mark(null);
  });
  stage.addEventListener('drop', (e) => {
    if (!carries(e)) return;
    e.preventDefault();
    const to = under(e);
    mark(null);
    const all = files(e.dataTransfer);
    if (!all.length) {
      say(
        'Only pictures, videos and audio can be dropped here: JPEG, PNG, WebP, AVIF, GIF, SVG, WebM, MP4, MP3, M4A, Ogg, WAV or FLAC.',
      );
      return;
    }
    if (to) take(to, all);
  });
  document.addEventListener('paste', (e) => {
    if (isWriting() || e.target.matches?.('input, textarea')) return;
    const all = files(e.clipboardData);
    if (!all.length) return;
    e.preventDefault();
    const id = page.select;
    if (['picture', 'gallery'].includes(block(id)?.kind)) {
      take({ id, kind: block(id).kind }, all);
      return;
    }
    const holder = goesInto(id) || page.end;
    if (!holder) {
      take({ between: '' }, all);
      return;
    }
    const r = canvas.boxOf(canvas.element(holder));
    const s = stage.getBoundingClientRect();
    take({ holder, behind: block(id) ? id : '', x: s.left + r.x + r.w / 2, y: s.top + r.y + r.h / 2 }, all);
  });
}
