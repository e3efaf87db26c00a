import { capEmission, type CapSource } from './capSource.js';
import { HEAD } from './talker.js';
import type { Emission } from '../tracing/index.js';

/** What makes music, as a rigid sphere of which a part moves: of brass the bell, of strings the top, held as players hold them. */
interface Instrument extends CapSource {
  /** where its axis points, degrees above the level */
  elevationDeg: number;
}

/** Half a sphere and a little less moves: an opening or a top as wide as the body. */
const WIDE = Math.PI / 3;

/** Simple directivities by size; no instrument is one to the decibel. */
export const INSTRUMENTS = {
  singer: { ...HEAD, elevationDeg: 0 },
  trumpet: { sphereM: 0.07, rim: WIDE, elevationDeg: 0 },
  trombone: { sphereM: 0.12, rim: WIDE, elevationDeg: 0 },
  violin: { sphereM: 0.12, rim: WIDE, elevationDeg: 60 },
  cello: { sphereM: 0.25, rim: WIDE, elevationDeg: 15 },
} as const satisfies Record<string, Instrument>;
export type InstrumentName = keyof typeof INSTRUMENTS;

/** What an instrument sends; its level is not known, 0 dB on the mean over all directions stands for it. @param azimuth radians counter-clockwise from x */
export const instrumentEmission = (name: InstrumentName, azimuth: number): Emission['table'] => {
  const { elevationDeg, ...cap } = INSTRUMENTS[name];
  return capEmission(cap, azimuth, (elevationDeg * Math.PI) / 180).table;
};
