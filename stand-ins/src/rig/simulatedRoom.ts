import { drivesOf, feedPath, plainOutput, type OutputSettings } from '@pebble-hall/core/processing';
import { pathTrace } from '@pebble-hall/core/path';
import type { Point } from '@pebble-hall/core/geometry';
import {
  addTo,
  binFrequencies,
  biquadSpectrum,
  butterworth,
  delayTrace,
  emptySpectrum,
  fftSizeFor,
  gainOfDb,
  inverseRealFft,
  multiplyTraces,
  peaking,
  realFft,
  seededRandom,
  seedFrom,
  shapedNoise,
  type ComplexTrace,
} from '@pebble-hall/core/signal';
import { siskinSections, type Incidence } from '../net-loft/index.js';
import { SimulatedWays } from './simulatedWays.js';
import {
  modelOfLoudspeaker,
  NET_LOFT_PLACE,
  type SimulatedLoudspeaker,
  type SimulatedPlace,
} from './simulatedPlace.js';
import { calibratorTone, feedsOf, humOf, inputGainDb, type Faults } from './faults.js';
import { keptIn } from './keptIn.js';
import { BURROW, INPUT_NOISE_DB, ROOM_NOISE_DB, roomNoise } from './burrow.js';
import { skerryPath } from '../processor/index.js';
import { mixerFeeds, mixerHiss, type BenchDevice } from './mixerFeeds.js';
import type { SessionWays } from './simulatedSession.js';

/** From output to input: the coupling of the converters below, their filter above. */
const ownSections = () => [
  ...butterworth('highpass', 1, 2.4, BURROW.rate),
  peaking(20500, -1.4, 0.9, BURROW.rate),
];

const known = new Map<string, ComplexTrace>();

/** From output to input with the interface's latency, through a microphone's capsule or by cable (null). */
function electronics(
  size: number,
  microphone: Pick<PlacedMicrophone, 'serial' | 'incidenceDeg'> | null,
): ComplexTrace {
  return keptIn(known, `${size} ${microphone?.serial} ${microphone?.incidenceDeg}`, MOST_SPECTRA, () => {
    const capsule = microphone ? siskinSections(microphone.serial, microphone.incidenceDeg) : [];
    return delayTrace(biquadSpectrum([...ownSections(), ...capsule], size), BURROW.latency);
  });
}

/** A microphone at an input, where it stands, which one it is and how it points. */
export interface PlacedMicrophone {
  /** from 1 */
  input: number;
  position: Point;
  serial: number;
  incidenceDeg: Incidence;
  /** of the input, set by hand on the Burrow 8 */
  gainDb: number;
}

export interface RigTake {
  /** what is played on which output, from 1; nothing for a recording of silence */
  signals: { output: number; samples: Float32Array }[];
  /** whether the processor plays each signal on the output of its number alone, as for measuring, or as its inputs are fed on */
  through?: 'outputs' | 'inputs';
  lengthFrames: number;
  microphones: PlacedMicrophone[];
  /** what the processor does to each output, in order, and the filters that go with it */
  outputs: OutputSettings[];
  filters: Float32Array[];
  faults: Faults;
  /** inputs that are wanted, from 1; of the others nothing comes back. All when absent */
  inputs?: number[];
  /** takes of one number are equal, others have noise of their own */
  take: number;
}

/** Room for what processor and interface add to the length of a signal. */
const CHAIN_SIZE = 16384;
/** Of each size of transform and each way through the room, so many are kept; impulse responses take longer to work out, and less room. */
const MOST_SPECTRA = 24;
const MOST_IMPULSES = 64;
/** How much the excursion of a torn cone is bent. */
const TORN = 0.35;
const AHEAD = 256;
const LOOPBACK_SIZE = 8192;
/** What is coupled by capacitors dies away slowly. */
const DEVICE_SIZE = 16_384;
/** The noise that meters hear repeats after 11 s. */
const LOOP = 1 << 19;

