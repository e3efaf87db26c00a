import { expect, it } from 'vitest';
import { emissionInto, sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { directLevels, talkerEmission } from './index.js';

const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const screen = {
  corners: [
    { x: 6, y: 0, z: 0 },
    { x: 6, y: 4, z: 0 },
    { x: 6, y: 4, z: 3 },
    { x: 6, y: 0, z: 3 },
  ],
  absorption: Array.from({ length: 8 }, () => 0.5),
  scattering: Array.from({ length: 8 }, () => 0.1),
};
const scene = sceneOf([...boxFaces({ x: 10, y: 8, z: 3 }, 0.2, 0.1), screen]);
const position = { x: 2, y: 2, z: 1.5 };
const plain = Array.from({ length: 8 }, () => 0);

it('falls by 6 dB where the way doubles, and is not there behind a screen', () => {
  const source = { position, emission: null };
  const levels = directLevels(
    scene,
    { source, powerDb: plain },
    air,
    Float64Array.of(3, 2, 1.5, 4, 2, 1.5, 8, 2, 1.5),
  );
  expect(levels[0]).toBeCloseTo(0, 1);
  expect(levels[0]! - levels[1]!).toBeCloseTo(6.02, 1);
  expect(levels[2]).toBe(-Infinity);
});

it('of a talker is louder ahead than behind', () => {
  const { table, powerDb } = talkerEmission('normal', 0);
  const source = { position, emission: emissionInto(table) };
  const [ahead, behind] = directLevels(
    scene,
    { source, powerDb },
    air,
    Float64Array.of(3, 2, 1.5, 1.293, 2.707, 1.5),
  );
  expect(ahead! - behind!).toBeGreaterThan(3);
});
