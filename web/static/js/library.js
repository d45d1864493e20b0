// The pictures of a site: uploading many, with progress, and searching.
const main = document.querySelector('[data-upload]');
const list = document.getElementById('library');
const progress = document.getElementById('library-progress');
const search = document.getElementById('library-search');

/** Sends one file and resolves when it is there or refused. */
function send(file) {
  const line = document.createElement('li');
  const name = document.createElement('span');
  const bar = document.createElement('progress');
  name.textContent = file.name;
  bar.max = 1;
  bar.value = 0;
  bar.setAttribute('aria-label', `Uploading ${file.name}`);
  line.append(name, bar);
  progress.append(line);
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', main.dataset.upload);
    request.upload.addEventListener('progress', (e) => { if (e.lengthComputable) bar.value = e.loaded / e.total; });
    request.addEventListener('load', () => {
      if (request.status === 200) {
        list.insertAdjacentHTML('afterbegin', request.responseText);
        window.htmx.process(list.firstElementChild);
        line.remove();
      } else {
        bar.remove();
        name.textContent = request.responseText || `${file.name} could not be kept.`;
        line.classList.add('problem');
      }
      resolve();
    });
    request.addEventListener('error', () => {
      bar.remove();
      name.textContent = `${file.name} did not arrive. Try it again in a moment.`;
      line.classList.add('problem');
      resolve();
    });
    const form = new FormData();
    form.append('file', file);
    request.send(form);
  });
}

async function upload(files) {
  progress.replaceChildren();
  for (const file of files) await send(file);
}

document.getElementById('library-files').addEventListener('change', (e) => {
  upload([...e.target.files]).then(() => { e.target.value = ''; });
});
main.addEventListener('dragover', (e) => {
  if (!e.dataTransfer.types.includes('Files')) return;
  e.preventDefault();
  main.classList.add('dropping');
});
main.addEventListener('dragleave', () => main.classList.remove('dropping'));
main.addEventListener('drop', (e) => {
  e.preventDefault();
  main.classList.remove('dropping');
  upload([...e.dataTransfer.files]);
});
search.addEventListener('input', () => {
  const words = search.value.toLowerCase().split(/\s+/);
  let some = false;
  for (const item of list.children) {
    const found = words.every((w) => item.dataset.find.toLowerCase().includes(w));
    item.hidden = !found;
    some ||= found;
  }
  document.getElementById('library-none').hidden = some;
});
