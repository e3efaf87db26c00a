import {
  binFrequencies,
  biquadSpectrum,
  butterworth,
  highShelf,
  logGrid,
  lowShelf,
  peaking,
  powerOf,
  smoothPower,
  type Biquad,
} from '@pebble-hall/core/signal';

const RATE = 48000;
const SIZE = 65536;

/** Made-up headphones, and the response of each on an ear simulator of our own making. */
const MODELS: Record<string, Biquad[]> = {
  'Knot 40, closed': [
    ...butterworth('highpass', 2, 22, RATE),
    lowShelf(110, 5.5, 0.7, RATE),
    peaking(240, -3.5, 1.1, RATE),
    peaking(2900, 6, 1.2, RATE),
    peaking(5600, -6.5, 3, RATE),
    peaking(8700, 5, 3.5, RATE),
    highShelf(12000, -4, 0.7, RATE),
  ],
  'Ruff 2, open': [
    ...butterworth('highpass', 2, 38, RATE),
    peaking(95, 2.5, 0.9, RATE),
    peaking(1200, -2, 1, RATE),
    peaking(3300, 8, 1.5, RATE),
    peaking(6100, -5, 4, RATE),
    peaking(9600, 4, 3, RATE),
  ],
};

export const HEADPHONE_MODELS = Object.keys(MODELS);

/**
 * Response of a model from the library, 1/24 octave, dB.
 * @throws RangeError for a model that is not there
 */
export function headphoneResponse(model: string): { frequency: number[]; levelDb: number[] } {
  const sections = MODELS[model];
  if (!sections) throw new RangeError(`headphoneResponse: there is no ${model}`);
  const grid = logGrid(20, 20000, 24);
  const power = smoothPower(binFrequencies(SIZE, RATE), powerOf(biquadSpectrum(sections, SIZE)), 24, grid);
  return { frequency: [...grid], levelDb: [...power].map((p) => Number((10 * Math.log10(p)).toFixed(3))) };
}
