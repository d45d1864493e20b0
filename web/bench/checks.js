// The marks of Checks under the Reach: asked for after each edit, gone through by [ and ].
import { base, own, page } from './page.js';
import { onAnswer, onSend, onState } from './edits.js';
import { select } from './select.js';
import { setWidth } from './reach.js';
import { tell } from './tell.js';
import { ask as tryOut } from './tries.js';
import * as canvas from './canvas.js';

const graves = ['hint', 'doubtful', 'broken'];
const lane = () => document.getElementById('reach-marks');
let marks = [];
const most = 5; // findings that are named before publishing
let asked = -1;
let asking = null; // what ends the asking that is on its way
let at = -1; // which one was gone to last

/** Those of the selection, or of the page when it has none. */
function shown() {
  const of =
    page.select &&
    marks.filter((m) =>
      m.nodes.some((id) => own(id) === own(page.select) || canvas.element(page.select)?.contains(canvas.element(id))),
    );
  return of?.length ? of : marks;
}

/** Draws the marks: the worst on top, each as long as its widths. */
function draw() {
  const { least, most } = document.getElementById('reach').dataset;
  const x = (px) => ((px - least) / (most - least)) * 1000;
  const mine = shown();
  lane().replaceChildren(
    ...graves.flatMap((grave, severity) => {
      const ranges = mine
        .filter((m) => m.severity === severity)
        .flatMap((m) => m.ranges)
        .sort((a, b) => a[0] - b[0]);
      const joined = [];
      for (const [from, to] of ranges) {
        if (joined.length && joined.at(-1)[1] >= from - 1) joined.at(-1)[1] = Math.max(joined.at(-1)[1], to);
        else joined.push([from, to]);
      }
      return joined.map(([from, to]) => {
        const r = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
        for (const [name, v] of Object.entries({
          class: `mark-${grave}`,
          x: x(from),
          width: Math.max(x(to) - x(from), 2),
          y: 4 - 2 * severity,
          height: 3 + 2 * severity,
        }))
          r.setAttribute(name, String(v));
        return r;
      });
    }),
  );
  const whole = mine === marks;
  document.getElementById('reach-told').textContent =
    `${mine.length} ${mine.length === 1 ? 'finding' : 'findings'} ${whole ? 'on the page' : 'about what is selected'}`;
}

/** Draws how wide the windows are in which the page is seen, as bars that grow from the rule. */
function visits(bars) {
  const { least, most } = document.getElementById('reach').dataset;
  const x = (px) => ((Math.min(most, Math.max(least, px)) - least) / (most - least)) * 1000;
  document.getElementById('reach-visits').replaceChildren(
    ...bars.map(([from, to, share]) => {
      const r = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
      for (const [name, v] of Object.entries({
        x: x(from),
        width: Math.max(x(to) - x(from), 2),
        y: 26 - 24 * share,
        height: 24 * share,
      }))
        r.setAttribute(name, String(v));
      return r;
    }),
  );
}

/** Publishing asks first where something is broken, and says what; it forbids nothing. */
function askFirst(broken) {
  const publish = document.querySelector('.top-publish');
  if (!(publish instanceof HTMLElement)) return;
  const worst = marks.filter((m) => m.severity === graves.indexOf('broken')).map((m) => m.title);
  if (!broken || !worst.length) {
    publish.removeAttribute('hx-confirm');
    return;
  }
  publish.setAttribute(
    'hx-confirm',
    `${broken === 1 ? 'One thing is broken' : `${broken} things are broken`} on this page. Publish it all the same?`,
  );
  const more = worst.length > most ? [`and ${worst.length - most} more`] : [];
  Object.assign(publish.dataset, {
    does: 'Publish it',
    about: JSON.stringify([...worst.slice(0, most), ...more]),
    drawn: `${base}/checks/broken`,
    look: 'See them in Checks',
    lookAt: document.getElementById('checks-open').getAttribute('href'),
  });
}

/** Asks what is wrong with the page as it is now; an answer that is late is left. */
async function ask() {
  if (page.seq === asked) {
    draw();
    return;
  }
  leave();
  asked = page.seq;
  asking = new AbortController();
  const { signal } = asking;
  try {
    const r = await fetch(`${base}/checks/marks`, { signal });
    if (r.status !== 200) return;
    const answer = await r.json();
    if (answer.seq < page.seq) {
      asked = -1;
      return;
    }
    marks = answer.marks;
    visits(answer.visits);
    const n = answer.counts.Broken + answer.counts.Doubtful;
    const link = document.getElementById('checks-open');
    link.dataset.grave = answer.counts.Broken ? 'broken' : n ? 'doubtful' : 'none';
    const shown = document.getElementById('checks-count');
    if (shown.textContent !== String(n) && asked > 0)
      tell(`Checks: ${n} ${n === 1 ? 'finding' : 'findings'}.`, 'checks');
    shown.textContent = n;
    askFirst(answer.counts.Broken);
    draw();
    document.body.dataset.checked = answer.seq;
  } catch (e) {
    if (e.name !== 'AbortError') asked = -1;
  } finally {
    if (asking?.signal === signal) asking = null;
  }
}

/** Ends the asking that is on its way: the server has a change to answer, and what it looks for is late. */
function leave() {
  if (!asking) return;
  asking.abort();
  asking = null;
  asked = -1;
}

/** Goes to a finding: its worst width, with its blocks selected. */
function go(m, of = m) {
  at = marks.indexOf(of);
  setWidth(m.worst);
  const node = m.nodes.find((id) => canvas.element(id));
  if (node) select(node, { show: true });
  const p = document.createElement('p');
  const strong = document.createElement('strong');
  strong.textContent = m.title;
  p.append(strong, ` ${m.say}${m.share ? ` It touches ${m.share}.` : ''}`);
  const say = document.getElementById('say');
  say.classList.remove('say-alert');
  telling = { p, until: performance.now() + 10_000 };
  say.replaceChildren(p);
  if (composes) offer(m.key, p);
}

