import type { ChannelDesign, ExactChannel } from '@pebble-hall/core/correct';
import {
  channelRequests,
  sourceKey,
  togetherIds,
  type ChannelRequest,
  type DesignGround,
  type ExactRequest,
} from '@pebble-hall/core/jobs';
import {
  limitsOf,
  type BuiltOutputs,
  type OutputCorrection,
  type OutputSettings,
} from '@pebble-hall/core/processing';
import { fittedOf, lowInput, type Correction, type Project } from '@pebble-hall/core/project';
import { delay } from 'es-toolkit';
import QuickLRU from 'quick-lru';
import { madeFilters } from '../store';
import type { Job } from './derivation';
import { runJob } from './jobs';
import { theProcessor } from './theProcessor';

export type Designs = Map<string, ChannelDesign>;

export interface ExactFilters {
  designs: Designs;
  exact: Map<string, ExactChannel>;
}

export async function designAll(requests: ChannelRequest[], job?: Partial<Job>): Promise<Designs> {
  const designs = await runJob('design.design', requests, job);
  return new Map(designs.map((d) => [d.id, d]));
}

/** How many sections of its own a channel's fit may use, beside what it has from playing together with others. */
const sectionsLeft = (correction: Correction, id: string) =>
  Math.max(
    1,
    theProcessor().profile.mostSections -
      (correction.subs[id]?.sections.length ?? 0) -
      (correction.allPasses[id]?.length ?? 0),
  );

const REST_MS = 500;
let restedAt = 0;

/** A hand moves what filters are made of: their making lets the quick designs of its next moves pass until it rests. */
export const handMoves = (): void => void (restedAt = performance.now() + REST_MS);

/** Waits until no hand moves. */
async function handRests(): Promise<void> {
  for (let left = restedAt - performance.now(); left > 0; left = restedAt - performance.now())
    await delay(left);
}

/** The exact filters of all channels of a correction; worked out once, channel by channel, so that it can be stopped. */
export async function exactFilters(
  project: DesignGround,
  correction: Correction,
  { signal, onProgress }: Partial<Job> = {},
): Promise<ExactFilters> {
  const requests = channelRequests(project, correction);
  const designs = await designAll(requests, { signal });
  const exact = new Map<string, ExactChannel>();
  const together = togetherIds(project, correction);
  for (const [i, request] of requests.entries()) {
    await handRests();
    signal?.throwIfAborted();
    onProgress?.(i / requests.length);
    // subwoofers that play together share one filter, made once
    const first = together.includes(request.id) ? exact.get(together[0]!) : undefined;
    exact.set(request.id, first ? { ...first, id: request.id } : await exactOf(request, correction));
  }
  return { designs, exact };
}

/** So many filters are kept as made, each under what it was made from. */
const made = new QuickLRU<string, Promise<ExactChannel>>({ maxSize: 200 });

/** Everything that a filter is made from, as text, to find it again here and in the browser's database. */
const madeFrom = ({ request, ...rest }: ExactRequest): string =>
  JSON.stringify({
    ...rest,
    request: {
      ...request,
      spots: request.spots.map(sourceKey),
      leftOut: request.leftOut.map(sourceKey),
    },
  });

/** Whoever asks for a filter that is just being made waits for that one. */
function exactOf(request: ChannelRequest, correction: Correction): Promise<ExactChannel> {
  const mostSections = sectionsLeft(correction, request.id);
  const ask: ExactRequest = {
    request,
    choice: correction.filter,
    processor: { ...limitsOf(theProcessor().profile), mostSections },
    byHand: correction.sections[request.id] ?? null,
  };
  const key = madeFrom(ask);
  const known = made.get(key);
  if (known) return known;
  const filter = recalledOr(key, () => runJob('design.exact', ask));
  made.set(key, filter);
  filter.catch(() => made.delete(key));
  return filter;
}

/** A filter as it was made before, with the same program; else it is made, and kept for the next time. */
async function recalledOr(key: string, make: () => Promise<ExactChannel>): Promise<ExactChannel> {
  const madeBy = await runJob('design.madeBy', null);
  const stored = madeBy && `${madeBy} ${key}`;
  const recalled = stored && (await madeFilters.get(stored));
  if (recalled) return recalled;
  const filter = await make();
  if (stored) void madeFilters.put(stored, filter);
  return filter;
}

/** Settings and filters of all outputs for a correction, on top of what the processor did while the room was measured. */
export async function outputsOf(
  project: Pick<Project, 'place'>,
  correction: Correction,
  exact: ExactFilters['exact'],
  base: OutputSettings[],
): Promise<BuiltOutputs> {
  const fitted = fittedOf(project);
  const channels = fitted.flatMap((l): OutputCorrection[] => {
    const filter = exact.get(l.id);
    if (!filter) return [];
    return [
      {
        id: l.id,
        output: l.output,
        fir: filter.fir,
        sections: filter.sections,
        alignment: correction.alignment[l.id] ?? null,
        sub: correction.subs[l.id] ?? null,
        role: l.role,
        crossovers: correction.crossovers[l.id] ?? null,
        allPasses: correction.allPasses[l.id] ?? [],
      },
    ];
  });
  const options = {
    guard: correction.headroomGuard,
    fitted: fitted.map((l) => l.output),
    profile: theProcessor().profile,
    low: correction.lowChannel && { input: lowInput(project, base.length), feed: correction.lowChannel },
  };
  // the headroom of every path takes large transforms: not on the page's own thread
  return runJob('design.build', { base, channels, options });
}
