// What a change can touch: the Go packages whose tests, and the browser tests which it may make fail.
// Writes the ones in the first line, the others in the second. The change is what isn't committed, and
// what came since a commit when one is given.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';

const root = new URL('..', import.meta.url).pathname;
const run = (command, ...args) =>
  execFileSync(command, args, { cwd: root, encoding: 'utf8', maxBuffer: 1 << 26 }).split('\n');
const changed = [
  ...run('git', 'diff', '--name-only', process.argv[2] ?? 'HEAD'),
  ...run('git', 'ls-files', '--others', '--exclude-standard'),
].filter(Boolean);

/** The package a file belongs to: the one of its folder, or of the nearest above that has one. */
const packages = new Map(
  run('go', 'list', '-f', '{{.Dir}} {{.ImportPath}}', './...')
    .filter(Boolean)
    .map((l) => l.split(' '))
    .map(([dir, name]) => [path.relative(root, dir), name]),
);
const owner = (file) => {
  for (let dir = path.dirname(file); ; dir = path.dirname(dir)) {
    if (packages.has(dir)) return packages.get(dir);
    if (dir === '.') return null;
  }
};
const own = changed.filter((f) => !/^(e2e|docs)\/|\.md$/.test(f));
const everything = own.some((f) => /^go\.(mod|sum)$/.test(f));
const hit = new Set(own.map(owner));
const tested = run('go', 'list', '-test', '-f', '{{.ImportPath}} {{join .Deps ","}}', './...')
  .map((l) => /^(\S+)\.test (.*)$/.exec(l))
  .filter((m) => m && (everything || [m[1], ...m[2].split(',').map((d) => d.split(' ')[0])].some((d) => hit.has(d))))
  .map((m) => m[1]);

/** The files of e2e that one imports, and those that they import. */
const text = (file) => fs.readFileSync(path.join(root, 'e2e', file), 'utf8');
function imported(file, seen = new Set()) {
  if (seen.has(file)) return seen;
  seen.add(file);
  for (const [, name] of text(file).matchAll(/from '\.\/([\w.-]+\.mjs)'/g)) imported(name, seen);
  return seen;
}

// A screen's own files touch the tests that speak of it; whatever else the program is made of, all of them.
const screens = own.map((f) => /^web\/(\w+)\/(?!.*_test\.go$)/.exec(f)?.[1]);
const program = own.filter((f) => !/_test\.go$|\/(mediatest|postgrestest)\//.test(f) && (owner(f) || /^web\//.test(f)));
const shared =
  everything ||
  program.some(
    (f) => !/^web\/(audit|entries|house|library|menus|operator|people|publish|settings|sites|versions)\//.test(f),
  );
const browser = fs
  .readdirSync(path.join(root, 'e2e'))
  .filter((f) => f.endsWith('.test.mjs'))
  .filter(
    (f) =>
      shared ||
      (program.length > 0 && screens.some((s) => s && text(f).toLowerCase().includes(s.replace(/s$/, '')))) ||
      [...imported(f)].some((g) => changed.includes(`e2e/${g}`)),
  )
  .map((f) => `e2e/${f}`);
console.log(tested.join(' '));
console.log(browser.join(' '));
