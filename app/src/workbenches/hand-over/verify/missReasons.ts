import type { Span } from '@pebble-hall/core/correct';
import type { Loudspeaker } from '@pebble-hall/core/project';
import { AGREES_DB, JUDGED_ABOVE_DB } from './difference';

/** What is known of a channel that was measured again. */
export interface Verified {
  /** on the grid, smoothed, dB */
  predictedDb: Float64Array;
  verifiedDb: Float64Array;
  span: Span;
  /** arrival as measured again less what was to be expected, seconds; null where it is not known */
  laterS: number | null;
  role: Loudspeaker['role'];
  /** over the noise, where it misses most */
  snrDb: number;
  /** whether the other channels that were measured again there arrive as expected; null where none tells */
  othersArrive: boolean | null;
  /** name of another channel whose way to the microphone it has now; null where it is none's */
  arrivesLike: string | null;
  /** whether it was measured with the memory that was loaded, its settings included */
  sameMemory: boolean;
}

/** Sound that comes this much later or earlier came another way: 5 cm; a subwoofer's arrival is not known as closely. */
export const MOVED_S = { 'full range': 0.00015, subwoofer: 0.004 };

/** Why a channel is not what was predicted, likeliest first. */
export function missReasons(grid: Float64Array, v: Verified): string[] {
  const off = [...v.verifiedDb].flatMap((level, i) =>
    grid[i]! >= v.span.from && grid[i]! <= v.span.to ? [level - v.predictedDb[i]!] : [],
  );
  const mean = off.reduce((a, b) => a + b, 0) / off.length;
  const rest = Math.max(...off.map((d) => Math.abs(d - mean)));
  const out: string[] = [];
  if (!v.sameMemory) out.push('another memory was active, or its settings had changed');
  if (Math.abs(mean) > AGREES_DB / 2 && rest <= AGREES_DB)
    out.push(
      `the level moved by ${mean > 0 ? '+' : '\u2212'}${Math.abs(mean).toFixed(1)} dB as a whole: gain, trim or volume`,
    );
  if (v.laterS !== null && Math.abs(v.laterS) > MOVED_S[v.role])
    out.push(
      `sound arrives ${Math.abs(1000 * v.laterS).toFixed(2)} ms ${v.laterS > 0 ? 'later' : 'earlier'} than expected${elsewhere(v)}`,
    );
  if (v.snrDb < JUDGED_ABOVE_DB)
    out.push(
      Number.isFinite(v.snrDb)
        ? `only ${Math.round(v.snrDb)} dB above the noise there when measured again: raise the level in the Rig`
        : 'it was lost in the noise there when measured again: raise the level in the Rig',
    );
  return out.length > 0
    ? out
    : ['something between loudspeaker and microphone changed: door, people, furniture, position'];
}

/** A microphone that moved is heard on all channels; one channel alone has another way. */
function elsewhere({ othersArrive, arrivesLike }: Verified): string {
  if (!othersArrive) return ': the microphone stands elsewhere';
  return arrivesLike
    ? `, as ${arrivesLike} would, and the other channels as expected: the two are probably exchanged`
    : ', and the other channels as expected: this loudspeaker was moved, or is on another output';
}
