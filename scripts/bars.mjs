// npm run bars: installs what is missing, then holds the statistical bars, over many seeds and draws.
import { spawnSync } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { needNode, needPackages, root } from './install.mjs';

needNode();
needPackages();
const { status } = spawnSync(
  'npx',
  ['vitest', 'run', '--project', 'bars', `--maxWorkers=${availableParallelism()}`],
  { cwd: root, stdio: 'inherit' },
);
process.exit(status ?? 1);
