import type { RigSettings } from '@pebble-hall/core/project';

/** What a microphone does in the round, as one word: away, along, or `floor` and the one above it. */
export function roleOf({ alongIds, pairs }: Pick<RigSettings, 'alongIds' | 'pairs'>, id: string): string {
  const pair = pairs.find((p) => p.floorId === id);
  if (pair) return `floor ${pair.earId}`;
  return alongIds.includes(id) ? 'along' : 'away';
}

/** Another part for one microphone; nothing else changes, but what lies on the floor has nobody below it. */
export function withRole(
  { alongIds, pairs }: Pick<RigSettings, 'alongIds' | 'pairs'>,
  id: string,
  role: string,
  crossoverHz: number,
): Pick<RigSettings, 'alongIds' | 'pairs'> {
  const onFloor = role.startsWith('floor ');
  const others = pairs.filter((p) => p.floorId !== id && !(onFloor && p.earId === id));
  const earId = role.slice('floor '.length);
  return {
    alongIds: [...alongIds.filter((a) => a !== id), ...(role === 'along' ? [id] : [])],
    pairs: onFloor
      ? [...others.filter((p) => p.earId !== earId), { earId, floorId: id, crossoverHz }]
      : others,
  };
}
