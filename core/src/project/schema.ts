import Joi from 'joi';
import { PROJECT_VERSION, type Project } from './types.js';

const id = Joi.string().pattern(/^[a-zA-Z0-9-]{1,64}$/);
const text = Joi.string().max(200);
const number = Joi.number().unsafe();
const time = number.min(0);
const position = Joi.object({ x: number, y: number, z: number }).options({ presence: 'required' });
const metres = number.min(0).max(1000);
/** connector of an interface or output of a processor */
const channel = number.integer().min(1).max(64);
const span = Joi.object({ from: number.greater(0), to: number.greater(Joi.ref('from')) });
const list = (item: Joi.Schema, most: number) => Joi.array().items(item).max(most);
const byId = (item: Joi.Schema) => Joi.object().pattern(id, item).max(1000);
/** JSON has no infinity: a level of nothing is written as null. */
const level = number.allow(null, -Infinity);

const verdict = Joi.object({
  state: Joi.valid('good', 'doubtful', 'failed'),
  reasons: list(Joi.object({ kind: text }).unknown(true), 100),
  marginDb: level,
  band: Joi.object({ from: number, to: number }).allow(null),
});

const margins = list(
  Joi.object({ centre: number.greater(0), noiseDb: level, signalDb: level, marginDb: level }),
  100,
);

const sweep = Joi.object({
  id,
  stage: Joi.valid('as found', 'verified'),
  roundId: id,
  spotId: id,
  loudspeakerId: id,
  traceId: id,
  takenAt: time,
  levelDbfs: number.max(0),
  microphoneId: id,
  calibrationId: id.allow(null),
  memory: Joi.object({
    letter: Joi.string().max(1),
    name: text.allow(''),
    checksum: number,
    hasFilters: Joi.boolean(),
  }),
  verdict,
  margins,
  arrivalS: number.allow(null),
  distortionDb: level,
  inAverage: Joi.boolean(),
  note: Joi.string().max(2000).allow(''),
  takenWith: Joi.object({
    spot: position,
    loudspeaker: position,
    output: channel,
    rigName: text,
    temperatureC: number,
  }).allow(null),
  decayEnd: Joi.object({ lowS: number.allow(null), highS: number.allow(null) }).allow(null),
  levelOffsetDb: number.min(-120).max(120),
  repeats: number.integer().min(1).max(64),
  harmonicsId: id.allow(null),
  referenceId: id.allow(null),
  floor: Joi.object({
    microphoneId: id,
    calibrationId: id.allow(null),
    traceId: id,
    joinedId: id,
    crossoverHz: number.min(50).max(8000),
    levelDb: number,
    delayS: number,
    misfitDb: number,
  }).allow(null),
  groundPlane: Joi.boolean(),
});

const place = Joi.object({
  name: text,
  size: Joi.object({
    x: number.greater(0).max(1000),
    y: number.greater(0).max(1000),
    z: number.greater(0).max(1000),
  }),
  temperatureC: number.min(-40).max(60),
  seats: list(Joi.object({ id, name: text, position }), 5000),
  furniture: list(
    Joi.object({
      kind: Joi.valid('sofa', 'chair', 'window', 'rug'),
      x: number,
      y: number,
      width: number,
      depth: number,
    }),
    1000,
  ),
  loudspeakers: list(
    Joi.object({
      id,
      name: text,
      model: text,
      role: Joi.valid('full range', 'subwoofer'),
      output: channel,
      position,
      aimDeg: number,
      fitted: Joi.boolean(),
    }),
    64,
  ),
  spots: list(
    Joi.object({
      id,
      name: text,
      position,
      inAverage: Joi.boolean(),
      weight: number.min(0.1).max(10),
      surface: Joi.valid('ear', 'ground plane'),
    }),
    1000,
  ).min(1),
});

const levelCalibration = Joi.object({
  takenAt: time,
  nominalDb: Joi.valid(94, 114),
  readDb: number,
  gainDb: number,
  rigName: text,
  linearity: Joi.object({ nominalDb: Joi.valid(94, 114), offDb: number }).allow(null),
  driftDb: number.allow(null),
});

const microphone = Joi.object({
  id,
  make: text.allow(''),
  serial: text.allow(''),
  pointing: Joi.valid('at the source', 'upright', 'on the floor'),
  input: channel,
  gainDb: number.min(-60).max(100),
  calibrationIds: list(id, 100),
  calibrationId: id.allow(null),
  levels: list(levelCalibration, 1000),
});

