import type { Target } from '../correct/index.js';
import type { Correction, Loudspeaker, Project, Round, Spot, Sweep } from './types.js';
import { variantOf } from './variants.js';

/** What was measured, and where. */
export type Measured = Pick<Project, 'place' | 'sweeps' | 'roundId'>;

/** What the project knows of how far each part of the job is; everything here is read from evidence. */
export const fittedOf = ({ place }: Pick<Project, 'place'>): Loudspeaker[] =>
  place.loudspeakers.filter((l) => l.fitted);

/** The newest sweep of a spot and a loudspeaker: as found of one round (the one under way), verified of any. */
export function sweepOf(
  project: Measured,
  spotId: string,
  loudspeakerId: string,
  stage: Sweep['stage'] = 'as found',
  roundId: string = project.roundId,
): Sweep | undefined {
  return indexOf(project.sweeps).get(keyOf({ stage, spotId, loudspeakerId, roundId }));
}

/** Verified sweeps belong to a memory, not to a round. */
const keyOf = (s: Pick<Sweep, 'stage' | 'spotId' | 'loudspeakerId' | 'roundId'>) =>
  `${s.stage} ${s.spotId} ${s.loudspeakerId} ${s.stage === 'as found' ? s.roundId : ''}`;

const indices = new WeakMap<Sweep[], Map<string, Sweep>>();
/** The newest of every kind; made once for a list of sweeps, which never changes. */
function indexOf(sweeps: Sweep[]): Map<string, Sweep> {
  let index = indices.get(sweeps);
  if (!index) {
    index = new Map(sweeps.map((s) => [keyOf(s), s]));
    indices.set(sweeps, index);
  }
  return index;
}

/** The round that is under way. */
export const roundOf = (project: Project): Round => project.rounds.find((r) => r.id === project.roundId)!;

/** Whether a spot has a usable sweep of every fitted loudspeaker. */
export const isSpotTaken = (project: Measured, spot: Spot): boolean =>
  fittedOf(project).every((l) => {
    const sweep = sweepOf(project, spot.id, l.id);
    return sweep !== undefined && sweep.verdict.state !== 'failed';
  });

/** Spots with usable sweeps of one loudspeaker: averaged ones and ones that only judge. A sweep left out by itself does neither. */
export function usableSpots(
  project: Measured,
  loudspeakerId: string,
  roundId: string = project.roundId,
): { averaged: Sweep[]; leftOut: Sweep[] } {
  const averaged: Sweep[] = [];
  const leftOut: Sweep[] = [];
  for (const spot of project.place.spots) {
    const sweep = sweepOf(project, spot.id, loudspeakerId, 'as found', roundId);
    if (!sweep || sweep.verdict.state === 'failed' || !sweep.inAverage) continue;
    (spot.inAverage ? averaged : leftOut).push(sweep);
  }
  return { averaged, leftOut };
}

/** What was measured and is averaged, as text that changes when any of it does; the same in whatever browser it is opened. */
export function measuredKey(project: Measured): string {
  return shortHash(
    JSON.stringify(
      fittedOf(project).map((l) =>
        usableSpots(project, l.id).averaged.map(
          (s) =>
            `${s.id} ${s.calibrationId} ${s.groundPlane} ${s.levelOffsetDb} ${project.place.spots.find((spot) => spot.id === s.spotId)!.weight}`,
        ),
      ),
    ),
  );
}

/** What a design rests on, as text that changes when any of it does: what was measured, and the correction. */
export const designKey = (
  project: Measured & Pick<Project, 'variants' | 'variantId'>,
  correction: Correction = variantOf(project).correction,
): string => shortHash(`${measuredKey(project)} ${JSON.stringify(asInVersion5(correction))}`);

/**
 * A correction as version 5 wrote it, so that loads of then are still found to be what is designed: what came later stays
 * out where it is as it always was, and has its older name.
 */
const asInVersion5 = (correction: Correction) => ({
  ...correction,
  ...targetsInVersion6(correction),
  lowChannel: correction.lowChannel ?? undefined,
  allPasses: noneAsNothing(correction.allPasses),
  headroomGuard: { programme: true, off: false, 'full scale': 'full scale' }[correction.headroomGuard],
  madeFrom: undefined,
});

/** So that a key is as it was before there were any. */
export const noneAsNothing = <T extends object>(byId: T): T | undefined =>
  Object.keys(byId).length > 0 ? byId : undefined;

/** The targets of a correction as versions 6 and 7 wrote them. */
export const targetsInVersion6 = ({ target, familyTargets }: Correction) => ({
  target: targetInVersion6(target),
  familyTargets: Object.fromEntries(
    Object.entries(familyTargets).map(([id, own]) => [id, targetInVersion6(own)]),
  ),
});

const targetInVersion6 = ({ keepsRollOff, lowExtensionHz, highExtensionHz, ...shape }: Target) => ({
  ...shape,
  lowReachHz: lowExtensionHz,
  highReachHz: highExtensionHz,
  keepsRollOff: keepsRollOff ? undefined : false,
});

/** A text in eight hexadecimal digits, to tell whether it has changed. */
export function shortHash(text: string): string {
  let hash = 0;
  for (const c of text) hash = (Math.imul(hash, 31) + c.charCodeAt(0)) | 0;
  return (hash >>> 0).toString(16);
}

/** Margin of a checked channel at the level that is set now. */
export function marginNow({ rig }: Pick<Project, 'rig'>, loudspeakerId: string): number | null {
  const check = rig.checks[loudspeakerId];
  return check ? check.verdict.snrDb + rig.levelDbfs - check.levelDbfs : null;
}
