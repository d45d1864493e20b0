// Trying: a command is shown on the canvas and kept nowhere, until it is taken or left.
import { base, onAll, page } from './page.js';
import { say, send } from './edits.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';
import { tries } from '../shared/tries.js';

const listeners = [];
let onNext = () => {}; // what is asked about

/** Calls f(problem) after every try, with what is wrong with it or ''. */
export function onTried(f) { listeners.push(f); }

const line = tries(async ({ command }) => {
  const { seq } = page;
  const r = await fetch(`${base}/tries`, { method: 'POST', body: new URLSearchParams({ command: JSON.stringify({ ...onAll(command), base: seq }) }) });
  const answer = r.status === 200 || r.status === 422 ? await r.json() : null;
  return seq === page.seq ? answer : null; // the page may be another one by now
}, (answer, { go, name }) => {
  if (!answer.problem) {
    canvas.tryOn(answer);
    if (go) canvas.show(answer.select || page.select);
    overlay.tried(name ? { id: answer.select || page.select, name } : null);
    overlay.redraw();
  }
  for (const f of listeners) f(answer.problem ?? '');
  onNext(answer.problem ?? '');
});

/** Shows a command on the canvas. With go what it makes is scrolled to, with a name it is marked. */
export const attempt = (command, { go = false, name = '' } = {}) => line.want({ command, go, name });

/** Shows again what is kept. */
export function leave() {
  line.end();
  overlay.tried(null);
  if (canvas.restore()) overlay.redraw();
}

/** Keeps what was tried; it is shown on until the answer is there. */
export function take(command) {
  line.end();
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
    if (e.key === 'Enter' || e.key === 'Escape') { e.preventDefault(); e.stopPropagation(); }
  };
  const away = () => end(false);
  window.addEventListener('keydown', key, true);
  window.addEventListener('pointerdown', away, true);
  onNext = (problem) => { if (asking && problem) { end(false); say(problem); } };
  attempt(command, { name, go: true });
}
