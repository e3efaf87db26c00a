import { GeneratorPlayer, type GeneratorOrder } from '@pebble-hall/core/live';
import {
  gainOfDb,
  partitionFilter,
  PartitionedInput,
  seededRandom,
  seedFrom,
  shapedNoise,
  type PartitionedFilter,
  type Random,
} from '@pebble-hall/core/signal';
import { humOf, inputGainDb, type Faults } from './faults.js';
import { RoomSounds } from './roomSounds.js';
import { BURROW, INPUT_NOISE_DB, ROOM_NOISE_DB, roomNoise } from './burrow.js';

/** One loudspeaker that an output drives, and what every microphone hears of it. */
export interface SessionFeed {
  output: number;
  gain: number;
  second: number;
  third: number;
  torn: number;
  /** where it ends softly, full scale = 1; null for nowhere */
  ceiling?: number | null;
  /** from the output's signal to the loudspeaker */
  drive: Float32Array;
  /** from the loudspeaker to each input with a microphone */
  ways: { input: number; impulse: Float32Array }[];
}

/** How sound gets from every output to every input at the moment. */
export interface SessionWays {
  /** from the generator to the loopback input; null while its cable is out */
  loopback: Float32Array | null;
  feeds: SessionFeed[];
  /** RMS of white noise that a device adds at an input of its own, full scale = 1 */
  hiss: { input: number; level: number }[];
}

export interface SessionMicrophone {
  input: number;
  gainDb: number;
}

/** What was lost of a filter that is cut when it has died away, dB. */
const CUT_DB = -115;
const LONGEST = 1 << 17;
const LOOPBACK_LONGEST = 1 << 14;

interface Way {
  now: PartitionedFilter | null;
  next: PartitionedFilter | null;
}
interface Feed extends Omit<SessionFeed, 'drive' | 'ways'> {
  drive: Way;
  sound: PartitionedInput;
  ways: Map<number, Way>;
}

/**
 * The simulated rig while it streams: a generator, the processor, loudspeakers, the room and microphones, block by block.
 * Where something moves, what was heard before fades into what is heard now.
 */
export class SimulatedSession {
  private readonly player = new GeneratorPlayer(BURROW.rate);
  private outputs: number[] = [];
  /** what leaves by each of the generator's ways */
  private readonly left: PartitionedInput[];
  /** what the generator plays, whichever way it goes: a cable ties it to the loopback input */
  private readonly played: PartitionedInput;
  private readonly looped: Way = { now: null, next: null };
  private feeds: Feed[] = [];
  private deviceHiss: SessionWays['hiss'] = [];
  private microphones: readonly SessionMicrophone[] = [];
  private faults: Faults | null = null;
  private frame = 0;
  private readonly noise: Float64Array;
  private readonly sounds: RoomSounds;
  private readonly hiss: Random;
  private readonly buffers: Float32Array[];
  private readonly driven: Float64Array;

  /** @param block samples in a block, a power of two */
  constructor(
    readonly block: number,
    private readonly inputs: readonly number[],
    seed = 1,
  ) {
    this.left = [0, 1].map(() => new PartitionedInput(block, LONGEST));
    this.played = new PartitionedInput(block, LOOPBACK_LONGEST);
    this.buffers = [0, 1].map(() => new Float32Array(block));
    this.driven = new Float64Array(block);
    this.noise = shapedNoise(1 << 19, BURROW.rate, seedFrom(seed, 'session'), roomNoise);
    this.sounds = new RoomSounds(seed);
    this.hiss = seededRandom(seedFrom(seed, 'session inputs'));
  }

  /** @param outputs one or two, from 1 */
  play(order: GeneratorOrder, outputs: readonly number[]): void {
    this.player.play(order);
    this.outputs = [...outputs];
  }

  /** What goes wrong, and what else is heard, from now on. */
  set(microphones: readonly SessionMicrophone[], faults: Faults): void {
    this.microphones = microphones;
    this.faults = faults;
  }

  /** How sound travels from now on. */
  change({ loopback, feeds, hiss }: SessionWays): void {
    this.deviceHiss = hiss;
    turnTo(this.looped, loopback, this.block);
    const before = this.feeds;
    this.feeds = feeds.map(({ drive, ways, ...feed }, i): Feed => {
      const old = before[i]?.output === feed.output ? before[i] : undefined;
      const kept: Feed = {
        ...feed,
        drive: old?.drive ?? { now: null, next: null },
        sound: old?.sound ?? new PartitionedInput(this.block, LONGEST),
        ways: new Map(),
      };
      turnTo(kept.drive, drive, this.block);
      for (const { input, impulse } of ways) {
        const way = old?.ways.get(input) ?? { now: null, next: null };
        turnTo(way, impulse, this.block);
        kept.ways.set(input, way);
      }
      return kept;
    });
  }

