import QuickLRU from 'quick-lru';
import { needAbove } from '../limits/index.js';
import {
  binFrequencies,
  emptySpectrum,
  fftSizeFor,
  inverseRealFft,
  realFft,
  type RealArray,
} from '../signal/index.js';
import { mainTap } from './mainTap.js';

/** What of an octave sounds ahead of its arrival. */
export interface AheadInOctave {
  /** Hz, nominal */
  centre: number;
  /** earlier than this ahead of the arrival, seconds */
  aheadS: number;
  /** energy of the octave that comes so early, dB re all of it */
  aheadDb: number;
  /** the same of no filter at all in the same analysis: what the octave's own filter spreads */
  plainDb: number;
}

/** Of low octaves, which hearing resolves more coarsely in time, what is a little early does not count. */
const AHEAD_S = (centre: number) => (centre < 500 ? 0.02 : 0.005);
const CENTRES = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000];

/**
 * Pre-ringing of a filter: the energy that it plays ahead of its main tap, octave by octave, 31.5 Hz to 8 kHz, against that of
 * a unit impulse in the same analysis. Octaves are cut out in zero phase, raised cosines over log frequency two octaves
 * wide, of which neighbours add up to one.
 * @param rate Hz, above 0
 */
export function preRinging(taps: RealArray, rate: number): AheadInOctave[] {
  needAbove('preRinging', 'rate', rate, 0);
  // what the lowest octave's own filter spreads fits beside the taps
  const size = fftSizeFor(Math.max(1, taps.length) + 0.17 * rate);
  const spectrum = realFft(taps, size);
  const frequency = binFrequencies(size, rate);
  const main = mainTap(taps);
  const band = emptySpectrum(size);
  const out = new Float64Array(size);
  return CENTRES.filter((centre) => 2 * centre < rate / 2).map((centre) => {
    const binHz = rate / size;
    band.re.fill(0);
    band.im.fill(0);
    const last = Math.min(frequency.length - 1, Math.floor((2 * centre) / binHz));
    for (let k = Math.ceil(centre / 2 / binHz); k <= last; k++) {
      const gain = octaveGain(frequency[k]!, centre);
      band.re[k] = gain * spectrum.re[k]!;
      band.im[k] = gain * spectrum.im[k]!;
    }
    const aheadS = AHEAD_S(centre);
    const early = Math.round(aheadS * rate);
    return {
      centre,
      aheadS,
      aheadDb: shareAheadDb(inverseRealFft(band, out), main - early),
      plainDb: plainAheadDb(size, rate, centre, early),
    };
  });
}

/** A raised cosine over log frequency, two octaves wide. */
function octaveGain(f: number, centre: number): number {
  const octaves = Math.abs(Math.log2(f / centre));
  return octaves < 1 ? Math.cos((Math.PI / 2) * octaves) ** 2 : 0;
}

const plains = new QuickLRU<string, number>({ maxSize: 64 });

/** What an octave's own filter spreads ahead of a unit impulse: the same for every filter of a length. */
function plainAheadDb(size: number, rate: number, centre: number, early: number): number {
  const key = [size, rate, centre, early].join(' ');
  const known = plains.get(key);
  if (known !== undefined) return known;
  const flat = emptySpectrum(size);
  binFrequencies(size, rate).forEach((f, k) => (flat.re[k] = octaveGain(f, centre)));
  const found = shareAheadDb(inverseRealFft(flat), -early);
  plains.set(key, found);
  return found;
}

/** Energy ahead of an index, dB re all; what lies ahead of 0 stands in the last half. */
function shareAheadDb(samples: Float64Array, before: number): number {
  const n = samples.length;
  let [ahead, all] = [0, 0];
  for (let i = -n / 2; i < n / 2; i++) {
    const energy = samples[(i + n) % n]! ** 2;
    all += energy;
    if (i < before) ahead += energy;
  }
  return 10 * Math.log10(ahead / all);
}

/** More than nothing: the energy ahead exceeds that of no filter by this, and is not lost below all else; dB. */
const MORE_DB = 1;
const LOST_DB = -40;

/** The octave of which most sounds ahead; null where none sounds further ahead than without a filter. */
export function worstAhead(octaves: AheadInOctave[]): AheadInOctave | null {
  const heard = octaves.filter((o) => o.aheadDb > o.plainDb + MORE_DB && o.aheadDb > LOST_DB);
  return heard.length > 0 ? heard.reduce((a, b) => (b.aheadDb > a.aheadDb ? b : a)) : null;
}
