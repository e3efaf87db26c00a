import { findTimingClick, timingClick } from '@pebble-hall/core/measure';
import { plainSetting } from '@pebble-hall/core/project';
import { realFft, powerOf } from '@pebble-hall/core/signal';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { checkRequest, type AudioRig, type PlayRequest } from '../ports/rig/AudioRig';
import { abortError, isAbort } from '../ports/abort';

/** What the analysis in the worker was asked; it answers with the number of the question. */
const asked: {
  recording: Record<string, unknown>;
  sweep: Record<string, unknown>;
  options: Record<string, unknown>;
}[] = [];
vi.mock('./jobs', () => ({
  runJob: async (
    kind: string,
    {
      recording,
      request,
      surroundings,
      samples,
      as,
    }: {
      recording: never;
      request: never;
      surroundings: never;
      samples: Float32Array;
      as: { delayS: number };
    },
  ) => {
    // later by its delay, as long as that
    if (kind === 'align.played') return new Float32Array(samples.length + as.delayS * rate).fill(0.5);
    return kind === 'analysis.analyse'
      ? asked.push({ recording, sweep: request, options: surroundings })
      : null;
  },
}));
const { DECAY_S, playOnly, recordSilence, SILENCE_S, recordSweep } = await import('./recordSweep');

const rate = 48000;
/** A rig that notes what it is to play, and hears each input as its own number. */
function rigWith(dropouts = 0) {
  const requests: PlayRequest[] = [];
  const rig: AudioRig = {
    isAudible: true,
    open: async () => ({ name: 'Fake', rate, inputs: [], outputs: [], warnings: [] }),
    playAndRecord: async (request, options = {}) => {
      if (options.signal?.aborted) throw abortError();
      requests.push(request);
      options.onBlock?.(new Float32Array(128), 4096);
      return {
        channels: request.inputs.map((n) => new Float32Array(request.lengthFrames).fill(n)),
        dropouts,
        missedBlocks: 0,
      };
    },
    stream: async () => ({ stop: () => {} }),
    session: async () => ({ rate, play: () => {}, refresh: () => {}, stop: () => {} }),
    close: async () => {},
  };
  return { rig, requests };
}
const settings = {
  output: 3,
  levelDbfs: -20,
  durationS: 1,
  microphones: [{ input: 1, travelS: 0.01 }],
  time: { by: 'loopback', input: 2 } as const,
  ownResponse: null,
  referenceOutput: null,
};
const firstSound = (samples: Float32Array) => samples.findIndex((v) => Math.abs(v) > 1e-9);

beforeEach(() => void asked.splice(0));

