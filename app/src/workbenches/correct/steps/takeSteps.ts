import type { CrossoverAlignment, SubsTogether } from '@pebble-hall/core/alignment';
import { channelRequests, designGround } from '@pebble-hall/core/jobs';
import type { CrossoverFilter } from '@pebble-hall/core/path';
import {
  crossingS,
  filterPart,
  fittedOf,
  staleSteps,
  subLimits,
  takeCrossover,
  takeEvenSeats,
  takeLevels,
  variantOf,
  type Correction,
  type Project,
  type Step,
} from '@pebble-hall/core/project';
import { exactFilters, type ExactFilters } from '../../../services/exactFilters';
import { runJob } from '../../../services/jobs';
import { theProcessor } from '../../../services/theProcessor';
import { projectNow, projectOwner } from '../../../store';
import { crossoverGround } from '../../../services/crossoverGround';
import { offeredCrossovers } from '../bass/useCrossover';
import { readAtHome } from '../levels/useAtHome';
import { subTraces } from '../subwoofers/subTraces';
import type { Edit } from '../useCorrection';

/** Kinds and slopes that are tried where the crossover itself is looked for. */
const SEARCHED: Pick<CrossoverFilter, 'kind' | 'order'>[] = [
  { kind: 'Linkwitz-Riley', order: 4 },
  { kind: 'Butterworth', order: 2 },
  { kind: 'Linkwitz-Riley', order: 8 },
];

const idsOf = (project: Project, role: 'full range' | 'subwoofer') =>
  fittedOf(project)
    .filter((l) => l.role === role)
    .map((l) => l.id);

/** How far to either side delays are searched, seconds: across the place, and what delays are set apart already. */
export function searchedS({ place }: Project, { alignment }: Correction): number {
  const delays = Object.values(alignment).map((a) => a.delayMs);
  return crossingS(place) + Math.max(0, ...delays) / 1000;
}

/** Delay, gain, polarity and sections of each subwoofer, so that the seats are alike. */
export async function evenOutSeats(edit: Edit): Promise<SubsTogether> {
  const { ids, traces } = subTraces(projectNow());
  const { rate } = theProcessor().profile;
  const limits = subLimits(variantOf(projectNow()).correction);
  const found = await runJob('design.evenSeats', { traces, limits, rate });
  const subs = Object.fromEntries(ids.map((id, i) => [id, found.settings[i]!]));
  edit('seats evened out', (now) => takeEvenSeats(projectNow(), now, subs));
  return found;
}

/** The correction with the subwoofers' own low-pass taken away: every channel brings one for its bass. */
const opened = (correction: Correction, subs: string[]): Correction => ({
  ...correction,
  crossovers: {
    ...correction.crossovers,
    ...Object.fromEntries(subs.map((id) => [id, { highPass: null, lowPass: null }])),
  },
});

/**
 * Delay and polarity of the subwoofers against channels, by what adds up at all spots.
 * @param ids the channels that count
 * @param crossoverToo whether the crossover itself is looked for and set for them
 * @throws Error where the two share no band
 */
export async function alignCrossovers(
  edit: Edit,
  filters: ExactFilters,
  ids: string[],
  crossoverToo: boolean,
): Promise<CrossoverAlignment & { efficiency: number; mostDelayS: number }> {
  const project = projectNow();
  const { correction } = variantOf(project);
  const subs = idsOf(project, 'subwoofer');
  const from = (now: Correction) => (crossoverToo ? opened(now, subs) : now);
  const ground = designGround(project);
  const asked = await Promise.all(
    ids.map((mainId) => crossoverGround({ ground, correction: from(correction), filters, mainId })),
  );
  const offered = crossoverToo
    ? offeredCrossovers(
        SEARCHED,
        ids.flatMap((id) => filters.designs.get(id)?.rollOffs.low?.cornerHz ?? []),
      )
    : null;
  const mostDelayS = searchedS(project, correction);
  const best = await runJob('design.alignCrossover', {
    asked: asked.map(({ request, setting }) => ({ request, setting })),
    offered,
    mostDelayS,
  });
  const { efficiency } = best;
  if (efficiency === null)
    throw new Error(
      'with none of the crossovers offered do the two share a band. Choose one by hand, or measure at other spots.',
    );
  edit('crossover to the subwoofers', (now) =>
    takeCrossover(projectNow(), from(now), best, crossoverToo ? ids : []),
  );
  return { ...best, efficiency, mostDelayS };
}

/** One step from what is stored now. */
async function takeAgain(step: Step, edit: Edit): Promise<void> {
  if (step === 'subs') return void (await evenOutSeats(edit));
  const project = projectNow();
  const { correction } = variantOf(project);
  const ground = designGround(project);
  const filters = await exactFilters(ground, filterPart(correction));
  if (step === 'crossover') {
    const crossed = idsOf(project, 'full range').filter((id) => correction.crossovers[id]);
    return void (await alignCrossovers(edit, filters, crossed, false));
  }
  const requests = channelRequests(ground, correction);
  const { suggested } = await readAtHome({ ground, correction: filterPart(correction), requests, filters });
  edit('levels and delays from the home spot', (now) => takeLevels(projectNow(), now, suggested));
}

/** Takes every step again that rests on what has changed since, in the order in which they rest on each other. */
export async function takeStaleAgain(edit: Edit): Promise<void> {
  for (let turn = 0; turn < 4; turn++) {
    const project = projectNow();
    const [first] = staleSteps(project, variantOf(project).correction);
    if (first === undefined) return;
    await takeAgain(first, edit);
    await projectOwner().caughtUp();
  }
}
