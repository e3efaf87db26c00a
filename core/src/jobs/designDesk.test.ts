import { describe, expect, it, vi } from 'vitest';
import { PROCESSOR } from '../correct/processorForTest.js';
import { STARTING_FILTER, STARTING_GOAL } from '../correct/index.js';
import { signalPath } from '../path/index.js';
import { plainOutput, plainSub } from '../processing/index.js';
import { filterBiquads, logGrid, peaking, type ImpulseResponse } from '../signal/index.js';
import { DesignDesk, type ChannelRequest } from './designDesk.js';
import type { TraceRef } from './traceSource.js';

const rate = 48000;
const grid = logGrid();
const nearest = (f: number) => grid.findIndex((g) => g >= f * 0.999);

/** An impulse of a gain after so many samples, shaped by a peak. */
const impulse = (gain: number, at: number, peakDb = 0): ImpulseResponse => {
  const samples = new Float64Array(16384);
  samples[at] = gain;
  return {
    samples: Float32Array.from(filterBiquads(samples, [peaking(1000, peakDb, 2, rate)])),
    rate,
    zero: 100,
  };
};
const stored: Record<string, ImpulseResponse> = {
  one: impulse(1, 580),
  half: impulse(0.5, 580),
  late: impulse(1, 580 + 240), // 5 ms later: a whole period at 200 Hz, half a one at 100 Hz
  peak: impulse(1, 580, 9),
};
const ref = (arrayId: string, gainDb = 0, calibration: TraceRef['calibration'] = null): TraceRef => ({
  arrayId,
  calibration,
  gainDb,
});
const load = () =>
  vi.fn(async (id: string) => {
    const found = stored[id];
    if (!found) throw new Error(`${id} is lost`);
    return found;
  });
const channel = (spots: TraceRef[], change: Partial<ChannelRequest> = {}): ChannelRequest => ({
  ...STARTING_GOAL,
  id: 'left',
  span: { from: 100, to: 10000 },
  targetOffsetDb: null,
  spots,
  weights: spots.map(() => 1),
  leftOut: [],
  ...change,
});

describe('levels', () => {
  it('are those of the samples, with the gain that is asked for and less what the microphone adds', async () => {
    const desk = new DesignDesk(load());
    const error = { id: 'file', frequency: [20, 20000], levelDb: [3, 3] };
    const [plain, half, raised, corrected] = await desk.levels([
      ref('one'),
      ref('half'),
      ref('half', 2),
      ref('half', 0, error),
    ]);
    const k = nearest(500);
    expect(plain![k]).toBeCloseTo(0, 6);
    expect(half![k]).toBeCloseTo(20 * Math.log10(0.5), 6);
    expect(raised![k]).toBeCloseTo(20 * Math.log10(0.5) + 2, 5);
    expect(corrected![k]).toBeCloseTo(20 * Math.log10(0.5) - 3, 5);
  });

  it('of several subwoofers are those of their sum: twice at 200 Hz, nothing at 100 Hz for 5 ms between them', async () => {
    const parts = ['one', 'late'].map((id) => ({ trace: ref(id), setting: plainSub() }));
    const [sum] = await new DesignDesk(load()).levels([{ parts }]);
    expect(sum![nearest(200)]).toBeCloseTo(20 * Math.log10(2), 1);
    expect(sum![nearest(100)]!).toBeLessThan(-25);
    const inverted = [parts[0]!, { ...parts[1]!, setting: { ...plainSub(), inverted: true } }];
    const [difference] = await new DesignDesk(load()).levels([{ parts: inverted }]);
    expect(difference![nearest(100)]).toBeCloseTo(20 * Math.log10(2), 1);
  });

  it('are loaded once for all who ask, and again after it failed', async () => {
    const loading = load();
    const desk = new DesignDesk(loading);
    await Promise.all([desk.levels([ref('one')]), desk.levels([ref('one'), ref('half')])]);
    await desk.levels([ref('one')]);
    expect(loading.mock.calls.map(([id]) => id).sort()).toEqual(['half', 'one']);
    await expect(desk.levels([ref('gone')])).rejects.toThrow('gone is lost');
    stored['gone'] = impulse(1, 580);
    expect((await desk.levels([ref('gone')]))[0]![nearest(500)]).toBeCloseTo(0, 6);
    delete stored['gone'];
  });
});

