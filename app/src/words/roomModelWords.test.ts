import { OCTAVES, roomStatistics } from '@pebble-hall/core/room';
import { expect, it } from 'vitest';
import {
  leastWords,
  measuredSentence,
  middleOf,
  modeWords,
  timeSentence,
  trustSentence,
} from './roomModelWords';

const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const room = (floor: number, walls: number) =>
  roomStatistics(
    [
      { area: 100, absorption: OCTAVES.map(() => floor) },
      { area: 300, absorption: OCTAVES.map(() => walls) },
    ],
    500,
    air,
  );

it('a time is told against the wanted one, and asks for attention from a tenth on', () => {
  const now = room(0.2, 0.2);
  const time = middleOf(now.eyring);
  expect(timeSentence(now, null)).toMatchObject({ attention: false });
  expect(timeSentence(now, time * 1.09)).toMatchObject({ attention: false });
  const long = timeSentence(now, time * 0.8);
  expect(long.attention).toBe(true);
  expect(long.text).toContain(`${(0.2 * time).toFixed(2)} s longer`);
  expect(timeSentence(now, time * 1.3).text).toContain('shorter');
});

it('a measured time within a tenth is as its surfaces say', () => {
  const now = room(0.2, 0.2);
  const time = middleOf(now.eyring);
  expect(measuredSentence(1.05 * time, now, 3)).toMatchObject({ attention: false });
  const off = measuredSentence(1.3 * time, now, 1);
  expect(off.attention).toBe(true);
  expect(off.text).toMatch(/1 spot .* 30 % longer/);
});

it('what swallows all on one surface is told by its name', () => {
  const shares = (floor: number) => [
    { name: 'Floor', area: 100, share: floor },
    { name: 'Walls', area: 300, share: 0.05 },
  ];
  const uneven = trustSentence(shares(0.9), room(0.9, 0.05));
  expect(uneven.attention).toBe(true);
  expect(uneven.text).toContain('Floor');
  expect(trustSentence(shares(0.2), room(0.2, 0.05)).attention).toBe(false);
});

it('a mode is told by the ways in which it stands, and by where it is least', () => {
  expect(modeWords({ hz: 30, order: [1, 0, 0] })).toBe('front to back');
  expect(modeWords({ hz: 60, order: [2, 1, 0] })).toBe('2 half waves front to back, 1 side to side');
  expect(modeWords({ hz: 50, order: [1, 1, 0] })).toBe('front to back and side to side');
  expect(modeWords({ hz: 20, over: [2, 1] })).toBe('2 half waves front to back, 1 side to side');
  expect(modeWords({ hz: 24, over: [0, 0] })).toBe('floor to ceiling');
  expect(leastWords('seat 4', 0.1)).toBe('least at seat 4: 20 dB below a corner');
  expect(leastWords('seat 4', 0)).toContain('more than 40 dB');
});
