// npm run attack: installs what is missing, builds, makes every attack, and prints what was tried and what broke. Seed: PEBBLE_HALL_SEED.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { needBrowser, needNode, needPackages, root, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
const counts = join(root, 'node_modules', '.cache', 'attack');
rmSync(counts, { recursive: true, force: true });
run('npm', ['run', 'build', '--silent']);
const env = { ...process.env, PEBBLE_HALL_ATTACKS: '1' };
const made = spawnSync('npx', ['vitest', 'run', '--project', 'attacks', '--silent=true'], {
  cwd: root,
  stdio: 'inherit',
  env,
});
// what is said of the processor, held against what it holds, at every step of a transfer
const truth = spawnSync('npx', ['vitest', 'run', '--project', 'bars', 'memoryWork'], {
  cwd: root,
  stdio: 'inherit',
});

let broke = 0;
const names = existsSync(counts) ? readdirSync(counts) : [];
console.log(`\n${'attack'.padEnd(36)}${'tried'.padStart(8)}${'survived'.padStart(10)}${'broke'.padStart(8)}`);
for (const name of names) {
  const { kind, tried, broke: what } = JSON.parse(readFileSync(join(counts, name), 'utf8'));
  console.log(
    `${kind.padEnd(36)}${String(tried).padStart(8)}${String(tried - what.length).padStart(10)}${String(what.length).padStart(8)}`,
  );
  for (const one of what.slice(0, 10)) console.log(`    ${one}`);
  broke += what.length;
}
console.log(
  `what is said of the processor, a load struck at every step: ${truth.status === 0 ? 'nothing false' : 'something false, see above'}`,
);
process.exit(broke > 0 || made.status !== 0 || truth.status !== 0 ? 1 : 0);
