import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

// The packages are used from their sources here, without a build in between.
const resolve = { conditions: ['pebble-source', 'import', 'module', 'default'] };
const ssr = { resolve };
const unit = (name: string, dir: string) => ({
  resolve,
  ssr,
  test: { name, include: [`${dir}/**/*.test.{ts,tsx}`], environment: 'node', testTimeout: 60_000 },
});

/** The simulated rooms take minutes: begun first, they do not keep one processor waiting at the end. */
class SlowFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isSlow = ({ moduleId }: TestSpecification) => moduleId.includes('/stand-ins/src/rig/');
    return [...sorted.filter(isSlow), ...sorted.filter((f) => !isSlow(f))];
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: SlowFirst },
    projects: [
      unit('core', 'core/src'),
      unit('stand-ins', 'stand-ins/src'),
      unit('app', 'app/src'),
      unit('demo', 'demo'),
      {
        resolve,
        ssr,
        test: {
          name: 'e2e',
          include: ['e2e/**/*.e2e.test.ts'],
          environment: 'node',
          fileParallelism: false,
          testTimeout: 240_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
