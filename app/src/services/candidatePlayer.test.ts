import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CandidatePlayer, SWITCH_S } from './candidatePlayer';

/** What is asked of the browser's audio: enough of it to see levels over time. */
class FakeContext {
  static made: FakeContext[] = [];
  currentTime = 2;
  state = 'suspended';
  destination = {};
  sink = '';
  constructor() {
    FakeContext.made.push(this);
  }
  resume = async () => void (this.state = 'running');
  close = async () => void (this.state = 'closed');
  setSinkId? = async (id: string) => {
    if (id === 'gone') throw new DOMException('gone', 'NotFoundError');
    this.sink = id;
  };
}
class FakeParam {
  told: [string, ...number[]][] = [];
  constructor(public value: number) {}
  cancelScheduledValues = (at: number) => this.told.push(['cancel', at]);
  setValueAtTime = (v: number, at: number) => this.told.push(['set', v, at]);
  linearRampToValueAtTime = (v: number, at: number) => this.told.push(['ramp', v, at]);
  setTargetAtTime = (v: number, at: number, constant: number) => this.told.push(['target', v, at, constant]);
}
class FakeNode {
  connect = <T>(to: T): T => to;
  disconnect = () => {};
}
class FakeGain extends FakeNode {
  static made: FakeGain[] = [];
  gain: FakeParam;
  constructor(_: FakeContext, { gain }: { gain: number }) {
    super();
    this.gain = new FakeParam(gain);
    FakeGain.made.push(this);
  }
}
class FakeSource extends FakeNode {
  static made: FakeSource[] = [];
  onended: (() => void) | null = null;
  startedAt = NaN;
  constructor(
    _: FakeContext,
    readonly options: { buffer: FakeBuffer; loop: boolean },
  ) {
    super();
    FakeSource.made.push(this);
  }
  start = (at: number) => void (this.startedAt = at);
}
class FakeBuffer {
  channels: Float32Array[] = [];
  constructor(readonly options: { numberOfChannels: number; length: number; sampleRate: number }) {}
  copyToChannel = (samples: Float32Array, k: number) => void (this.channels[k] = samples);
}

const rate = 1000;
const sound = (v: number, length = 2000) => [
  new Float32Array(length).fill(v),
  new Float32Array(length).fill(-v),
];
/** Gains of the candidates; the first that is made fades all of them. */
const gains = () => FakeGain.made.slice(1).map((g) => g.gain);

beforeEach(() => {
  for (const fake of [FakeContext, FakeGain, FakeSource]) fake.made = [];
  vi.stubGlobal('AudioContext', FakeContext);
  vi.stubGlobal('GainNode', FakeGain);
  vi.stubGlobal('AudioBufferSourceNode', FakeSource);
  vi.stubGlobal('AudioBuffer', FakeBuffer);
});
afterEach(() => vi.unstubAllGlobals());

describe('candidates', () => {
  it('start all at once, and one of them is heard', async () => {
    const player = new CandidatePlayer(rate);
    await player.play([sound(0.1), sound(0.2), sound(0.3)], 1, true, () => {});
    expect(new Set(FakeSource.made.map((s) => s.startedAt)).size).toBe(1);
    expect(FakeSource.made[0]!.startedAt).toBeGreaterThan(2);
    expect(gains().map((g) => g.value)).toEqual([0, 1, 0]);
    expect(FakeSource.made[2]!.options).toMatchObject({
      loop: true,
      buffer: { options: { numberOfChannels: 2 } },
    });
    expect(FakeSource.made[2]!.options.buffer.channels[1]![5]).toBeCloseTo(-0.3, 6);
    expect(player.playing).toBe(true);
  });

  it('are exchanged by one straight crossfade each, from what is heard now, so that no step is left', async () => {
    const player = new CandidatePlayer(rate);
    await player.play([sound(0.1), sound(0.2)], 0, true, () => {});
    FakeContext.made[0]!.currentTime = 3;
    gains()[0]!.value = 0.4; // in the middle of another fade
    gains()[1]!.value = 0.6;
    player.hear(1);
    expect(gains()[0]!.told).toEqual([
      ['cancel', 3],
      ['set', 0.4, 3],
      ['ramp', 0, 3 + SWITCH_S],
    ]);
    expect(gains()[1]!.told).toEqual([
      ['cancel', 3],
      ['set', 0.6, 3],
      ['ramp', 1, 3 + SWITCH_S],
    ]);
    expect(SWITCH_S).toBeLessThanOrEqual(0.02);
    expect(FakeSource.made).toHaveLength(2); // nothing was started anew
  });

  it('tell where they are, round and round', async () => {
    const player = new CandidatePlayer(rate);
    expect(player.position()).toBe(0);
    await player.play([sound(0.1)], 0, true, () => {});
    const { startedAt } = FakeSource.made[0]!;
    const at = (s: number) => {
      FakeContext.made[0]!.currentTime = startedAt + s;
      return player.position();
    };
    expect(at(-0.02)).toBe(0);
    expect(at(0.5)).toBeCloseTo(0.5, 9);
    expect(at(2.25)).toBeCloseTo(0.25, 9);
  });

  it('fade out before the output is let go, and do not tell of an end that was made', async () => {
    const player = new CandidatePlayer(rate);
    const ended = vi.fn();
    await player.play([sound(0.1)], 0, false, ended);
    FakeSource.made[0]!.onended!();
    expect(ended).toHaveBeenCalledTimes(1);
    await player.stop();
    expect(FakeGain.made[0]!.gain.told[0]).toEqual(['target', 0, 2, SWITCH_S / 3]);
    expect(FakeContext.made[0]!.state).toBe('closed');
    expect(player.playing).toBe(false);
    FakeSource.made[0]!.onended!();
    expect(ended).toHaveBeenCalledTimes(1);
    player.hear(0); // nothing to be heard any more, and no error either
  });

  it('started again let go of the first output', async () => {
    const player = new CandidatePlayer(rate);
    await player.play([sound(0.1)], 0, true, () => {});
    await player.play([sound(0.2)], 0, true, () => {});
    expect(FakeContext.made.map((c) => c.state)).toEqual(['closed', 'running']);
  });
});

describe('the output', () => {
  it('that was chosen is asked for; without a choice the system has its way', async () => {
    await new CandidatePlayer(rate, 'desk').play([sound(0.1)], 0, true, () => {});
    await new CandidatePlayer(rate).play([sound(0.1)], 0, true, () => {});
    expect(FakeContext.made.map((c) => c.sink)).toEqual(['desk', '']);
  });

  it('that is not there is told in a sentence, and nothing plays on another one', async () => {
    const player = new CandidatePlayer(rate, 'gone');
    await expect(player.play([sound(0.1)], 0, true, () => {})).rejects.toThrow(/not there; plug it in/);
    expect(player.playing).toBe(false);
    expect(FakeSource.made).toHaveLength(0);
    expect(FakeContext.made[0]!.state).toBe('closed');
  });

  it('cannot be chosen in every browser', async () => {
    class Without extends FakeContext {
      constructor() {
        super();
        delete this.setSinkId;
      }
    }
    vi.stubGlobal('AudioContext', Without);
    await expect(new CandidatePlayer(rate, 'desk').play([sound(0.1)], 0, true, () => {})).rejects.toThrow(
      /cannot choose an output/,
    );
  });
});
