import { needFinite, needWithin } from '../limits/index.js';
import { filterBiquads, type Biquad, type RealArray } from '../signal/index.js';

/** Loudness range gates (ITU-R BS.1770-4, annex 1). */
const BLOCK_S = 0.4;
const STEP_S = 0.1;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;
const OFFSET = -0.691;
/** Weights of left, right, centre, left and right surround. */
const WEIGHTS = [1, 1, 1, 1.41, 1.41];

/** The K weighting's two sections at a rate: a shelf of 4 dB above 1.7 kHz and a high-pass at 38 Hz (annex 1, tables 1 and 2). */
export function loudnessSections(rate: number): Biquad[] {
  needWithin('loudnessSections', 'rate', rate, 8000, 1e6);
  // the standard gives coefficients at 48 kHz only; these analogue values reproduce them and hold at every rate
  const shelf = () => {
    const k = Math.tan((Math.PI * 1681.974450955533) / rate);
    const q = 0.7071752369554196;
    const high = 10 ** (3.999843853973347 / 20);
    const band = high ** 0.4996667741545416;
    const norm = 1 / (1 + k / q + k * k);
    return {
      b0: (high + (band * k) / q + k * k) * norm,
      b1: 2 * (k * k - high) * norm,
      b2: (high - (band * k) / q + k * k) * norm,
      a1: 2 * (k * k - 1) * norm,
      a2: (1 - k / q + k * k) * norm,
    };
  };
  const highPass = () => {
    const k = Math.tan((Math.PI * 38.13547087602444) / rate);
    const q = 0.5003270373238773;
    const norm = 1 / (1 + k / q + k * k);
    return { b0: 1, b1: -2, b2: 1, a1: 2 * (k * k - 1) * norm, a2: (1 - k / q + k * k) * norm };
  };
  return [shelf(), highPass()];
}

/**
 * Programme loudness with both gates (ITU-R BS.1770-4, annex 1).
 * @param channels full scale = 1, equally long; left, right, centre, left and right surround
 * @returns LUFS; -Infinity when nothing stands above the absolute gate or the signal is shorter than 0.4 s
 * @throws RangeError for more than five channels, differing lengths, a rate outside 8 kHz to 1 MHz, or a sample that is not finite
 */
export function loudness(channels: RealArray[], rate: number): number {
  const length = channels[0]?.length ?? 0;
  if (channels.length > WEIGHTS.length || channels.some((c) => c.length !== length))
    throw new RangeError('loudness: wants up to five channels of one length');
  channels.forEach((channel, c) => needFinite('loudness', `channel ${c + 1}`, channel));
  const sections = loudnessSections(rate);
  const step = Math.round(STEP_S * rate);
  const steps = Math.floor(length / step);
  const perBlock = Math.round(BLOCK_S / STEP_S);
  // sums over steps of 0.1 s, four of which make a block
  const energy = new Float64Array(steps);
  channels.forEach((channel, c) => {
    const weighted = filterBiquads(channel, sections);
    for (let s = 0; s < steps; s++) {
      let sum = 0;
      for (let i = s * step; i < (s + 1) * step; i++) sum += weighted[i]! ** 2;
      energy[s] = energy[s]! + WEIGHTS[c]! * sum;
    }
  });
  const blocks: number[] = [];
  for (let s = 0; s + perBlock <= steps; s++) {
    let sum = 0;
    for (let i = s; i < s + perBlock; i++) sum += energy[i]!;
    blocks.push(sum / (perBlock * step));
  }
  const toLoudness = (power: number) => OFFSET + 10 * Math.log10(power);
  const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const heard = blocks.filter((p) => toLoudness(p) > ABSOLUTE_GATE);
  if (heard.length === 0) return -Infinity;
  const gate = toLoudness(mean(heard)) + RELATIVE_GATE;
  return toLoudness(mean(heard.filter((p) => toLoudness(p) > gate)));
}
