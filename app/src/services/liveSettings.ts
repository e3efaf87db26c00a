import {
  liveGrid,
  type GeneratorSignal,
  type LivePair,
  type LiveSettings,
  type SpectrumSettings,
} from '@pebble-hall/core/live';
import type {
  Calibration,
  GeneratorChoice,
  LiveRecord,
  Microphone,
  PlannedMeasurement,
  Project,
} from '@pebble-hall/core/project';
import type { Point } from '@pebble-hall/core/geometry';
import { interpolateLog } from '@pebble-hall/core/signal';
import { onFloor } from './measuring';
import { microphoneOf } from './theRig';

/** The microphone on an input; undefined for a line input. */
export const microphoneOn = ({ rig }: Pick<Project, 'rig'>, input: number): Microphone | undefined =>
  rig.microphones.find((m) => m.input === input);

/** The file that corrects a measurement; null for none. */
export function calibrationOf(
  project: Pick<Project, 'rig' | 'calibrations'>,
  { calibration, input }: Pick<PlannedMeasurement, 'calibration' | 'input'>,
): Calibration | null {
  const id =
    calibration.by === 'file'
      ? calibration.id
      : calibration.by === 'microphone'
        ? microphoneOn(project, input)?.calibrationId
        : null;
  return (id && project.calibrations[id]) || null;
}

/** Where a microphone stands in a session: where it was put, or at the spot of its number; one on the floor below that of its ear. */
export function standOf(
  { live, place, rig }: Pick<Project, 'live' | 'place' | 'rig'>,
  microphoneId: string,
): Point {
  const above = rig.pairs.find((p) => p.floorId === microphoneId)?.earId;
  if (above !== undefined && above !== microphoneId)
    return onFloor(standOf({ live, place, rig: { ...rig, pairs: [] } }, above));
  const measuring = microphoneOf({ rig });
  const others = rig.microphones.filter((m) => m.id !== measuring.id);
  const number = microphoneId === measuring.id ? 0 : others.findIndex((m) => m.id === microphoneId) + 1;
  const spot = place.spots[Math.min(number, place.spots.length - 1)]!;
  return live.stands[microphoneId] ?? spot.position;
}

const spectrumSettings = ({ spectrum: { bands, weighting, seconds } }: LiveRecord): SpectrumSettings => ({
  bands,
  weighting,
  averaging: seconds === null ? { kind: 'for ever' } : { kind: 'exponential', seconds },
});

/** What a session measures: the room through microphones, or a device on the bench. */
export type LiveSubject = 'room' | 'device';

export const DEVICE_IDS = ['device-1', 'device-2'] as const;

/** The channels of the device on the bench, each as a measurement against the loopback, or against the generator where there is none. */
export const deviceMeasurements = ({ live, rig }: Pick<Project, 'live' | 'rig'>): PlannedMeasurement[] =>
  live.electronics.inputs.map((input, i) => ({
    id: DEVICE_IDS[i]!,
    name: `Channel ${'AB'[i]}`,
    input,
    reference: rig.loopbackInput !== null && rig.loopbackInput !== input ? rig.loopbackInput : 'generator',
    delayS: live.electronics.delayS,
    gainDb: 0,
    inverted: false,
    isTracked: false,
    calibration: { by: 'nothing' },
  }));

export const measurementsOf = (
  project: Pick<Project, 'live' | 'rig'>,
  subject: LiveSubject,
): PlannedMeasurement[] => (subject === 'device' ? deviceMeasurements(project) : project.live.measurements);

/** What the generator plays through a device: periodic, so that nothing leaks between blocks. */
export const deviceGenerator = ({ live }: Pick<Project, 'live'>): GeneratorChoice => ({
  signal: { kind: 'pink', period: 65_536 },
  levelDbfs: live.electronics.levelDbfs,
  loudspeakerIds: [],
  alternateS: null,
});

/** A floor-and-ear pair whose two microphones are both measured, against the same reference. */
export interface MeasuredPair extends LivePair {
  name: string;
}

/** The pairs that the rig knows, as far as they are measured in a session: each makes one curve. */
export const livePairs = ({ live, rig }: Pick<Project, 'live' | 'rig'>): MeasuredPair[] =>
  rig.pairs.flatMap(({ earId, floorId, crossoverHz }) => {
    const measured = (microphoneId: string) => {
      const input = rig.microphones.find((m) => m.id === microphoneId)?.input;
      return live.measurements.find((m) => m.input === input);
    };
    const [ear, floor] = [measured(earId), measured(floorId)];
    return ear && floor && ear.reference === floor.reference
      ? [
          {
            id: `pair-${ear.id}`,
            name: `${ear.name}, floor and ear`,
            earId: ear.id,
            floorId: floor.id,
            crossoverHz,
          },
        ]
      : [];
  });

/** How the measurements of a session are averaged; one by itself is not. */
export const averagedOf = ({ average, measurements }: Pick<LiveRecord, 'average' | 'measurements'>) =>
  measurements.length < 2 ? 'none' : average;

/** What the desk is told of a project's session. @param withSpectra whether somebody looks at spectra */
export function deskSettings(
  project: Project,
  rate: number,
  withSpectra: boolean,
  subject: LiveSubject = 'room',
): LiveSettings {
  const { blockLength, averaging, levels } = project.live;
  const measurements = measurementsOf(project, subject);
  const average = subject === 'device' ? 'none' : averagedOf(project.live);
  const grid = liveGrid(rate);
  return {
    measurements: measurements.map(({ calibration: _, ...measurement }, i) => {
      const file = calibrationOf(project, measurements[i]!);
      return {
        ...measurement,
        correctionDb:
          file && interpolateLog(Float64Array.from(file.frequency), Float64Array.from(file.levelDb), grid),
      };
    }),
    blockLength,
    averaging,
    levels,
    average,
    pairs: subject === 'device' ? [] : livePairs(project).map(({ name: _, ...pair }) => pair),
    soundInput: microphoneOf(project).input,
    spectrum: withSpectra ? spectrumSettings(project.live) : null,
  };
}

/** The session with another measurement's delay as time zero of all that measure against the same reference. */
export function withTimeReference(live: LiveRecord, id: string | null): LiveRecord {
  const reference = live.measurements.find((m) => m.id === id);
  return {
    ...live,
    timeReferenceId: id,
    measurements: reference
      ? live.measurements.map((m) => ({
          ...m,
          delayS: reference.delayS,
          isTracked: m.id === id && m.isTracked,
        }))
      : live.measurements,
  };
}

/** The session with one measurement changed; where it is the time reference, its delay is everybody's. */
export function withMeasurement(
  live: LiveRecord,
  id: string,
  change: Partial<PlannedMeasurement>,
): LiveRecord {
  const measurements = live.measurements.map((m) => (m.id === id ? { ...m, ...change } : m));
  const next = { ...live, measurements };
  return live.timeReferenceId === id && change.delayS !== undefined ? withTimeReference(next, id) : next;
}

/** The signal of a choice; null where it is a file that nobody has chosen. */
export const signalOf = (
  { signal }: LiveRecord['generator'],
  file: { samples: Float32Array } | null,
): GeneratorSignal | null =>
  signal.kind === 'file' ? file && { kind: 'file', samples: file.samples } : signal;
