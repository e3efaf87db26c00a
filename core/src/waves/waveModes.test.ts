import { expect, it } from 'vitest';
import { boxModes } from '../room/index.js';
import { sceneOf } from '../tracing/index.js';
import { boxFaces } from '../tracing/roomsForTest.js';
import { halfWaves, roomGrid, waveModePressure, waveModeSteps, type WaveModes } from './index.js';

const C = 343;
function modesOf(size: { x: number; y: number; z: number }, toHz: number, heightM: number): WaveModes {
  const grid = roomGrid(sceneOf(boxFaces(size, 0, 0)), { x: 1, y: 1, z: 1 }, 0.35);
  if (typeof grid === 'string') throw new Error(grid);
  const steps = waveModeSteps(grid, C, toHz, heightM);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

it('finds the modes of a box within a percent, and their pressures', () => {
  const size = { x: 6.3, y: 4.7, z: 3.1 };
  const found = modesOf(size, 65, 1.2);
  const wanted = boxModes(size, C, 65);
  expect(found.hz).toHaveLength(wanted.length);
  wanted.forEach(({ hz, order: [l, m] }, i) => {
    expect(Math.abs(found.hz[i]! / hz - 1)).toBeLessThan(0.01);
    // of one sign or the other
    const at = { x: 1.3, y: 1.1, z: 1.2 };
    const there = Math.cos((l * Math.PI * at.x) / size.x) * Math.cos((m * Math.PI * at.y) / size.y);
    expect(Math.abs(waveModePressure(found, i, at))).toBeCloseTo(Math.abs(there), 1);
    expect(halfWaves(found, i)).toEqual([l, m]);
  });
});
