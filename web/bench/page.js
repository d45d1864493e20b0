// What the browser knows about the page: copies of what the server sent, by which
// pixels are moved. Nothing is decided here.
import { element } from './frame.js';

/** @type {Omit<State, 'all' | 'show' | 'ground' | 'did' | 'told'> & { also: string[] }} */
export const page = {
  seq: 0,
  width: 0,
  select: '',
  also: [],
  order: [],
  end: '',
  usual: [],
  orders: {},
  places: {},
  zones: [],
  names: {},
  grids: {},
  across: {},
  handles: [],
  guides: {},
};

export const base = document.body.dataset.base;
export const site = document.body.dataset.site;

/**
 * Takes over a state that came with an answer.
 * @param {State} state
 */
export function take(state) {
  Object.assign(page, {
    seq: state.seq,
    order: state.order,
    end: state.end,
    orders: state.orders,
    usual: state.usual,
    zones: state.zones,
    handles: state.handles,
    guides: state.guides,
  });
  for (const section of Object.keys(page.places)) if (!state.all.includes(section)) delete page.places[section];
  for (const [section, held] of Object.entries(state.places)) {
    // what isn't a grid any more is none
    for (const id of [section, ...held.map((b) => b.id), ...(page.places[section] ?? []).map((b) => b.id)])
      delete page.grids[id];
  }
  Object.assign(page.across, state.across);
  Object.assign(page.places, state.places);
  Object.assign(page.names, state.names);
  Object.assign(page.grids, state.grids);
}

/**
 * Reads the state that the server put into the document.
 * @returns {State}
 */
export function read() {
  return JSON.parse(document.getElementById('state').textContent);
}

/** The zone that a width falls in; zones come from wide to narrow. */
export function zoneAt(width) {
  return page.zones.find((z) => width >= z.min) ?? page.zones.at(-1);
}

/** The sections in the order in which they are seen at a width. */
export const orderAt = (width) => page.orders[zoneAt(width).id] ?? page.usual;

/** The id of a block itself, for one that an item of a Series shows. */
export const own = (id) => element(id)?.dataset.own ?? id;

/** All that is selected, the first one first. */
export const selected = () => (page.select ? [page.select, ...page.also] : []);

/** What is done to each of several. */
const each = new Set([
  'set',
  'follow',
  'same',
  'delete',
  'duplicate',
  'block.hide',
  'section.hide',
  'block.layer',
  'block.place.reset',
  'block.resize',
]);

/**
 * A command on the selection as one on all that is selected.
 * @param {Command} command
 * @returns {Command}
 */
export function onAll(command) {
  if (!page.also.length) return command;
  if (command.op === 'many' && command.parts.some((part) => page.also.includes(part.node))) return command; // it is that already
  if (command.op === 'many')
    return {
      ...command,
      parts: command.parts.flatMap((part) => {
        const all = onAll(part);
        return all.op === 'many' ? all.parts : [all];
      }),
    };
  if (command.node !== page.select) return command;
  if (command.op === 'block.nudge') return { ...command, op: 'blocks.nudge', with: page.also };
  if (!each.has(command.op)) return command;
  return { op: 'many', parts: selected().map((node) => ({ ...command, node })) };
}

/** The section that a block or section id belongs to, or ''. */
export function sectionOf(id) {
  if (id in page.places) return id;
  const of = own(id);
  for (const [section, blocks] of Object.entries(page.places)) {
    if (blocks.some((b) => b.id === of)) return section;
  }
  return '';
}

/** A block by id, or undefined. */
export function block(id) {
  const of = own(id);
  return Object.values(page.places)
    .flat()
    .find((b) => b.id === of);
}

/** Whether a section or block is on the page; one of an item of a Series, while it is shown. */
export const exists = (id) => id in page.places || (own(id) === id ? Boolean(block(id)) : Boolean(element(id)));

/** What a block stands in: a section or a container, in the same item of a Series. */
export function holderOf(id) {
  if (!block(id)) return '';
  const around = element(id)?.parentElement?.closest('[data-block], [data-section]');
  return around?.dataset.block ?? around?.dataset.section ?? block(id).holder;
}

/** The blocks that stand in a section or container. */
export function heldIn(holder) {
  const { id } = zoneAt(page.width);
  const rank = (b) => b.order?.[id] ?? 0;
  return (page.places[sectionOf(holder)] ?? [])
    .filter((b) => b.holder === own(holder))
    .sort((a, b) => rank(a) - rank(b));
}

/** The section or container that something new goes into when this is selected. */
export function goesInto(id) {
  const b = block(id);
  if (!b) return sectionOf(id);
  return b.holds ? id : holderOf(id);
}

/** Whether blocks are placed in the cells of a grid in a section or container. */
export const isGrid = (holder) => holder in page.grids;
