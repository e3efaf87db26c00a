// npm test: installs what is missing, builds, then checks types and lint and runs unit and browser tests.
import { readFileSync, rmSync } from 'node:fs';
import { availableParallelism, constants, setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawn } from 'node:child_process';
import { needBrowser, needNode, needPackages, needSox, root } from './install.mjs';

needNode();
needPackages();
needBrowser();
needSox();
console.log('Build ...');
if ((await run('npm', ['run', 'build', '--silent'])) !== 0) process.exit(1);

// Browser tests wait for sound a good part of their time: what they leave of the processors checks everything else.
console.log('Browser tests, with types, lint and unit tests beside them ...');
const [browser, checks, unit] = await Promise.all([
  tests(['e2e'], []),
  ...beside(
    () => run('npm', ['run', 'check', '--silent'], 'lowly'),
    () =>
      tests(
        ['core', 'stand-ins', 'app', 'demo'],
        // left to itself, the runner leaves one processor idle
        [`--maxWorkers=${availableParallelism()}`],
        'lowly',
      ),
  ),
]);
console.log(`\nTypes and lint ${checks === 0 ? 'are right' : 'are NOT right, see above'}`);
console.log(`${unit.passed + browser.passed} passed, ${unit.failed + browser.failed} failed`);
process.exit(checks !== 0 || [unit, browser].some((t) => t.failed > 0 || t.passed === 0) ? 1 : 0);

/**
 * Two tasks, the second after the first.
 * @template A, B
 * @param {() => Promise<A>} first
 * @param {() => Promise<B>} second
 * @returns {[Promise<A>, Promise<B>]}
 */
function beside(first, second) {
  const begun = first();
  return [begun, begun.then(second)];
}

/**
 * Runs the tests of some projects and counts them.
 * @param {string[]} projects
 * @param {string[]} more
 * @param {'lowly'} [priority]
 */
async function tests(projects, more, priority) {
  const report = join(tmpdir(), `pebble-hall-${process.pid}-${projects[0]}.json`);
  const args = [
    'vitest',
    'run',
    ...projects.flatMap((p) => ['--project', p]),
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
    ...more,
  ];
  const status = await run('npx', args, priority);
  /** @type {{ numPassedTests: number, numFailedTests: number }} */
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  rmSync(report);
  return { passed: numPassedTests, failed: numFailedTests + (status !== 0 && numFailedTests === 0 ? 1 : 0) };
}

/**
 * Runs a program to its end. A lowly one runs at the lowest priority and says all it has to say at once when it is done.
 * @param {string} program
 * @param {string[]} args
 * @param {'lowly'} [priority]
 * @returns {Promise<number>} its status
 */
function run(program, args, priority) {
  const child = spawn(program, args, {
    cwd: root,
    stdio: priority ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
  });
  if (priority && child.pid) setPriority(child.pid, constants.priority.PRIORITY_LOW);
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => (said += chunk));
  return new Promise((resolve) =>
    child.on('close', (status) => {
      process.stdout.write(said);
      resolve(status ?? 1);
    }),
  );
}
