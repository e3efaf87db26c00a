import { describe, expect, it } from 'vitest';
import { gainOfDb, logGrid, type ImpulseResponse } from '../signal/index.js';
import { ViewDesk } from './viewDesk.js';

const rate = 48000;
const grid = logGrid();
const nearest = (f: number) => grid.findIndex((g) => g >= f * 0.999);
/** Direct sound at 10 ms, a reflection 4 ms after it, 12 dB down. */
function room(): ImpulseResponse {
  const samples = new Float32Array(32768);
  samples[480 + 960] = 1;
  samples[480 + 960 + 192] = gainOfDb(-12);
  return { samples, rate, zero: 960 };
}
const desk = new ViewDesk(async () => room());
const error = { id: 'file', frequency: [20, 20000], levelDb: [2, 2] };
const ref = { arrayId: 'a', calibration: error, gainDb: 0, decayEnd: null };

describe('ways of looking at a trace', () => {
  it('levels are seen through the microphone, or not', async () => {
    const [through] = await desk.levels([ref], true);
    const [plain] = await desk.levels([ref], false);
    expect(plain![nearest(300)]! - through![nearest(300)]!).toBeCloseTo(2, 9);
  });

  it('time counts from the arrival, in parts of its peak', async () => {
    const { fromMs, stepMs, impulse, step, energyDb } = await desk.time(ref, { fromMs: -1, toMs: 6 });
    const at = (ms: number) => Math.round((ms - fromMs) / stepMs);
    expect(fromMs).toBeCloseTo(-1, 6);
    expect(impulse[at(0)]).toBeCloseTo(1, 6);
    expect(impulse[at(4)]).toBeCloseTo(gainOfDb(-12), 6);
    expect(step[at(5)]).toBeCloseTo(1, 6); // the step is largest once both have arrived
    expect(step[at(2)]).toBeCloseTo(1 / (1 + gainOfDb(-12)), 6);
    expect(energyDb[at(0)]).toBeCloseTo(0, 6);
  });

  it('a window of 1.5 ms lets the reflection out: the level is flat', async () => {
    const window = { leftS: 0.001, rightS: 0.0015 };
    const level = await desk.windowed(ref, window, false);
    for (const f of [500, 1000, 5000]) expect(level[nearest(f)]).toBeCloseTo(0, 6);
    const [whole] = await desk.levels([ref], false);
    // without it, half a period of 125 Hz takes the reflection off, a whole one adds it
    expect(whole![nearest(125)]!).toBeCloseTo(20 * Math.log10(1 - gainOfDb(-12)), 1);
    expect(whole![nearest(250)]!).toBeCloseTo(20 * Math.log10(1 + gainOfDb(-12)), 1);
  });

  it('delays are told after the arrival, reflections by their way', async () => {
    const { groupMs, phaseDeg } = await desk.delays(ref);
    expect(Number.isFinite(groupMs[nearest(1000)])).toBe(true);
    expect(Math.abs(phaseDeg[nearest(1000)]!)).toBeLessThan(181);
    const [reflection] = await desk.reflections(ref, 343);
    expect(reflection!.delayS).toBeCloseTo(0.004, 4);
  });
});
