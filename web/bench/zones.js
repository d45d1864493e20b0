// The zones' boundaries: dragged on the Reach, or typed in the list of zones.
import { base, site } from './page.js';
import { say, settled } from './edits.js';
import { drag } from '../shared/drag.js';

const dialog = document.getElementById('zones');
const reach = () => document.getElementById('reach');

/** Puts the boundaries where they belong. */
function lay() {
  const { least, most } = reach().dataset;
  for (const e of reach().querySelectorAll('.reach-edge'))
    e.style.left = `${((e.dataset.at - least) / (most - least)) * 100}%`;
}

/** Opens the list of zones. */
export function open() {
  window.htmx.ajax('GET', `${site}/zones`, { target: '#zones-list', swap: 'outerHTML' });
  if (!dialog.open) dialog.showModal();
}

/** Has a zone begin at another width; all of the page may stand elsewhere then, so it is read anew. */
async function move(zone, at) {
  const r = await fetch(`${site}/zones`, { method: 'POST', body: new URLSearchParams({ op: 'move', zone, at }) });
  if (r.status === 204) {
    location.reload();
    return;
  }
  const text = await r.text();
  say(
    new DOMParser().parseFromString(text, 'text/html').querySelector('[role="alert"]')?.textContent ??
      'The boundary could not be moved.',
  );
}

const list = (zone) => window.htmx.ajax('GET', `${base}/zones/${zone}`, { target: '#zones-list', swap: 'outerHTML' });
let listed = '';

export function start() {
  lay();
  dialog.addEventListener('click', async (e) => {
    const here = e.target.closest('[data-here]');
    if (here) {
      listed = here.dataset.here;
      list(listed);
    }
    if (e.target.closest('[data-again]')) {
      await new Promise((r) => {
        setTimeout(r);
      });
      await settled();
      list(listed);
    } // what was put back is gone from it
    if (e.target.closest('[data-select]')) dialog.close();
  });
  if (document.body.dataset.composes !== 'yes') return;
  document.addEventListener('pointerdown', (e) => {
    const edge = e.target.closest('.reach-edge');
    if (!edge) return;
    e.preventDefault();
    const [least, most, was] = [Number(reach().dataset.least), Number(reach().dataset.most), Number(edge.dataset.at)];
    const r = edge.parentElement.getBoundingClientRect();
    const told = document.createElement('output');
    told.className = 'measure';
    let at = was;
    drag(e, {
      move(m) {
        at = Math.round(Math.min(most, Math.max(least, least + ((m.clientX - r.left) / r.width) * (most - least))));
        edge.classList.add('moving');
        edge.style.left = `${((at - least) / (most - least)) * 100}%`;
        told.textContent = `${at} px`;
        edge.append(told);
      },
      drop: () => {
        if (at !== was) move(edge.dataset.zone, at);
      },
      tap: open,
      end: () => {
        edge.classList.remove('moving');
        told.remove();
        lay();
      },
    });
  });
}
