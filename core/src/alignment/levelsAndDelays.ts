/** A channel at the home spot, as it will be after its correction. */
export interface ChannelAtHome {
  id: string;
  role: 'full range' | 'subwoofer';
  /** level within its own band against the target's shape, dB */
  levelDb: number;
  /** arrival of its direct sound, seconds from drive; null where it is not known */
  arrivalS: number | null;
  /** by how much its filter makes it later, seconds */
  latencyS: number;
}

/** What a channel needs so that all arrive together and equally loud. */
export interface LevelAndDelay {
  id: string;
  trimDb: number;
  delayS: number;
  /** channel that all are brought to in level, and the one that arrives last */
  quietestId: string;
  latestId: string | null;
}

/** A trim goes no higher, whatever a weak subwoofer asks for. */
export const MOST_TRIM_DB = 12;

/**
 * Trims and delays that make all channels arrive at the home spot together and equally loud against the target. All are
 * brought down to the quietest full-range channel (the quietest of all where there is none); only a subwoofer may be raised.
 * Nothing is asked to come earlier: the others wait for the latest.
 * @throws RangeError without channels
 */
export function levelsAndDelays(channels: ChannelAtHome[]): LevelAndDelay[] {
  if (channels.length === 0) throw new RangeError('levelsAndDelays: no channels');
  const full = channels.filter((c) => c.role === 'full range');
  const quietest = (full.length > 0 ? full : channels).reduce((a, b) => (b.levelDb < a.levelDb ? b : a));
  const known = channels.filter((c) => c.arrivalS !== null);
  const at = (c: ChannelAtHome) => c.arrivalS! + c.latencyS;
  const latest = known.length > 0 ? known.reduce((a, b) => (at(b) > at(a) ? b : a)) : null;
  return channels.map((c) => ({
    id: c.id,
    trimDb: Math.min(MOST_TRIM_DB, quietest.levelDb - c.levelDb),
    delayS: latest && c.arrivalS !== null ? at(latest) - at(c) : 0,
    quietestId: quietest.id,
    latestId: latest?.id ?? null,
  }));
}
