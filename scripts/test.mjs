// npm test: installs what is missing, then checks types and lint, builds, runs unit and browser tests.
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { needBrowser, needNode, needPackages, needSox, root, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
needSox();
console.log('Types ...');
run('npm', ['run', 'types', '--silent']);
console.log('Lint ...');
run('npm', ['run', 'lint', '--silent']);
console.log('Build ...');
run('npm', ['run', 'build', '--silent']);

let passed = 0;
let failed = 0;
for (const [name, projects] of /** @type {const} */ ([
  ['Unit tests', ['core', 'stand-ins', 'app', 'demo']],
  ['Browser tests', ['e2e']],
])) {
  console.log(`${name} ...`);
  const report = join(tmpdir(), `pebble-hall-${process.pid}.json`);
  const args = [
    'vitest',
    'run',
    ...projects.flatMap((p) => ['--project', p]),
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ];
  const { status } = spawnSync('npx', args, { cwd: root, stdio: 'inherit' });
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'));
  rmSync(report);
  passed += numPassedTests;
  failed += numFailedTests + (status !== 0 && numFailedTests === 0 ? 1 : 0);
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);
