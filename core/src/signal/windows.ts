import { needWhole } from '../limits/index.js';
/**
 * Rising half of a Hann window: 0 at index 0, reaching 1 just after the last one (so that a flat part follows on).
 * @param length whole, at least 0; an empty array for 0
 */
export function hannRise(length: number): Float64Array {
  needWhole('hannRise', 'length', length, 0, 1e9);
  const out = new Float64Array(length);
  for (let i = 0; i < length; i++) out[i] = 0.5 - 0.5 * Math.cos((Math.PI * i) / length);
  return out;
}

/** Periodic Hann window, as blocks of a spectrum estimate want it (Harris 1978). */
export function hannWindow(length: number): Float64Array {
  needWhole('hannWindow', 'length', length, 0, 1e9);
  const out = new Float64Array(length);
  for (let i = 0; i < length; i++) out[i] = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length);
  return out;
}

/** Raised-cosine step: 0 up to `from`, 1 from `to` on; smooth in between. Falls when `from` > `to`. */
export function cosineStep(x: number, from: number, to: number): number {
  if (from === to) return x < from ? 0 : 1;
  const t = (x - from) / (to - from);
  return t <= 0 ? 0 : t >= 1 ? 1 : 0.5 - 0.5 * Math.cos(Math.PI * t);
}
