import { FILE_MEMORIES } from '@pebble-hall/core/processing';
import { roomSurfaces } from '@pebble-hall/core/place';
import { memoryShort } from './memoryName';
import { AIM_DB } from '@pebble-hall/core/measure';
import {
  changedSince,
  type Project,
  channelFindings,
  designKey,
  fittedOf,
  isSpotTaken,
  placeProblems,
  marginNow,
  usableSpots,
  verdictKey,
  verifiedOf,
} from '@pebble-hall/core/project';

export type StoneState = 'empty' | 'begun' | 'done' | 'look again';

export interface Stone {
  name: string;
  path: string;
  state: StoneState;
  evidence: string;
}

/** Less than this over the noise is not worth measuring with; the aim is higher. */
const ENOUGH_DB = 20;

/** The same on every stone. */
const NOT_STARTED = 'not started';

/** The stepping stones of what exists, each with its evidence. */
export function stonesOf(project: Project): Stone[] {
  return [
    { name: 'Plan', path: '/plan', ...planState(project) },
    { name: 'Room model', path: '/room-model', ...roomState(project) },
    { name: 'Rig', path: '/rig', ...rigState(project) },
    { name: 'Mic walk', path: '/mic-walk', ...walkState(project) },
    { name: 'Live', path: '/live', ...liveState(project) },
    { name: 'Traces', path: '/traces', ...tracesState(project) },
    { name: 'Align', path: '/align', ...alignState(project) },
    { name: 'Correct', path: '/correct', ...correctState(project) },
    { name: 'Listen', path: '/listen', ...listenState(project) },
    { name: 'Hand over', path: '/hand-over', ...handOverState(project) },
  ];
}

type Evidence = Pick<Stone, 'state' | 'evidence'>;

/** A plan is done where it has channels and nothing in it is wrong. */
function planState({ place, processor }: Project): Evidence {
  const count = place.loudspeakers.filter((l) => l.fitted).length;
  if (count === 0) return { state: 'empty', evidence: 'no channels' };
  const outputs = processor.adapter === 'files only' ? processor.profile.outputs : 64;
  const problems = placeProblems(place, { outputs }).length;
  return problems > 0
    ? { state: 'look again', evidence: problems === 1 ? '1 thing: look' : `${problems} things: look` }
    : { state: 'done', evidence: count === 1 ? '1 channel' : `${count} channels` };
}

/** A room is modelled as far as somebody said what its surfaces are made of, or it was run; a run that the room has left behind is looked at again. */
function roomState({ place, roomRuns }: Project): Evidence {
  if (!place.shape.isEnclosed && !place.roomMesh) return { state: 'empty', evidence: 'in the open' };
  const last = roomRuns.at(-1);
  if (last)
    return changedSince(last, place)
      ? { state: 'look again', evidence: 'room changed' }
      : { state: 'done', evidence: roomRuns.length === 1 ? '1 run' : `${roomRuns.length} runs` };
  const surfaces = roomSurfaces(place);
  const said = surfaces.filter((s) => s.material !== null).length;
  return said === 0
    ? { state: 'empty', evidence: NOT_STARTED }
    : {
        state: said === surfaces.length ? 'done' : 'begun',
        evidence: `${said} of ${surfaces.length} surfaces`,
      };
}

function rigState(project: Project): Evidence {
  const fitted = fittedOf(project);
  const margins = fitted.map((l) => marginNow(project, l.id)).filter((m) => m !== null);
  if (margins.length === 0) return { state: 'empty', evidence: NOT_STARTED };
  if (margins.length < fitted.length)
    return { state: 'begun', evidence: `${margins.length} of ${fitted.length} checked` };
  const troubles = [...channelFindings(project).values()].filter((f) =>
    f.some((x) => x.kind !== 'polarity unclear'),
  ).length;
  if (troubles > 0)
    return {
      state: 'look again',
      evidence: troubles === 1 ? '1 channel: look' : `${troubles} channels: look`,
    };
  const least = Math.min(...margins);
  const dB = Math.round(least);
  return least >= ENOUGH_DB
    ? { state: 'done', evidence: `${dB >= AIM_DB ? 'ready' : 'usable'}, ${dB} dB` }
    : { state: 'look again', evidence: Number.isFinite(dB) ? `only ${dB} dB` : 'nothing arrived' };
}

