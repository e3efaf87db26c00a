import type { LiveFrame, TransferCurve } from '@pebble-hall/core/live';
import {
  freeName,
  type KeptTrace,
  type LiveOrigin,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import { memoryWords } from '../words/memoryName';
import { projectNow } from '../store';
import { changeProject } from './changeProject';
import { liveFrames, liveSession } from './liveSession';
import { calibrationOf, microphoneOn, standOf } from './liveSettings';
import { memoryStamp } from './measuring';
import { notify } from './notify';
import { rigName } from './theRig';

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
  const measurement = project.live.measurements.find((m) => m.id === measurementId);
  if (!measurement) return null;
  const { live } = project;
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
    averaging: live.averaging,
    levels: live.levels,
    average: about.isAverage ? live.average : 'none',
    blocks,
    microphoneId: microphone?.id ?? null,
    calibration: calibrationOf(project, measurement)?.name ?? null,
    position: microphone ? standOf(project, microphone.id) : null,
    generator: about.generator,
    memory: about.memory,
    rigName: rigName(project),
    temperatureC: project.place.temperatureC,
  };
}

/** A name that says what was measured, through what: typed over where it does not. */
export function keptName(project: Project, name: string, { generator, memory }: LiveOrigin): string {
  const channels = (generator?.loudspeakerIds ?? []).flatMap(
    (id) => project.place.loudspeakers.find((l) => l.id === id)?.name ?? [],
  );
  const parts = [
    name,
    ...(channels.length > 0 ? [channels.join(' and ')] : []),
    ...(memory ? [memoryWords(memory)] : []),
  ];
  return freeName(
    parts.join(', ').slice(0, 180),
    project.kept.map((k) => k.name),
  );
}

/**
 * Keeps a measurement as it stands, or the average of all.
 * @returns the trace; null where there is nothing to keep, or it could not be stored, which is told
 */
export async function keepLive(
  id: string,
  average: string | null,
  frame: LiveFrame | null = liveFrames.getState().frame,
): Promise<KeptTrace | null> {
  const project = projectNow();
  const measured = frame?.measured.find((m) => m.id === id);
  const curve = average === null ? measured?.curve : frame?.average;
  if (!curve || !measured) {
    notify('There is no curve to keep yet: start the session, and play something.');
    return null;
  }
  const { isPlaying, rate } = liveSession.getState();
  const memory = await memoryStamp().catch(() => null);
  const about = { memory, generator: isPlaying ? project.live.generator : null, isAverage: average !== null };
  const origin = originOf(project, id, measured, about)!;
  const array = packCurve(crypto.randomUUID(), curve, rate);
  const trace: KeptTrace = {
    id: crypto.randomUUID(),
    name: keptName(project, average ?? origin.measurement, origin),
    keptAt: Date.now(),
    note: '',
    folder: '',
    tags: [],
    arrayId: array.id,
    origin,
    view: { gainDb: 0, delayS: 0, inverted: false, isShown: true, colour: null },
  };
  const isStored = await changeProject(`${trace.name} kept`, (p) => ({ ...p, kept: [...p.kept, trace] }), {
    arrays: [array],
  });
  return isStored ? trace : null;
}
