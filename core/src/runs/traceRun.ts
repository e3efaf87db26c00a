import { SPEECH_SPECTRUM_DB } from '../acoustics/index.js';
import { OCTAVES, speedOfSound, type PerOctave } from '../room/index.js';
import {
  emissionInto,
  traceRays,
  type Emission,
  type Scene,
  type TracedReceiver,
  type TracedSource,
} from '../tracing/index.js';
import { rayGroupOf, raysOfGroup } from './keptRays.js';
import type { RunPart, RunSetting } from './readReceiver.js';
import type { RoomRun, RunRays, RunReceiver, RunSource } from './run.js';
import { instrumentEmission } from './instruments.js';
import { talkerEmission } from './talker.js';

/** What a source of a run sends, and when. */
export type Sent = Pick<RunRays, 'emission' | 'powerDb' | 'delayS'>;

/** A channel of the plan as it sends: powers for a sine of full scale in each octave. */
type Channel = Emission & { delayS: number };

/** Speech per octave against all of it, dB: of a signal with a level of its own. */
const SPEECH_SHARES_DB: PerOctave = (() => {
  const all = 10 * Math.log10(SPEECH_SPECTRUM_DB.reduce((sum, db) => sum + 10 ** (db / 10), 0));
  return [-Infinity, ...SPEECH_SPECTRUM_DB.map((db) => db - all)];
})();

/**
 * What a source sends.
 * @param channel of a loudspeaker
 * @throws Error for a loudspeaker whose channel is not given
 */
export function sentBy(source: RunSource, channel: Channel | null): Sent {
  switch (source.kind) {
    case 'omnidirectional':
      return { emission: null, powerDb: OCTAVES.map(() => 0), delayS: 0 };
    case 'instrument': {
      const table = instrumentEmission(source.instrument, radians(source.azimuthDeg));
      return { emission: Float32Array.from(table), powerDb: OCTAVES.map(() => 0), delayS: 0 };
    }
    case 'talker': {
      const { voice, azimuthDeg, elevationDeg } = source;
      const { table, powerDb } = talkerEmission(voice, radians(azimuthDeg), radians(elevationDeg));
      return { emission: Float32Array.from(table), powerDb: [...powerDb], delayS: 0 };
    }
    case 'loudspeaker': {
      if (!channel) throw new Error(`What ${source.name} sends is not known.`);
      return {
        emission: Float32Array.from(channel.table),
        powerDb: channel.powerDb.map((db, o) => db + source.signalDbfs + SPEECH_SHARES_DB[o]!),
        delayS: channel.delayS,
      };
    }
  }
}

const radians = (deg: number) => (deg * Math.PI) / 180;

/** A receiver with the axis from one of its ears to the other. */
export const tracedReceiver = ({ position, azimuthDeg }: RunReceiver): TracedReceiver => {
  const azimuth = (azimuthDeg * Math.PI) / 180;
  return { position, lateral: { x: -Math.sin(azimuth), y: Math.cos(azimuth), z: 0 } };
};

const tracedSource = (source: RunSource, { emission }: Pick<Sent, 'emission'>): TracedSource => ({
  position: source.position,
  emission: emission && emissionInto(emission),
});

/**
 * Traces one group of rays from a source of a run.
 * @param scene of the run's faces @param onRay told after each ray
 */
export function traceGroup(
  run: RoomRun,
  scene: Scene,
  source: number,
  group: number,
  sent: Sent,
  onRay?: (done: number) => boolean,
): RunRays {
  const from = run.sources[source]!;
  const traced = traceRays(
    scene,
    {
      source: tracedSource(from, sent),
      receivers: run.receivers.map(tracedReceiver),
      rays: run.raysPerGroup,
      lengthS: run.lengthS,
      mirrored: run.mirrored,
      speed: speedOfSound(run.air.temperatureC),
      // sources know nothing of each other
      seed: run.seed + source,
      group,
    },
    onRay,
  );
  return raysOfGroup({ runId: run.id, source, group, ...sent }, traced);
}

/** Numbers of the groups that are there of every source. */
export function wholeGroups(
  { sources }: Pick<RoomRun, 'sources'>,
  there: readonly Pick<RunRays, 'source' | 'group'>[],
): number[] {
  const counts = new Map<number, number>();
  for (const { group } of there) counts.set(group, (counts.get(group) ?? 0) + 1);
  return [...counts]
    .filter(([, count]) => count === sources.length)
    .map(([group]) => group)
    .sort((a, b) => a - b);
}

/** Sources of a run with what was kept of their rays: the groups that all of them have. */
export function partsOf(run: RoomRun, rows: readonly RunRays[]): RunPart[] {
  const whole = wholeGroups(run, rows);
  return run.sources.map((source, s) => {
    const own = whole.map((group) => rows.find((r) => r.source === s && r.group === group)!);
    const [first] = own;
    if (!first) throw new RangeError('partsOf: no group of rays is there from every source');
    return {
      source: tracedSource(source, first),
      powerDb: first.powerDb,
      delayS: first.delayS,
      groups: own.map(rayGroupOf),
    };
  });
}

/** What all receivers of a run share. */
export const settingOfRun = ({ faces, mirrored, air, lengthS }: RoomRun): RunSetting => ({
  faces,
  mirrored,
  air,
  lengthS,
});
