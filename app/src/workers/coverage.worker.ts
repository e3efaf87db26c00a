import {
  arrivalMap,
  groupPattern,
  levelMapInSteps,
  measuredPattern,
  pressureAtPoints,
  radiationView,
  responseAtPoint,
  type ChannelOf,
  type GroupPattern,
  type LevelMapRequest,
  type MeasuredBox,
  type PlacedBox,
  type RadiationView,
  voiceAtSeats,
  type SourceField,
  type VoiceRequest,
} from '@pebble-hall/core/coverage';
import {
  polarFromTraces,
  radiatingFrom,
  readLoudspeakerFile,
  writePolarTable,
  type SeenAt,
} from '@pebble-hall/core/loudspeakers';
import type { VoiceAtSeats } from '@pebble-hall/core/alignment';
import type { Point } from '@pebble-hall/core/geometry';
import type { TraceRef } from '@pebble-hall/core/jobs';
import { axisTrace } from '@pebble-hall/core/directivity';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { pathTrace, signalPath } from '@pebble-hall/core/path';
import { radiatingOfAsked, type AskedModel } from './loudspeakerModels';
import { mirroredArrivals, type Arrival, type HeardRequest } from '@pebble-hall/core/tracing';
import { handOver, serveJobs, type JobContext } from './serveJobs';
import { storedImpulse } from './storedArrays';

/** A level map as the page asks for it. */
export type LevelMapAsked = Omit<LevelMapRequest, 'channels'> & { channels: ChannelOf<AskedModel>[] };

/** A response as the page asks for it. */
export type ResponseAsked = Omit<LevelMapAsked, 'points' | 'band' | 'perThird'> & {
  point: Point;
  frequency: Float64Array;
};

/** Responses of channels at points as the page asks for them: each channel by itself. */
export type PressuresAsked = Pick<LevelMapAsked, 'channels' | 'points' | 'speed' | 'air' | 'ground'> & {
  frequency: Float64Array;
};

/** Two groups over points, as the page asks how they meet. */
export type MeetingAsked = Omit<PressuresAsked, 'channels'> & {
  first: ChannelOf<AskedModel>[];
  second: ChannelOf<AskedModel>[];
};

/** A talker and channels as the page asks who is heard. */
export type VoiceAsked = Omit<VoiceRequest, 'channels'> & { channels: ChannelOf<AskedModel>[] };

/** How a model radiates, what it is, and how loud it gets. */
export interface ShownModel {
  view: RadiationView;
  about: string;
}

/** A loudspeaker in a file that is not in the project yet. */
export interface TriedModel extends ShownModel {
  kind: 'AES69' | 'table';
  name: string;
  sensitivityDb: number | null;
  largestDb: number | null;
  notes: string[];
}

/** A stored trace, where it was taken, seen from its loudspeaker. */
export type TraceSeen = Pick<SeenAt, 'aboutDeg' | 'angleDeg' | 'distanceM'> & { trace: TraceRef };

/** Only for looking at it: levels are relative until somebody says how loud it gets. */
const NO_LEVELS = { name: '', sensitivityDb: 0, largestDb: 0 };

/** So long a map is worked on before it listens whether it is still wanted. */
const HEARS_MS = 40;

const resolved = (channels: readonly ChannelOf<AskedModel>[]) =>
  Promise.all(channels.map(async (c) => ({ ...c, model: await radiatingOfAsked(c.model) })));

