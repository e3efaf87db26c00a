import { expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { directionTable } from './directionTable.js';

it('tells of any direction what it is of within six degrees', () => {
  const table = directionTable((x, y, z, out) => out.set([x, y, z, 1, 1, 1, 1, 1]));
  const random = seededRandom(3);
  const directions = Array.from({ length: 3000 }, () => [random.normal(), random.normal(), random.normal()]);
  directions.push([1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]);
  for (const d of directions) {
    const length = Math.hypot(...d);
    const [x, y, z] = d.map((v) => v / length) as [number, number, number];
    const from = table.at(x, y, z);
    const [a, b, c] = table.values.subarray(from, from + 3);
    const deg = (Math.acos(Math.min(1, a! * x + b! * y + c! * z)) * 180) / Math.PI;
    expect(deg).toBeLessThan(6);
  }
});
