import { expect, it } from 'vitest';
import { gainOfDb, logGrid } from '../signal/index.js';
import { channelsApart, gainSteps, type InputLevel, type TransferCurve } from './index.js';

const frequency = logGrid(20, 20_000, 48);
const curve = (levelDb: (f: number) => number, deg = 0, coherence = 0.99999): TransferCurve => {
  const turn = (deg * Math.PI) / 180;
  const gain = frequency.map((f) => gainOfDb(levelDb(f)));
  return {
    frequency,
    re: gain.map((g) => g * Math.cos(turn)),
    im: gain.map((g) => g * Math.sin(turn)),
    coherence: frequency.map(() => coherence),
  };
};
const level = (levelDb: number, more: Partial<InputLevel> = {}): InputLevel => ({
  input: 7,
  levelDb,
  peakDb: levelDb + 12,
  clipped: 0,
  broken: 0,
  ...more,
});
const flat = curve(() => 0);
const kinds = (...of: Parameters<typeof gainSteps>) => gainSteps(...of).map((s) => [s.kind, s.channel]);

it('what overloads or is missing comes before what is to be compared', () => {
  expect(kinds([level(-20), level(-20)], [flat, flat])).toEqual([]);
  expect(kinds([level(-90), level(-20)], [null, flat])).toEqual([['nothing', 0]]);
  expect(kinds([level(-8, { clipped: 12, peakDb: 0 }), level(-20)], [flat, flat])).toEqual([['clipped', 0]]);
  expect(gainSteps([level(-14)], [flat])).toEqual([{ kind: 'near its end', channel: 0, byDb: 4 }]);
  expect(kinds([level(-60), level(-20)], [flat, flat])).toEqual([['weak', 0]]);
});

it('a channel that is lower is raised by what is missing', () => {
  const [step] = gainSteps([level(-20), level(-22)], [flat, curve(() => -2)]);
  expect(step).toMatchObject({ kind: 'apart', channel: 1 });
  expect((step as { byDb: number }).byDb).toBeCloseTo(2, 10);
});

it('what comes back beside the signal is told when it is more than a device at ease has', () => {
  // a coherence of 0.999 is 30 dB between what belongs to the signal and what does not
  const [step] = gainSteps([level(-20)], [curve(() => 0, 0, 0.999)]);
  expect(step).toMatchObject({ kind: 'distorts', channel: 0 });
  expect((step as { restDb: number }).restDb).toBeCloseTo(-30, 1);
});

it('two channels are apart by a mean, and from it by so much somewhere', () => {
  const apart = channelsApart(
    flat,
    curve((f) => -1 + (Math.abs(Math.log2(f / 9000)) < 0.02 ? 0.7 : 0), 4),
  )!;
  expect(apart.meanDb).toBeCloseTo(-1, 1);
  expect(apart.mostDb).toBeCloseTo(0.7, 1);
  expect(Math.abs(Math.log2(apart.mostDbAt / 9000))).toBeLessThan(0.03);
  expect(apart.mostDeg).toBeCloseTo(4, 8);
  expect(
    channelsApart(
      flat,
      curve(() => 0, 0, 0.5),
    ),
  ).toBeNull();
});
