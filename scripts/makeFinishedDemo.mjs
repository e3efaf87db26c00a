// Makes the demo's finished project: measured, corrected and verified by the application's own services, in this process.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { importBundled } from './importBundled.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const inThreadFolder = join(root, 'demo', 'inThread');
const keyFile = join(root, 'node_modules', '.cache', 'pebble-hall', 'finished.key');

/** Workers' jobs are done in this thread: nothing else of the application is exchanged. */
const inThread = {
  name: 'in-thread',
  /** @param {import('esbuild').PluginBuild} build */
  setup(build) {
    build.onResolve({ filter: /(^|\/)serveJobs$/ }, ({ importer }) =>
      importer.startsWith(inThreadFolder) ? null : { path: join(inThreadFolder, 'serveJobs.ts') },
    );
    build.onResolve({ filter: /(^|\/)workers\/lane$/ }, () => ({ path: join(inThreadFolder, 'lane.ts') }));
    // addresses of what only a browser loads
    build.onResolve({ filter: /\?/ }, ({ path }) => ({ path, namespace: 'address' }));
    build.onLoad({ filter: /.*/, namespace: 'address' }, () => ({ contents: 'export default ""' }));
  },
};

/** @param {string} folder @returns {string[]} */
const sourcesIn = (folder) =>
  readdirSync(folder)
    .sort()
    .flatMap((name) => {
      const path = join(folder, name);
      if (statSync(path).isDirectory()) return sourcesIn(path);
      return /\.tsx?$/.test(name) && !/\.test\./.test(name) ? [path] : [];
    });

/** Changes with everything that the project is made by. */
function keyOfSources() {
  const hash = createHash('sha256');
  const folders = [
    'core/src',
    'stand-ins/src',
    'demo',
    ...['services', 'ports', 'store', 'workers', 'workbenches/correct', 'workbenches/hand-over'].map(
      (folder) => `app/src/${folder}`,
    ),
  ];
  for (const folder of folders)
    for (const path of sourcesIn(join(root, folder)))
      hash.update(path.slice(root.length)).update(readFileSync(path));
  return hash.digest('hex');
}

/**
 * Half a minute of work, done only where something that it rests on has changed.
 * @param {string} target the project file
 */
export async function makeFinishedDemo(target) {
  const key = keyOfSources();
  if (existsSync(target) && existsSync(keyFile) && readFileSync(keyFile, 'utf8') === key) return;
  console.log('Measuring and correcting the finished demo project, half a minute ...');
  const { finishedNetLoft } = await importBundled('demo/finishedProject.ts', {
    plugins: [inThread],
    define: { 'import.meta.env': '{}' },
    jsx: 'automatic',
    loader: { '.css': 'empty' },
  });
  writeFileSync(target, await finishedNetLoft());
  mkdirSync(join(keyFile, '..'), { recursive: true });
  writeFileSync(keyFile, key);
}
