import { seededRandom } from '@pebble-hall/core/signal';
import { describe, expect, it, vi } from 'vitest';
import { abortError } from '../ports/abort';
import { WorkerError } from '../workers/workerError';
import { Derivation } from './derivation';

/** Promises that are answered by hand. */
function byHand<I>() {
  const calls: { input: I; answer: (v: string) => void; fail: (e: unknown) => void; signal: AbortSignal }[] =
    [];
  const compute = (input: I, { signal }: { signal: AbortSignal }) =>
    new Promise<string>((resolve, reject) => calls.push({ input, answer: resolve, fail: reject, signal }));
  return { calls, compute };
}
const settled = async () => {
  for (let i = 0; i < 5; i++) await Promise.resolve();
};

describe('a derivation', () => {
  it('shows nothing until its answer is there, and then that', async () => {
    const { calls, compute } = byHand<{ id: string }>();
    const d = new Derivation(compute);
    const a = { id: 'a' };
    d.ask(a);
    expect(d.shownFor(a)).toMatchObject({ value: null, busy: true });
    calls[0]!.answer('of a');
    await settled();
    expect(d.shownFor(a)).toMatchObject({ value: 'of a', busy: false });
    // alike inputs are the same question
    d.ask({ id: 'a' });
    expect(calls).toHaveLength(1);
    expect(d.shownFor({ id: 'a' }).value).toBe('of a');
  });

  it('that was cancelled by hand stays so and says so, until something else is asked for', async () => {
    const { calls, compute } = byHand<{ id: string }>();
    const d = new Derivation(compute);
    const [a, b] = [{ id: 'a' }, { id: 'b' }];
    d.ask(a);
    calls[0]!.fail(abortError());
    await settled();
    expect(calls).toHaveLength(1);
    expect(d.shownFor(a)).toMatchObject({ value: null, busy: false });
    expect(String(d.shownFor(a).error)).toContain('cancelled');
    d.ask(b);
    d.ask(a);
    expect(calls).toHaveLength(3);
  });

  it('cancels what nobody asks for any more', async () => {
    const { calls, compute } = byHand<{ id: string }>();
    const d = new Derivation(compute);
    d.ask({ id: 'a' });
    d.ask({ id: 'b' });
    expect(calls[0]!.signal.aborted).toBe(true);
    calls[0]!.answer('late');
    calls[1]!.answer('of b');
    await settled();
    expect(d.shownFor({ id: 'b' }).value).toBe('of b');
    expect(d.shownFor({ id: 'a' }).value).toBeNull();
    d.stop();
  });

  it('tells what was thrown with the question, and asks again for the next one', async () => {
    const { calls, compute } = byHand<{ id: string }>();
    const d = new Derivation(compute);
    d.ask({ id: 'a' });
    calls[0]!.fail(new Error('no sweep'));
    await settled();
    expect(d.shownFor({ id: 'a' })).toMatchObject({ value: null, error: new Error('no sweep'), busy: false });
    d.ask({ id: 'b' });
    expect(d.shownFor({ id: 'b' }).error).toBeNull();
    calls[1]!.answer('of b');
    await settled();
    expect(d.shownFor({ id: 'b' }).value).toBe('of b');
  });

  it('waits until the inputs rest where it is told to', async () => {
    vi.useFakeTimers();
    const { calls, compute } = byHand<{ n: number }>();
    const d = new Derivation(compute, { restMs: 900 });
    for (let n = 0; n < 5; n++) {
      d.ask({ n });
      vi.advanceTimersByTime(300);
    }
    expect(calls).toHaveLength(0);
    vi.advanceTimersByTime(900);
    expect(calls.map((c) => c.input.n)).toEqual([4]);
    vi.useRealTimers();
  });

  it('follows a hand: one question at a time, the newest next, earlier answers stay as long as they are of the same thing', async () => {
    const { calls, compute } = byHand<{ of: string; at: number }>();
    const d = new Derivation(compute, { follows: (a, b) => a.of === b.of });
    for (let at = 0; at < 10; at++) d.ask({ of: 'left', at });
    expect(calls.map((c) => c.input.at)).toEqual([0]);
    calls[0]!.answer('left at 0');
    await settled();
    expect(d.shownFor({ of: 'left', at: 9 })).toMatchObject({ value: 'left at 0', busy: true });
    expect(calls.map((c) => c.input.at)).toEqual([0, 9]);
    // of another thing it shows nothing, and what was asked before is cancelled
    d.ask({ of: 'right', at: 0 });
    expect(calls[1]!.signal.aborted).toBe(true);
    expect(d.shownFor({ of: 'right', at: 0 }).value).toBeNull();
    calls[1]!.answer('left at 9');
    calls[2]!.answer('right at 0');
    await settled();
    expect(d.shownFor({ of: 'right', at: 0 }).value).toBe('right at 0');
    expect(d.shownFor({ of: 'left', at: 9 }).value).toBeNull();
  });

  it('tells progress of what is asked for, and of nothing else', async () => {
    const shares: (number | null)[] = [];
    let tell: (share: number) => void = () => {};
    const d = new Derivation((_: { id: string }, job) => {
      tell = job.onProgress;
      return new Promise<string>(() => {});
    });
    const a = { id: 'a' };
    d.subscribe(() => shares.push(d.shownFor(a).share));
    d.ask(a);
    const first = tell;
    tell(0.5);
    expect(shares.at(-1)).toBe(0.5);
    d.ask({ id: 'b' });
    first(0.9);
    expect(d.shownFor({ id: 'b' }).share).toBeNull();
  });
});

