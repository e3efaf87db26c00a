import { asSet } from '@pebble-hall/core/alignment';
import {
  freeName,
  partsTogether,
  plainSetting,
  type AlignStep,
  type Project,
  type TogetherOrigin,
} from '@pebble-hall/core/project';
import { GROUND_PLANE_DB } from '@pebble-hall/core/spots';
import { isAbort } from '../ports/abort';
import { projectNow, sentenceOf } from '../store';
import { reasonSentence } from '../words/sweepReasons';
import { sweptParts } from './alignSources';
import { changeProject } from './changeProject';
import { runJob, runLong } from './jobs';
import { packCurve } from './keepTrace';
import { capsuleAt, memoryStamp, takeTogether } from './measuring';
import { newTrace } from './newTrace';
import { notifyProblem } from './notify';
import { exclusively } from './running';
import { levelOffsetDb, microphoneOf, rigName } from './theRig';

const WHAT = 'Sweeping all together';

/** Sweeps all channels of a step at once at a spot, each as it is set there, keeps it in Traces, and holds the step's sum against it. */
export async function measureTogether(stepId: string, spotId: string): Promise<void> {
  try {
    await exclusively(WHAT, (signal) =>
      runLong(WHAT, (job) => measured(stepId, spotId, job.signal, job.onProgress), signal),
    );
  } catch (error) {
    if (!isAbort(error)) notifyProblem(`${WHAT}: ${sentenceOf(error)}`);
  }
}

async function measured(
  stepId: string,
  spotId: string,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<void> {
  const project = projectNow();
  const step = project.alignSteps.find((s) => s.id === stepId);
  const spot = project.place.spots.find((s) => s.id === spotId);
  const together = step && partsTogether(project, step);
  if (!step || !spot || !together) throw new Error('Its channels are no longer there.');
  const memory = await memoryStamp();
  const { verdict, impulse } = await takeTogether(project, together.parts, spot, {
    signal,
    onProgress,
  });
  if (verdict.state === 'failed')
    throw new Error(
      `not usable: ${verdict.reasons.map((r) => reasonSentence(r)).join('; ')}. Take it again.`,
    );
  const microphone = microphoneOf(project);
  const calibration = (microphone.calibrationId && project.calibrations[microphone.calibrationId]) || null;
  const curve = await runJob(
    'views.measuredTogether',
    { impulse, calibration, parts: sweptParts(project, together.parts, spotId) },
    { signal },
  );
  const gainDb =
    levelOffsetDb(project, microphone) +
    together.lowerDb -
    (spot.surface === 'ground plane' ? GROUND_PLANE_DB : 0);
  const arrayId = crypto.randomUUID();
  const array = packCurve(arrayId, asSet(curve, { ...plainSetting(), gainDb }), impulse.rate);
  const origin: TogetherOrigin = {
    by: 'together',
    parts: together.parts,
    spotId,
    spotName: spot.name,
    position: capsuleAt(spot),
    levelDbfs: project.rig.levelDbfs,
    microphoneId: microphone.id,
    calibration: calibration?.name ?? null,
    memory,
    rigName: rigName(project),
    temperatureC: project.place.temperatureC,
  };
  await changeProject(`${step.name} measured together`, (p) => kept(p, step, spot.name, arrayId, origin), {
    arrays: [array],
  });
}

function kept(
  p: Project,
  step: AlignStep,
  spotName: string,
  arrayId: string,
  origin: TogetherOrigin,
): Project {
  const name = freeName(
    `${step.name}, measured at ${spotName}`.slice(0, 120),
    p.kept.map((k) => k.name),
  );
  const trace = newTrace({ kind: 'transfer function', name, arrayId, origin });
  return {
    ...p,
    kept: [...p.kept, trace],
    alignSteps: p.alignSteps.map((s) => (s.id === step.id ? { ...s, togetherId: trace.id } : s)),
  };
}
