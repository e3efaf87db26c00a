import type { Loudspeaker, Project, Spot, Sweep } from '@pebble-hall/core/project';

/** What the project knows of how far each part of the job is; everything here is read from evidence. */
export const fittedOf = ({ place }: Project): Loudspeaker[] => place.loudspeakers.filter((l) => l.fitted);

/** The newest as-found sweep of a spot and a loudspeaker. */
export function sweepOf(
  project: Project,
  spotId: string,
  loudspeakerId: string,
  stage: Sweep['stage'] = 'as found',
): Sweep | undefined {
  return project.sweeps.findLast(
    (s) => s.stage === stage && s.spotId === spotId && s.loudspeakerId === loudspeakerId,
  );
}

/** Whether a spot has a usable sweep of every fitted loudspeaker. */
export const isSpotTaken = (project: Project, spot: Spot): boolean =>
  fittedOf(project).every((l) => {
    const sweep = sweepOf(project, spot.id, l.id);
    return sweep !== undefined && sweep.verdict.state !== 'failed';
  });

/** Spots with usable sweeps of one loudspeaker: averaged ones and ones that only judge. */
export function usableSpots(
  project: Project,
  loudspeakerId: string,
): { averaged: Sweep[]; leftOut: Sweep[] } {
  const averaged: Sweep[] = [];
  const leftOut: Sweep[] = [];
  for (const spot of project.place.spots) {
    const sweep = sweepOf(project, spot.id, loudspeakerId);
    if (!sweep || sweep.verdict.state === 'failed') continue;
    (spot.inAverage ? averaged : leftOut).push(sweep);
  }
  return { averaged, leftOut };
}

/** What a design rests on, as text that changes when any of it does. */
export function designKey(project: Project): string {
  const rests = {
    correction: project.correction,
    sweeps: fittedOf(project).map((l) =>
      usableSpots(project, l.id).averaged.map((s) => `${s.traceId} ${s.calibrationId}`),
    ),
  };
  let hash = 0;
  for (const c of JSON.stringify(rests)) hash = (Math.imul(hash, 31) + c.charCodeAt(0)) | 0;
  return (hash >>> 0).toString(16);
}

export type StoneState = 'empty' | 'begun' | 'done' | 'look again';

export interface Stone {
  name: string;
  path: string;
  state: StoneState;
  evidence: string;
}

const ENOUGH_DB = 20;

/** The stepping stones of what exists, each with its evidence. */
export function stonesOf(project: Project): Stone[] {
  return [
    { name: 'Rig', path: '/rig', ...rigState(project) },
    { name: 'Mic walk', path: '/mic-walk', ...walkState(project) },
    { name: 'Correct', path: '/correct', ...correctState(project) },
    { name: 'Hand over', path: '/hand-over', ...handOverState(project) },
  ];
}

type Evidence = Pick<Stone, 'state' | 'evidence'>;

/** Margin of a checked channel at the level that is set now. */
export function marginNow({ rig }: Project, loudspeakerId: string): number | null {
  const check = rig.checks[loudspeakerId];
  return check ? check.verdict.marginDb + rig.levelDbfs - check.levelDbfs : null;
}

function rigState(project: Project): Evidence {
  const fitted = fittedOf(project);
  const margins = fitted.map((l) => marginNow(project, l.id)).filter((m) => m !== null);
  if (margins.length === 0) return { state: 'empty', evidence: 'not begun' };
  if (margins.length < fitted.length)
    return { state: 'begun', evidence: `${margins.length} of ${fitted.length} checked` };
  const least = Math.min(...margins);
  if (!Number.isFinite(least)) return { state: 'look again', evidence: 'an output is silent' };
  const dB = Math.round(least);
  return least >= ENOUGH_DB
    ? { state: 'done', evidence: `ready, ${dB} dB` }
    : { state: 'look again', evidence: `only ${dB} dB` };
}

function walkState(project: Project): Evidence {
  const { spots } = project.place;
  const taken = spots.filter((s) => isSpotTaken(project, s)).length;
  const any = project.sweeps.some((s) => s.stage === 'as found');
  if (!any) return { state: 'empty', evidence: 'not begun' };
  const evidence = `${taken} of ${spots.length} spots`;
  return { state: taken === spots.length ? 'done' : 'begun', evidence };
}

function correctState(project: Project): Evidence {
  const ready = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0).length;
  if (ready === 0) return { state: 'empty', evidence: 'not begun' };
  const load = project.loads.at(-1);
  if (load && load.designKey !== designKey(project))
    return { state: 'look again', evidence: 'changed since loaded' };
  return load
    ? { state: 'done', evidence: `in memory ${load.letter}` }
    : { state: 'begun', evidence: ready === 1 ? '1 channel' : `${ready} channels` };
}

function handOverState(project: Project): Evidence {
  const load = project.loads.at(-1);
  if (!load) return { state: 'empty', evidence: 'nothing loaded' };
  const channels = Object.keys(load.filters);
  const home = project.place.spots[0]!;
  const verified = channels.filter(
    (id) => sweepOf(project, home.id, id, 'verified')?.memory.checksum === load.checksum,
  );
  if (verified.length === channels.length) return { state: 'done', evidence: `${load.letter} verified` };
  return { state: 'begun', evidence: `memory ${load.letter} loaded` };
}
