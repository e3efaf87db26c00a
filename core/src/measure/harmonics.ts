import { binFrequencies, fftSizeFor, harmonicLead, powerOf, realFft, type Sweep } from '../signal/index.js';

/** Response of one harmonic: power against the frequency at which it sounds, re the fundamental's input amplitude. */
export interface HarmonicResponse {
  order: number;
  frequency: Float64Array;
  power: Float64Array;
  /** what noise alone gives over the same time, from a stretch where no harmonic lies */
  noise: Float64Array;
}

/**
 * Harmonic responses split off a deconvolved sweep (Farina 2000): harmonic k lies L ln k ahead of the linear response.
 * |H_k(f)| is the amplitude of harmonic k at its own frequency f over the input's amplitude.
 * @param circular from `impulseFrom`, time zero at index 0
 * @param orders how many harmonics, from the second on; those whose piece would be shorter than 1 ms are left out
 */
export function splitHarmonics(circular: Float64Array, sweep: Sweep, orders = 5): HarmonicResponse[] {
  const { rate } = sweep;
  const n = circular.length;
  const out: HarmonicResponse[] = [];
  for (let order = 2; order <= orders; order++) {
    // from a little ahead of this harmonic to as far ahead of the next-lower one: a fifth of the gap to the one above
    const lead = harmonicLead(sweep, order);
    const ahead = 0.2 * (harmonicLead(sweep, order + 1) - lead);
    const from = -Math.round((lead + ahead) * rate);
    const gap = lead - harmonicLead(sweep, order - 1);
    const length = Math.round((gap - 0.2 * gap + ahead) * rate);
    if (length < rate / 1000 || -from > n / 2) break;
    const fade = Math.max(1, Math.round(0.5 * ahead * rate));
    const size = fftSizeFor(length);
    const powerAt = (start: number) => {
      const piece = new Float64Array(length);
      for (let i = 0; i < length; i++) {
        const edge = Math.min(1, i / fade, (length - 1 - i) / fade);
        piece[i] = circular[(start + i + 2 * n) % n]! * (0.5 - 0.5 * Math.cos(Math.PI * edge));
      }
      return powerOf(realFft(piece, size));
    };
    // half-way round lies neither the room's decay nor a harmonic worth the name. Where the recording is shorter than the
    // circle, some frequencies have a stretch without even noise there; another one elsewhere, so the louder of two counts
    const latest = -Math.round(harmonicLead(sweep, 9) * rate) - length;
    const [a, b] = [0.42, 0.28].map((share) => powerAt(Math.min(latest, -Math.round(share * n))));
    const noise = a!.map((p, k) => Math.max(p, b![k]!));
    out.push({ order, frequency: binFrequencies(size, rate), power: powerAt(from), noise });
  }
  return out;
}