const composes = document.body.dataset.composes === 'yes';

/** Asks what would mend a finding, and puts it beside what is told of it, to be tried on the canvas. */
async function offer(key, p) {
  const { seq } = page;
  const r = await fetch(`${base}/checks/mend?${key}`);
  if (seq !== page.seq) return;
  if (r.status !== 200) {
    p.append(' No repair is known for it: change what is selected by hand.');
    return;
  }
  const { label, command } = await r.json();
  const b = document.createElement('button');
  b.type = 'button';
  b.className = 'btn btn-sm btn-outline-light';
  b.textContent = `Try: ${label}`;
  b.addEventListener('click', () => attempt(command, label, p));
  p.append(' ', b);
}

/** Shows on the canvas what a repair does; Enter keeps it. */
function attempt(command, label, p) {
  p.replaceChildren(`${label}: Enter keeps it, Escape leaves it as it was.`);
  if (page.select) canvas.show(page.select);
  tryOut(command, label);
}

/** Mends all that was found in this zone as far as repairs are known, in one try. */
export async function mendAll() {
  const { seq } = page;
  const p = document.createElement('p');
  p.textContent = 'Trying what mends it …';
  const say = document.getElementById('say');
  say.classList.remove('say-alert');
  say.replaceChildren(p);
  const r = await fetch(`${base}/checks/mend-all?width=${page.width}`).catch(() => null);
  if (seq !== page.seq) return;
  if (r?.status !== 200) {
    p.textContent = 'Nothing that Checks found here mends itself. Press [ and ] to go through it.';
    return;
  }
  const { command, of, left } = await r.json();
  const rest = left ? `; ${left} ${left === 1 ? 'is' : 'are'} left, for [ and ] to go through` : '';
  attempt(command, `${of} mended${rest}`, p);
}

/** Tries what the address names, as the screen of Checks leads here. */
async function fromAddress() {
  const q = new URLSearchParams(location.search);
  if (!q.get('rule') || !composes) return;
  const key = new URLSearchParams(['rule', 'node', 'other', 'part'].map((name) => [name, q.get(name) ?? '']));
  for (const name of key.keys()) q.delete(name);
  history.replaceState(null, '', `?${q}`);
  const r = await fetch(`${base}/checks/mend?${key}`);
  if (r.status !== 200) return;
  const { label, command } = await r.json();
  const p = document.createElement('p');
  document.getElementById('say').replaceChildren(p);
  attempt(command, label, p);
}

let telling; // what an answer that comes after must not wipe away

/** The next finding on the Reach, from narrow to wide, or the one before. */
export function step(by) {
  if (!marks.length) {
    tell(asking ? 'Checks is still looking.' : 'Checks found nothing on this page.', 'checks');
    return;
  }
  const order = [...marks].sort((a, b) => a.worst - b.worst || b.severity - a.severity);
  const from = at < 0 ? (by > 0 ? -1 : 0) : order.indexOf(marks[at]);
  go(order[(from + by + order.length) % order.length]);
}

let playing = 0;
let way = 1; // 1 from narrow to wide, -1 back

/** Plays the page from 320 to 1920 px and back, and stops where something is wrong; again, it goes on or stops. */
export function play() {
  if (playing) {
    cancelAnimationFrame(playing);
    playing = 0;
    setWidth(page.width);
    tell(`Stopped at ${Math.round(page.width)} px.`, 'film');
    return;
  }
  const { least, most } = document.getElementById('reach').dataset;
  if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
    step(1);
    return;
  }
  tell('Played through its widths, until something is wrong; once more stops it.', 'film');
  let last = performance.now();
  let at = page.width;
  const bad = marks.filter((m) => m.severity > 0);
  const frame = (now) => {
    const before = at;
    at += way * Math.min(now - last, 50) * 0.32; // px of width a millisecond: all of it in five seconds
    last = now;
    if (at >= most || at <= least) way = at >= most ? -1 : 1;
    at = Math.min(most, Math.max(least, at));
    const [a, b] = [Math.min(before, at), Math.max(before, at)];
    const found = bad.find((m) =>
      m.ranges.some(([from, to]) => {
        const end = way > 0 ? from : to;
        return end > a && end <= b;
      }),
    );
    if (found) {
      playing = 0;
      go({ ...found, worst: Math.round(at) }, found);
      return;
    }
    setWidth(at, { rest: false });
    playing = requestAnimationFrame(frame);
  };
  playing = requestAnimationFrame(frame);
}

export function start() {
  document.addEventListener(
    'pointerdown',
    () => {
      if (playing) play();
    },
    true,
  );
  onSend(leave);
  onState(() => {
    if (page.seq !== asked) ask();
  }); // while the rest of the answer is drawn
  onAnswer(() => {
    ask();
    const say = document.getElementById('say');
    if (telling && performance.now() < telling.until && !say.textContent.trim()) say.replaceChildren(telling.p);
  });
  lane().parentElement.addEventListener('click', (e) => {
    const { least, most } = document.getElementById('reach').dataset;
    const r = lane().getBoundingClientRect();
    const px = Number(least) + ((e.clientX - r.left) / r.width) * (most - least);
    const near = (m) => Math.min(...m.ranges.map(([from, to]) => (px < from ? from - px : px > to ? px - to : 0)));
    const here = shown()
      .filter((m) => near(m) < 6)
      .sort((a, b) => b.severity - a.severity || near(a) - near(b))[0];
    if (here) go(here);
  });
  ask();
  fromAddress();
}
