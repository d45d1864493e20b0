// The commands of the table (web/model/commands.go): whether one can be done now, and by which key.
import { block, own, page, selected } from './page.js';
import { say } from './edits.js';

export const table = JSON.parse(document.getElementById('commands').textContent);
const composes = document.body.dataset.composes === 'yes';
const stage = document.getElementById('stage');

const acts = {}; // what each does, by its id

/** Tells what commands do, by their ids. */
export function provide(does) {
  Object.assign(acts, does);
}

const locked = 'It is locked: unlock it first';

/** Why a command can't be done now, or ''. */
export function why(c) {
  if (c.composes && !composes) return 'Your role changes words and pictures only';
  if (c.needs && !page.select) return 'Select something first';
  if (['block', 'cells', 'container', 'series'].includes(c.needs) && !block(page.select)) return 'Select a block first';
  if (c.needs === 'cells' && !block(page.select).placed) return 'Only in a grid';
  if (c.needs === 'several' && !page.also.length) return 'Select several blocks first';
  if (c.needs === 'container' && (!block(page.select).holds || block(page.select).kind === 'series'))
    return 'Select a container first';
  if (c.needs === 'series' && block(page.select).kind !== 'series' && own(page.select) === page.select)
    return 'Select a Series first';
  if (c.changes && selected().some((id) => block(id)?.locked)) return locked;
  return '';
}

/** Does a command; false when the key that asked for it is the browser's after all. */
export function run(c) {
  const reason = why(c);
  if (reason) {
    say(`${c.name}: ${reason[0].toLowerCase()}${reason.slice(1)}.`);
    return true;
  }
  if (c.id !== 'commands')
    localStorage.setItem('commands', JSON.stringify([c.id, ...used().filter((id) => id !== c.id)].slice(0, 8)));
  return acts[c.id]() !== false;
}

/** The commands that were done last, the latest first. */
export const used = () => JSON.parse(localStorage.getItem('commands') ?? '[]');

/** What a key that is pressed is called in the table, such as "Ctrl+D". With what isn't a letter Shift is part of which key it is. */
export function keyName(e) {
  const letter = /^[a-z]$/i.test(e.key);
  const ctrl = e.ctrlKey || e.metaKey;
  const shift = e.shiftKey && (letter || e.key.length > 1);
  const name = letter ? (ctrl || shift ? e.key.toUpperCase() : e.key.toLowerCase()) : e.key;
  return `${ctrl ? 'Ctrl+' : ''}${shift ? 'Shift+' : ''}${name}`;
}

/** Takes over the commands with other keys. */
export function take(commands) {
  table.splice(0, table.length, ...commands);
}

/** Does what a key of the table does; false when it is none of them. */
export function key(e) {
  const pressed = keyName(e).toLowerCase();
  const c = table.find((one) => one.keys?.some((k) => k.toLowerCase() === pressed));
  if (!c || c.id === 'paste') return false; // the browser's own event brings what is pasted
  const onStage = e.target === stage || e.target === document.body;
  if (c.onCanvas && !onStage) return false;
  if (['copy', 'cut'].includes(c.id) && String(getSelection())) return false; // text of the application's own
  if (c.id === 'delete' && !onStage && !e.target.closest?.('.overview-go, .tree')) return false;
  if (why(c) && why(c) !== locked && !e.ctrlKey && !e.metaKey && (composes || !c.composes || !page.select))
    return false;
  return run(c);
}
