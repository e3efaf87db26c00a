import './inThread/browser';
import { designGround, channelRequests } from '@pebble-hall/core/jobs';
import { FILES_ONLY } from '@pebble-hall/core/processing';
import {
  filterPart,
  fittedOf,
  takeLevels,
  variantOf,
  withCorrection,
  type Project,
} from '@pebble-hall/core/project';
import { exactFilters } from '../app/src/services/exactFilters';
import { checkChannel, measureSweep } from '../app/src/services/measuring';
import { putInPlace, verifyLoad } from '../app/src/services/memoryWork';
import { projectNow, projectOwner, repository } from '../app/src/store';
import { readAtHome } from '../app/src/workbenches/correct/levels/useAtHome';
import { alignCrossovers, evenOutSeats } from '../app/src/workbenches/correct/steps/takeSteps';
import { changed, type Edit } from '../app/src/workbenches/correct/useCorrection';
import { homeVerdict } from '../app/src/workbenches/hand-over/verify/spotVerdicts';
import { FINISHED } from './demoFiles';
import { nextIs } from './inThread/serveJobs';
import { netLoftProject } from './netLoftProject';

const YEAR_MS = 365 * 24 * 3600_000;
const quiet = () => {};
const options = () => ({ signal: new AbortController().signal, onProgress: quiet });

/** Makes every job of the workers known. */
async function readJobs(): Promise<void> {
  nextIs('analysis');
  await import('../app/src/workers/analysis.worker');
  nextIs('design');
  await import('../app/src/workers/design.worker');
  nextIs('room');
  await import('../app/src/workers/room.worker');
}

const change = (label: string, next: (project: Project) => Project) => projectOwner().change(label, next);
const edit: Edit = (label, next) => void change(label, (p) => withCorrection(p, (now) => changed(now, next)));

/** A whole round: every channel at every spot. */
async function walk(): Promise<void> {
  const { place } = projectNow();
  for (const spot of place.spots)
    for (const { id } of fittedOf({ place })) {
      const { sweep, arrays } = await measureSweep(projectNow(), spot.id, id, 'as found', options());
      await projectOwner().change('sweep', (p) => ({ ...p, sweeps: [...p.sweeps, sweep] }), { arrays });
    }
}

/**
 * The Net Loft, finished: two rounds a year apart, corrected, handed over and verified. Everything in it was measured in the
 * simulated loft and worked out by the application's own services.
 * @returns the project file
 */
export async function finishedNetLoft(): Promise<Uint8Array> {
  await readJobs();
  const empty = netLoftProject();
  const { id, name } = FINISHED;
  await repository().add({
    ...empty,
    id,
    name,
    processor: { adapter: 'files only', unit: 'finished', profile: FILES_ONLY, inPlaceId: null },
    place: { ...empty.place, spots: empty.place.spots.slice(0, 3) },
    rig: { ...empty.rig, levelDbfs: -24 },
  });
  await projectOwner().open(id);
  for (const loudspeaker of fittedOf(projectNow())) {
    const { check, array } = await checkChannel(projectNow(), loudspeaker, options());
    await projectOwner().change(
      'check',
      (p) => ({ ...p, rig: { ...p.rig, checks: { ...p.rig.checks, [loudspeaker.id]: check } } }),
      { arrays: [array] },
    );
  }
  await walk();
  // what was just measured was a year ago
  const now = Date.now();
  await change('a new round', (p) => ({
    ...p,
    rounds: [
      { ...p.rounds[0]!, name: 'A year ago', startedAt: now - YEAR_MS },
      { id: 'round-2', name: 'This year', startedAt: now, note: 'New drapes at the rear.' },
    ],
    roundId: 'round-2',
    sweeps: p.sweeps.map((s) => ({ ...s, takenAt: s.takenAt - YEAR_MS })),
  }));
  await walk();
  await evenOutSeats(edit);
  await projectOwner().caughtUp();
  const filters = async () =>
    exactFilters(designGround(projectNow()), filterPart(variantOf(projectNow()).correction));
  const { correction } = variantOf(projectNow());
  const ground = designGround(projectNow());
  const { suggested } = await readAtHome({
    ground,
    correction: filterPart(correction),
    requests: channelRequests(ground, correction),
    filters: await filters(),
  });
  edit('levels and delays from the home spot', (c) => takeLevels(projectNow(), c, suggested));
  await projectOwner().caughtUp();
  const mains = fittedOf(projectNow()).filter((l) => l.role === 'full range');
  await alignCrossovers(
    edit,
    await filters(),
    mains.map((l) => l.id),
    true,
  );
  await projectOwner().caughtUp();
  await putInPlace();
  const load = projectNow().loads.at(-1)!;
  await verifyLoad(load, [projectNow().place.spots[0]!.id], 'verified', homeVerdict);
  const { bytes } = await repository().exportFile(id);
  projectOwner().close();
  return bytes;
}
