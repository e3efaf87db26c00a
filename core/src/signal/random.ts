import { needNumber } from '../limits/index.js';
/** Numbers that look random and are the same for the same seed. */
export interface Random {
  /** uniform in [0, 1) */
  uniform(): number;
  /** normal, mean 0, variance 1 */
  normal(): number;
}

/** Generator with 128 bits of state, xoshiro128** (Blackman and Vigna 2018), seeded through splitmix32. */
export function seededRandom(seed: number): Random {
  needNumber('seededRandom', 'seed', seed);
  let mix = seed >>> 0;
  const next32 = () => {
    mix = (mix + 0x9e3779b9) >>> 0;
    let z = mix;
    z = Math.imul(z ^ (z >>> 16), 0x21f0aaad);
    z = Math.imul(z ^ (z >>> 15), 0x735a2d97);
    return (z ^ (z >>> 15)) >>> 0;
  };
  let [a, b, c, d] = [next32(), next32(), next32(), next32()];
  const rotate = (x: number, by: number) => ((x << by) | (x >>> (32 - by))) >>> 0;
  const uniform = () => {
    const result = Math.imul(rotate(Math.imul(b, 5) >>> 0, 7), 9) >>> 0;
    const t = (b << 9) >>> 0;
    c ^= a;
    d ^= b;
    b = (b ^ c) >>> 0;
    a = (a ^ d) >>> 0;
    c = (c ^ t) >>> 0;
    d = rotate(d >>> 0, 11);
    return result / 4294967296;
  };
  let spare: number | undefined;
  const normal = () => {
    if (spare !== undefined) {
      const value = spare;
      spare = undefined;
      return value;
    }
    const radius = Math.sqrt(-2 * Math.log(1 - uniform())); // Box and Muller 1958
    const angle = 2 * Math.PI * uniform();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
  return { uniform, normal };
}

/** A seed made from a base seed and text, so that independent things get independent noise (FNV-1a). */
export function seedFrom(base: number, text: string): number {
  let hash = (0x811c9dc5 ^ base) >>> 0;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash;
}
