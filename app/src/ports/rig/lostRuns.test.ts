import { describe, expect, it } from 'vitest';
import { lostRuns } from './lostRuns';

const noise = (length: number) => Float32Array.from({ length }, (_, i) => 0.1 * Math.sin(i + 1));
const withZeros = (x: Float32Array, from: number, count: number) => x.slice().fill(0, from, from + count);

describe('lostRuns', () => {
  it('counts gaps of 2 ms and more on all channels together', () => {
    const gap = withZeros(withZeros(noise(9600), 1000, 128), 5000, 480);
    expect(lostRuns([gap, gap])).toBe(2);
  });

  it('takes no gap on one channel, a short one, or silence before and after the sound for a loss', () => {
    const [whole, gap, short] = [
      noise(9600),
      withZeros(noise(9600), 1000, 480),
      withZeros(noise(9600), 1000, 90),
    ];
    expect(lostRuns([whole, gap])).toBe(0);
    expect(lostRuns([short])).toBe(0);
    expect(lostRuns([withZeros(withZeros(noise(9600), 0, 2000), 9000, 600)])).toBe(0);
    expect(lostRuns([new Float32Array(9600)])).toBe(0);
    expect(lostRuns([])).toBe(0);
  });
});
