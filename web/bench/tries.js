// Trying: a command is shown on the canvas and kept nowhere, until it is taken or left.
import { base, onAll, page } from './page.js';
import { say, send } from './edits.js';
import { tell } from './tell.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';
import { tries } from '../shared/tries.js';

const listeners = [];
/** @type {(problem: string) => void} */
let onNext = () => {}; // what is asked about

/** Calls f(problem) after every try, with what is wrong with it or ''. */
export function onTried(f) {
  listeners.push(f);
}

async function post(command, more) {
  const { seq } = page;
  const r = await fetch(`${base}/tries`, {
    method: 'POST',
    body: new URLSearchParams({ command: JSON.stringify({ ...onAll(command), base: seq }), at: page.width, ...more }),
  });
  const answer = r.status === 200 || r.status === 422 ? await r.json() : null;
  return seq === page.seq ? answer : null; // the page may be another one by now
}

const drawn = new Map(); // what the Tray's drawings of other zones showed before, by their button
let rest = 0;

/** Draws what a try does in the other zones, once it rests. */
function elsewhere(command) {
  clearTimeout(rest);
  if (!page.select || !document.querySelector('.elsewhere-zone')) return;
  rest = setTimeout(async () => {
    const mine = rest;
    const answer = await post(command, { elsewhere: page.select }).catch(() => null);
    if (mine !== rest || !answer?.elsewhere) return;
    for (const [zone, svg] of Object.entries(answer.elsewhere)) {
      const b = document.getElementById(`elsewhere-${zone}`);
      const was = b?.querySelector('svg');
      if (!was) continue;
      if (!drawn.has(b)) drawn.set(b, was);
      const t = document.createElement('template');
      t.innerHTML = svg;
      was.replaceWith(t.content);
    }
  }, 120);
}

/** Ends drawing; the drawings are again what they were, unless what was tried is kept. */
function settle(kept) {
  clearTimeout(rest);
  rest = 0;
  if (!kept) for (const [b, was] of drawn) b.querySelector('svg')?.replaceWith(was);
  drawn.clear();
}

const line = tries(
  ({ command }) => post(command),
  (answer, { command, go, name }) => {
    if (!answer.problem) {
      elsewhere(command);
      canvas.tryOn(answer);
      if (go) canvas.show(answer.select);
      overlay.tried(name ? { id: answer.select || page.select, name } : null);
      overlay.redraw();
    }
    for (const f of listeners) f(answer.problem ?? '');
    onNext(answer.problem ?? '');
  },
);

/** Shows a command on the canvas. With go what it makes is scrolled to, with a name it is marked. */
export const attempt = (command, { go = false, name = '' } = {}) => line.want({ command, go, name });

/** Shows again what is kept. */
export function leave() {
  line.end();
  settle(false);
  overlay.tried(null);
  if (canvas.restore()) overlay.redraw();
}

/** Keeps what was tried; it is shown on until the answer is there. */
export function take(command) {
  line.end();
  settle(true);
  overlay.tried(null);
  return send(command);
}

/** Shows what a command does before it is done: Enter takes it, Escape or anything else leaves it. */
export function ask(command, name) {
  let asking = true;
  const end = (taken) => {
    if (!asking) return;
    asking = false;
    window.removeEventListener('keydown', key, true);
    window.removeEventListener('pointerdown', away, true);
    if (taken) take(command);
    else leave();
  };
  const key = (e) => {
    if (['Shift', 'Control', 'Alt', 'Meta'].includes(e.key)) return;
    end(e.key === 'Enter');
    if (e.key === 'Enter' || e.key === 'Escape') {
      e.preventDefault();
      e.stopPropagation();
    }
  };
  const away = () => end(false);
  window.addEventListener('keydown', key, true);
  window.addEventListener('pointerdown', away, true);
  onNext = (problem) => {
    if (asking && problem) {
      end(false);
      say(problem);
    } else if (asking) tell(`${name}: shown on the canvas. Enter keeps it, Escape leaves it as it was.`, 'try');
  };
  attempt(command, { name, go: true });
}
