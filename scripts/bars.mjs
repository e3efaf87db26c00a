// npm run bars: installs what is missing and builds, then holds the statistical bars, over many seeds and draws, and runs the
// browser tests that take minutes. `npm run bars -- --built` takes the build that is there.
import { availableParallelism } from 'node:os';
import { needBrowser, needNode, needPackages, needSox, run } from './install.mjs';
import { end, timed, vitestRun } from './vitestRun.mjs';

needNode();
needPackages();
needBrowser();
needSox();
if (!process.argv.includes('--built')) run('npm', ['run', 'build', '--silent']);
let passed = 0;
/** @type {string[]} */
const failures = [];
for (const [project, workers, ...more] of /** @type {const} */ ([
  ['bars', availableParallelism()],
  // the longest of the unit tests
  ['core', availableParallelism(), '--tags-filter=bars'],
  ['e2e-long', 2],
  ['real-audio-long', 1],
])) {
  const run = await timed(project, () => vitestRun([project], [`--maxWorkers=${workers}`, ...more]));
  passed += run.passed;
  failures.push(...run.failures);
}
end(passed, failures);
