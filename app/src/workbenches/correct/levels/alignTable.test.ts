import { expect, it } from 'vitest';
import { tsvOf } from '../../../services/tableText';
import { alignTable } from './alignTable';

it('levels and delays are taken along as read, as suggested and as set, in ms and metres', () => {
  const channels = [
    { id: 'left', levelDb: -9.34, arrivalS: 0.018, latencyS: 0.00135 },
    { id: 'sub', levelDb: 1.2, arrivalS: null, latencyS: 0 },
  ];
  const suggested = { left: { trimDb: -1.9, delayMs: 4.29, inverted: false } };
  const set = { left: { trimDb: -2, delayMs: 10, inverted: true } };
  const lines = tsvOf(
    alignTable(channels as Parameters<typeof alignTable>[0], suggested, set, 343, (id) => id),
  ).split('\n');
  // 10 ms at 343 m/s are 3.43 m
  expect(lines[1]).toBe('left\t-9.3\t19.35\t-1.9\t4.29\t-2.0\t10.00\t3.43\tinverted');
  expect(lines[2]).toBe('sub\t+1.2\t\t0.0\t0.00\t0.0\t0.00\t0.00\tnormal');
});
