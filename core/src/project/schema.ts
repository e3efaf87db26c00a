import Joi from 'joi';
import { areaOf } from '../geometry/index.js';
import { stepsBelow } from './align.js';
import { alignSteps } from './alignSchema.js';
import { correction, memoryLoad, style, target } from './correctionSchema.js';
import { isCircular } from './kept.js';
import { keptTraces, live, sweepLooks } from './liveSchema.js';
import { libraryViews } from './librarySchema.js';
import { roomRuns, runProblem } from './roomRunSchema.js';
import { readings } from './shapeSchema.js';
import { place } from './placeSchema.js';
import { processor } from './processorSchema.js';
import { rig } from './rigSchema.js';
import { byId, curve, db, id, list, number, text, things, time } from './schemaValues.js';
import { sweep } from './sweepSchema.js';
import { PROJECT_VERSION, type Project } from './types.js';

/** A room of less, m2, is none. */
const LEAST_AREA = 0.01;

/** Shape and limits of a project as stored; every field must be there. */
export const projectSchema = Joi.object({
  version: Joi.valid(PROJECT_VERSION),
  id,
  name: text,
  place,
  processor,
  calibrations: byId(
    Joi.object({
      id,
      name: text,
      serial: text.allow(null),
      ...curve(2, number.min(-200).max(200)),
      incidenceDeg: number.min(0).max(180).allow(null),
      sensitivityDb: db.allow(null),
    }),
  ),
  rig,
  rounds: things(
    Joi.object({ id, name: text, startedAt: time, note: Joi.string().max(2000).allow('') }),
    1000,
  ).min(1),
  roundId: id,
  families: things(Joi.object({ id, name: text, loudspeakerIds: list(id, 64) }), 64).allow(null),
  sweeps: things(sweep, 20_000),
  variants: things(
    Joi.object({
      id,
      name: text,
      note: Joi.string().max(2000).allow(''),
      madeAt: time,
      correction,
      restsOn: Joi.object({ roundId: id, key: text }).allow(null),
    }),
    200,
  ).min(1),
  variantId: id,
  loads: things(memoryLoad, 1000),
  pendingLoad: Joi.object({ load: memoryLoad, transferId: text }).allow(null),
  trials: things(
    Joi.object({
      id,
      kind: Joi.valid('preference', 'same or different'),
      startedAt: time,
      spotName: text,
      material: text,
      candidates: list(Joi.object({ source: id, name: text }), 4),
      answers: list(number.integer().min(0).max(3), 1000),
      matched: Joi.boolean(),
    }),
    1000,
  ),
  chains: things(
    Joi.object({
      id,
      name: text,
      source: id,
      leftId: id,
      rightId: id,
      strength: number.min(0).max(1),
      style,
      trimDb: number.min(-80).max(12),
      through: Joi.valid('room', 'output', 'headphones'),
      headphonesId: id.allow(null),
      outputId: text.allow(''),
      outputName: text.allow(''),
    }),
    100,
  ),
  headphones: things(
    Joi.object({
      id,
      name: text,
      ...curve(2, number.min(-200).max(200)),
      targetName: text,
      target,
      strength: number.min(0).max(1),
    }),
    50,
  ),
  chainId: id.allow(null),
  live,
  kept: keptTraces,
  sweepLooks,
  readings,
  libraryViews,
  alignSteps,
  roomRuns,
}).options({ presence: 'required', abortEarly: true, convert: false });

/**
 * Checks what claims to be a project.
 * @returns the project, or where and why it is none
 */
export function checkProject(value: unknown): { project: Project } | { problem: string } {
  const { error } = projectSchema.validate(value);
  if (error) return { problem: error.details[0]?.message ?? error.message };
  const project = value as Project;
  const spots = new Set(project.place.spots.map((s) => s.id));
  const loudspeakers = new Set(project.place.loudspeakers.map((l) => l.id));
  for (const { id, spotId, loudspeakerId, calibrationId } of project.sweeps) {
    if (!spots.has(spotId) || !loudspeakers.has(loudspeakerId)) {
      return { problem: `sweep ${id} belongs to a spot or loudspeaker that is not in the project` };
    }
    if (calibrationId !== null && !project.calibrations[calibrationId]) {
      return { problem: `sweep ${id} names a calibration that is not in the project` };
    }
  }
  const { shape, loudspeakers: all, audience } = project.place;
  if (shape.walls.length !== shape.outline.length)
    return { problem: `the room has ${shape.outline.length} corners and ${shape.walls.length} walls` };
  if (!(Math.abs(areaOf(shape.outline)) >= LEAST_AREA))
    return { problem: 'the outline of the room encloses nothing' };
  const { fixtures, seats, underlays, models } = project.place;
  const ids = [...all, ...audience, ...fixtures, ...seats, ...underlays, ...models].map((t) => t.id);
  if (new Set(ids).size < ids.length) return { problem: 'two things of the place have the same id' };
  const named = new Set(models.map((m) => m.name));
  if (named.size < models.length) return { problem: 'two loudspeaker models have the same name' };
  if (!project.variants.some((v) => v.id === project.variantId))
    return { problem: 'the variant that is worked on is not in the project' };
  const rounds = new Set(project.rounds.map((r) => r.id));
  const stray = project.sweeps.find((s) => !rounds.has(s.roundId));
  if (stray || !rounds.has(project.roundId))
    return {
      problem: `${stray ? `sweep ${stray.id}` : 'the project'} names a round that is not in the project`,
    };
  const { measurements, timeReferenceId, spectrum } = project.live;
  if (
    spectrum.noiseId !== null &&
    !project.kept.some((k) => k.id === spectrum.noiseId && k.kind === 'spectrum')
  )
    return { problem: 'the room noise of the live session is no spectrum that was kept' };
  if (timeReferenceId !== null && !measurements.some((m) => m.id === timeReferenceId))
    return { problem: 'the time reference of the live session is none of its measurements' };
  const odd = project.kept.find((k) => (k.origin.by === 'computed') !== (k.arrayId === null));
  if (odd) return { problem: `the trace ${odd.id} has no samples, and is computed from none` };
  const circular = project.kept.find((k) => isCircular(project.kept, k.id));
  if (circular) return { problem: `the trace ${circular.id} rests on itself` };
  for (const step of project.alignSteps) {
    if (!step.sources.some((s) => s.id === step.referenceId))
      return { problem: `the time reference of ${step.name} is none of its sources` };
    if (stepsBelow(project.alignSteps, step.id).has(step.id))
      return { problem: `the alignment ${step.name} rests on itself` };
  }
  for (const run of project.roomRuns) {
    const problem = runProblem(run);
    if (problem) return { problem };
  }
  const { microphones, microphoneId, alongIds, pairs } = project.rig;
  const used = [microphoneId, ...alongIds, ...pairs.flatMap((p) => [p.earId, p.floorId])];
  const unknown = used.find((m) => !microphones.some(({ id }) => id === m));
  if (unknown !== undefined)
    return { problem: `the microphone ${unknown} that measures is not in the project` };
  const missing = microphones.flatMap((m) => m.calibrationIds).find((c) => !project.calibrations[c]);
  if (missing)
    return { problem: `a microphone names the calibration ${missing}, which is not in the project` };
  return { project };
}
