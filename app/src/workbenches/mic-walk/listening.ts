import { dbOfPower, hannWindow, powerOf, realFft } from '@pebble-hall/core/signal';

export const BLOCK = 2048;
/** Rows of the picture, from 20 Hz to 20 kHz, equally wide in octaves. */
export const ROWS = 96;
const FROM_HZ = 20;
const TO_HZ = 20000;

/** Frequency of a row's lower edge; the row may be a fraction. */
export const frequencyOfRow = (row: number): number => FROM_HZ * (TO_HZ / FROM_HZ) ** (row / ROWS);
export const rowOfFrequency = (f: number): number =>
  (ROWS * Math.log(f / FROM_HZ)) / Math.log(TO_HZ / FROM_HZ);

/** One moment of what the microphone hears. */
export interface HeardMoment {
  /** first frame, from the start of the take */
  fromFrame: number;
  /** level of each row, dB re a full-scale sine */
  rowsDb: Float32Array;
  /** RMS over the block, dB re full scale */
  levelDb: number;
}

/**
 * Cuts what comes in into blocks of 2048 and reads each: level per row of a picture with a logarithmic frequency axis.
 * What does not fill a block waits for more.
 */
export class Listening {
  private readonly kept = new Float32Array(BLOCK);
  private readonly window = hannWindow(BLOCK);
  private have = 0;
  private next = 0;

  constructor(private readonly rate: number) {}

  hear(samples: Float32Array): HeardMoment[] {
    const out: HeardMoment[] = [];
    let at = 0;
    while (at < samples.length) {
      const part = samples.subarray(at, at + BLOCK - this.have);
      this.kept.set(part, this.have);
      this.have += part.length;
      at += part.length;
      if (this.have < BLOCK) break;
      out.push(this.read());
      this.have = 0;
      this.next += BLOCK;
    }
    return out;
  }

  private read(): HeardMoment {
    const block = new Float64Array(BLOCK);
    let sum = 0;
    for (let i = 0; i < BLOCK; i++) {
      const v = this.kept[i]!;
      sum += v * v;
      block[i] = v * this.window[i]!;
    }
    const power = powerOf(realFft(block));
    // a full-scale sine fills its bin with (BLOCK / 4) under this window
    const full = (BLOCK / 4) ** 2;
    const rowsDb = Float32Array.from({ length: ROWS }, (_, row) => {
      const from = (frequencyOfRow(row) * BLOCK) / this.rate;
      const to = (frequencyOfRow(row + 1) * BLOCK) / this.rate;
      let most = 0;
      const last = Math.min(power.length - 1, Math.max(Math.round(from), Math.floor(to)));
      for (let k = Math.max(1, Math.round(from)); k <= last; k++) most = Math.max(most, power[k]!);
      return dbOfPower(most / full + 1e-14);
    });
    return { fromFrame: this.next, rowsDb, levelDb: dbOfPower(sum / BLOCK + 1e-14) };
  }
}
