// npm run bars: installs what is missing and builds, then holds the statistical bars, over many seeds and draws, and runs the
// browser tests that take minutes. `npm run bars -- --built` takes the build that is there.
import { spawnSync } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { needBrowser, needNode, needPackages, needSox, root, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
needSox();
if (!process.argv.includes('--built')) run('npm', ['run', 'build', '--silent']);
let failed = 0;
for (const [project, workers, ...more] of /** @type {const} */ ([
  ['bars', availableParallelism()],
  // the longest of the unit tests
  ['core', availableParallelism(), '--tags-filter=bars'],
  ['e2e-long', 2],
  ['real-audio-long', 1],
])) {
  const args = ['vitest', 'run', '--project', project, `--maxWorkers=${workers}`, ...more];
  const { status } = spawnSync('npx', args, {
    cwd: root,
    stdio: 'inherit',
  });
  failed += status === 0 ? 0 : 1;
}
process.exit(failed);
