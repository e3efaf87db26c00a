import {
  disturbedShare,
  echoCriterion,
  interauralCorrelation,
  type EchoCriterion,
  type EchoSignal,
} from '@pebble-hall/core/acoustics';
import { channelEmission, type ChannelOf } from '@pebble-hall/core/coverage';
import type { Corner } from '@pebble-hall/core/geometry';
import { OCTAVES, shapeModes, speedOfSound, type ShapeModes } from '@pebble-hall/core/room';
import {
  directLevels,
  earResponses,
  earsOf,
  earsOfHearer,
  echoMaker,
  energyByWaves,
  curvedSurfaces,
  findFlutter,
  findFocus,
  heardInRun,
  lowsOf,
  partsOf,
  pressureResponse,
  readReceiver,
  reflectionDensity,
  sentBy,
  settingOfRun,
  traceGroup,
  tracedReceiver,
  withRows,
  type EchoMaker,
  type Flutter,
  type Focus,
  type Hearer,
  type ReceiverReading,
  type ReflectionDensity,
  type RoomRun,
  type RunPart,
  type RunRays,
  type Sent,
} from '@pebble-hall/core/runs';
import {
  checkFaces,
  energyOverTime,
  sceneOf,
  type CheckedPoint,
  type Heard,
  type ModelFault,
  type Scene,
  type TracedFace,
} from '@pebble-hall/core/tracing';
import type { WaveModes } from '@pebble-hall/core/waves';
import QuickLRU from 'quick-lru';
import { PebbleDatabase } from '../store/database';
import {
  lowsHeard,
  modesOfWaves,
  seenLows,
  wavesOfRun,
  type LowsSeen,
  type ModesAsked,
} from './wavesOfRooms';
import { tracedByServer } from './tracedByServer';
import { radiatingOfAsked, type AskedModel } from './loudspeakerModels';
import { handOver, serveJobs, type JobContext } from './serveJobs';

let database: PebbleDatabase | undefined;
const rows = () => (database ??= new PebbleDatabase()).rays;

const runRows = (runId: string) =>
  rows().where('[runId+source+group]').between([runId, 0, 0], [runId, Infinity, Infinity]).toArray();

/** A group of a run to be traced. */
export interface GroupAsked {
  projectId: string;
  run: RoomRun;
  source: number;
  group: number;
  /** of a loudspeaker; null where it is set otherwise by now */
  channel: ChannelOf<AskedModel> | null;
}

/** What is read of a run, of as many of its groups as the page knew of. */
export interface RunAsked {
  run: RoomRun;
  /** numbers of the groups that count */
  groups: number[];
}

/** What was sent, and what was lost of it, per octave as shares. */
export interface RunBalance {
  absorbed: number[];
  escaped: number[];
  cut: number[];
  leaks: number;
  rays: number;
}

export interface RunReading {
  receivers: ReceiverReading[];
  balance: RunBalance;
  /** so many octaves, from the lowest on, are told by waves and not by rays */
  byWaves: number;
}

/** What is looked at of one receiver. */
export interface ReceiverSeen {
  /** integrated decays per octave, dB against their start, each millisecond; what is gone is -Infinity */
  decays: Float64Array[];
  /** energy per octave in each millisecond, dB against the largest of them */
  squared: Float64Array[];
  density: ReflectionDensity;
  echo: Record<EchoSignal, EchoCriterion>;
  /** the way that makes the largest value; null where no single one does */
  echoFrom: Record<EchoSignal, EchoMaker | null>;
  flutter: Flutter | null;
  /** how many curved surfaces the room has, and what one of them gathers here */
  curved: number;
  focus: Focus | null;
}

/** Interaural cross-correlation, a mean over the middle octaves; NaN where nothing arrives. */
export interface BothEars {
  early: number;
  late: number;
}

/** Echoes at each receiver: the largest value, when, and the share of listeners whom it disturbs. */
export type EchoesSeen = Record<EchoSignal, { largest: number; atS: number; share: number }>[];

const EAR_RATE = 16_000;
const MIDDLE_HZ = [500, 1000, 2000];
const meanOf = (of: readonly number[]) => of.reduce((a, b) => a + b, 0) / of.length;

