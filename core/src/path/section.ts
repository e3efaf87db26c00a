import { allPass, firstOrderAllPass, highShelf, lowShelf, peaking, type Biquad } from '../signal/index.js';

/** Sections that a level is shaped with. */
export const SHAPING_KINDS = ['peak', 'low shelf', 'high shelf'] as const;
/** All that a processor may know: those that turn the phase alone as well. */
export const SECTION_KINDS = [...SHAPING_KINDS, 'all-pass', 'first-order all-pass'] as const;
export type ShapingKind = (typeof SHAPING_KINDS)[number];
export type SectionKind = (typeof SECTION_KINDS)[number];

/**
 * One parametric section. `q`: frequency over bandwidth at half the gain in dB for a peak; of the two poles for a shelf and for an
 * all-pass of second order; of no meaning for one of first order.
 */
export interface Section {
  kind: SectionKind;
  frequency: number;
  gainDb: number;
  q: number;
}

/** A section as a biquad at a rate. */
export function sectionBiquad({ kind, frequency, gainDb, q }: Section, rate: number): Biquad {
  switch (kind) {
    case 'peak':
      return peaking(frequency, gainDb, q, rate);
    case 'low shelf':
      return lowShelf(frequency, gainDb, q, rate);
    case 'high shelf':
      return highShelf(frequency, gainDb, q, rate);
    case 'all-pass':
      return allPass(frequency, q, rate);
    case 'first-order all-pass':
      return firstOrderAllPass(frequency, rate);
  }
}

/** Level of a cascade of sections at given frequencies, dB. */
export function sectionsLevelDb(sections: Section[], rate: number, at: Float64Array): Float64Array {
  const out = new Float64Array(at.length);
  const cosine = at.map((f) => Math.cos((2 * Math.PI * f) / rate));
  for (const section of sections) addLevel(sectionBiquad(section, rate), cosine, out, 1);
  return out;
}

/**
 * Adds `sign` times the level of a biquad to levels. |b0 + b1 z + b2 z^2|^2 on the unit circle needs only cos w:
 * (b0 - b2)^2 + (b1^2 + 2 b1 (b0 + b2) c) + 4 b0 b2 c^2 + ... (Bristow-Johnson).
 */
export function addLevel(
  { b0, b1, b2, a1, a2 }: Biquad,
  cosine: Float64Array,
  out: Float64Array,
  sign: 1 | -1,
): void {
  const part = (x: number, y: number, z: number, c: number) =>
    (x - z) ** 2 + y * y + 2 * y * (x + z) * c + 4 * x * z * c * c;
  for (let i = 0; i < out.length; i++) {
    const c = cosine[i]!;
    out[i] = out[i]! + sign * 10 * Math.log10(part(b0, b1, b2, c) / part(1, a1, a2, c));
  }
}
