import { expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { directionIn, evennessOf, sectorOf, SECTORS, stretchOf } from './sectors.js';

it('parts of equal area: of many directions from anywhere each gets its share', () => {
  const random = seededRandom(5);
  const counts = new Float64Array(SECTORS);
  const TRIES = 64_000;
  for (let i = 0; i < TRIES; i++) {
    const z = 2 * random.uniform() - 1;
    const around = 2 * Math.PI * random.uniform();
    const wide = Math.sqrt(1 - z * z);
    counts[sectorOf(wide * Math.cos(around), wide * Math.sin(around), z)]!++;
  }
  // 2,000 in each, give or take four times their root
  for (const count of counts)
    expect(Math.abs(count - TRIES / SECTORS)).toBeLessThan(4 * Math.sqrt(TRIES / SECTORS));
});

it('a direction drawn within a part lies in it', () => {
  const random = seededRandom(6);
  for (let sector = 0; sector < SECTORS; sector++)
    for (let i = 0; i < 20; i++) {
      const { x, y, z } = directionIn(sector, random);
      expect(Math.hypot(x, y, z)).toBeCloseTo(1, 12);
      expect(sectorOf(x, y, z)).toBe(sector);
    }
});

it('1 from everywhere alike, 0 from one direction, by the half of the parts their share', () => {
  const of = (count: number) => Float64Array.from({ length: SECTORS }, (_, i) => (i < count ? 3 : 0));
  expect(evennessOf(of(SECTORS))).toBeCloseTo(1, 12);
  expect(evennessOf(of(1))).toBeCloseTo(0, 12);
  // half of the parts: each lies its mean off the mean, against 2 (n - 1) / n of that for one part
  expect(evennessOf(of(SECTORS / 2))).toBeCloseTo(1 - 1 / ((2 * (SECTORS - 1)) / SECTORS), 12);
  expect(evennessOf(of(0))).toBeNaN();
});

it('stretches of time after the direct sound', () => {
  expect([-0.001, 0, 0.0799, 0.08, 0.2, 0.49, 0.5, 3].map(stretchOf)).toEqual([0, 0, 0, 1, 2, 2, 3, 3]);
});
