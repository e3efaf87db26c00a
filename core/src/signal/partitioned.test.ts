import { expect, it } from 'vitest';
import { convolve } from './convolve.js';
import { whiteNoise } from './noise.js';
import { partitionFilter, PartitionedInput } from './partitioned.js';

it.each([
  [64, 10],
  [64, 64],
  [128, 1000],
])('in blocks of %d a filter of %d taps gives what convolution gives', (block, taps) => {
  const signal = whiteNoise(10 * block, 1);
  const filter = whiteNoise(taps, 2);
  const want = convolve(signal, filter);
  const input = new PartitionedInput(block, 1200);
  const cut = partitionFilter(filter, block);
  for (let at = 0; at < signal.length; at += block) {
    const out = new Float64Array(block);
    input.push(signal.subarray(at, at + block));
    input.addThrough(cut, out, 2);
    out.forEach((v, i) => expect(v).toBeCloseTo(2 * want[at + i]!, 9));
  }
});

it('refuses blocks and filters that do not fit', () => {
  const input = new PartitionedInput(64, 100);
  expect(() => input.push(new Float64Array(63))).toThrow(/blocks of 64/);
  expect(() => input.addThrough(partitionFilter(new Float64Array(129), 64), new Float64Array(64))).toThrow(
    /fit/,
  );
  expect(() => partitionFilter(new Float64Array(9), 100)).toThrow(/power of two/);
});
