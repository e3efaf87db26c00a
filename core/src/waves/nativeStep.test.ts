import { expect, it } from 'vitest';
import { compiled } from '../../../scripts/makeNative.mjs';
import { seededRandom } from '../signal/index.js';
import { sceneOf } from '../tracing/index.js';
import { upright } from '../tracing/roomsForTest.js';
import { FIELD_STEP } from './fieldStepBytes.js';
import { roomGrid } from './index.js';
import { nativeStep } from './nativeStep.js';
import { plainStep } from './plainStep.js';
import { stencilOf } from './stencil.js';

it('the module is what its source compiles to', { timeout: 60_000 }, async () => {
  expect([...(await compiled('fieldStep'))]).toEqual([...FIELD_STEP]);
});

// an L with rows of even and odd length, each of its walls of another admittance
const outline = [
  { x: 0, y: 0 },
  { x: 4.1, y: 0 },
  { x: 4.1, y: 2.3 },
  { x: 2.2, y: 2.3 },
  { x: 2.2, y: 3.8 },
  { x: 0, y: 3.8 },
];
const grid = roomGrid(
  sceneOf(upright(outline, 2.7, () => ({ absorption: 0.1, scattering: 0.1 }))),
  { x: 1, y: 1, z: 1 },
  0.2,
);

it.each([[[0.31, 0.33, 0.35]], [[0.1, 0.7, 0.19]]] as [[number, number, number]][])(
  'steps with it are steps without it, to the last bit (%s)',
  (squares) => {
    if (typeof grid === 'string') throw new Error(grid);
    const random = seededRandom(7);
    const stencil = stencilOf(
      grid,
      squares,
      Float64Array.from({ length: 8 }, () => random.uniform()),
    );
    const [native, plain] = [nativeStep(stencil)!, plainStep(stencil)];
    const isInside = (i: number) => grid.inside[i] === 1;
    for (const turn of [0, 1] as const)
      plain.pressures[turn].forEach((_, i) => {
        if (isInside(i)) plain.pressures[turn][i] = random.normal();
      });
    for (const turn of [0, 1] as const) native.pressures[turn].set(plain.pressures[turn]);
    for (let t = 0; t < 101; t++) for (const by of [native, plain]) by.step((t % 2) as 0 | 1);
    for (const turn of [0, 1] as const) {
      expect(native.pressures[turn]).toEqual(plain.pressures[turn]);
      expect(plain.pressures[turn].some((v) => Math.abs(v) > 1e-6)).toBe(true);
      // nothing gets out of the room
      expect(plain.pressures[turn].every((v, i) => isInside(i) || v === 0)).toBe(true);
    }
  },
);
