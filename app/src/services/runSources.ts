import { coverageChannel, settingsPath, type ChannelOf } from '@pebble-hall/core/coverage';
import { crc32 } from '@pebble-hall/core/formats';
import { variantOf, type Project } from '@pebble-hall/core/project';
import type { AskedModel } from './jobs';
import { modelOf } from './placeModels';

/** A channel of the plan as it plays in a run: with what the shown variant sets by numbers, as in the map. */
export function runChannel(project: Project, loudspeakerId: string): ChannelOf<AskedModel> | null {
  const loudspeaker = project.place.loudspeakers.find((l) => l.id === loudspeakerId);
  if (!loudspeaker) return null;
  return coverageChannel(
    loudspeaker,
    modelOf(project.place, loudspeaker),
    settingsPath(loudspeaker, variantOf(project).correction, RATE),
  );
}
/** Sections are worked out at this rate; what they do hardly depends on it below 10 kHz. */
const RATE = 48_000;

/** Tells a channel's setting from another. */
export const settingKey = (channel: ChannelOf<AskedModel>): string =>
  crc32(new TextEncoder().encode(JSON.stringify(channel))).toString(16);
