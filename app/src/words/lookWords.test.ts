import { plainSweepLook } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { lookWords } from './lookWords';

it('tells all that the eye changed, and nothing of what it left', () => {
  expect(lookWords(null)).toBe('');
  expect(lookWords({ ...plainSweepLook(), colour: 'trace-iris', line: 'dashed' })).toBe('');
  expect(lookWords({ ...plainSweepLook(), gainDb: -2, delayS: 0.00125, inverted: true })).toBe(
    '\u22122 dB, +1.25 ms, inverted',
  );
  const shapes = [{ kind: 'peaking' as const, hz: 1000, gainDb: 6, q: 1 }];
  const window = { beforeS: 0.001, afterS: 0.0125 };
  expect(lookWords({ ...plainSweepLook(), window, shapes, smoothing: 6, calibrationId: 'c' })).toBe(
    'window 12.5 ms, less a microphone, a shape, 1/6 oct',
  );
});