const device = Joi.object({
  inputId: Joi.string().max(500).allow(''),
  inputName: Joi.string().max(500).allow(''),
  outputId: Joi.string().max(500).allow(''),
  outputName: Joi.string().max(500).allow(''),
  rate: number.min(8000).max(384_000),
  inputs: channel,
  outputs: channel,
  releases: Joi.boolean(),
});

const roundTrip = Joi.object({
  takenAt: time,
  rigName: text,
  output: channel,
  input: channel,
  latencyS: number.min(0).max(10),
  traceId: id,
  divideOut: Joi.boolean(),
});

const rig = Joi.object({
  kind: Joi.valid('simulated', 'web audio'),
  pace: Joi.valid('quick', 'real time'),
  device: device.allow(null),
  microphones: list(microphone, 64).min(1),
  microphoneId: id,
  alongIds: list(id, 64),
  pairs: list(Joi.object({ earId: id, floorId: id, crossoverHz: number.min(50).max(8000) }), 64),
  repeats: number.integer().min(1).max(64),
  referenceFrom: id.allow(null),
  loopbackInput: channel.allow(null),
  timing: Joi.valid('loopback', 'click', 'round trip'),
  clickFrom: id.allow(null),
  roundTrip: roundTrip.allow(null),
  distances: list(
    Joi.object({
      a: id,
      b: id,
      typedM: metres.allow(null),
      heardM: metres.allow(null),
      adjustedM: metres.allow(null),
    }),
    10_000,
  ),
  heardTraces: byId(byId(id)),
  processorBefore: Joi.object({
    takenAt: time,
    letter: Joi.string().max(1),
    outputs: list(
      Joi.object({ trimDb: number, delayMs: number, inverted: Joi.boolean(), muted: Joi.boolean() }),
      64,
    ),
  }).allow(null),
  levelDbfs: number.min(-120).max(0),
  sweepS: number.min(0.7).max(20),
  noise: Joi.object({
    takenAt: time,
    bands: list(Joi.object({ centre: number, noiseDb: level }), 100),
    traits: list(Joi.object({ kind: text, riseDb: number }).unknown(true), 100),
  }).allow(null),
  checks: byId(
    Joi.object({
      takenAt: time,
      levelDbfs: number,
      verdict,
      margins,
      arrivalS: number.allow(null),
      reversed: Joi.boolean().allow(null),
      certainty: number.allow(null),
      distortionDb: level,
      delayS: number.min(0).max(10),
      traceId: id.allow(null),
    }),
  ),
});

const style = Joi.valid('minimum', 'mixed', 'linear');
const crossover = Joi.object({
  kind: Joi.valid('Butterworth', 'Linkwitz-Riley'),
  order: number.integer().min(1).max(8),
  frequency: number.min(1).max(40_000),
}).allow(null);
const sections = list(
  Joi.object({
    kind: Joi.valid('peak', 'low shelf', 'high shelf'),
    frequency: number.min(1).max(40_000),
    gainDb: number.min(-60).max(24),
    q: number.min(0.05).max(100),
  }),
  24,
);
const bassFeed = Joi.object({ gainDb: number.min(-80).max(24), lowPass: crossover }).allow(null);
const target = Joi.object({
  handles: list(
    Joi.object({ frequency: number.min(1).max(100_000), levelDb: number.min(-60).max(60) }),
    64,
  ).min(1),
  lowLiftDb: number.min(-24).max(24),
  highTiltDb: number.min(-24).max(24),
  lowReachHz: number.min(5).max(1000).allow(null),
});
const correction = Joi.object({
  target,
  familyTargets: byId(target),
  strength: number.min(0).max(1),
  strengthPoints: list(Joi.object({ frequency: number.min(1).max(40_000), share: number.min(0).max(1) }), 64),
  maxBoostDb: number.min(0).max(24),
  maxCutDb: number.min(0).max(60),
  spans: byId(span),
  targetLevels: byId(number.min(-200).max(200)),
  filter: Joi.object({
    form: Joi.valid('fir', 'sections', 'both'),
    style,
    taps: number.integer().min(16).max(65_536).allow(null),
    sectionCount: number.integer().min(1).max(24),
    kinds: list(Joi.valid('peak', 'low shelf', 'high shelf'), 3).min(1),
    leastQ: number.min(0.05).max(100),
    mostQ: number.min(Joi.ref('leastQ')).max(100),
  }),
  sections: byId(sections),
  alignment: byId(
    Joi.object({
      trimDb: number.min(-80).max(24),
      delayMs: number.min(0).max(1000),
      inverted: Joi.boolean(),
    }),
  ),
  subs: byId(
    Joi.object({
      gainDb: number.min(-80).max(24),
      delayS: number.min(0).max(1),
      inverted: Joi.boolean(),
      sections,
    }),
  ),
  crossovers: byId(Joi.object({ highPass: crossover, lowPass: crossover })),
  lowChannel: bassFeed,
  headroomGuard: Joi.boolean(),
});
const outputSettings = list(
  Joi.object({
    trimDb: number,
    delayMs: number,
    inverted: Joi.boolean(),
    muted: Joi.boolean(),
    size: Joi.valid('small', 'large'),
    highPass: crossover,
    lowPass: crossover,
    sections,
    taps: number.integer().min(0),
    bassFeed,
    playsBass: Joi.boolean(),
  }),
  64,
).allow(null);
const memoryLoad = Joi.object({
  id,
  letter: Joi.string().pattern(/^[A-F]$/),
  name: text.allow(''),
  loadedAt: time,
  checksum: number,
  filters: byId(id),
  spans: byId(span),
  outputs: outputSettings,
  before: outputSettings,
  designKey: text,
  variantId: id.allow(null),
  variantName: text.allow(''),
});

