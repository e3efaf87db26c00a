import { levelSteps, type NoiseTrait } from '@pebble-hall/core/commissioning';
import { averageRepeats, packHarmonics, type AnalysedSweep } from '@pebble-hall/core/measure';
import type { Point } from '@pebble-hall/core/geometry';
import {
  conditionsNow,
  travelS,
  type FloorPart,
  type LevelCheck,
  type Loudspeaker,
  type MemoryStamp,
  type PlayedPart,
  type Microphone,
  type Project,
  type ProjectArray,
  type Spot,
  type Sweep,
  loudspeakerById,
} from '@pebble-hall/core/project';
import type { ImpulseResponse } from '@pebble-hall/core/signal';
import { type PlayRequest } from '../ports/rig';
import {
  joinPair,
  playOnly,
  readNoise,
  recordSilence,
  recordSweep,
  type SweepOptions,
  type SweepSettings,
  type TimeBy,
} from './recordSweep';
import { activeMemory } from '../ports/processor';
import { theProcessor } from './theProcessor';
import { projectNow, repository } from '../store';
import { levelOffsetDb, microphoneOf, rigName, rigOf, placeMicrophones, type Stand } from './theRig';

/** What the processor holds at this moment. */
export async function memoryStamp(): Promise<MemoryStamp> {
  const { letter, name, checksum, hasFilters } = activeMemory(await theProcessor().state());
  return { letter, name, checksum, hasFilters };
}

/** How the time of a sweep is known, by what the rig has. */
function timeBy(project: Project): TimeBy {
  const { timing, loopbackInput, roundTrip } = project.rig;
  if (timing === 'click') {
    const { output } = clickLoudspeaker(project);
    return { by: 'click', output };
  }
  if (timing === 'round trip') {
    if (!roundTrip) throw new Error('The round trip was not measured yet. Measure it in Rig, under Connect.');
    return { by: 'round trip', latencyS: roundTrip.latencyS };
  }
  if (loopbackInput === null)
    throw new Error(
      'No input is chosen for the loopback. Choose one, or another way to know the time, in Rig.',
    );
  return { by: 'loopback', input: loopbackInput };
}

function clickLoudspeaker({ rig, place }: Project): Loudspeaker {
  const reference = loudspeakerById(place, rig.clickFrom);
  if (!reference)
    throw new Error('No loudspeaker is chosen for the timing click. Choose one in Rig, under Connect.');
  return reference;
}

/** A level that a channel has borne within this time need not be climbed to again. */
const PROVEN_FOR_MS = 12 * 3600 * 1000;
const STEP_S = 0.7;

function provenDbfs({ rig, sweeps }: Project, loudspeakerId: string): number | null {
  const since = Date.now() - PROVEN_FOR_MS;
  const check = rig.checks[loudspeakerId];
  const levels = [
    ...(check ? [check] : []),
    ...sweeps.filter((s) => s.loudspeakerId === loudspeakerId),
  ].flatMap((s) => (s.takenAt > since && s.verdict.state !== 'failed' ? [s.levelDbfs] : []));
  return levels.length > 0 ? Math.max(...levels) : null;
}

export interface TakeOptions extends Omit<SweepOptions, 'signal' | 'onProgress'> {
  signal: AbortSignal;
  onProgress: (share: number) => void;
  /** the project's sweep length when absent */
  durationS?: number;
  /** whether a reference click ends the sweep, where the project has one */
  withReference?: boolean;
  /** what stood out of the room's noise ahead of it */
  noise?: NoiseTrait[];
  through?: PlayRequest['through'];
}

/** Sound lost on the way is this machine's hiccup, not the room's: it is taken again by itself, so often in all. */
const TAKES_WHEN_LOST = 3;

