import { HEADPHONE_TARGETS, targetCurve } from '@pebble-hall/core/correct';
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

/** Made-up headphones: how the response of each at the eardrum differs from that of a diffuse field. */
const MODELS: Record<string, Biquad[]> = {
  'Knot 40, closed': [
    ...butterworth('highpass', 2, 22, RATE),
    lowShelf(110, 5.5, 0.7, RATE),
    peaking(240, -3.5, 1.1, RATE),
    peaking(2900, -4, 1.2, RATE),
    peaking(5600, -6.5, 3, RATE),
    peaking(8700, 5, 3.5, RATE),
    highShelf(12000, -4, 0.7, RATE),
  ],
  'Ruff 2, open': [
    ...butterworth('highpass', 2, 38, RATE),
    peaking(95, 2.5, 0.9, RATE),
    peaking(1200, -2, 1, RATE),
    peaking(3300, -3, 1.5, RATE),
    peaking(6100, -5, 4, RATE),
    peaking(9600, 4, 3, RATE),
  ],
};

export const HEADPHONE_MODELS = Object.keys(MODELS);

/**
 * Response of a model from the library at the eardrum, 1/24 octave, dB.
 * @throws RangeError for a model that is not there
 */
export function headphoneResponse(model: string): { frequency: number[]; levelDb: number[] } {
  const sections = MODELS[model];
  if (!sections) throw new RangeError(`headphoneResponse: there is no ${model}`);
  const grid = logGrid(20, 20000, 24);
  const power = smoothPower(binFrequencies(SIZE, RATE), powerOf(biquadSpectrum(sections, SIZE)), 24, grid);
  const field = targetCurve(HEADPHONE_TARGETS[0]!.target.handles, grid);
  return {
    frequency: [...grid],
    levelDb: [...power].map((p, i) => Number((10 * Math.log10(p) + field[i]!).toFixed(3))),
  };
}
