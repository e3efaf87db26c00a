// npm run bench: prints the benchmarks; each is a ratio or a rate next to its bar.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { startServer } from '../e2e/support/server.mjs';
import { importBundled } from './importBundled.mjs';
import { needBrowser, needNode, needPackages, root, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
run('npm', ['run', 'build', '--silent']);
if (!existsSync(join(root, 'app', 'dist', 'server', 'serve.mjs'))) process.exit(1);
// `npm run bench capture` runs the ten minutes of recording alone; they are no part of the rest
if (process.argv.includes('capture')) {
  const { benchCapture } = await import('../bench/capture.mjs');
  await benchCapture();
  process.exit(0);
}
// `npm run bench live`: ten minutes of a session, and a large library
if (process.argv.includes('live')) {
  const { benchLibrary, benchLiveSession } = await importBundled('bench/liveSession.ts');
  const server = await startServer();
  await benchLiveSession(server.url, 600);
  await benchLibrary(server.url);
  await server.stop();
  process.exit(0);
}
const { benchCore } = await import('../bench/core.mjs');
await benchCore();
const { benchSubwoofers } = await importBundled('bench/subwoofers.ts');
benchSubwoofers();
const { benchAlign } = await importBundled('bench/align.ts');
benchAlign();
const { benchSlipHall } = await importBundled('bench/slipHall.ts');
benchSlipHall();
const { benchHall, benchTracing } = await importBundled('bench/tracing.ts');
benchTracing();
benchHall();
const { benchCoverage } = await import('../bench/coverage.mjs');
const { benchLive } = await import('../bench/live.mjs');
benchCoverage();
benchLive();
const { benchPlan } = await import('../bench/plan.mjs');
await benchPlan();
const { benchFirstSweep } = await importBundled('bench/firstSweep.ts');
const server = await startServer();
await benchFirstSweep(server.url);
const { benchLibrary, benchLiveSession } = await importBundled('bench/liveSession.ts');
await benchLiveSession(server.url, 60);
await benchLibrary(server.url);
await server.stop();
const { benchPages } = await import('../bench/pages.mjs');
await benchPages();
const { benchRounds } = await import('../bench/rounds.mjs');
await benchRounds();
