import { boxImpulse, type Vector } from '@pebble-hall/core/room';
import {
  biquadSpectrum,
  delaySpectrum,
  fftSizeFor,
  gainOfDb,
  inverseRealFft,
  multiplySpectra,
  realFft,
  seededRandom,
  seedFrom,
  shapedNoise,
  type HalfSpectrum,
} from '@pebble-hall/core/signal';
import {
  NET_LOFT,
  NET_LOFT_LOUDSPEAKERS,
  NET_LOFT_SISKIN,
  siskinSections,
  sourceOf,
} from '../net-loft/index.js';
import { outputSpectrum, plainOutput, type OutputSettings } from '../processor/index.js';

/** The Burrow 8: inputs, outputs, latency and noise of its own. */
export const BURROW = {
  name: 'Burrow 8',
  rate: 48000,
  outputs: 8,
  inputs: ['Microphone', 'Loopback'],
  /** samples from output to input */
  latency: 574.37,
} as const;

/** What can go wrong, for tests and for practice. */
export interface Faults {
  /** a door slams during the next sweep; told back once it has */
  doorSlam: boolean;
  /** outputs that carry nothing, from 1 */
  silentOutputs: number[];
  /** outputs wired the wrong way round */
  reversedOutputs: number[];
  /** the microphone input's gain is far too high */
  hotInput: boolean;
}

export const noFaults = (): Faults => ({
  doorSlam: false,
  silentOutputs: [],
  reversedOutputs: [],
  hotInput: false,
});

export interface RigTake {
  /** what is played on which output, from 1; nothing for a recording of silence */
  signals: { output: number; samples: Float32Array }[];
  lengthFrames: number;
  /** where the microphone stands, metres in the room */
  microphone: Vector;
  /** what the processor does to each output, in order, and the filters that go with it */
  outputs: OutputSettings[];
  filters: Float32Array[];
  faults: Faults;
  /** takes of one number are equal, others have noise of their own */
  take: number;
}

/** dB re full scale over the whole band: the loft's own noise at the microphone input, and the interface's. */
const ROOM_NOISE_DB = -68;
const INPUT_NOISE_DB = -96;
const TRUTH_SIZE = 65536;

/** Traffic below 30 Hz, ventilation above it, falling faster towards the highs. */
const roomNoise = (f: number) => (f < 12 ? 0 : (1 / f) * (1 + 20 / f) * (1 / (1 + (f / 900) ** 0.7)));

/**
 * A rig in the Net Loft: plays through the processor and a loudspeaker into the room and records it with a Siskin M1, the
 * loopback beside it. The same seed and takes give the same recordings.
 */
export class SimulatedRoom {
  private readonly rooms = new Map<string, HalfSpectrum>();

  constructor(private readonly seed = 1) {}

  /** Microphone and loopback as recorded, full scale = 1. */
  record({
    signals,
    lengthFrames,
    microphone,
    outputs,
    filters,
    faults,
    take,
  }: RigTake): [Float32Array, Float32Array] {
    const { rate, latency } = BURROW;
    const size = fftSizeFor(Math.max(lengthFrames, ...signals.map((s) => s.samples.length + TRUTH_SIZE)));
    const sum = { size, re: new Float64Array(size / 2 + 1), im: new Float64Array(size / 2 + 1) };
    const loop = { size, re: new Float64Array(size / 2 + 1), im: new Float64Array(size / 2 + 1) };
    for (const { output, samples } of signals) {
      const played = realFft(samples, size);
      add(loop, played);
      const place = NET_LOFT_LOUDSPEAKERS.find((l) => l.output === output);
      if (!place || faults.silentOutputs.includes(output)) continue;
      const settings = outputs[output - 1] ?? plainOutput();
      const filter = filters[output - 1] ?? new Float32Array(0);
      const driven = inverseRealFft(multiplySpectra(played, outputSpectrum(settings, filter, size)));
      const { second, third } = place.model.distortion;
      const sign = faults.reversedOutputs.includes(output) ? -1 : 1;
      for (let i = 0; i < size; i++) {
        const x = sign * driven[i]!;
        driven[i] = x + second * x * x + third * x * x * x;
      }
      add(sum, multiplySpectra(realFft(driven), this.roomSpectrum(output, microphone, size)));
    }
    const heard = inverseRealFft(
      delaySpectrum(multiplySpectra(sum, biquadSpectrum(siskinSections(NET_LOFT_SISKIN), size)), latency),
    );
    const looped = inverseRealFft(delaySpectrum(loop, latency));
    const random = seededRandom(seedFrom(this.seed, `input ${take}`));
    const noise = shapedNoise(lengthFrames, rate, seedFrom(this.seed, `room ${take}`), roomNoise);
    const slam = faults.doorSlam && signals.length > 0 ? this.doorSlam(lengthFrames, take) : null;
    const gain = faults.hotInput ? gainOfDb(40) : 1;
    const [roomGain, inputGain] = [gainOfDb(ROOM_NOISE_DB), gainOfDb(INPUT_NOISE_DB)];
    const clip = (v: number) => Math.max(-1, Math.min(1, v));
    const mic = new Float32Array(lengthFrames);
    const loopback = new Float32Array(lengthFrames);
    for (let i = 0; i < lengthFrames; i++) {
      mic[i] = clip(
        gain * (heard[i]! + roomGain * noise[i]! + (slam ? slam[i]! : 0)) + inputGain * random.normal(),
      );
      loopback[i] = clip(looped[i]! + inputGain * random.normal());
    }
    return [mic, loopback];
  }

  /** Loudspeaker and room up to the microphone; computed once per loudspeaker and place. */
  private roomSpectrum(output: number, microphone: Vector, size: number): HalfSpectrum {
    const path = `${output} ${microphone.map((v) => v.toFixed(3)).join(' ')}`;
    const key = `${path} ${size}`;
    let spectrum = this.rooms.get(key);
    if (!spectrum) {
      const place = NET_LOFT_LOUDSPEAKERS.find((l) => l.output === output)!;
      const seed = seedFrom(this.seed, `tail ${path}`);
      const options = { rate: BURROW.rate, size: TRUTH_SIZE, seed };
      spectrum = realFft(boxImpulse(NET_LOFT, sourceOf(place), microphone, options), size);
      if (this.rooms.size >= 24) this.rooms.delete(this.rooms.keys().next().value!);
      this.rooms.set(key, spectrum);
    }
    return spectrum;
  }

  private doorSlam(length: number, take: number): Float64Array {
    const random = seededRandom(seedFrom(this.seed, `slam ${take}`));
    const from = Math.round((0.3 + 0.35 * random.uniform()) * length);
    const out = new Float64Array(length);
    const burst = shapedNoise(16384, BURROW.rate, seedFrom(this.seed, `bang ${take}`), (f) =>
      f > 45 && f < 5000 ? 1 / f : 0,
    );
    const level = gainOfDb(-24);
    for (let i = 0; i < burst.length && from + i < length; i++) {
      out[from + i] = level * burst[i]! * Math.exp(-i / 2600) * Math.min(1, i / 60);
    }
    return out;
  }
}

function add(sum: HalfSpectrum, part: HalfSpectrum): void {
  for (let k = 0; k < sum.re.length; k++) {
    sum.re[k]! += part.re[k]!;
    sum.im[k]! += part.im[k]!;
  }
}
