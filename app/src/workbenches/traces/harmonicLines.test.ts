import { expect, it } from 'vitest';
import { distortionLines, percentOf, worstDistortion } from './harmonicLines';

const curves = {
  frequency: [100, 200, 400, 800],
  orders: [
    { order: 2, levelDb: [-40, -30, -60, -60], noiseDb: [-70, -70, -70, -20] },
    { order: 3, levelDb: [-40, -50, -60], noiseDb: [-70, -70, -70] },
  ],
};

const whole = { from: 20, to: 20000 };

it('adds the orders up as power, and leaves out those that have left the band', () => {
  const { totalDb, orders } = distortionLines(curves, whole);
  expect(totalDb[0]).toBeCloseTo(-36.99, 2);
  expect(totalDb[3]).toBeCloseTo(-60, 6);
  expect(orders[1]!.levelDb[3]).toBeNaN();
});

it('finds the worst place of what stands above the noise, and which order makes it', () => {
  const lines = distortionLines(curves, whole);
  expect(worstDistortion(lines, { from: 80, to: 1000 })).toMatchObject({ frequency: 200, order: 'second' });
  expect(worstDistortion(lines, { from: 700, to: 1000 })).toBeNull();
  expect(percentOf(-40)).toBe('1.0 %');
  expect(percentOf(-60)).toBe('0.10 %');
});

it('says nothing of what the channel does not play', () => {
  const { totalDb, noiseDb, orders } = distortionLines(curves, { from: 150, to: 250 });
  expect([...totalDb].map(Number.isFinite)).toEqual([true, true, false, false]);
  expect(noiseDb[3]).toBeNaN();
  expect(orders[0]!.levelDb[2]).toBeNaN();
});
