// The browser's part of core, as WebAssembly: where things land, and what colours are like.

let loading = null;

/** What core offers, or null until it is loaded. */
export const core = () => window.openplotGestures ?? null;

/** Loads it, once. */
export function load() {
  loading ??= (async () => {
    const go = new window.Go();
    const arrived = new Promise((resolve) => window.addEventListener('openplot:gestures', resolve, { once: true }));
    const { instance } = await WebAssembly.instantiateStreaming(fetch(document.body.dataset.wasm), go.importObject);
    go.run(instance);
    await arrived;
    document.body.dataset.core = 'ready';
  })();
  return loading;
}
