// Files on their way into the site's library: one after another, each with how far it is, and
// each can be called off or tried again. What arrived stays, whatever becomes of the others.
import { site } from './page.js';

const waiting = [];
let sending = false;

function row(file, list) {
  const li = document.createElement('li');
  const name = document.createElement('span');
  name.className = 'upload-name';
  name.textContent = file.name || 'A pasted picture';
  const bar = document.createElement('progress');
  bar.max = 1;
  bar.value = 0;
  bar.setAttribute('aria-label', `${name.textContent}, uploaded`);
  const note = document.createElement('span');
  note.className = 'upload-note';
  const again = button('Try again');
  again.hidden = true;
  const off = button('Cancel');
  li.append(name, bar, note, again, off);
  list.append(li);
  list.hidden = false;
  return { li, list, bar, note, again, off };
}

function button(words) {
  const b = document.createElement('button');
  b.type = 'button';
  b.className = 'plain';
  b.textContent = words;
  return b;
}

function gone(u) {
  u.li.remove();
  u.list.hidden = u.list.children.length === 0;
}

/** Uploads a file, telling in a list how far it is, and gives what the library made of it, or null when it was called off. */
export function upload(file, list = document.getElementById('uploads')) {
  return new Promise((resolve) => {
    const u = { file, resolve, ...row(file, list) };
    u.off.onclick = () => {
      u.request?.abort();
      waiting.splice(waiting.indexOf(u), waiting.includes(u) ? 1 : 0);
      gone(u);
      resolve(null);
    };
    u.again.onclick = () => {
      u.again.hidden = true;
      u.note.textContent = '';
      u.li.classList.remove('failed');
      waiting.push(u);
      next();
    };
    waiting.push(u);
    next();
  });
}

function next() {
  if (sending || !waiting.length) return;
  sending = true;
  const u = waiting.shift();
  const failed = (why) => {
    u.note.textContent = why;
    u.again.hidden = false;
    u.off.textContent = 'Dismiss';
    u.li.classList.add('failed');
  };
  const body = new FormData();
  body.append('file', u.file, u.file.name || 'pasted.png');
  const request = new XMLHttpRequest();
  u.request = request;
  request.upload.onprogress = (e) => { if (e.lengthComputable) u.bar.value = e.loaded / e.total; };
  request.onloadend = () => {
    sending = false;
    u.request = null;
    let answer = null;
    try { answer = JSON.parse(request.responseText); } catch { /* it isn't ours, or there is none */ }
    if (request.status === 200 && answer?.id) { gone(u); u.resolve(answer); }
    else if (answer?.problem) failed(answer.problem);
    else if (u.li.isConnected) failed(request.status ? `The server answered ${request.status}.` : 'The connection was lost.');
    next();
  };
  request.open('POST', `${site}/media`);
  request.send(body);
}
