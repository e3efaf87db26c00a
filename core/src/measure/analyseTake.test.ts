import { describe, expect, it } from 'vitest';
import { exponentialSweep, whiteNoise } from '../signal/index.js';
import { analyseTake } from './analyseTake.js';
import { measureRoundTrip } from './measureRoundTrip.js';
import { timingClick } from './timingClick.js';

const rate = 48000;
const request = { rate, from: 20, to: 20000, durationS: 1, levelDbfs: -20 };
const sweep = exponentialSweep(request);
const silence = 28800;
const length = silence + sweep.samples.length + 57600;
/** The sweep after the silence, `delay` samples late and at a gain, in a little noise. */
const heard = (delay: number, gain: number, seed: number) => {
  const noise = whiteNoise(length, seed);
  return Float32Array.from(
    { length },
    (_, i) => gain * (sweep.samples[i - silence - delay] ?? 0) + 1e-5 * noise[i]!,
  );
};
const nothing = { click: null, dropouts: 0 };
const recording = { microphone: heard(900, 0.3, 1), loopback: heard(500, 1, 2), rate, silenceS: 0.6 };

describe('a take', () => {
  it('arrives as much later than its loopback as it was made to', () => {
    const { arrival, verdict } = analyseTake(recording, request, nothing);
    expect(arrival!.peakS).toBeCloseTo(400 / rate, 5);
    expect(verdict.state).toBe('good');
  });

  it('that lost sound fails, and says how often, ahead of anything else', () => {
    const { verdict } = analyseTake(recording, request, { ...nothing, dropouts: 3 });
    expect(verdict.state).toBe('failed');
    expect(verdict.reasons[0]).toEqual({ kind: 'dropouts', count: 3 });
  });

  it('is timed by a click ahead of it, whose own travel is taken off', () => {
    const headFrames = 38400;
    const atFrame = 4800;
    const travelS = 0.01;
    const latency = 500;
    const click = timingClick(rate, -20);
    const head = new Float32Array(headFrames + length);
    head.set(click, atFrame + latency + travelS * rate);
    head.set(heard(900, 0.3, 3), headFrames);
    const take = { ...recording, microphone: head, loopback: null };
    const timed = analyseTake(take, request, { click: { headFrames, atFrame, travelS }, dropouts: 0 });
    expect(timed.arrival!.peakS).toBeCloseTo(400 / rate, 4);
    const silent = head.slice();
    silent.fill(0, 0, headFrames);
    const untimed = analyseTake({ ...take, microphone: silent }, request, {
      click: { headFrames, atFrame, travelS },
      dropouts: 0,
    });
    expect(untimed.verdict.reasons.map((r) => r.kind)).toContain('no click');
  });

  it('tells its steps in order', () => {
    const steps: string[] = [];
    analyseTake(recording, request, nothing, (step) => steps.push(step));
    expect(steps).toEqual(['align', 'noise', 'disturbances', 'verdict']);
  });
});

describe('a round trip', () => {
  it('has the latency and the gain that it was given', () => {
    const found = measureRoundTrip(heard(574, 0.5, 4), 0.6, request)!;
    expect(found.latencyS).toBeCloseTo(574 / rate, 6);
    // an impulse of the sweep's band alone is as high as its share of half the rate, 20 kHz and the fade of 24
    expect(found.gainDb).toBeGreaterThan(20 * Math.log10((0.5 * 20000) / 24000));
    expect(found.gainDb).toBeLessThan(20 * Math.log10((0.5 * 22500) / 24000));
  });

  it('is not there where nothing comes back', () => {
    expect(measureRoundTrip(heard(0, 0, 5), 0.6, request)).toBeNull();
  });
});