  /**
   * The next block.
   * @param generator overwritten with what the generator plays
   * @returns every input that was asked for, in that order
   */
  next(generator: Float32Array): Float32Array[] {
    const { block, buffers, left, faults, driven } = this;
    this.player.read(generator, buffers);
    left.forEach((input, w) => input.push(buffers[w]!));
    this.played.push(generator);
    const heard = new Map(this.inputs.map((input) => [input, new Float32Array(block)]));
    for (const feed of this.feeds) {
      driven.fill(0);
      this.outputs.forEach((output, w) => {
        if (output === feed.output) through(left[w]!, feed.drive, driven);
      });
      const { gain, second, third, torn, ceiling } = feed;
      for (let i = 0; i < block; i++) {
        const x = gain * driven[i]!;
        const bent = x + second * x * x + third * x * x * x + torn * Math.abs(x);
        driven[i] = ceiling ? softly(bent, ceiling) : bent;
      }
      feed.sound.push(driven);
      for (const [input, way] of feed.ways) {
        const out = heard.get(input);
        if (out) through(feed.sound, way, out, this.gainOf(input));
      }
    }
    for (const feed of this.feeds) for (const way of [feed.drive, ...feed.ways.values()]) turned(way);
    const back = heard.get(BURROW.loopbackInput);
    if (back) through(this.played, this.looped, back);
    turned(this.looped);
    for (const { input } of this.microphones) {
      const out = heard.get(input);
      if (!out) continue;
      const gain = this.gainOf(input);
      const start = this.frame + 70_001 * input;
      const level = gain * gainOfDb(ROOM_NOISE_DB);
      for (let i = 0; i < block; i++) out[i] = out[i]! + level * this.noise[(start + i) % this.noise.length]!;
      if (faults?.hum) humOf(block, this.frame).forEach((v, i) => (out[i] = out[i]! + gain * v));
      if (faults) this.sounds.addTo(out, faults.sounds, input, this.frame, gain);
    }
    for (const [input, out] of heard) {
      // the two are independent of each other: their powers add up
      const ofDevice = this.deviceHiss.find((h) => h.input === input)?.level ?? 0;
      const hiss = Math.hypot(gainOfDb(INPUT_NOISE_DB), ofDevice);
      for (let i = 0; i < block; i++) {
        const v = out[i]! + hiss * this.hiss.normal();
        out[i] = v > 1 ? 1 : v < -1 ? -1 : v;
      }
    }
    this.frame += block;
    return this.inputs.map((input) => heard.get(input)!);
  }

  private gainOf(input: number): number {
    const microphone = this.microphones.find((m) => m.input === input);
    return microphone && this.faults ? gainOfDb(inputGainDb(microphone.gainDb, this.faults)) : 1;
  }
}

/** An end that is reached softly: as it is well below it, never beyond. */
const softly = (x: number, ceiling: number): number => {
  const share = Math.abs(x) / ceiling;
  return share < 0.2 ? x : x / (1 + share ** 8) ** (1 / 8);
};

function turnTo(way: Way, impulse: Float32Array | null, block: number): void {
  const next = partitionFilter(impulse ? withoutTail(impulse) : new Float32Array(1), block);
  if (way.now) way.next = next;
  else way.now = next;
}

/** Adds what a way gives; while it turns, what it gave before fades into it. */
function through(
  input: PartitionedInput,
  { now, next }: Way,
  out: Float32Array | Float64Array,
  gain = 1,
): void {
  if (!now) return;
  if (!next) return input.addThrough(now, out, gain);
  const { block } = input;
  const [before, after] = [new Float64Array(block), new Float64Array(block)];
  input.addThrough(now, before, gain);
  input.addThrough(next, after, gain);
  for (let i = 0; i < block; i++) out[i] = out[i]! + before[i]! + ((after[i]! - before[i]!) * i) / block;
}

function turned(way: Way): void {
  if (!way.next) return;
  way.now = way.next;
  way.next = null;
}

function withoutTail(impulse: Float32Array): Float32Array {
  let peak = 0;
  for (let i = 0; i < impulse.length; i++) peak = Math.max(peak, Math.abs(impulse[i]!));
  const floor = peak * gainOfDb(CUT_DB);
  let end = Math.min(impulse.length, LONGEST);
  while (end > 1 && Math.abs(impulse[end - 1]!) < floor) end--;
  return impulse.subarray(0, end);
}
