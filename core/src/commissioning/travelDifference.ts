import {
  cosineStep,
  fftSizeFor,
  inverseRealFft,
  powerOf,
  realFft,
  type ImpulseResponse,
} from '../signal/index.js';

/** The near response's own sound is over after this; what comes later is the room. */
const NEAR_S = { low: 0.04, full: 0.004 };
const AHEAD_S = { low: 0.01, full: 0.001 };
/** A direct sound may be weaker than what follows it, but not by more. */
const FIRST = { low: 0.7, full: 0.45 };
/** How far the pulse must stand over the RMS of the rest; a subwoofer's is broad and its room rings. */
const CLEAR = { low: 2.5, full: 7 };
/** Longest way that is looked for. */
const MOST_S = 0.25;
const LOW_HZ = 400;
/** A subwoofer in a room is known by this much at best, metres: its edge is broad, and reflections come within it. */
export const LOW_DISTANCE_M = 0.5;
/** The near response may be weaker than its strongest by this and still be divided by; a subwoofer's edge lies there. */
const FLOOR_DB = -46;

/**
 * How much later a loudspeaker is heard at a far place than close to it: the far response divided by the near one, which
 * leaves the direct sound as a pulse with the room's reflections after it, whatever the loudspeaker's own response is.
 * @param near with the microphone close to the loudspeaker; time zero is the drive in both
 * @param band in which the loudspeaker plays, Hz, as measured close to it
 * @returns seconds; null when no pulse stands out
 */
export function travelDifference(
  near: ImpulseResponse,
  far: ImpulseResponse,
  band: { from: number; to: number },
): number | null {
  const { rate } = near;
  if (far.rate !== rate) throw new RangeError(`travelDifference: near at ${rate} Hz, far at ${far.rate} Hz`);
  const isLow = band.to < LOW_HZ;
  const kind = isLow ? 'low' : 'full';
  let top = 0;
  near.samples.forEach((v, i) => {
    if (Math.abs(v) > Math.abs(near.samples[top]!)) top = i;
  });
  const [ahead, after] = [Math.round(AHEAD_S[kind] * rate), Math.round(NEAR_S[kind] * rate)];
  const from = Math.max(0, top - ahead);
  const start = Math.max(0, far.zero - Math.round(0.002 * rate));
  const length = Math.min(far.samples.length - start, Math.round((MOST_S + NEAR_S[kind]) * rate));
  const size = fftSizeFor(2 * length);
  const piece = new Float64Array(after + ahead);
  for (let i = 0; i < piece.length; i++) {
    piece[i] = (near.samples[from + i] ?? 0) * cosineStep(i, piece.length, piece.length / 2);
  }
  const other = new Float64Array(length);
  for (let i = 0; i < length; i++) other[i] = far.samples[start + i]! * cosineStep(i, length, 0.8 * length);
  const [a, b] = [realFft(piece, size), realFft(other, size)];
  const power = powerOf(a);
  const bin = rate / size;
  // a subwoofer's edge is known by what it plays above its band, softly; there is still signal an octave or two up
  const [low, high] = isLow ? [40, 2.5 * band.to] : [Math.max(band.from, 300), Math.min(band.to, 16000)];
  let most = 0;
  for (let k = Math.ceil(low / bin); k <= high / bin; k++) most = Math.max(most, power[k]!);
  if (!(most > 0)) return null;
  const floor = most * 10 ** (FLOOR_DB / 10);
  for (let k = 0; k < power.length; k++) {
    const f = k * bin;
    const weight = cosineStep(f, low * 0.5, low) * cosineStep(f, high, high * (isLow ? 0.3 : 0.6));
    const scale = weight / (power[k]! + floor);
    const [re, im] = [b.re[k]!, b.im[k]!];
    b.re[k] = scale * (re * a.re[k]! + im * a.im[k]!);
    b.im[k] = scale * (im * a.re[k]! - re * a.im[k]!);
  }
  const pulse = inverseRealFft(b);
  const last = Math.min(length, Math.round(MOST_S * rate));
  // may come out a little early: the near piece starts before the near sound does
  const at = (i: number) => Math.abs(pulse[(i + size) % size]!);
  let highest = 0;
  let sum = 0;
  for (let i = -ahead; i < last; i++) {
    highest = Math.max(highest, at(i));
    sum += at(i) ** 2;
  }
  if (!(highest > CLEAR[kind] * Math.sqrt(sum / (last + ahead)))) return null;
  let first = -ahead;
  while (at(first) < FIRST[kind] * highest) first++;
  while (at(first + 1) > at(first)) first++;
  const [left, mid, right] = [at(first - 1), at(first), at(first + 1)];
  const fine = first + (0.5 * (left - right)) / (left - 2 * mid + right || 1);
  return (start + fine - far.zero - (from - near.zero)) / rate;
}
