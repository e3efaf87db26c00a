// Makes the demo project and puts it where the application serves it from.
import { build } from 'esbuild';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const bundle = join(root, 'node_modules', '.cache', 'pebble-hall', 'demo.mjs');
mkdirSync(join(bundle, '..'), { recursive: true });
await build({
  entryPoints: [join(root, 'demo', 'netLoftProject.ts')],
  bundle: true,
  format: 'esm',
  platform: 'node',
  conditions: ['pebble-source'],
  banner: {
    js: "import { createRequire as requireMaker } from 'node:module'; const require = requireMaker(import.meta.url);",
  },
  outfile: bundle,
  logLevel: 'error',
});
const { demoFiles } = await import(pathToFileURL(bundle).href);
const target = join(root, 'app', 'public', 'demo');
mkdirSync(target, { recursive: true });
for (const [name, bytes] of Object.entries(demoFiles())) writeFileSync(join(target, name), bytes);
rmSync(bundle);
console.log('The demo project lies in app/public/demo.');
