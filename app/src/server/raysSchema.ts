import { roomRun } from '@pebble-hall/core/project';
import type { RoomRun, Sent } from '@pebble-hall/core/runs';
import Joi from 'joi';

/** What a source sends, as it goes over the wire: a power of nothing is null, as JSON has no other word for it. */
export interface SentOnWire {
  /** little-endian float 32, base 64; null for one that sends everywhere alike */
  emission: string | null;
  powerDb: (number | null)[];
  delayS: number;
}

export interface RaysAsked {
  run: RoomRun;
  source: number;
  group: number;
  sent: SentOnWire;
}

const MOST_GROUP = 100_000;
const EMISSION_BYTES = 4 * 37 * 72 * 8;

export const raysSchema = Joi.object<RaysAsked>({
  run: roomRun,
  source: Joi.number().integer().min(0).max(100),
  group: Joi.number().integer().min(0).max(MOST_GROUP),
  sent: Joi.object({
    emission: Joi.string()
      .base64()
      .length((EMISSION_BYTES / 3) * 4)
      .allow(null),
    powerDb: Joi.array().items(Joi.number().min(-1000).max(1000).allow(null)).length(8),
    delayS: Joi.number().min(0).max(60),
  }),
});

/** The same to trace with. */
export function sentOf({ emission, powerDb, delayS }: SentOnWire): Sent {
  const bytes = emission === null ? null : Buffer.from(emission, 'base64');
  return {
    emission:
      bytes && Float32Array.from({ length: bytes.length / 4 }, (_, i) => Math.abs(bytes.readFloatLE(4 * i))),
    powerDb: powerDb.map((v) => v ?? -Infinity),
    delayS,
  };
}
