import { loudspeakerById } from './loudspeakers.js';
import { shortHash, sweepOf } from './progress.js';
import type { MemoryLoad, Project, Sweep } from './types.js';

/** Every loudspeaker by itself, or the channels that send bass with what the subwoofers make of it. */
export type VerifiedStage = Exclude<Sweep['stage'], 'as found'>;

/** What is measured again of a load. */
export const verifiedIds = (
  { place }: { place: Pick<Project['place'], 'loudspeakers'> },
  load: MemoryLoad,
  stage: VerifiedStage,
): string[] =>
  Object.keys(load.spans).filter((id) => {
    const output = loudspeakerById(place, id)?.output;
    return stage === 'verified' || (output && load.outputs?.[output - 1]?.bassFeed);
  });

/** The verified sweep of a channel at a spot that belongs to a load. */
export const verifiedOf = (
  project: Project,
  load: MemoryLoad,
  id: string,
  spotId = project.place.spots[0]!.id,
  stage: VerifiedStage = 'verified',
) => {
  const newest = sweepOf(project, spotId, id, stage);
  if (newest?.memory.checksum === load.checksum) return newest;
  return project.sweeps.findLast(
    (s) =>
      s.stage === stage &&
      s.spotId === spotId &&
      s.loudspeakerId === id &&
      s.memory.checksum === load.checksum,
  );
};

/** What a verdict on the home spot rests on, as text that changes when any of it does: both sweeps of every channel. */
export function verdictKey(project: Project, load: MemoryLoad): string {
  const home = project.place.spots[0]!.id;
  const seen = Object.keys(load.spans).flatMap((id) =>
    [sweepOf(project, home, id), verifiedOf(project, load, id)].map((s) => s && [s.id, s.calibrationId]),
  );
  return shortHash(JSON.stringify(seen));
}
