// A run of the tests of some projects, with what failed in it; told once more at the end of everything, where one looks.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { root } from './install.mjs';

/** Lines of what a test said that are told again. */
const LINES = 12;

/** What was run, with how long it took: told at the end, too. @type {string[]} */
const taken = [];
/**
 * @template T
 * @param {string} what
 * @param {() => T | Promise<T>} does
 * @returns {Promise<T>}
 */
export async function timed(what, does) {
  const began = performance.now();
  const result = await does();
  taken.push(`${what} ${Math.round((performance.now() - began) / 1000)} s`);
  return result;
}

/**
 * @param {readonly string[]} projects of vitest.config.ts
 * @param {readonly string[]} more arguments
 * @param {Record<string, string>} env more of the environment
 * @returns {{ passed: number, pending: number, failures: string[] }} a failure per test that failed, and one where the run as such did
 */
export function vitestRun(projects, more, env = {}) {
  const report = join(tmpdir(), `pebble-hall-${process.pid}.json`);
  rmSync(report, { force: true });
  const args = [
    'vitest',
    'run',
    ...projects.flatMap((p) => ['--project', p]),
    '--reporter=default',
    '--reporter=json',
    '--reporter=./scripts/triedAgain.mjs',
    `--outputFile.json=${report}`,
    ...more,
  ];
  const { status } = spawnSync('npx', args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  const { numPassedTests, numPendingTests, testResults } = read(report);
  const failures = testResults.flatMap(failuresOf);
  if (status !== 0 && failures.length === 0)
    failures.push(`${projects.join(', ')}: the run ended with ${String(status)}, though no test failed`);
  return { passed: numPassedTests, pending: numPendingTests, failures };
}

/** @param {string} report */
function read(report) {
  try {
    return JSON.parse(readFileSync(report, 'utf8'));
  } catch {
    // a run that broke off leaves none
    return { numPassedTests: 0, numPendingTests: 0, testResults: [] };
  } finally {
    rmSync(report, { force: true });
  }
}

/**
 * @param {{ name: string, status: string, message?: string, assertionResults: { status: string, fullName: string, failureMessages?: string[] }[] }} file
 */
function failuresOf(file) {
  const name = relative(root, file.name);
  const failed = file.assertionResults.filter((test) => test.status === 'failed');
  if (failed.length === 0 && file.status === 'failed') return [`${name}\n${start(file.message ?? '')}`];
  return failed.map(
    (test) => `${name} > ${test.fullName}\n${start((test.failureMessages ?? []).join('\n'))}`,
  );
}

/** @param {string} message */
const start = (message) =>
  message
    .split('\n')
    .filter((line) => !line.includes('node_modules'))
    .slice(0, LINES)
    .join('\n')
    .replaceAll(root, '');

/**
 * The end of all runs: what failed, how many passed, and how long each took; ends with it.
 * @param {number} passed
 * @param {readonly string[]} failures
 * @param {number} notJudged on this machine
 * @returns {never}
 */
export function end(passed, failures, notJudged = 0) {
  for (const failure of failures) console.log(`\nFailed: ${failure}`);
  console.log(`\n${passed} passed, ${failures.length} failed (${taken.join(', ')})`);
  if (notJudged > 0)
    console.log(`${notJudged} not judged: this machine loses sound on an empty page as well (see above)`);
  process.exit(failures.length > 0 || passed === 0 ? 1 : 0);
}
