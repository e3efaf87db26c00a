import { expect, test } from 'vitest';
import type { Job } from './derivation';
import { sharedJob } from './sharedJob';

/** A job that ends when it is told to, and what became of each begun. */
function told() {
  const begun: { of: string; job: Job; end: (value: string) => void }[] = [];
  const ask = sharedJob<string, string>(
    (of, job) => new Promise((resolve) => begun.push({ of, job, end: resolve })),
  );
  const looker = () => {
    const stop = new AbortController();
    const shares: number[] = [];
    return { stop, shares, job: { signal: stop.signal, onProgress: (share: number) => shares.push(share) } };
  };
  return { begun, ask, looker };
}

test('it goes on when who asked steps away, and who asks for the same joins it', async () => {
  const { begun, ask, looker } = told();
  const [first, second] = [looker(), looker()];
  const left = ask('a', first.job);
  begun[0]!.job.onProgress(0.4);
  first.stop.abort();
  await expect(left).rejects.toThrow('Cancelled');
  const joined = ask('a', second.job);
  expect(begun).toHaveLength(1);
  expect(begun[0]!.job.signal.aborted).toBe(false);
  begun[0]!.job.onProgress(0.7);
  begun[0]!.end('done');
  await expect(joined).resolves.toBe('done');
  expect(first.shares).toEqual([0, 0.4]);
  expect(second.shares).toEqual([0.4, 0.7]);
});

test('another question ends it; the same one begins anew after it has ended', async () => {
  const { begun, ask, looker } = told();
  void ask('a', looker().job);
  const b = ask('b', looker().job);
  expect(begun.map(({ of, job }) => [of, job.signal.aborted])).toEqual([
    ['a', true],
    ['b', false],
  ]);
  begun[1]!.end('of b');
  await expect(b).resolves.toBe('of b');
  void ask('b', looker().job);
  expect(begun).toHaveLength(3);
});
