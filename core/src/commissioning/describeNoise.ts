import { fftSizeFor, hannWindow, octaveBands, powerOf, realFft, type RealArray } from '../signal/index.js';
import { bandEnergy } from '../measure/index.js';

/** What stands out of a noise floor; levels in dB over what surrounds it. */
export type NoiseTrait =
  | { kind: 'hum'; mainsHz: 50 | 60; multiples: number[]; riseDb: number }
  | { kind: 'tone'; frequency: number; riseDb: number }
  | { kind: 'rumble'; belowHz: number; riseDb: number };

const MAINS = [50, 60] as const;
const HARMONICS = 12;
/** A line must stand this far over the median of its surroundings; a peak of averaged noise stays below 9 dB. */
const LINE_DB = 12;
const RUMBLE_DB = 14;

/**
 * Reads a noise floor: hum at the mains frequency and its multiples, single tones, and rumble that outweighs the rest
 * (third octaves up to 40 Hz against the median of 63 to 500 Hz).
 * @param silence recorded while nothing plays, 1 s at least
 * @returns the strongest first of each kind; empty when nothing stands out
 * @throws RangeError below 1 s
 */
export function describeNoise(silence: RealArray, rate: number): NoiseTrait[] {
  if (!(silence.length >= rate))
    throw new RangeError(`describeNoise: needs 1 s, got ${silence.length} samples`);
  const size = fftSizeFor(rate / 2); // 0.7 to 1.4 s: lines 1 Hz apart
  const power = averagedPower(silence, size);
  const bin = rate / size;
  const rise = (frequency: number, halfWidth: number) => {
    const peak = largest(
      power,
      Math.round((frequency - halfWidth) / bin),
      Math.round((frequency + halfWidth) / bin),
    );
    const around = median(power, Math.round(frequency / 1.2 / bin), Math.round((frequency * 1.2) / bin));
    return 10 * Math.log10(peak / around);
  };
  const traits: NoiseTrait[] = [];
  const hums = MAINS.map((mainsHz) => {
    const lines = Array.from({ length: HARMONICS }, (_, i) => (i + 1) * mainsHz)
      .map((f) => ({ f, riseDb: rise(f, 1.5) }))
      .filter(({ riseDb }) => riseDb > LINE_DB);
    return { mainsHz, lines };
  });
  // 300 and 600 Hz belong to both: the one with more lines, its own among them, is the mains
  const hum = hums.sort((a, b) => b.lines.length - a.lines.length)[0]!;
  const isHum =
    hum.lines.length >= 2 && hum.lines.some(({ f }) => f === hum.mainsHz || f === 2 * hum.mainsHz);
  if (isHum) {
    traits.push({
      kind: 'hum',
      mainsHz: hum.mainsHz,
      multiples: hum.lines.map(({ f }) => f),
      riseDb: Math.max(...hum.lines.map(({ riseDb }) => riseDb)),
    });
  }
  const tone = strongestTone(
    power,
    bin,
    rate,
    (f) => isHum && Math.abs(f - Math.round(f / hum.mainsHz) * hum.mainsHz) < 2,
  );
  if (tone) traits.push(tone);
  const bands = octaveBands(3, 16, 500);
  const energy = bandEnergy(silence, rate, bands);
  const level = (i: number) => 10 * Math.log10(energy[i]!);
  const middle = bands.flatMap(({ centre }, i) => (centre > 60 ? level(i) : [])).sort((a, b) => a - b);
  const usual = middle[middle.length >> 1]!;
  const low = bands
    .map(({ centre, to }, i) => ({ centre, to, db: level(i) }))
    .filter(({ centre }) => centre < 41);
  const rumbling = low.filter(({ db }) => db > usual + RUMBLE_DB);
  if (rumbling.length >= 2) {
    traits.push({
      kind: 'rumble',
      belowHz: rumbling.at(-1)!.to,
      riseDb: Math.max(...rumbling.map(({ db }) => db)) - usual,
    });
  }
  return traits;
}

function averagedPower(signal: RealArray, size: number): Float64Array {
  const window = hannWindow(size);
  const sum = new Float64Array(size / 2 + 1);
  const block = new Float64Array(size);
  for (let from = 0; from + size <= signal.length; from += size / 2) {
    for (let i = 0; i < size; i++) block[i] = signal[from + i]! * window[i]!;
    powerOf(realFft(block)).forEach((p, k) => (sum[k] = sum[k]! + p));
  }
  return sum;
}

function strongestTone(
  power: Float64Array,
  bin: number,
  rate: number,
  isKnown: (f: number) => boolean,
): NoiseTrait | null {
  let best: { frequency: number; riseDb: number } | null = null;
  const last = Math.round(Math.min(16000, rate / 2.2) / bin);
  for (let k = Math.round(60 / bin); k < last; k++) {
    if (power[k]! < power[k - 1]! || power[k]! < power[k + 1]! || isKnown(k * bin)) continue;
    // a quick look at the nearest bins first: a line stands alone
    const near = 0.25 * (power[k - 6]! + power[k - 5]! + power[k + 5]! + power[k + 6]!);
    if (power[k]! < 10 * near) continue;
    const around = median(power, Math.round(k / 1.15), Math.round(k * 1.15));
    const riseDb = 10 * Math.log10(power[k]! / around);
    // thousands of bins are looked at: a few dB more than for one line
    if (riseDb > LINE_DB + 4 && (!best || riseDb > best.riseDb)) best = { frequency: k * bin, riseDb };
  }
  return best && { kind: 'tone', ...best };
}

function largest(values: Float64Array, from: number, to: number): number {
  let most = 0;
  for (let k = Math.max(1, from); k <= to; k++) most = Math.max(most, values[k] ?? 0);
  return most;
}

function median(values: Float64Array, from: number, to: number): number {
  const sorted = values.slice(Math.max(1, from), to + 1).sort();
  return sorted[sorted.length >> 1] ?? 0;
}
