import { Worker } from 'node:worker_threads';
import { aes69File, sphereGrid } from '../../core/src/loudspeakers/aes69ForTest';
import { harmed } from './harmed';
import type { Tally } from './tally';

/** As the application does: a reader that takes longer is ended, ms; a whole set takes a few. */
const LIMIT_MS = 2000;
export type Answer = { finite: boolean } | { name: string; message: string };

/** A reader in a worker of its own, as in the application. */
export class SetReader {
  private worker: Worker | null = null;
  private answer: (answer: Answer | null) => void = () => {};
  ended = 0;

  /** A reader that has read a whole set: how long it takes to begin is no part of how long it reads. */
  private async start(): Promise<Worker> {
    const worker = new Worker(new URL('./setWorker.mjs', import.meta.url), {
      // what the package writes to its own log is nobody's
      stdout: true,
      stderr: true,
      // built packages, not the sources that these tests run on
      execArgv: [],
    });
    worker.on('message', (answer: Answer) => this.answer(answer));
    worker.on('error', () => this.answer(null));
    const first = await this.ask(worker, await wholeSet());
    if (first === null || !('finite' in first))
      throw new Error(`A whole set is not read: ${JSON.stringify(first)}`);
    return worker;
  }

  private ask(worker: Worker, bytes: Uint8Array): Promise<Answer | null> {
    return new Promise((resolve) => {
      this.answer = resolve;
      worker.postMessage(bytes);
    });
  }

  /** @returns null where it was ended */
  async read(bytes: Uint8Array): Promise<Answer | null> {
    const worker = (this.worker ??= await this.start());
    let timer: NodeJS.Timeout | undefined;
    const answer = await Promise.race([
      this.ask(worker, bytes),
      new Promise<null>((resolve) => {
        timer = setTimeout(resolve, LIMIT_MS, null);
      }),
    ]);
    clearTimeout(timer);
    if (answer === null) await this.end();
    return answer;
  }

  async end(): Promise<void> {
    this.ended++;
    await this.worker?.terminate();
    this.worker = null;
  }
}

/** A set that is whole. */
export const wholeSet = (): Promise<Uint8Array> =>
  aes69File({
    receivers: sphereGrid(30),
    frequency: [100, 1000, 8000],
    pressure: (r, n) => ({ re: 1 / (1 + r + n), im: 0 }),
  });

/** A broken set that keeps its reader busy without end. */
export async function endlessSet(tally: Tally): Promise<Uint8Array> {
  const reader = new SetReader();
  const whole = await wholeSet();
  try {
    for (;;) {
      const { bytes } = harmed(tally, whole);
      if ((await reader.read(bytes)) === null) return bytes;
    }
  } finally {
    await reader.end();
  }
}
