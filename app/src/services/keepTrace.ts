import type { LiveFrame, SpectrumReading, TransferCurve } from '@pebble-hall/core/live';
import {
  freeName,
  type KeptTrace,
  type LiveOrigin,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import { knobsText } from '../words/deviceWords';
import { memoryWords } from '../words/memoryName';
import { projectNow } from '../store';
import { changeProject } from './changeProject';
import { liveFrames, liveSession } from './liveSession';
import {
  calibrationOf,
  deviceGenerator,
  livePairs,
  measurementsOf,
  microphoneOn,
  standOf,
} from './liveSettings';
import { memoryStamp } from './measuring';
import { notify } from './notify';
import { newTrace } from './newTrace';
import { deviceName } from './theDevice';
import { rigName, splOffsetDb } from './theRig';

/** Stands for what is not known, as sound files hold numbers only. */
const UNKNOWN = -1;

/** A transfer function as one array: frequency, re, im and coherence one after the other. */
export function packCurve(
  id: string,
  { frequency, re, im, coherence }: TransferCurve,
  rate: number,
): ProjectArray {
  const n = frequency.length;
  const samples = new Float32Array(4 * n);
  samples.set(frequency);
  for (let k = 0; k < n; k++) {
    samples[n + k] = Number.isFinite(re[k]!) ? re[k]! : 0;
    samples[2 * n + k] = Number.isFinite(im[k]!) ? im[k]! : 0;
    samples[3 * n + k] = Number.isFinite(coherence[k]!) ? coherence[k]! : UNKNOWN;
  }
  return { id, kind: 'trace', rate, zero: 0, samples };
}

export function unpackCurve({ samples }: Pick<ProjectArray, 'samples'>): TransferCurve {
  const n = Math.floor(samples.length / 4);
  const part = (i: number) => Float64Array.from(samples.subarray(i * n, (i + 1) * n));
  const [frequency, re, im, coherence] = [part(0), part(1), part(2), part(3)];
  for (let k = 0; k < n; k++) {
    if (coherence[k] === UNKNOWN) coherence[k] = NaN;
    if (re[k] === 0 && im[k] === 0) re[k] = im[k] = NaN;
  }
  return { frequency, re, im, coherence };
}

/** What is known about a measurement of a session as it stands. */
export function originOf(
  project: Project,
  measurementId: string,
  { delayS, blocks }: { delayS: number; blocks: number },
  about: Pick<LiveOrigin, 'memory' | 'generator'> & { isAverage: boolean },
): LiveOrigin | null {
  const { subject } = liveSession.getState();
  const measurement = measurementsOf(project, subject).find((m) => m.id === measurementId);
  if (!measurement) return null;
  const { live } = project;
  const { knobs } = live.electronics;
  const microphone = microphoneOn(project, measurement.input);
  return {
    by: 'live',
    measurement: measurement.name,
    input: measurement.input,
    reference: measurement.reference,
    delayS,
    gainDb: measurement.gainDb,
    inverted: measurement.inverted,
    blockLength: live.blockLength,
    averaging: about.isAverage ? live.averaging : (measurement.averaging ?? live.averaging),
    levels: live.levels,
    average: about.isAverage ? live.average : 'none',
    floor: null,
    blocks,
    microphoneId: microphone?.id ?? null,
    calibration: calibrationOf(project, measurement)?.name ?? null,
    position: microphone ? standOf(project, microphone.id) : null,
    generator: about.generator,
    device: subject === 'device' ? { name: deviceName(project), knobs } : null,
    spectrum: null,
    memory: about.memory,
    rigName: rigName(project),
    temperatureC: project.place.temperatureC,
  };
}

/** A name that says what was measured, through what: typed over where it does not. */
export function keptName(project: Project, name: string, { generator, memory, device }: LiveOrigin): string {
  const taken = project.kept.map((k) => k.name);
  if (device) return freeName(`${device.name}, ${name}${knobsText(device.knobs)}`.slice(0, 180), taken);
  const channels = (generator?.loudspeakerIds ?? []).flatMap(
    (id) => project.place.loudspeakers.find((l) => l.id === id)?.name ?? [],
  );
  const played = channels.length > 0 ? `: ${channels.join(' + ')}` : '';
  const chain = memory ? ` (${memoryWords(memory)})` : '';
  return freeName(`${name}${played}${chain}`.slice(0, 180), taken);
}

/** The curve that `keepLive` would keep; null while there is none. */
export function curveToKeep(project: Project, id: string, average: string | null, frame: LiveFrame | null) {
  const pair = livePairs(project).find((p) => p.id === id);
  const joined = frame?.pairs.find((p) => p.id === id);
  const measured = frame?.measured.find((m) => m.id === (pair?.earId ?? id));
  const curve = pair ? joined?.curve : average === null ? measured?.curve : frame?.average;
  return curve && measured ? { curve, measured, pair, joined } : null;
}

/**
 * Keeps a measurement as it stands, the average of all, or the one curve of a floor-and-ear pair.
 * @param id of a measurement; of a pair, which is kept under the measurement at the ear
 * @returns the trace; null where there is nothing to keep, or it could not be stored, which is told
 */
export async function keepLive(
  id: string,
  average: string | null,
  frame: LiveFrame | null = liveFrames.getState().frame,
): Promise<KeptTrace | null> {
  const project = projectNow();
  const found = curveToKeep(project, id, average, frame);
  if (!found) {
    notify('There is no curve to keep yet: start the session, and play something.');
    return null;
  }
  const { curve, measured, pair, joined } = found;
  const { isPlaying, rate, subject } = liveSession.getState();
  const isDevice = subject === 'device';
  // what stands on the bench does not go through the processor
  const memory = isDevice ? null : await memoryStamp().catch(() => null);
  const generator = isDevice ? deviceGenerator(project) : project.live.generator;
  const about = { memory, generator: isPlaying ? generator : null, isAverage: average !== null && !pair };
  const origin: LiveOrigin = {
    ...originOf(project, measured.id, measured, about)!,
    floor:
      pair && joined
        ? {
            input: project.live.measurements.find((m) => m.id === pair.floorId)!.input,
            crossoverHz: pair.crossoverHz,
            levelDb: joined.levelDb,
            delayS: joined.delayS,
          }
        : null,
  };
  const array = packCurve(crypto.randomUUID(), curve, rate);
  const trace = newTrace({
    kind: 'transfer function',
    name: keptName(project, pair?.name ?? average ?? origin.measurement, origin),
    arrayId: array.id,
    origin,
  });
  const isStored = await changeProject(`${trace.name} kept`, (p) => ({ ...p, kept: [...p.kept, trace] }), {
    arrays: [array],
  });
  return isStored ? trace : null;
}

/** A spectrum as one array: frequency, then level; what is nothing lies at the lowest level there is. */
export function packSpectrum(
  id: string,
  { frequency, levelDb }: Pick<SpectrumReading, 'frequency' | 'levelDb'>,
  rate: number,
): ProjectArray {
  const n = frequency.length;
  const samples = new Float32Array(2 * n);
  samples.set(frequency);
  samples.set(
    levelDb.map((v) => (Number.isFinite(v) ? v : NOTHING_DB)),
    n,
  );
  return { id, kind: 'trace', rate, zero: 0, samples };
}
const NOTHING_DB = -300;

export function unpackSpectrum({ samples }: Pick<ProjectArray, 'samples'>): {
  frequency: Float64Array;
  levelDb: Float64Array;
} {
  const n = samples.length >> 1;
  return {
    frequency: Float64Array.from(samples.subarray(0, n)),
    levelDb: Float64Array.from(samples.subarray(n, 2 * n), (v) => (v <= NOTHING_DB ? -Infinity : v)),
  };
}

/**
 * Keeps the spectrum of a measurement's input as it stands.
 * @param asNoise whether it is the room's own noise, which spectra are held against from now on
 */
export async function keepSpectrum(measurementId: string, asNoise: boolean): Promise<KeptTrace | null> {
  const project = projectNow();
  const { frame } = liveFrames.getState();
  const measurement = project.live.measurements.find((m) => m.id === measurementId);
  const found = frame?.spectra.find((s) => s.input === measurement?.input);
  if (!measurement || !found || !Number.isFinite(found.reading.overallDb)) {
    notify('There is no spectrum to keep yet: start the session, and wait a moment.');
    return null;
  }
  const { isPlaying, rate } = liveSession.getState();
  const memory = await memoryStamp().catch(() => null);
  const { noiseId: _, ...made } = project.live.spectrum;
  const now = frame!.measured.find((m) => m.id === measurementId);
  const origin: LiveOrigin = {
    ...originOf(
      project,
      measurementId,
      { delayS: now?.delayS ?? 0, blocks: 0 },
      { memory, generator: isPlaying ? project.live.generator : null, isAverage: false },
    )!,
    spectrum: { ...made, splOffsetDb: splOffsetDb(project) },
  };
  const array = packSpectrum(crypto.randomUUID(), found.reading, rate);
  const trace = newTrace({
    kind: 'spectrum',
    name: keptName(
      project,
      asNoise ? `Room noise, ${measurement.name}` : `${measurement.name}, spectrum`,
      origin,
    ),
    arrayId: array.id,
    origin,
  });
  const isStored = await changeProject(
    `${trace.name} kept`,
    (p) => ({
      ...p,
      kept: [...p.kept, trace],
      live: asNoise ? { ...p.live, spectrum: { ...p.live.spectrum, noiseId: trace.id } } : p.live,
    }),
    { arrays: [array] },
  );
  return isStored ? trace : null;
}
