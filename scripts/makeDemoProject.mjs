// Makes the demo's projects and puts them where the application serves it from.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { importBundled } from './importBundled.mjs';
import { makeFinishedDemo } from './makeFinishedDemo.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const { demoFiles, FINISHED } = await importBundled('demo/demoFiles.ts');
const target = join(root, 'app', 'public', 'demo');
mkdirSync(target, { recursive: true });
for (const [name, bytes] of Object.entries(demoFiles())) writeFileSync(join(target, name), bytes);
await makeFinishedDemo(join(target, FINISHED.file));
console.log('The demo projects lie in app/public/demo.');
// the browser's stand-ins in this process would keep it waiting
process.exit(0);
