import { distanceBetween } from '@pebble-hall/core/geometry';
import {
  averageSpots,
  excessPhase,
  predictImpulse,
  predictPower,
  spanWeight,
} from '@pebble-hall/core/correct';
import { powerOnGrid } from '@pebble-hall/core/measure';
import { speedOfSound } from '@pebble-hall/core/room';
import { butterworth, exponentialSweep, filterBiquads } from '@pebble-hall/core/signal';
import { beforeAll, describe, expect, it } from 'vitest';
import { NET_LOFT_LOUDSPEAKERS } from '../net-loft/index.js';
import type { Memory } from '../processor/index.js';
import { noFaults, SimulatedRoom } from './index.js';
import {
  design,
  distanceOf,
  grid,
  homeSpot,
  leftOut,
  levels,
  measure,
  spots,
  withFilter,
} from './measureForTest.js';

const room = new SimulatedRoom(2);
const outputs = [1, 4, 6];
const louder = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 3, levelDbfs: -18 });
const found = new Map<number, { all: ReturnType<typeof measure>[]; out: ReturnType<typeof measure>[] }>();

beforeAll(() => {
  for (const output of outputs) {
    found.set(output, {
      all: spots.map((spot) => measure(room, output, spot)),
      out: leftOut.map((spot) => measure(room, output, spot)),
    });
  }
}, 300_000);

describe.each(outputs)('output %i in the Net Loft', (output) => {
  it('gives good sweeps whose direct sound arrives when distance and processor say', () => {
    const { all } = found.get(output)!;
    all.forEach(({ verdict, arrival }, i) => {
      expect(verdict).toMatchObject({ state: 'good', reasons: [] });
      if (output > 5) return; // a subwoofer's onset is as soft as its band is low
      const place = NET_LOFT_LOUDSPEAKERS.find((l) => l.output === output)!.position;
      const distance = distanceBetween(spots[i]!, place);
      expect(Math.abs(arrival!.onsetS - distance / speedOfSound(20) - 0.00125)).toBeLessThan(0.0003);
    });
  });

  it.each([
    [3, 0.3],
    [11, 0.3],
  ])('corrected from %i spots, comes nearer to the target at spots left out, by more than %f', (n, least) => {
    const { all, out } = found.get(output)!;
    const d = design(all.slice(0, n).map((a) => powerOnGrid(a.impulse, grid)));
    out.forEach(({ impulse }) => {
      const power = powerOnGrid(impulse, grid);
      const [before, after] = [power, predictPower(power, d.firDb)].map((p) => distanceOf(p, d));
      expect(1 - after! / before!).toBeGreaterThan(least);
    });
    expect(Math.max(...d.firDb)).toBeLessThan(6.1);
    grid.forEach((f, i) => {
      if (f < d.span.from || f > d.span.to) expect(Math.abs(d.firDb[i]!)).toBeLessThan(0.1);
    });
  });

  it('measures after loading what was predicted, within 0.2 dB of 1/6 octave', () => {
    const { all } = found.get(output)!;
    const d = design(all.slice(0, 3).map((a) => powerOnGrid(a.impulse, grid)));
    // 6 dB louder than the others: in a null of the lows noise alone would be 0.3 dB
    const at = (memory?: Memory) => measure(room, output, homeSpot, memory, undefined, louder).impulse;
    const predicted = levels(powerOnGrid(predictImpulse(at(), d.fir), grid));
    const verified = levels(powerOnGrid(at(withFilter(output, d.fir)), grid));
    grid.forEach((f, i) => {
      if (f >= d.span.from && f <= d.span.to)
        expect(Math.abs(verified[i]! - predicted[i]!)).toBeLessThan(0.2);
    });
  });
});

it('a channel has an excess phase that does not hang on how steeply its low end falls', () => {
  const { impulse } = found.get(1)!.all[0]!;
  const withHighPass = (order: number) => {
    const samples = filterBiquads(
      Float64Array.from(impulse.samples),
      butterworth('highpass', order, 30, impulse.rate),
    );
    return excessPhase({ ...impulse, samples }, grid);
  };
  const gentle = withHighPass(1);
  for (const order of [3, 6, 8]) {
    const steep = withHighPass(order);
    const points = [...grid.keys()].filter((i) => grid[i]! > 60 && grid[i]! < 1500);
    const turned = points.map((i) => steep[i]! - gentle[i]!);
    // a room turns by whole turns where it has a null; nothing else may differ
    const off = turned.map((v) => Math.abs(v - 2 * Math.PI * Math.round(v / (2 * Math.PI))));
    expect(off.sort((a, b) => a - b)[Math.floor(0.95 * off.length)]).toBeLessThan(0.35);
  }
});

