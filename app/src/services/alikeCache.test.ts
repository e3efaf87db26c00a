import { expect, it, vi } from 'vitest';
import { AlikeCache } from './alikeCache';

it('makes what is alike once, forgets the longest unused, and tries again what failed', async () => {
  const make = vi.fn(async ({ of }: { of: string }) => {
    if (of === 'bad' && make.mock.calls.length < 5) throw new Error('not yet');
    return of.toUpperCase();
  });
  const cache = new AlikeCache(2, make);
  expect(await cache.get({ of: 'a' })).toBe('A');
  expect(await cache.get({ of: 'a' })).toBe('A');
  expect(make).toHaveBeenCalledTimes(1);
  await cache.get({ of: 'b' });
  await cache.get({ of: 'a' });
  await cache.get({ of: 'c' }); // b goes
  expect(make).toHaveBeenCalledTimes(3);
  await cache.get({ of: 'a' });
  expect(make).toHaveBeenCalledTimes(3);
  await expect(cache.get({ of: 'bad' })).rejects.toThrow('not yet');
  await Promise.resolve();
  expect(await cache.get({ of: 'bad' })).toBe('BAD');
});
