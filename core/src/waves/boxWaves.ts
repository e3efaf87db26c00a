import type { Point } from '../geometry/index.js';
import { needWithin } from '../limits/index.js';
import { checkBox, OCTAVES, speedOfSound, volumeOf, type BoxRoom } from '../room/index.js';
import { binFrequencies, type ComplexTrace } from '../signal/index.js';
import { admittanceOf } from './admittance.js';

/** A point that sends as waves: a pulse of `gain` at 1 m, so much later. */
export interface WaveSource {
  position: Point;
  delayS: number;
  gain: number;
}

/** Modes are summed up to so many times the highest frequency that is asked for: what lies above stiffens the sound near a source. */
const BEYOND = 2.5;

export interface BoxWavesRequest {
  /** Hz, and samples of the transform */
  rate: number;
  size: number;
  /** higher bins stay 0, Hz */
  upToHz: number;
  /** so many, from the lowest on: each with what walls swallow in it, as far as its neighbours */
  octaves: number;
}

/**
 * Pressure in a box as waves: the sum of its modes (Kuttruff, Room Acoustics, ch. 3), each damped by what its walls swallow as surfaces that
 * react locally: c / (2 V) of the sum of admittance and area, twice for a wall that the mode does not run along.
 * Right for small admittances, as finite differences tell it at a hundred times the cost.
 * @returns of each octave the spectrum from all sources together, from the moment they are driven; a pulse of 1 is what arrives at 1 m in the open
 */
export function boxWaves(
  room: BoxRoom,
  sources: readonly WaveSource[],
  receiver: Point,
  { rate, size, upToHz, octaves }: BoxWavesRequest,
): ComplexTrace[] {
  checkBox(room);
  needWithin('boxWaves', 'number of octaves', octaves, 1, OCTAVES.length);
  needWithin('boxWaves', 'highest frequency in Hz', upToHz, 1, rate / 2);
  const { x, y, z } = room.size;
  const speed = speedOfSound(room.air.temperatureC);
  const areas = [y * z, x * z, x * y];
  const frequency = binFrequencies(size, rate);
  const bins = Math.min(frequency.length, Math.ceil((upToHz * size) / rate) + 1);
  const turns = frequency.slice(0, bins).map((f) => 2 * Math.PI * f);
  const out = Array.from({ length: octaves }, () => ({
    frequency,
    re: new Float64Array(frequency.length),
    im: new Float64Array(frequency.length),
  }));
  // per octave and axis: what both walls across it swallow
  const lost = out.map((_, o) =>
    areas.map((area, d) => {
      const [a, b] = [room.absorption[2 * d]!, room.absorption[2 * d + 1]!];
      return ((speed * area) / (2 * volumeOf(room))) * (admittanceOf(a[o]!) + admittanceOf(b[o]!));
    }),
  );
  // an octave has no share beyond the middles of its neighbours
  const binOf = (hz: number) => Math.max(1, Math.min(bins, Math.floor((hz * size) / rate)));
  const ranges = out.map((_, o): [first: number, beyond: number] => [
    o === 0 ? 1 : binOf(OCTAVES[o - 1]!),
    o === OCTAVES.length - 1 ? bins : Math.min(bins, binOf(OCTAVES[o + 1]!) + 1),
  ]);
  const most = 2 * Math.PI * BEYOND * upToHz;
  // of all sources together, each by how much it drives the mode and when: a delay turns it from bin to bin
  const delays = [...new Set(sources.map((s) => s.delayS))];
  const turned = delays.map((delay) => ({
    re: turns.map((w) => Math.cos(w * delay)),
    im: turns.map((w) => -Math.sin(w * delay)),
  }));
  const drives = new Float64Array(delays.length);
  const scale = (4 * Math.PI * speed * speed) / volumeOf(room);
  const counts = [x, y, z].map((side) => Math.floor((most * side) / (Math.PI * speed)));
  for (let i = 0; i <= counts[0]!; i++)
    for (let j = 0; j <= counts[1]!; j++)
      for (let k = 0; k <= counts[2]!; k++) {
        const [kx, ky, kz] = [(Math.PI * i) / x, (Math.PI * j) / y, (Math.PI * k) / z];
        const own2 = speed * speed * (kx * kx + ky * ky + kz * kz);
        if (own2 > most * most) continue;
        const at = (p: Point) => Math.cos(kx * p.x) * Math.cos(ky * p.y) * Math.cos(kz * p.z);
        const doubled = [i, j, k].map((n) => (n === 0 ? 1 : 2));
        const heard = scale * doubled[0]! * doubled[1]! * doubled[2]! * at(receiver);
        drives.fill(0);
        for (const { position, delayS, gain } of sources) {
          const d = delays.indexOf(delayS);
          drives[d] = drives[d]! + gain * heard * at(position);
        }
        out.forEach(({ re, im }, o) => {
          const damping = lost[o]!.reduce((sum, by, d) => sum + by * doubled[d]!, 0);
          const [first, beyond] = ranges[o]!;
          for (let b = first; b < beyond; b++) {
            const w = turns[b]!;
            const [a, c] = [own2 - w * w, 2 * damping * w];
            const by = 1 / (a * a + c * c);
            for (let d = 0; d < drives.length; d++) {
              const [u, v] = [drives[d]! * turned[d]!.re[b]!, drives[d]! * turned[d]!.im[b]!];
              re[b] = re[b]! + by * (u * a + v * c);
              im[b] = im[b]! + by * (v * a - u * c);
            }
          }
        });
      }
  return out;
}
