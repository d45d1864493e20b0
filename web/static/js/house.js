// The house style: a morph leaves what was typed in fields; they show what is kept,
// or what was refused, as the server wrote it. While one types only the table of
// contrasts is swapped, and the fields stay.
document.addEventListener('htmx:after:swap', (e) => {
  if (e.detail.ctx.target?.id !== 'house') return;
  for (const field of document.querySelectorAll('#house input:not([type=file])')) field.value = field.defaultValue;
});
