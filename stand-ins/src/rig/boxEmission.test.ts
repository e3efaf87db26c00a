import { axesOf } from '@pebble-hall/core/geometry';
import { OCTAVES } from '@pebble-hall/core/room';
import { expect, it } from 'vitest';
import { boxEmission } from './boxEmission.js';

const model = { model: 'Dunlin 6', role: 'full range' } as const;
const out = new Float64Array(OCTAVES.length);
const into = (emission: ReturnType<typeof boxEmission>, deg: number, up = 0) => {
  const [a, u] = [(deg * Math.PI) / 180, (up * Math.PI) / 180];
  emission(Math.cos(a) * Math.cos(u), Math.sin(a) * Math.cos(u), Math.sin(u), out);
  return [...out];
};

it('on its axis it sends 1 in each octave, wherever it points', () => {
  for (const [yaw, pitch] of [
    [0, 0],
    [35, 0],
    [-120, -20],
  ] as const)
    for (const e of into(boxEmission(model, axesOf(yaw, pitch), 343), yaw, pitch))
      expect(e).toBeCloseTo(1, 1);
});

it('sends its lows everywhere and its highs ahead', () => {
  const emission = boxEmission(model, axesOf(0), 343);
  const behind = into(emission, 180).map((e) => 10 * Math.log10(e));
  expect(behind[0]!).toBeGreaterThan(-1);
  // sound that goes around a sphere meets again straight behind it
  const aslant = into(emission, 145).map((e) => 10 * Math.log10(e));
  expect(aslant[6]!).toBeLessThan(-8);
  const beside = into(emission, 90).map((e) => 10 * Math.log10(e));
  expect(beside[6]!).toBeLessThan(beside[1]! - 3);
  // what is turned sends the same to where it is turned
  const turned = boxEmission(model, axesOf(90), 343);
  into(turned, 180).forEach((e, o) => expect(10 * Math.log10(e)).toBeCloseTo(beside[o]!, 3));
});

it('one of a name that is not ours plays as the small one of its role', () => {
  const other = boxEmission({ model: 'of somebody', role: 'full range' }, axesOf(0), 343);
  expect(into(other, 60)).toEqual(into(boxEmission(model, axesOf(0), 343), 60));
});
