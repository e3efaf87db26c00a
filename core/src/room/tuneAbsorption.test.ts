import { describe, expect, it } from 'vitest';
import { roomStatistics, tuneAbsorption } from './index.js';

const surfaces = [
  { area: 40, absorption: [0.1, 0.1, 0.15, 0.2, 0.25, 0.3, 0.3, 0.3] },
  { area: 60, absorption: [0.05, 0.06, 0.06, 0.07, 0.08, 0.08, 0.09, 0.1] },
];
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const volume = 90;
const now = roomStatistics(surfaces, volume, air).eyring;

describe('absorption tuned until it rings as wanted', () => {
  it('reaches times within its bounds, to a thousandth', () => {
    const wanted = now.map((t, o) => t * (o % 2 ? 1.12 : 0.9));
    const { absorption, eyring } = tuneAbsorption(surfaces, volume, air, wanted, 0.3);
    eyring.forEach((t, o) => expect(t / wanted[o]!).toBeCloseTo(1, 3));
    // by one factor in an octave
    for (const o of [0, 3, 7])
      expect(absorption[0]![o]! / surfaces[0]!.absorption[o]!).toBeCloseTo(
        absorption[1]![o]! / surfaces[1]!.absorption[o]!,
        9,
      );
    // what it says is what the surfaces then are
    const tuned = surfaces.map((s, i) => ({ ...s, absorption: absorption[i]! }));
    roomStatistics(tuned, volume, air).eyring.forEach((t, o) => expect(t).toBeCloseTo(eyring[o]!, 9));
  });

  it('goes no further than shares may have been wrong', () => {
    const { absorption } = tuneAbsorption(
      surfaces,
      volume,
      air,
      now.map(() => 0.01),
      0.25,
    );
    expect(absorption[0]![2]! / 0.15).toBeCloseTo(1.25, 6);
    const less = tuneAbsorption(
      surfaces,
      volume,
      air,
      now.map(() => 100),
      0.25,
    ).absorption;
    expect(less[1]![2]! / 0.06).toBeCloseTo(0.8, 6);
  });

  it('leaves an octave that nobody measured', () => {
    const wanted = now.map((t, o) => (o === 0 ? NaN : t / 2));
    expect(tuneAbsorption(surfaces, volume, air, wanted, 0.3).absorption[0]![0]).toBe(0.1);
  });

  it('swallows never more than 99 %', () => {
    const soft = [{ area: 100, absorption: Array.from({ length: 8 }, () => 0.8) }];
    const { absorption } = tuneAbsorption(
      soft,
      volume,
      air,
      now.map(() => 0.01),
      2,
    );
    for (const a of absorption[0]!) expect(a).toBeLessThanOrEqual(0.99);
  });

  it('refuses bounds that are none', () => {
    expect(() => tuneAbsorption(surfaces, volume, air, now, NaN)).toThrow(/how wrong/);
  });
});
