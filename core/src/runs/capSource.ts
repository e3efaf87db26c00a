import { capGain } from '../directivity/index.js';
import { OCTAVES } from '../room/index.js';
import {
  EMISSION_COLUMNS,
  EMISSION_ROWS,
  emissionDirections,
  emissionOf,
  type Emission,
} from '../tracing/index.js';

/** Something that sounds as a rigid sphere a part of which moves (after Flanagan 1960). */
export interface CapSource {
  /** metres */
  sphereM: number;
  /** angle from the middle of what moves to its rim, radians */
  rim: number;
}

const SPEED = 343;
/** Frequencies in an octave. */
const PER_OCTAVE = 6;
const BANDS = OCTAVES.length;

/** Energy off the axis against that on it, per octave, each degree from 0 to 180. */
function offAxis({ sphereM, rim }: CapSource): Float64Array[] {
  return OCTAVES.map((centre) => {
    const mean = new Float64Array(181);
    for (let i = 0; i < PER_OCTAVE; i++) {
      const hz = centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5);
      const gain = capGain((2 * Math.PI * hz * sphereM) / SPEED, rim);
      const ahead = gain(0);
      const onAxis = ahead.re * ahead.re + ahead.im * ahead.im;
      for (let deg = 0; deg <= 180; deg++) {
        const { re, im } = gain((deg * Math.PI) / 180);
        mean[deg] = mean[deg]! + (re * re + im * im) / onAxis / PER_OCTAVE;
      }
    }
    return mean;
  });
}
const tables = new Map<string, Float64Array[]>();

/**
 * What it sends, 0 dB at 1 m on its axis in each octave.
 * @param azimuth in which its axis points, radians counter-clockwise from x @param elevation upwards
 */
export function capEmission(of: CapSource, azimuth: number, elevation = 0): Emission {
  const key = `${of.sphereM} ${of.rim}`;
  const about = tables.get(key) ?? offAxis(of);
  tables.set(key, about);
  const aim = [
    Math.cos(elevation) * Math.cos(azimuth),
    Math.cos(elevation) * Math.sin(azimuth),
    Math.sin(elevation),
  ] as const;
  const directions = emissionDirections();
  const energies = new Float64Array(EMISSION_ROWS * EMISSION_COLUMNS * BANDS);
  for (let i = 0; i < EMISSION_ROWS * EMISSION_COLUMNS; i++) {
    const cosine =
      directions[3 * i]! * aim[0] + directions[3 * i + 1]! * aim[1] + directions[3 * i + 2]! * aim[2];
    const deg = (Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI;
    const low = Math.min(179, Math.floor(deg));
    for (let o = 0; o < BANDS; o++) {
      const [a, b] = [about[o]![low]!, about[o]![low + 1]!];
      energies[i * BANDS + o] = a + (deg - low) * (b - a);
    }
  }
  return emissionOf(energies);
}
