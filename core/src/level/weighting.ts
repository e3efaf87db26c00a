import { needAbove, needWithin } from '../limits/index.js';
import { butterworth, type Biquad } from '../signal/index.js';

/** Frequency weightings of IEC 61672-1:2013; Z is flat. */
export type Weighting = 'A' | 'C' | 'Z';

/** Pole frequencies, Hz (IEC 61672-1:2013, annex E). */
const F1 = 20.598997;
const F2 = 107.65265;
const F3 = 737.86223;
const F4 = 12194.217;

/** Design goal of a weighting at a frequency in Hz, dB; 0 at 1 kHz (IEC 61672-1:2013, equations E.6 and E.8). */
export function weightingDb(weighting: Weighting, frequency: number): number {
  needAbove('weightingDb', 'frequency in Hz', frequency, 0);
  return 20 * Math.log10(analogue(weighting, frequency) / analogue(weighting, 1000));
}

function analogue(weighting: Weighting, f: number): number {
  if (weighting === 'Z') return 1;
  const f2 = f * f;
  const c = f2 / ((f2 + F1 * F1) * (f2 + F4 * F4));
  return weighting === 'C' ? c : (c * f2) / Math.sqrt((f2 + F2 * F2) * (f2 + F3 * F3));
}

/**
 * A weighting as sections at a rate, 0 dB at 1 kHz. The low poles are bilinear; the double pole at 12.2 kHz is matched in
 * magnitude at 0 Hz and at its own frequency (Vicanek 2016), as the bilinear one would fall to nothing at half the rate.
 * @throws RangeError below 32 kHz, where the weighting cannot be made
 */
export function weightingSections(weighting: Weighting, rate: number): Biquad[] {
  needWithin('weightingSections', 'rate', rate, 32000, 1e6);
  if (weighting === 'Z') return [];
  const low = weighting === 'A' ? [F1, F1, F2, F3] : [F1, F1];
  const sections = [...low.flatMap((f) => butterworth('highpass', 1, f, rate)), doublePole(F4, rate)];
  const gain = 1 / magnitudeAt(sections, 1000, rate);
  const [first, ...rest] = sections;
  return [{ ...first!, b0: first!.b0 * gain, b1: first!.b1 * gain, b2: first!.b2 * gain }, ...rest];
}

/** Low-pass of two equal real poles, |H| = 1 at 0 Hz and 1/2 at its frequency. */
function doublePole(frequency: number, rate: number): Biquad {
  const w = (2 * Math.PI * frequency) / rate;
  const p = Math.exp(-w);
  const [a1, a2] = [-2 * p, p * p];
  const sine = Math.sin(w / 2) ** 2;
  const [p0, p1, p2] = [1 - sine, sine, 4 * sine * (1 - sine)];
  const [A0, A1, A2] = [(1 + a1 + a2) ** 2, (1 - a1 + a2) ** 2, -4 * a2];
  const wanted = (A0 * p0 + A1 * p1 + A2 * p2) * 0.25;
  const [B0, B1] = [A0, (wanted - A0 * p0) / p1];
  const [root0, root1] = [Math.sqrt(B0), Math.sqrt(Math.max(0, B1))];
  return { b0: 0.5 * (root0 + root1), b1: 0.5 * (root0 - root1), b2: 0, a1, a2 };
}

/** Magnitude of a cascade at a frequency. */
export function magnitudeAt(sections: Biquad[], frequency: number, rate: number): number {
  needAbove('magnitudeAt', 'rate', rate, 0);
  needWithin('magnitudeAt', 'frequency in Hz', frequency, 0, rate / 2);
  const w = (2 * Math.PI * frequency) / rate;
  return sections.reduce((product, { b0, b1, b2, a1, a2 }) => {
    const part = (x: number, y: number, z: number) =>
      Math.hypot(x + y * Math.cos(w) + z * Math.cos(2 * w), y * Math.sin(w) + z * Math.sin(2 * w));
    return (product * part(b0, b1, b2)) / part(1, a1, a2);
  }, 1);
}