describe('designs', () => {
  it('take a shared peak away, tell their progress, and their filter does what was designed', async () => {
    const desk = new DesignDesk(load());
    const requests = [channel([ref('peak'), ref('peak')]), channel([ref('one')], { id: 'flat' })];
    const shares: number[] = [];
    const [left, flat] = await desk.design(requests, (share) => void shares.push(share));
    expect(shares).toEqual([0.5, 1]);
    const k = nearest(1000);
    // what was 9 dB too loud meets the target as well as what was flat from the start
    for (const design of [left!, flat!])
      expect(Math.abs(design.predicted.averageDb[k]! - design.targetDb[k]!)).toBeLessThan(1.5);
    expect(left!.found.averageDb[k]! - flat!.found.averageDb[k]!).toBeCloseTo(9, 1);
    const processor = { ...PROCESSOR, mostTaps: 4096, mostSections: 10 };
    const exact = await desk.exact({
      request: requests[0]!,
      choice: STARTING_FILTER,
      processor,
      byHand: null,
    });
    expect(exact.levelDb[k]!).toBeCloseTo(left!.gainDb[k]!, 0);
    const after = await desk.heard([
      {
        trace: ref('peak'),
        before: plainOutput(),
        after: plainOutput(),
        fir: exact.fir,
        feed: null,
      },
    ]);
    expect(after[k]!).toBeCloseTo(9 + exact.levelDb[k]!, 0);
  });

  it('that overlap do not mix', async () => {
    const desk = new DesignDesk(load());
    const alone = await new DesignDesk(load()).design([channel([ref('peak')])]);
    const [a, b] = await Promise.all([
      desk.design([channel([ref('peak')])]),
      desk.design([channel([ref('half')])]),
    ]);
    expect(a[0]!.gainDb).toEqual(alone[0]!.gainDb);
    expect(b[0]!.found.averageDb).not.toEqual(a[0]!.found.averageDb);
  });
});

it('seats deviate by what the levels do: 0 and 6.02 dB by 3.01', async () => {
  const desk = new DesignDesk(load());
  const [alone, louder] = await desk.deviations(
    [[ref('one'), ref('half')]],
    [[plainSub()], [{ ...plainSub(), gainDb: -6 }]],
    rate,
  );
  expect(alone).toBeCloseTo(10 * Math.log10(2), 4);
  expect(louder).toBeCloseTo(10 * Math.log10(2), 4);
});

it('a crossover reads main, bass and sum at the points, with what stands ahead of each', async () => {
  const desk = new DesignDesk(load());
  const side = (id: string, gainDb: number) => ({
    traces: [ref(id)],
    path: signalPath(rate, { gainDb }),
    measuredThrough: null,
  });
  const setting = { highPass: null, lowPass: null, subDelayS: 0, subInverted: false };
  const request = { main: side('one', 0), subs: [side('half', -6), side('half', -6)] };
  const reading = await desk.crossover(request, setting, { gainDb: 10, lowPass: null });
  const k = 30;
  const subsDb = 20 * Math.log10(2 * 0.5 * 10 ** (-6 / 20));
  expect(reading.mainDb[k]).toBeCloseTo(0, 2);
  expect(reading.subsDb[k]).toBeCloseTo(subsDb, 2);
  expect(reading.sumDb[k]).toBeCloseTo(20 * Math.log10(1 + 10 ** (subsDb / 20)), 2);
  expect(reading.efficiency).toBeCloseTo(1, 6);
  expect(reading.lowDb![k]).toBeCloseTo(subsDb + 10, 2);
  const late = { main: side('one', 0), subs: [side('late', 0)] };
  const found = await desk.alignCrossover([{ request: late, setting }], null);
  expect(Math.abs(found.subDelayS)).toBeCloseTo(0.005, 4); // the main waits for what comes 5 ms later
  expect(found.subDelayS).toBeLessThan(0);
  expect(found.efficiency).toBeCloseTo(1, 3);
});
