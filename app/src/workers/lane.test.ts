import { expose } from 'comlink';
import { afterEach, describe, expect, it } from 'vitest';
import { isAbort } from '../ports/abort';
import { lane } from './lane';
import { jobServer, type JobContext } from './serveJobs';

const rest = (ms = 5) => new Promise((resolve) => setTimeout(resolve, ms));
const log: string[] = [];

const handlers = {
  double: (n: number) => 2 * n,
  fails: (what: string) => {
    throw new RangeError(`${what} is not right`);
  },
  steps: async (name: string, { progress }: JobContext) => {
    for (let i = 0; i < 20; i++) {
      log.push(`${name} ${i}`);
      await rest(2);
      await progress((i + 1) / 20);
    }
    return name;
  },
  lengthOf: (samples: Float32Array) => samples.length,
  never: (_: null) => new Promise<never>(() => {}),
};

/** Workers of this process: a port each way, and what happened to them. */
function workers() {
  const made: { terminated: boolean; fire: (message: string) => void }[] = [];
  const ports: MessagePort[] = [];
  const make = () => {
    const { port1, port2 } = new MessageChannel();
    ports.push(port1, port2);
    expose(jobServer(handlers), port2);
    const listeners: ((event: { message: string; preventDefault: () => void }) => void)[] = [];
    const record = {
      terminated: false,
      fire: (message: string) => listeners.forEach((l) => l({ message, preventDefault: () => {} })),
    };
    made.push(record);
    port1.start();
    return {
      postMessage: port1.postMessage.bind(port1),
      addEventListener: (type: string, listener: never) =>
        type === 'error' ? listeners.push(listener) : port1.addEventListener(type, listener),
      removeEventListener: port1.removeEventListener.bind(port1),
      terminate: () => {
        record.terminated = true;
        port1.close();
      },
    } as unknown as Worker;
  };
  return { made, make, close: () => ports.forEach((p) => p.close()) };
}
let open: (() => void) | undefined;
const start = () => {
  const { made, make, close } = workers();
  open = close;
  const deaths: string[] = [];
  return { made, deaths, run: lane<typeof handlers>(make, (reason) => deaths.push(reason.message)) };
};
afterEach(() => {
  open?.();
  log.length = 0;
});

describe('a lane', () => {
  it('starts its worker with the first job, and gives what the job gives', async () => {
    const { made, run } = start();
    expect(made).toHaveLength(0);
    expect(await run.run('double', 21)).toBe(42);
    expect(await run.run('double', 4)).toBe(8);
    expect(made).toHaveLength(1);
  });

  it('fails with what the job throws, and goes on', async () => {
    const { run } = start();
    await expect(run.run('fails', 'the rate')).rejects.toThrow('the rate is not right');
    expect(await run.run('double', 1)).toBe(2);
  });

  it('tells progress as the job tells it, up to the end', async () => {
    const { run } = start();
    const shares: number[] = [];
    await run.run('steps', 'a', { onProgress: (share) => shares.push(share) });
    expect(shares).toEqual(Array.from({ length: 20 }, (_, i) => (i + 1) / 20));
  });

  it('cancels one job and leaves the others alone; the cancelled one stops at its next step', async () => {
    const { made, run } = start();
    const stop = new AbortController();
    const cancelled = run.run('steps', 'cancelled', { signal: stop.signal });
    const other = run.run('steps', 'other');
    await rest(12);
    stop.abort();
    const error: unknown = await cancelled.catch((e: unknown) => e);
    expect(isAbort(error)).toBe(true);
    expect(await other).toBe('other');
    expect(made).toHaveLength(1);
    expect(made[0]!.terminated).toBe(false);
    expect(log.filter((l) => l.startsWith('cancelled')).length).toBeLessThan(19);
    expect(log.filter((l) => l.startsWith('other'))).toHaveLength(20);
  });

  it('does not begin a job that was cancelled before', async () => {
    const { made, run } = start();
    const error: unknown = await run
      .run('double', 1, { signal: AbortSignal.abort() })
      .catch((e: unknown) => e);
    expect(isAbort(error)).toBe(true);
    expect(made).toHaveLength(0);
  });

  it('hands arrays over instead of copying them, where it is told to', async () => {
    const { run } = start();
    const samples = new Float32Array(1000);
    expect(await run.run('lengthOf', samples, { transfer: [samples] })).toBe(1000);
    expect(samples.length).toBe(0);
    const kept = new Float32Array(1000);
    await run.run('lengthOf', kept);
    expect(kept.length).toBe(1000);
  });

  it('replaces a worker that dies; what it was doing ends with the reason', async () => {
    const { made, run } = start();
    const pending = run.run('never', null);
    made[0]!.fire('');
    await expect(pending).rejects.toThrow(/could not be loaded/);
    expect(made[0]!.terminated).toBe(true);
    expect(await run.run('double', 3)).toBe(6);
    expect(made).toHaveLength(2);
  });

  it('tells the death of a worker that works on between jobs, and no end that was asked for', async () => {
    const { made, deaths, run } = start();
    await run.run('double', 1);
    made[0]!.fire('blocks came in no order');
    expect(deaths).toEqual([expect.stringMatching(/blocks came in no order/)]);
    await run.run('double', 1);
    run.stop();
    expect(deaths).toHaveLength(1);
  });

  it('ends everything when it is stopped, and starts anew after that', async () => {
    const { made, run } = start();
    const pending = run.run('never', null);
    run.stop();
    expect(isAbort(await pending.catch((e: unknown) => e))).toBe(true);
    expect(await run.run('double', 5)).toBe(10);
    expect(made.map((m) => m.terminated)).toEqual([true, false]);
  });
});
