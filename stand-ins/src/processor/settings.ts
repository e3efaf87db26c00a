import { crc32, bytesOfText } from '@pebble-hall/core/formats';
import {
  outputPath,
  type BassFeed,
  type OutputSettings,
  type ProcessorProfile,
} from '@pebble-hall/core/processing';
import { CROSSOVER_ORDERS, SECTION_KINDS, type SignalPath } from '@pebble-hall/core/path';

/** The Skerry 12: twelve outputs, six memories, FIR at 48 kHz. */
export const SKERRY = {
  model: 'Skerry 12',
  outputs: 12,
  rate: 48000,
  memories: ['A', 'B', 'C', 'D', 'E', 'F'],
  mostTaps: 8192,
  mostSections: 24,
  sectionKinds: SECTION_KINDS,
  crossovers: CROSSOVER_ORDERS,
  bassManagement: true,
  gainStepDb: 0.1,
  frequencyStepHz: 1,
  leastQ: 0.05,
  mostQ: 100,
  qStep: 0.01,
  leastSectionDb: -30,
  mostSectionDb: 15,
  leastTrimDb: -80,
  mostTrimDb: 12,
  trimStepDb: 0.1,
  mostDelayMs: 500,
  delayStepMs: 0.001,
  latencyMs: 1.25,
} as const satisfies ProcessorProfile;

export interface Memory {
  name: string;
  outputs: OutputSettings[];
  /** one per output; empty where there is none */
  filters: Float32Array[];
  savedAt: number;
}

/** All filters of a memory in output order as little-endian float 32, as they go over the wire. */
export function packFilters(filters: Float32Array[]): Uint8Array {
  const total = filters.reduce((sum, f) => sum + f.length, 0);
  const bytes = new Uint8Array(4 * total);
  const view = new DataView(bytes.buffer);
  let at = 0;
  for (const filter of filters) for (const v of filter) view.setFloat32((at += 4) - 4, v, true);
  return bytes;
}

/**
 * Undoes `packFilters`.
 * @throws RangeError when the bytes do not fit the taps, or a tap is not a finite number of sane size
 */
export function unpackFilters(bytes: Uint8Array, taps: number[]): Float32Array[] {
  const total = taps.reduce((a, b) => a + b, 0);
  if (bytes.length !== 4 * total) throw new RangeError(`filters: ${bytes.length} bytes for ${total} taps`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  return taps.map((count, output) =>
    Float32Array.from({ length: count }, (_, i) => {
      const value = view.getFloat32((at += 4) - 4, true);
      if (!(Math.abs(value) <= 64))
        throw new RangeError(`filters: tap ${i} of output ${output + 1} is ${value}`);
      return value;
    }),
  );
}

/**
 * What becomes of settings when a memory is loaded: the device takes the filters, and quietly sets trims to 0, sizes to
 * large and crossovers of corrected outputs to none, bass to the subwoofers included, as real ones do. Delays, polarity and muting stay.
 */
export const settingsAfterLoad = (outputs: OutputSettings[]): OutputSettings[] =>
  outputs.map((o) =>
    o.taps === 0 && o.sections.length === 0
      ? o
      : { ...o, trimDb: 0, size: 'large', highPass: null, lowPass: null, bassFeed: null },
  );

const feedValues = ({ gainDb, lowPass }: BassFeed) => [
  gainDb,
  lowPass && [lowPass.kind, lowPass.order, lowPass.frequency],
];

/** CRC-32 over the settings, as JSON in fixed order, and the filters. */
export function memoryChecksum(outputs: OutputSettings[], filterBytes: Uint8Array): number {
  const canonical = outputs.map((o) => [
    o.trimDb,
    o.delayMs,
    o.inverted,
    o.muted,
    o.highPass && [o.highPass.kind, o.highPass.order, o.highPass.frequency],
    o.lowPass && [o.lowPass.kind, o.lowPass.order, o.lowPass.frequency],
    o.taps,
    o.size,
    o.sections.map((x) => [x.kind, x.frequency, x.gainDb, x.q]),
    // only where there is any, so that a memory without bass management has the checksum that it always had
    ...(o.bassFeed || o.playsBass ? [[o.bassFeed && feedValues(o.bassFeed), o.playsBass]] : []),
  ]);
  return crc32(filterBytes, crc32(bytesOfText(JSON.stringify(canonical))));
}

/** What one output does, the device's latency included. */
export function skerryPath(settings: OutputSettings, filter: Float32Array): SignalPath {
  const path = outputPath(settings, filter, SKERRY.rate);
  return { ...path, delayS: path.delayS + SKERRY.latencyMs / 1000 };
}
