// npm test: installs what is missing, then checks types and lint, builds, runs unit and browser tests.
import { availableParallelism } from 'node:os';
import { spawn } from 'node:child_process';
import { needBrowser, needNode, needPackages, needSox, root } from './install.mjs';
import { end, timed, vitestRun } from './vitestRun.mjs';

needNode();
needPackages();
needBrowser();
needSox();
console.log('Lint, types and build ...');
await timed('lint, types and build', async () => {
  await runs(['build:core']);
  // as long as each other, one for each processor
  await Promise.all([runs(['types:others', 'lint']), runs(['build:app'])]);
});

let passed = 0;
let notJudged = 0;
/** @type {string[]} */
const failures = [];
for (const [name, projects, ...more] of /** @type {const} */ ([
  // left to itself, the runner leaves one processor idle
  [
    'Unit tests',
    ['core', 'stand-ins', 'app', 'app-alone', 'demo'],
    `--maxWorkers=${availableParallelism()}`,
    '--tags-filter=!bars',
  ],
  ['A tenth of the attacks', ['attacks'], '--maxWorkers=2', '--silent=true'],
  ['Browser tests', ['e2e'], '--maxWorkers=2'],
  ['Browser tests of real audio', ['real-audio']],
])) {
  console.log(`${name} ...`);
  const run = await timed(name.toLowerCase(), () => vitestRun(projects, more, { PEBBLE_HALL_BUILT: '1' }));
  passed += run.passed;
  if (projects[0] === 'real-audio') notJudged += run.pending;
  failures.push(...run.failures);
}
end(passed, failures, notJudged);

/**
 * Runs scripts of package.json one after the other and ends with the status of the first that fails.
 * @param {string[]} scripts
 */
async function runs(scripts) {
  for (const script of scripts) {
    const child = spawn('npm', ['run', script, '--silent'], {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
    });
    const status = await new Promise((resolve) => child.on('close', resolve));
    if (status !== 0) process.exit(Number(status) || 1);
  }
}
