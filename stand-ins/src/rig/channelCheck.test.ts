import { distanceBetween } from '@pebble-hall/core/geometry';
import { describeNoise, findMisfits } from '@pebble-hall/core/commissioning';
import { CalibratorTone } from '@pebble-hall/core/level';
import { findTimingClick, timingClick } from '@pebble-hall/core/measure';
import { speedOfSound } from '@pebble-hall/core/room';
import { describe, expect, it } from 'vitest';
import { NET_LOFT_LOUDSPEAKERS } from '../net-loft/index.js';
import { houseMemory } from '../processor/index.js';
import { BURROW, noFaults, type Calibrator } from './index.js';
import { homeSpot, measure } from './measureForTest.js';
import { building, expectHealthy, round, short, siskin } from './roundForTest.js';

/** All of them are held by `npm run bars`. */
const ALL = process.env['PEBBLE_HALL_DRAWS'] === 'all';
const SEEDS = ALL ? [1, 2, 3] : [1];
const EXCHANGED: [[number, number], string[]][] = [
  [
    [3, 5],
    ['centre', 'surround-right'],
  ],
  [
    [2, 4],
    ['right', 'surround-left'],
  ],
];

describe('healthy hours', () => {
  it.each(SEEDS)('seed %i: every channel is called right', expectHealthy);
});

describe('faults', () => {
  it('reversed outputs are found, each and no other', () => {
    const reversedOutputs = [2, 4, 6, 7];
    for (const { id, polarity } of round(building, { reversedOutputs })) {
      const { output } = NET_LOFT_LOUDSPEAKERS.find((l) => l.id === id)!;
      expect(polarity!.reversed, id).toBe(reversedOutputs.includes(output));
    }
  });

  it.each(ALL ? EXCHANGED : EXCHANGED.slice(1))(
    'exchanged outputs %j: %j do not fit the plan',
    (swappedOutputs, ids) => {
      const misfits = findMisfits(round(building, { swappedOutputs }).map((c) => c.planned));
      expect(misfits.map((m) => m.id).sort()).toEqual([...ids].sort());
      for (const { id, couldBe } of misfits) expect(couldBe).toContain(ids.find((other) => other !== id));
    },
  );

  it('a subwoofer on the output of Left has the wrong band; Left on the low-passed one sounds as a subwoofer would', () => {
    const [misfit, ...others] = findMisfits(
      round(building, { swappedOutputs: [1, 6] }).map((c) => c.planned),
    );
    expect(misfit).toMatchObject({ id: 'left', wrongBand: true });
    expect(misfit!.couldBe).toContain('sub-1');
    expect(others).toEqual([]);
  });

  it('a torn cone distorts far more than a whole one', () => {
    const torn = round(building, { tornOutputs: [3] });
    for (const { id, distortionDb } of torn) {
      if (id === 'centre') expect(distortionDb).toBeGreaterThan(-22);
      else expect(distortionDb, id).toBeLessThan(-30);
    }
  });

  it('two subwoofers on one output: nothing arrives from the other, and both are heard from the one', () => {
    const [alone] = round(building).filter((c) => c.id === 'sub-1');
    const shared = round(building, { sharedOutput: true });
    expect(shared.find((c) => c.id === 'sub-2')!.verdict.reasons[0]!.kind).toBe('silent');
    const both = shared.find((c) => c.id === 'sub-1')!;
    expect(both.verdict.state).toBe('good');
    expect(both.impulse.samples).not.toEqual(alone!.impulse.samples);
  });

  it('hum is named with the mains it comes from', () => {
    const silence = building.listen(siskin, { ...noFaults(), hum: true }, 0, 96000);
    expect(describeNoise(silence, 48000)[0]).toMatchObject({ kind: 'hum', mainsHz: 50 });
  });

  it('without loopback a click from a loudspeaker tells the time, to a tenth of a millisecond', () => {
    const clickAt = 4800;
    const samples = new Float32Array(38400);
    samples.set(timingClick(48000, -30), clickAt);
    const { outputs, filters } = houseMemory();
    const [microphone] = building.record({
      signals: [{ output: 1, samples }],
      lengthFrames: samples.length,
      microphones: [siskin],
      outputs,
      filters,
      faults: noFaults(),
      take: 77,
    });
    const { position } = NET_LOFT_LOUDSPEAKERS[0]!;
    const travel = distanceBetween(homeSpot, position) / speedOfSound(20);
    const latency = findTimingClick(microphone!, 48000)! - clickAt - travel * 48000;
    expect(Math.abs(latency - BURROW.latency - 0.00125 * 48000)).toBeLessThan(5);
  });

  it('without loopback the time is unknown, and said to be', () => {
    const { verdict } = measure(
      building,
      1,
      homeSpot,
      undefined,
      { ...noFaults(), loopbackOut: true },
      short,
    );
    expect(verdict.reasons.map((r) => r.kind)).toContain('no loopback');
  });
});

describe('the calibrator on the microphone', () => {
  const reading = (calibrator: Calibrator) => {
    const watch = new CalibratorTone(48000);
    for (let frame = 0; frame < 4 * 48000; frame += 4800) {
      watch.process(building.listen(siskin, { ...noFaults(), calibrator }, 999_000 + frame, 4800));
    }
    return watch.read();
  };
  it('is stable at both levels, 19.9 dB apart', () => {
    const [low, high] = [94, 114].map((levelDb) => reading({ levelDb: levelDb as 94, trouble: null }));
    expect([low!.state, high!.state]).toEqual(['stable', 'stable']);
    if (low!.state !== 'stable' || high!.state !== 'stable') return;
    expect(high!.levelDb - low!.levelDb).toBeCloseTo(19.93, 1);
  });
  it.each([
    ['unsteady', 'unsteady'],
    ['wrong tone', 'wrong frequency'],
    ['hand', 'noise'],
  ] as const)('with %s: refused as %s', (trouble, kind) => {
    expect(reading({ levelDb: 94, trouble })).toMatchObject({ state: 'refused', problem: { kind } });
  });
});
