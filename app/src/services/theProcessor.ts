import { FILES_ONLY, type ProcessorProfile } from '@pebble-hall/core/processing';
import { HOUSE_UNIT, type MemoryLoad, type Project } from '@pebble-hall/core/project';
import { FilesOnlyProcessor, StandInProcessor, type ProcessorPort } from '../ports/processor';
import { projectOwner } from '../store';
import { filtersOf } from './loadFilters';

const standIns = new Map<string, ProcessorPort>();
/** The simulated processor of a place. */
function standIn(unit: string): ProcessorPort {
  const known = standIns.get(unit) ?? new StandInProcessor(unit);
  standIns.set(unit, known);
  return known;
}

let current: { key: string; port: ProcessorPort } | undefined;

/** The processor in the chain of the open project; made on first use, so that nothing is shared by visitors of a server. */
export function theProcessor(): ProcessorPort {
  const state = projectOwner().store.getState();
  return state.status === 'ready' ? processorOf(state.project) : standIn(HOUSE_UNIT);
}

/**
 * The processor of a project. The stand-in is in the chain of the simulated rig only: what plays through real devices goes
 * through whatever is there, which nothing leads to from here.
 */
export function processorOf(project: Pick<Project, 'processor' | 'rig' | 'place' | 'loads'>): ProcessorPort {
  const { processor, rig } = project;
  if (processor.adapter === 'stand-in' && rig.kind === 'simulated') return standIn(processor.unit);
  const { profile, inPlaceId } = filesOnlyOf(processor);
  const outputs = Math.min(profile.outputs, Math.max(1, ...project.place.loudspeakers.map((l) => l.output)));
  const load = project.loads.find((l) => l.id === inPlaceId && l.outputs) ?? null;
  const key = JSON.stringify([
    profile,
    outputs,
    load?.id,
    project.place.loudspeakers.map((l) => [l.id, l.output]),
  ]);
  if (current?.key !== key) current = { key, port: filesOnly(project, profile, outputs, load) };
  return current.port;
}

const filesOnlyOf = (processor: Project['processor']) =>
  processor.adapter === 'files only' ? processor : { profile: FILES_ONLY, inPlaceId: null };

function filesOnly(
  project: Pick<Project, 'place'>,
  profile: ProcessorProfile,
  outputs: number,
  load: MemoryLoad | null,
): ProcessorPort {
  return new FilesOnlyProcessor({
    profile,
    outputs,
    inPlace: load && {
      name: load.name,
      loadedAt: load.loadedAt,
      checksum: load.checksum,
      outputs: load.outputs!,
      filters: () => filtersOf(project, load),
    },
    onTakenOut: () => projectOwner().change('filters are out of the chain', (p) => withInPlace(p, null)),
  });
}

/** The project with a load that the engineer says is in the processor; null for none. */
export const withInPlace = (project: Project, inPlaceId: string | null): Project => ({
  ...project,
  processor: {
    adapter: 'files only',
    unit: project.processor.unit,
    profile: filesOnlyOf(project.processor).profile,
    inPlaceId,
  },
});