const jobs = {
  /** ways of sound from an omnidirectional source to a receiver, as from mirrors */
  arrivals: (i: Omit<HeardRequest, 'source'> & { from: Point; lengthS: number }): Arrival[] =>
    mirroredArrivals({ ...i, source: { position: i.from, emission: null } }, i.lengthS),
  level: async ({ channels, ...request }: LevelMapAsked, { progress }: JobContext) => {
    const steps = levelMapInSteps({ ...request, channels: await resolved(channels) });
    let step = steps.next();
    for (let heard = performance.now(); !step.done; step = steps.next()) {
      // a map that takes long lets the next one in
      if (performance.now() - heard < HEARS_MS) continue;
      await progress(step.value);
      heard = performance.now();
    }
    return handOver(step.value, [step.value]);
  },
  response: async ({ channels, point, frequency, ...request }: ResponseAsked) =>
    responseAtPoint({ ...request, channels: await resolved(channels) }, point, frequency),
  /** by channel: its pressure, `[frequency][point]` */
  pressures: async (
    { channels, points, frequency, ...request }: PressuresAsked,
    { progress }: JobContext,
  ) => {
    const found = new Map<string, SourceField>();
    for (const channel of await resolved(channels)) {
      found.set(channel.id, pressureAtPoints([channel], request, points, frequency));
      await progress(found.size / channels.length);
    }
    return handOver(
      found,
      [...found.values()].flatMap(({ re, im }) => [...re, ...im]),
    );
  },
  /** a group as a whole, around it */
  pattern: async ({
    channel,
    aimDeg,
    frequency,
    speed,
  }: {
    channel: ChannelOf<AskedModel>;
    aimDeg: number;
    frequency: Float64Array;
    speed: number;
  }): Promise<GroupPattern> => groupPattern((await resolved([channel]))[0]!, aimDeg, frequency, speed),
  /** the same, of boxes that were measured ahead and behind */
  measuredPattern: ({
    boxes,
    aimDeg,
    box,
    speed,
  }: {
    boxes: PlacedBox[];
    aimDeg: number;
    box: MeasuredBox;
    speed: number;
  }): GroupPattern => measuredPattern(boxes, aimDeg, box, speed),
  /** how much louder, and how much later, the second of two groups is at each point */
  meeting: async ({ first, second, points, frequency, ...request }: MeetingAsked) => {
    const powers = async (of: ChannelOf<AskedModel>[]) => {
      const { re, im } = pressureAtPoints(await resolved(of), request, points, frequency);
      const sum = new Float64Array(points.length / 3);
      re.forEach((at, n) => sum.forEach((v, p) => (sum[p] = v + at[p]! ** 2 + im[n]![p]! ** 2)));
      return sum;
    };
    const [one, other] = [await powers(first), await powers(second)];
    const [soon, late] = [first, second].map((of) => arrivalMap(of, points, request.speed));
    const laterS = late!.map((v, p) => v - soon![p]!);
    return handOver({ first: one, second: other, laterS }, [one, other, laterS]);
  },
  /** a loudspeaker on its axis in the open, against its band, as a curve of the library */
  inTheOpen: async (model: AskedModel): Promise<LibraryCurve> => {
    const { re, im } = axisTrace((await radiatingOfAsked(model)).axis, LIBRARY_GRID);
    // beyond what a model tells it is silent, and not known
    const known = re.map((v, n) => (v === 0 && im[n] === 0 ? NaN : 1));
    return {
      frequency: LIBRARY_GRID,
      re: re.map((v, n) => v * known[n]!),
      im: im.map((v, n) => v * known[n]!),
      coherence: LIBRARY_GRID.map(() => NaN),
      hasPhase: true,
    };
  },
  /** a talker and the channels that help him, at seats */
  voice: async ({ channels, ...request }: VoiceAsked): Promise<VoiceAtSeats> =>
    voiceAtSeats({ ...request, channels: await resolved(channels) }),
  filter: ({ fir, rate, frequency }: { fir: Float32Array; rate: number; frequency: Float64Array }) => {
    const { re, im } = pathTrace(signalPath(rate, { fir }), frequency);
    return { re, im };
  },
  radiation: async ({ model, speed }: { model: AskedModel; speed: number }): Promise<ShownModel> => {
    const radiating = await radiatingOfAsked(model);
    return { view: radiationView(radiating, speed), about: radiating.about };
  },
  tried: async ({
    name,
    bytes,
    speed,
  }: {
    name: string;
    bytes: Uint8Array;
    speed: number;
  }): Promise<TriedModel> => {
    const { kind, read } = await readLoudspeakerFile(bytes, name);
    const radiating = radiatingFrom(NO_LEVELS, kind, read);
    const { data: _data, axis: _axis, ...told } = read;
    return { ...told, kind, view: radiationView(radiating, speed), about: radiating.about };
  },
  /** A table of polar data from stored traces, as text. */
  polarTable: async ({ name, traces, windowS }: { name: string; traces: TraceSeen[]; windowS: number }) => {
    const seen = await Promise.all(
      traces.map(async ({ trace, ...at }) => ({
        ...at,
        impulse: await storedImpulse(trace.arrayId),
        microphone: trace.calibration,
      })),
    );
    return writePolarTable(
      { name, sensitivityDb: null, largestDb: null, planes: polarFromTraces(seen, windowS) },
      [
        `From ${traces.length} measured traces, each windowed to ${+(1000 * windowS).toFixed(2)} ms after its first arrival, thirds of an octave, as at 1 m.`,
      ],
    );
  },
};
export type CoverageJobs = typeof jobs;
serveJobs(jobs);