/** Takes one sweep of a loudspeaker with the measuring microphone at a place. */
export async function takeAt(
  project: Project,
  loudspeaker: Loudspeaker,
  at: Point,
  options: TakeOptions,
): Promise<AnalysedSweep> {
  const [analysed] = await takeWith(
    project,
    [loudspeaker],
    [{ microphone: microphoneOf(project), at }],
    options,
  );
  return analysed!;
}

/**
 * Sweeps several loudspeakers at once with the measuring microphone at a spot, each as it is set.
 * @throws Error where one of them is gone, or no microphone measures
 */
export async function takeTogether(
  project: Project,
  parts: readonly PlayedPart[],
  spot: Spot,
  options: TakeOptions,
): Promise<AnalysedSweep> {
  const played = parts.map(({ loudspeakerId, name, as }) => {
    const loudspeaker = loudspeakerById(project.place, loudspeakerId);
    if (!loudspeaker) throw new Error(`${name} is no longer in the plan.`);
    return { loudspeaker, as };
  });
  const [analysed] = await takeWith(
    project,
    played.map((p) => p.loudspeaker),
    [{ microphone: microphoneOf(project), at: capsuleAt(spot) }],
    options,
    played.map(({ loudspeaker, as }) => ({ output: loudspeaker.output, as })),
  );
  return analysed!;
}

/** Takes one sweep of a loudspeaker, or of several as they are set, with several microphones at once; the level climbs to where it is set, never jumps. */
async function takeWith(
  project: Project,
  loudspeakers: readonly Loudspeaker[],
  stands: Stand[],
  { durationS = project.rig.sweepS, withReference = false, through = 'outputs', ...options }: TakeOptions,
  together?: SweepSettings['together'],
): Promise<AnalysedSweep[]> {
  const device = rigOf(project);
  placeMicrophones(device, project, stands);
  const { levelDbfs, roundTrip, referenceFrom, timing } = project.rig;
  const { output } = loudspeakers[0]!;
  const microphones = stands.map(({ microphone: { input }, at }) => ({
    input,
    travelS: timing === 'click' ? travelS(project, clickLoudspeaker(project), at) : 0,
  }));
  for (const loudspeaker of loudspeakers)
    for (const step of levelSteps(provenDbfs(project, loudspeaker.id), levelDbfs)) {
      await playOnly(
        device,
        { output: loudspeaker.output, levelDbfs: step, durationS: STEP_S },
        options.signal,
      );
    }
  const own = roundTrip?.divideOut ? await repository().array(roundTrip.traceId) : undefined;
  const reference = withReference && loudspeakerById(project.place, referenceFrom);
  const settings = {
    output,
    levelDbfs,
    durationS,
    microphones,
    time: timeBy(project),
    ownResponse: own ? { samples: own.samples, rate: own.rate, zero: own.zero } : null,
    referenceOutput: reference && reference.fitted ? reference.output : null,
    through,
    ...(together ? { together } : {}),
  };
  for (let left = TAKES_WHEN_LOST; ; left--) {
    const analysed = await recordSweep(device, settings, options);
    const lost = analysed.some((a) => a.verdict.reasons.some((r) => r.kind === 'dropouts'));
    if (left <= 1 || !lost) return analysed;
  }
}

const traceArray = (id: string, { samples, rate, zero }: ImpulseResponse): ProjectArray => ({
  id,
  kind: 'trace',
  rate,
  zero,
  samples: Float32Array.from(samples),
});

/** Which microphone takes which spot. */
export interface AtSpot {
  spotId: string;
  microphoneId: string;
}

export interface MeasuredSweep {
  sweep: Sweep;
  arrays: ProjectArray[];
}

/** The capsule of a microphone that lies on the floor, this far above it. */
export const CAPSULE_M = 0.01;
/** Where the capsule of a microphone is that lies on the floor below. */
export const onFloor = ({ x, y }: Point): Point => ({ x, y, z: CAPSULE_M });

/** Where the capsule is at a spot. */
export const capsuleAt = ({ position, surface }: Spot): Point =>
  surface === 'ground plane' ? onFloor(position) : position;

