import { distanceBetween } from '@pebble-hall/core/geometry';
import { boxesOf, extentOf, roofAt, seatsOf, shapeVolume } from '@pebble-hall/core/place';
import { roomFigures } from '@pebble-hall/core/acoustics';
import { facetEyringTime, speedOfSound } from '@pebble-hall/core/room';
import { findArrival } from '@pebble-hall/core/measure';
import { expect, it } from 'vitest';
import { acousticsOf, wayThrough } from '../rig/simulatedPlace.js';
import { SLIP_HALL_AREAS, SLIP_HALL_LOUDSPEAKERS, SLIP_HALL_SHAPE } from './index.js';

const air = { temperatureC: 18, relativeHumidityPercent: 60 };
const place = { shape: SLIP_HALL_SHAPE, ...air };

it('has 180 seats and everything within its walls', () => {
  const seats = SLIP_HALL_AREAS.flatMap((a) => seatsOf(a, SLIP_HALL_SHAPE));
  expect(seats).toHaveLength(180);
  const { most } = extentOf(SLIP_HALL_SHAPE);
  for (const { position: p } of [...seats, ...SLIP_HALL_LOUDSPEAKERS.flatMap(boxesOf)]) {
    expect(p.x > 0 && p.x < most.x && p.y > 0 && p.y < most.y).toBe(true);
    expect(p.z).toBeGreaterThan(0.03 * p.x);
    expect(p.z).toBeLessThan(roofAt(SLIP_HALL_SHAPE, p));
  }
});

it('rings for about 1.6 s at 500 Hz, by the formula and as heard', () => {
  const acoustics = acousticsOf(place, 48000);
  expect(shapeVolume(SLIP_HALL_SHAPE)).toBeCloseTo(24 * 13 * 6.75 - 24 * 13 * 0.36, 6);
  expect(facetEyringTime(acoustics.room)[3]!).toBeGreaterThan(1.45);
  expect(facetEyringTime(acoustics.room)[3]!).toBeLessThan(1.75);
  const [left] = SLIP_HALL_LOUDSPEAKERS;
  const seat = { x: 14, y: 8.3, z: 1.6 };
  const samples = Float32Array.from(wayThrough(acoustics, left!, seat, 48000, 1));
  const arrival = findArrival({ samples, rate: 48000, zero: 0 })!;
  const way = distanceBetween(left!.position, seat) / speedOfSound(18);
  expect(Math.abs(arrival.onsetS - way)).toBeLessThan(0.0008);
  const at500 = roomFigures({ samples, rate: 48000, zero: 0 })![3]!; // 63, 125, 250, 500 Hz
  const { t30 } = at500;
  expect(t30.found && t30.value).toBeGreaterThan(1.4);
  expect(t30.found && t30.value).toBeLessThan(1.8);
});

it('a gradient pair sends less to the stage than to the seats', () => {
  const acoustics = acousticsOf({ ...place, shape: { ...SLIP_HALL_SHAPE, isEnclosed: false } }, 48000);
  const subs = SLIP_HALL_LOUDSPEAKERS.find((l) => l.id === 'subs-left')!;
  const energy = (x: number) =>
    wayThrough(acoustics, subs, { x, y: 4.4, z: 0.5 }, 48000, 1).reduce((sum, v) => sum + v * v, 0);
  // 2 m ahead and 2 m behind its centre
  expect(10 * Math.log10(energy(5.6) / energy(1.6))).toBeGreaterThan(8);
});