const scenes = new QuickLRU<string, Scene>({ maxSize: 4 });
const sent = new QuickLRU<string, Sent>({ maxSize: 32 });
const parts = new QuickLRU<string, Promise<RunPart[]>>({ maxSize: 2 });
/** What was read before: one steps from question to question and back. */
const readings = new QuickLRU<string, RunReading>({ maxSize: 8 });
const echoes = new QuickLRU<string, EchoesSeen>({ maxSize: 8 });
const keyOf = ({ run, groups }: RunAsked) => `${run.id} ${groups.join()}`;

function sceneOfRun({ id, faces }: RoomRun): Scene {
  const made = scenes.get(id) ?? sceneOf(faces);
  scenes.set(id, made);
  return made;
}

/** What a source of a run sends: as the first of its groups had it, so that all have the same. */
async function sentIn({ run, source, channel }: GroupAsked): Promise<Sent> {
  const key = `${run.id} ${source}`;
  const known = sent.get(key);
  if (known) return known;
  const first = await rows()
    .where('[runId+source+group]')
    .between([run.id, source, 0], [run.id, source, Infinity])
    .first();
  const from = run.sources[source]!;
  if (!first && from.kind === 'loudspeaker' && !channel)
    throw new Error(`${from.name} was set otherwise before the run had begun. Start the run again.`);
  const made: Sent = first
    ? { emission: first.emission, powerDb: first.powerDb, delayS: first.delayS }
    : sentBy(
        from,
        channel &&
          channelEmission(
            { ...channel, model: await radiatingOfAsked(channel.model) },
            speedOfSound(run.air.temperatureC),
          ),
      );
  sent.set(key, made);
  return made;
}

/** Sources with what is kept of their rays, read once for all that is asked of them. */
function partsOfRun({ run, groups }: RunAsked): Promise<RunPart[]> {
  const key = keyOf({ run, groups });
  const known = parts.get(key);
  if (known) return known;
  const wanted = new Set(groups);
  const made = runRows(run.id).then((all) =>
    partsOf(
      run,
      all.filter((row) => wanted.has(row.group)),
    ),
  );
  made.catch(() => parts.delete(key));
  parts.set(key, made);
  return made;
}

/** Echoes are looked for in the octaves of 1 and 2 kHz. */
const ECHO_RATE = 16_000;
/** Pulses of a response are drawn from the run's seed, for each receiver anew. */
const heardOf = async (asked: RunAsked, index: number) => {
  const { run } = asked;
  const of = await partsOfRun(asked);
  return heardInRun(settingOfRun(run), of, tracedReceiver(run.receivers[index]!), index).all;
};
const drawnFor = ({ run }: RunAsked, index: number) => ({
  volume: run.volume,
  speed: speedOfSound(run.air.temperatureC),
  seed: run.seed + 1000 * (index + 1),
});
const responseOf = async (asked: RunAsked, index: number, rate: number) => {
  const heard = await heardOf(asked, index);
  return { heard, response: pressureResponse(heard, { rate, ...drawnFor(asked, index) }) };
};

/** What sources send, and when; of one source alone energies are as if its power were 0 dB. */
const sentOf = (of: readonly RunPart[]) =>
  of.map(({ powerDb, delayS }) =>
    of.length === 1 ? { powerDb: OCTAVES.map(() => 0), delayS: 0 } : { powerDb, delayS },
  );

/** Energies of the lowest octaves at a receiver as waves tell them; none where rays tell all. @param heard as rays tell it */
async function rowsByWaves(
  asked: RunAsked,
  index: number,
  heard: Heard,
  progress: JobContext['progress'],
): Promise<Float64Array[]> {
  const { run } = asked;
  const waves = await wavesOfRun(run, sceneOfRun(run), progress);
  const here = waves?.at[index];
  if (!here) return [];
  const sources = sentOf(await partsOfRun(asked));
  const { directS } = heard;
  const speed = speedOfSound(run.air.temperatureC);
  return energyByWaves(
    heard,
    drawnFor(asked, index),
    (into) => lowsOf(here, 'one ear', 0, { ...into, directS, sources, speed })[0]!,
    waves.octaves,
  );
}

