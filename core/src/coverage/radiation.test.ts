import { expect, it } from 'vitest';
import { pistonGain } from '../directivity/index.js';
import { radiationView } from './radiation.js';

it('shows a piston as its Bessel form has it, and its response with its largest level', () => {
  const [a, speed] = [0.1, 343];
  const view = radiationView(
    {
      name: 'Piston',
      about: '',
      axis: {
        kind: 'filters',
        low: { frequency: 100, order: 2 },
        high: { frequency: 150_000, order: 1 },
        resonances: [],
      },
      radiation: {
        kind: 'ways',
        ways: [
          { radiator: { kind: 'piston', radiusM: a }, ahead: 0, left: 0, up: 0, gainDb: 0, filters: [] },
        ],
      },
      largestDb: 120,
      sensitivityDb: 90,
    },
    speed,
  );
  const at = view.frequency.findIndex((f) => Math.round(f) === 3981);
  const ka = (2 * Math.PI * view.frequency[at]! * a) / speed;
  for (const deg of [0, 10, 20]) {
    const want = 20 * Math.log10(Math.abs(pistonGain(ka, (deg * Math.PI) / 180)));
    expect(view.polars.horizontal[at]![180 + deg]).toBeCloseTo(want, 2);
    expect(view.polars.vertical[at]![180 - deg]).toBeCloseTo(want, 2);
  }
  expect(view.beamwidthDeg.vertical[at]).toBeCloseTo(view.beamwidthDeg.horizontal[at]!, 6);
  // small against the wave: half of all directions, 3 dB
  expect(view.indexDb[0]).toBeCloseTo(3, 1);
  expect(view.axisDb[view.frequency.findIndex((f) => Math.round(f) === 1000)]).toBeCloseTo(120, 1);
  // the corner of its high-pass
  expect(view.axisDb[view.frequency.findIndex((f) => Math.round(f) === 100)]).toBeCloseTo(117, 1);
  // the balloon has the same levels: 20 degrees off the axis, all about it
  for (const about of [0, 18, 36])
    expect(view.balloons[at]![4 * 72 + about]).toBeCloseTo(view.polars.horizontal[at]![200]!, 3);
});
