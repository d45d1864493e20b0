// Replays gestures on the WebAssembly, as the Bench's scripts ask it: node replay.mjs WASM_EXEC WASM < GESTURES.
// A line in is {"op", "args"}, a line out the numbers of the answer.
import fs from 'node:fs';
import readline from 'node:readline';
import { pathToFileURL } from 'node:url';

const [, , exec, wasm] = process.argv;
globalThis.Event ??= class { constructor(type) { this.type = type; } };
const arrived = new Promise((resolve) => { globalThis.dispatchEvent = () => resolve(); });
await import(pathToFileURL(exec));
const go = new globalThis.Go();
const { instance } = await WebAssembly.instantiate(fs.readFileSync(wasm), go.importObject);
go.run(instance);
await arrived;
const core = globalThis.openplotGestures;
const answer = new Float64Array(256);
const bytes = new Uint8Array(answer.buffer);
const raw = (v) => (Array.isArray(v) ? new Uint8Array(Float64Array.from(v).buffer) : v);
const out = [];
for await (const line of readline.createInterface({ input: process.stdin })) {
  const { op, args } = JSON.parse(line);
  const into = op === 'begin' ? [] : [bytes];
  answer.fill(0);
  core[op](...into, ...args.map(raw));
  if (op !== 'begin') out.push(`[${[...answer].join(',')}]`);
}
process.stdout.write(out.join('\n'), () => process.exit(0));