/** Shape and limits of a project as stored; every field must be there. */
export const projectSchema = Joi.object({
  version: Joi.valid(PROJECT_VERSION),
  id,
  name: text,
  place,
  calibrations: byId(
    Joi.object({
      id,
      name: text,
      serial: text.allow(null),
      frequency: list(number.greater(0), 100_000),
      levelDb: list(number, 100_000),
      incidenceDeg: number.min(0).max(180).allow(null),
      sensitivityDb: number.allow(null),
    }),
  ),
  rig,
  rounds: list(
    Joi.object({ id, name: text, startedAt: time, note: Joi.string().max(2000).allow('') }),
    1000,
  ).min(1),
  roundId: id,
  families: list(Joi.object({ id, name: text, loudspeakerIds: list(id, 64) }), 64).allow(null),
  sweeps: list(sweep, 20_000),
  variants: list(
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
  loads: list(memoryLoad, 1000),
  pendingLoad: Joi.object({ load: memoryLoad, transferId: text }).allow(null),
  trials: list(
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
  chains: list(
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
      outputName: text.allow(''),
    }),
    100,
  ),
  headphones: list(
    Joi.object({
      id,
      name: text,
      frequency: list(number.greater(0), 100_000).min(2),
      levelDb: list(number.min(-200).max(200), 100_000).min(2),
      targetName: text,
      target,
      strength: number.min(0).max(1),
    }),
    50,
  ),
  chainId: id.allow(null),
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
  if (!project.variants.some((v) => v.id === project.variantId))
    return { problem: 'the variant that is worked on is not in the project' };
  const rounds = new Set(project.rounds.map((r) => r.id));
  const stray = project.sweeps.find((s) => !rounds.has(s.roundId));
  if (stray || !rounds.has(project.roundId))
    return {
      problem: `${stray ? `sweep ${stray.id}` : 'the project'} names a round that is not in the project`,
    };
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

/** Ids of all arrays that a project refers to. */
export function arraysOf({
  sweeps,
  loads,
  pendingLoad,
  rig,
}: Pick<Project, 'sweeps' | 'loads' | 'pendingLoad' | 'rig'>): Set<string> {
  const looked = [
    ...Object.values(rig.checks).map((c) => c.traceId),
    rig.roundTrip?.traceId,
    ...Object.values(rig.heardTraces).flatMap((heard) => Object.values(heard)),
  ];
  return new Set([
    ...sweeps.flatMap((s) =>
      [s.traceId, s.harmonicsId, s.referenceId, s.floor?.traceId, s.floor?.joinedId].filter(isId),
    ),
    ...[...loads, ...(pendingLoad ? [pendingLoad.load] : [])].flatMap((l) => Object.values(l.filters)),
    ...looked.filter(isId),
  ]);
}

const isId = (id: string | null | undefined): id is string => typeof id === 'string';
