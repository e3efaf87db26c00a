import { dbOfPower } from '../signal/index.js';

/** How an input stands; dB re full scale (RMS 1, peak 1), -Infinity of silence. */
export interface InputLevel {
  input: number;
  /** over the last eighth of a second */
  levelDb: number;
  /** highest of the last second and a half */
  peakDb: number;
  /** samples at full scale since it was begun */
  clipped: number;
  /** samples that were no number */
  broken: number;
}

const FAST_S = 0.125;
const HOLD_S = 1.5;
const FULL = 0.9999;

/** Level and peak of an input that streams. */
export class InputMeter {
  private power = 0;
  private peak = 0;
  private heldFor = 0;
  private clipped = 0;
  private broken = 0;
  private readonly rise: number;

  constructor(
    private readonly input: number,
    private readonly rate: number,
  ) {
    this.rise = 1 - Math.exp(-1 / (FAST_S * rate));
  }

  process(samples: Float32Array): void {
    let peak = 0;
    for (let i = 0; i < samples.length; i++) {
      const v = samples[i]!;
      if (!Number.isFinite(v)) {
        this.broken++;
        continue;
      }
      this.power += this.rise * (v * v - this.power);
      const size = v < 0 ? -v : v;
      if (size > peak) peak = size;
      if (size >= FULL) this.clipped++;
    }
    this.heldFor += samples.length / this.rate;
    if (peak >= this.peak || this.heldFor > HOLD_S) {
      this.peak = peak;
      this.heldFor = 0;
    }
  }

  read(): InputLevel {
    const { input, clipped, broken } = this;
    // what has died away below -200 dB is nothing
    const levelDb = this.power > 1e-20 ? dbOfPower(this.power) : -Infinity;
    return { input, levelDb, peakDb: this.peak > 0 ? dbOfPower(this.peak ** 2) : -Infinity, clipped, broken };
  }
}
