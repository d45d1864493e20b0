// Lays flex trees out with Yoga, a second reference for package layout. cmd/oracle
// starts it: it reads a line of JSON a tree and writes [[left, top, width, height], …]
// in document order, each from its parent's top left corner.
import readline from 'node:readline';
import Yoga from 'yoga-layout';

const config = Yoga.Config.create();
config.setUseWebDefaults(true);
config.setPointScaleFactor(0); // fractions stay

const pick = {
  direction: {
    row: Yoga.FLEX_DIRECTION_ROW,
    'row-reverse': Yoga.FLEX_DIRECTION_ROW_REVERSE,
    column: Yoga.FLEX_DIRECTION_COLUMN,
    'column-reverse': Yoga.FLEX_DIRECTION_COLUMN_REVERSE,
  },
  justify: {
    start: Yoga.JUSTIFY_FLEX_START,
    center: Yoga.JUSTIFY_CENTER,
    end: Yoga.JUSTIFY_FLEX_END,
    'space-between': Yoga.JUSTIFY_SPACE_BETWEEN,
    'space-around': Yoga.JUSTIFY_SPACE_AROUND,
    'space-evenly': Yoga.JUSTIFY_SPACE_EVENLY,
  },
  align: {
    start: Yoga.ALIGN_FLEX_START,
    center: Yoga.ALIGN_CENTER,
    end: Yoga.ALIGN_FLEX_END,
    stretch: Yoga.ALIGN_STRETCH,
  },
};

function build(t) {
  const n = Yoga.Node.create(config);
  n.setFlexDirection(pick.direction[t.direction ?? 'row']);
  n.setFlexWrap(t.wrap ? Yoga.WRAP_WRAP : Yoga.WRAP_NO_WRAP);
  if (t.justify) n.setJustifyContent(pick.justify[t.justify]);
  if (t.alignItems) n.setAlignItems(pick.align[t.alignItems]);
  n.setAlignContent(Yoga.ALIGN_STRETCH);
  if (t.alignSelf) n.setAlignSelf(pick.align[t.alignSelf]);
  for (const [k, f] of [
    ['width', 'setWidth'],
    ['height', 'setHeight'],
    ['minWidth', 'setMinWidth'],
    ['minHeight', 'setMinHeight'],
    ['grow', 'setFlexGrow'],
    ['basis', 'setFlexBasis'],
  ])
    if (t[k] !== undefined) n[f](t[k]);
  if (t.gap) n.setGap(Yoga.GUTTER_ALL, t.gap);
  (t.margin ?? []).forEach((m, i) =>
    n.setMargin([Yoga.EDGE_TOP, Yoga.EDGE_RIGHT, Yoga.EDGE_BOTTOM, Yoga.EDGE_LEFT][i], m),
  );
  (t.children ?? []).forEach((c, i) => n.insertChild(build(c), i));
  return n;
}

function read(n, out) {
  out.push([n.getComputedLeft(), n.getComputedTop(), n.getComputedWidth(), n.getComputedHeight()]);
  for (let i = 0; i < n.getChildCount(); i++) read(n.getChild(i), out);
  return out;
}

for await (const line of readline.createInterface({ input: process.stdin })) {
  const t = JSON.parse(line);
  const root = build(t);
  root.calculateLayout(t.width, undefined, Yoga.DIRECTION_LTR);
  process.stdout.write(`${JSON.stringify(read(root, []))}\n`);
  root.freeRecursive();
}
