import type { SpeechAndNoise } from '../acoustics/index.js';
import { speedOfSound, OCTAVES, type Air, type PerOctave } from '../room/index.js';
import {
  ENERGY_FIGURES,
  energyOverTime,
  evennessHeard,
  heardInTurn,
  heardTogetherInTurn,
  mirroredArrivals,
  sureFigures,
  type EnergyFigures,
  type HeardInTurn,
  type RayGroup,
  type SureFigures,
  type TracedFace,
  type TracedReceiver,
  type TracedSource,
} from '../tracing/index.js';
import { withRowsInTurn } from './waveEnergy.js';

/** A source of a run with what its rays brought. */
export interface RunPart {
  source: TracedSource;
  /** what it sends on the mean over all directions, at 1 m, dB SPL; 0 in every octave where its level is not known */
  powerDb: PerOctave;
  /** seconds after the others */
  delayS: number;
  groups: RayGroup[];
}

/** What all receivers of a run share. */
export interface RunSetting {
  faces: readonly TracedFace[];
  mirrored: number;
  air: Air;
  lengthS: number;
}

/** What is read at a receiver. */
export interface ReceiverReading extends SureFigures {
  /** of all sources together, dB SPL per octave; those of sources without a level are relative to 1 m */
  levelDb: number[];
  /** how evenly sound comes from all around, within 80 ms and later, see `evennessOf`; null where that was not kept */
  evenness: { early: number; late: number } | null;
}

/** What is heard at a receiver of a run, as a whole and in turn without each group. Of one source alone energies are as if its power were 0 dB. */
export function heardInRun(
  { faces, mirrored, air, lengthS }: RunSetting,
  parts: readonly RunPart[],
  receiver: TracedReceiver,
  index: number,
): HeardInTurn {
  const heard = parts.map(({ source, groups }) => {
    const request = { faces, source, receiver, mirrored, air };
    return heardInTurn(request, mirroredArrivals(request, lengthS), groups, index);
  });
  if (heard.length === 1) return heard[0]!;
  return heardTogetherInTurn(
    heard.map((h, i) => ({ heard: h, powerDb: parts[i]!.powerDb, delayS: parts[i]!.delayS })),
  );
}

/**
 * Figures at a receiver of a run. Strength is that of a single source by its power; of several together there is none.
 * @param byWaves energies of the lowest octaves as waves tell them, see `energyByWaves`: how sure those are is not known
 * @param noiseDb dB SPL per octave; null where nobody said, or levels are not known: then the speech transmission index tells of reverberation alone
 */
export function readReceiver(
  parts: readonly RunPart[],
  byRays: HeardInTurn,
  noiseDb: PerOctave | null,
  byWaves: readonly Float64Array[] = [],
): ReceiverReading {
  const heard = byWaves.length > 0 ? withRowsInTurn(byRays, byWaves) : byRays;
  const alone = parts.length === 1 ? parts[0]! : null;
  const levelDb = OCTAVES.map(
    (_, o) =>
      10 * Math.log10(energyOverTime(heard.all, o).reduce((a, b) => a + b, 0)) +
      (alone ? alone.powerDb[o]! : 0),
  );
  const levels: SpeechAndNoise | null = noiseDb && { speechDb: levelDb.slice(1), noiseDb: noiseDb.slice(1) };
  const sure = sureFigures(heard, levels);
  const evenness = evennessHeard(byRays.all);
  const read = {
    ...sure,
    figures: sure.figures.map((f, o) => (o < byWaves.length ? { ...f, lf: NaN } : f)),
    errors: sure.errors.map((e, o) => (o < byWaves.length ? UNKNOWN : e)),
  };
  return alone
    ? { ...read, levelDb, evenness }
    : { ...read, figures: read.figures.map((f) => ({ ...f, g: NaN })), levelDb, evenness };
}

const UNKNOWN = Object.fromEntries(ENERGY_FIGURES.map((f) => [f, NaN])) as unknown as EnergyFigures;

/** Metres per second in the air of a run. */
export const speedIn = ({ air }: Pick<RunSetting, 'air'>): number => speedOfSound(air.temperatureC);
