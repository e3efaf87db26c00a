// What a browser of this machine loses of the sound by itself, on a page that holds nothing of ours.
import { createServer } from 'node:http';
import { whiteNoise } from '@pebble-hall/core/signal';
import { openBrowser } from './browser.mjs';
import { fakeCapture, writeCaptureFile } from './captureFile.mjs';
import { freePort } from './server.mjs';

/** Counts how often a noise that never rests falls to exactly zero for this many samples. */
const COUNTER = `
  registerProcessor('counter', class extends AudioWorkletProcessor {
    run = 0; lost = 0; begun = false;
    constructor() {
      super();
      this.port.onmessage = () => this.port.postMessage(this.lost);
    }
    process([[x]]) {
      for (let i = 0; i < 128; i++) {
        if (!x || x[i] === 0) this.run++;
        else {
          if (this.begun && this.run >= 96) this.lost++;
          this.begun = true;
          this.run = 0;
        }
      }
      return true;
    }
  });`;

/**
 * Listens to the fake microphone on an empty page.
 * @returns how often sound was lost
 * @throws when the browser gives no sound at all
 */
export async function soundLostByItself(seconds: number): Promise<number> {
  const server = createServer((_, response) =>
    response.writeHead(200, { 'content-type': 'text/html' }).end('<title>Bare</title>'),
  );
  const port = await freePort();
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  const noise = Float32Array.from(whiteNoise(10 * 48_000, 11), (v) => 0.1 * v);
  const browser = await openBrowser({ args: fakeCapture(writeCaptureFile([noise])) });
  try {
    await browser.driver.manage().setTimeouts({ script: (seconds + 60) * 1000 });
    await browser.driver.get(`http://127.0.0.1:${port}`);
    const lost = await browser.driver.executeAsyncScript<number | string>(
      `const [counter, ms, done] = arguments;
       (async () => {
         const context = new AudioContext({ sampleRate: 48000, latencyHint: 'playback' });
         await context.audioWorklet.addModule(URL.createObjectURL(new Blob([counter], { type: 'text/javascript' })));
         const audio = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
         const stream = await navigator.mediaDevices.getUserMedia({ audio });
         const node = new AudioWorkletNode(context, 'counter');
         context.createMediaStreamSource(stream).connect(node).connect(context.destination);
         await context.resume();
         await new Promise((resolve) => setTimeout(resolve, ms));
         node.port.onmessage = ({ data }) => done(data);
         node.port.postMessage(null);
       })().catch((error) => done(String(error)));`,
      COUNTER,
      seconds * 1000,
    );
    if (typeof lost === 'string') throw new Error(lost);
    return lost;
  } finally {
    await browser.close();
    server.closeAllConnections();
    server.close();
  }
}