function walkState(project: Project): Evidence {
  const { spots } = project.place;
  const taken = spots.filter((s) => isSpotTaken(project, s)).length;
  const any = project.sweeps.some((s) => s.stage === 'as found');
  if (!any) return { state: 'empty', evidence: NOT_STARTED };
  const evidence = `${taken} of ${spots.length} spots`;
  return { state: taken === spots.length ? 'done' : 'begun', evidence };
}

function liveState({ kept }: Project): Evidence {
  const count = kept.filter((k) => k.origin.by === 'live').length;
  if (count === 0) return { state: 'empty', evidence: NOT_STARTED };
  return { state: 'begun', evidence: `${count} kept` };
}

function tracesState(project: Project): Evidence {
  const count = project.sweeps.length + project.kept.length;
  if (count === 0) return { state: 'empty', evidence: NOT_STARTED };
  return { state: 'begun', evidence: count === 1 ? '1 trace' : `${count} traces` };
}

function alignState({ alignSteps }: Project): Evidence {
  const done = alignSteps.filter((s) => s.isDone).length;
  if (alignSteps.length === 0) return { state: 'empty', evidence: NOT_STARTED };
  const evidence = `${done} of ${alignSteps.length === 1 ? '1 step' : `${alignSteps.length} steps`}`;
  return { state: done === alignSteps.length ? 'done' : 'begun', evidence };
}

function correctState(project: Project): Evidence {
  const ready = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0).length;
  if (ready === 0) return { state: 'empty', evidence: NOT_STARTED };
  const load = project.loads.at(-1);
  const loaded = load && project.variants.find((v) => v.id === load.variantId);
  if (load && load.designKey !== designKey(project, loaded?.correction))
    return { state: 'look again', evidence: 'changed since loaded' };
  return load
    ? {
        state: 'done',
        evidence: load.letter === FILE_MEMORIES.placed ? 'handed over' : `in memory ${load.letter}`,
      }
    : { state: 'begun', evidence: ready === 1 ? '1 channel' : `${ready} channels` };
}

function listenState(project: Project): Evidence {
  if (!project.sweeps.some((s) => s.stage === 'as found')) return { state: 'empty', evidence: NOT_STARTED };
  const chain = project.chains.find((c) => c.id === project.chainId);
  if (chain) return { state: 'begun', evidence: `through ${chain.name}` };
  const count = project.trials.length;
  if (count === 0) return { state: 'empty', evidence: NOT_STARTED };
  return { state: 'begun', evidence: count === 1 ? '1 blind trial' : `${count} blind trials` };
}

function handOverState(project: Project): Evidence {
  const load = project.loads.at(-1);
  if (!load) return { state: 'empty', evidence: NOT_STARTED };
  const channels = Object.keys(load.spans);
  const verified = channels.filter((id) => verifiedOf(project, load, id));
  if (verified.length < channels.length)
    return {
      state: 'begun',
      evidence: load.letter === FILE_MEMORIES.placed ? 'files in place' : `memory ${load.letter} loaded`,
    };
  const { verdict } = load;
  if (!verdict || verdict.of !== verdictKey(project, load))
    return { state: 'begun', evidence: `${memoryShort(load)} measured again` };
  const misses = verdict.missing.length;
  return misses === 0
    ? { state: 'done', evidence: `${memoryShort(load)} verified` }
    : {
        state: 'look again',
        evidence: `${memoryShort(load)}: ${misses} ${misses === 1 ? 'misses' : 'miss'}`,
      };
}
