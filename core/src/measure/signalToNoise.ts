import { fftSizeFor, octaveBands, type RealArray, type Sweep } from '../signal/index.js';
import { bandEnergy } from './bandPower.js';

/** Levels in one third-octave band, dB re full scale. */
export interface BandMargin {
  centre: number;
  noiseDb: number;
  /** level while the sweep passes through the band; -Infinity where nothing rises above the noise */
  signalDb: number;
  snrDb: number;
}

export const thirdOctaves = (from: number, to: number) => octaveBands(3, from, to);

/** Noise power in third octaves from silence, dB re full scale (a full-scale square wave being 0). */
export function noiseSpectrum(silence: RealArray, rate: number, from = 20, to = 20000) {
  if (silence.length < rate / 20) {
    throw new RangeError(`noiseSpectrum: needs 0.05 s of silence, got ${silence.length} samples`);
  }
  const bands = thirdOctaves(from, to);
  const energy = bandEnergy(silence, rate, bands);
  return bands.map(({ centre }, i) => ({ centre, noiseDb: 10 * Math.log10(energy[i]! / silence.length) }));
}

/**
 * How far the sweep stood above the noise in each third octave, while it passed through that band: energy in the band
 * less what the noise contributes over the whole recording, over the time the sweep dwells there (L ln(to/from)),
 * against the noise power before the sweep.
 * @param recording from silence to the end of the decay
 * @param silence whole samples at its start that hold nothing but noise
 */
export function signalToNoise(recording: RealArray, silence: number, sweep: Sweep): BandMargin[] {
  const { rate, growthS } = sweep;
  const bands = thirdOctaves(sweep.from, sweep.to);
  const noise = noiseSpectrum(recording.subarray(0, silence), rate, sweep.from, sweep.to);
  // the sweep and a little of its decay are enough, if that saves a transform of twice the size
  const handy = fftSizeFor(recording.length - silence) / 2;
  const length = handy > sweep.samples.length + 0.1 * rate ? handy : recording.length - silence;
  const energy = bandEnergy(recording.subarray(silence, silence + length), rate, bands);
  return bands.map(({ centre, from, to }, i) => {
    const noisePower = 10 ** (noise[i]!.noiseDb / 10);
    const dwell = growthS * Math.log(to / from) * rate;
    // a band of noise of B Hz and T s scatters by 1 / sqrt(B T); only what rises 3 of these above it is signal
    const bandwidth = to - from;
    const scatter = Math.sqrt(rate / (bandwidth * length)) + Math.sqrt(rate / (bandwidth * silence));
    const rises = energy[i]! > noisePower * length * (1 + 3 * scatter);
    const signal = rises ? (energy[i]! - noisePower * length) / dwell : 0;
    const signalDb = 10 * Math.log10(signal);
    return { centre, noiseDb: noise[i]!.noiseDb, signalDb, snrDb: signalDb - noise[i]!.noiseDb };
  });
}