/**
 * A rig in a place (the Net Loft, unless told otherwise): plays through the processor and a loudspeaker into the room and records it
 * with a Siskin M1, the loopback beside it. The same seed and takes give the same recordings.
 */
export class SimulatedRoom {
  private readonly spectra = new Map<string, ComplexTrace>();
  private readonly impulses = new Map<string, Float64Array>();

  /** @param seed of all that is left to chance. @param builtAs seed of the reverberant tail: the same building with other noise @param rays see `SimulatedWays` */
  constructor(
    private readonly seed = 1,
    private readonly builtAs = seed,
    private place: SimulatedPlace = NET_LOFT_PLACE,
    private readonly rays: number | null = null,
  ) {}

  /** Moves the rig into another place, or the same one after something in it has moved: ways of sound that are still true are kept. */
  moveTo(place: SimulatedPlace): void {
    const roomOf = ({ shape, roomMesh, temperatureC, relativeHumidityPercent }: SimulatedPlace) =>
      JSON.stringify([shape, roomMesh ?? null, temperatureC, relativeHumidityPercent]);
    if (roomOf(place) !== roomOf(this.place)) {
      this.madeWays = undefined;
      this.impulses.clear();
      this.spectra.clear();
    }
    this.place = place;
  }
  private madeWays: SimulatedWays | undefined;
  private get throughRoom(): SimulatedWays {
    return (this.madeWays ??= new SimulatedWays(this.place, BURROW.rate, this.builtAs, this.rays));
  }

  /** The same room, already worked out, in another hour: other noise. */
  another(seed: number): SimulatedRoom {
    const room = new SimulatedRoom(seed, this.builtAs, this.place, this.rays);
    room.madeWays = this.madeWays;
    for (const [key, spectrum] of this.spectra) room.spectra.set(key, spectrum);
    for (const [key, impulse] of this.impulses) room.impulses.set(key, impulse);
    return room;
  }

  /**
   * Every input of the interface as recorded, full scale = 1.
   * @param onProgress told the share of the ways of sound that are worked out
   */
  record(
    {
      signals,
      through = 'outputs',
      lengthFrames,
      microphones,
      outputs,
      filters,
      faults,
      inputs = BURROW.inputs.map((_, i) => i + 1),
      take,
    }: RigTake,
    onProgress: (share: number) => void = () => {},
  ): Float32Array[] {
    const { rate } = BURROW;
    const out = BURROW.inputs.map((_, i) =>
      inputs.includes(i + 1) ? this.inputNoise(lengthFrames, i + 1, take) : new Float32Array(0),
    );
    const listening = microphones.filter((m) => inputs.includes(m.input));
    const looped = !faults.loopbackOut && inputs.includes(BURROW.loopbackInput);
    for (const [n, { output: input, samples }] of (listening.length > 0 || looped ? signals : []).entries()) {
      // silence ahead and behind costs nothing: each signal is worked out by itself, as long as it sounds
      const [from, to] = soundingPart(samples);
      const size = fftSizeFor(to - from + this.throughRoom.size + CHAIN_SIZE);
      const spectrum = realFft(samples.subarray(from, to), size, rate);
      const drives =
        through === 'outputs'
          ? [{ output: input, played: spectrum }]
          : drivesOf(outputs, input).map(({ output, feed }) => ({
              output,
              played: feed
                ? multiplyTraces(spectrum, pathTrace(feedPath(feed, rate), spectrum.frequency))
                : spectrum,
            }));
      const sums = listening.map(() => emptySpectrum(size));
      for (const [d, { output, played }] of drives.entries()) {
        onProgress((n + d / drives.length) / signals.length);
        const settings = outputs[output - 1] ?? plainOutput();
        const filter = filters[output - 1] ?? new Float32Array(0);
        const set = multiplyTraces(played, pathTrace(skerryPath(settings, filter), spectrum.frequency));
        for (const { loudspeaker, gain } of feedsOf(output, faults, this.place.loudspeakers)) {
          const driven = inverseRealFft(set);
          const { second, third } = modelOfLoudspeaker(loudspeaker).distortion;
          // a torn cone buzzes: its excursion is bent, however soft
          const torn = faults.tornOutputs.includes(output) ? TORN : 0;
          for (let i = 0; i < size; i++) {
            const x = gain * driven[i]!;
            driven[i] = x + second * x * x + third * x * x * x + torn * Math.abs(x);
          }
          const sound = realFft(driven);
          listening.forEach((m, i) =>
            addTo(sums[i]!, multiplyTraces(sound, this.roomSpectrum(loudspeaker, m.position, size))),
          );
        }
      }
      listening.forEach((microphone, i) => {
        const heard = inverseRealFft(multiplyTraces(sums[i]!, electronics(size, microphone)));
        mix(out[microphone.input - 1]!, heard, inputGain(microphone, faults), from);
      });
      if (looped) {
        const back = inverseRealFft(multiplyTraces(spectrum, electronics(size, null)));
        mix(out[BURROW.loopbackInput - 1]!, back, 1, from);
      }
    }
    const slam = faults.doorSlam && signals.length > 0 ? this.doorSlam(lengthFrames, take) : null;
    for (const microphone of listening) {
      const gain = inputGain(microphone, faults);
      const channel = out[microphone.input - 1]!;
      const seed = seedFrom(this.seed, `room ${take} ${microphone.input}`);
      mix(channel, shapedNoise(lengthFrames, rate, seed, roomNoise), gain * gainOfDb(ROOM_NOISE_DB));
      if (slam) mix(channel, slam, gain);
      if (faults.hum) mix(channel, humOf(lengthFrames, 0), gain);
    }
    for (const channel of out) for (let i = 0; i < channel.length; i++) channel[i] = clip(channel[i]!);
    return out;
  }

