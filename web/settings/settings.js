// The screen of a site's settings: choosing a letter, an icon or a picture chooses that it is one.

const form = document.getElementById('settings');

form.addEventListener(
  'input',
  (e) => {
    const of = { 'icon-letter': 'letter', 'icon-name': 'icon', 'icon-picture': 'picture' }[e.target.name];
    if (of) form.querySelector(`[name="icon-from"][value="${of}"]`).checked = true;
  },
  true,
);
