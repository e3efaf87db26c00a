import { expect, it } from 'vitest';
import { energyOverTime, heardTogether, type Heard } from './index.js';

const flat = (db: number) => Array.from({ length: 8 }, () => db);

/** One way after the direct sound, and a bin of what rays brought. */
function heard(directS: number, laterS: number, bin: number): Heard {
  const bins = 100;
  const energy = new Float64Array(8 * bins);
  for (let o = 0; o < 8; o++) energy[o * bins + bin] = 1;
  return {
    directS,
    arrivals: [
      {
        laterS,
        distance: 1,
        energy: new Float64Array(8).fill(2),
        going: { x: 1, y: 0, z: 0 },
        faces: [],
        points: [],
      },
    ],
    bins,
    energy,
    lateral: energy.map((e) => e / 2),
    counts: new Float64Array(bins),
    axis: { x: 0, y: 1, z: 0 },
    directions: null,
  };
}

it('energies of several sources add up, each as strong and as late as it is', () => {
  const both = heardTogether([
    { heard: heard(0.02, 0, 10), powerDb: flat(0), delayS: 0 },
    { heard: heard(0.01, 0, 20), powerDb: flat(10), delayS: 0.0255 },
  ]);
  // the second is there 15.5 ms after the first
  expect(both.directS).toBe(0.02);
  const energy = energyOverTime(both, 4);
  expect(energy[0]).toBeCloseTo(2, 12);
  expect(energy[15]).toBeCloseTo(20, 9);
  expect(energy[10]).toBeCloseTo(1, 12);
  expect(energy[35]).toBeCloseTo(5, 9);
  expect(energy[36]).toBeCloseTo(5, 9);
  expect(energy.reduce((a, b) => a + b, 0)).toBeCloseTo(2 + 1 + 20 + 10, 9);
  const lateral = energyOverTime(both, 4, 'lateral');
  expect(lateral.reduce((a, b) => a + b, 0)).toBeCloseTo(0.5 + 5, 9);
});

it('one alone stays as it is', () => {
  const one = heard(0.02, 0.003, 10);
  expect(heardTogether([{ heard: one, powerDb: flat(0), delayS: 0.4 }]).energy).toEqual(one.energy);
});

it('refuses none', () => {
  expect(() => heardTogether([])).toThrow(/number of sources/);
});