  /**
   * What a microphone hears while nothing plays, from frame to frame without a seam: the room, and the level calibrator
   * where it is put on. For meters.
   */
  listen(microphone: PlacedMicrophone, faults: Faults, fromFrame: number, length: number): Float32Array {
    const gain = inputGain(microphone, faults);
    const out = new Float32Array(length);
    this.loop ??= shapedNoise(LOOP, BURROW.rate, seedFrom(this.seed, 'listening'), roomNoise);
    const { calibrator } = faults;
    // the calibrator's cavity shuts the room out
    const room = gainOfDb(ROOM_NOISE_DB + (calibrator ? -25 : 0));
    for (let i = 0; i < length; i++) out[i] = gain * room * this.loop[(fromFrame + i) % LOOP]!;
    if (calibrator) mix(out, calibratorTone(calibrator, fromFrame, length), gain);
    else if (faults.hum) mix(out, humOf(length, fromFrame), gain);
    const hiss = this.inputNoise(length, microphone.input, fromFrame);
    for (let i = 0; i < length; i++) out[i] = clip(out[i]! + hiss[i]!);
    return out;
  }

  /** The same of several inputs at once; one without a microphone is silent. */
  listenAll(
    microphones: PlacedMicrophone[],
    faults: Faults,
    inputs: number[],
    fromFrame: number,
    length: number,
  ): Float32Array[] {
    return inputs.map((input) => {
      const microphone = microphones.find((m) => m.input === input);
      return microphone ? this.listen(microphone, faults, fromFrame, length) : new Float32Array(length);
    });
  }

  private loop: Float64Array | undefined;

