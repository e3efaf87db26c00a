import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { whiteNoise } from '@pebble-hall/core/signal';
import { AUDIO_RIG_CONTRACT } from '../app/src/ports/rig/audioRigContract';
import { openBrowser } from './support/browser.mjs';
import { fakeCapture, writeCaptureFile } from './support/captureFile.mjs';
import { serveContract } from './support/contractPage.mjs';
import { onSound } from './support/onSound';

interface Heard {
  heard: number[];
  dropouts: number;
  missedBlocks: number;
  gaps: number;
}

let page: Awaited<ReturnType<typeof serveContract>>;
let browser: Awaited<ReturnType<typeof openBrowser>>;

/** Two channels told apart by their tone, with one noise in both: it tells whether they were recorded at once. */
const noise = whiteNoise(96000, 5);
const tone = (f: number, behind: number) =>
  Float32Array.from(
    { length: 96000 },
    (_, i) => 0.1 * Math.sin((2 * Math.PI * f * i) / 48000) + 0.1 * (noise[i - behind] ?? 0),
  );

beforeAll(async () => {
  page = await serveContract();
  browser = await openBrowser({ args: fakeCapture(writeCaptureFile([tone(1000, 0), tone(500, 37)])) });
  await browser.driver.manage().setTimeouts({ script: 60_000 });
  await browser.driver.get(page.url);
});
afterAll(async () => {
  await browser?.close();
  await page?.stop();
});

const call = <T>(expression: string) =>
  browser.driver.executeAsyncScript<T>(
    `const done = arguments[arguments.length - 1];
     Promise.resolve().then(() => ${expression}).then(done, (e) => done('FAILED ' + e));`,
  );

describe.each([
  ['simulated', it],
  ['web audio', onSound],
] as const)('the %s rig', (kind, test) => {
  for (const { name } of AUDIO_RIG_CONTRACT)
    test(name, async () => {
      const broken = await call(`window.contract.run(${JSON.stringify(kind)}, ${JSON.stringify(name)})`);
      expect(broken).toBeNull();
    });
});

describe('the web audio rig', () => {
  onSound(
    'keeps two channels apart, loses no block in three seconds, and counts what the device lost',
    async () => {
      // a fake device stutters by itself on a busy machine: then the rig has to have counted every gap that it delivered
      const { heard, dropouts, missedBlocks, gaps } = await call<Heard>(
        'window.contract.listen(3, [250, 500, 1000, 2000])',
      );
      expect({ heard, missedBlocks, dropouts }).toEqual({
        heard: [1000, 500],
        missedBlocks: 0,
        dropouts: gaps,
      });
    },
  );
});
