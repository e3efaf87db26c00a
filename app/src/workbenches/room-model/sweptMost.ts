import { fittedOf, usableSpots, type Project } from '@pebble-hall/core/project';
import type { RoomRun } from '@pebble-hall/core/runs';
import type { RunAsking } from './newRun';

/** The full-range channel that was swept at most spots, with its sweeps there; null where none was. */
export function sweptMost(project: Project) {
  const all = fittedOf(project)
    .filter((channel) => channel.role === 'full range')
    .map((channel) => ({ channel, sweeps: usableSpots(project, channel.id).averaged }));
  const most = all.reduce<(typeof all)[number] | null>(
    (a, b) => (b.sweeps.length > (a?.sweeps.length ?? 0) ? b : a),
    null,
  );
  return most && most.sweeps.length > 0 ? most : null;
}

/** What to ask of a run so that it has the walk's own source and spots; another source rings otherwise in the same room. */
export function asSwept(
  swept: NonNullable<ReturnType<typeof sweptMost>>,
): Pick<RunAsking, 'sounds' | 'talker' | 'loudspeakerIds' | 'heard'> {
  return { sounds: 'speech', talker: false, loudspeakerIds: [swept.channel.id], heard: 'the spots' };
}

/** Whether a run plays from that channel, and from nothing else. */
export const playsFrom = ({ sources }: Pick<RoomRun, 'sources'>, channelId: string): boolean =>
  sources.every((s) => s.kind === 'loudspeaker' && s.loudspeakerId === channelId);