/** Takes one sweep of a loudspeaker at one spot with the measuring microphone, ready to be stored. */
export async function measureSweep(
  project: Project,
  spotId: string,
  loudspeakerId: string,
  stage: Sweep['stage'],
  options: TakeOptions,
): Promise<MeasuredSweep> {
  const microphoneId = microphoneOf(project).id;
  const [measured] = await measureSweeps(project, [{ spotId, microphoneId }], loudspeakerId, stage, options);
  return measured!;
}

/**
 * Takes one sweep of a loudspeaker at as many spots as there are microphones, repeats averaged and floor-and-ear pairs
 * joined, ready to be stored; one for each spot.
 */
export async function measureSweeps(
  project: Project,
  places: AtSpot[],
  loudspeakerId: string,
  stage: Sweep['stage'],
  options: TakeOptions,
): Promise<MeasuredSweep[]> {
  const { rig, place } = project;
  const loudspeaker = loudspeakerById(place, loudspeakerId)!;
  const memory = await memoryStamp();
  const microphone = (id: string) => rig.microphones.find((m) => m.id === id)!;
  const at = places.map(({ spotId, microphoneId }) => {
    const spot = place.spots.find((s) => s.id === spotId)!;
    const pair = spot.surface === 'ear' ? rig.pairs.find((p) => p.earId === microphoneId) : undefined;
    return { spot, ear: microphone(microphoneId), pair, floor: pair && microphone(pair.floorId) };
  });
  const stands: Stand[] = at.map(({ spot, ear }) => ({ microphone: ear, at: capsuleAt(spot) }));
  for (const { spot, floor } of at) if (floor) stands.push({ microphone: floor, at: onFloor(spot.position) });
  const takes: AnalysedSweep[][] = [];
  for (let i = 0; i < rig.repeats; i++) {
    const onProgress = (share: number) => options.onProgress((i + share) / rig.repeats);
    const through = stage === 'verified with bass' ? 'inputs' : 'outputs';
    takes.push(
      await takeWith(project, [loudspeaker], stands, {
        ...options,
        onProgress,
        withReference: true,
        through,
      }),
    );
  }
  const averaged = stands.map((_, i) => averageRepeats(takes.map((t) => t[i]!)));
  let floorAt = at.length;
  const measured: MeasuredSweep[] = [];
  for (const [i, { spot, ear, pair, floor }] of at.entries()) {
    const { sweep: analysed, repeats } = averaged[i]!;
    const { arrival, margins, distortionDb, verdict, decayEnd, harmonics, reference, impulse, polarity } =
      analysed;
    const traceId = crypto.randomUUID();
    const arrays = [traceArray(traceId, impulse)];
    const harmonicsId = crypto.randomUUID();
    arrays.push(traceArray(harmonicsId, { samples: packHarmonics(harmonics), rate: impulse.rate, zero: 0 }));
    const referenceId = reference ? crypto.randomUUID() : null;
    if (reference && referenceId)
      arrays.push(traceArray(referenceId, { samples: reference, rate: impulse.rate, zero: 0 }));
    let part: FloorPart | null = null;
    if (pair && floor) {
      const below = averaged[floorAt++]!.sweep;
      const joint = await joinFloor(
        project,
        impulse,
        ear.calibrationId,
        below,
        floor,
        pair.crossoverHz,
        options,
      );
      if (joint) {
        part = joint.part;
        arrays.push(...joint.arrays);
      } else {
        verdict.state = 'failed';
        verdict.reasons = [...verdict.reasons, ...below.verdict.reasons];
      }
    }
    const sweep: Sweep = {
      id: crypto.randomUUID(),
      stage,
      roundId: project.roundId,
      spotId: spot.id,
      loudspeakerId,
      traceId,
      takenAt: Date.now(),
      levelDbfs: rig.levelDbfs,
      microphoneId: ear.id,
      calibrationId: ear.calibrationId,
      memory,
      verdict,
      margins,
      arrivalS: arrival?.onsetS ?? null,
      distortionDb,
      polarity,
      noise: options.noise ?? [],
      inAverage: true,
      note: '',
      conditions: conditionsNow(project, spot, loudspeaker, rigName(project)),
      decayEnd,
      levelOffsetDb: levelOffsetDb(project, ear),
      repeats,
      harmonicsId,
      referenceId,
      floor: part,
      groundPlane: spot.surface === 'ground plane',
    };
    measured.push({ sweep, arrays });
  }
  return measured;
}

