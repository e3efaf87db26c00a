import { describe, expect, it } from 'vitest';
import { deviceProblem, plainAudio, trackWarnings } from './audioDevices';
import { lostRuns } from './lostRuns';

it('asks for a sound that nothing was done to', () => {
  expect(plainAudio({ deviceId: 'x', channels: 4, rate: 96000 })).toEqual({
    deviceId: { exact: 'x' },
    channelCount: { ideal: 4 },
    sampleRate: { ideal: 96000 },
    echoCancellation: false,
    noiseSuppression: false,
    autoGainControl: false,
  });
  expect(plainAudio({})).not.toHaveProperty('deviceId');
});

describe('a device that cannot be opened', () => {
  const told = (name: string) => deviceProblem(new DOMException('no', name), 'Studio box');
  it.each([
    ['NotAllowedError', /was not allowed to use the microphone\. Allow it/],
    ['NotFoundError', /^Studio box is not there\. Plug it in/],
    ['OverconstrainedError', /^Studio box is not there/],
    ['NotReadableError', /^Studio box cannot be opened: another program/],
  ])('%s is told with what to do', (name, sentence) => {
    expect(told(name)).toMatch(sentence);
  });
  it('what nobody foresaw keeps its own words', () => {
    expect(deviceProblem(new Error('fuse blown'), 'Studio box')).toBe(
      'Studio box cannot be opened: fuse blown.',
    );
  });
});

describe('what the browser grants', () => {
  const wanted = { channels: 2, rate: 48000 };
  const good = {
    echoCancellation: false,
    noiseSuppression: false,
    autoGainControl: false,
    channelCount: 2,
    sampleRate: 48000,
  };
  it('is silent when it is as asked, or not told', () => {
    expect(trackWarnings(good, wanted)).toEqual([]);
    expect(trackWarnings({}, wanted)).toEqual([]);
  });
  it.each([
    [{ echoCancellation: true }, /does not switch its echo cancellation off/],
    [{ noiseSuppression: true }, /does not switch its noise suppression off/],
    [{ autoGainControl: true }, /does not switch its gain control off/],
    [{ channelCount: 1 }, /gives 1 of the 2 channels/],
    [{ sampleRate: 44100 }, /runs at 44100 Hz and the browser converts it to 48000 Hz/],
  ])('%j is warned of', (differs, sentence) => {
    const warnings = trackWarnings({ ...good, ...differs } as MediaTrackSettings, wanted);
    expect(warnings).toHaveLength(1);
    expect(warnings[0]).toMatch(sentence);
  });
});

describe('lost sound', () => {
  const noise = (length: number) => Float32Array.from({ length }, (_, i) => 1e-4 * Math.sin(i + 1));
  const withGap = (from: number, length: number) => noise(4800).fill(0, from, from + length);
  it('is a run of exact zeros on all channels, within sound', () => {
    expect(lostRuns([noise(4800), noise(4800)])).toBe(0);
    expect(lostRuns([withGap(1000, 128), withGap(1000, 128)])).toBe(1);
    expect(lostRuns([withGap(1000, 128), noise(4800)])).toBe(0);
  });
  it('is no short crossing of zero, and not what comes before the first sound', () => {
    expect(lostRuns([withGap(1000, 40)])).toBe(0);
    expect(lostRuns([withGap(0, 400)])).toBe(0);
    expect(lostRuns([])).toBe(0);
  });
});
