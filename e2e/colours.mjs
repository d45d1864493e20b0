// Prints colours with what colorjs.io says of them, for core/colour/testdata: run as
//   node e2e/colours.mjs > core/colour/testdata/colorjs.json
import Color from 'colorjs.io';

const hex = [
  '#000000',
  '#ffffff',
  '#ff0000',
  '#00ff00',
  '#0000ff',
  '#808080',
  '#1d5f6b',
  '#b4532a',
  '#f6f1e8',
  '#123a44',
  '#7d2329',
  '#c65d06',
  '#9b2d4f',
  '#2f6b52',
  '#fefefe',
  '#010203',
  '#ffcc00',
  '#6a5acd',
];
const rows = hex.map((h) => {
  const c = new Color(h);
  const [l, a, b] = c.to('oklab').coords;
  return {
    hex: h,
    oklab: [l, a, b],
    contrastWhite: c.contrast('#ffffff', 'WCAG21'),
    contrastGround: c.contrast('#f6f1e8', 'WCAG21'),
  };
});
const texts = [
  'hsl(189 57% 27%)',
  'hsl(0 100% 50%)',
  'hsl(300 20% 90%)',
  'oklch(45% 0.07 210)',
  'oklch(0.7 0.12 150)',
  'oklch(59.69% 0.156 49.77)',
  'rgb(29 95 107)',
  'rgb(50% 0% 100%)',
].map((t) => ({ text: t, hex: new Color(t).to('srgb').toString({ format: 'hex', collapse: false }) }));
console.log(JSON.stringify({ rows, texts }, null, 1));
