// Commands and the state of the Bench, as Go has them; written by TestTypesOfScripts.

type Op =
  | 'arrange'
  | 'block.add'
  | 'block.alike'
  | 'block.content'
  | 'block.hide'
  | 'block.layer'
  | 'block.lock'
  | 'block.loose'
  | 'block.move'
  | 'block.nudge'
  | 'block.place'
  | 'block.place.reset'
  | 'block.place.set'
  | 'block.resize'
  | 'block.room'
  | 'block.ungroup'
  | 'block.words'
  | 'block.write'
  | 'blocks.align'
  | 'blocks.group'
  | 'blocks.move'
  | 'blocks.nudge'
  | 'blocks.order'
  | 'blocks.same'
  | 'blocks.scale'
  | 'blocks.series'
  | 'blocks.spread'
  | 'blocks.tidy'
  | 'delete'
  | 'duplicate'
  | 'entry.add'
  | 'entry.duplicate'
  | 'entry.fill'
  | 'entry.remove'
  | 'entry.set'
  | 'entry.shift'
  | 'entry.write'
  | 'flip'
  | 'follow'
  | 'item.add'
  | 'item.move'
  | 'item.remove'
  | 'item.shift'
  | 'look'
  | 'order'
  | 'page.guide'
  | 'page.set'
  | 'paste'
  | 'rename'
  | 'same'
  | 'section.add'
  | 'section.anchor'
  | 'section.fold'
  | 'section.hide'
  | 'section.move'
  | 'section.own'
  | 'section.picture'
  | 'section.redesign'
  | 'section.role'
  | 'section.share'
  | 'section.shift'
  | 'section.video'
  | 'section.view'
  | 'set'
  | 'zone.follow'
  | 'many';

type Kind =
  | 'heading'
  | 'text'
  | 'list'
  | 'quote'
  | 'button'
  | 'buttons'
  | 'picture'
  | 'gallery'
  | 'video'
  | 'audio'
  | 'countdown'
  | 'icon'
  | 'logo'
  | 'shape'
  | 'container'
  | 'series'
  | 'card'
  | 'icon-card'
  | 'person'
  | 'testimonial'
  | 'price-card'
  | 'notice'
  | 'figures'
  | 'progress'
  | 'table'
  | 'timetable'
  | 'accordion'
  | 'tabs'
  | 'map'
  | 'own-html'
  | 'form'
  | 'search'
  | 'facts'
  | 'menu'
  | 'breadcrumb'
  | 'page-list'
  | 'social'
  | 'back-to-top'
  | 'scroll-hint'
  | 'share'
  | 'anchor'
  | 'divider'
  | 'space';

interface Command {
  op: Op;
  base?: number;
  node?: string;
  with?: string[];
  after?: string;
  into?: string;
  at?: number;
  zone?: string;
  kind?: Kind;
  preset?: string;
  setting?: string;
  value?: string;
  place?: Place;
  dx?: number;
  dy?: number;
  hide?: boolean;
  parts?: Command[];
}

interface State {
  seq: number;
  width: number;
  select: string;
  order: string[];
  usual: string[];
  all: string[];
  end: string;
  orders: Record<string, string[]>;
  show: SectionText[];
  places: Record<string, HeldBlock[]>;
  zones: Zone[];
  names: Record<string, string>;
  grids: Record<string, Grid>;
  across: Record<string, boolean>;
  ground: string;
  guides: Guides;
  did?: string;
  told: string;
  handles: Handle[];
}

interface Place {
  column: number;
  span: number;
  row: number;
  rows: number;
  layer: number;
}

interface SectionText {
  id: string;
  html: string;
  css: string;
}

interface HeldBlock {
  id: string;
  kind: Kind;
  holder: string;
  design?: boolean;
  placed?: boolean;
  holds?: boolean;
  writes?: boolean;
  locked?: boolean;
  standIn?: boolean;
  standIns?: string[];
  zones?: Record<string, number[]>;
  hidden?: Record<string, boolean>;
  order?: Record<string, number>;
}

interface Zone {
  id: string;
  name: string;
  min: number;
  typical: number;
  columns: number;
  height?: number;
}

interface Grid {
  x: number;
  y: number;
  columns: number[];
  rows: number[];
  columnGap: number;
  rowGap: number;
  rowHeight: number;
}

interface Guides {
  x?: number[];
  y?: number[];
}

interface Handle {
  setting: string;
  label: string;
  both?: string;
  x: number;
  y: number;
  w: number;
  h: number;
  at: number;
  across?: boolean;
  sign: number;
  px: number;
  min: number;
  max: number;
  before?: string;
  after: string;
  steps?: Step[];
  only?: boolean;
}

interface Step {
  name: string;
  value: string;
  px: number;
}
