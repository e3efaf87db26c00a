/** What the plan says of a channel, and what was heard of it. */
export interface PlannedChannel {
  id: string;
  role: 'full range' | 'subwoofer';
  /** seconds that sound takes from where the plan puts the loudspeaker to the microphone */
  travelS: number;
  /** seconds that the processor delays this channel by, where it was read; 0 otherwise */
  delayS: number;
  /** time of arrival, seconds from drive; null when nothing arrived */
  arrivalS: number | null;
  /** band in which it plays, Hz */
  band: { from: number; to: number } | null;
}

export interface PlanMisfit {
  id: string;
  /** band of another kind of loudspeaker than the plan says */
  wrongBand: boolean;
  /** arrival later (+) or earlier than the plan says, seconds */
  lateS: number;
  /** channels whose place and kind would fit what was heard, the likeliest first */
  couldBe: string[];
}

/** Tolerances: a loudspeaker stands within 35 cm of its plan; a subwoofer's arrival is known less well. */
export const FULL_TOLERANCE_S = 0.001;
export const LOW_TOLERANCE_S = 0.004;
/** A band that ends below this is a subwoofer's; one that ends above the other, a full-range loudspeaker's. */
const LOW_ENDS_HZ = 400;
const FULL_ENDS_HZ = 1500;

/**
 * Channels whose arrival time or band does not fit the plan: perhaps two are swapped. The latency that all share
 * (converters, processor) is the median of what is left over, so that one or two swapped channels stand out.
 * @returns one entry per channel that does not fit, in the order given; empty with fewer than three arrivals, save for bands
 */
export function findMisfits(channels: PlannedChannel[]): PlanMisfit[] {
  const heard = channels.filter((c) => c.arrivalS !== null);
  const rest = (c: PlannedChannel, as = c) => c.arrivalS! - c.delayS - as.travelS;
  const common = sharedLatency(heard.map((c) => rest(c)));
  const judgesTime = heard.length >= 3;
  const found = heard.flatMap((c): PlanMisfit[] => {
    const lateS = judgesTime ? rest(c) - common : 0;
    const wrongBand = !bandFits(c, c.role);
    if (!wrongBand && Math.abs(lateS) <= toleranceOf(c.role)) return [];
    const couldBe = heard
      .filter((other) => other !== c && bandFits(c, other.role))
      .filter((other) => !judgesTime || Math.abs(rest(c, other) - common) <= toleranceOf(other.role))
      .sort((a, b) => Math.abs(rest(c, a) - common) - Math.abs(rest(c, b) - common))
      .map((other) => other.id);
    return [{ id: c.id, wrongBand, lateS, couldBe }];
  });
  // two that fit each other's place are the likeliest exchange
  const misfitting = new Set(found.map((m) => m.id));
  for (const m of found) {
    const mutual = m.couldBe.filter((id) => misfitting.has(id));
    m.couldBe = [...mutual, ...m.couldBe.filter((id) => !misfitting.has(id))];
  }
  return found;
}

/** Channels that stand equally far away and are of one kind, so that a swap between them cannot be heard at this place. */
export function indistinguishable(channels: PlannedChannel[]): [string, string][] {
  const out: [string, string][] = [];
  channels.forEach((a, i) =>
    channels.slice(i + 1).forEach((b) => {
      if (a.role === b.role && Math.abs(a.travelS - b.travelS) <= toleranceOf(a.role)) out.push([a.id, b.id]);
    }),
  );
  return out;
}

const toleranceOf = (role: PlannedChannel['role']) =>
  role === 'subwoofer' ? LOW_TOLERANCE_S : FULL_TOLERANCE_S;

function bandFits({ band }: PlannedChannel, role: PlannedChannel['role']): boolean {
  if (!band) return true;
  return role === 'subwoofer' ? band.to < FULL_ENDS_HZ : band.to > LOW_ENDS_HZ;
}

function sharedLatency(rests: number[]): number {
  const sorted = [...rests].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
