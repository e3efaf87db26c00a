// What the project's commands need on a fresh machine; no dependencies, as nothing may be installed yet.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** Ends with a message where Node.js is too old for the packages. */
export function needNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Pebble Hall needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
}

/** Runs `npm ci` when nothing is installed yet or the lock file has changed since. */
export function needPackages() {
  const stamp = join(root, 'node_modules', '.pebble-hall-lock');
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages (npm ci) ...');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, lock);
}

/** Installs Chromium and ChromeDriver from Debian's packages where they are missing. */
export function needBrowser() {
  const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
  const driver = process.env.CHROMEDRIVER ?? '/usr/bin/chromedriver';
  needDebian(['chromium', 'chromium-driver'], [chromium, driver]);
}

/** Installs sox from Debian's packages where it is missing; a test has it confirm our filters. */
export const needSox = () => needDebian(['sox'], ['/usr/bin/sox']);

/**
 * @param {string[]} packages
 * @param {string[]} programs that they bring
 */
function needDebian(packages, programs) {
  const missing = () => programs.filter((program) => !existsSync(program));
  if (missing().length === 0) return;
  console.log(`Installing ${packages.join(', ')} (apt-get) ...`);
  const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (/** @type {string[]} */ ...args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    return spawnSync(/** @type {string} */ (command), rest, { stdio: ['ignore', 'ignore', 'inherit'], env });
  };
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
  if (missing().length === 0) return;
  console.error(
    `${missing().join(' and ')} could not be installed. Install the Debian packages ${packages.join(', ')}, ` +
      'or name the browser and its driver in CHROMIUM and CHROMEDRIVER.',
  );
  process.exit(1);
}

/**
 * Runs a command in the project's root and ends with its status when it fails.
 * @param {string} command
 * @param {string[]} args
 */
export function run(command, args) {
  try {
    execFileSync(command, args, {
      cwd: root,
      stdio: 'inherit',
      env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
    });
  } catch (error) {
    const status = /** @type {{ status?: number }} */ (error).status;
    process.exit(status || 1);
  }
}
