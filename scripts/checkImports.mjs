// Reads every import of the sources, type-only ones too, and refuses circles and arrows that point the wrong way.
import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const PACKAGE = '@pebble-hall/';

/** @param {string} folder @returns {string[]} */
const filesIn = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return filesIn(path);
    return /\.(ts|tsx|astro)$/.test(name) && !name.endsWith('.d.ts') ? [path] : [];
  });

/** @param {string} from @param {string} specifier @returns {string | null} the file that is meant; null for a package */
function fileOf(from, specifier) {
  if (specifier.startsWith(PACKAGE)) {
    const [name, ...rest] = specifier.slice(PACKAGE.length).split('/');
    return join(root, name ?? '', 'src', ...rest, 'index.ts');
  }
  if (!specifier.startsWith('.')) return null;
  const path = resolve(dirname(from), specifier);
  for (const candidate of [
    path,
    path.replace(/\.js$/, '.ts'),
    `${path}.ts`,
    `${path}.tsx`,
    join(path, 'index.ts'),
  ])
    if (existsSync(candidate) && statSync(candidate).isFile()) return candidate;
  return null;
}

/** @param {string} file @returns {string[]} files that it imports, dynamically or for types only too */
function importsOf(file) {
  let text = readFileSync(file, 'utf8');
  if (file.endsWith('.astro')) text = text.split('---')[1] ?? '';
  return ts
    .preProcessFile(text, true, true)
    .importedFiles.flatMap(({ fileName }) => fileOf(file, fileName) ?? []);
}

const files = ['core/src', 'stand-ins/src', 'app/src', 'demo'].flatMap((f) => filesIn(join(root, f)));
const graph = new Map(files.map((file) => [file, importsOf(file)]));
/** @type {string[]} */
const problems = [];
/** @param {string} file */
const named = (file) => relative(root, file);

/** What a part of the application may use of the rest of it; everything may use core. */
const ALLOWED = /** @type {Record<string, string[]>} */ ({
  words: ['words', 'charts'],
  store: ['store'],
  ports: ['ports', 'workers'],
  workers: ['workers', 'ports', 'store'],
  services: ['services', 'ports', 'workers', 'store', 'words'],
  charts: ['charts', 'icons', 'services', 'store'],
  drawing: ['drawing'],
  parts: ['parts', 'icons', 'drawing', 'charts', 'services', 'store', 'words', 'ports'],
  server: ['server', 'services'],
  shell: ['shell', 'icons', 'parts', 'drawing', 'services', 'store', 'words', 'ports', 'workbenches'],
  workbenches: ['workbenches', 'icons', 'parts', 'drawing', 'charts', 'services', 'store', 'words', 'ports'],
  pages: ['pages', 'shell', 'workbenches', 'server', 'services'],
});
/** Simulated devices are known to the adapters, to the server that houses them, and to the worker that plays the room. */
const KNOW_STAND_INS = /^app\/src\/(ports|server|pages\/api|workers\/(room|rigSession))/;

for (const [file, imports] of graph) {
  const from = named(file);
  const isTest = from.endsWith('.test.ts') || from.startsWith('demo/');
  for (const to of imports.map(named)) {
    if (isTest) continue;
    const [a, b] = [from.split('/'), to.split('/')];
    const ranks = ['core', 'stand-ins', 'app'];
    if (ranks.indexOf(a[0] ?? '') < ranks.indexOf(b[0] ?? '')) problems.push(`${from} uses ${to}`);
    if (a[0] === 'app' && b[0] === 'stand-ins' && !KNOW_STAND_INS.test(from))
      problems.push(`${from} knows a stand-in: ${to}`);
    if (a[0] !== 'app' || b[0] !== 'app') continue;
    const [part, other] = [a[2] ?? '', b[2] ?? ''];
    if (!ALLOWED[part]?.includes(other)) problems.push(`${from}: ${part} may not use ${other} (${to})`);
    if (part === 'workbenches' && other === 'workbenches' && a[3] !== b[3])
      problems.push(`${from} uses another workbench: ${to}`);
  }
}

// circles, by following every arrow once (Tarjan's would name whole knots; the first way round says enough)
/** @type {Map<string, 'open' | 'closed'>} */
const state = new Map();
/** @param {string} file @param {string[]} way */
function follow(file, way) {
  if (state.get(file) === 'closed') return;
  if (state.get(file) === 'open') {
    problems.push(`circle: ${[...way.slice(way.indexOf(file)), file].map(named).join(' -> ')}`);
    return;
  }
  state.set(file, 'open');
  for (const next of graph.get(file) ?? []) follow(next, [...way, file]);
  state.set(file, 'closed');
}
for (const file of files) follow(file, []);

for (const problem of problems) console.error(problem);
console.log(`Imports: ${files.length} files, ${problems.length} problems.`);
process.exit(problems.length > 0 ? 1 : 0);
