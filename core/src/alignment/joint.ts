import { biquadAt, butterworth, linkwitzRiley, type Biquad } from '../signal/index.js';
import type { ComplexCurve } from './complexOnGrid.js';

export interface CrossoverFilter {
  kind: 'Butterworth' | 'Linkwitz-Riley';
  /** 2, 4 or 8: 12, 24 or 48 dB per octave */
  order: number;
  frequency: number;
}

/** A crossover's sections at a rate. */
export function crossoverBiquads(
  way: 'lowpass' | 'highpass',
  filter: CrossoverFilter | null,
  rate: number,
): Biquad[] {
  if (!filter) return [];
  return (filter.kind === 'Butterworth' ? butterworth : linkwitzRiley)(
    way,
    filter.order,
    filter.frequency,
    rate,
  );
}

/** A curve times sections, a delay, a gain of `sign`. */
export function filteredCurve(
  { re, im }: ComplexCurve,
  frequency: Float64Array,
  sections: Biquad[],
  rate: number,
  delayS = 0,
  sign: 1 | -1 = 1,
): ComplexCurve {
  const out = { re: new Float64Array(re.length), im: new Float64Array(re.length) };
  frequency.forEach((f, k) => {
    const turn = -2 * Math.PI * f * delayS;
    let [a, b] = [sign * Math.cos(turn), sign * Math.sin(turn)];
    for (const section of sections) {
      const [x, y] = biquadAt(section, f, rate);
      [a, b] = [a * x - b * y, a * y + b * x];
    }
    out.re[k] = re[k]! * a - im[k]! * b;
    out.im[k] = re[k]! * b + im[k]! * a;
  });
  return out;
}

/** Both are in the shared band where neither is louder than the other by more. */
const SHARED_DB = 10;

export interface Joint {
  /** mean over spots of the sum efficiency in the shared band, 0 to 1; null where there is none */
  efficiency: number | null;
  /** the shared band over all spots, Hz; null where there is none */
  band: { from: number; to: number } | null;
}

/**
 * How well a channel and the subwoofers add up: |a + b| / (|a| + |b|) over the band where both are within 10 dB of each
 * other, its mean on the log frequency axis of `frequency`, weighted by how equal they are, mean over the spots.
 */
export function jointOf(main: ComplexCurve[], subs: ComplexCurve[], frequency: Float64Array): Joint {
  let [sum, weights] = [0, 0];
  let [from, to] = [Infinity, 0];
  main.forEach((a, s) => {
    const b = subs[s]!;
    frequency.forEach((f, k) => {
      const [x, y] = [Math.hypot(a.re[k]!, a.im[k]!), Math.hypot(b.re[k]!, b.im[k]!)];
      const apart = Math.abs(20 * Math.log10(x / y));
      if (!(apart <= SHARED_DB)) return;
      const weight = 1 - apart / SHARED_DB;
      sum += (weight * Math.hypot(a.re[k]! + b.re[k]!, a.im[k]! + b.im[k]!)) / (x + y);
      weights += weight;
      [from, to] = [Math.min(from, f), Math.max(to, f)];
    });
  });
  return weights > 0 ? { efficiency: sum / weights, band: { from, to } } : { efficiency: null, band: null };
}

/** How a channel and the subwoofers are joined. */
export interface JointSetting {
  highPass: CrossoverFilter | null;
  lowPass: CrossoverFilter | null;
  /** of the subwoofers against the channel; below 0 the channel waits */
  subDelayS: number;
  subInverted: boolean;
}

const MOST_DELAY_S = 0.015;
const COARSE_S = 0.0005;
/** Results this close are alike; the shorter delay wins. */
const ALIKE = 0.002;

/**
 * Delay and polarity of the subwoofers against a channel, and of the crossovers offered the one, that add up best over all
 * spots. A coarse grid of 0.5 ms (a twentieth of a period at 100 Hz) cannot miss the best cycle; the best is refined.
 * @param main as it is without a crossover, `[spot]`; @param subs together, `[spot]`, without one
 */
export function bestJoint(
  main: ComplexCurve[],
  subs: ComplexCurve[],
  frequency: Float64Array,
  offered: { highPass: CrossoverFilter | null; lowPass: CrossoverFilter | null }[],
  rate: number,
): JointSetting & { efficiency: number } {
  let best: (JointSetting & { efficiency: number }) | null = null;
  for (const { highPass, lowPass } of offered) {
    const high = main.map((c) =>
      filteredCurve(c, frequency, crossoverBiquads('highpass', highPass, rate), rate),
    );
    const low = subs.map((c) =>
      filteredCurve(c, frequency, crossoverBiquads('lowpass', lowPass, rate), rate),
    );
    const efficiencyAt = (delayS: number, inverted: boolean) =>
      jointOf(
        high,
        low.map((c) => filteredCurve(c, frequency, [], rate, delayS, inverted ? -1 : 1)),
        frequency,
      ).efficiency ?? 0;
    const consider = (subDelayS: number, subInverted: boolean) => {
      const efficiency = efficiencyAt(subDelayS, subInverted);
      const better =
        !best ||
        efficiency > best.efficiency + ALIKE ||
        (efficiency > best.efficiency - ALIKE &&
          Math.abs(subDelayS) < Math.abs(best.subDelayS) - 1e-9 &&
          efficiency >= best.efficiency - ALIKE / 2);
      if (better) best = { highPass, lowPass, subDelayS, subInverted, efficiency };
    };
    for (const inverted of [false, true])
      for (let d = -MOST_DELAY_S; d <= MOST_DELAY_S + 1e-9; d += COARSE_S)
        consider(Number(d.toFixed(6)), inverted);
  }
  if (!best) throw new RangeError('bestJoint: no crossover was offered');
  let found: JointSetting & { efficiency: number } = best;
  const high = main.map((c) =>
    filteredCurve(c, frequency, crossoverBiquads('highpass', found.highPass, rate), rate),
  );
  const low = subs.map((c) =>
    filteredCurve(c, frequency, crossoverBiquads('lowpass', found.lowPass, rate), rate),
  );
  for (let step = COARSE_S / 2; step > 5e-6; step /= 2) {
    for (const way of [-step, step]) {
      const subDelayS = Number((found.subDelayS + way).toFixed(6));
      const efficiency =
        jointOf(
          high,
          low.map((c) => filteredCurve(c, frequency, [], rate, subDelayS, found.subInverted ? -1 : 1)),
          frequency,
        ).efficiency ?? 0;
      if (efficiency > found.efficiency) found = { ...found, subDelayS, efficiency };
    }
  }
  return found;
}
