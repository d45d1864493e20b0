// Trying: a command is shown on the canvas and kept nowhere, until it is taken or left.
import { base, page } from './page.js';
import { send } from './edits.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

let wanted = null; // the command to be tried next
let goes = false; // what comes of it is scrolled to
let flying = false; // one is under way
let drawing = 0; // the frame in which the marks follow
let round = 0; // what was asked for in another round than this one is dropped
const listeners = [];

/** Calls f(problem) after every try, with what is wrong with it or ''. */
export function onTried(f) { listeners.push(f); }

/** Shows a command on the canvas; the newest one wins. With go what it makes is scrolled to. */
export function attempt(command, { go = false } = {}) {
  wanted = command;
  goes = go;
  if (!flying) fly();
}

async function fly() {
  flying = true;
  while (wanted) {
    const command = wanted;
    const [mine, seq] = [round, page.seq];
    wanted = null;
    let answer;
    try {
      const r = await fetch(`${base}/tries`, { method: 'POST', body: new URLSearchParams({ command: JSON.stringify({ ...command, base: seq }) }) });
      answer = r.status === 200 || r.status === 422 ? await r.json() : null;
    } catch { answer = null; }
    if (mine !== round || seq !== page.seq || !answer) continue; // left, taken, or the page is another one
    if (!answer.problem) {
      canvas.tryOn(answer);
      if (goes) canvas.show(answer.select);
      cancelAnimationFrame(drawing);
      drawing = requestAnimationFrame(overlay.redraw);
    }
    for (const f of listeners) f(answer.problem ?? '');
  }
  flying = false;
}

/** Shows again what is kept. */
export function leave() {
  round++;
  wanted = null;
  if (canvas.restore()) overlay.redraw();
}

/** Keeps what was tried; it is shown on until the answer is there. */
export function take(command) {
  round++;
  wanted = null;
  return send(command);
}
