import type { ChannelRequest, ExactChannel, ProcessorLimits } from '@pebble-hall/core/correct';
import type { BuiltOutputs, OutputCorrection, OutputSettings } from '@pebble-hall/core/processing';
import type { Correction, Project } from '@pebble-hall/core/project';
import { SKERRY } from '@pebble-hall/stand-ins/processor';
import {
  channelRequests,
  designAll,
  designWorker,
  provideDesigns,
  togetherOf,
  type Designs,
} from './designs';
import { madeFilters } from '../store';
import { designKey, fittedOf } from './progress';

/** What the processor holds, as far as a design asks. */
export const PROCESSOR: ProcessorLimits = SKERRY;
const STEPS = { rate: SKERRY.rate, leastTrimDb: -80, mostTrimDb: 12, mostDelayMs: 500 };
/** So many filters are kept as made, each under what it was made from. */
const KEPT = 200;

export interface ExactFilters {
  key: string;
  designs: Designs;
  exact: Map<string, ExactChannel>;
}
const kept = new Map<string, Promise<ExactChannel>>();

/** What the filters of a correction rest on; levels, delays and crossovers do not change them. */
export const exactKey = (project: Project, correction: Correction): string =>
  designKey(project, {
    ...correction,
    alignment: {},
    crossovers: {},
    lowChannel: null,
    headroomGuard: false,
  });

/** How many sections of its own a channel's fit may use, beside those that a subwoofer has from working together. */
const sectionsLeft = (correction: Correction, id: string) =>
  Math.max(1, PROCESSOR.mostSections - (correction.subs[id]?.sections.length ?? 0));

/** The exact filters of all channels of a correction; worked out once, channel by channel, so that it can be stopped. */
export async function exactFilters(
  project: Project,
  correction: Correction,
  onProgress: (done: number, of: number) => void = () => {},
  signal?: AbortSignal,
): Promise<ExactFilters> {
  const key = exactKey(project, correction);
  await provideDesigns(project, correction);
  const requests = channelRequests(project, correction);
  const designs = await designAll(requests);
  const exact = new Map<string, ExactChannel>();
  const together = togetherOf(project, correction);
  for (const [i, request] of requests.entries()) {
    signal?.throwIfAborted();
    onProgress(i, requests.length);
    // subwoofers that work together share one filter, made once
    const first = together.includes(request.id) ? exact.get(together[0]!) : undefined;
    exact.set(request.id, first ? { ...first, id: request.id } : await exactOf(request, correction));
  }
  return { key, designs, exact };
}

/** A filter as another page made it, with the same program; else it is made, and kept for the next page. */
async function recalledOr(key: string, make: () => Promise<ExactChannel>): Promise<ExactChannel> {
  const madeBy = await designWorker().call((api) => api.madeBy());
  const stored = madeBy && `${madeBy} ${key}`;
  const recalled = stored && (await madeFilters.get(stored));
  if (recalled) return recalled;
  const filter = await make();
  if (stored) void madeFilters.put(stored, filter);
  return filter;
}

/** Whoever asks for a filter that is just being made waits for that one. */
function exactOf(request: ChannelRequest, correction: Correction): Promise<ExactChannel> {
  const ask = {
    request,
    choice: correction.filter,
    processor: { ...PROCESSOR, mostSections: sectionsLeft(correction, request.id) },
    byHand: correction.sections[request.id] ?? null,
  };
  const key = JSON.stringify(ask);
  const known = kept.get(key);
  if (known) return known;
  const made = recalledOr(key, () => designWorker().call((api) => api.exact(ask)));
  kept.set(key, made);
  made.catch(() => kept.delete(key));
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!);
  return made;
}

/**
 * The processor's input that takes the low-frequency channel: the first whose output no loudspeaker is on.
 * @throws Error when every output has a loudspeaker
 */
export function lowInput({ place }: Pick<Project, 'place'>, inputs: number = SKERRY.outputs): number {
  const taken = place.loudspeakers.map((l) => l.output);
  const free = Array.from({ length: inputs }, (_, i) => i + 1).find((n) => !taken.includes(n));
  if (!free)
    throw new Error('every output has a loudspeaker, so no input is left for a low-frequency channel.');
  return free;
}

/** Settings and filters of all outputs for a correction, on top of what the processor did while the room was measured. */
export async function outputsOf(
  project: Project,
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
      },
    ];
  });
  const options = {
    guard: correction.headroomGuard,
    fitted: fitted.map((l) => l.output),
    steps: STEPS,
    low: correction.lowChannel && { input: lowInput(project, base.length), feed: correction.lowChannel },
  };
  // the headroom of every chain takes large transforms: not on the page's own thread
  return designWorker().call((api) => api.build(base, channels, options));
}
