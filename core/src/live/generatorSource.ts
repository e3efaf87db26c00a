import { needAbove, needWhole, needWithin } from '../limits/index.js';
import {
  biquadTrace,
  butterworth,
  exponentialSweep,
  inverseRealFft,
  logGrid,
  seededRandom,
  type Biquad,
} from '../signal/index.js';

/** What the generator can play. A period, in samples and a power of two, makes noise repeat; null leaves it to chance. */
export type GeneratorSignal =
  | { kind: 'pink' | 'white'; period: number | null }
  /** pink between two frequencies, as for a subwoofer or around a crossover */
  | { kind: 'band'; fromHz: number; toHz: number; period: number | null }
  | { kind: 'sine'; hz: number }
  /** a tone in each third of an octave, all equally strong */
  | { kind: 'multi-tone' }
  /** again and again, from 20 Hz to 20 kHz */
  | { kind: 'sweep'; seconds: number }
  | { kind: 'file'; samples: Float32Array };

/** What a player needs to play it without an end; of unit RMS. */
export type GeneratorSource =
  | { kind: 'loop'; samples: Float32Array }
  | { kind: 'noise'; sections: Biquad[]; gain: number; seed: number }
  | { kind: 'sine'; hz: number };

/** Pink noise begins here: below it nothing is radiated, and headroom is lost. */
const PINK_FROM_HZ = 15;
/** Slope at both ends of a band: 24 dB for each octave. */
const BAND_ORDER = 4;

/**
 * A signal, made ready to be played without an end.
 * @param rate Hz
 * @param seed of what is left to chance
 * @throws RangeError for a period that is no power of two, or a band that is none
 */
export function generatorSource(signal: GeneratorSignal, rate: number, seed = 1): GeneratorSource {
  needAbove('generatorSource', 'rate', rate, 0);
  switch (signal.kind) {
    case 'pink':
    case 'white':
    case 'band': {
      if (signal.kind === 'band') {
        needWithin('generatorSource', 'lower end of the band in Hz', signal.fromHz, 5, rate / 2);
        needWithin('generatorSource', 'upper end of the band in Hz', signal.toHz, signal.fromHz, rate / 2);
      }
      const sections = sectionsOf(signal, rate);
      return signal.period === null
        ? { kind: 'noise', sections, gain: 1 / rmsThrough(sections, rate), seed }
        : { kind: 'loop', samples: periodic(sections, signal.period, rate, seed) };
    }
    case 'sine':
      needWithin('generatorSource', 'frequency of the sine in Hz', signal.hz, 1, rate / 2);
      return { kind: 'sine', hz: signal.hz };
    case 'multi-tone':
      return { kind: 'loop', samples: tones(rate, seed) };
    case 'sweep': {
      needWithin('generatorSource', 'length of the sweep in s', signal.seconds, 0.1, 60);
      const { samples } = exponentialSweep({
        rate,
        from: 20,
        to: Math.min(20_000, 0.45 * rate),
        durationS: signal.seconds,
        levelDbfs: 0,
      });
      return { kind: 'loop', samples: ofUnitRms(samples) };
    }
    case 'file':
      if (signal.samples.length === 0) throw new RangeError('generatorSource: the file holds no sound');
      return { kind: 'loop', samples: ofUnitRms(signal.samples) };
  }
}

/** White noise through these is the noise that is wanted, but for its level. */
function sectionsOf(
  signal: Extract<GeneratorSignal, { kind: 'pink' | 'white' | 'band' }>,
  rate: number,
): Biquad[] {
  if (signal.kind === 'white') return [];
  const [from, to] = signal.kind === 'band' ? [signal.fromHz, signal.toHz] : [PINK_FROM_HZ, Infinity];
  return [
    ...pinkSections(rate),
    ...butterworth('highpass', signal.kind === 'band' ? BAND_ORDER : 2, from, rate),
    ...(to < 0.45 * rate ? butterworth('lowpass', BAND_ORDER, to, rate) : []),
  ];
}

/** -3 dB per octave by poles and zeros on the real axis, two of each to every decade; within 0.5 dB from 15 Hz to 20 kHz. */
function pinkSections(rate: number): Biquad[] {
  const firstOrder = (zeroHz: number, poleHz: number): Biquad => {
    const at = (hz: number) => Math.exp((-2 * Math.PI * hz) / rate);
    return { b0: 1, b1: -at(zeroHz), b2: 0, a1: -at(poleHz), a2: 0 };
  };
  const sections: Biquad[] = [];
  const step = Math.sqrt(10);
  // a pole and, half a step above it, a zero: on average half of 6 dB for each octave
  for (let pole = 3; pole < 0.45 * rate; pole *= step)
    sections.push(firstOrder(pole * Math.sqrt(step), pole));
  return sections;
}

/** RMS of white noise of unit RMS behind a filter: the mean of its squared magnitude from 0 Hz to half the rate. */
function rmsThrough(sections: Biquad[], rate: number): number {
  if (sections.length === 0) return 1;
  const size = 1 << 16;
  const frequency = Float64Array.from({ length: size / 2 }, (_, k) => ((k + 0.5) * rate) / size);
  const { re, im } = biquadTrace(sections, frequency, rate);
  let sum = 0;
  for (let k = 0; k < re.length; k++) sum += re[k]! ** 2 + im[k]! ** 2;
  return Math.sqrt(sum / re.length);
}

/** One period with the magnitude of a filter at every bin, exactly, and phases by chance: unit RMS. */
function periodic(sections: Biquad[], period: number, rate: number, seed: number): Float32Array {
  needWhole('generatorSource', 'period', period, 256, 1 << 19);
  if ((period & (period - 1)) !== 0)
    throw new RangeError(`generatorSource: period ${period} is no power of two`);
  const bins = period / 2 + 1;
  const frequency = Float64Array.from({ length: bins }, (_, k) => (k * rate) / period);
  const shape = biquadTrace(sections, frequency, rate);
  const random = seededRandom(seed);
  const [re, im] = [new Float64Array(bins), new Float64Array(bins)];
  for (let k = 1; k < bins - 1; k++) {
    const size = Math.hypot(shape.re[k]!, shape.im[k]!);
    const phase = 2 * Math.PI * random.uniform();
    re[k] = size * Math.cos(phase);
    im[k] = size * Math.sin(phase);
  }
  return ofUnitRms(inverseRealFft({ re, im }));
}

/** A tone on the bin nearest to every third of an octave from 25 Hz to 16 kHz, phases after Schroeder (1970) for a low crest. */
function tones(rate: number, seed: number): Float32Array {
  const period = 1 << 16;
  const [re, im] = [new Float64Array(period / 2 + 1), new Float64Array(period / 2 + 1)];
  const centres = logGrid(25, Math.min(16_500, 0.45 * rate), 3);
  const start = seededRandom(seed).uniform();
  centres.forEach((hz, n) => {
    const k = Math.round((hz * period) / rate);
    const phase = 2 * Math.PI * (start + (n * n) / (2 * centres.length));
    re[k] = Math.cos(phase);
    im[k] = Math.sin(phase);
  });
  return ofUnitRms(inverseRealFft({ re, im }));
}

function ofUnitRms(samples: ArrayLike<number>): Float32Array {
  let power = 0;
  for (let i = 0; i < samples.length; i++) power += samples[i]! ** 2;
  const rms = Math.sqrt(power / samples.length);
  if (!(rms > 0)) throw new RangeError('generatorSource: the signal is silent, or not a number');
  return Float32Array.from(samples, (v) => v / rms);
}
