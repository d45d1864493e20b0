// Sends commands, one after another, and takes over what comes back.
import { light } from '../shared/leaving.js';
import { base, exists, onAll, page, selected, take } from './page.js';

const listeners = [];
const first = [];
const before = [];

/** Calls f() when a change is sent. */
export function onSend(f) {
  before.push(f);
}

/** Calls f(state) with every answer, before what else came with it is drawn. */
export function onState(f) {
  first.push(f);
}

/** Calls f(state) when all that came with an answer is drawn. */
export function onAnswer(f) {
  listeners.push(f);
}

/** @type {Promise<any>} */
let last = Promise.resolve();

function queue(f) {
  last = last.then(f, f);
  return last;
}

/** Resolves when what was changed is on the screen; soon when nobody looks. */
const painted = () =>
  new Promise((resolve) => {
    requestAnimationFrame(() => setTimeout(resolve));
    setTimeout(resolve, 60);
  });

/** What came back: the state, on the first line of an answer that says so, and the parts; nothing came without a state. */
async function ask(method, path, values) {
  const body = new URLSearchParams(values);
  const headers = { 'HX-Request': 'true' }; // so that the end of a session is told
  try {
    const r = await (method === 'GET'
      ? fetch(`${base}${path}?${body}`, { headers })
      : fetch(base + path, { method, headers, body, keepalive: Boolean(light(body)) })); // also where one leaves at once
    const to = r.headers.get('HX-Redirect');
    if (to) location.assign(to);
    const text = await r.text();
    if (!r.headers.has('Openplot-State')) return {};
    const end = text.indexOf('\n');
    return { state: JSON.parse(text.slice(0, end)), parts: text.slice(end + 1) };
  } catch {
    return {};
  }
}

async function request(method, path, values) {
  const asked = page.select;
  const waited = waiting();
  if (method === 'POST') for (const f of before) f();
  document.body.dataset.asking = '';
  try {
    const { state, parts } = await ask(method, path, {
      width: page.width,
      select: page.select,
      also: page.also.join(','),
      ...values,
    });
    if (!state) {
      // the server wasn't reached, or the session ended
      say('Open Plot can’t be reached. What you did last is not kept.', () =>
        queue(() => request(method, path, values)),
      );
      return null;
    }
    take(state);
    // The server chose another node, such as what was added; otherwise what was
    // selected here in the meantime stands, unless it has gone.
    state.chosen = state.select !== asked || Boolean(page.select && !exists(page.select));
    for (const f of first) f(state);
    if (state.show.length) await painted();
    await window.htmx.swap({ text: parts, sourceElement: document.body, target: document.body, swap: 'none' });
    for (const f of listeners) f(state);
    return state;
  } finally {
    waited();
    delete document.body.dataset.asking;
  }
}

let pressed = null; // what was pressed last, by pointer or by key
for (const name of ['pointerdown', 'keydown'])
  window.addEventListener(
    name,
    (e) => {
      pressed = e.target.closest?.('button, a, input, select, textarea, [role="option"]') ?? null;
    },
    true,
  );

/** Shows where it was pressed that an answer takes a while; the function that it gives ends that. */
function waiting() {
  const on = pressed ?? document.getElementById('stage');
  const late = setTimeout(() => on.classList.add('waiting'), 150);
  return () => {
    clearTimeout(late);
    on.classList.remove('waiting');
  };
}

/**
 * A command on what was selected when it was asked for: by now that may have gone. What stands for
 * it then takes it, a section for a section alone: who deletes a block means no whole section.
 * Nothing is left of a command on what else was selected and has gone.
 * @param {Command} command
 * @param {{ ids: string[], section: boolean }} was
 * @returns {Command?}
 */
function standing(command, was) {
  const { node, parts, with: others } = command;
  const now = { ...command, ...(others && { with: others.filter(exists) }) };
  if (parts) {
    now.parts = parts.map((part) => standing(part, was)).filter(Boolean);
    return now.parts.length ? now : null;
  }
  if (!was.ids.includes(node) || exists(node)) return now;
  const stands = node === was.ids[0] && exists(page.select) && page.select in page.places === was.section;
  return stands ? { ...now, node: page.select } : null;
}

/**
 * Sends a command; its base is the state that the page is in when it is sent.
 * @param {Command} command
 */
export function send(command) {
  const all = onAll(command);
  const was = { ids: selected(), section: page.select in page.places };
  return queue(() => {
    const now = standing(all, was);
    return now && request('POST', '/edits', { command: JSON.stringify({ ...now, base: page.seq }) });
  });
}

/** Takes back one's last edit, or as many. */
export const undo = (steps = 1) => queue(() => request('POST', '/undo', { steps }));
export const redo = () => queue(() => request('POST', '/redo', {}));

/** Keeps a section on the Shelf: under a name, for a purpose, on all of one's sites or this. */
export const keep = (section, { name, purpose, all }) =>
  queue(() => request('POST', '/keep', { section, name, purpose, all: all ? 'yes' : '' }));

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

/** Says what went wrong, with a button to try it again where there is one. */
export function say(message, again) {
  const p = document.createElement('p');
  p.textContent = message;
  if (again) {
    const b = document.createElement('button');
    b.type = 'button';
    b.className = 'plain';
    b.textContent = 'Try again';
    b.addEventListener('click', () => {
      place.replaceChildren();
      again();
    });
    p.append(' ', b);
  }
  const place = document.getElementById('say');
  place.classList.add('say-alert');
  place.setAttribute('role', 'alert');
  place.replaceChildren(p);
}
