import { designGround } from '@pebble-hall/core/jobs';
import {
  designKey,
  filterPart,
  variantOf,
  type MemoryLoad,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import { baseOutputs } from './baseOutputs';
import type { Job } from './derivation';
import { exactFilters, outputsOf } from './exactFilters';
import { theProcessor } from './theProcessor';

/** A load as it would be, of the variant that is edited: everything but where it goes. */
export interface DraftLoad {
  /** without a memory: its letter is '' */
  load: MemoryLoad;
  /** its FIRs, as a project stores them */
  arrays: ProjectArray[];
  /** one for each output, empty where there is none */
  filters: Float32Array[];
}

/**
 * Makes the filters and settings of the variant that is edited, and loads nothing.
 * @throws Error where there is nothing to make them from
 */
export async function draftLoad(project: Project, job?: Partial<Job>): Promise<DraftLoad> {
  const variant = variantOf(project);
  const { rate } = theProcessor().profile;
  const { outputs: before } = await baseOutputs(project);
  const made = await exactFilters(designGround(project), filterPart(variant.correction), job);
  if (made.exact.size === 0) throw new Error('there is no correction yet. Measure in the Mic walk first.');
  const { outputs, filters } = await outputsOf(project, variant.correction, made.exact, before);
  const arrays: ProjectArray[] = [];
  const ids: Record<string, string> = {};
  for (const [channel, { fir }] of made.exact) {
    if (!fir) continue;
    ids[channel] = crypto.randomUUID();
    arrays.push({ id: ids[channel], kind: 'filter', rate, zero: 0, samples: fir });
  }
  const load: MemoryLoad = {
    id: crypto.randomUUID(),
    letter: '',
    name: '',
    loadedAt: Date.now(),
    checksum: 0,
    filters: ids,
    spans: Object.fromEntries([...made.designs.values()].map((d) => [d.id, d.span])),
    outputs,
    before,
    designKey: designKey(project, variant.correction),
    variantId: variant.id,
    variantName: variant.name,
    verdict: null,
  };
  return { load, arrays, filters };
}
