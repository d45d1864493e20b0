// The house style: a morph leaves what was typed in fields; they show what is kept,
// or what was refused, as the server wrote it. While one types only the table of
// contrasts is swapped, and the fields stay. The specimen on the right follows each
// change, at the width that is chosen, scaled to fit.
const frame = document.getElementById('specimen');
const stage = frame.parentElement;
const shown = document.getElementById('shown');
const zones = [...document.querySelectorAll('.specimen-zones button')];
let top = 0; // how far the specimen is scrolled

function address() {
  const { version, trying } = document.getElementById('house').dataset;
  const query = new URLSearchParams({ v: version });
  if (trying) query.set('house', trying);
  return `${shown.value}?${query}`;
}

let last = '';

function show() {
  if (last === address()) return;
  last = address();
  top = frame.contentWindow.scrollY;
  frame.contentWindow.location.replace(last); // so that going back leaves this screen
}

function fit() {
  const page = shown.selectedIndex > 0;
  const width = Number(zones.find((b) => b.getAttribute('aria-pressed') === 'true').dataset.width);
  const room = stage.parentElement.clientWidth - 48;
  const scale = Math.min(room / width, 1);
  // A specimen is read at its true size; pages are seen whole.
  const at = page ? scale : 1;
  stage.style.width = page ? `${width * scale}px` : '';
  frame.style.width = page ? `${width}px` : '100%';
  frame.style.height = `${stage.clientHeight / at}px`;
  frame.style.transform = at === 1 ? '' : `scale(${at})`;
  document.querySelector('.specimen-zones').hidden = !page;
}

frame.addEventListener('load', () => frame.contentWindow.scrollTo(0, top));
shown.addEventListener('change', () => { top = 0; fit(); show(); });
for (const b of zones) {
  b.addEventListener('click', () => {
    for (const other of zones) other.setAttribute('aria-pressed', String(other === b));
    fit();
  });
}
new ResizeObserver(fit).observe(stage.parentElement);
document.addEventListener('htmx:after:swap', (e) => {
  if (e.detail.ctx.target?.id !== 'house') return;
  for (const field of document.querySelectorAll('#house input:not([type=file], [type=hidden])')) field.value = field.defaultValue;
  show();
});
fit();
show();
