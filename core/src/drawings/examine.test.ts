import { expect, it } from 'vitest';
import { bytesOfText } from '../formats/index.js';
import { boxObj, dxf, lwpolyline } from './filesForTest.js';
import { examineModel } from './examine.js';
import { laidAt } from './model.js';
import { readModel } from './readModel.js';

const AS_IT_IS = { unitM: null, up: null };

it('takes a model as its file says, its middle at the origin and its lowest level at 0', async () => {
  const text = dxf(
    lwpolyline('WALLS', [
      [100, 100],
      [340, 100],
      [340, 220],
      [100, 220],
    ]),
    { insunits: 1 },
  );
  const seen = examineModel(await readModel('a.dxf', bytesOfText(text)), AS_IT_IS);
  expect([seen.unitM, seen.up, seen.said]).toEqual([0.0254, 'z', { unitM: 0.0254, up: 'z' }]);
  expect(seen.size.x).toBeCloseTo(6.096, 9);
  expect(seen.outline!.corners.map((c) => Math.abs(c.x))).toEqual([3.048, 3.048, 3.048, 3.048]);
  expect(seen.edges).toBe(4);
  const other = examineModel(await readModel('a.dxf', bytesOfText(text)), { unitM: 0.001, up: null });
  expect(other.size.x).toBeCloseTo(0.24, 9);
});

it('guesses where the format does not say, and says that it did', async () => {
  const text = boxObj().replace(/^v (\S+) (\S+) (\S+)$/gm, (_, x, y, z) => `v ${x}000 ${z}000 ${-y}000`);
  const seen = examineModel(await readModel('a.obj', bytesOfText(text)), AS_IT_IS);
  expect([seen.unitM, seen.up, seen.said]).toEqual([0.001, 'y', { unitM: null, up: null }]);
  expect(seen.size).toEqual({ x: 8, y: 5, z: 3 });
  expect(seen.outline).toMatchObject({ from: 'floor', above: { heightM: 3 } });
  expect(seen.triangles).toHaveLength(12 * 9);
  expect(seen.openEnds).toHaveLength(0);
  const open = examineModel(await readModel('a.obj', bytesOfText(boxObj(undefined, ['Ceiling']))), AS_IT_IS);
  // the four upper edges, all at the height of the walls
  expect(open.openEnds).toHaveLength(4 * 6);
  expect([...open.openEnds].filter((_, i) => i % 3 === 2).every((z) => z === 3)).toBe(true);
  expect(Math.min(...seen.triangles.filter((_, i) => i % 3 === 2))).toBe(0);
});

it('lays it where it is asked to, turned counter-clockwise seen from above', () => {
  const lay = laidAt({ turnDeg: 90, at: { x: 10, y: 20, z: 1 } });
  expect(lay(2, 0, 0.5)).toEqual({ x: 10, y: 22, z: 1.5 });
  const eighth = laidAt({ turnDeg: 45, at: { x: 0, y: 0, z: 0 } })(1, 0, 0);
  expect(eighth.x).toBeCloseTo(Math.SQRT1_2, 12);
  expect(eighth.y).toBeCloseTo(Math.SQRT1_2, 12);
});
