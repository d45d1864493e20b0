// Files on their way into the site's library: one after another, each with how far it is, and
// each can be called off or tried again, or all that failed together. What arrived stays,
// whatever becomes of the others.
const waiting = [];
const failed = new Set();
let sending = false;

function button(words, press) {
  const b = document.createElement('button');
  b.type = 'button';
  b.className = 'plain';
  b.textContent = words;
  b.onclick = press;
  return b;
}

/** The line that tells how far a file is. */
function row(u) {
  const name = document.createElement('span');
  name.className = 'upload-name';
  name.textContent = u.file.name || 'A pasted picture';
  u.bar = document.createElement('progress');
  u.bar.max = 1;
  u.bar.value = 0;
  u.bar.setAttribute('aria-label', `${name.textContent}, uploaded`);
  u.note = document.createElement('span');
  u.note.className = 'upload-note';
  u.again = button('Try again', () => retry([u]));
  u.again.hidden = true;
  u.off = button('Cancel', () => drop([u]));
  u.li = document.createElement('li');
  u.li.append(name, u.bar, u.note, u.again, u.off);
  u.list.append(u.li);
  tell(u.list);
}

/** Offers for several that failed what can be done with each. */
function tell(list) {
  const all = [...failed].filter((u) => u.list === list);
  list.querySelector('.uploads-all')?.remove();
  if (all.length > 1) {
    const li = document.createElement('li');
    li.className = 'uploads-all';
    const words = document.createElement('span');
    words.textContent = `${all.length} didn’t arrive.`;
    li.append(
      words,
      button('Try them again', () => retry(all)),
      button('Dismiss them', () => drop(all)),
    );
    list.prepend(li);
  }
  list.hidden = list.children.length === 0;
}

function drop(us) {
  for (const u of us) {
    u.request?.abort();
    if (waiting.includes(u)) waiting.splice(waiting.indexOf(u), 1);
    gone(u);
    u.resolve(null);
  }
}

function retry(us) {
  for (const u of us) {
    failed.delete(u);
    u.again.hidden = true;
    u.note.textContent = '';
    u.off.textContent = 'Cancel';
    u.li.classList.remove('failed');
    waiting.push(u);
  }
  tell(us[0].list);
  next();
}

function gone(u) {
  failed.delete(u);
  u.li.remove();
  tell(u.list);
}

/** Uploads a file to an address, telling in a list how far it is, and gives what came of it, or null when it was called off. */
export function upload(file, list, to) {
  return new Promise((resolve) => {
    const u = { file, list, to, resolve };
    row(u);
    waiting.push(u);
    next();
  });
}

function next() {
  if (sending || !waiting.length) return;
  sending = true;
  const u = waiting.shift();
  const fail = (why) => {
    u.note.textContent = why;
    u.again.hidden = false;
    u.off.textContent = 'Dismiss';
    u.li.classList.add('failed');
    failed.add(u);
    tell(u.list);
  };
  const body = new FormData();
  body.append('file', u.file, u.file.name || 'pasted.png');
  const request = new XMLHttpRequest();
  u.request = request;
  request.upload.onprogress = (e) => {
    if (e.lengthComputable) u.bar.value = e.loaded / e.total;
  };
  request.onloadend = () => {
    sending = false;
    u.request = null;
    let answer = null;
    try {
      answer = JSON.parse(request.responseText);
    } catch {
      /* it isn't ours, or there is none */
    }
    if (request.status === 200 && answer?.id) {
      gone(u);
      u.resolve(answer);
    } else if (answer?.problem) fail(answer.problem);
    else if (u.li.isConnected)
      fail(request.status ? `The server answered ${request.status}.` : 'The connection was lost.');
    next();
  };
  request.open('POST', u.to);
  request.send(body);
}
