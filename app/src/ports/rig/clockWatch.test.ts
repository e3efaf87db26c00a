import { describe, expect, it } from 'vitest';
import { clockWatch } from './clockWatch';

/** When the watch calls, with ticks of 60 ms; null where it does not within the seconds given. */
function called(audioAt: (wallS: number) => number, seconds: number): number | null {
  const stands = clockWatch();
  for (let at = 0; at < seconds; at += 0.06) if (stands(at, audioAt(at))) return at;
  return null;
}

describe('the watch on the audio clock', () => {
  it('lets a clock pass that runs, or runs at a third of its pace on a busy machine', () => {
    expect(called((s) => s, 60)).toBeNull();
    expect(called((s) => s / 3, 60)).toBeNull();
    expect(called((s) => (s < 20 ? s : s < 22 ? 20 : s - 2), 60)).toBeNull();
  });
  it('calls within eight seconds of the clock’s last step', () => {
    const at = called((s) => Math.min(s, 10), 60);
    expect(at).toBeGreaterThan(13);
    expect(at).toBeLessThan(18.1);
  });
  it('calls at the first tick after a sleep', () => {
    const stands = clockWatch();
    stands(0, 0);
    expect(stands(1, 1)).toBe(false);
    expect(stands(3600, 1.2)).toBe(true);
  });
});