/** So long is listened ahead of the sweeps at a spot. */
const LISTEN_S = 1.2;

/** What stands out of the noise where the first of some microphones stands, before anything is played there. */
export async function listenAt(places: AtSpot[], signal: AbortSignal): Promise<NoiseTrait[]> {
  const project = projectNow();
  const [first] = places;
  const spot = project.place.spots.find((s) => s.id === first?.spotId);
  const microphone = project.rig.microphones.find((m) => m.id === first?.microphoneId);
  if (!spot || !microphone) return [];
  const device = rigOf(project);
  placeMicrophones(device, project, [{ microphone, at: capsuleAt(spot) }]);
  const { rate } = await device.open();
  const silence = await recordSilence(device, microphone.input, LISTEN_S, { signal });
  return (await readNoise(silence, rate, signal)).traits;
}

/** The floor microphone's part of a pair, joined to the ear's; null when the floor heard nothing. */
async function joinFloor(
  { calibrations }: Project,
  ear: ImpulseResponse,
  earCalibrationId: string | null,
  below: AnalysedSweep,
  { id: microphoneId, calibrationId }: Microphone,
  crossoverHz: number,
  { signal }: TakeOptions,
): Promise<{ part: FloorPart; arrays: ProjectArray[] } | null> {
  if (below.verdict.state === 'failed') return null;
  const error = (id: string | null) => (id === null ? null : (calibrations[id] ?? null));
  const { joined, levelDb, delayS, misfitDb } = await joinPair(
    {
      ear,
      earError: error(earCalibrationId),
      floor: below.impulse,
      floorError: error(calibrationId),
      crossoverHz,
      band: below.verdict.band,
    },
    signal,
  );
  const [traceId, joinedId] = [crypto.randomUUID(), crypto.randomUUID()];
  return {
    part: { microphoneId, calibrationId, traceId, joinedId, crossoverHz, levelDb, delayS, misfitDb },
    arrays: [traceArray(traceId, below.impulse), traceArray(joinedId, joined)],
  };
}

/** A check is a sweep as long as this, whatever the round uses. */
const CHECK_S = 1;

/** Checks one channel at the home spot, ready to be stored. */
export async function checkChannel(
  project: Project,
  loudspeaker: Loudspeaker,
  options: Omit<TakeOptions, 'durationS'>,
): Promise<{ check: LevelCheck; array: ProjectArray }> {
  // without a processor that can be read, its delays are not known
  const outputs = await theProcessor()
    .state()
    .then(
      (state) => activeMemory(state).outputs,
      () => [],
    );
  const home = project.place.spots[0]!.position;
  const analysed = await takeAt(project, loudspeaker, home, { ...options, durationS: CHECK_S });
  const { verdict, margins, polarity, distortionDb } = analysed;
  const traceId = crypto.randomUUID();
  return {
    check: {
      takenAt: Date.now(),
      levelDbfs: project.rig.levelDbfs,
      verdict,
      margins,
      arrivalS: verdict.band ? (polarity?.arrivalS ?? null) : null,
      reversed: polarity?.reversed ?? null,
      certainty: polarity?.certainty ?? null,
      distortionDb,
      delayS: (outputs[loudspeaker.output - 1]?.delayMs ?? 0) / 1000,
      traceId,
    },
    array: traceArray(traceId, analysed.impulse),
  };
}