it.each([false, true])(
  'never shows an answer under another name, answers delayed at random, channels, variants and spots switched a hundred times (following: %s)',
  async (isFollowing) => {
    vi.useFakeTimers();
    const random = seededRandom(isFollowing ? 5 : 4);
    const pick = (all: string[]) => all[Math.floor(all.length * random.uniform())]!;
    interface Asked {
      channel: string;
      variant: string;
      spot: string;
    }
    const nameOf = ({ channel, variant, spot }: Asked) => `${channel} ${variant} ${spot}`;
    const compute = (asked: Asked) =>
      new Promise<string>((resolve) => setTimeout(() => resolve(nameOf(asked)), 200 * random.uniform()));
    const same = (a: Asked, b: Asked) => a.channel === b.channel && a.variant === b.variant;
    const d = new Derivation(compute, isFollowing ? { follows: same } : {});
    let now: Asked = { channel: 'Left', variant: 'First', spot: 'Home' };
    let [shown, wrong] = [0, 0];
    const check = () => {
      const { value } = d.shownFor(now);
      if (value === null) return;
      shown++;
      const [channel, variant, spot] = value.split(' ');
      const fits = channel === now.channel && variant === now.variant && (isFollowing || spot === now.spot);
      if (!fits) wrong++;
    };
    d.subscribe(check);
    for (let i = 0; i < 100; i++) {
      now = {
        channel: pick(['Left', 'Right', 'Centre']),
        variant: pick(['First', 'Warmer']),
        spot: pick(['Home', 'Sofa']),
      };
      d.ask(now);
      check();
      await vi.advanceTimersByTimeAsync(150 * random.uniform());
      check();
    }
    await vi.advanceTimersByTimeAsync(1000);
    expect(d.shownFor(now).value).toBe(nameOf(now));
    expect(wrong).toBe(0);
    expect(shown).toBeGreaterThan(50);
    vi.useRealTimers();
  },
);

it('a worker that failed is asked again by and by, what was asked for wrongly is not', async () => {
  vi.useFakeTimers();
  try {
    let asked = 0;
    const derivation = new Derivation(async (kind: string) => {
      asked++;
      if (kind === 'wrong') throw new RangeError('not right');
      if (asked < 3) throw new WorkerError('its script could not be loaded');
      return asked;
    });
    derivation.subscribe(() => {});
    derivation.ask('something');
    await vi.advanceTimersByTimeAsync(0);
    expect(derivation.shownFor('something').error).toBeInstanceOf(WorkerError);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(derivation.shownFor('something')).toMatchObject({ value: 3, error: null });
    derivation.ask('wrong');
    await vi.advanceTimersByTimeAsync(100_000);
    expect(asked).toBe(4);
  } finally {
    vi.useRealTimers();
  }
});