  /**
   * How sound gets from some outputs to every microphone, as impulse responses: what a session plays through.
   * @param microphones whose inputs are wanted
   * @param device on the bench; null for none
   */
  ways({
    played,
    microphones,
    outputs,
    filters,
    faults,
    device,
  }: Pick<RigTake, 'microphones' | 'outputs' | 'filters' | 'faults'> & {
    played: number[];
    device: BenchDevice | null;
  }): SessionWays {
    const size = fftSizeFor(this.throughRoom.size + CHAIN_SIZE);
    const impulseOf = (trace: ComplexTrace, lateBy: number) =>
      Float32Array.from(inverseRealFft(delayTrace(trace, lateBy)));
    const feeds = played.flatMap((output) => {
      const settings = outputs[output - 1] ?? plainOutput();
      const path = skerryPath(settings, filters[output - 1] ?? new Float32Array(0));
      // a little late here and as early there: what rings ahead of a fraction of a sample stays ahead
      const drive = impulseOf(pathTrace(path, binFrequencies(size, BURROW.rate)), AHEAD / BURROW.rate);
      return feedsOf(output, faults, this.place.loudspeakers).map(({ loudspeaker, gain }) => ({
        output,
        gain,
        ...modelOfLoudspeaker(loudspeaker).distortion,
        torn: faults.tornOutputs.includes(output) ? TORN : 0,
        drive,
        ways: microphones.map((m) => ({
          input: m.input,
          impulse: impulseOf(
            multiplyTraces(this.roomSpectrum(loudspeaker, m.position, size), electronics(size, m)),
            -AHEAD,
          ),
        })),
      }));
    });
    const loopback = faults.loopbackOut ? null : impulseOf(electronics(LOOPBACK_SIZE, null), 0);
    if (!device) return { loopback, feeds, hiss: [] };
    const bench = played.includes(device.output)
      ? mixerFeeds(device, electronics(DEVICE_SIZE, null), DEVICE_SIZE, BURROW.rate)
      : [];
    return { loopback, feeds: [...feeds, ...bench], hiss: mixerHiss(device) };
  }

  private inputNoise(length: number, input: number, take: number): Float32Array {
    const random = seededRandom(seedFrom(this.seed, `input ${input} ${take}`));
    const level = gainOfDb(INPUT_NOISE_DB);
    const out = new Float32Array(length);
    for (let i = 0; i < length; i++) out[i] = level * random.normal();
    return out;
  }

  /** Loudspeaker and room up to the microphone; computed once per loudspeaker and place. */
  private roomSpectrum(loudspeaker: SimulatedLoudspeaker, microphone: Point, size: number): ComplexTrace {
    const { output, position, aimDeg, pitchDeg, rollDeg, model, group } = loudspeaker;
    const at = [microphone.x, microphone.y, microphone.z].map((v) => v.toFixed(3)).join(' ');
    const twins = this.place.loudspeakers.filter((l) => l.output === output);
    const path = `${output} ${at}${twins[0] === loudspeaker ? '' : ` ${twins.indexOf(loudspeaker)}`}`;
    const key = JSON.stringify([path, model, position, aimDeg, pitchDeg, rollDeg, group]);
    return keptIn(this.spectra, `${key} ${size}`, MOST_SPECTRA, () => {
      const impulse = keptIn(this.impulses, key, MOST_IMPULSES, () =>
        this.throughRoom.impulse(loudspeaker, this.place.loudspeakers, microphone),
      );
      return realFft(impulse, size);
    });
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

const clip = (v: number) => Math.max(-1, Math.min(1, v));
const inputGain = ({ gainDb }: PlacedMicrophone, faults: Faults) => gainOfDb(inputGainDb(gainDb, faults));

function mix(channel: Float32Array, part: Float64Array, gain: number, from = 0): void {
  const length = Math.min(part.length, channel.length - from);
  for (let i = 0; i < length; i++) channel[from + i] = channel[from + i]! + gain * part[i]!;
}

/** From the first sample that is not 0 to behind the last one; something of a signal that is silent. */
function soundingPart(samples: Float32Array): [number, number] {
  let [from, to] = [0, samples.length];
  while (from < to - 1 && samples[from] === 0) from++;
  while (to > from + 1 && samples[to - 1] === 0) to--;
  return [from, to];
}
