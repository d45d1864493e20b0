// Says with a form how long it took to fill in, in milliseconds, which tells people from
// programs. Nothing else is kept or sent.
const began = performance.now();
for (const took of document.querySelectorAll('form > div > input[name="_took"]')) {
  took.form.addEventListener('submit', () => { took.value = String(Math.round(performance.now() - began)); });
}
