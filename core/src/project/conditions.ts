import type { Loudspeaker, Project, Spot, Conditions } from './types.js';

/** What a sweep taken now is based on; `rigName` as the rig that measures calls itself. */
export const conditionsNow = (
  project: Project,
  spot: Spot,
  loudspeaker: Loudspeaker,
  rigName: string,
): Conditions => ({
  spot: { ...spot.position },
  loudspeaker: { ...loudspeaker.position },
  output: loudspeaker.output,
  rigName,
  temperatureC: project.place.temperatureC,
});
