// Sends commands, one after another, and takes over what comes back.
import { base, onAll, page, read, take } from './page.js';

const listeners = [];

/** Calls f(state, all) after every answer; all is true when everything was sent. */
export function onAnswer(f) { listeners.push(f); }

let last = Promise.resolve();

function queue(f) {
  last = last.then(f, f);
  return last;
}

async function request(method, path, values) {
  const before = document.getElementById('state');
  const asked = page.select;
  await window.htmx.ajax(method, base + path, { source: document.body, swap: 'none', values: { width: page.width, select: page.select, also: page.also.join(','), ...values } });
  const now = document.getElementById('state');
  if (now === before) { // nothing came: the server wasn't reached, or the session ended
    say('Open Plot can’t be reached. What you did last is not kept; try it again in a moment.');
    return null;
  }
  const state = read();
  take(state);
  // The server chose another node, such as what was added; otherwise what was
  // selected here in the meantime stands.
  state.chosen = state.select !== asked;
  for (const f of listeners) f(state);
  return state;
}

/** Sends a command; its base is the state that the page is in when it is sent. */
export function send(command) {
  return queue(() => request('POST', '/edits', { command: JSON.stringify({ ...onAll(command), base: page.seq }) }));
}

/** Takes back one's last edit, or as many. */
export const undo = (steps = 1) => queue(() => request('POST', '/undo', { steps }));
export const redo = () => queue(() => request('POST', '/redo', {}));

/** Keeps a section on the Shelf: under a name, for a purpose, on all of one's sites or this. */
export const keep = (section, { name, purpose, all }) => queue(() => request('POST', '/keep', { section, name, purpose, all: all ? 'yes' : '' }));

/** Makes the selection's value of a setting one of the house style's. */
export const promote = (setting, name) => queue(() => request('POST', '/promote', { setting, name }));

/** Makes what the selection's type sets of its own that of its text style. */
export const restyle = () => queue(() => request('POST', '/restyle', {}));

/** Asks for the Tray, and what else is drawn, for another width or selection. */
export function look({ overview = false } = {}) {
  return queue(() => request('GET', '/parts', overview ? { overview: 1 } : {}));
}

/** Resolves when everything sent has been answered. */
export const settled = () => last;

export function say(message) {
  const p = document.createElement('p');
  p.textContent = message;
  const place = document.getElementById('say');
  place.classList.add('say-alert');
  place.replaceChildren(p);
}
