import { expect, it } from 'vitest';
import { visitImages, type BoxRoom } from '../room/index.js';
import { seededRandom } from '../signal/index.js';
import { BIN_S, sceneOf, traceRays } from './index.js';
import { boxFaces } from './roomsForTest.js';
import {
  asked,
  C,
  ell,
  heard,
  one,
  other,
  randomWalk,
  request,
  row,
  SCATTERING_BOXES,
  sum,
} from './raysForTest.js';

it.each(SCATTERING_BOXES)(
  'a box of $size.x x $size.y x $size.z m that scatters everything dies away as a random walk in it ($absorption)',
  (room) => {
    const { traced, wanted, leaks } = randomWalk(room);
    expect(Math.abs(traced / wanted - 1)).toBeLessThan(0.02);
    expect(leaks).toBe(0);
  },
);

it('holds as much energy as is swallowed by and by: 16 pi (1 - a) / A on the mean over the room', () => {
  const scene = sceneOf(boxFaces({ x: 5, y: 4, z: 3 }, 0.2, 1));
  const random = seededRandom(5);
  const receivers = Array.from({ length: 80 }, () =>
    heard({ x: 5 * random.uniform(), y: 4 * random.uniform(), z: 3 * random.uniform() }),
  );
  const group = traceRays(scene, request({ receivers, rays: 2000 }));
  const mean = sum(receivers.map((_, r) => sum(row(group, r)))) / receivers.length;
  // diffuse-field theory: exact only where every face swallows as it would in a diffuse field
  expect(Math.abs(10 * Math.log10(mean / ((16 * Math.PI * 0.8) / (94 * 0.2))))).toBeLessThan(0.3);
});

it('a box of mirrors: what comes after the known orders is what the images tell, window by window', () => {
  const size = { x: 7, y: 5, z: 3.4 };
  const absorption = [0.1, 0.3, 0.15, 0.2, 0.4, 0.25];
  const source = { x: 1.3, y: 1.1, z: 1.4 };
  const position = { x: 5.1, y: 3.2, z: 1.7 };
  const mirrored = 3;
  const group = traceRays(
    sceneOf(boxFaces(size, absorption, 0)),
    request({ receivers: [heard(position)], rays: 120_000, lengthS: 0.3, mirrored }),
  );
  const box: BoxRoom = {
    size,
    absorption: absorption.map((a) => Array.from({ length: 8 }, () => a)) as unknown as BoxRoom['absorption'],
    air: { temperatureC: 20, relativeHumidityPercent: 50 },
  };
  const direct = Math.hypot(position.x - source.x, position.y - source.y, position.z - source.z);
  const windows = [0, 0.03, 0.06, 0.1, 0.2].map((from, i, all) => ({ from, to: all[i + 1] ?? 0.3 }));
  const wanted = windows.map(() => 0);
  visitImages(box, source, position, 0.32 + direct / C, ({ distance, hits }) => {
    if (hits.reduce((a, b) => a + b) <= mirrored) return;
    const later = (distance - direct) / C;
    const at = windows.findIndex((w) => later >= w.from && later < w.to);
    if (at < 0) return;
    wanted[at]! += hits.reduce((e, n, wall) => e * (1 - absorption[wall]!) ** n, 1) / distance ** 2;
  });
  const energy = row(group, 0);
  windows.forEach(({ from, to }, i) => {
    const got = sum(energy.subarray(Math.round(from / BIN_S), Math.round(to / BIN_S)));
    expect(Math.abs(10 * Math.log10(got / wanted[i]!))).toBeLessThan(0.35);
  });
});

it('source and receiver may change places', () => {
  const there = sum(row(traceRays(ell, asked(one, other)), 0));
  const back = sum(row(traceRays(ell, asked(other, one)), 0));
  expect(Math.abs(10 * Math.log10(there / back))).toBeLessThan(0.2);
});