/** Of the share of reading a run, waves take so much. */
const WAVES_SHARE = 0.8;

const jobs = {
  /** traces a group and keeps it */
  group: async (asked: GroupAsked, { tell }: JobContext) => {
    const { run, source, group, projectId } = asked;
    if (run.tracedBy === 'server') {
      const row = await tracedByServer(run, source, group, await sentIn(asked));
      await rows().put({ ...row, projectId });
      return;
    }
    const scene = sceneOfRun(run);
    let told = performance.now();
    const row: RunRays = traceGroup(run, scene, source, group, await sentIn(asked), (done) => {
      if (done % 16 === 0 && performance.now() - told > 200) {
        told = performance.now();
        tell(done / run.raysPerGroup);
      }
      return true;
    });
    await rows().put({ ...row, projectId });
  },
  /** figures at all receivers */
  read: async (asked: RunAsked, { progress }: JobContext): Promise<RunReading> => {
    const known = readings.get(keyOf(asked));
    if (known) return known;
    const { run } = asked;
    const of = await partsOfRun(asked);
    const receivers: ReceiverReading[] = [];
    let byWaves = 0;
    for (const [i, receiver] of run.receivers.entries()) {
      const heard = heardInRun(settingOfRun(run), of, tracedReceiver(receiver), i);
      const rows = await rowsByWaves(asked, i, heard.all, (share) => progress(WAVES_SHARE * share));
      receivers.push(readReceiver(of, heard, run.noiseLevelsDb, rows));
      byWaves = rows.length;
      const before = byWaves > 0 ? WAVES_SHARE : 0;
      await progress(before + ((1 - before) * (i + 1)) / run.receivers.length);
    }
    const read = { receivers, balance: balanceOf(of), byWaves };
    readings.set(keyOf(asked), read);
    return read;
  },
  /** decays, density and echoes at one receiver */
  receiver: async (
    { index, wantedPerMs, ...asked }: RunAsked & { index: number; wantedPerMs: number },
    { progress }: JobContext,
  ) => {
    const { run } = asked;
    const { heard, response } = await responseOf(asked, index, ECHO_RATE);
    const told = withRows(heard, await rowsByWaves(asked, index, heard, progress));
    const energies = OCTAVES.map((_, o) => energyOverTime(told, o));
    const of = await partsOfRun(asked);
    const echo = {
      speech: echoCriterion(response.samples, ECHO_RATE, response.zero, 'speech'),
      music: echoCriterion(response.samples, ECHO_RATE, response.zero, 'music'),
    };
    const curved = curvedSurfaces(run.faces);
    const here = [settingOfRun(run), of[0]!.source, tracedReceiver(run.receivers[index]!)] as const;
    const top = Math.max(...energies.flatMap((e) => [...e]));
    const seen: ReceiverSeen = {
      decays: energies.map(decayDb),
      squared: energies.map((e) => e.map((v) => 10 * Math.log10(v / top))),
      density: reflectionDensity(heard, run.volume, speedOfSound(run.air.temperatureC), wantedPerMs),
      echo,
      echoFrom: {
        speech: echoMaker(heard, echo.speech, 'speech'),
        music: echoMaker(heard, echo.music, 'music'),
      },
      flutter: findFlutter(...here, heard),
      curved: curved.length,
      focus: findFocus(...here, curved),
    };
    return handOver(seen, [...seen.decays, ...seen.squared]);
  },
  /** echoes at all receivers */
  echoes: async (asked: RunAsked, { progress }: JobContext): Promise<EchoesSeen> => {
    const known = echoes.get(keyOf(asked));
    if (known) return known;
    const found: EchoesSeen = [];
    for (const i of asked.run.receivers.keys()) {
      const { response } = await responseOf(asked, i, ECHO_RATE);
      const of = (signal: EchoSignal) => {
        const { largest, atS } = echoCriterion(response.samples, ECHO_RATE, response.zero, signal);
        return { largest, atS, share: disturbedShare(largest, signal) };
      };
      found.push({ speech: of('speech'), music: of('music') });
      await progress((i + 1) / asked.run.receivers.length);
    }
    echoes.set(keyOf(asked), found);
    return found;
  },
  /** direct sound of one source at points */
  direct: async ({ source, points, ...asked }: RunAsked & { source: number; points: Float64Array }) => {
    const of = await partsOfRun(asked);
    return directLevels(sceneOfRun(asked.run), of[source]!, asked.run.air, points);
  },
  /** a response to listen to or to hand on */
  response: async (
    {
      index,
      rate,
      hearer,
      head,
      ...asked
    }: RunAsked & { index: number; rate: number; hearer: Hearer; head?: Float32Array },
    { progress }: JobContext,
  ) => {
    const { azimuthDeg } = asked.run.receivers[index]!;
    const facing = (azimuthDeg * Math.PI) / 180;
    const heard = await heardOf(asked, index);
    const lows = await lowsHeard(asked.run, sceneOfRun(asked.run), index, progress);
    const sources = sentOf(await partsOfRun(asked));
    const speed = speedOfSound(asked.run.air.temperatureC);
    const { directS } = heard;
    const made = earResponses(
      heard,
      { rate, ...drawnFor(asked, index) },
      earsOfHearer(hearer, facing, head),
      'problem' in lows
        ? undefined
        : (into) => lowsOf(lows, hearer, facing, { ...into, rate, directS, sources, speed }),
    );
    return handOver(made, made.channels);
  },
  /** the lows at a receiver as waves, and how they were worked out */
  lows: ({ index, run }: { run: RoomRun; index: number }, { progress }: JobContext): Promise<LowsSeen> =>
    seenLows(run, sceneOfRun(run), index, progress),
  /** how alike both ears hear it, in the middle octaves: 500 Hz, 1 and 2 kHz */
  ears: async ({ index, ...asked }: RunAsked & { index: number }): Promise<BothEars> => {
    const { azimuthDeg } = asked.run.receivers[index]!;
    const ears = earsOf((azimuthDeg * Math.PI) / 180);
    const { channels, zero } = earResponses(
      await heardOf(asked, index),
      { rate: EAR_RATE, ...drawnFor(asked, index) },
      ears,
    );
    const { early, late } = interauralCorrelation(channels[0]!, channels[1]!, EAR_RATE, zero, MIDDLE_HZ);
    return { early: meanOf(early), late: meanOf(late) };
  },
  /** standing waves of a room of any outline */
  modes: (of: { outline: Corner[]; heightM: number; speed: number; toHz: number }): ShapeModes =>
    shapeModes(of.outline, of.heightM, of.speed, of.toHz),
  /** standing waves of a room of any shape at all, by its faces; why there are none */
  waveModes: async (
    asked: ModesAsked,
    { progress }: JobContext,
  ): Promise<WaveModes | { problem: string }> => {
    const found = await modesOfWaves(asked, progress);
    return 'problem' in found ? found : handOver(found, found.pressures);
  },
  check: (asked: { faces: TracedFace[]; sources: CheckedPoint[]; receivers: CheckedPoint[] }): ModelFault[] =>
    checkFaces(asked.faces, asked.sources, asked.receivers),
};
export type { LowsSeen };
export type RayJobs = typeof jobs;
serveJobs(jobs);

/** Integrated backwards (Schroeder 1965). */
function decayDb(energy: Float64Array): Float64Array {
  const out = new Float64Array(energy.length);
  let sum = 0;
  for (let b = energy.length - 1; b >= 0; b--) out[b] = sum += energy[b]!;
  return out.map((v) => 10 * Math.log10(v / sum));
}

function balanceOf(of: readonly RunPart[]): RunBalance {
  const groups = of.flatMap((p) => p.groups);
  const sum = (what: 'absorbed' | 'escaped' | 'cut' | 'sent') =>
    OCTAVES.map((_, o) => groups.reduce((s, g) => s + g[what][o]!, 0));
  const all = sum('sent');
  const share = (what: 'absorbed' | 'escaped' | 'cut') => sum(what).map((v, o) => v / all[o]!);
  return {
    absorbed: share('absorbed'),
    escaped: share('escaped'),
    cut: share('cut'),
    leaks: groups.reduce((s, g) => s + g.leaks, 0),
    rays: groups.reduce((s, g) => s + g.rays, 0),
  };
}
