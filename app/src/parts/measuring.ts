import { levelSteps } from '@pebble-hall/core/check';
import type { AnalysedSweep } from '@pebble-hall/core/measure';
import type {
  LevelCheck,
  Loudspeaker,
  MemoryStamp,
  Position,
  Project,
  ProjectArray,
  Spot,
  Sweep,
  TakenWith,
} from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { activeMemory, playOnly, readProcessor, takeSweep, type TimeBy } from '../rig';
import { repository } from '../store';
import { microphoneOf, rigName, rigOf, standMicrophones } from './theRig';

/** What the processor holds at this moment. */
export async function memoryStamp(): Promise<MemoryStamp> {
  const { letter, name, checksum, hasFilters } = activeMemory(await readProcessor());
  return { letter, name, checksum, hasFilters };
}

const distanceM = (a: Position, b: Position) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);

/** Seconds that sound takes from a loudspeaker's place to a point, at the place's temperature. */
export const travelS = (project: Project, loudspeaker: Loudspeaker, to: Position): number =>
  distanceM(loudspeaker.position, to) / speedOfSound(project.place.temperatureC);

/** How the time of a sweep at a place is known, by what the rig has. */
function timeBy(project: Project, at: Position): TimeBy {
  const { timing, loopbackInput, clickFrom, roundTrip } = project.rig;
  if (timing === 'click') {
    const reference = project.place.loudspeakers.find((l) => l.id === clickFrom);
    if (!reference)
      throw new Error('No loudspeaker is chosen for the timing click. Choose one in Rig, under Connect.');
    return { by: 'click', output: reference.output, travelS: travelS(project, reference, at) };
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

export interface TakeOptions {
  signal: AbortSignal;
  onProgress: (share: number) => void;
  /** the project's sweep length when absent */
  durationS?: number;
}

/** Sound lost on the way is this machine's hiccup, not the room's: it is taken again by itself, so often in all. */
const TAKES_WHEN_LOST = 3;

/** Takes one sweep of a loudspeaker with the microphone at a place; the level climbs to where it is set, never jumps. */
export async function takeAt(
  project: Project,
  loudspeaker: Loudspeaker,
  at: Position,
  { signal, onProgress, durationS = project.rig.sweepS }: TakeOptions,
): Promise<AnalysedSweep> {
  const device = rigOf(project);
  standMicrophones(device, project, at);
  const { levelDbfs, roundTrip } = project.rig;
  const { output } = loudspeaker;
  const microphoneInput = microphoneOf(project).input;
  for (const step of levelSteps(provenDbfs(project, loudspeaker.id), levelDbfs)) {
    await playOnly(device, { output, levelDbfs: step, durationS: STEP_S, microphoneInput }, signal);
  }
  const own = roundTrip?.divideOut ? await repository().array(roundTrip.traceId) : undefined;
  const settings = {
    output,
    levelDbfs,
    durationS,
    microphoneInput,
    time: timeBy(project, at),
    ownResponse: own ? { samples: own.samples, rate: own.rate, zero: own.zero } : null,
  };
  for (let left = TAKES_WHEN_LOST; ; left--) {
    const analysed = await takeSweep(device, settings, { signal, onProgress });
    if (left <= 1 || !analysed.verdict.reasons.some((r) => r.kind === 'dropouts')) return analysed;
  }
}

const traceArray = (id: string, { impulse }: AnalysedSweep): ProjectArray => ({
  id,
  kind: 'trace',
  rate: impulse.rate,
  zero: impulse.zero,
  samples: Float32Array.from(impulse.samples),
});

/** Takes one sweep of a loudspeaker at a spot, ready to be stored. */
export async function measureSweep(
  project: Project,
  spotId: string,
  loudspeakerId: string,
  stage: Sweep['stage'],
  options: TakeOptions,
): Promise<{ sweep: Sweep; array: ProjectArray }> {
  const spot = project.place.spots.find((s) => s.id === spotId)!;
  const loudspeaker = project.place.loudspeakers.find((l) => l.id === loudspeakerId)!;
  const memory = await memoryStamp();
  const analysed = await takeAt(project, loudspeaker, spot.position, options);
  const { arrival, margins, distortionDb, verdict, decayEnd } = analysed;
  const { id: microphoneId, calibrationId } = microphoneOf(project);
  const traceId = crypto.randomUUID();
  return {
    sweep: {
      id: crypto.randomUUID(),
      stage,
      roundId: project.roundId,
      spotId,
      loudspeakerId,
      traceId,
      takenAt: Date.now(),
      levelDbfs: project.rig.levelDbfs,
      microphoneId,
      calibrationId,
      memory,
      verdict,
      margins,
      arrivalS: arrival?.onsetS ?? null,
      distortionDb,
      inAverage: true,
      note: '',
      takenWith: takenWith(project, spot, loudspeaker),
      decayEnd,
    },
    array: traceArray(traceId, analysed),
  };
}

/** What a sweep taken now rests on. */
export const takenWith = (project: Project, spot: Spot, loudspeaker: Loudspeaker): TakenWith => ({
  spot: { ...spot.position },
  loudspeaker: { ...loudspeaker.position },
  output: loudspeaker.output,
  rigName: rigName(project),
  temperatureC: project.place.temperatureC,
});

/** A check is a sweep as long as this, whatever the round uses. */
const CHECK_S = 1;

/** Checks one channel at the home spot, ready to be stored. */
export async function checkChannel(
  project: Project,
  loudspeaker: Loudspeaker,
  options: Omit<TakeOptions, 'durationS'>,
): Promise<{ check: LevelCheck; array: ProjectArray }> {
  // without a processor that can be read, its delays are not known
  const outputs = await readProcessor().then(
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
    array: traceArray(traceId, analysed),
  };
}
