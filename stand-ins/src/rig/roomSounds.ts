import { gainOfDb, seededRandom, seedFrom, shapedNoise } from '@pebble-hall/core/signal';
import type { RoomSound } from './faults.js';

const RATE = 48_000;
/** What is heard repeats after 11 s, each microphone at another moment of it. */
const LOOP = 1 << 19;
/** From one train to the next, and how long it is heard, seconds. */
const TRAIN_EVERY_S = 60;
const TRAIN_S = 26;

/** dB re full scale over the whole band; a Siskin M1 turns 120 dB of sound pressure into full scale. */
const LEVEL_DB: Record<RoomSound, number> = { audience: -46, bar: -52, fan: -50, train: -44 };

/** What goes on in the place while one measures, as every microphone hears it, from frame to frame without a seam. */
export class RoomSounds {
  private readonly loops = new Map<RoomSound, Float64Array>();

  constructor(private readonly seed: number) {}

  /**
   * Adds some of them to what a microphone hears.
   * @param fromFrame since the session began; a train comes soon after
   */
  addTo(
    out: Float32Array,
    sounds: readonly RoomSound[],
    input: number,
    fromFrame: number,
    gain: number,
  ): void {
    for (const sound of sounds) {
      const loop = this.loopOf(sound);
      const level = gain * gainOfDb(LEVEL_DB[sound]);
      const start = fromFrame + 50_021 * input;
      for (let i = 0; i < out.length; i++) {
        const near = sound === 'train' ? passing((fromFrame + i) / RATE) : 1;
        out[i] = out[i]! + near * level * loop[(start + i) % LOOP]!;
      }
    }
  }

  private loopOf(sound: RoomSound): Float64Array {
    const known = this.loops.get(sound);
    if (known) return known;
    const made = MAKE[sound](seedFrom(this.seed, sound));
    this.loops.set(sound, made);
    return made;
  }
}

/** How much of a train is heard, 0 to 1. */
function passing(atS: number): number {
  const t = (atS % TRAIN_EVERY_S) - 4;
  return t > 0 && t < TRAIN_S ? Math.sin((Math.PI * t) / TRAIN_S) ** 2 : 0;
}

const MAKE: Record<RoomSound, (seed: number) => Float64Array> = {
  audience: talkers,
  bar: clinks,
  fan: (seed) => {
    const air = shapedNoise(LOOP, RATE, seed, (f) => (f < 20 ? 0 : 1 / (1 + (f / 160) ** 2)));
    // four blades at 24 turns a second
    return ofUnitRms(air.map((v, i) => v + tone(96, i) + 0.4 * tone(192, i)));
  },
  train: (seed) => shapedNoise(LOOP, RATE, seed, (f) => (f < 18 ? 0 : 1 / (1 + (f / 110) ** 3))),
};

const tone = (hz: number, i: number) =>
  Math.sin((2 * Math.PI * ((Math.round((hz * LOOP) / RATE) * i) % LOOP)) / LOOP);

/** A room full of talk: noise with the spectrum of speech, a few voices each with syllables of its own. */
function talkers(seed: number): Float64Array {
  const out = new Float64Array(LOOP);
  for (let voice = 0; voice < 6; voice++) {
    const own = seedFrom(seed, `voice ${voice}`);
    const sound = shapedNoise(LOOP, RATE, own, (f) => (f < 110 ? 0 : 1 / (1 + (f / 500) ** 2.4)));
    const pace = shapedNoise(LOOP, RATE, own + 1, (f) => (f > 1.5 && f < 7 ? 1 : 0));
    for (let i = 0; i < LOOP; i++) out[i] = out[i]! + sound[i]! * Math.max(0, 0.4 + pace[i]!);
  }
  return ofUnitRms(out);
}

/** Glasses and crates: short bright tones and a thump now and then. */
function clinks(seed: number): Float64Array {
  const random = seededRandom(seed);
  const out = new Float64Array(LOOP);
  const strike = (hz: number, decayS: number, level: number) => {
    const from = Math.floor(random.uniform() * LOOP);
    for (let i = 0; i < 5 * decayS * RATE; i++) {
      const at = (from + i) % LOOP;
      out[at] = out[at]! + level * Math.exp(-i / (decayS * RATE)) * Math.sin((2 * Math.PI * hz * i) / RATE);
    }
  };
  for (let n = 0; n < 40; n++)
    strike(1800 + 5000 * random.uniform(), 0.03 + 0.08 * random.uniform(), random.uniform());
  for (let n = 0; n < 9; n++) strike(60 + 60 * random.uniform(), 0.08, 2 * random.uniform());
  return ofUnitRms(out);
}

function ofUnitRms(samples: Float64Array): Float64Array {
  const rms = Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length);
  return samples.map((v) => v / rms);
}
