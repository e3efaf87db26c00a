// Bundles a TypeScript module with the packages' sources and imports it, for scripts that need more than the built core.
import { build } from 'esbuild';
import { mkdirSync, rmSync } from 'node:fs';
import { join, parse } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/**
 * @param {string} path from the project's root
 * @param {import('esbuild').BuildOptions} [more] what else the bundle needs
 * @returns {Promise<any>} what the module exports
 */
export async function importBundled(path, more = {}) {
  const bundle = join(root, 'node_modules', '.cache', 'pebble-hall', `${parse(path).name}.mjs`);
  mkdirSync(join(bundle, '..'), { recursive: true });
  await build({
    entryPoints: [join(root, path)],
    bundle: true,
    format: 'esm',
    platform: 'node',
    conditions: ['pebble-source'],
    banner: {
      js: "import { createRequire as requireMaker } from 'node:module'; const require = requireMaker(import.meta.url);",
    },
    outfile: bundle,
    logLevel: 'error',
    ...more,
  });
  const made = await import(pathToFileURL(bundle).href);
  rmSync(bundle);
  return made;
}
