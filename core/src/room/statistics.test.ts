import { expect, it } from 'vitest';
import { airAbsorption, OCTAVES, roomStatistics, shortenedBy, speedOfSound } from './index.js';

const even = (share: number) => OCTAVES.map(() => share);
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const c = speedOfSound(20);
/** A room of 10 x 8 x 4 m: floor and ceiling, then the walls. */
const room = (floor: number, walls: number) => [
  { area: 160, absorption: even(floor) },
  { area: 144, absorption: even(walls) },
];

it('times after Sabine and Eyring, with the air, by their formulas', () => {
  const { sabine, eyring, area, airArea, surface, meanFreePathM, schroederHz } = roomStatistics(
    room(0.3, 0.1),
    320,
    air,
  );
  expect(surface).toBe(304);
  expect(meanFreePathM).toBeCloseTo(1280 / 304, 12);
  OCTAVES.forEach((hz, o) => {
    // intensity goes with e^(-m x): m in 1/m from dB per metre
    const m = airAbsorption(hz, air) / (10 * Math.log10(Math.E));
    expect(area[o]).toBeCloseTo(160 * 0.3 + 144 * 0.1, 12);
    expect(airArea[o]).toBeCloseTo(4 * m * 320, 9);
    // 55.26 V / (c A)
    expect(sabine[o]! / ((55.2620422 * 320) / (c * (62.4 + 4 * m * 320)))).toBeCloseTo(1, 7);
    const exponent = -304 * Math.log(1 - 62.4 / 304) + 4 * m * 320;
    expect(eyring[o]! / ((55.2620422 * 320) / (c * exponent))).toBeCloseTo(1, 7);
  });
  expect(schroederHz).toBeCloseTo(2000 * Math.sqrt((eyring[3]! + eyring[4]!) / 640), 9);
});

it('where everything is swallowed nothing rings after Eyring, and still something after Sabine', () => {
  const { sabine, eyring } = roomStatistics(room(1, 1), 320, air);
  expect(eyring[2]).toBe(0);
  expect(sabine[2]!).toBeGreaterThan(0.1);
});

it('a treated surface shortens the time by what the room without and with it says', () => {
  const [floor, walls] = shortenedBy(room(0.3, 0.1), 320, air, 4, 0.8);
  const time = (f: number, w: number) => roomStatistics(room(f, w), 320, air).eyring[4]!;
  expect(floor).toBeCloseTo(time(0.3, 0.1) - time(0.8, 0.1), 12);
  expect(walls).toBeCloseTo(time(0.3, 0.1) - time(0.3, 0.8), 12);
  expect(walls!).toBeGreaterThan(floor!);
});

it('refuses what is no room', () => {
  expect(() => roomStatistics(room(0.3, 0.1), 0, air)).toThrow(/volume/);
  expect(() => roomStatistics([], 320, air)).toThrow(/surface/);
  expect(() => roomStatistics(room(1.2, 0.1), 320, air)).toThrow(/1.2/);
  expect(() => roomStatistics(room(NaN, 0.1), 320, air)).toThrow(/NaN/);
});
