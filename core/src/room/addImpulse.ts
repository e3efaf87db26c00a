/** Interpolator: a sinc under a Hann window of 2 x REACH samples, tabulated for PHASES positions between two samples. */
const REACH = 10;
const PHASES = 4096;
let table: Float64Array | undefined;

function interpolator(): Float64Array {
  if (table) return table;
  const made = new Float64Array((PHASES + 1) * 2 * REACH);
  for (let phase = 0; phase <= PHASES; phase++) {
    for (let i = 0; i < 2 * REACH; i++) {
      const x = i - REACH + 1 - phase / PHASES;
      const sinc = Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
      made[phase * 2 * REACH + i] = sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / REACH));
    }
  }
  return (table = made);
}

/** Adds a band-limited impulse at a fractional sample to several buffers, each with its own gain. */
export function addImpulse(buffers: Float64Array[], at: number, gains: Float64Array): void {
  const taps = interpolator();
  const whole = Math.floor(at);
  const row = Math.round((at - whole) * PHASES) * 2 * REACH;
  const first = whole - REACH + 1;
  const from = Math.max(0, -first);
  const to = Math.min(2 * REACH, buffers[0]!.length - first);
  for (let b = 0; b < buffers.length; b++) {
    const buffer = buffers[b]!;
    const gain = gains[b]!;
    if (gain === 0) continue;
    for (let i = from; i < to; i++) buffer[first + i]! += gain * taps[row + i]!;
  }
}
