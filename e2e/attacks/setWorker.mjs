// A worker that reads sets of responses, one after the other: a broken one can keep it busy without end.
import { readLoudspeakerFile } from '@pebble-hall/core/loudspeakers';
import { parentPort } from 'node:worker_threads';

const port = /** @type {import('node:worker_threads').MessagePort} */ (parentPort);
port.on('message', async (/** @type {Uint8Array} */ bytes) => {
  try {
    const { read } = await readLoudspeakerFile(bytes, 'set.sofa');
    port.postMessage({
      finite: [...read.data.re, ...read.data.im].every((row) => row.every(Number.isFinite)),
    });
  } catch (error) {
    const { name, message } = error instanceof Error ? error : new Error(String(error));
    port.postMessage({ name, message });
  }
});
