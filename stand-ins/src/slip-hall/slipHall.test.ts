import { distanceBetween } from '@pebble-hall/core/geometry';
import { boxesOf, extentOf, roofAt, roomSurfaces, seatsOf, shapeVolume } from '@pebble-hall/core/place';
import { roomFigures } from '@pebble-hall/core/acoustics';
import { roomStatistics, speedOfSound } from '@pebble-hall/core/room';
import { findArrival } from '@pebble-hall/core/measure';
import { expect, it } from 'vitest';
import { SimulatedWays } from '../rig/simulatedWays.js';
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

it('rings for about 1.6 s at 500 Hz by the formula, and longer as heard: the floor swallows most', () => {
  expect(shapeVolume(SLIP_HALL_SHAPE)).toBeCloseTo(24 * 13 * 6.75 - 24 * 13 * 0.36, 6);
  const { eyring } = roomStatistics(roomSurfaces(place), shapeVolume(SLIP_HALL_SHAPE), air);
  expect(eyring[3]!).toBeGreaterThan(1.45);
  expect(eyring[3]!).toBeLessThan(1.75);
  const [left] = SLIP_HALL_LOUDSPEAKERS;
  const seat = { x: 14, y: 8.3, z: 1.6 };
  const ways = new SimulatedWays(place, 48000, 1);
  const samples = Float32Array.from(ways.impulse(left!, [left!], seat));
  const arrival = findArrival({ samples, rate: 48000, zero: 0 })!;
  const way = distanceBetween(left!.position, seat) / speedOfSound(18);
  expect(Math.abs(arrival.onsetS - way)).toBeLessThan(0.0008);
  const at500 = roomFigures({ samples, rate: 48000, zero: 0 })![3]!; // 63, 125, 250, 500 Hz
  const { t30 } = at500;
  expect(t30.found && t30.value).toBeGreaterThan(1.6);
  expect(t30.found && t30.value).toBeLessThan(2.3);
});

it('a gradient pair sends less to the stage than to the seats', () => {
  const open = new SimulatedWays({ ...place, shape: { ...SLIP_HALL_SHAPE, isEnclosed: false } }, 48000, 1);
  const subs = SLIP_HALL_LOUDSPEAKERS.find((l) => l.id === 'subs-left')!;
  const energy = (x: number) =>
    open.impulse(subs, [subs], { x, y: 4.4, z: 0.5 }).reduce((sum, v) => sum + v * v, 0);
  // 2 m ahead and 2 m behind its centre
  expect(10 * Math.log10(energy(5.6) / energy(1.6))).toBeGreaterThan(8);
});
