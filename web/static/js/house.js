// The house style: a morph leaves what was typed in fields; they show what is kept,
// or what was refused, as the server wrote it.
document.addEventListener('htmx:after:swap', () => {
  for (const field of document.querySelectorAll('#house input')) field.value = field.defaultValue;
});
