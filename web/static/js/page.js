// What the browser knows about the page: copies of what the server sent, by which
// pixels are moved. Nothing is decided here.

export const page = { seq: 0, width: 0, select: '', order: [], places: {}, zones: [], names: {}, grids: {} };

export const base = document.body.dataset.base;
export const site = document.body.dataset.site;

/** Takes over a state that came with an answer. */
export function take(state) {
  Object.assign(page, { seq: state.seq, order: state.order, zones: state.zones });
  Object.assign(page.places, state.places);
  Object.assign(page.names, state.names);
  Object.assign(page.grids, state.grids);
}

/** Reads the state that the server put into the document. */
export function read() {
  return JSON.parse(document.getElementById('state').textContent);
}

/** The zone that a width falls in; zones come from wide to narrow. */
export function zoneAt(width) {
  return page.zones.find((z) => width >= z.min) ?? page.zones.at(-1);
}

/** The section that a block or section id belongs to, or ''. */
export function sectionOf(id) {
  if (id in page.places) return id;
  for (const [section, blocks] of Object.entries(page.places)) {
    if (blocks.some((b) => b.id === id)) return section;
  }
  return '';
}

/** A block by id, or undefined. */
export function block(id) {
  return Object.values(page.places).flat().find((b) => b.id === id);
}

/** The ids of the blocks that are shown at the current width, as they are read. */
export function shownBlocks() {
  const zone = zoneAt(page.width).id;
  return page.order.flatMap((section) =>
    (page.places[section] ?? [])
      .filter((b) => !b.hidden?.[zone])
      .sort((a, b) => a.zones[zone][2] - b.zones[zone][2] || a.zones[zone][0] - b.zones[zone][0])
      .map((b) => b.id));
}
