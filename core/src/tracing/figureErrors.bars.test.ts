import { expect, it } from 'vitest';
import { ENERGY_FIGURES, heardInTurn, sureFigures } from './index.js';
import { ARRIVALS, groupsOf, REQUEST } from './roomForBars.js';

const SEEDS = 20;
const RAYS = 500;

it('the truth of a run ten times as long lies inside two errors, in nine of ten', () => {
  const long = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(1000, 8, 10 * SEEDS * RAYS), 0)).figures;
  const inside = new Map<string, number>(ENERGY_FIGURES.map((f) => [f, 0]));
  for (let seed = 1; seed <= SEEDS; seed++) {
    const { figures, errors } = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(seed, 8, RAYS), 0));
    for (const name of ENERGY_FIGURES)
      figures.forEach((f, o) => {
        if (Math.abs(f[name] - long[o]![name]) <= 2 * errors[o]![name])
          inside.set(name, inside.get(name)! + 1);
      });
  }
  for (const [name, count] of inside) {
    const share = count / (8 * SEEDS);
    console.log(`${name}: ${(100 * share).toFixed(0)} % inside two errors (bar 90)`);
    expect(share).toBeGreaterThanOrEqual(0.9);
  }
}, 600_000);

it('figures lie within one just-noticeable difference of those of ten times the rays', () => {
  const some = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(5, 8, 2500), 0)).figures;
  const many = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(6, 8, 25_000), 0)).figures;
  some.forEach((f, o) => {
    for (const time of ['edt', 't20', 't30'] as const)
      expect(Math.abs(f[time] / many[o]![time] - 1)).toBeLessThan(0.05);
    expect(Math.abs(f.c80 - many[o]!.c80)).toBeLessThan(1);
    expect(Math.abs(f.d50 - many[o]!.d50)).toBeLessThan(0.05);
    expect(Math.abs(f.ts - many[o]!.ts)).toBeLessThan(0.01);
    expect(Math.abs(f.g - many[o]!.g)).toBeLessThan(1);
    expect(Math.abs(f.lf - many[o]!.lf)).toBeLessThan(0.05);
  });
}, 600_000);

it('four times the rays halve the errors', () => {
  const mean = (rays: number) => {
    let [sum, count] = [0, 0];
    for (let seed = 1; seed <= 4; seed++) {
      const { errors } = sureFigures(heardInTurn(REQUEST, ARRIVALS, groupsOf(seed, 8, rays), 0));
      for (const { d50, g } of errors)
        for (const e of [20 * d50, g]) {
          sum += e ** 2;
          count++;
        }
    }
    return Math.sqrt(sum / count);
  };
  const ratio = mean(300) / mean(1200);
  expect(ratio).toBeGreaterThan(1.5);
  expect(ratio).toBeLessThan(2.7);
});