it('falls by more than 40 % on the mean of the channels with eleven spots', () => {
  const falls = outputs.flatMap((output) => {
    const { all, out } = found.get(output)!;
    const d = design(all.map((a) => powerOnGrid(a.impulse, grid)));
    return out.map(({ impulse }) => {
      const power = powerOnGrid(impulse, grid);
      return 1 - distanceOf(predictPower(power, d.firDb), d) / distanceOf(power, d);
    });
  });
  expect(falls.reduce((a, b) => a + b) / falls.length).toBeGreaterThan(0.4);
});

it.each([3, 11])(
  'from %i spots reaches 90 % of what the inverse without limits would, of the same average over the same span',
  (n) => {
    const falls = outputs.flatMap((output) => {
      const { all, out } = found.get(output)!;
      const d = design(all.slice(0, n).map((a) => powerOnGrid(a.impulse, grid)));
      const weight = spanWeight(grid, d.span);
      const unlimited = d.targetDb.map((t, i) => weight[i]! * (t - d.found.averageDb[i]!));
      return out.map(({ impulse }) => {
        const power = powerOnGrid(impulse, grid);
        const fall = (gainDb: Float64Array) =>
          1 - distanceOf(predictPower(power, gainDb), d) / distanceOf(power, d);
        return { ours: fall(d.firDb), unlimited: fall(unlimited) };
      });
    });
    const mean = (of: (f: (typeof falls)[number]) => number) =>
      falls.reduce((s, f) => s + of(f), 0) / falls.length;
    expect(mean((f) => f.unlimited)).toBeGreaterThan(0.2); // there is something to reach
    expect(mean((f) => f.ours) / mean((f) => f.unlimited)).toBeGreaterThan(0.9);
  },
);

it('repeats with its seed and take, and differs in noise from take to take only', () => {
  const again = new SimulatedRoom(2);
  const request = {
    signals: [],
    lengthFrames: 4800,
    microphones: [{ input: 1, position: homeSpot, serial: 4417, incidenceDeg: 0 as const, gainDb: 0 }],
    outputs: [],
    filters: [],
    faults: noFaults(),
    take: 5,
  };
  expect(again.record(request)).toEqual(room.record(request));
  expect(again.record({ ...request, take: 6 })).not.toEqual(room.record(request));
});

describe('practice faults', () => {
  const faults = noFaults();

  it('a slammed door makes the sweep doubtful and is named', () => {
    const { verdict } = measure(room, 1, homeSpot, undefined, { ...faults, doorSlam: true });
    expect(verdict.state).toBe('doubtful');
    expect(verdict.reasons[0]!.kind).toBe('disturbed');
  });

  it('a silent output fails as silent, a hot input as clipped', () => {
    expect(measure(room, 1, homeSpot, undefined, { ...faults, silentOutputs: [1] }).verdict).toMatchObject({
      state: 'failed',
      reasons: [{ kind: 'silent' }],
    });
    const { verdict } = measure(room, 1, homeSpot, undefined, { ...faults, hotInput: true });
    expect(verdict.state).toBe('failed');
    expect(verdict.reasons.map((r) => r.kind)).toContain('clipped');
  });

  it('reversed polarity turns the response over', () => {
    const { impulse } = measure(room, 1, homeSpot, undefined, { ...faults, reversedOutputs: [1] });
    const normal = found.get(1)!.all[0]!.impulse;
    let product = 0;
    impulse.samples.forEach((v, i) => (product += v * normal.samples[i]!));
    expect(product).toBeLessThan(0);
  });
});

it('hears trims, delays, polarity and muting of the processor', () => {
  const plain = found.get(1)!.all[0]!;
  const memory = withFilter(1, new Float32Array(0));
  memory.outputs[0] = { ...memory.outputs[0]!, trimDb: -6, delayMs: 2.5 };
  const changed = measure(room, 1, homeSpot, memory);
  expect(changed.arrival!.peakS - plain.arrival!.peakS).toBeCloseTo(0.0025, 5);
  expect(20 * Math.log10(changed.arrival!.peak / plain.arrival!.peak)).toBeCloseTo(-6, 1);
  memory.outputs[0] = { ...memory.outputs[0]!, muted: true };
  expect(measure(room, 1, homeSpot, memory).verdict.reasons[0]!.kind).toBe('silent');
});

it('shows a seat range that is wider than the average suggests', () => {
  const powers = found.get(1)!.all.map((a) => powerOnGrid(a.impulse, grid));
  const { lowDb, averageDb, highDb } = averageSpots(grid, powers);
  grid.forEach((_, i) => {
    expect(lowDb[i]).toBeLessThanOrEqual(averageDb[i]!);
    expect(highDb[i]).toBeGreaterThanOrEqual(averageDb[i]!);
  });
});
