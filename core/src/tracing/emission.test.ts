import { describe, expect, it } from 'vitest';
import { emissionDirections, emissionInto, emissionOf, EMISSION_COLUMNS, EMISSION_ROWS } from './index.js';

const COUNT = EMISSION_ROWS * EMISSION_COLUMNS;
const directions = emissionDirections();

/** The same in every octave. */
const energiesOf = (of: (x: number, y: number, z: number) => number) => {
  const out = new Float64Array(8 * COUNT);
  for (let i = 0; i < COUNT; i++)
    out.fill(of(directions[3 * i]!, directions[3 * i + 1]!, directions[3 * i + 2]!), 8 * i, 8 * i + 8);
  return out;
};

it('directions are unit vectors, from down to up and from x on counter-clockwise', () => {
  expect([...directions.slice(0, 3)].map((v) => +v.toFixed(12))).toEqual([0, 0, -1]);
  const level = 3 * (18 * EMISSION_COLUMNS);
  expect([...directions.slice(level, level + 3)]).toEqual([1, 0, 0]);
  const left = level + 3 * 18;
  expect([...directions.slice(left, left + 3)].map((v) => +v.toFixed(12))).toEqual([0, 1, 0]);
});

describe('mean over all directions', () => {
  it('of one that sends everywhere alike is what it sends', () => {
    const { table, powerDb } = emissionOf(energiesOf(() => 0.25));
    for (const db of powerDb) expect(db).toBeCloseTo(10 * Math.log10(0.25), 10);
    for (const e of table) expect(e).toBeCloseTo(1, 10);
  });
  it('of a figure of eight is a third, of a cardioid a third, of half a sphere a half', () => {
    const mean = (of: (x: number, y: number, z: number) => number) =>
      10 ** (emissionOf(energiesOf(of)).powerDb[3]! / 10);
    expect(mean((x) => x * x)).toBeCloseTo(1 / 3, 2);
    expect(mean((_, __, z) => z * z)).toBeCloseTo(1 / 3, 2);
    expect(mean((x) => ((1 + x) / 2) ** 2)).toBeCloseTo(1 / 3, 2);
    expect(mean((_, y) => (y > 0 ? 1 : y < 0 ? 0 : 0.5))).toBeCloseTo(0.5, 1);
  });
});

it('between its directions an emission is as smooth as what it was made of', () => {
  const of = (x: number, y: number, z: number) => 1 + 0.5 * x + 0.3 * y * z;
  const { table, powerDb } = emissionOf(energiesOf(of));
  const into = emissionInto(table);
  const out = new Float64Array(8);
  for (let k = 0; k < 200; k++) {
    const z = 2 * ((k * 0.618) % 1) - 1;
    const around = k * 2.4;
    const wide = Math.sqrt(1 - z * z);
    const [x, y] = [wide * Math.cos(around), wide * Math.sin(around)];
    into(x, y, z, out);
    expect(out[5]! * 10 ** (powerDb[5]! / 10)).toBeCloseTo(of(x, y, z), 2);
  }
  into(0, 0, 1, out);
  expect(out[0]).toBeCloseTo(1, 2);
});

it('refuses another size, nothing at all, and less than nothing', () => {
  expect(() => emissionOf(new Float64Array(8))).toThrow(/number of energies/);
  expect(() => emissionOf(energiesOf(() => 0))).toThrow(/nothing goes out/);
  expect(() => emissionOf(energiesOf((x) => x))).toThrow(/must be 0/);
  expect(() => emissionInto(new Float64Array(8))).toThrow(/size/);
});
