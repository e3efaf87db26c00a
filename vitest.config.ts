import { readdirSync, readFileSync } from 'node:fs';
import { configDefaults, defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

// The packages are used from their sources here, without a build in between.
const resolve = { conditions: ['pebble-source', 'import', 'module', 'default'] };
const ssr = { resolve };
/** Where the core was built just now (`npm test`), what uses it takes it as built: it is read once, not once more for each project. */
const onCore = process.env['PEBBLE_HALL_BUILT']
  ? { conditions: ['import', 'module', 'default'], external: [/\/core\/dist\//] }
  : { conditions: resolve.conditions, external: [] };
const BARS = '**/*.bars.test.ts';
const unit = (name: string, dir: string, more: object = {}) => ({
  resolve: { conditions: onCore.conditions },
  ssr: { resolve: { conditions: onCore.conditions } },
  test: {
    server: { deps: { external: onCore.external } },
    name,
    include: [`${dir}/**/*.test.{ts,tsx}`],
    exclude: [...configDefaults.exclude, BARS],
    environment: 'node',
    testTimeout: 60_000,
    ...more,
  },
});
/** Pure functions: their files may share what a worker has read. */
const SHARED = { isolate: false };
/** These put something in the place of a module, of the clock or of the database. */
const ALONE = readdirSync('app/src', { recursive: true, encoding: 'utf8' })
  .filter((name) => /\.test\.tsx?$/.test(name))
  .map((name) => `app/src/${name}`)
  .filter((name) =>
    /vi\.(mock|spyOn|stubGlobal|useFakeTimers|resetModules)|fake-indexeddb|globalThis/.test(
      readFileSync(name, 'utf8'),
    ),
  );

/** Another browser beside them would take sound from these. */
const REAL_AUDIO = [
  'e2e/realRig.e2e.test.ts',
  'e2e/contract.e2e.test.ts',
  'e2e/ownRoom.e2e.test.ts',
  'e2e/liveOnDevices.e2e.test.ts',
];
const REAL_AUDIO_LONG = ['e2e/long/realReady.e2e.test.ts'];
/** In real time: what a busy machine takes sound from is asked again, what fails each time is broken. */
const IN_REAL_TIME = { fileParallelism: false, retry: 2 };
const browser = (name: string, more: object) => ({
  resolve,
  ssr,
  test: {
    name,
    include: ['e2e/*.e2e.test.ts'],
    environment: 'node' as const,
    testTimeout: 400_000,
    hookTimeout: 120_000,
    ...more,
  },
});

/** What takes longest is begun first, so that it does not keep one processor waiting at the end. */
class SlowFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isSlow = ({ moduleId }: TestSpecification) =>
      /stand-ins\/src\/rig\/|(wholePath|everyPage|electronics)\.e2e/.test(moduleId);
    return [...sorted.filter(isSlow), ...sorted.filter((f) => !isSlow(f))];
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: SlowFirst },
    // `npm test` leaves these out
    tags: [{ name: 'bars', description: 'seconds for what others tell in part: held by npm run bars' }],
    projects: [
      unit('core', 'core/src', SHARED),
      unit('stand-ins', 'stand-ins/src', SHARED),
      unit('app', 'app/src', { ...SHARED, exclude: [...configDefaults.exclude, BARS, ...ALONE] }),
      unit('app-alone', 'app/src', { include: ALONE }),
      unit('demo', 'demo'),
      // bars over many seeds and draws: `npm run bars`
      {
        resolve,
        ssr,
        test: {
          name: 'bars',
          include: [
            `{core,stand-ins}/src/${BARS}`,
            'core/src/alignment/findAlignment.test.ts',
            'core/src/shapes/readShapes.test.ts',
            'stand-ins/src/loudspeakers/radiating.test.ts',
            'stand-ins/src/rig/channelCheck.test.ts',
            'stand-ins/src/rig/simulatedSession.test.ts',
            'app/src/services/memoryWork.test.ts',
          ],
          env: { PEBBLE_HALL_DRAWS: 'all' },
          environment: 'node',
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
      // broken files, raw requests, full disks: a tenth of them here, all in `npm run attack`, with the browser
      {
        resolve,
        ssr,
        test: {
          name: 'attacks',
          include: ['e2e/attacks/*.attack.ts'],
          // those in the browser take minutes
          exclude: process.env['PEBBLE_HALL_ATTACKS'] === '1' ? [] : ['e2e/attacks/browser.attack.ts'],
          environment: 'node',
          testTimeout: 600_000,
          hookTimeout: 120_000,
          maxWorkers: 2,
        },
      },
      // a machine that stalls for seconds fails one now and then: what fails again is broken
      browser('e2e', { exclude: [...configDefaults.exclude, ...REAL_AUDIO], retry: 1 }),
      // whole tasks that take minutes: `npm run bars`
      browser('e2e-long', {
        include: ['e2e/long/*.e2e.test.ts'],
        exclude: [...configDefaults.exclude, ...REAL_AUDIO_LONG],
        retry: 1,
      }),
      // not a check: `node scripts/screenshots.mjs`
      browser('pictures', { include: ['e2e/*.pictures.ts'], bail: 1 }),
      browser('real-audio', { include: REAL_AUDIO, ...IN_REAL_TIME }),
      browser('real-audio-long', { include: REAL_AUDIO_LONG, ...IN_REAL_TIME }),
    ],
  },
});
