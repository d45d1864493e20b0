// What letting go would make of the page: asked while something is dragged, and drawn as outlines.
import { base, page } from './page.js';
import { tries } from '../shared/tries.js';
import * as canvas from './canvas.js';
import * as overlay from './overlay.js';

let asked = ''; // the command that the outlines are of

const line = tries(
  async (command) => {
    const { seq } = page;
    const r = await fetch(`${base}/tries`, {
      method: 'POST',
      body: new URLSearchParams({ command: JSON.stringify({ ...command, base: seq }), width: String(page.width) }),
    });
    return r.status === 200 && seq === page.seq ? { command, ...(await r.json()) } : null;
  },
  ({ command, boxes, select }) => {
    if (JSON.stringify(command) === asked) overlay.outcome(outlines(command, boxes, select));
  },
);

/** The box of what is dragged, and those of what would stand elsewhere then, by the section that they are in. */
function outlines(command, boxes, select) {
  const fresh = (id) => id === select || id.startsWith(`${select}~`); // in a Series, in each of its items
  const moved = command.op === 'block.add' ? [select] : [command.node, ...(command.with ?? [])];
  const out = { landing: [], others: [] };
  for (const [section, blocks] of Object.entries(boxes)) {
    const at = canvas.element(section)?.getBoundingClientRect();
    if (!at) continue;
    for (const [id, [x, y, w, h]] of Object.entries(blocks)) {
      const box = { section, x, y, w, h };
      const now = canvas.element(id);
      if (moved.includes(id) || fresh(id)) {
        out.landing.push({ id, ...box });
        continue;
      }
      if (!now || moved.some((one) => canvas.element(one)?.contains(now) || now.contains(canvas.element(one))))
        continue;
      const r = now.getBoundingClientRect();
      if (
        Math.abs(r.left - at.left - x) > 1 ||
        Math.abs(r.top - at.top - y) > 1 ||
        Math.abs(r.width - w) > 1 ||
        Math.abs(r.height - h) > 1
      )
        out.others.push(box);
    }
  }
  return out;
}

/** Asks what a command would make of the page, unless that is shown already. */
export function ask(command) {
  const text = JSON.stringify(command);
  if (text === asked) return;
  asked = text;
  overlay.outcome(null);
  if (command && command.op !== 'many') line.want(command);
}

/** Shows no outlines any more. */
export function end() {
  asked = '';
  line.end();
  overlay.outcome(null);
}
