// Ten minutes of two-channel capture through the real adapter in headless Chromium, from a file in place of a microphone:
// no block may be lost. CAPTURE_S shortens it.
import { openBrowser } from '../e2e/support/browser.mjs';
import { fakeCapture, writeCaptureFile } from '../e2e/support/captureFile.mjs';
import { serveContract } from '../e2e/support/contractPage.mjs';

/** @param {number} f */
const tone = (f) =>
  Float32Array.from({ length: 96000 }, (_, i) => 0.2 * Math.sin((2 * Math.PI * f * i) / 48000));

export async function benchCapture(seconds = Number(process.env.CAPTURE_S ?? 600)) {
  const page = await serveContract();
  const { driver, close } = await openBrowser({
    args: fakeCapture(writeCaptureFile([tone(1000), tone(500)])),
  });
  try {
    await driver.manage().setTimeouts({ script: 1000 * seconds + 60_000 });
    await driver.get(page.url);
    /** @type {{ frames: number, seconds: number, lostRuns: number, missedBlocks: number, longestGapMs: number }} */
    const result = await driver.executeAsyncScript(
      `const done = arguments[arguments.length - 1];
       window.contract.capture(${seconds}).then(done, (e) => done(String(e)));`,
    );
    const rate = result.frames / result.seconds;
    console.log(
      `two-channel capture for ${result.seconds.toFixed(0)} s: ${result.frames} frames, ${rate.toFixed(0)} a second; ` +
        `${result.missedBlocks} blocks lost (bar 0), ${result.lostRuns} gaps in the sound, longest wait for a block ${result.longestGapMs.toFixed(0)} ms`,
    );
  } finally {
    await close();
    await page.stop();
  }
}
