import { needWhole } from '../limits/index.js';
import { OCTAVES, type PerOctave } from '../room/index.js';
import type { Heard, HeardInTurn } from './heard.js';
import { MIDDLE_OCTAVES, SECTORS, STRETCHES_S } from './sectors.js';
import { BIN_S } from './traceRays.js';

/** A source among several: what is heard of it, how much it sends, and when. */
export interface HeardPart {
  heard: Heard;
  /** dB, by which its energies count */
  powerDb: PerOctave;
  /** seconds after the others would */
  delayS: number;
}

const BANDS = OCTAVES.length;

/**
 * What is heard of several sources at once, their energies added up: time begins with the first of their direct sounds. Sources that
 * play the same add by pressure where their sound meets within a period; that is not told by this.
 * @throws RangeError for no source
 */
export function heardTogether(parts: readonly HeardPart[]): Heard {
  needWhole('heardTogether', 'number of sources', parts.length, 1, 1000);
  const startsS = parts.map(({ heard, delayS }) => heard.directS + delayS);
  const directS = Math.min(...startsS);
  const later = startsS.map((s) => s - directS);
  const bins = Math.max(...parts.map(({ heard }, i) => heard.bins + Math.ceil(later[i]! / BIN_S)));
  const [energy, lateral] = [new Float64Array(BANDS * bins), new Float64Array(BANDS * bins)];
  const counts = new Float64Array(bins);
  parts.forEach(({ heard, powerDb }, i) => {
    const gain = gainsOf(powerDb);
    const whole = Math.floor(later[i]! / BIN_S);
    const share = later[i]! / BIN_S - whole;
    // what is shared out between two bins keeps its energy
    const spread = (from: Float64Array, at: number, to: Float64Array, toAt: number, by: number) => {
      for (let b = 0; b < heard.bins; b++) {
        const e = by * from[at + b]!;
        const k = toAt + whole + b;
        to[k] = to[k]! + (1 - share) * e;
        if (share > 0) to[k + 1] = to[k + 1]! + share * e;
      }
    };
    for (let o = 0; o < BANDS; o++) {
      spread(heard.energy, o * heard.bins, energy, o * bins, gain[o]!);
      spread(heard.lateral, o * heard.bins, lateral, o * bins, gain[o]!);
    }
    spread(heard.counts, 0, counts, 0, 1);
  });
  const arrivals = parts
    .flatMap(({ heard, powerDb }, i) => {
      const gain = gainsOf(powerDb);
      return heard.arrivals.map((a) => ({
        ...a,
        laterS: a.laterS + later[i]!,
        energy: a.energy.map((e, o) => e * gain[o]!),
      }));
    })
    .sort((a, b) => a.laterS - b.laterS);
  return {
    directS,
    arrivals,
    bins,
    energy,
    lateral,
    counts,
    axis: parts[0]!.heard.axis,
    directions: directionsTogether(parts),
  };
}

/** Where it comes from, stretches counted from the direct sound of each source; null where it was not kept of all. */
function directionsTogether(parts: readonly HeardPart[]): Float64Array | null {
  const all = new Float64Array(STRETCHES_S.length * SECTORS);
  for (const { heard, powerDb } of parts) {
    if (!heard.directions) return null;
    const gain = meanOf(MIDDLE_OCTAVES.map((o) => 10 ** (powerDb[o]! / 10)));
    heard.directions.forEach((e, i) => (all[i] = all[i]! + gain * e));
  }
  return all;
}

const meanOf = (of: readonly number[]) => of.reduce((a, b) => a + b, 0) / of.length;

/** The same in turn without each of the groups; those of all sources that have the same number go together. */
export const heardTogetherInTurn = (
  parts: readonly (Omit<HeardPart, 'heard'> & { heard: HeardInTurn })[],
): HeardInTurn => ({
  all: heardTogether(parts.map((p) => ({ ...p, heard: p.heard.all }))),
  without: Array.from({ length: Math.min(...parts.map((p) => p.heard.without.length)) }, (_, g) =>
    heardTogether(parts.map((p) => ({ ...p, heard: p.heard.without[g]! }))),
  ),
});

const gainsOf = (powerDb: PerOctave): number[] => powerDb.map((db) => 10 ** (db / 10));