describe('a sweep', () => {
  it('plays on several outputs at once, each as it is set; the take lasts until the last of them has died away', async () => {
    const { rig, requests } = rigWith();
    const plain = { ...plainSetting(), delayS: 0 };
    const together = [
      { output: 3, as: plain },
      { output: 6, as: { ...plain, delayS: 0.01 } },
    ];
    await recordSweep(rig, { ...settings, together });
    const [{ signals, lengthFrames }] = requests as [PlayRequest];
    expect(signals.map((s) => s.output)).toEqual([3, 6]);
    const alone = Math.round((SILENCE_S + 1) * rate);
    expect(signals.map((s) => s.samples.length)).toEqual([alone, alone + 480]);
    expect(lengthFrames).toBe(alone + 480 + DECAY_S * rate);
  });

  it('plays on its output alone, silence ahead of it and time to decay after it, the loopback recorded beside', async () => {
    const { rig, requests } = rigWith();
    await recordSweep(rig, settings);
    const [{ signals, inputs, lengthFrames, through }] = requests as [PlayRequest];
    expect(signals.map((s) => s.output)).toEqual([3]);
    expect(inputs).toEqual([1, 2]);
    expect(through).toBe('outputs');
    const { samples } = signals[0]!;
    expect(firstSound(samples)).toBeGreaterThanOrEqual(SILENCE_S * rate);
    expect(firstSound(samples)).toBeLessThan((SILENCE_S + 0.05) * rate);
    expect(samples).toHaveLength(Math.round((SILENCE_S + 1) * rate));
    expect(lengthFrames).toBe(samples.length + DECAY_S * rate);
    // -20 dBFS is the level of its peak
    expect(samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0)).toBeCloseTo(0.1, 3);
    expect(asked[0]!.recording).toMatchObject({ rate, silenceS: SILENCE_S, latency: null, clickAt: null });
    expect((asked[0]!.recording['loopback'] as Float32Array)[0]).toBe(2);
    expect(asked[0]!.sweep).toEqual({ rate, from: 20, to: 20000, durationS: 1, levelDbfs: -20 });
  });

  it('is analysed once for each microphone, in their order, with the gaps that there were', async () => {
    const { rig, requests } = rigWith(2);
    const microphones = [4, 1, 6].map((input) => ({ input, travelS: 0 }));
    expect(await recordSweep(rig, { ...settings, microphones })).toEqual([1, 2, 3]);
    expect(requests[0]!.inputs).toEqual([4, 1, 6, 2]);
    expect(asked.map((a) => (a.recording['microphone'] as Float32Array)[0])).toEqual([4, 1, 6]);
    expect(asked.every((a) => a.options['dropouts'] === 2)).toBe(true);
  });

  it('without a loopback is timed by what the interface was found to take', async () => {
    const { rig, requests } = rigWith();
    await recordSweep(rig, { ...settings, time: { by: 'round trip', latencyS: 0.012 } });
    expect(requests[0]!.inputs).toEqual([1]);
    expect(asked[0]!.recording).toMatchObject({ loopback: null, latency: 0.012 * rate });
  });

  it('or by a click from another loudspeaker, which has died away before the silence begins', async () => {
    const { rig, requests } = rigWith();
    await recordSweep(rig, { ...settings, time: { by: 'click', output: 5 } });
    const [{ signals }] = requests as [PlayRequest];
    expect(signals.map((s) => s.output)).toEqual([3, 5]);
    const { click } = asked[0]!.options as {
      click: { headFrames: number; atFrame: number; travelS: number };
    };
    const sound = signals[1]!.samples;
    expect(firstSound(sound)).toBeGreaterThanOrEqual(click.atFrame);
    expect(sound.length).toBe(click.atFrame + timingClick(rate, -20).length);
    expect(sound.length).toBeLessThan(click.headFrames);
    expect(firstSound(signals[0]!.samples)).toBeGreaterThan(click.headFrames + (SILENCE_S - 0.01) * rate);
    // and it is found where it was put
    const heard = new Float32Array(click.headFrames);
    heard.set(sound.subarray(0, heard.length));
    expect(click.travelS).toBe(0.01);
    expect(Math.abs(findTimingClick(heard, rate)! - click.atFrame)).toBeLessThan(1);
  });

  it('is followed by a reference click once the room has died away', async () => {
    const { rig, requests } = rigWith();
    await recordSweep(rig, { ...settings, referenceOutput: 1 });
    const [{ signals, lengthFrames }] = requests as [PlayRequest];
    const at = asked[0]!.recording['clickAt'] as number;
    expect(at).toBe(signals[0]!.samples.length + DECAY_S * rate);
    expect(firstSound(signals[1]!.samples)).toBeGreaterThanOrEqual(at);
    expect(lengthFrames).toBeGreaterThan(signals[1]!.samples.length);
  });

  it('tells whoever watches which frequency sounds when', async () => {
    const watched = vi.fn();
    await recordSweep(rigWith().rig, settings, { onWatch: watched });
    expect(watched).toHaveBeenCalledTimes(1);
    expect(watched.mock.calls[0]![0]).toMatchObject({
      fromFrame: 4096,
      rate,
      sweep: { atFrame: SILENCE_S * rate, durationS: 1 },
    });
    // about an octave below the band, as whole periods fit, and a sixth above it
    const { from, to } = watched.mock.calls[0]![0].sweep as { from: number; to: number };
    expect(Math.abs(Math.log2(from / 10))).toBeLessThan(0.5);
    expect(to / (20000 * 2 ** (1 / 6))).toBeCloseTo(1, 2);
  });

  it('that is cancelled brings nothing', async () => {
    const stop = AbortSignal.abort();
    const ended = await recordSweep(rigWith().rig, settings, { signal: stop }).catch((e: unknown) => e);
    expect(isAbort(ended)).toBe(true);
    expect(asked).toHaveLength(0);
  });
});

it('playing only asks for no input, and its sound has the band of a sweep', async () => {
  const { rig, requests } = rigWith();
  await playOnly(rig, { output: 2, levelDbfs: -30, durationS: 0.7 });
  const [{ inputs, signals, lengthFrames }] = requests as [PlayRequest];
  expect(inputs).toEqual([]);
  expect(lengthFrames).toBeGreaterThan(signals[0]!.samples.length);
  const power = powerOf(realFft(signals[0]!.samples, 65536));
  const at = (f: number) => power[Math.round((f * 65536) / rate)]!;
  // an exponential sweep falls by 3 dB per octave
  expect(10 * Math.log10(at(200) / at(3200))).toBeCloseTo(12, 0);
});

it('silence is recorded while nothing plays', async () => {
  const { rig, requests } = rigWith();
  const silence = await recordSilence(rig, 7, 0.5);
  expect(requests).toEqual([{ signals: [], inputs: [7], lengthFrames: 24000 }]);
  expect(silence[0]).toBe(7);
});

describe('what an interface cannot do is refused by name', () => {
  const request = { signals: [{ output: 8, samples: new Float32Array(10) }], inputs: [1], lengthFrames: 10 };
  it.each([
    [{ ...request, lengthFrames: 0 }, 'The take has no length.'],
    [{ ...request, inputs: [1, 9] }, 'Burrow 8 has no input 9.'],
    [{ ...request, signals: [{ output: 9, samples: new Float32Array(1) }] }, 'Burrow 8 has no output 9.'],
    [
      { ...request, signals: [{ output: 1, samples: Float32Array.of(0, 1.01) }] },
      /beyond full scale; nothing was played/,
    ],
    [{ ...request, signals: [{ output: 1, samples: Float32Array.of(NaN) }] }, /beyond full scale/],
  ])('%#', (wrong, told) => expect(() => checkRequest('Burrow 8', wrong, 8, 8)).toThrow(told));
  it('and what it can is not', () => expect(() => checkRequest('Burrow 8', request, 8, 8)).not.toThrow());
});
