import type { Span } from '@pebble-hall/core/correct';

/** What is known of a channel that was measured again. */
export interface Verified {
  /** on the grid, smoothed, dB */
  predictedDb: Float64Array;
  verifiedDb: Float64Array;
  span: Span;
  /** arrival as measured again less what was to be expected, seconds; null where it is not known */
  laterS: number | null;
  /** over the noise, where it misses most */
  marginDb: number;
  /** whether it was measured with the memory that was loaded, its settings included */
  sameMemory: boolean;
}

/** Within this the prediction counts as true, 1/6 octave within the span. */
export const AGREES_DB = 0.5;
/** Sound that comes this much later or earlier came another way: 5 cm. */
const MOVED_S = 0.00015;
const NEAR_NOISE_DB = 20;

/** Why a channel is not what was predicted, likeliest first; nothing when it is. */
export function missReasons(grid: Float64Array, v: Verified): string[] {
  const off = [...v.verifiedDb].flatMap((level, i) =>
    grid[i]! >= v.span.from && grid[i]! <= v.span.to ? [level - v.predictedDb[i]!] : [],
  );
  const most = Math.max(...off.map(Math.abs));
  if (most <= AGREES_DB) return [];
  const mean = off.reduce((a, b) => a + b, 0) / off.length;
  const rest = Math.max(...off.map((d) => Math.abs(d - mean)));
  const out: string[] = [];
  if (!v.sameMemory) out.push('another memory was active, or its settings had changed');
  if (Math.abs(mean) > AGREES_DB / 2 && rest <= AGREES_DB)
    out.push(
      `the level moved by ${mean > 0 ? '+' : '\u2212'}${Math.abs(mean).toFixed(1)} dB as a whole: gain, trim or volume`,
    );
  if (v.laterS !== null && Math.abs(v.laterS) > MOVED_S)
    out.push(
      `sound arrives ${Math.abs(1000 * v.laterS).toFixed(2)} ms ${v.laterS > 0 ? 'later' : 'earlier'} than expected: the microphone stands elsewhere`,
    );
  if (v.marginDb < NEAR_NOISE_DB)
    out.push(
      Number.isFinite(v.marginDb)
        ? `only ${Math.round(v.marginDb)} dB above the noise there when measured again: raise the level in the Rig`
        : 'it was lost in the noise there when measured again: raise the level in the Rig',
    );
  return out.length > 0
    ? out
    : ['something between loudspeaker and microphone changed: door, people, furniture, position'];
}
