import type { NoiseBand } from '@pebble-hall/core/auralisation';

/** What another workbench asks Listen to begin with. */
export interface HeardFrom {
  /** channels that play left and right */
  leftId: string;
  rightId: string;
  /** others that play the same as the left one, together with it */
  alsoIds: string[];
  spotId: string;
  /** noise of this band, Hz */
  band: NoiseBand;
}

/** The address of Listen that begins with it. */
export const listenAt = ({ leftId, rightId, alsoIds, spotId, band }: HeardFrom): string =>
  `/listen#${new URLSearchParams([
    ['left', leftId],
    ['right', rightId],
    ...alsoIds.map((id) => ['also', id]),
    ['spot', spotId],
    ['from', band.from.toFixed(0)],
    ['to', band.to.toFixed(0)],
  ])}`;

const LEAST_HZ = 20;
const MOST_HZ = 20_000;

/** What the hash of an address asks for; null where it asks for nothing that can be heard. */
export function heardFrom(hash: string): HeardFrom | null {
  const asked = new URLSearchParams(hash.replace(/^#/, ''));
  const [leftId, rightId, spotId] = ['left', 'right', 'spot'].map((k) => asked.get(k));
  const band = { from: Number(asked.get('from')), to: Number(asked.get('to')) };
  return leftId && rightId && spotId && band.from >= LEAST_HZ && band.to > band.from && band.to <= MOST_HZ
    ? { leftId, rightId, alsoIds: asked.getAll('also'), spotId, band }
    : null;
}
