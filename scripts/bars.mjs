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
for (const [project, workers] of /** @type {const} */ ([
  ['bars', availableParallelism()],
  ['e2e-long', 2],
])) {
  const { status } = spawnSync('npx', ['vitest', 'run', '--project', project, `--maxWorkers=${workers}`], {
    cwd: root,
    stdio: 'inherit',
  });
  failed += status === 0 ? 0 : 1;
}
process.exit(failed);
